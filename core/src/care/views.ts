import type { Household, Machine, Run } from '../model/schemas.js';
import type { CaseLine } from '../trouble/cases/line.js';
import type { Day } from '../units/calendar.js';
import type { MachineState, Visit } from './bench.js';
import type { Due } from './due.js';
import type { Why } from './explain.js';
import type { HabitRow } from './habits.js';
import type { ShortSupply, SupplyState, YearCost } from './supplies.js';
import type { SchoolYear } from './year.js';

/* What the API derives and the screens show. */

export interface BenchView {
  household: Household;
  today: Day;
  machines: Machine[];
  states: MachineState[];
  /** Loads counted today and over the last seven days. */
  loads: { machineId: string; today: number; week: number }[];
  runs: Run[];
  /** Cases of trouble that are not closed. */
  cases: CaseLine[];
  /** What is done with each load, and on which of the last seven days it was. */
  habits: HabitRow[];
  /** Cleaning products used so far, the latest first. */
  products: string[];
  /** Supplies that the visit needs and that would run out in it. */
  short: ShortSupply[];
  visit?: Visit;
}

export type TaskView = Omit<Due, 'loads'> & { loads?: number; why: Why };

export interface LineView {
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
