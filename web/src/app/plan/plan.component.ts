import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { SCHOOL_TEXTS, SCHOOLS, type FieldProblem } from '@needlecase/core';
import type { PlannedChange } from '@needlecase/core/model/planned';
import { calendarOf, type AheadProblem } from '@needlecase/core/plan/ahead';
import { lateAfter, type Standing } from '@needlecase/core/plan/standing';
import { rhythmsOf } from '@needlecase/core/plan/taking';
import type { PlanView } from '@needlecase/core/views/plan';
import {
  catchError,
  combineLatest,
  debounceTime,
  endWith,
  filter,
  map,
  of,
  scan,
  switchMap,
} from 'rxjs';
import { wordsOf, type ApiProblem } from '../data/api.service';
import { SectionChoiceComponent } from '../shared/section-choice.component';
import { PlanService } from '../data/plan.service';
import { RoleService } from '../data/role.service';
import { speakAtHome } from '../data/tongue';
import { ToastsService } from '../data/toasts.service';
import { VisitsService } from '../data/visits.service';
import { KeeperDirective } from '../shared/keeper.directive';
import { matches } from '../shared/matches';
import type { CurveMade } from '../workers/plan.worker';
import { PlannerService } from '../workers/planner.service';
import { AwayComponent } from './away.component';
import { BandComponent } from './band.component';
import { ClothComponent } from './cloth.component';
import { CurveComponent } from './curve.component';
import type { Effect, Moving } from './moving';
import { PlanTableComponent } from './plan-table.component';
import { lookedAt, sayDate, sayHours, sayShort, standingIn, type ShownVisit } from './shown';
import { StitchComponent } from '../thread/stitch.component';
import { ToldComponent } from './told.component';
import { VisitCardComponent } from './visit-card.component';
import { WhatIfsComponent, type Looked } from './what-ifs.component';
import { WishesComponent } from './wishes.component';

/** The page waits for the hand to rest before a move is reckoned, ms. */
const REST_MS = 120;

/** The curve so far. */
interface Reckoned {
  curve: CurveMade;
  free: AheadProblem;
  whole: boolean;
}

/** The year ahead as visits: on a band of cloth, one opened, and what the year asks. */
@Component({
  selector: 'nc-plan',
  imports: [
    AwayComponent,
    BandComponent,
    ClothComponent,
    CurveComponent,
    KeeperDirective,
    PlanTableComponent,
    RouterLink,
    SectionChoiceComponent,
    StitchComponent,
    ToldComponent,
    VisitCardComponent,
    WhatIfsComponent,
    WishesComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plan.component.html',
  styleUrl: './plan.component.scss',
})
export class PlanComponent {
  readonly #service = inject(PlanService);
  readonly #planner = inject(PlannerService);
  readonly #toasts = inject(ToastsService);
  readonly #visits = inject(VisitsService);
  protected readonly changeable = inject(RoleService).may.bind(inject(RoleService), 'helper');

  protected readonly wide = matches('(min-width: 900px)');
  readonly #read = toSignal(
    this.#service.watch((plan) =>
      plan.pipe(
        map((value) => {
          void speakAtHome(value.household);
          return { value, problem: undefined };
        }),
        catchError((problem: ApiProblem) => of({ value: undefined, problem })),
      ),
    ),
  );
  protected readonly problem = computed(() => this.#read()?.problem);
  /** What was read last stays where it cannot be read anew. */
  /** From the address: one visit asked for. */
  readonly visit = input<string>();
  protected readonly view = linkedSignal<PlanView | undefined, PlanView | undefined>({
    source: () => this.#read()?.value,
    computation: (value, before) => value ?? before?.value,
  });

  /** The curve, and the rhythms beside it. */
  readonly #atWill$ = toObservable(this.view).pipe(
    filter((view) => view !== undefined),
    debounceTime(30),
    switchMap((view) =>
      combineLatest({
        free: this.#service.problem({ free: true }),
        others: combineLatest(SCHOOLS.map((school) => this.#service.problem({ school }))),
      }).pipe(
        switchMap(({ free, others }) =>
          this.#planner
            .curve({ do: 'curve', problem: free, now: view, others })
            .pipe(map((curve) => ({ curve, free, whole: false }))),
        ),
        endWith('whole' as const),
        catchError(() => of('failed' as const)),
      ),
    ),
    scan<Reckoned | 'whole' | 'failed', Reckoned | 'failed' | undefined>(
      (before, next) =>
        next !== 'whole' ? next : typeof before === 'object' ? { ...before, whole: true } : before,
      undefined,
    ),
  );
  readonly #reckoned = toSignal(this.#atWill$);
  readonly #atWill = computed(() => {
    const reckoned = this.#reckoned();
    return reckoned === 'failed' ? undefined : reckoned;
  });
  protected readonly failed = computed(() => this.#reckoned() === 'failed');
  protected readonly curve = computed(() => this.#atWill()?.curve);
  /** Every point is there that is looked for. */
  protected readonly whole = computed(() => this.#atWill()?.whole ?? false);
  protected readonly dots = computed(() => {
    const curve = this.curve();
    if (!curve) return [];
    return SCHOOLS.map((school, i) => ({ ...curve.others[i]!, name: SCHOOL_TEXTS[school].name }));
  });

  /** Another year than the one that stands, looked at: a point of the curve, or a what-if. */
  readonly #asked = signal<{ work: number } | Looked | 'mine' | undefined>(undefined);
  /** Nobody has said yet how many hours a year may be: then the proposal is shown. */
  protected readonly undecided = computed(() => {
    const view = this.view();
    return view !== undefined && !view.household.plan?.asked && view.taken === 0;
  });
  protected readonly look = computed(() => {
    const asked = this.#asked();
    const curve = this.curve();
    if (asked === 'mine') return undefined;
    if (asked && 'year' in asked) return asked;
    // By its hours: while points come in between, the one that was chosen stays.
    const at =
      asked && curve
        ? nearestTo(asked.work, curve)
        : this.undecided() && curve
          ? curve.balance
          : undefined;
    const point = at === undefined ? undefined : curve?.hull[Math.min(at, curve.hull.length - 1)];
    if (at === undefined || !curve || !point) return undefined;
    const here = Math.min(at, curve.hull.length - 1);
    return {
      at: here,
      year: curve.years[here]!,
      trouble: point,
      work: point.work,
      plan: point.plan,
    };
  });
  /** Where the button lies on the curve: at what is looked at, or nearest to what holds. */
  protected readonly handle = computed(() => {
    const curve = this.curve();
    const look = this.look();
    if (!curve) return 0;
    if (look && 'at' in look) return look.at;
    const far = (i: number) =>
      Math.hypot(curve.hull[i]!.work - curve.now.work, curve.hull[i]!.trouble - curve.now.trouble);
    return [...curve.hull.keys()].reduce((a, b) => (far(b) < far(a) ? b : a), 0);
  });

  protected readonly visits = computed<ShownVisit[]>(() => {
    const view = this.view();
    const look = this.look();
    if (!view) return [];
    return look ? lookedAt(view, look.year) : standingIn(view);
  });
  protected readonly chosen = linkedSignal<ShownVisit[], string | undefined>({
    source: this.visits,
    computation: (visits, before) => {
      const kept = visits.find(({ key }) => key === (before?.value ?? this.visit()));
      const next = visits.find(({ planned }) => !planned?.done && planned?.skipped === undefined);
      return (kept ?? next)?.key;
    },
  });
  protected readonly opened = computed(() =>
    this.visits().find(({ key }) => key === this.chosen()),
  );

  protected readonly moving = signal<Moving | undefined>(undefined);
  protected readonly busy = signal(false);
  protected readonly problems = signal<readonly FieldProblem[]>([]);
  protected readonly said = signal('');
  #last: PlannedChange | undefined;
  /** On a phone a visit is opened over the cloth. */
  protected readonly docked = signal(false);
  protected readonly asList = signal(false);
  protected readonly awayOpen = signal(false);
  protected readonly toldOpen = signal(false);
  protected readonly wishesOpen = signal(false);
  protected readonly howMuch = signal(false);
  protected readonly ifsOpened = signal(false);
  protected readonly lookedName = computed(() => {
    const look = this.look();
    return look && 'name' in look ? look.name : undefined;
  });

  protected readonly effect = toSignal(
    toObservable(this.moving).pipe(
      debounceTime(REST_MS),
      switchMap((moving) => (moving ? this.#effectOf(moving) : of(undefined))),
      catchError(() => of(undefined)),
    ),
  );

  protected readonly card = viewChild(VisitCardComponent);

  protected readonly minutes = computed(
    () => this.look()?.year.minutes ?? this.view()?.minutes ?? 0,
  );
  protected readonly apart = computed(() => this.look()?.year.apart ?? this.view()?.apart ?? 0);
  protected readonly trouble = computed(
    () => this.look()?.trouble ?? this.view()?.trouble ?? { count: 0, minutes: 0 },
  );
  /** What the hours beside this point buy, in a sentence. */
  protected readonly next = computed(() => {
    const curve = this.curve();
    const [here, after] = [curve?.hull[this.handle()], curve?.hull[this.handle() + 1]];
    if (!here) return '';
    if (!after) return 'More hours than this save hardly any trouble.';
    const saved = ((here.trouble - after.trouble) / (after.work - here.work)) * 60;
    return `The next hour of work a year saves about ${Math.max(1, Math.round(saved))} min of trouble.`;
  });
  /** Where trouble is likeliest under what holds. */
  protected readonly mostLikely = computed(() => {
    const [first] = this.view()?.trouble.most ?? [];
    return first && !this.look() ? `Most likely to be late: ${first}.` : '';
  });
  protected readonly school = computed(() => {
    const school = this.view()?.household.school;
    return school ? SCHOOL_TEXTS[school].name : '';
  });
  protected readonly workers = computed(() => {
    const sums = new Map<string, number>();
    for (const { who, minutes, planned } of this.visits()) {
      if (who && planned?.skipped === undefined) sums.set(who, (sums.get(who) ?? 0) + minutes);
    }
    const most = Math.max(1, ...sums.values());
    return [...sums].map(([name, minutes]) => ({ name, minutes, part: minutes / most }));
  });
  protected readonly money = computed(() => {
    const view = this.view();
    return view ? this.sayMoney(view.money) : '';
  });
  protected readonly visitsAhead = computed(
    () =>
      this.visits().filter(({ planned }) => !planned?.done && planned?.skipped === undefined)
        .length,
  );

  protected readonly sayHours = sayHours;
  protected readonly sayDate = sayDate;
  protected readonly sayShort = sayShort;

  protected sayMoney(amount: number): string {
    const currency = this.view()?.household.currency;
    return currency
      ? new Intl.NumberFormat('en', {
          style: 'currency',
          currency,
          maximumFractionDigits: 0,
        }).format(amount)
      : amount.toFixed(0);
  }

  /** Beyond this a plan is held up by rules that had to give way: how near it is says nothing. As a part. */
  protected readonly WORTH_TELLING = 0.5;

  protected percent(part: number): string {
    return part < 0.005
      ? 'the best there can be'
      : `within ${Math.ceil(part * 100)} % of the best there can be`;
  }

  protected chose(key: string): void {
    if (this.moving()) this.putBack();
    this.chosen.set(key);
    this.problems.set([]);
    if (!this.wide()) this.docked.set(true);
  }

  protected openCard(): void {
    this.docked.set(true);
    setTimeout(() => this.card()?.focus());
  }

  protected take(): void {
    const visit = this.opened();
    if (!visit?.planned || visit.planned.done || visit.planned.skipped !== undefined) return;
    if (!this.changeable() || this.moving()) return;
    this.problems.set([]);
    this.moving.set({ key: visit.key, day: visit.day });
    this.said.set(`Taken up. ${sayShort(visit.day)}. Arrows carry it, Enter drops it.`);
  }

  protected carry(day: string): void {
    const view = this.view();
    const moving = this.moving();
    if (!view || !moving) return;
    const inside = day < view.start ? view.start : day > view.end ? view.end : day;
    this.problems.set([]);
    this.moving.set({ ...moving, day: inside });
    const visit = this.opened();
    const safe = visit?.window ? `, in its rhythm until ${sayShort(visit.window.to)}` : '';
    this.said.set(`${sayShort(inside)}${safe}`);
  }

  protected drop(): void {
    const moving = this.moving();
    const visit = this.opened();
    if (!moving || !visit) return;
    if (moving.day === visit.day) return this.putBack();
    this.change({ day: moving.day });
  }

  protected putBack(): void {
    this.moving.set(undefined);
    this.problems.set([]);
    this.said.set('Put back.');
  }

  protected change(change: PlannedChange): void {
    const planned = this.opened()?.planned;
    if (!planned || this.busy()) return;
    this.#last = change;
    this.busy.set(true);
    this.problems.set([]);
    this.#service.change(planned, change).subscribe({
      next: ({ id }) => {
        this.busy.set(false);
        this.moving.set(undefined);
        this.chosen.set(id);
        this.said.set('Laid down.');
        this.#service.refresh();
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        if (problem.errors.length) this.problems.set(problem.errors);
        else this.problems.set([{ field: '', message: `${problem.title} ${problem.detail}` }]);
        if (problem.status === 409) this.#service.refresh();
      },
    });
  }

  protected insist(): void {
    if (this.#last) this.change({ ...this.#last, acknowledged: true });
  }

  protected begin(): void {
    const visit = this.opened();
    if (visit) this.#visits.start(visit.tasks);
  }

  protected keptWishes(): void {
    this.wishesOpen.set(false);
    this.#service.refresh();
  }

  protected lookAt(what: { at: number } | Looked | 'mine'): void {
    this.moving.set(undefined);
    const point =
      typeof what === 'object' && 'at' in what ? this.curve()?.hull[what.at] : undefined;
    if (point) this.#asked.set({ work: point.work });
    else if (what === 'mine' || 'year' in what) this.#asked.set(what);
  }

  /** The plan that is looked at is the one to keep to, or the rhythms are. */
  protected keep(what: 'this' | 'rhythms'): void {
    const look = this.look();
    const free = this.#atWill()?.free;
    const rhythms =
      what === 'this' && look && 'plan' in look && free ? rhythmsOf(free, look.plan) : [];
    this.busy.set(true);
    this.#service.take(rhythms).subscribe({
      next: () => {
        this.busy.set(false);
        this.#asked.set('mine');
        this.#service.refresh();
        this.#toasts.show(
          what === 'this'
            ? 'The year is planned by it now; the bench follows.'
            : 'The rhythms hold, as they did.',
        );
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.#toasts.show(wordsOf(problem), { problem: true });
      },
    });
  }

  #effectOf({ key, day }: Moving) {
    const view = this.view()!;
    const standing = view.visits
      .filter(({ done }) => !done)
      .map(({ id, day: before, place, tasks, held, skipped }): Standing => ({
        ...{ day: id === key ? day : before, place, tasks },
        ...(held || id === key ? { held: true } : {}),
        ...(skipped === undefined ? {} : { skipped: true }),
      }));
    return this.#planner.year({ do: 'replan', problem: view.problem, standing }).pipe(
      map(({ year, trouble }): Effect => ({
        minutes: Math.round(year.minutes - view.minutes),
        before: view.trouble.count,
        after: trouble.count,
        late: this.#lateAt(view, key, day),
        ...closedOn(view.problem, day),
      })),
    );
  }

  #lateAt({ problem, plan, visits }: PlanView, key: string, day: string): number {
    const visit = visits.find(({ id }) => id === key);
    const week = calendarOf(problem).weekOf(day);
    return Math.max(
      0,
      ...(visit?.tasks ?? [])
        .filter(({ safety }) => safety)
        .map(({ machineId, task }) => {
          const i = problem.of.findIndex((one) => one.machineId === machineId && one.task === task);
          const old = calendarOf(problem).weekOf(visit!.day);
          const others = plan.map((weeks, k) => (k === i ? weeks.filter((w) => w !== old) : weeks));
          return i < 0 || week <= old ? 0 : lateAfter(problem, others, i, old, week);
        }),
    );
  }
}

function closedOn(problem: AheadProblem, day: string): { closed?: string } {
  const calendar = calendarOf(problem);
  if (problem.spans.some(({ from, to }) => from <= day && day <= to)) {
    return { closed: 'nobody is at home on this day' };
  }
  return calendar.isOpen(day) ? {} : { closed: 'none of the days on which you usually can' };
}

/** Which point of the curve asks for so many minutes of work, or nearly. */
const nearestTo = (minutes: number, { hull }: CurveMade): number =>
  [...hull.keys()].reduce((a, b) =>
    Math.abs(hull[b]!.work - minutes) < Math.abs(hull[a]!.work - minutes) ? b : a,
  );
