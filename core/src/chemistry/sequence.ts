import { meetings, unrinsed, type ChemicalEvent, type Meeting } from './guard.js';
import type { Recipe } from './recipes.js';

/** A recipe, or a full rinse, in the order in which they are to be used. */
export type PlannedMix = Recipe | 'rinse';

/** One step of a planned order, with what it would meet; that has to be rinsed out first. */
export interface MixStep {
  name: string;
  meets?: Meeting;
}

/**
 * Goes through a planned order of recipes as the guard would.
 * @param there what is in the machine by its record
 * @param from UTC instant, milliseconds, after all of that
 */
export function mixSequence(
  planned: readonly PlannedMix[],
  there: readonly ChemicalEvent[],
  from: number,
): MixStep[] {
  const events = [...there];
  return planned.map((step, i): MixStep => {
    const at = from + i + 1;
    if (step === 'rinse') {
      events.push({ entryId: `planned-${i}`, at, kind: 'rinse', actives: [] });
      return { name: 'A full rinse' };
    }
    const { id, name, actives } = step;
    const [meets] = meetings(actives, unrinsed(events));
    events.push({ entryId: `planned-${i}`, at, kind: 'chemical', product: id, actives });
    return meets ? { name, meets } : { name };
  });
}
