import type { Household, Machine, Visit } from '../model/schemas.js';
import type { CaseSummary } from '../trouble/cases/summary.js';
import type { Day } from '../units/calendar.js';
import type { MachineState } from '../care/house/machine-state.js';
import type { ProposedVisit } from '../care/visit/next.js';
import type { Due } from '../care/schedule/due.js';
import type { Why } from '../care/schedule/explain.js';
import type { HabitRow } from '../care/house/habits.js';
import type { ShortSupply, SupplyState, YearCost } from '../care/house/supplies.js';
import type { SchoolYear } from '../care/schedule/year.js';

/* What the API derives and the screens show. */

export interface BenchView {
  household: Household;
  today: Day;
  machines: Machine[];
  states: MachineState[];
  /** Loads counted today and over the last seven days. */
  loads: { machineId: string; today: number; week: number }[];
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

export type TaskView = Omit<Due, 'loads'> & { loads?: number; why: Why };

export interface MachineView {
  machine: Machine;
  today: Day;
  state: MachineState;
  habits: HabitRow[];
  tasks: TaskView[];
}

export interface SchoolsView {
  household: Household;
  schools: (SchoolYear & YearCost)[];
}

export interface SuppliesView {
  household: Household;
  machines: Machine[];
  supplies: SupplyState[];
}
