import { ChangeDetectionStrategy, Component, computed, input, linkedSignal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import {
  sayLooser,
  SCHOOL_TEXTS,
  SCHOOLS,
  VISIT_MINUTES,
  fromOwn,
  NUMBER_NAMES,
  REGION_RULES,
  regionOf,
  REGIONS,
  toOwn,
  told,
  type HouseNumber,
  type Region,
  type HouseholdDraft,
  type SchoolId,
  type UnitSystem,
} from '@needlecase/core';
import { onto } from './onto';
import { FieldDirective, ProblemComponent } from './problems';

export type HouseholdForm = FormGroup<{
  name: FormControl<string>;
  zone: FormControl<string>;
  units: FormControl<UnitSystem>;
  region: FormControl<Region>;
  hardness: FormControl<number | null>;
  /** In which it is given. */
  hardnessUnit: FormControl<string>;
  school: FormControl<SchoolId>;
  /** Per cent. */
  risk: FormControl<number | null>;
  visitMinutes: FormControl<number | null>;
  /** Where what shuts things off is to be found. */
  stopValve: FormControl<string>;
  breaker: FormControl<string>;
  gasValve: FormControl<string>;
  /** Whom to call. */
  emergency: FormControl<string>;
  gas: FormControl<string>;
  poison: FormControl<string>;
  /** ISO 4217; empty where money is not reckoned. */
  currency: FormControl<string>;
}>;

export function householdForm(known: Partial<HouseholdDraft> = {}): HouseholdForm {
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const region = regionOf({ units: 'metric', ...known });
  return new FormGroup({
    name: new FormControl(known.name ?? '', { nonNullable: true }),
    zone: new FormControl(known.zone ?? here, { nonNullable: true }),
    units: new FormControl<UnitSystem>(known.units ?? 'metric', { nonNullable: true }),
    region: new FormControl<Region>(region, { nonNullable: true }),
    hardness: new FormControl<number | null>(
      known.hardness === undefined ? null : inHardness(known.hardness, unitIn(region)),
    ),
    hardnessUnit: new FormControl(unitIn(region), { nonNullable: true }),
    school: new FormControl<SchoolId>(known.school ?? 'steady', { nonNullable: true }),
    risk: new FormControl<number | null>(Number(((known.risk ?? 0.1) * 100).toFixed(4))),
    visitMinutes: new FormControl<number | null>(known.visitMinutes ?? VISIT_MINUTES),
    stopValve: new FormControl(known.places?.stopValve ?? '', { nonNullable: true }),
    breaker: new FormControl(known.places?.breaker ?? '', { nonNullable: true }),
    gasValve: new FormControl(known.places?.gasValve ?? '', { nonNullable: true }),
    emergency: new FormControl(known.numbers?.emergency ?? '', { nonNullable: true }),
    gas: new FormControl(known.numbers?.gas ?? '', { nonNullable: true }),
    poison: new FormControl(known.numbers?.poison ?? '', { nonNullable: true }),
    currency: new FormControl(known.currency ?? '', { nonNullable: true }),
  });
}

/** What the form asks; everything else of a household is not its business. */
const KNOWS = [
  'name',
  'zone',
  'units',
  'region',
  'hardness',
  'school',
  'risk',
  'visitMinutes',
  'currency',
  'places',
  'numbers',
] as const satisfies readonly (keyof HouseholdDraft)[];

/**
 * What the form says.
 * @param stored the household that it changes: what the form does not ask stays
 */
export function householdDraft(form: HouseholdForm, stored?: HouseholdDraft): HouseholdDraft {
  const { name, zone, units, region, hardness, school, risk, visitMinutes, currency } =
    form.getRawValue();
  const { stopValve, breaker, gasValve, emergency, gas, poison, hardnessUnit } = form.getRawValue();
  const places = filled({ stopValve, breaker, gasValve });
  const numbers = filled({ emergency, gas, poison });
  return onto<HouseholdDraft>(stored, KNOWS, {
    name: name.trim(),
    zone,
    units,
    // Said only where units do not say it already, or where it was said before.
    ...(stored?.region || region !== regionOf({ units }) ? { region } : {}),
    ...(hardness === null
      ? {}
      : { hardness: fromHardness(hardness, hardnessUnit, stored?.hardness) }),
    school,
    // A missing figure goes out as it is, so that the check can say so beside the field.
    risk: risk === null ? (risk as unknown as number) : risk / 100,
    ...(visitMinutes === null ? {} : { visitMinutes }),
    ...(currency.trim() ? { currency: currency.trim().toUpperCase() } : {}),
    ...(Object.keys(places).length ? { places } : {}),
    ...(Object.keys(numbers).length ? { numbers } : {}),
  });
}

/** What something was written into. */
const filled = (all: Record<string, string>): Record<string, string> =>
  Object.fromEntries(
    Object.entries(all).flatMap(([name, said]) => (said.trim() ? [[name, said.trim()]] : [])),
  );

/** The unit in which the hardness of water is told in a region. */
const unitIn = (region: Region): string => REGION_RULES[region].hardness;

/** mg/L in a unit of hardness, as far as a person reads it. */
const inHardness = (hardness: number, unit: string): number =>
  Number(fromOwn(hardness, 'hardness', unit).toPrecision(3));

/** mg/L of what was typed; what was not changed stays to the last digit. */
function fromHardness(typed: number, unit: string, before: number | undefined): number {
  if (before !== undefined && inHardness(before, unit) === typed) return before;
  return Number(toOwn({ value: typed, unit }, 'hardness').toFixed(2));
}

/** What a unit of hardness is called beside its sign. */
const HARDNESS_UNITS: readonly { unit: string; say: string }[] = [
  { unit: 'mg/L', say: 'mg/L CaCO₃' },
  { unit: 'ppm', say: 'ppm' },
  { unit: 'gpg', say: 'grains per gallon' },
  { unit: '°dH', say: '°dH' },
  { unit: '°f', say: '°f (French)' },
  { unit: '°e', say: '°e (Clark)' },
];

/** The fields of the household. */
@Component({
  selector: 'nc-household-fields',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="grid" [formGroup]="form()">
      <div>
        <label class="form-label" for="h-name">Name of the household</label>
        <input
          id="h-name"
          class="form-control"
          formControlName="name"
          placeholder="such as Kiln Lane House"
          autocomplete="off"
          [ncField]="prefix() + 'name'"
        />
        <nc-problem [field]="prefix() + 'name'" />
      </div>
      <div>
        <label class="form-label" for="h-zone">Time zone</label>
        <select
          id="h-zone"
          class="form-select"
          formControlName="zone"
          [ncField]="prefix() + 'zone'"
        >
          @for (zone of zones; track zone) {
            <option [value]="zone">{{ zone.replaceAll('_', ' ') }}</option>
          }
        </select>
        <nc-problem [field]="prefix() + 'zone'" />
      </div>
      <div>
        <label class="form-label" for="h-units">Units</label>
        <select id="h-units" class="form-select" formControlName="units" (change)="follow()">
          <option value="metric">Metric: litres, metres, °C</option>
          <option value="us">US customary: gallons, feet, °F</option>
        </select>
      </div>
      <div>
        <label class="form-label" for="h-region">Kind of house</label>
        <select
          id="h-region"
          class="form-select"
          formControlName="region"
          (change)="moved()"
          [ncField]="prefix() + 'region'"
        >
          @for (one of regions; track one.id) {
            <option [value]="one.id">{{ one.name }}</option>
          }
        </select>
        <nc-problem [field]="prefix() + 'region'" />
        <div class="form-text">
          What things are called, what is built in, and what the law asks.
        </div>
      </div>
      <div>
        <label class="form-label" for="h-hardness">
          Water hardness <span class="soft">(if you know it)</span>
        </label>
        <span class="with-unit">
          <input
            id="h-hardness"
            class="form-control"
            type="number"
            inputmode="decimal"
            min="0"
            formControlName="hardness"
            [ncField]="prefix() + 'hardness'"
          />
          <select
            class="form-select"
            aria-label="Unit of hardness"
            formControlName="hardnessUnit"
            (change)="measuredIn()"
          >
            @for (one of hardnessUnits; track one.unit) {
              <option [value]="one.unit">{{ one.say }}</option>
            }
          </select>
        </span>
        <nc-problem [field]="prefix() + 'hardness'" />
        <div class="form-text">
          On your water bill. Up to {{ classes()[0] }} soft, to {{ classes()[1] }} moderately hard,
          to {{ classes()[2] }} hard, above that very hard.
        </div>
      </div>
      @if (intervals()) {
        <div>
          <label class="form-label" for="h-school">Rhythm of cleaning</label>
          <select id="h-school" class="form-select" formControlName="school">
            @for (one of schools; track one.id) {
              <option [value]="one.id">{{ one.name }}</option>
            }
          </select>
          <div class="form-text">
            {{ texts[form().controls.school.value].for }}
            {{ looser(form().controls.school.value) }}
          </div>
        </div>
        <div>
          <label class="form-label" for="h-risk">Accepted chance of being late, %</label>
          <input
            id="h-risk"
            class="form-control"
            type="number"
            inputmode="numeric"
            min="2"
            max="30"
            formControlName="risk"
            [ncField]="prefix() + 'risk'"
          />
          <nc-problem [field]="prefix() + 'risk'" />
          <div class="form-text">
            From 2 to 30. How likely a part may be past its mark before it is cleaned. It acts once
            a part was opened and graded.
          </div>
        </div>
        <div>
          <label class="form-label" for="h-minutes">Minutes at work in a visit</label>
          <input
            id="h-minutes"
            class="form-control"
            type="number"
            inputmode="numeric"
            min="10"
            max="600"
            formControlName="visitMinutes"
            [ncField]="prefix() + 'visitMinutes'"
          />
          <nc-problem [field]="prefix() + 'visitMinutes'" />
          <div class="form-text">
            A proposed visit takes about this much; the rest waits for the next one.
          </div>
        </div>
        <div>
          <label class="form-label" for="h-currency">
            Money, three letters <span class="soft">(if you enter prices)</span>
          </label>
          <input
            id="h-currency"
            class="form-control"
            maxlength="3"
            placeholder="such as EUR"
            autocomplete="off"
            formControlName="currency"
            [ncField]="prefix() + 'currency'"
          />
          <nc-problem [field]="prefix() + 'currency'" />
        </div>
        @for (one of places; track one.id) {
          <div>
            <label class="form-label" [for]="'h-' + one.id"
              >{{ one.label }} <span class="soft">(where it is)</span></label
            >
            <input
              class="form-control"
              maxlength="200"
              autocomplete="off"
              [id]="'h-' + one.id"
              [placeholder]="'such as ' + one.such"
              [formControlName]="one.id"
              [ncField]="prefix() + 'places.' + one.id"
            />
            <nc-problem [field]="prefix() + 'places.' + one.id" />
          </div>
        }
        @for (one of numbers; track one.id) {
          <div>
            <label class="form-label" [for]="'h-' + one.id"
              >{{ one.label }} <span class="soft">(the number)</span></label
            >
            <input
              class="form-control"
              type="tel"
              inputmode="tel"
              maxlength="30"
              autocomplete="off"
              [id]="'h-' + one.id"
              [placeholder]="one.id === 'emergency' ? rules().emergency : ''"
              [formControlName]="one.id"
              [ncField]="prefix() + 'numbers.' + one.id"
            />
            <nc-problem [field]="prefix() + 'numbers.' + one.id" />
          </div>
        }
      }
    </div>
  `,
  styles: `
    .grid {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(17rem, 1fr));
      gap: 0.9rem 1.25rem;
    }

    .with-unit {
      display: flex;
      gap: 0.5rem;
    }

    .with-unit .form-control {
      min-width: 5rem;
    }
  `,
})
export class HouseholdFieldsComponent {
  readonly form = input.required<HouseholdForm>();
  readonly prefix = input('');
  /** Whether school and risk are asked as well. */
  readonly intervals = input(false);
  /** Told again where something has to be shut off at once. */
  protected readonly places = [
    {
      id: 'stopValve',
      label: told('Main tap of the water'),
      such: told('Cellar, behind the boiler'),
    },
    { id: 'breaker', label: 'Breaker of the machines', such: 'Hall, box 2, number 7' },
    { id: 'gasValve', label: 'Gas valve', such: 'Beside the meter' },
  ] as const;
  /** Shown where something is wrong, ready to be dialled. */
  protected readonly numbers = (Object.keys(NUMBER_NAMES) as HouseNumber[]).map((id) => ({
    id,
    label: NUMBER_NAMES[id],
  }));
  protected readonly regions = REGIONS.map((id) => ({ id, name: REGION_RULES[id].name }));
  /** The region chosen in the form. */
  readonly #region = linkedSignal(() => this.form().getRawValue().region);
  protected readonly rules = computed(() => REGION_RULES[this.#region()]);
  protected readonly hardnessUnits = HARDNESS_UNITS;
  /** The unit chosen in the form. */
  readonly #unit = linkedSignal(() => this.form().getRawValue().hardnessUnit);
  /** Where soft, moderately hard and hard end. */
  protected readonly classes = computed(() =>
    [60, 120, 180].map((most) => Math.round(fromOwn(most, 'hardness', this.#unit()))),
  );

  /** Another kind of house tells the hardness of water in another unit: the water stays as hard. */
  protected moved(): void {
    const { region, hardnessUnit } = this.form().controls;
    this.#region.set(region.value);
    hardnessUnit.setValue(unitIn(region.value));
    this.measuredIn();
  }

  /** Told in another unit the water stays as hard. */
  protected measuredIn(): void {
    const { hardness, hardnessUnit } = this.form().controls;
    if (hardness.value !== null) {
      const amount = { value: hardness.value, unit: this.#unit() };
      hardness.setValue(inHardness(toOwn(amount, 'hardness'), hardnessUnit.value));
    }
    this.#unit.set(hardnessUnit.value);
  }

  /** Units say the kind of house, until somebody says it otherwise. */
  protected follow(): void {
    const { region, units } = this.form().controls;
    if (region.dirty) return;
    region.setValue(regionOf({ units: units.value }));
    this.moved();
  }

  protected readonly texts = SCHOOL_TEXTS;
  protected readonly looser = sayLooser;
  protected readonly schools = SCHOOLS.map((id) => ({ id, name: SCHOOL_TEXTS[id].name }));
  protected readonly zones = zonesWith(Intl.DateTimeFormat().resolvedOptions().timeZone);
}

function zonesWith(here: string): string[] {
  return [...new Set([here, 'UTC', ...Intl.supportedValuesOf('timeZone')])];
}
