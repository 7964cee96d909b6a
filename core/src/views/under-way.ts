import { knowsTask } from '../care/catalogue/lookup.js';
import { planVisit } from '../care/visit/plan.js';
import { leftOpen } from '../care/visit/progress.js';
import type { Machine, Visit } from '../model/schemas.js';

/** A visit under way: where it is, and what is left of it. */
export interface UnderWay extends Omit<Visit, 'progress'> {
  place: string;
  /** The step it stands at, counted from one; of no step before the first. */
  step: number;
  steps: number;
  /** What is done at it. */
  say: string;
  /** Minutes at work left, about. */
  left: number;
  /** Steps of putting back that have to be done before it is left. */
  open: number;
  /** What soaks, dries or runs: what it is, and when it is over (UTC instant, milliseconds). */
  timers: { label: string; until: number }[];
}

/** Where a visit is. Machines that are gone are left out. */
export function underWay({ progress, ...visit }: Visit, machines: readonly Machine[]): UnderWay {
  const known = visit.tasks.filter((one) => {
    const machine = machines.find(({ id }) => id === one.machineId);
    return machine !== undefined && knowsTask(machine, one.task);
  });
  const plan = planVisit(known, machines);
  const at = plan.steps.findIndex(({ key }) => key === progress.at);
  const first = plan.steps.findIndex(({ key }) => progress.ticked[key] === undefined);
  const here = progress.at === undefined ? -1 : at >= 0 ? at : first;
  const ticked = plan.steps.filter(({ key }) => progress.ticked[key] !== undefined).length;
  const share = plan.steps.length ? 1 - ticked / plan.steps.length : 0;
  return {
    ...visit,
    place: machines.find(({ id }) => id === known[0]?.machineId)?.place ?? '',
    step: here + 1,
    steps: plan.steps.length,
    say: plan.steps[here]?.step.do ?? '',
    left: Math.round(plan.minutes.hands * share),
    open: leftOpen(plan, progress).length,
    timers: Object.entries(progress.timers).flatMap(([key, { startedAt, seconds }]) => {
      const label = plan.steps.find((step) => step.key === key)?.step.timer?.label;
      return label ? [{ label, until: Date.parse(startedAt) + 1000 * seconds }] : [];
    }),
  };
}
