import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import { airOfBag, COST_FIELDS, heaterOf, runningCost, type Amount } from '@needlecase/core';
import { sameData } from '../../data/same-data';
import { numberOf } from '../../forms/number-of';
import { ReadableDirective } from '../../charts/readable.directive';
import { FiguresComponent } from '../parts/figures.component';
import { sayMoney } from '../../shared/say-money';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';

const USUAL: Record<string, Amount> = {
  flowNow: { value: 30, unit: 'L/s' },
  flowClean: { value: 60, unit: 'L/s' },
  dry: { value: 3, unit: 'kg' },
  moisture: { value: 60, unit: '%' },
  room: { value: 18, unit: '°C' },
};

/** What today's restriction costs a year against a clean way. */
@Component({
  selector: 'nc-running-cost',
  imports: [ReadableDirective, FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="The drum model, once with today’s air and once with the air of a clean way. Your own last readings stand there where you kept some."
      [working]="result().value?.working ?? []"
    >
      <div draws>
        @if (result().value; as r) {
          @if (r.year; as year) {
            <div class="numbers">
              <div>
                <b>{{ money(year.extraMoney) }}</b> more a year
              </div>
              <div>
                <b>{{ round(year.extraEnergy) }} kWh</b> more a year
              </div>
              <div>
                <b>{{ round(year.extraHours) }} h</b> longer a year
              </div>
            </div>
          } @else {
            <p class="verdict">{{ r.says }}</p>
          }
        }
        <svg
          ncReadable
          viewBox="0 0 560 150"
          class="drawing"
          role="img"
          aria-label="Energy and time of a load, now and clean"
        >
          @for (bar of bars(); track bar.name) {
            <text x="0" [attr.y]="bar.y + 22">{{ bar.name }}</text>
            <rect
              [class]="bar.kind"
              x="70"
              [attr.y]="bar.y"
              [attr.width]="bar.width"
              height="32"
              rx="6"
            />
            <text [attr.x]="78 + bar.width" [attr.y]="bar.y + 22">{{ bar.said }}</text>
          }
        </svg>
      </div>
      <div form>
        <nc-figures
          [fields]="fields"
          [units]="measuring.units()"
          [first]="first()"
          [problems]="result().problems"
          (given)="given.set($event)"
        />
        <div class="pair">
          <label for="price">A kWh costs, {{ currency() }}</label>
          <input
            #cost
            id="price"
            class="form-control"
            inputmode="decimal"
            maxlength="8"
            [value]="price()"
            (input)="price.set(cost.value)"
          />
        </div>
        <div class="pair">
          <label for="loads">Loads a week</label>
          <input
            #many
            id="loads"
            class="form-control"
            inputmode="decimal"
            maxlength="5"
            [value]="loads()"
            (input)="loads.set(many.value)"
          />
        </div>
        @for (one of wrong(); track one.field) {
          <p class="field-problem" role="alert">{{ one.message }}</p>
        }
        @if (result().value && priceChanged()) {
          <button type="button" class="btn btn-plain" (click)="keepPrice()">
            Keep this price for the house
          </button>
        }
      </div>
      @if (result().value; as r) {
        @if (r.year; as year) {
          <p>
            In all {{ money(year.money) }}, {{ round(year.energy) }} kWh and
            {{ round(year.hours) }} hours of drying a year.
          </p>
        }
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export default class RunningCostComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = COST_FIELDS;
  /** The last air kept of this machine, and its best. */
  protected readonly first = computed<Record<string, Amount>>(
    () => {
      const usual = this.measuring.example(USUAL, COST_FIELDS);
      const heater = {
        value: heaterOf(this.measuring.machine(), this.measuring.house()),
        unit: 'W',
      };
      const figures = this.measuring.figures()['bag-fill-time'] ?? [];
      if (!figures.length) return { ...usual, heater };
      const at = (seconds: number) => ({ value: airOfBag(seconds), unit: 'm³/s' });
      const best = Math.min(...figures.map(({ value }) => value));
      return { ...usual, heater, flowNow: at(figures[0]!.value), flowClean: at(best) };
    },
    { equal: sameData },
  );
  protected readonly given = linkedSignal(() => this.first());
  protected readonly currency = computed(
    () => this.measuring.bench()?.household.currency ?? 'your money',
  );
  readonly #housePrice = computed(() => this.measuring.bench()?.household.energyPrice);
  readonly #usualLoads = computed(() => this.measuring.machine()?.loadsPerWeek);
  protected readonly price = linkedSignal(() => String(this.#housePrice() ?? 0.3));
  protected readonly loads = linkedSignal(() => String(this.#usualLoads() ?? 4));
  protected readonly result = computed(() =>
    this.measuring.attempt(() =>
      runningCost(this.given(), {
        price: numberOf(this.price()),
        loadsPerWeek: numberOf(this.loads()),
      }),
    ),
  );
  protected readonly wrong = computed(() =>
    this.result().problems.filter(({ field }) => field === 'price' || field === 'loadsPerWeek'),
  );
  protected readonly priceChanged = computed(() => numberOf(this.price()) !== this.#housePrice());
  protected readonly bars = computed(() => {
    const r = this.result().value;
    if (!r) return [];
    const most = Math.max(r.now.energy, r.clean.energy);
    const bar = (name: string, kind: string, y: number, { minutes, energy }: typeof r.now) => ({
      name,
      kind,
      y,
      width: (240 * energy) / most,
      said: `${energy.toFixed(2)} kWh, ${Math.round(minutes)} min`,
    });
    return [bar('now', 'air-fill', 20, r.now), bar('clean', 'water-fill', 80, r.clean)];
  });
  protected readonly round = Math.round;

  protected money(amount: number): string {
    return sayMoney(amount, this.measuring.bench()?.household.currency);
  }

  protected keepPrice(): void {
    const energyPrice = numberOf(this.price());
    this.measuring.keepForHouse({ energyPrice }, 'The price is kept for the house.');
  }
}
