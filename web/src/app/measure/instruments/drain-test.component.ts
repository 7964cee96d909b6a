import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  bestOf,
  DRAIN_FIELDS,
  drainSeconds,
  drainTest,
  flowOfDrain,
  say,
  sayByHand,
  USUAL_DRAIN,
  type Amount,
} from '@needlecase/core';
import { BandComponent } from '../parts/band.component';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { StopwatchComponent } from '../parts/stopwatch.component';

const { clean: _clean, ...FIELDS } = DRAIN_FIELDS;
const FIRST: Record<string, Amount> = { litres: { value: 15, unit: 'L' } };

/** How fast the drum empties, and where the water is held back. */
@Component({
  selector: 'nc-drain-test',
  imports: [BandComponent, FiguresComponent, InstrumentComponent, RouterLink, StopwatchComponent],
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
      <div form>
        <nc-stopwatch (stopped)="timed($event)" />
        <nc-figures
          [fields]="fields"
          [units]="measuring.units()"
          [first]="first()"
          [problems]="result().problems"
          (given)="given.set($event)"
        />
      </div>
      <nc-band
        line="water"
        label="Flow of the drain on its scale"
        [most]="30 / 60000"
        [good]="usual()"
        [value]="result().value?.flow"
        [said]="said()"
        [marks]="marks()"
      />
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
        @if (r.verdict !== 'good') {
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
  protected readonly first = linkedSignal(() => this.measuring.example(FIRST, this.fields));
  protected readonly given = linkedSignal(() => this.first());
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

  protected percent(share: number): string {
    return `${Math.round(100 * share)} %`;
  }

  protected wide(flow: number): number {
    return Math.min(26, 3 + 60_000 * flow);
  }

  protected timed(seconds: number): void {
    const next = { ...this.given(), seconds: { value: seconds, unit: 's' } };
    this.first.set(next);
    this.given.set(next);
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
