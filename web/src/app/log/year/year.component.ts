import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { many, sayDay } from '@needlecase/core';
import type { MonthOfCare, YearView } from '@needlecase/core/views/year';
import { catchError, map, of, startWith, switchMap } from 'rxjs';
import { ReadableDirective } from '../../charts/readable.directive';
import { AccessService } from '../../data/access.service';
import { wordsOf, type ApiProblem } from '../../data/api.service';
import { ChangesService } from '../../data/changes.service';
import { YearService } from '../../data/year.service';
import { sayLength } from '../../shared/minutes';
import { LogHeadComponent } from '../log-head.component';

interface Loaded {
  view?: YearView;
  wrong?: string;
}
const NOTHING: Loaded = {};

const WIDTH = 1060;
const PLOT = { left: 34, right: WIDTH - 8, top: 12, bottom: 190 } as const;
/** Units of the drawing between the stitches of two people in one week. */
const APART = 5;
/** Stitches lean so much of their length, as everywhere. */
const LEAN = 0.14;
/** The scale goes so far at least, minutes. */
const LEAST_TOP = 60;

/** A year of care as it was: each week's minutes as stitches, one a person; what each month asked and cost. */
@Component({
  selector: 'nc-year',
  imports: [LogHeadComponent, ReadableDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './year.component.html',
  styleUrl: './year.component.scss',
})
export class YearComponent {
  readonly #service = inject(YearService);
  readonly #persons = toSignal(inject(AccessService).persons$.pipe(catchError(() => of([]))), {
    initialValue: [],
  });
  readonly #loaded = toSignal(
    inject(ChangesService)
      .of('entries')
      .pipe(
        startWith(undefined),
        switchMap(() =>
          this.#service.view().pipe(
            map((view): Loaded => ({ view })),
            catchError((problem: ApiProblem) => of<Loaded>({ wrong: wordsOf(problem) })),
          ),
        ),
      ),
    { initialValue: NOTHING },
  );
  protected readonly view = computed(() => this.#loaded().view);
  protected readonly wrong = computed(() => this.#loaded().wrong ?? '');

  protected readonly width = WIDTH;
  protected readonly plot = PLOT;
  readonly #top = computed(() =>
    Math.max(LEAST_TOP, ...(this.view()?.weeks ?? []).map(({ minutes }) => minutes)),
  );
  protected readonly hours = computed(() => {
    const step = this.#top() > 360 ? 120 : 60;
    return Array.from({ length: Math.floor(this.#top() / step) }, (_, i) => (i + 1) * step).map(
      (minutes) => ({ y: this.#y(minutes), say: `${minutes / 60} h` }),
    );
  });
  readonly #y = (minutes: number): number =>
    PLOT.bottom - ((PLOT.bottom - PLOT.top) * minutes) / this.#top();
  readonly #x = (week: number): number =>
    PLOT.left + ((PLOT.right - PLOT.left) * (week + 0.5)) / (this.view()?.weeks.length ?? 1);
  protected readonly people = computed(() =>
    (this.view()?.people ?? []).map((one, i) => ({
      ...one,
      place: i % 4,
      name: this.#nameOf(one.author),
      said: `${sayLength(Math.round(one.minutes))}, ${many(one.tasks, 'task')}`,
    })),
  );
  #nameOf(author: string): string {
    const person = this.#persons().find(({ id }) => id === author);
    return person?.name ?? (author === 'household' ? 'the household' : author);
  }
  protected readonly stitches = computed(() =>
    (this.view()?.weeks ?? []).flatMap(({ who }, week) =>
      who.map(({ author, minutes }, i) => {
        const x = this.#x(week) + APART * (i - (who.length - 1) / 2);
        const [bottom, top] = [PLOT.bottom - 4, this.#y(minutes)];
        const lean = (LEAN * Math.max(6, bottom - top)) / 2;
        return {
          d: `M${x - lean} ${bottom}L${x + lean} ${Math.min(top, bottom - 5)}`,
          place: Math.max(0, this.people().find((one) => one.author === author)?.place ?? 0),
        };
      }),
    ),
  );
  protected readonly months = computed(() => {
    const { weeks = [] } = this.view() ?? {};
    const shown: { x: number; say: string }[] = [];
    weeks.forEach(({ from }, i) => {
      const say = MONTHS.format(Date.parse(from));
      if (shown.at(-1)?.say !== say) shown.push({ x: this.#x(i), say });
    });
    return shown.filter((_, i) => i % 2 === 1);
  });
  protected readonly said = computed(() => {
    const { weeks = [] } = this.view() ?? {};
    const minutes = weeks.reduce((sum, week) => sum + week.minutes, 0);
    const idle = weeks.filter((week) => week.minutes === 0).length;
    const worked = `${sayLength(Math.round(minutes))} at work in fifty-three weeks`;
    return idle ? `${worked}; in ${many(idle, 'week')} nothing was done` : worked;
  });
  protected readonly rows = computed(() =>
    (this.view()?.months ?? []).toReversed().map((one) => ({
      month: sayMonth(one.month),
      work: `${sayLength(Math.round(one.minutes))}, ${many(one.tasks, 'task')}`,
      loads: String(one.loads),
      energy: one.metered
        ? `${one.kWh.toFixed(1)} kWh of ${many(one.metered, 'load')}${this.view()!.priced ? `, ${this.#money(one.energy)}` : ''}`
        : 'not metered',
      supplies: one.supplies ? this.#money(one.supplies) : '',
      repairs: one.parts + one.calls > 0 ? this.#money(one.parts + one.calls) : '',
      all: moneyIn(one) > 0 ? this.#money(moneyIn(one)) : '',
    })),
  );
  protected readonly sum = computed(() => {
    const months = this.view()?.months ?? [];
    const of = (what: 'supplies' | 'energy' | 'parts' | 'calls'): number =>
      months.reduce((sum, one) => sum + one[what], 0);
    const repairs = of('parts') + of('calls');
    const others = (this.view()?.otherMoney ?? []).map(
      ({ amount, currency }) => `${amount.toFixed(2)} ${currency}`,
    );
    return [
      `Supplies ${this.#money(of('supplies'))}, energy ${this.#money(of('energy'))}`,
      repairs ? `, parts and calls ${this.#money(repairs)}` : '',
      `: ${this.#money(of('supplies') + of('energy') + repairs)} together.`,
      others.length ? ` Beside it ${others.join(' and ')} for parts and calls.` : '',
    ].join('');
  });
  protected readonly saved = computed(() => {
    const { saved: all = [], priced = false, to } = this.view() ?? {};
    if (!all.length) return undefined;
    const price = this.view()?.energyPrice ?? 0;
    const worth = (kWh: number): string => (priced ? `, ${this.#money(kWh * price)}` : '');
    const [energy, hours] = all.reduce(
      ([kWh, h], one) => [kWh + one.energy, h + one.hours],
      [0, 0],
    );
    const load = ({ energy: kWh, minutes }: { energy: number; minutes: number }): string =>
      `${kWh.toFixed(2)} kWh, ${Math.round(minutes)} min`;
    return {
      said: `${energy.toFixed(1)} kWh${worth(energy)} and ${Math.round(hours)} hours of drying.`,
      rows: all.toReversed().map((one) => ({
        what: `${sayDay(one.day, to)}, ${one.machine}: ${one.what.join(', ').toLowerCase()}`,
        before: load(one.before),
        after: load(one.after),
        loads: String(one.loads),
        saved: `${one.energy.toFixed(1)} kWh${worth(one.energy)}, ${one.hours.toFixed(1)} h`,
      })),
    };
  });
  protected readonly left = computed(() => {
    const { unpriced = [], priced = true } = this.view() ?? {};
    return [
      priced ? '' : 'A kWh has no price yet (House).',
      unpriced.length ? `Without a price: ${unpriced.join(', ')} (Supplies).` : '',
    ]
      .filter(Boolean)
      .join(' ');
  });
  #money(value: number): string {
    const { currency } = this.view() ?? {};
    return `${value.toFixed(2)}${currency ? ` ${currency}` : ''}`;
  }
  protected readonly since = computed(() => {
    const { from, to } = this.view() ?? {};
    return from && to ? sayDay(from, to) : '';
  });
}

const moneyIn = (month: MonthOfCare): number =>
  month.supplies + month.energy + month.parts + month.calls;

const MONTHS = new Intl.DateTimeFormat('en-GB', { month: 'short', timeZone: 'UTC' });
const LONG = new Intl.DateTimeFormat('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' });
const sayMonth = (month: string): string => LONG.format(Date.parse(`${month}-01T00:00:00Z`));
