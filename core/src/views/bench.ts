import { habitRows, type HabitRow } from '../care/house/habits.js';
import { stateOf, type MachineState } from '../care/house/machine-state.js';
import type { SectionTold } from '../care/house/sections.js';
import { shortFor, type ShortSupply, type StockEvent } from '../care/house/supplies.js';
import type { History } from '../care/record/history.js';
import type { House } from '../care/schedule/year.js';
import { nextVisit, type ProposedVisit } from '../care/visit/next.js';
import { productsUsed } from '../care/visit/products.js';
import type { ToldSignal } from './signals.js';
import type { CaseRecord, Household, Machine, Supply, Visit } from '../model/schemas.js';
import type { PlannedVisit } from '../model/planned.js';
import { caseState, isMereLook, isRested } from '../trouble/cases/state.js';
import { caseSummary, type CaseSummary } from '../trouble/cases/summary.js';
import type { CaseLook } from './trouble.js';
import { underWay, type UnderWay } from './under-way.js';
import { dayOf, plusDays, startOf, type Day } from '../units/calendar.js';

/** What the bench shows. */
export interface BenchView {
  household: Household;
  /** Not there where all of the house is shown. */
  section?: SectionTold;
  today: Day;
  /** All that are in the house. What is told of each beyond is told of those that are shown. */
  machines: Machine[];
  states: MachineState[];
  /** Loads counted: on each of the last seven days, today last, and together. */
  loads: { machineId: string; today: number; week: number; days: number[] }[];
  /** Visits begun and not ended, the one worked at last first. */
  runs: UnderWay[];
  /** Cases of trouble that are not closed, those to be looked at first. */
  cases: BenchCase[];
  /** What the numbers noticed, while it holds; not there where they noticed nothing. */
  signals?: ToldSignal[];
  /** What is done with each load, and on which of the last seven days it was. */
  habits: HabitRow[];
  /** Cleaning products used so far, the latest first. */
  products: string[];
  /** Supplies that the visit needs and that would run out in it. */
  short: ShortSupply[];
  visit?: ProposedVisit & {
    /** When the plan has it, and who does it. */
    planned?: { day: Day; who?: string };
  };
}

/** A case, and of the first one what to look at next. */
export type BenchCase = CaseSummary & { look?: CaseLook };

/** What is kept beside the machines and their record. */
export interface Kept {
  visits: readonly Visit[];
  cases: readonly CaseRecord[];
  supplies: readonly Supply[];
  /** Asked for only where a supply is kept. */
  stockEvents: () => readonly StockEvent[];
  /** Visits of the plan that are still to be made. */
  planned?: readonly PlannedVisit[];
  /** What the meters' figures tell of the machines. */
  signals?: readonly ToldSignal[];
  /** Of a large house: which machines are shown, of all. */
  section?: { told: SectionTold; machines: readonly Machine[] } | undefined;
  /** What to look at next in a case. */
  look?: (record: CaseRecord) => CaseLook | undefined;
}

/** What the bench shows of one machine, from its record and the day. */
export interface MachineDay {
  state: MachineState;
  habits: HabitRow[];
}

/** How the parts of a bench are worked out. */
export interface Worked {
  of: typeof machineDay;
  next: typeof nextVisit;
}

/** What the bench shows of one machine. @param now UTC instant, milliseconds */
export const machineDay = (
  machine: Machine,
  history: History,
  household: Household,
  now: number,
): MachineDay => ({
  state: stateOf(machine, history, household, now),
  habits: habitRows(machine, history, dayOf(now, household.zone)),
});

/**
 * The bench of a house.
 * @param worked may give what was worked out before for the same
 */
export function benchView(
  house: House,
  kept: Kept,
  worked: Worked = { of: machineDay, next: nextVisit },
): BenchView {
  const { household, now } = house;
  const all = [...house.machines];
  const machines = kept.section ? [...kept.section.machines] : all;
  const at = new Map(all.map(({ id }, i) => [id, house.histories[i]!]));
  const histories = machines.map(({ id }) => at.get(id)!);
  const { zone } = household;
  const today = dayOf(now, zone);
  const days = machines.map((machine, i) => worked.of(machine, histories[i]!, household, now));
  const states = days.map(({ state }) => state);
  const days7 = [6, 5, 4, 3, 2, 1, 0].map((ago) => startOf(plusDays(today, -ago), zone));
  const begun = kept.visits.flatMap(({ tasks }) => tasks);
  const visit = worked.next(machines, states, today, household.visitMinutes, begun);
  const planned = visit && plannedFor(visit, kept.planned ?? [], today);
  return {
    household,
    ...(kept.section ? { section: kept.section.told } : {}),
    today,
    machines: all,
    states,
    loads: machines.map(({ id }, i) => {
      const { usage } = histories[i]!;
      const counted = days7.map((from, d) => usage.between(from, days7[d + 1] ?? now).counted);
      const week = counted.reduce((sum, n) => sum + n, 0);
      return { machineId: id, today: counted[6]!, week, days: counted };
    }),
    runs: kept.visits
      .map((visit) => underWay(visit, all))
      .sort((a, b) => b.changedAt.localeCompare(a.changedAt)),
    cases: casesOn(kept, all, zone, today),
    ...(kept.signals?.length ? { signals: [...kept.signals] } : {}),
    habits: days.flatMap(({ habits }) => habits),
    products: productsUsed(histories),
    short:
      visit && kept.supplies.length
        ? shortFor(visit, kept.supplies, kept.stockEvents(), machines)
        : [],
    ...(visit ? { visit: { ...visit, ...(planned ? { planned } : {}) } } : {}),
  };
}

/** Cases of the house's machines that are not closed; what was stopped for safety first, what rests last. */
function casesOn(
  { cases, look }: Kept,
  machines: readonly Machine[],
  zone: string,
  today: Day,
): BenchCase[] {
  const there = new Set(machines.map(({ id }) => id));
  const open = cases
    .filter(({ machineId }) => there.has(machineId))
    .map((record) => ({ record, state: caseState(record) }))
    .filter(({ state }) => state.state !== 'closed' && !isMereLook(state))
    .map((one) => ({ ...one, summary: caseSummary(one.record, zone, today) }));
  const rank = ({ state, summary }: (typeof open)[number]) =>
    summary.stopped ? 0 : state.state === 'open' || isRested(state, today) ? 1 : 2;
  return open
    .sort((a, b) => rank(a) - rank(b) || b.state.openedAt - a.state.openedAt)
    .map(({ record, state, summary }, i) => {
      const next = i === 0 && rank({ record, state, summary }) === 1 ? look?.(record) : undefined;
      return { ...summary, ...(next ? { look: next } : {}) };
    });
}

/** When the plan has the first of a visit’s tasks. */
function plannedFor(
  { tasks: [first] }: ProposedVisit,
  planned: readonly PlannedVisit[],
  today: Day,
) {
  const row = planned.find(
    ({ day, done, skipped, tasks }) =>
      day >= today &&
      !done &&
      skipped === undefined &&
      tasks.some(({ machineId, task }) => machineId === first?.machineId && task === first.task),
  );
  return row && { day: row.day, ...(row.who ? { who: row.who } : {}) };
}
