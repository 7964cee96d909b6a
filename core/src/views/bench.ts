import { habitRows, type HabitRow } from '../care/house/habits.js';
import { stateOf, type MachineState } from '../care/house/machine-state.js';
import { shortFor, type ShortSupply, type StockEvent } from '../care/house/supplies.js';
import type { History } from '../care/record/history.js';
import type { House } from '../care/schedule/year.js';
import { nextVisit, type ProposedVisit } from '../care/visit/next.js';
import { productsUsed } from '../care/visit/products.js';
import type { CaseRecord, Household, Machine, Supply, Visit } from '../model/schemas.js';
import { caseState, isMereLook } from '../trouble/cases/state.js';
import { caseSummary, type CaseSummary } from '../trouble/cases/summary.js';
import { dayOf, plusDays, startOf, type Day } from '../units/calendar.js';

export type OpenVisit = Omit<Visit, 'progress'>;

/** What the bench shows. */
export interface BenchView {
  household: Household;
  today: Day;
  machines: Machine[];
  states: MachineState[];
  /** Loads counted today and over the last seven days. */
  loads: { machineId: string; today: number; week: number }[];
  /** Visits begun and not ended; how far each is, it tells itself. */
  runs: OpenVisit[];
  /** Cases of trouble that are not closed. */
  cases: CaseSummary[];
  /** What is done with each load, and on which of the last seven days it was. */
  habits: HabitRow[];
  /** Cleaning products used so far, the latest first. */
  products: string[];
  /** Supplies that the visit needs and that would run out in it. */
  short: ShortSupply[];
  visit?: ProposedVisit;
}

/** What is kept beside the machines and their record. */
export interface Kept {
  visits: readonly Visit[];
  cases: readonly CaseRecord[];
  supplies: readonly Supply[];
  /** Asked for only where a supply is kept. */
  stockEvents: () => readonly StockEvent[];
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
  const { household, histories, now } = house;
  const machines = [...house.machines];
  const { zone } = household;
  const today = dayOf(now, zone);
  const days = machines.map((machine, i) => worked.of(machine, histories[i]!, household, now));
  const states = days.map(({ state }) => state);
  const midnight = startOf(today, zone);
  const weekAgo = startOf(plusDays(today, -6), zone);
  const visit = worked.next(machines, states, today, household.visitMinutes);
  return {
    household,
    today,
    machines,
    states,
    loads: machines.map(({ id }, i) => {
      const since = (instant: number) => histories[i]!.usage.between(instant, now).counted;
      return { machineId: id, today: since(midnight), week: since(weekAgo) };
    }),
    runs: kept.visits.map(({ progress: _progress, ...visit }) => visit),
    cases: kept.cases
      .filter((one) => {
        const state = caseState(one);
        return state.state !== 'closed' && !isMereLook(state);
      })
      .map((one) => caseSummary(one, zone, today)),
    habits: days.flatMap(({ habits }) => habits),
    products: productsUsed(histories),
    short:
      visit && kept.supplies.length
        ? shortFor(visit, kept.supplies, kept.stockEvents(), machines)
        : [],
    ...(visit ? { visit } : {}),
  };
}
