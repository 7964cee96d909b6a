import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import {
  DOSE_FIELDS,
  dose,
  LABEL_LOAD,
  SOILS,
  type Amount,
  type Detergent,
  type DoseUnit,
  type Soil,
} from '@needlecase/core';
import { attempt } from './attempt';
import { FiguresComponent, numberOf } from './figures.component';
import { InstrumentComponent } from './instrument.component';
import { Measuring } from './measuring';

const USUAL: Detergent = {
  name: 'Our detergent',
  unit: 'ml',
  soft: 55,
  medium: 75,
  hard: 95,
  labelLoad: LABEL_LOAD,
};
const LABEL_FIELDS = [
  { id: 'soft', say: 'Label, soft water' },
  { id: 'medium', say: 'Label, medium water' },
  { id: 'hard', say: 'Label, hard water' },
  { id: 'labelLoad', say: 'Label’s load, kg' },
  { id: 'density', say: 'Density, g/ml' },
  { id: 'pack', say: 'A pack holds' },
  { id: 'price', say: 'A pack costs' },
] as const;

/** What this load needs, and what is poured over it. */
@Component({
  selector: 'nc-dose',
  imports: [FiguresComponent, InstrumentComponent],
  providers: [Measuring],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nc-instrument
      name="Dose"
      lead="The label’s own figures, the load and the water. Too much feeds slime, foams and costs; too little leaves grey."
      [working]="result().value?.working ?? []"
    >
      <div form>
        <nc-figures
          [fields]="fields"
          [units]="measuring.units()"
          [first]="first()"
          [problems]="result().problems"
          (given)="given.set($event)"
        />
        <div class="pair">
          <label for="soil">Soil</label>
          <select #how id="soil" class="form-select" (change)="soil.set($any(how.value))">
            @for (one of soils; track one) {
              <option [value]="one" [selected]="one === soil()">{{ one }}</option>
            }
          </select>
        </div>
        <div class="pair">
          <label for="poured">You pour today, {{ pouredUnit() }}</label>
          <input
            #today
            id="poured"
            class="form-control"
            inputmode="decimal"
            maxlength="8"
            [value]="poured()"
            (input)="poured.set(today.value)"
            [attr.aria-invalid]="wrong('poured') ? true : null"
          />
        </div>
        @if (wrong('poured'); as message) {
          <p class="field-problem" role="alert">{{ message }}</p>
        }
        <details>
          <summary>The detergent’s label</summary>
          <div class="pair">
            <label for="unit">Its dose is in</label>
            <select #which id="unit" class="form-select" (change)="setUnit($any(which.value))">
              <option value="ml" [selected]="detergent().unit === 'ml'">ml</option>
              <option value="g" [selected]="detergent().unit === 'g'">g</option>
            </select>
          </div>
          <div class="pair">
            <label for="poured-in">You pour in</label>
            <select
              #into
              id="poured-in"
              class="form-select"
              (change)="pouredUnit.set($any(into.value))"
            >
              <option value="ml" [selected]="pouredUnit() === 'ml'">ml</option>
              <option value="g" [selected]="pouredUnit() === 'g'">g</option>
            </select>
          </div>
          @for (one of labels; track one.id) {
            <div class="pair">
              <label [for]="'label-' + one.id">{{ one.say }}</label>
              <input
                #field
                [id]="'label-' + one.id"
                class="form-control"
                inputmode="decimal"
                maxlength="8"
                [value]="detergent()[one.id] ?? ''"
                (change)="setLabel(one.id, field.value)"
                [attr.aria-invalid]="wrong('detergent.' + one.id) ? true : null"
              />
            </div>
            @if (wrong('detergent.' + one.id); as message) {
              <p class="field-problem" role="alert">{{ message }}</p>
            }
          }
          <button type="button" class="btn btn-plain" [disabled]="!result().value" (click)="keep()">
            Keep this detergent for the house
          </button>
        </details>
      </div>
      @if (result().value; as r) {
        <div class="numbers" aria-live="polite">
          <div>
            <b>{{ round(r.needed) }} {{ detergent().unit }}</b> this load needs
          </div>
          @if (r.over !== undefined && r.over > 0) {
            <div>
              <b>{{ round(r.over) }} {{ detergent().unit }}</b> too much today
            </div>
          }
          @if (r.year; as year) {
            <div>
              <b>{{ big(year.over) }}</b> over in a year
            </div>
            @if (year.money !== undefined) {
              <div>
                <b>{{ year.money.toFixed(2) }}</b> {{ currency() }} of it a year
              </div>
            }
          }
        </div>
        <svg
          viewBox="0 0 460 210"
          class="drawing"
          role="img"
          aria-label="The dosing cup: what is needed, and what is poured"
        >
          @for (cup of cups(); track cup.name) {
            <rect
              class="water-fill"
              [attr.x]="cup.x + 6"
              [attr.y]="180 - cup.level"
              width="88"
              [attr.height]="cup.level"
            />
            <path [attr.d]="'M' + cup.x + ' 24l6 156h88l6 -156'" />
            <text [attr.x]="cup.x + 50" y="202" text-anchor="middle">{{ cup.name }}</text>
          }
          @if (cups()[0]; as needed) {
            <path
              class="bad"
              stroke-dasharray="6 5"
              [attr.d]="'M40 ' + (180 - needed.level) + 'H400'"
            />
          }
        </svg>
        <p class="soft small">{{ r.rule }}</p>
        <p>
          Softener: none is best for towels, seals and the dryer’s screen. If you want it, half of
          the label with as much water.
        </p>
      }
    </nc-instrument>
  `,
  styleUrl: './instruments.scss',
})
export class DoseComponent {
  protected readonly measuring = inject(Measuring);
  protected readonly fields = DOSE_FIELDS;
  protected readonly soils = SOILS;
  protected readonly labels = LABEL_FIELDS;
  protected readonly soil = signal<Soil>('normal');
  protected readonly first = computed<Record<string, Amount>>(() => {
    const hardness = this.measuring.bench()?.household.hardness;
    return {
      load: { value: 4, unit: 'kg' },
      ...(hardness === undefined ? {} : { hardness: { value: hardness, unit: 'mg/L' } }),
    };
  });
  protected readonly given = linkedSignal(() => this.first());
  protected readonly detergent = linkedSignal<Detergent>(
    () => this.measuring.bench()?.household.detergent ?? USUAL,
  );
  protected readonly poured = signal('');
  protected readonly pouredUnit = linkedSignal<DoseUnit>(() => this.detergent().unit);
  protected readonly result = computed(() => {
    const { name: _name, ...detergent } = this.detergent();
    const poured = this.poured().trim();
    return attempt(() =>
      dose(this.given(), {
        detergent,
        soil: this.soil(),
        loadsPerWeek: this.measuring.machine()?.loadsPerWeek ?? 4,
        ...(poured ? { poured: { value: numberOf(poured), unit: this.pouredUnit() } } : {}),
      }),
    );
  });
  protected readonly currency = computed(() => this.measuring.bench()?.household.currency ?? '');
  protected readonly cups = computed(() => {
    const r = this.result().value;
    if (!r) return [];
    const most = Math.max(r.needed, r.poured ?? 0, 1) * 1.1;
    const cup = (name: string, x: number, amount: number) => ({
      name,
      x,
      level: (150 * amount) / most,
    });
    return [
      cup('needed', 60, r.needed),
      ...(r.poured === undefined ? [] : [cup('poured', 260, r.poured)]),
    ];
  });
  protected readonly round = Math.round;

  constructor() {
    this.measuring.kinds.set(['front-load-washer', 'top-load-washer']);
  }

  protected wrong(field: string): string {
    return this.result().problems.find((one) => one.field === field)?.message ?? '';
  }

  /** Litres and kilograms where it is a lot. */
  protected big(amount: number): string {
    const unit = this.detergent().unit;
    return amount < 1000
      ? `${Math.round(amount)} ${unit}`
      : `${(amount / 1000).toFixed(1)} ${unit === 'ml' ? 'L' : 'kg'}`;
  }

  protected setUnit(unit: DoseUnit): void {
    this.detergent.update((one) => ({ ...one, unit }));
  }

  protected setLabel(id: (typeof LABEL_FIELDS)[number]['id'], text: string): void {
    this.detergent.update(
      ({ [id]: _was, ...rest }) =>
        ({
          ...rest,
          ...(text.trim() === '' ? {} : { [id]: numberOf(text) }),
        }) as Detergent,
    );
  }

  protected keep(): void {
    const detergent = this.detergent();
    this.measuring.keepForHouse({ detergent }, 'The detergent is kept for the house.');
  }
}
