import type { VisitStep } from '../care/visit/visit-step.js';
import { isWasher } from '../model/vocabulary.js';
import type { Body, Law } from '../world/acts.js';
import { isDoorLocked, SUMP } from '../world/water.js';
import { faultsAtEnd, isFull, startWorld, step, type World } from '../world/world.js';

/** A law broken in a visit. */
export interface Broken {
  law: Law;
  /** Key of the step; `end` where everybody has gone. */
  at: string;
  what: string;
}

/** How a machine is met: as after a usual load, or full of warm water that did not drain; litres. */
export const STARTS = { usual: SUMP, full: 40 } as const;
export type Start = keyof typeof STARTS;

/** A dryer is never full. */
export const startsOf = ({ kind }: Body): Start[] =>
  isWasher(kind) ? ['usual', 'full'] : ['usual'];

/**
 * Walks one machine's part of a visit through the world and tells which laws break. What only the next
 * load can prove is not walked.
 */
export function brokenBy(
  steps: readonly VisitStep[],
  body: Body,
  start: Start = 'usual',
): Broken[] {
  let world: World = startWorld(STARTS[start]);
  const broken: Broken[] = [];
  const cleaned = new Set<string | undefined>();
  const noted = new Set<string>();
  for (const { key, task, step: one } of steps) {
    if (one.later) continue;
    if (one.acts.stopsIfFull && isFull(world)) return broken;
    if (one.acts.at === 'drum' && isDoorLocked(world.litres, body.kind)) return broken;
    if (one.note === 'grade' && task && !noted.has(task)) {
      if (cleaned.has(task)) broken.push({ law: 'noted too late', at: key, what: task });
      noted.add(task);
    }
    if (one.acts.cleans) cleaned.add(task);
    const next = step(world, one, body);
    broken.push(...next.faults.map((fault) => ({ ...fault, at: key })));
    world = next.world;
  }
  return [...broken, ...faultsAtEnd(world).map((fault) => ({ ...fault, at: 'end' }))];
}

/** Laws that a visit breaks, however its machines are met. */
export const brokenInVisit = (
  plan: { steps: readonly VisitStep[] },
  machines: readonly (Body & { id: string })[],
) =>
  machines.flatMap((machine) => {
    const own = plan.steps.filter(({ machineId }) => machineId === machine.id);
    return startsOf(machine).flatMap((start) =>
      brokenBy(own, machine, start).map((one) => ({ ...one, start })),
    );
  });
