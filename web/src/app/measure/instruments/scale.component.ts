import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  SCALE_FIELDS,
  scaleGrown,
  toOwn,
  WASH_TEMPERATURES,
  type Amount,
  type WashTemperature,
  inUnits,
  figure,
  HEATED_LITRES,
} from '@needlecase/core';
import { map, of, switchMap } from 'rxjs';
import { sameData } from '../../data/same-data';
import { BenchService } from '../../data/bench.service';
import { ReadableDirective } from '../../charts/readable.directive';
import { FiguresComponent } from '../parts/figures.component';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';
import { Told } from '../parts/told';
import { StripClassesComponent } from '../parts/strip-classes.component';
import { SelectComponent } from '../../shared/select.component';

/** Scale since the last descaling, and whether it is worth it yet. */
@Component({
  selector: 'nc-scale',
  imports: [
    ReadableDirective,
    FiguresComponent,
    InstrumentComponent,
    StripClassesComponent,
    SelectComponent,
  ],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="How hard the water is, how much of it was heated, and how hot. The shares that fall out are a judgement."
      [working]="result().value?.working ?? []"
    >
      <div draws>
        @if (result().value; as r) {
          <div class="numbers" aria-live="polite">
            <div>
              <b>{{ round(r.scale) }} g</b> of scale
            </div>
            <div>
              <b>{{ round(r.acid) }} g</b> of citric acid, at least, dissolve it
            </div>
            <div>
              <b>{{ r.doses }}</b> {{ r.doses === 1 ? 'dose' : 'doses' }} of
              {{ measuring.units() === 'us' ? '3.5 oz' : '100 g' }}
            </div>
          </div>
        }
        <svg
          ncReadable
          viewBox="0 0 480 150"
          class="drawing"
          role="img"
          aria-label="Scale against what one dose dissolves"
        >
          <rect x="20" y="40" width="440" height="46" rx="10" />
          <rect class="air-fill" x="20" y="40" [attr.width]="crust()" height="46" rx="10" />
          <path class="good" [attr.d]="'M' + doseAt() + ' 30v66'" />
          <text [attr.x]="doseAt()" y="122" [attr.text-anchor]="doseAnchor()">
            one dose is worth it
          </text>
        </svg>
      </div>
      <div form>
        <nc-strip-classes [hardness]="given()['hardness']" (chosen)="strip($event)" />
        <nc-figures
          [fields]="fields"
          [units]="measuring.units()"
          [first]="first()"
          [problems]="result().problems"
          (given)="given.set($event)"
        />
        <div class="pair">
          <label for="celsius">Most washes at</label>
          <select
            nc-select
            id="celsius"
            [options]="temperatures"
            [(chosen)]="temperature"
            [say]="degrees"
          ></select>
        </div>
        <p class="soft small">
          Until you say otherwise: the loads counted since the last descaling, or those of 90 days,
          at {{ aLoad() }} of heated water a load; the rinses are cold and leave no scale.
        </p>
        <button type="button" class="btn btn-plain" [disabled]="!hardness()" (click)="keep()">
          Keep this hardness for the house
        </button>
      </div>
      @if (result().value; as r) {
        <p class="verdict">
          {{
            r.worthIt
              ? 'Descaling is worth it now.'
              : r.class === 'soft' || r.class === 'moderately hard'
                ? 'Hardly any scale comes of this water.'
                : 'Not worth it yet.'
          }}
        </p>
        @if (r.daysLeft !== undefined && !r.worthIt) {
          <p>At this rate in about {{ round(r.daysLeft) }} days.</p>
        }
        <p class="soft small">
          Acid never meets chlorine: not in one cycle, and not without a full rinse between.
        </p>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class ScaleComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = SCALE_FIELDS;
  protected readonly temperatures = WASH_TEMPERATURES;
  protected readonly temperature = signal<WashTemperature>(40);
  readonly #benches = inject(BenchService);
  readonly #line = toSignal(
    toObservable(this.measuring.machineId).pipe(
      switchMap((id) =>
        id ? this.#benches.line$(id).pipe(map(({ value }) => value)) : of(undefined),
      ),
    ),
  );
  readonly #start = computed<Record<string, Amount>>(
    () => {
      const hardness = this.measuring.bench()?.household.hardness;
      const since = this.#line()?.tasks.find(({ task }) => task === 'descale')?.use;
      const perDay = ((this.measuring.machine()?.loadsPerWeek ?? 5) / 7) * HEATED_LITRES;
      return {
        ...(hardness === undefined ? {} : { hardness: { value: hardness, unit: 'mg/L' } }),
        litres: {
          value: Math.round(since === undefined ? 90 * perDay : since * HEATED_LITRES),
          unit: 'L',
        },
        litresADay: { value: Math.round(perDay), unit: 'L' },
      };
    },
    { equal: sameData },
  );
  readonly #told = new Told(() => this.#start());
  protected readonly first = this.#told.first;
  protected readonly given = this.#told.given;
  protected readonly result = computed(() =>
    this.measuring.attempt(() => scaleGrown(this.given(), this.temperature())),
  );
  protected readonly hardness = computed(() =>
    this.result().value ? this.given()['hardness'] : undefined,
  );
  readonly #most = computed(() => Math.max(160, (this.result().value?.scale ?? 0) * 1.15));
  protected readonly crust = computed(
    () => (440 * (this.result().value?.scale ?? 0)) / this.#most(),
  );
  protected readonly doseAt = computed(() => 20 + (440 * 78.1) / this.#most());
  protected readonly doseAnchor = computed(() =>
    this.doseAt() < 140 ? 'start' : this.doseAt() > 340 ? 'end' : 'middle',
  );
  protected readonly aLoad = computed(() =>
    inUnits(figure(HEATED_LITRES / 1000, 'volume', { digits: 2 }), this.measuring.units()),
  );
  protected readonly round = Math.round;

  protected readonly degrees = (celsius: number): string =>
    inUnits(figure(celsius, 'temperature'), this.measuring.units());

  protected strip(hardness: Amount): void {
    this.#told.tell({ hardness });
  }

  protected keep(): void {
    const given = this.hardness();
    if (!given) return;
    const hardness = Number(toOwn(given, 'hardness').toFixed(1));
    this.measuring.keepForHouse(
      { hardness },
      'The hardness is kept for the house; dates follow it.',
    );
  }
}
