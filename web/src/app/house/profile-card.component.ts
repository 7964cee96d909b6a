import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import {
  check,
  CIRCUMSTANCE_NAMES,
  speedUps,
  tasksOf,
  type Circumstance,
  type Household,
  type HouseholdDraft,
  type Machine,
} from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { RoleService } from '../data/role.service';
import { ToastsService } from '../data/toasts.service';

interface Row {
  circumstance: Circumstance;
  name: string;
  /** The catalogue's multipliers, lowest and highest. */
  usual: string;
  own: number | undefined;
  acts: string;
}

/** What speeds fouling up in this house: where each thing acts, how much, and the household's say. */
@Component({
  selector: 'nc-profile-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rows().length) {
      <h2>What speeds fouling up here</h2>
      <ul>
        @for (row of rows(); track row.circumstance) {
          <li>
            <span class="name">{{ row.name }}</span>
            <label>
              <span class="visually-hidden">How many times as fast: {{ row.name }}</span>
              <input
                class="form-control"
                type="number"
                inputmode="decimal"
                min="1"
                max="5"
                step="0.25"
                [readonly]="!role.may('keeper')"
                [value]="row.own ?? ''"
                [placeholder]="row.usual"
                [class.is-invalid]="wrong()?.circumstance === row.circumstance"
                [attr.aria-invalid]="wrong()?.circumstance === row.circumstance ? true : null"
                (change)="set(row.circumstance, $event)"
              />
              times as fast
            </label>
            <span class="acts soft small">
              {{ row.acts }}{{ row.own === undefined ? '' : ' Usually ' + row.usual + '.' }}
            </span>
            @if (wrong(); as one) {
              @if (one.circumstance === row.circumstance) {
                <p class="field-problem" role="alert">{{ one.message }}</p>
              }
            }
          </li>
        }
      </ul>
      <p class="soft small">
        Empty: the usual figure from common practice. What you find and grade corrects it in time.
      </p>
    }
  `,
  styles: `
    @use 'mixins' as *;

    h2 {
      font-size: 1.4rem;
      margin: 1rem 0 0.2rem;
    }

    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }

    li {
      display: grid;
      grid-template-columns: minmax(12rem, 20rem) auto 1fr;
      gap: 0 1.2rem;
      align-items: center;
      padding: 0.35rem 0;
      @include seam;
    }

    .name {
      font-weight: 600;
    }

    label {
      display: flex;
      align-items: center;
      gap: 0.5rem;
      white-space: nowrap;
    }

    input {
      width: 6rem;
    }

    .field-problem {
      grid-column: 1 / -1;
    }

    @media (max-width: 719px) {
      li {
        grid-template-columns: 1fr;
        gap: 0.2rem;
      }
    }
  `,
})
export class ProfileCardComponent {
  protected readonly role = inject(RoleService);
  readonly #service = inject(HouseholdService);
  readonly #toasts = inject(ToastsService);

  readonly household = input.required<Household>();
  readonly machines = input.required<readonly Machine[]>();
  readonly saved = output<void>();
  protected readonly wrong = signal<{ circumstance: Circumstance; message: string } | undefined>(
    undefined,
  );

  protected readonly rows = computed<Row[]>(() => {
    const { multipliers, ...plain } = this.household();
    const met = new Map<Circumstance, { at: Map<string, string[]>; figures: Set<number> }>();
    for (const machine of this.machines()) {
      for (const task of tasksOf(machine)) {
        for (const { circumstance, multiplier } of speedUps(task, machine, plain)) {
          const one = met.get(circumstance) ?? {
            at: new Map<string, string[]>(),
            figures: new Set<number>(),
          };
          one.at.set(machine.name, [...(one.at.get(machine.name) ?? []), task.name.toLowerCase()]);
          one.figures.add(multiplier);
          met.set(circumstance, one);
        }
      }
    }
    return [...met].map(([circumstance, { at, figures }]) => ({
      circumstance,
      name: capital(CIRCUMSTANCE_NAMES[circumstance]),
      usual: [...figures].sort().join(' or '),
      own: multipliers?.[circumstance],
      acts: [...at].map(([machine, tasks]) => `${machine}: ${tasks.join(', ')}.`).join(' '),
    }));
  });

  protected set(circumstance: Circumstance, event: Event): void {
    const typed = (event.target as HTMLInputElement).value.trim();
    const { id: _id, version, multipliers, ...draft } = this.household();
    const { [circumstance]: _old, ...others } = multipliers ?? {};
    const next = typed === '' ? others : { ...others, [circumstance]: Number(typed) };
    const whole: HouseholdDraft = {
      ...draft,
      ...(Object.keys(next).length ? { multipliers: next } : {}),
    };
    const problem = check('HouseholdDraft', whole)[0];
    if (problem) return this.wrong.set({ circumstance, message: problem.message });
    this.wrong.set(undefined);
    this.#service.saveHousehold(whole, version).subscribe({
      next: () => {
        this.#toasts.show('Stored. The dates have moved with it.');
        this.saved.emit();
      },
      error: (failed: ApiProblem) =>
        this.wrong.set({ circumstance, message: `${failed.title} ${failed.detail}` }),
    });
  }
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
