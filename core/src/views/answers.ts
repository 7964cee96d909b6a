import type { ChartsView } from './charts.js';
import type { LifeView } from './life.js';
import type { HindsightView } from './hindsight.js';
import type { InstrumentAnswers } from '../measure/instruments.js';
import type { YearView } from './year.js';
import type { BenchView } from './bench.js';
import type { PlanAhead, PlanView } from './plan.js';
import type { AheadProblem } from '../plan/ahead.js';
import type { MachineView } from './machine.js';
import type { SchoolsView, SuppliesView } from './house.js';
import type { LikelyTrouble, TroubleAnswer, TroubleStart } from './trouble.js';

/**
 * Every answer of the API that is worked out rather than stored, by the name that its schema goes by. The
 * schemas are made from these types when the program is built (tools/derived.ts), and every real answer is
 * held against its own in a test.
 */
export interface ApiAnswers {
  Bench: BenchView;
  MachineLine: MachineView;
  Schools: SchoolsView;
  Supplies: SuppliesView;
  TroubleStart: TroubleStart;
  Trouble: TroubleAnswer;
  LikelyTrouble: LikelyTrouble[];
  Plan: PlanView;
  PlanAhead: PlanAhead;
  PlanProblem: AheadProblem;
  Hindsight: HindsightView;
  Charts: ChartsView;
  Life: LifeView;
  Year: YearView;
}
export type AnswerName = keyof ApiAnswers;

export type { InstrumentAnswers };
