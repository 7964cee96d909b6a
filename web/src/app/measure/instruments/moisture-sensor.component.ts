import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { moistureSensor, type MeterReading } from '@needlecase/core';
import { ReadableDirective } from '../../charts/readable.directive';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';

const READINGS: readonly { id: MeterReading; say: string }[] = [
  { id: 'open', say: 'over range (OL or 1)' },
  { id: 'figure', say: 'a figure' },
  { id: 'zero', say: '0 Ω' },
];

/** The two strips in the drum, by a meter: dry, then with a damp cloth across. */
@Component({
  selector: 'nc-moisture-sensor',
  imports: [ReadableDirective, InstrumentComponent, RouterLink],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Plug out first. A meter on its highest or automatic ohm range (the lowest only tells 0 ohm), one probe on each of the two strips in the drum or the door’s frame."
      keep="Keep it as a look at the sensor"
      [working]="result().value?.working ?? []"
      [ready]="keepable()"
      (save)="save()"
    >
      <div draws>
        <svg
          ncReadable
          #scale="ncReadable"
          viewBox="0 0 460 190"
          class="drawing"
          role="img"
          aria-label="Two strips with a probe on each; and, wrong, both on one"
        >
          @for (x of [20, 250]; track x) {
            <rect [attr.x]="x" y="70" width="180" height="14" rx="4" />
            <rect [attr.x]="x" y="104" width="180" height="14" rx="4" />
          }
          <path class="good" d="M60 20L90 74M150 178L120 114" />
          <path class="bad" d="M290 20L320 74M400 20L370 74" />
          <path class="good" d="M190 26l8 9l16 -20" />
          <path class="bad" d="M424 14l18 18M442 14l-18 18" />
          <text x="20" y="150">one on each strip</text>
          <text x="250" y="150">both on one:</text>
          <text x="250" [attr.y]="150 + 17 * scale.px()">always 0 Ω</text>
        </svg>
      </div>
      <div form>
        @for (ask of asks; track ask.id) {
          <fieldset class="choices">
            <legend>{{ ask.say }}</legend>
            @for (one of readings; track one.id) {
              <button
                type="button"
                class="choice"
                [attr.aria-pressed]="seen()[ask.id] === one.id"
                (click)="tell(ask.id, one.id)"
              >
                {{ one.say }}
              </button>
            }
          </fieldset>
        }
        @if (seen().dry === 'figure' && seen().damp === 'figure') {
          <fieldset class="choices">
            <legend>Did it change clearly with the damp cloth?</legend>
            @for (one of [true, false]; track one) {
              <button
                type="button"
                class="choice"
                [attr.aria-pressed]="changed() === one"
                (click)="changed.set(one)"
              >
                {{ one ? 'Yes' : 'No' }}
              </button>
            }
          </fieldset>
        }
        <label class="form-check">
          <input
            #clean
            type="checkbox"
            class="form-check-input"
            [checked]="cleaned()"
            (change)="cleaned.set(clean.checked)"
          />
          I cleaned the strips and tested again
        </label>
        <label class="form-check">
          <input
            #same
            type="checkbox"
            class="form-check-input"
            [checked]="sameStrip()"
            (change)="sameStrip.set(same.checked)"
          />
          Both probes may have been on the same strip
        </label>
      </div>
      @if (result().value; as r) {
        <p class="verdict">{{ r.say }}</p>
        <p>{{ r.next }}</p>
        @if (r.outcome === 'shorted' || r.outcome === 'faulty') {
          <a
            class="btn btn-plain"
            routerLink="/trouble"
            [queryParams]="{ machine: measuring.machineId(), station: 'sensor' }"
          >
            Open a case for it
          </a>
        }
      } @else {
        <p class="soft">{{ result().problems[0]?.message ?? '' }}</p>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class MoistureSensorComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly readings = READINGS;
  protected readonly asks = [
    { id: 'dry', say: 'Nothing on the strips: the meter shows' },
    { id: 'damp', say: 'A damp cloth across both: it shows' },
  ] as const;
  protected readonly seen = signal<{ dry?: MeterReading; damp?: MeterReading }>({});
  protected readonly cleaned = signal(false);
  protected readonly sameStrip = signal(false);
  protected readonly changed = signal<boolean | undefined>(undefined);
  protected readonly result = computed(() => {
    const { dry, damp } = this.seen();
    if (!dry || !damp) return { value: undefined, problems: [] };
    const changed = this.changed();
    return this.measuring.attempt(() =>
      moistureSensor({
        dry,
        damp,
        cleaned: this.cleaned(),
        sameStrip: this.sameStrip(),
        ...(changed === undefined ? {} : { changed }),
      }),
    );
  });
  protected readonly keepable = computed(() =>
    ['works', 'clean-first', 'faulty', 'shorted'].includes(this.result().value?.outcome ?? ''),
  );

  protected tell(which: 'dry' | 'damp', reading: MeterReading): void {
    this.seen.update((seen) => ({ ...seen, [which]: reading }));
    this.changed.set(undefined);
  }

  protected save(): void {
    const r = this.result().value;
    if (!r) return;
    // Strips that a film covers are as dirty as they can be; a fault is not dirt.
    const grade = r.outcome === 'clean-first' ? 4 : r.outcome === 'works' ? 0 : undefined;
    void this.measuring.save({
      kind: 'opened',
      task: 'moisture-sensor',
      note: r.say,
      ...(grade === undefined ? {} : { grade }),
    });
  }
}
