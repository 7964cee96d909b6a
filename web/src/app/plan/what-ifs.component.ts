import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { SCHOOL_TEXTS, SCHOOLS, type HouseholdDraft } from '@needlecase/core';
import type { PlanQuery } from '@needlecase/core/model/planned';
import type { YearPlan } from '@needlecase/core/plan/year-plan';
import type { PlanView } from '@needlecase/core/views/plan';
import { catchError, concatMap, EMPTY, from, last, map, switchMap } from 'rxjs';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import type { ApiProblem } from '../data/api.service';
import { wordsOf } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { PlanService } from '../data/plan.service';
import { ToastsService } from '../data/toasts.service';
import { KeeperDirective } from '../shared/keeper.directive';
import { PlannerService } from '../workers/planner.service';
import { sayHours } from './shown';

/** A year that could be. */
export interface Looked {
  name: string;
  year: YearPlan;
  trouble: { count: number; minutes: number };
  /** What the household would keep to. */
  wish: Partial<HouseholdDraft>;
}

const ROUNDS = 4;
const DAYS = [
  { name: 'Saturdays only', weekdays: '6' },
  { name: 'Saturdays, else Sundays', weekdays: '67' },
  { name: 'Weekday evenings', weekdays: '24135' },
  { name: 'Any day', weekdays: '6724135' },
] as const;
const MINUTES = [30, 45, 60, 90] as const;

interface Asked {
  group: string;
  name: string;
  query: PlanQuery;
  wish: Partial<HouseholdDraft>;
}

/** Rhythms, days and minutes side by side: what each would ask of the year. */
@Component({
  selector: 'nc-what-ifs',
  imports: [KeeperDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <caption class="visually-hidden">
        What the year would ask if it were otherwise
      </caption>
      <thead>
        <tr>
          <th scope="col">If it were</th>
          <th scope="col">Work</th>
          <th scope="col">Visits</th>
          <th scope="col">Trouble</th>
          <th scope="col"><span class="visually-hidden">Do</span></th>
        </tr>
      </thead>
      @for (group of groups; track group) {
        <tbody>
          <tr class="group">
            <th scope="rowgroup" colspan="5">{{ group }}</th>
          </tr>
          @for (row of rowsOf(group); track row.name) {
            <tr [class.looked]="looked() === row.name">
              <th scope="row">{{ row.name }}</th>
              @if (made().get(row.name); as made) {
                <td>{{ sayHours(made.year.minutes) }}</td>
                <td>{{ made.year.visits.length }}</td>
                <td>{{ made.trouble.count.toFixed(1) }}</td>
                <td class="acts">
                  <button type="button" class="btn btn-plain btn-sm" (click)="look.emit(made)">
                    Look
                  </button>
                  <button
                    *ncKeeper
                    type="button"
                    class="btn btn-plain btn-sm"
                    [attr.aria-label]="'Keep to: ' + row.name"
                    [disabled]="busy()"
                    (click)="keep(row)"
                  >
                    Keep
                  </button>
                </td>
              } @else {
                <td colspan="4" class="soft small">reckoning …</td>
              }
            </tr>
          }
        </tbody>
      }
    </table>
    <p class="soft small">
      Trouble: how many stations a year pass their limit, as far as can be known. Safety tasks keep
      their dates in all of them.
    </p>
  `,
  styles: `
    table {
      border-collapse: collapse;
      width: 100%;
    }
    th,
    td {
      font-weight: 500;
      padding: 0.15rem 0.7rem 0.15rem 0;
      text-align: start;
    }
    thead th {
      color: var(--ink-soft);
      font-size: 0.875rem;
    }
    .group th {
      border-top: 2px dashed var(--seam);
      font-family: var(--serif);
      padding-top: 0.4rem;
    }
    .looked th[scope='row'] {
      font-weight: 700;
    }
    .acts {
      text-align: end;
      white-space: nowrap;
    }
    .btn {
      margin-inline-start: 0.3rem;
    }
  `,
})
export class WhatIfsComponent {
  readonly #service = inject(PlanService);
  readonly #planner = inject(PlannerService);
  readonly #households = inject(HouseholdService);
  readonly #toasts = inject(ToastsService);

  readonly view = input.required<PlanView>();
  readonly looked = input<string>();
  readonly look = output<Looked>();
  readonly kept = output<void>();

  protected readonly busy = signal(false);
  protected readonly sayHours = sayHours;
  readonly #rows: readonly Asked[] = [
    ...SCHOOLS.map((school) => ({
      group: 'Rhythms',
      name: SCHOOL_TEXTS[school].name,
      query: { school },
      wish: { school },
    })),
    ...DAYS.map(({ name, weekdays }) => ({
      group: 'Days',
      name,
      query: { weekdays },
      wish: { plan: { weekdays: [...weekdays].map(Number) } },
    })),
    ...MINUTES.map((minutes) => ({
      group: 'Minutes a visit',
      name: `${minutes} min`,
      query: { minutes },
      wish: { visitMinutes: minutes },
    })),
  ];
  protected readonly groups = [...new Set(this.#rows.map(({ group }) => group))];
  protected readonly made = signal<ReadonlyMap<string, Looked>>(new Map());

  constructor() {
    toObservable(this.view)
      .pipe(
        switchMap(() =>
          from(this.#rows).pipe(
            concatMap(({ name, query, wish }) =>
              this.#service.problem(query).pipe(
                switchMap((problem) =>
                  this.#planner.year({ do: 'solve', problem, rounds: ROUNDS }),
                ),
                last(),
                map(({ year, trouble }): Looked => ({ name, wish, year, trouble })),
                catchError(() => EMPTY),
              ),
            ),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((one) => this.made.update((all) => new Map(all).set(one.name, one)));
  }

  protected rowsOf(group: string): readonly Asked[] {
    return this.#rows.filter((row) => row.group === group);
  }

  protected keep({ wish, query }: Asked): void {
    const { household } = this.view();
    this.busy.set(true);
    const plan = { ...household.plan, ...wish.plan, asked: true };
    this.#households
      .change(household, { ...wish, plan })
      .pipe(switchMap(() => (query.school ? this.#service.take([]) : from([[]]))))
      .subscribe({
        next: () => {
          this.busy.set(false);
          this.kept.emit();
        },
        error: (problem: ApiProblem) => {
          this.busy.set(false);
          this.#toasts.show(wordsOf(problem), { problem: true });
        },
      });
  }
}
