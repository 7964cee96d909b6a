import type { Acts, Body, Demand, Law } from '../world/acts.js';
import { demandsOf } from '../world/acts.js';
import type { Fact } from '../world/facts.js';
import { isFull, step, type World } from '../world/world.js';
import type { Deed } from './deeds.js';
import { STOPPED } from './words.js';

/** What comes of something done to the machine. */
export type Outcome =
  /** It cannot be done as things stand. */
  | { is: 'not yet'; wants: Pick<Demand, 'fact' | 'values'> }
  /** The hand is stopped. */
  | { is: 'stopped'; law: Law }
  /** Done; `spilled` are the litres that ran out of the machine. */
  | { is: 'done'; world: World; spilled: number };

/**
 * Does something in the machine's world, step for step; what is so already is passed over, and what was so before
 * stays so when it is closed again.
 */
export function doIn(before: World, { open, close }: Deed, body: Body): Outcome {
  let world = before;
  let spilled = 0;
  const isSo = ({ does = {} }: Acts, { facts }: World): boolean =>
    Object.entries(does).every(([fact, value]) => facts[fact as Fact] === value);
  const changes = ({ does }: Acts): boolean => does !== undefined;
  for (const [acts, closing] of [
    ...open.map((one) => [one, false] as const),
    ...close.map((one) => [one, true] as const),
  ]) {
    if (changes(acts) && isSo(acts, world)) continue;
    // What stood open before stays open.
    if (closing && !isSo(acts, before)) continue;
    const unmet = demandsOf(acts, body).filter(
      ({ fact, values }) => !values.includes(world.facts[fact]),
    );
    const stop = unmet.find(({ law }) => STOPPED[law]);
    if (stop) return { is: 'stopped', law: stop.law };
    const wants = unmet[0];
    if (wants) return { is: 'not yet', wants };
    if (acts.does?.place === 'out' && isFull(world))
      return { is: 'stopped', law: 'too heavy alone' };
    const next = step(world, { acts }, body, [], 0);
    const out = next.world.floor - world.floor;
    spilled += out;
    // What runs from the tap was never in the drum.
    const own = acts.does?.fillHose || acts.does?.tap ? 0 : out;
    world = { ...next.world, litres: Math.max(0, next.world.litres - own) };
  }
  return { is: 'done', world, spilled };
}
