import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  bestOf,
  DRAIN_FIELDS,
  drainSeconds,
  drainTest,
  figure,
  flowOfDrain,
  heightOfLitres,
  inUnits,
  say,
  sayByHand,
  tubLitres,
  USUAL_DRAIN,
  type Amount,
} from '@needlecase/core';
import { BandComponent } from '../parts/band.component';
import { DrumComponent } from '../parts/drum.component';
import { ReadableDirective } from '../../charts/readable.directive';
import { ListeningComponent } from '../phone/listening.component';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { Told } from '../parts/told';
import { StopwatchComponent } from '../parts/stopwatch.component';

const { clean: _clean, ...FIELDS } = DRAIN_FIELDS;
const FIRST: Record<string, Amount> = { litres: { value: 15, unit: 'L' } };

/** How fast the drum empties, and where the water is held back. */
@Component({
  selector: 'nc-drain-test',
  imports: [
    ReadableDirective,
    BandComponent,
    DrumComponent,
    FiguresComponent,
    InstrumentComponent,
    ListeningComponent,
    RouterLink,
    StopwatchComponent,
  ],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Fill to a level you know, start the drain cycle, and time it until the pump runs dry. Then once more into a bucket at the hose’s end, if you want to know where it is held back."
      keep="Keep this reading"
      [working]="result().value?.working ?? []"
      [ready]="result().value !== undefined"
      (save)="save()"
    >
      <div draws>
        <svg
          ncReadable
          viewBox="0 0 560 300"
          class="drawing"
          role="group"
          aria-label="The water in the drum, and its way through pump and hose"
        >
          <path class="wall" d="M10 290H550" />
          <g
            nc-drum
            [height]="height()"
            label="Water in the drum"
            [said]="saidWater()"
            (slid)="slide($event)"
          />
          <path class="water" d="M125 241V262H270" [attr.stroke-width]="stream()" />
          <circle class="pump" cx="270" cy="262" r="17" />
          <path d="M262 254l16 16M278 254l-16 16" />
          <text class="soft" x="296" y="283">pump</text>
          <path
            class="water"
            d="M287 262H330V62Q330 40 352 40H378Q398 40 398 60V96"
            [attr.stroke-width]="stream()"
          />
          <path d="M386 84V290M410 84V290" />
          <text class="soft" x="422" y="100">pipe</text>
          <text x="236" y="70">{{ saidWater() }}</text>
          @if (result().value; as r) {
            <text x="422" y="150">{{ perMinute(r.flow) }}</text>
          }
        </svg>
        <nc-band
          line="water"
          label="Flow of the drain on its scale"
          [most]="30 / 60000"
          [good]="usual()"
          [value]="result().value?.flow"
          [said]="said()"
          [marks]="marks()"
        />
        <p class="small">
          @if (!measuring.dry) {
            <a routerLink="/measure/tub-water" [queryParams]="{ machine: measuring.machineId() }"
              >How much is in the tub?</a
            >
          }
          Slide the water to where it stands behind the glass: the litres are those of a common
          drum.
        </p>
      </div>
      <div form>
        <nc-stopwatch #watch (stopped)="timed($event)" />
        @if (listens()) {
          <nc-listening [watch]="watch" />
        } @else if (!measuring.dry) {
          <button type="button" class="btn btn-plain" (click)="listens.set(true)">
            Let the phone listen for the end
          </button>
        }
        <nc-figures
          [fields]="fields"
          [units]="measuring.units()"
          [first]="first()"
          [problems]="result().problems"
          more="Into a bucket, too"
          (given)="given.set($event)"
        />
      </div>
      @if (result().value; as r) {
        <p class="verdict">{{ r.advice }}</p>
        <p>
          {{ percent(r.share) }} of
          {{
            clean() === undefined
              ? 'the lower end of what is usual'
              : 'this machine’s own when clean'
          }}.
        </p>
        @if (r.bucket !== undefined) {
          <svg
            ncReadable
            viewBox="0 0 520 170"
            class="drawing"
            role="img"
            [attr.aria-label]="
              'Into a bucket ' + perMinute(r.bucket) + ', into the pipe ' + perMinute(r.flow)
            "
          >
            <path class="water" d="M20 40H180" [attr.stroke-width]="wide(r.bucket)" />
            <path d="M190 24l10 70h70l10 -70" />
            <text x="205" y="116">bucket: {{ perMinute(r.bucket) }}</text>
            <path class="water" d="M20 140H180" [attr.stroke-width]="wide(r.flow)" />
            <path d="M200 100v62h24v-62" [class.bad]="r.where === 'pipe' || r.where === 'both'" />
            <text x="240" y="150">pipe: {{ perMinute(r.flow) }}</text>
          </svg>
        }
        @if (!measuring.dry && r.verdict !== 'good') {
          <p>
            <a
              routerLink="/trouble"
              [queryParams]="{ machine: measuring.machineId(), station: 'pump-filter' }"
              >Look for the cause</a
            >
          </p>
        }
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class DrainTestComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = FIELDS;
  protected readonly listens = signal(false);
  readonly #told = new Told(() => this.measuring.example(FIRST, this.fields));
  protected readonly first = this.#told.first;
  protected readonly given = this.#told.given;
  /** This machine's own best flow in the log, m³/s. */
  protected readonly clean = computed(() =>
    bestOf(this.measuring.figures()['drain-time'], flowOfDrain),
  );
  protected readonly result = computed(() => {
    const clean = this.clean();
    const own = clean === undefined ? {} : { clean: { value: clean, unit: 'm³/s' } };
    return this.measuring.attempt(() => drainTest({ ...this.given(), ...own }));
  });
  protected readonly usual = computed(() => ({
    from: USUAL_DRAIN.least,
    to: USUAL_DRAIN.most,
    say: `usual: ${this.perMinute(USUAL_DRAIN.least)} to ${this.perMinute(USUAL_DRAIN.most)}`,
  }));
  protected readonly said = computed(() => {
    const flow = this.result().value?.flow;
    if (flow === undefined) return '';
    return this.measuring.units() === 'us'
      ? sayByHand(flow, 'flow', 'us', 'gal/min')
      : sayByHand(flow, 'flow', 'metric', 'L/min');
  });
  protected readonly marks = computed(() => {
    const clean = this.clean();
    return clean === undefined ? [] : [{ at: clean, say: 'your clean' }];
  });

  protected perMinute(flow: number): string {
    return this.measuring.units() === 'us'
      ? say(flow, 'flow', 'us', 'gal/min')
      : say(flow, 'flow', 'metric', 'L/min');
  }

  protected readonly height = computed(() => heightOfLitres(this.#litres()));
  protected readonly saidWater = computed(() =>
    inUnits(figure(this.#litres() / 1000, 'volume'), this.measuring.units()),
  );
  /** As wide as it flows, and as a healthy machine's while that is not known. */
  protected readonly stream = computed(() =>
    this.wide(this.result().value?.flow ?? USUAL_DRAIN.least),
  );
  readonly #litres = computed(() =>
    Math.max(0, 1000 * (this.#told.in('litres', 'volume', 'm³') ?? 0)),
  );

  /** Takes the height that the water was slid to, m. */
  protected slide(height: number): void {
    const litres = Math.max(0.5, Math.round(2 * tubLitres(height)) / 2);
    this.#told.tell({ litres: { value: litres, unit: 'L' } });
  }

  protected percent(share: number): string {
    return `${Math.round(100 * share)} %`;
  }

  protected wide(flow: number): number {
    return Math.min(26, 3 + 60_000 * flow);
  }

  protected timed(seconds: number): void {
    this.#told.tell({ seconds: { value: seconds, unit: 's' } });
  }

  protected save(): void {
    const flow = this.result().value?.flow;
    if (flow === undefined) return;
    const value = drainSeconds(flow);
    void this.measuring.save({
      kind: 'reading',
      station: 'pump-filter',
      quantity: 'drain-time',
      value,
      unit: 's',
    });
  }
}
