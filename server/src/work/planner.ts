import {
  dayOf,
  daysBetween,
  SECTION,
  sayDay,
  sectionOf,
  sectionsOf,
  sectionWith,
  taskOf,
  type Day,
  type House,
  type Machine,
  type Section,
  type VisitTask,
} from '@needlecase/core';
import type { PlannedVisit, PlanQuery } from '@needlecase/core/model/planned';
import { calendarOf, type AheadProblem } from '@needlecase/core/plan/ahead';
import { costOf } from '@needlecase/core/plan/cost';
import {
  houseProblem,
  problemSteps,
  WEEKS,
  type PlanWishes,
} from '@needlecase/core/plan/house-problem';
import { matched } from '@needlecase/core/plan/matching';
import type { Plan } from '@needlecase/core/plan/problem';
import type { Progress } from '@needlecase/core/plan/solve';
import { weeksOf, type Standing } from '@needlecase/core/plan/standing';
import { PlanWeeks } from '@needlecase/core/plan/weeks';
import { share, yearPlan, type AheadVisit } from '@needlecase/core/plan/year-plan';
import type { PlanState } from '@needlecase/core/views/plan';
import { groupedBy } from '@needlecase/core/units/grouped';
import { createHash } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type { Basis } from '../store/planned.js';
import type { Store } from '../store/store.js';
import type { Threads } from '../threads/threads.js';
import { householdOf, inHouse } from './household.js';
import { inSteps, Remember } from './steps.js';

/** Weekdays on which visits are, where nobody said: Saturday, or else Sunday. */
const USUAL_DAYS = [6, 7];
const USUAL_MINUTES = 60;
/** A visit that was not made is the same one on its next day for so long; one left out or done is told so long. Days. */
const MISSED = 21;
const TOLD = 60;
/** A move is news for so many days. */
const NEWS = 7;

/** The plan of a section, and the machines that it is of. */
export interface Planned {
  section: Section;
  house: House;
  state: PlanState;
}

/**
 * Who looks waits so long for a new plan, and gets the one that stands then: of a house that is planned in one go, and
 * of one with many plans to make. ms
 */
const PATIENCE_MS = { one: 8000, many: 700 };

interface Skipped {
  skipped: readonly PlannedVisit[];
}
type Stood = Standing & { who?: string | undefined };

/** A plan of one problem as one of another: each chore that both have in its weeks. */
function carried({ plan, bound }: Progress, from: AheadProblem, to: AheadProblem): Progress {
  const name = ({ machineId, task }: AheadProblem['of'][number]) => `${machineId}/${task}`;
  const weeks = new Map(from.of.map((one, i) => [name(one), plan[i]!]));
  const own = to.of.map((one) => (weeks.get(name(one)) ?? []).filter((week) => week < to.weeks));
  const cost = costOf(to, own).total;
  return { plan: own, cost, bound: Math.min(bound, cost) };
}

/** Names what a plan is made from. */
const keyOf = (problem: AheadProblem, standing: readonly Standing[]): string =>
  createHash('sha256')
    .update(JSON.stringify([problem, standing.filter(({ held, skipped }) => held ?? skipped)]))
    .digest('base64url');

/** What is asked of a section as it stands, and what it was worked out from. */
interface Asked {
  house: House;
  problem: AheadProblem;
  key: string;
}

/**
 * Plans the year of a household, a section by itself: anew where something changed, and calmly. What was worked out is
 * kept until what it was worked out from changes.
 */
export class Planner {
  /** Sections that are being planned, by their names. */
  readonly #under = new Map<string, { made: Promise<void>; since: number }>();
  /** Sections that nobody waits for any more, and which are planned one after the other. */
  readonly #later = new Set<string>();
  #going = false;
  /** Days on which nobody can, and what is left out, of the whole house. */
  readonly #days = new Remember<Pick<Required<PlanWishes>, 'away' | 'closed'> & Skipped>();
  readonly #rows = new Remember<ReadonlyMap<string | undefined, readonly PlannedVisit[]>>();
  readonly #sections = new Remember<readonly Section[]>();
  readonly #problems = new Remember<Omit<Asked, 'key'>>();
  readonly #keys = new Remember<string>();
  readonly #states = new Remember<PlanState>();

  constructor(
    private readonly store: Store,
    private readonly threads: Threads,
  ) {}

  /** The house in sections that are told and planned by themselves. @throws 404 before the first start is done */
  sections(): readonly Section[] {
    householdOf(this.store);
    return this.#sections.getOr('', this.store.machines.list(), () =>
      sectionsOf(inHouse(this.store), SECTION.planned),
    );
  }

  /** What the household wants of the plan of some machines. */
  #wishes(machines: readonly Machine[], query: PlanQuery = {}): PlanWishes {
    const { visitMinutes, plan = {} } = householdOf(this.store);
    const weekdays = query.weekdays ? [...query.weekdays].map(Number) : plan.weekdays;
    const known = new Set(machines.map(({ id }) => id));
    const { away, closed, skipped } = this.#days.getOr('', this.#moment(), () => ({
      away: this.store.absences.list().map(({ from, to }) => ({ from, to })),
      closed: [...new Set(this.store.busy.list().flatMap(({ days }) => days))].sort(),
      skipped: this.store.planned.list().filter((one) => one.skipped !== undefined),
    }));
    return {
      limit: query.minutes ?? visitMinutes ?? USUAL_MINUTES,
      weekdays: weekdays ? [...new Set(weekdays)] : USUAL_DAYS,
      ...{ away, closed },
      ...(plan.way === undefined ? {} : { way: plan.way }),
      ...(query.school ? { school: query.school } : {}),
      ...(query.free ? { atWill: true } : {}),
      skipped: skipped.flatMap(({ day, tasks }) =>
        tasks.filter(({ machineId }) => known.has(machineId)).map((task) => ({ ...task, day })),
      ),
    };
  }

  #moment(): number[] {
    return [this.store.revision, this.store.planned.revision];
  }

  /** The first and the last day of the plan. */
  span(): { from: Day; to: Day } {
    const { zone } = householdOf(this.store);
    const start = dayOf(Date.now(), zone);
    return { from: start, to: new PlanWeeks(start, WEEKS, [], []).end };
  }

  /** What there is to plan of a section as it could be, worked out a little at a time. */
  async problem(query: PlanQuery): Promise<AheadProblem> {
    const { machines } = sectionOf(this.sections(), query.section);
    return inSteps(problemSteps(this.#houseOf(machines), this.#wishes(machines, query)));
  }

  /** What there is to plan of the section in which a visit is. */
  problemAround(visit: PlannedVisit): AheadProblem {
    return this.#asked(this.sectionAround(visit)).problem;
  }

  /** The section in which a visit is. */
  sectionAround(visit: PlannedVisit): Section {
    const sections = this.sections();
    const found = visit.tasks.map(({ machineId }) => sectionWith(sections, machineId));
    return found.find((one) => one !== undefined) ?? sections[0]!;
  }

  /**
   * The plan of a section, with the machines that it is of; planned anew where what it rests on has changed. What takes
   * longer than somebody waits goes on by itself, and what stands is told. Nobody is told a mixture: the plan that is
   * told is fitted to what holds when it is.
   * @param id of the section; where there is none of this name, the first is told
   * @param patience ms
   */
  async current(id?: string, patience?: number): Promise<Planned> {
    const asked = Date.now();
    const usual = this.sections().length > 1 ? PATIENCE_MS.many : PATIENCE_MS.one;
    for (;;) {
      const section = sectionOf(this.sections(), id);
      await this.#prepared(section);
      // What was waited for already is not waited for again.
      const until = (this.#under.get(section.id)?.since ?? asked) + (patience ?? usual);
      // From here on to the answer nothing else happens in between.
      const now = sectionOf(this.sections(), id);
      const isOver = Date.now() >= until;
      const isMade = this.#isMade(now);
      if (isMade || isOver) {
        if (!isMade) this.#afterwards(now.id);
        const { house } = this.#asked(now);
        return { section: now, house, state: this.#state(now, isMade) };
      }
      await this.#untilMade(now, until);
    }
  }

  /** Waits for a section’s plan, and no longer than until an instant. */
  async #untilMade(section: Section, until: number): Promise<void> {
    const enough = new AbortController();
    const over = pause(Math.max(1, until - Date.now()), undefined, { signal: enough.signal });
    try {
      await Promise.race([this.#make(section), over.catch(() => undefined)]);
    } finally {
      enough.abort();
    }
  }

  /** Has a section planned though nobody waits for it. */
  #afterwards(id: string): void {
    this.#later.add(id);
    if (this.#going) return;
    this.#going = true;
    void (async () => {
      for (const next of this.#later) {
        const section = this.sections().find((one) => one.id === next);
        if (section) {
          await this.#prepared(section);
          if (!this.#isMade(section)) await this.#make(section);
        }
        this.#later.delete(next);
      }
    })()
      // Whoever looks next has it tried again.
      .catch(() => this.#later.clear())
      .finally(() => {
        this.#going = false;
      });
  }

  /** Plans a section in a thread; while it is being planned, whoever asks waits for that one. */
  #make(section: Section): Promise<void> {
    const under = this.#under.get(section.id);
    if (under) return under.made;
    const { problem, key } = this.#asked(section);
    const standing = this.#standing(section, problem.start);
    const made = this.threads
      .run('plan', { problem, standing })
      .then((plan) => {
        const now = this.sections().find(({ id }) => id === section.id);
        if (!now) return;
        // What changed meanwhile: what was planned is taken over as far as it still goes, and planned anew.
        const asked = this.#asked(now);
        const holds = asked.key === key ? plan : carried(plan, problem, asked.problem);
        this.#keep({ key, ...holds }, now, asked);
      })
      .finally(() => this.#under.delete(section.id));
    this.#under.set(section.id, { made, since: Date.now() });
    made.catch(() => undefined);
    return made;
  }

  #isMade(section: Section): boolean {
    return this.store.planned.basis(section.id)?.key === this.#asked(section).key;
  }

  #houseOf(machines: readonly Machine[]): House {
    const household = householdOf(this.store);
    const histories = this.store.entries.histories(machines);
    return { household, machines, histories, now: Date.now() };
  }

  /** What is asked of a section, and whether that is at hand. */
  #known({ id, machines }: Section) {
    const house = this.#houseOf(machines);
    const wishes = this.#wishes(machines);
    const { household, histories, now } = house;
    const from = [household, dayOf(now, household.zone), JSON.stringify(wishes)];
    const of = [...from, ...machines, ...histories];
    return { id, house, wishes, of };
  }

  /** Works out what is asked of a section a little at a time, unless it is at hand. */
  async #prepared(section: Section): Promise<void> {
    const { id, house, wishes, of } = this.#known(section);
    if (this.#problems.get(id, of)) return;
    const problem = await inSteps(problemSteps(house, wishes));
    this.#problems.set(id, of, { house, problem });
  }

  #asked(section: Section): Asked {
    const { id, house, wishes, of } = this.#known(section);
    const { problem, ...known } =
      this.#problems.get(id, of) ??
      this.#problems.set(id, of, { house, problem: houseProblem(house, wishes) });
    const standing = this.#standing(section, problem.start);
    const key = this.#keys.getOr(id, [problem, JSON.stringify(standing)], () =>
      keyOf(problem, standing),
    );
    return { house: known.house, problem, key };
  }

  /** Visits that were planned for a section: those whose first machine that is still there is in it. */
  #rowsOf({ id }: Section): readonly PlannedVisit[] {
    const sections = this.sections();
    const list = this.store.planned.list();
    if (sections.length === 1) return list;
    return (
      this.#rows.getOr('', [list, sections], () => this.#bySection(list, sections)).get(id) ?? []
    );
  }

  #bySection(list: readonly PlannedVisit[], sections: readonly Section[]) {
    const of = new Map(
      sections.flatMap(({ id, machines }) => machines.map((machine) => [machine.id, id])),
    );
    return groupedBy(list, ({ tasks }) => {
      const first = tasks.find(({ machineId }) => of.has(machineId));
      return first && of.get(first.machineId);
    });
  }

  /** What stands: the visits planned before, and those begun. */
  #standing(section: Section, today: Day): Stood[] {
    const own = new Set(section.machines.map(({ id }) => id));
    const begun = this.store.visits
      .open()
      .filter(({ tasks }) => tasks.some(({ machineId }) => own.has(machineId)))
      .map(({ tasks }) => ({
        day: today,
        place: this.#placeOf(tasks),
        tasks,
        held: true,
      }));
    const planned = this.#rowsOf(section)
      .filter(({ done, day }) => !done && day >= today)
      .map(({ day, place, tasks, who, held, skipped }) => ({
        ...{ day, place, tasks, who },
        ...(held ? { held } : {}),
        ...(skipped === undefined ? {} : { skipped: true }),
      }));
    return [...begun, ...planned];
  }

  #placeOf([first]: readonly VisitTask[]): string {
    return (first && this.store.machines.get(first.machineId)?.place) ?? '';
  }

  /** Stores the visits of a plan: each under the name that it had. */
  #keep(basis: Basis, section: Section, { problem, house }: Asked): void {
    const { store } = this;
    store.derive(() => {
      const today = problem.start;
      const standing = this.#standing(section, today);
      this.#tidy(section, house, today);
      const year = yearPlan(problem, basis, { standing });
      const before = this.#rowsOf(section).filter(
        ({ done, skipped, day }) =>
          !done && skipped === undefined && daysBetween(day, today) <= MISSED,
      );
      const rows = matched(year.visits, before);
      this.#share(year.visits, rows);
      const added: Told[] = [];
      const laid: { id: string; version: number; visit: Told & Pick<PlannedVisit, 'moved'> }[] = [];
      year.visits.forEach((visit, i) => {
        const row = rows[i];
        const told = toldOf(visit, row);
        if (!row) return void added.push(told);
        if (isSame(row, told)) return;
        const isNews = row.day >= today && row.day !== visit.day && !visit.held;
        const moved = isNews
          ? { from: row.day, on: today, why: whyMoved(problem, basis.plan, row, visit, house) }
          : visit.held
            ? undefined
            : row.moved;
        laid.push({
          ...{ id: row.id, version: row.version },
          visit: { ...told, ...(moved ? { moved } : {}) },
        });
      });
      const kept = new Set(rows.flatMap((row) => (row ? [row.id] : [])));
      const removed = before.filter(({ id }) => !kept.has(id)).map(({ id }) => id);
      store.planned.change({ added, laid, removed }, Date.now());
      store.planned.setBasis(section.id, basis);
      store.planned.keepBases(this.sections().map(({ id }) => id));
      store.changed({ topic: 'plan' });
    });
  }

  /** What was done is told so for a while; what is long past is forgotten, and what is of no machine any more. */
  #tidy(section: Section, house: House, today: Day): void {
    const { planned } = this.store;
    const there = new Set(inHouse(this.store).map(({ id }) => id));
    const own = new Set(this.#rowsOf(section).map(({ id }) => id));
    const removed: string[] = [];
    const laid: { id: string; version: number; visit: Told & { done: true } }[] = [];
    for (const row of planned.list()) {
      const { id, version, changedAt: _at, ...told } = row;
      const isNobodys = !row.tasks.some(({ machineId }) => there.has(machineId));
      const isOpen = !row.done && row.skipped === undefined;
      if (daysBetween(row.day, today) > TOLD || (isNobodys && isOpen)) removed.push(id);
      else if (own.has(id) && isOpen && isDone(row, house)) {
        const day = row.day < today ? row.day : today;
        laid.push({ id, version, visit: { ...told, day, done: true } });
      }
    }
    planned.change({ laid, removed }, Date.now());
  }

  /** Whoever had a visit keeps it; the rest is shared out. */
  #share(visits: readonly AheadVisit[], rows: readonly (PlannedVisit | undefined)[]): void {
    const people = this.store.household.get()?.plan?.people ?? [];
    visits.forEach((visit, i) => {
      const who = rows[i]?.who;
      if (who !== undefined && (rows[i]!.held ?? people.some(({ name }) => name === who))) {
        visit.who = who;
      }
    });
    share(visits, people);
  }

  /** What is told of a section's plan. @param isMade it is the plan of what is asked now; else what stands is told */
  #state(section: Section, isMade: boolean): PlanState {
    const { problem, house } = this.#asked(section);
    const list = this.#rowsOf(section);
    const basis = this.store.planned.basis(section.id);
    const people = this.store.household.get()?.plan?.people;
    const begun = this.store.visits.open();
    const of = [problem, isMade, basis, people, ...list, ...begun];
    return this.#states.getOr(section.id, of, () => {
      const standing = this.#standing(section, problem.start);
      const { plan, cost, bound } = isMade ? basis! : standsAs(problem, standing);
      return this.#told(section, { house, problem }, { plan, cost, bound }, isMade);
    });
  }

  #told(
    section: Section,
    { problem, house }: Pick<Asked, 'problem' | 'house'>,
    { plan, cost, bound }: Progress,
    isMade: boolean,
  ): PlanState {
    const standing = this.#standing(section, problem.start);
    const list = this.#rowsOf(section);
    const year = yearPlan(problem, { plan, cost, bound }, { standing });
    const live = list.filter(({ done, skipped }) => !done && skipped === undefined);
    const rows = matched(year.visits, live);
    this.#share(year.visits, rows);
    const known = new Set(house.machines.map(({ id }) => id));
    return {
      ...{ problem, plan, bound, cost },
      ...(isMade ? {} : { making: true }),
      moved: live.flatMap(({ id, day, moved }) =>
        moved && daysBetween(moved.on, problem.start) <= NEWS
          ? [{ id, from: moved.from, to: day, why: moved.why }]
          : [],
      ),
      year: { ...year, visits: year.visits.filter((_, i) => rows[i]) },
      rows: rows.flatMap((row) => (row ? [{ id: row.id, version: row.version }] : [])),
      aside: list
        .filter(({ done, skipped }) => done ?? skipped !== undefined)
        .map(({ changedAt: _at, held: _held, moved: _moved, ...row }) => ({
          ...row,
          tasks: row.tasks.filter(({ machineId }) => known.has(machineId)),
        }))
        .filter(({ tasks }) => tasks.length > 0),
    };
  }
}

/** The visits that stand, as a plan of what is asked now. */
function standsAs(problem: AheadProblem, standing: readonly Standing[]): Progress {
  const plan = weeksOf(problem, standing);
  return { plan, cost: costOf(problem, plan).total, bound: 0 };
}

type Told = Omit<PlannedVisit, 'id' | 'version' | 'changedAt'>;

const toldOf = (visit: AheadVisit, row: PlannedVisit | undefined) => ({
  day: visit.day,
  place: visit.place,
  tasks: visit.tasks.map(({ machineId, task }) => ({ machineId, task })),
  ...(visit.who ? { who: visit.who } : {}),
  ...(visit.held && row?.held ? { held: true } : {}),
});

function isSame(row: PlannedVisit, told: ReturnType<typeof toldOf>): boolean {
  const names = ({ tasks }: Pick<PlannedVisit, 'tasks'>) =>
    tasks
      .map(({ machineId, task }) => `${machineId}/${task}`)
      .sort()
      .join();
  return (
    row.day === told.day &&
    row.place === told.place &&
    row.who === told.who &&
    Boolean(row.held) === Boolean(told.held) &&
    names(row) === names(told)
  );
}

/** All of its work was done since it was planned. */
const isDone = ({ changedAt, tasks }: PlannedVisit, { machines, histories }: House): boolean =>
  tasks.every(({ machineId, task }) => {
    const at = machines.findIndex(({ id }) => id === machineId);
    const last = histories[at]?.openings.get(task)?.lastCleaned?.at;
    return last !== undefined && last > Date.parse(changedAt);
  });

/** Why a visit is on another day, by the task whose date asks for it. */
function whyMoved(
  problem: AheadProblem,
  plan: Plan,
  row: PlannedVisit,
  visit: AheadVisit,
  { machines }: House,
): string {
  const calendar = calendarOf(problem);
  const old = calendar.weekOf(row.day);
  for (const { machineId, task } of row.tasks) {
    const i = problem.of.findIndex((one) => one.machineId === machineId && one.task === task);
    if (i < 0) continue;
    const { first } = problem.chores[i]!;
    const machine = machines.find(({ id }) => id === machineId)!;
    const { name } = taskOf(machine, task);
    if (plan[i]![0] !== undefined && old > first.to && old <= plan[i]![0] + 1) {
      return `${name} is due by ${sayDay(calendar.dayOf(Math.min(first.to, problem.weeks - 1)), problem.start)}`;
    }
    if (old < first.from) return `${name} has time until later`;
  }
  return visit.day < row.day
    ? 'what it shares with other work comes sooner'
    : 'what it shares with other work has time';
}
