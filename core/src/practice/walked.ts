import type { VisitStep } from '../care/visit/visit-step.js';
import { startsOf, STARTS, brokenBy, type Start } from '../laws/check-visit.js';
import type { Body, Law } from '../world/acts.js';
import { startWorld, step, type World } from '../world/world.js';

/**
 * How a machine stands after the steps of a visit that were walked, in their order; what only the next load proves is
 * not walked.
 */
export const worldAfter = (
  steps: readonly Pick<VisitStep, 'step'>[],
  body: Body,
  start: Start = 'usual',
): World =>
  steps
    .filter(({ step: one }) => !one.later)
    .reduce((world, { step: one }) => step(world, one, body).world, startWorld(STARTS[start]));

/** What would come of a visit that is walked with gaps. */
export interface CameOf {
  law: Law;
  /** Key of the step; `end` where everybody has gone. */
  at: string;
  /** Only where the machine is met full of water. */
  ifFull: boolean;
}

/** What would come of the steps of one machine that were walked, however it is met; each law once, the usual way first. */
export function cameOf(walked: readonly VisitStep[], body: Body): CameOf[] {
  const told = new Map<Law, CameOf>();
  for (const start of startsOf(body)) {
    for (const { law, at } of brokenBy(walked, body, start)) {
      if (!told.has(law)) told.set(law, { law, at, ifFull: start === 'full' });
    }
  }
  return [...told.values()];
}
