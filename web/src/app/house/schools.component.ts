import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { sayLooser, SCHOOL_TEXTS, type SchoolId } from '@needlecase/core';
import { catchError, of, startWith, Subject, switchMap } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { ToastsService } from '../data/toasts.service';
import { HouseNavComponent } from './house-nav.component';
import { KeeperDirective } from '../shared/keeper.directive';

const WIDTH = 520;
const MONTHS = 'JFMAMJJASOND';

/** The schools of interval side by side: what each asks of this house in a year. */
@Component({
  selector: 'nc-schools',
  imports: [KeeperDirective, HouseNavComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './schools.component.html',
  styleUrl: './schools.component.scss',
})
export class SchoolsComponent {
  readonly #service = inject(HouseholdService);
  readonly #toasts = inject(ToastsService);
  readonly #again = new Subject<void>();

  readonly #loaded = toSignal(
    this.#again.pipe(
      startWith(undefined),
      switchMap(() =>
        this.#service.schools().pipe(catchError((problem: ApiProblem) => of(problem))),
      ),
    ),
  );
  protected readonly problem = computed(() => {
    const loaded = this.#loaded();
    return loaded instanceof ApiProblem ? loaded : undefined;
  });
  readonly #view = computed(() => {
    const loaded = this.#loaded();
    return loaded instanceof ApiProblem ? undefined : loaded;
  });

  protected readonly width = WIDTH;
  protected readonly months = [...MONTHS].map((letter, i) => ({
    letter,
    x: ((i + 0.5) * WIDTH) / 12,
  }));
  protected readonly chosen = computed(() => this.#view()?.household.school);
  protected readonly rows = computed(() => {
    const view = this.#view();
    if (!view) return [];
    const { currency } = view.household;
    return view.schools.map((year) => ({
      ...year,
      name: SCHOOL_TEXTS[year.school].name,
      for: SCHOOL_TEXTS[year.school].for,
      hours: figure(year.hands / 60),
      waitingHours: figure(year.waiting / 60),
      cost: money(year.money, currency, year.unpriced),
      late: figure(year.timesPast),
      percent: Math.round(year.chance * 100),
      looser: sayLooser(year.school),
      stitches: year.calendar.map(({ day, hands }) => ({
        x: 6 + (Math.min(day, 365) / 365) * (WIDTH - 12),
        up: Math.min(20, 3 + hands / 8),
        said: `${Math.round(hands)} min`,
      })),
    }));
  });
  protected readonly busy = signal(false);

  protected use(school: SchoolId): void {
    const household = this.#view()!.household;
    const { id: _id, version, ...draft } = household;
    this.busy.set(true);
    this.#service.saveHousehold({ ...draft, school }, version).subscribe({
      next: () => {
        this.busy.set(false);
        this.#toasts.show(`The house now keeps to “${SCHOOL_TEXTS[school].name}”.`);
        this.#again.next();
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.#toasts.show(`${problem.title} ${problem.detail}`, { problem: true });
        this.#again.next();
      },
    });
  }
}

const figure = (value: number): string =>
  value < 0.095 ? '0' : value < 9.95 ? value.toFixed(1) : value.toFixed(0);

function money(amount: number, currency: string | undefined, unpriced: number): string {
  if (amount === 0 && unpriced > 0) return 'no prices known';
  const said = currency
    ? new Intl.NumberFormat(undefined, {
        style: 'currency',
        currency,
        maximumFractionDigits: 0,
      }).format(amount)
    : amount.toFixed(0);
  return unpriced ? `${said} and ${unpriced} without a price` : said;
}
