import { habitRows, type HabitRow } from '../care/house/habits.js';
import { stateOf, type MachineState } from '../care/house/machine-state.js';
import { shortFor, type ShortSupply, type StockEvent } from '../care/house/supplies.js';
import type { House } from '../care/schedule/year.js';
import { nextVisit, type ProposedVisit } from '../care/visit/next.js';
import { productsUsed } from '../care/visit/products.js';
import type { CaseRecord, Household, Machine, Supply, Visit } from '../model/schemas.js';
import { caseState, isMereLook } from '../trouble/cases/state.js';
import { caseSummary, type CaseSummary } from '../trouble/cases/summary.js';
import { dayOf, plusDays, startOf, type Day } from '../units/calendar.js';

/** What the bench shows. */
export interface BenchView {
  household: Household;
  today: Day;
  machines: Machine[];
  states: MachineState[];
  /** Loads counted today and over the last seven days. */
  loads: { machineId: string; today: number; week: number }[];
  /** Visits begun and not ended. */
  runs: Visit[];
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

/** The bench of a house. */
export function benchView(house: House, kept: Kept): BenchView {
  const { household, histories, now } = house;
  const machines = [...house.machines];
  const { zone } = household;
  const today = dayOf(now, zone);
  const states = machines.map((machine, i) => stateOf(machine, histories[i]!, household, now));
  const midnight = startOf(today, zone);
  const weekAgo = startOf(plusDays(today, -6), zone);
  const visit = nextVisit(machines, states, today, household.visitMinutes);
  return {
    household,
    today,
    machines,
    states,
    loads: machines.map(({ id }, i) => {
      const since = (instant: number) => histories[i]!.usage.between(instant, now).counted;
      return { machineId: id, today: since(midnight), week: since(weekAgo) };
    }),
    runs: [...kept.visits],
    cases: kept.cases
      .filter((one) => {
        const state = caseState(one);
        return state.state !== 'closed' && !isMereLook(state);
      })
      .map((one) => caseSummary(one, zone, today)),
    habits: machines.flatMap((machine, i) => habitRows(machine, histories[i]!, today)),
    products: productsUsed(histories),
    short:
      visit && kept.supplies.length
        ? shortFor(visit, kept.supplies, kept.stockEvents(), machines)
        : [],
    ...(visit ? { visit } : {}),
  };
}
