import type { Step } from '../catalogue/types.js';

/** Where in a visit a step belongs. */
export type Phase = 'set-up' | 'work' | 'put-back' | 'undo' | 'last' | 'proof';

export const PHASE_NAMES: Record<Phase, string> = {
  'set-up': 'Get ready',
  work: 'Clean',
  'put-back': 'Put back',
  undo: 'Leave it ready',
  last: 'Last of all',
  proof: 'Proof',
};

/** One step of a visit, as it fills the screen. */
export interface VisitStep {
  /** Unique in the visit and stable from one version to the next: `machine/task/step`. */
  key: string;
  machineId: string;
  /** Absent in steps that several tasks share. */
  task?: string;
  phase: Phase;
  step: Step;
  /** The words of the cautions at this step. */
  cautions: string[];
}
