import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal } from '@angular/core';
import {
  dayOf,
  LASTS,
  moreAfter,
  repairOrReplace,
  runsSince,
  yearsBetween,
  type RepairQuestion,
} from '@needlecase/core';
import { instantNow } from '../../data/clock';
import { sameData } from '../../data/same-data';
import { numberOf } from '../../forms/number-of';
import { ReadableDirective } from '../../charts/readable.directive';
import { sayMoney } from '../../shared/say-money';
import { InstrumentComponent } from '../parts/instrument.component';
import { Measuring } from '../parts/measuring';

type Field = keyof RepairQuestion;

/** The drawing: years to the right, money a year upwards, so that an area is money. */
const [LEFT, FLOOR, WIDE, HIGH] = [40, 178, 400, 140];

/** Whether to repair or to replace: what either costs a year, drawn so that the areas are the money. */
@Component({
  selector: 'nc-repair-or-replace',
  imports: [ReadableDirective, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      lead="What each costs a year, as long as it lasts. Ask for the bill before anybody opens the machine; under warranty the seller comes first."
      [working]="result().value?.working ?? []"
    >
      <div draws>
        @if (result().value; as r) {
          <div class="numbers">
            <div>
              <b>{{ money(r.paysUpTo) }}</b> is the bill up to which a repair pays
            </div>
            <div>
              <b>{{ money(r.repair) }}</b> a year repaired
            </div>
            <div>
              <b>{{ money(r.replace) }}</b> a year new
            </div>
          </div>
        }
        <svg
          ncReadable
          viewBox="0 0 560 220"
          class="drawing"
          role="img"
          [attr.aria-label]="drawn()"
        >
          <path class="frame" [attr.d]="frame" />
          @for (block of blocks(); track block.name) {
            <rect
              [class]="block.kind"
              [attr.x]="block.x"
              [attr.y]="block.y"
              [attr.width]="block.width"
              [attr.height]="block.height"
            />
            <text [attr.x]="block.x + 4" [attr.y]="block.y - 8">{{ block.name }}</text>
            <text class="soft" [attr.x]="block.x + 4" y="198">{{ block.years }}</text>
          }
        </svg>
        <p class="soft small">
          To the right the years, upwards what a year costs: the areas are the bill and the price.
        </p>
      </div>
      <div form>
        @for (field of fields; track field.name) {
          <div class="pair">
            <label [for]="'rr-' + field.name">{{ field.label }}{{ unit(field.name) }}</label>
            <input
              #box
              [id]="'rr-' + field.name"
              class="form-control"
              inputmode="decimal"
              maxlength="9"
              [value]="typed()[field.name]"
              [attr.aria-invalid]="problem(field.name) ? true : null"
              [attr.aria-describedby]="'rr-' + field.name + '-wrong'"
              (input)="tell(field.name, box.value)"
            />
          </div>
          <p [id]="'rr-' + field.name + '-wrong'" class="field-problem" aria-live="polite">
            {{ problem(field.name) }}
          </p>
        }
      </div>
      @if (result().value; as r) {
        <p class="verdict">{{ r.says }}</p>
        <p>It rests on this:</p>
        <ul>
          @for (one of r.assumes; track one) {
            <li>{{ one }}</li>
          }
        </ul>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
  styles: `
    .frame {
      fill: none;
      stroke: var(--ink-soft);
      stroke-width: 1.5;
    }
    .field-problem:empty {
      display: none;
    }
  `,
})
export default class RepairOrReplaceComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields: readonly { name: Field; label: string }[] = [
    { name: 'bill', label: 'The repair would cost' },
    { name: 'price', label: 'A new one costs, brought and joined' },
    { name: 'age', label: 'It has run' },
    { name: 'lasts', label: 'Such machines last' },
    { name: 'more', label: 'Repaired it would run' },
    { name: 'saves', label: 'A new one saves a year' },
    { name: 'kWhPrice', label: 'A kWh costs' },
    { name: 'interest', label: 'Money would bring elsewhere' },
  ];
  protected readonly frame = `M${LEFT} 24V${FLOOR}H${LEFT + WIDE + 60}`;

  /** What the house knows of the machine. */
  readonly #known = computed<Record<Field, string>>(
    () => {
      const machine = this.measuring.machine();
      const { household } = this.measuring.bench() ?? {};
      const since = machine && runsSince(machine);
      const today = dayOf(Date.parse(instantNow()), household?.zone ?? 'UTC');
      const age = since && since <= today ? yearsBetween(since, today) : 6;
      const round = (value: number) => String(Math.round(10 * value) / 10);
      const price = machine?.identity?.price;
      return {
        bill: '150',
        price: String(price ? price : 600),
        age: round(age),
        lasts: String(LASTS),
        more: '',
        saves: '0',
        kWhPrice: String(household?.energyPrice ?? 0.3),
        interest: '0',
      };
    },
    { equal: sameData },
  );
  protected readonly typed = linkedSignal(() => this.#known());
  protected readonly result = computed(() =>
    this.measuring.attempt(() => {
      const { bill, price, age, ...rest } = this.typed();
      const further = Object.entries(rest).flatMap(([name, text]) =>
        text.trim() === '' ? [] : [[name, numberOf(text)] as const],
      );
      return repairOrReplace({
        ...{ bill: numberOf(bill), price: numberOf(price), age: numberOf(age) },
        ...Object.fromEntries(further),
      });
    }),
  );

  protected readonly blocks = computed(() => {
    const r = this.result().value;
    if (!r) return [];
    const { more, lasts } = r;
    const [repair, replace] = [Math.max(0, r.repair), Math.max(0, r.replace)];
    const year = WIDE / (more + lasts + 1);
    const most = Math.max(repair, replace, 1e-9);
    const block = (name: string, kind: string, from: number, years: number, cost: number) => {
      const height = (HIGH * cost) / most;
      const [x, y, width] = [LEFT + 10 + from * year, FLOOR - height, years * year];
      return { name, kind, x, y, width, height, years: `${figure(years)} years` };
    };
    return [
      block('repaired', 'water-fill', 0, more, repair),
      block('new', 'air-fill', more + Math.max(1, 70 / year), lasts, replace),
    ];
  });
  protected readonly drawn = computed(() => {
    const r = this.result().value;
    return r
      ? `Repaired ${this.money(r.repair)} a year for ${figure(r.more)} years; new ${this.money(r.replace)} a year for ${figure(r.lasts)} years`
      : 'Nothing to draw yet';
  });

  protected tell(name: Field, text: string): void {
    this.typed.set({ ...this.typed(), [name]: text });
  }

  protected problem(name: Field): string {
    return this.result().problems.find(({ field }) => field === name)?.message ?? '';
  }

  protected unit(name: Field): string {
    const currency = this.measuring.bench()?.household.currency;
    switch (name) {
      case 'bill':
      case 'price':
      case 'kWhPrice':
        return currency ? `, ${currency}` : '';
      case 'saves':
        return ', kWh';
      case 'interest':
        return ', % a year';
      case 'more':
        return `, years (empty: ${figure(moreAfter(numberOf(this.typed().age) || 0, numberOf(this.typed().lasts) || LASTS))})`;
      default:
        return ', years';
    }
  }

  protected money(amount: number): string {
    return sayMoney(amount, this.measuring.bench()?.household.currency);
  }
}

const figure = (value: number): string => String(Math.round(10 * value) / 10);
