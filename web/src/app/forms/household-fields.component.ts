import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import {
  sayLooser,
  SCHOOL_TEXTS,
  SCHOOLS,
  VISIT_MINUTES,
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
  hardness: FormControl<number | null>;
  school: FormControl<SchoolId>;
  /** Per cent. */
  risk: FormControl<number | null>;
  visitMinutes: FormControl<number | null>;
  /** Where what shuts things off is to be found. */
  stopValve: FormControl<string>;
  breaker: FormControl<string>;
  gasValve: FormControl<string>;
  /** ISO 4217; empty where money is not reckoned. */
  currency: FormControl<string>;
}>;

export function householdForm(known: Partial<HouseholdDraft> = {}): HouseholdForm {
  const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return new FormGroup({
    name: new FormControl(known.name ?? '', { nonNullable: true }),
    zone: new FormControl(known.zone ?? here, { nonNullable: true }),
    units: new FormControl<UnitSystem>(known.units ?? 'metric', { nonNullable: true }),
    hardness: new FormControl<number | null>(known.hardness ?? null),
    school: new FormControl<SchoolId>(known.school ?? 'steady', { nonNullable: true }),
    risk: new FormControl<number | null>(Number(((known.risk ?? 0.1) * 100).toFixed(4))),
    visitMinutes: new FormControl<number | null>(known.visitMinutes ?? VISIT_MINUTES),
    stopValve: new FormControl(known.places?.stopValve ?? '', { nonNullable: true }),
    breaker: new FormControl(known.places?.breaker ?? '', { nonNullable: true }),
    gasValve: new FormControl(known.places?.gasValve ?? '', { nonNullable: true }),
    currency: new FormControl(known.currency ?? '', { nonNullable: true }),
  });
}

/** What the form asks; everything else of a household is not its business. */
const KNOWS = [
  'name',
  'zone',
  'units',
  'hardness',
  'school',
  'risk',
  'visitMinutes',
  'currency',
  'places',
] as const satisfies readonly (keyof HouseholdDraft)[];

/**
 * What the form says.
 * @param stored the household that it changes: what the form does not ask stays
 */
export function householdDraft(form: HouseholdForm, stored?: HouseholdDraft): HouseholdDraft {
  const { name, zone, units, hardness, school, risk, visitMinutes, currency } = form.getRawValue();
  const { stopValve, breaker, gasValve } = form.getRawValue();
  const places = Object.fromEntries(
    Object.entries({ stopValve, breaker, gasValve }).flatMap(([name, where]) =>
      where.trim() ? [[name, where.trim()]] : [],
    ),
  );
  return onto<HouseholdDraft>(stored, KNOWS, {
    name: name.trim(),
    zone,
    units,
    ...(hardness === null ? {} : { hardness }),
    school,
    // A missing figure goes out as it is, so that the check can say so beside the field.
    risk: risk === null ? (risk as unknown as number) : risk / 100,
    ...(visitMinutes === null ? {} : { visitMinutes }),
    ...(currency.trim() ? { currency: currency.trim().toUpperCase() } : {}),
    ...(Object.keys(places).length ? { places } : {}),
  });
}

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
          placeholder="Kiln Lane House"
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
        <select id="h-units" class="form-select" formControlName="units">
          <option value="metric">Metric: litres, metres, °C</option>
          <option value="us">US customary: gallons, feet, °F</option>
        </select>
      </div>
      <div>
        <label class="form-label" for="h-hardness">
          Water hardness, mg/L CaCO₃ <span class="soft">(if you know it)</span>
        </label>
        <input
          id="h-hardness"
          class="form-control"
          type="number"
          inputmode="decimal"
          min="0"
          max="2000"
          formControlName="hardness"
          [ncField]="prefix() + 'hardness'"
        />
        <nc-problem [field]="prefix() + 'hardness'" />
        <div class="form-text">
          On your water bill. 0 to 60 soft, 61 to 120 moderately hard, 121 to 180 hard, above that
          very hard.
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
            placeholder="EUR"
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
              [placeholder]="one.such"
              [formControlName]="one.id"
              [ncField]="prefix() + 'places.' + one.id"
            />
            <nc-problem [field]="prefix() + 'places.' + one.id" />
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
  `,
})
export class HouseholdFieldsComponent {
  readonly form = input.required<HouseholdForm>();
  readonly prefix = input('');
  /** Whether school and risk are asked as well. */
  readonly intervals = input(false);
  /** Told again where something has to be shut off at once. */
  protected readonly places = [
    { id: 'stopValve', label: 'Main tap of the water', such: 'Cellar, behind the boiler' },
    { id: 'breaker', label: 'Breaker of the machines', such: 'Hall, box 2, number 7' },
    { id: 'gasValve', label: 'Gas valve', such: 'Beside the meter' },
  ] as const;
  protected readonly texts = SCHOOL_TEXTS;
  protected readonly looser = sayLooser;
  protected readonly schools = SCHOOLS.map((id) => ({ id, name: SCHOOL_TEXTS[id].name }));
  protected readonly zones = zonesWith(Intl.DateTimeFormat().resolvedOptions().timeZone);
}

function zonesWith(here: string): string[] {
  return [...new Set([here, 'UTC', ...Intl.supportedValuesOf('timeZone')])];
}
