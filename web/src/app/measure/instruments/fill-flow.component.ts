import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  FILL_FIELDS,
  fillFlow,
  fillLitres,
  say,
  sayByHand,
  SLOW_FILL,
  type Amount,
} from '@needlecase/core';
import { BandComponent } from '../parts/band.component';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { Told } from '../parts/told';
import { StopwatchComponent } from '../parts/stopwatch.component';

const FIRST: Record<string, Amount> = { volume: { value: 5, unit: 'L' } };

/** Water from the fill hose into a bucket. */
@Component({
  selector: 'nc-fill-flow',
  imports: [BandComponent, FiguresComponent, InstrumentComponent, StopwatchComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="Shut the tap, take the hose off at the machine, hold it into a bucket and open the tap fully. Shut the tap again before you put the hose back, and look for drips."
      keep="Keep this reading"
      [working]="result().value?.working ?? []"
      [ready]="result().value !== undefined"
      (save)="save()"
    >
      <div draws>
        <svg viewBox="0 0 360 190" class="drawing" aria-hidden="true">
          <path class="water" d="M20 30H190V74" [attr.stroke-width]="stream()" />
          <path d="M130 80l14 96h110l14 -96" />
          <rect
            class="water-fill"
            x="146"
            [attr.y]="174 - filled()"
            width="106"
            [attr.height]="filled()"
          />
        </svg>
        <nc-band
          line="water"
          label="Flow of the fill hose on its scale"
          [most]="24 / 60000"
          [good]="good()"
          [value]="result().value?.flow"
          [said]="said()"
        />
      </div>
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
      @if (result().value; as r) {
        <p class="verdict">{{ r.advice }}</p>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class FillFlowComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = FILL_FIELDS;
  readonly #told = new Told(() => this.measuring.example(FIRST, this.fields));
  protected readonly first = this.#told.first;
  protected readonly given = this.#told.given;
  protected readonly result = computed(() => this.measuring.attempt(() => fillFlow(this.given())));
  protected readonly good = computed(() => ({
    from: SLOW_FILL,
    to: 24 / 60_000,
    say: `enough: ${this.#perMinute(SLOW_FILL)} and more`,
  }));
  protected readonly said = computed(() => {
    const flow = this.result().value?.flow;
    if (flow === undefined) return '';
    return this.measuring.units() === 'us'
      ? sayByHand(flow, 'flow', 'us', 'gal/min')
      : sayByHand(flow, 'flow', 'metric', 'L/min');
  });
  readonly #share = computed(() =>
    Math.min(1, ((this.result().value?.flow ?? 8 / 60_000) * 60_000) / 20),
  );
  protected readonly stream = computed(() => 3 + 20 * this.#share());
  protected readonly filled = computed(() => 12 + 74 * this.#share());

  #perMinute(flow: number): string {
    return this.measuring.units() === 'us'
      ? say(flow, 'flow', 'us', 'gal/min')
      : say(flow, 'flow', 'metric', 'L/min');
  }

  protected timed(seconds: number): void {
    this.#told.tell({ seconds: { value: seconds, unit: 's' } });
  }

  protected save(): void {
    const flow = this.result().value?.flow;
    if (flow === undefined) return;
    const value = fillLitres(flow);
    void this.measuring.save({
      kind: 'reading',
      station: 'inlet-screen',
      quantity: 'fill-litres',
      value,
      unit: 'L',
    });
  }
}
