import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import {
  airOfBag,
  ANEMOMETER_FIELDS,
  bagSeconds,
  bestOf,
  BAG_FIELDS,
  healthyFlow,
  heaterOf,
  hoodAirByBag,
  hoodAirBySpeed,
  sayByHand,
  type Amount,
  inUnits,
  figure,
} from '@needlecase/core';
import { BandComponent } from '../parts/band.component';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { HerePipe } from '../../shared/here.pipe';

const BAG_FIRST = { bag: { value: 113, unit: 'L' } };

/** Air at the hood, by a bag or an anemometer. */
@Component({
  selector: 'nc-hood-air',
  imports: [HerePipe, BandComponent, FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Let the dryer run on a timed cycle without heat, and stand outside on the ground, never on a ladder. Keep the bag off the flap’s way, and let go after 5 seconds."
      keep="Keep this reading"
      [working]="result().value?.working ?? []"
      [ready]="result().value !== undefined"
      (save)="save()"
    >
      <div draws>
        <svg viewBox="0 0 420 200" aria-hidden="true" class="drawing">
          <path class="wall" d="M60 10V190M60 60h-40M60 120h-40" />
          <path class="hood" d="M60 62h34l14 28v30H60z" />
          <path class="flap" [attr.d]="flap()" />
          <path class="bag" [attr.d]="bagPath()" />
          <path class="air" d="M24 90H150" [attr.stroke-width]="thread()" />
        </svg>
        <nc-band
          label="Air at the hood on its scale"
          [most]="0.13"
          [good]="healthy()"
          [value]="result().value?.flow"
          [said]="said()"
          [marks]="marks()"
        />
      </div>
      <div form>
        <div class="ways" role="group" aria-label="How you measure">
          @for (way of ways; track way) {
            <button
              type="button"
              class="btn"
              [class.btn-thread]="by() === way"
              [class.btn-plain]="by() !== way"
              [attr.aria-pressed]="by() === way"
              (click)="by.set(way)"
            >
              {{ (way === 'bag' ? 'A bin bag' : 'An anemometer') | here }}
            </button>
          }
        </div>
        @if (by() === 'bag') {
          <nc-figures
            [fields]="bagFields"
            [units]="measuring.units()"
            [first]="bagFirst()"
            [problems]="result().problems"
            (given)="bag.set($event)"
          />
        } @else {
          <nc-figures
            [fields]="speedFields"
            [units]="measuring.units()"
            [problems]="result().problems"
            (given)="speed.set($event)"
          />
        }
      </div>
      @if (result().value; as r) {
        <p class="verdict">{{ verdicts[r.verdict] }}</p>
        @if (r.ofBest !== undefined) {
          <p>{{ percent(r.ofBest) }} of this machine’s own best.</p>
        }
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class HoodAirComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly bagFields = BAG_FIELDS;
  protected readonly speedFields = ANEMOMETER_FIELDS;
  protected readonly bagFirst = computed(() => this.measuring.example(BAG_FIRST, BAG_FIELDS));
  protected readonly ways = ['bag', 'speed'] as const;
  protected readonly by = signal<'bag' | 'speed'>('bag');
  protected readonly bag = linkedSignal(() => this.bagFirst());
  protected readonly speed = signal<Record<string, Amount>>({});

  /** The most air that the log has of this machine, m³/s. */
  protected readonly best = computed(() =>
    bestOf(this.measuring.figures()['bag-fill-time'], airOfBag),
  );
  protected readonly against = computed(() => ({
    best: this.best(),
    heater: heaterOf(this.measuring.machine(), this.measuring.house()),
  }));
  protected readonly result = computed(() =>
    this.measuring.attempt(() =>
      this.by() === 'bag'
        ? hoodAirByBag(this.bag(), this.against())
        : hoodAirBySpeed(this.speed(), this.against()),
    ),
  );
  protected readonly said = computed(() => {
    const flow = this.result().value?.flow;
    return flow === undefined ? '' : sayByHand(flow, 'flow', this.measuring.units());
  });
  protected readonly healthy = computed(() => {
    const at = (flow: number) =>
      inUnits(figure(flow, 'flow', { digits: 2 }), this.measuring.units());
    const { least, most } = healthyFlow(this.against().heater);
    return { from: least, to: most, say: `healthy: ${at(least)} to ${at(most)}` };
  });
  protected readonly marks = computed(() => {
    const best = this.best();
    return best === undefined ? [] : [{ at: best, say: 'your best' }];
  });
  protected readonly verdicts = {
    weak: 'Weak: something holds the air back between the screen and the hood.',
    healthy: 'Healthy.',
    strong: 'More than is usual. Check the figures, or be glad.',
  };

  readonly #share = computed(() => Math.min(1, (this.result().value?.flow ?? 0.05) / 0.1));
  protected readonly thread = computed(() => 3 + 16 * this.#share());
  protected readonly flap = computed(() => {
    const lift = 6 + 26 * this.#share();
    return `M108 92l${lift} ${32 - lift}`;
  });
  protected readonly bagPath = computed(() => {
    const w = 60 + 150 * this.#share();
    return `M150 62C${150 + w} 20 ${160 + w} 60 ${160 + w} 92S${150 + w} 165 150 122Z`;
  });

  protected percent(share: number): string {
    return `${Math.round(100 * share)} %`;
  }

  protected save(): void {
    const flow = this.result().value?.flow;
    if (flow === undefined) return;
    const value = bagSeconds(flow);
    void this.measuring.save({
      kind: 'reading',
      station: 'hood',
      quantity: 'bag-fill-time',
      value,
      unit: 's',
    });
  }
}
