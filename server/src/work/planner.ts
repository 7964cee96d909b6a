import {
  daysBetween,
  sayDay,
  taskOf,
  type Day,
  type House,
  type VisitTask,
} from '@needlecase/core';
import type { PlannedVisit, PlanQuery } from '@needlecase/core/model/planned';
import { calendarOf, type AheadProblem } from '@needlecase/core/plan/ahead';
import { costOf } from '@needlecase/core/plan/cost';
import { houseProblem, type PlanWishes } from '@needlecase/core/plan/house-problem';
import { matched } from '@needlecase/core/plan/matching';
import type { Plan } from '@needlecase/core/plan/problem';
import type { Progress } from '@needlecase/core/plan/solve';
import type { Standing } from '@needlecase/core/plan/standing';
import { share, yearPlan, type AheadVisit } from '@needlecase/core/plan/year-plan';
import type { PlanState } from '@needlecase/core/views/plan';
import { createHash } from 'node:crypto';
import type { Store } from '../store/store.js';
import type { Threads } from '../threads/threads.js';
import { houseOf } from './household.js';

/** Weekdays on which visits are, where nobody said: Saturday, or else Sunday. */
const USUAL_DAYS = [6, 7];
const USUAL_MINUTES = 60;
/** A visit that was not made is the same one on its next day for so long; one left out or done is told so long. Days. */
const MISSED = 21;
const TOLD = 60;
/** A move is news for so many days. */
const NEWS = 7;

/** What a plan was made from, and what came of it. */
interface Basis {
  key: string;
  plan: Plan;
  cost: number;
  bound: number;
}

/** A plan, and the house that it is of. */
export interface Planned {
  house: House;
  state: PlanState;
}

/** So often it is planned once more because something changed meanwhile. */
const MOST_TRIES = 3;
/** And no more after so long: nobody waits for a large house to be planned over and over. ms */
const PATIENCE_MS = 2000;

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

/** Plans the year of a household: anew where something changed, and calmly. */
export class Planner {
  #under: { key: string; made: Promise<Progress> } | undefined;

  constructor(
    private readonly store: Store,
    private readonly threads: Threads,
  ) {}

  /** What the household wants of its plan. */
  wishes(query: PlanQuery = {}): PlanWishes {
    const { visitMinutes, plan = {} } = this.store.household.get()!;
    const weekdays = query.weekdays ? [...query.weekdays].map(Number) : plan.weekdays;
    return {
      limit: query.minutes ?? visitMinutes ?? USUAL_MINUTES,
      weekdays: weekdays ? [...new Set(weekdays)] : USUAL_DAYS,
      away: this.store.absences.list().map(({ from, to }) => ({ from, to })),
      closed: [...new Set(this.store.busy.list().flatMap(({ days }) => days))].sort(),
      ...(plan.way === undefined ? {} : { way: plan.way }),
      ...(query.school ? { school: query.school } : {}),
      ...(query.free ? { atWill: true } : {}),
      skipped: this.store.planned
        .list()
        .filter(({ skipped }) => skipped !== undefined)
        .flatMap(({ day, tasks }) => tasks.map((task) => ({ ...task, day }))),
    };
  }

  /** The problem of the house as it stands, or as it could be. */
  problem(query: PlanQuery = {}, house: House = houseOf(this.store)): AheadProblem {
    return houseProblem(house, this.wishes(query));
  }

  /**
   * The plan that holds, with the house that it is of; planned anew where what it rests on has changed. What changed
   * while it was being planned is planned with: nobody is told a mixture.
   */
  async current(): Promise<Planned> {
    const begun = Date.now();
    for (let tries = 0; ; tries++) {
      const house = houseOf(this.store);
      const problem = this.problem({}, house);
      const standing = this.#standing(problem.start);
      const key = keyOf(problem, standing);
      const basis = this.#basis();
      if (basis?.key === key) return { house, state: this.#state(problem, basis, standing, house) };
      const { revision } = this.store;
      const made = await this.#make(key, problem, standing);
      if (this.#basis()?.key === key) continue;
      // Nobody has written meanwhile: all of it holds as it was.
      if (this.store.revision === revision) {
        return { house, state: this.#keep({ key, ...made }, problem, house) };
      }
      if (tries < MOST_TRIES && Date.now() - begun < PATIENCE_MS) continue;
      // It is written faster than it is planned: what was planned is taken over as far as it still goes.
      const now = houseOf(this.store);
      const holds = this.problem({}, now);
      return {
        house: now,
        state: this.#keep({ key, ...carried(made, problem, holds) }, holds, now),
      };
    }
  }

  /** Plans in a thread; who asks for the same meanwhile gets the same. */
  #make(key: string, problem: AheadProblem, standing: readonly Standing[]): Promise<Progress> {
    if (this.#under?.key === key) return this.#under.made;
    const made = this.threads.run('plan', { problem, standing }).finally(() => {
      if (this.#under?.made === made) this.#under = undefined;
    });
    this.#under = { key, made };
    return made;
  }

  #basis(): Basis | undefined {
    const kept = this.store.planned.basis;
    return kept === undefined ? undefined : (JSON.parse(kept) as Basis);
  }

  /** What stands: the visits planned before, and those begun. */
  #standing(today: Day): (Standing & { who?: string | undefined })[] {
    const begun = this.store.visits.open().map(({ tasks }) => ({
      day: today,
      place: this.#placeOf(tasks),
      tasks,
      held: true,
    }));
    const planned = this.store.planned
      .list()
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
  #keep(basis: Basis, problem: AheadProblem, house: House): PlanState {
    const { store } = this;
    return store.write(() => {
      const today = problem.start;
      const standing = this.#standing(today);
      this.#tidy(house, today);
      const year = yearPlan(problem, basis, { standing });
      const before = store.planned
        .list()
        .filter(
          ({ done, skipped, day }) =>
            !done && skipped === undefined && daysBetween(day, today) <= MISSED,
        );
      const rows = matched(year.visits, before);
      this.#share(year.visits, rows);
      const now = Date.now();
      year.visits.forEach((visit, i) => {
        const row = rows[i];
        const told = toldOf(visit, row);
        if (!row) return void store.planned.add(told, now);
        if (isSame(row, told)) return;
        const isNews = row.day >= today && row.day !== visit.day && !visit.held;
        const moved = isNews
          ? { from: row.day, on: today, why: whyMoved(problem, basis.plan, row, visit, house) }
          : visit.held
            ? undefined
            : row.moved;
        store.planned.replace(row.id, row.version, { ...told, ...(moved ? { moved } : {}) }, now);
      });
      const kept = new Set(rows.flatMap((row) => (row ? [row.id] : [])));
      store.planned.remove(before.filter(({ id }) => !kept.has(id)).map(({ id }) => id));
      store.planned.basis = JSON.stringify(basis);
      store.changed({ topic: 'plan' });
      return this.#state(problem, basis, this.#standing(today), house);
    });
  }

  /** What was done is told so for a while; what is long past is forgotten. */
  #tidy(house: House, today: Day): void {
    const { planned } = this.store;
    const now = Date.now();
    for (const row of planned.list()) {
      const { id, version, changedAt: _at, ...told } = row;
      if (daysBetween(row.day, today) > TOLD) planned.remove([id]);
      else if (!row.done && row.skipped === undefined && isDone(row, house)) {
        const day = row.day < today ? row.day : today;
        planned.replace(id, version, { ...told, day, done: true }, now);
      }
    }
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

  #state(
    problem: AheadProblem,
    { plan, cost, bound }: Basis,
    standing: readonly (Standing & { who?: string | undefined })[],
    house: House,
  ): PlanState {
    const year = yearPlan(problem, { plan, cost, bound }, { standing });
    const list = this.store.planned.list();
    const live = list.filter(({ done, skipped }) => !done && skipped === undefined);
    const rows = matched(year.visits, live);
    this.#share(year.visits, rows);
    const known = new Set(house.machines.map(({ id }) => id));
    return {
      ...{ problem, plan, bound, cost },
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
