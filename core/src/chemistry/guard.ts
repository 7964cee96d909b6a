import type { Active } from '../model/vocabulary.js';
import { FORBIDDEN, type Forbidden } from './forbidden.js';

/*
 * The chemical guard: what must not meet, over what was put into a machine since it was last rinsed.
 *
 *   vinegar (filter) . rinse of the filter . bleach (gasket) . | vinegar? stopped | full rinse . vinegar
 */

/** A product put into a machine, or a rinse. */
export interface ChemicalEvent {
  entryId: string;
  /** UTC instant, milliseconds. */
  at: number;
  kind: 'chemical' | 'rinse';
  product?: string;
  /** What acts in it; none for a rinse. */
  actives: readonly Active[];
  /** Where it was used; of a rinse, the only place that it rinsed. */
  station?: string;
}

/** Something about to be used meets something that is still there. */
export interface Meeting {
  brought: Active;
  present: ChemicalEvent;
  rule: Forbidden;
  /** False where one of them is not known and is taken for the worst. */
  sure: boolean;
}

const rank = ({ kind }: ChemicalEvent): number => (kind === 'rinse' ? 0 : 1);

/**
 * What is still in a machine: used since the last full rinse. A rinse of one place takes away only what
 * was used at that place. Of a rinse and a product at the same instant, the rinse came first.
 * @param events of one machine, in any order; one given twice counts once
 * @param since UTC instant, milliseconds, of the last full rinse known otherwise
 */
export function unrinsed(events: Iterable<ChemicalEvent>, since = -Infinity): ChemicalEvent[] {
  const once = new Map([...events].map((event) => [event.entryId, event]));
  const inOrder = [...once.values()].sort((a, b) => a.at - b.at || rank(a) - rank(b));
  let there: ChemicalEvent[] = [];
  for (const event of inOrder) {
    if (event.at < since) continue;
    if (event.kind === 'chemical') there.push(event);
    else if (event.station === undefined) there = [];
    else there = there.filter(({ station }) => station !== event.station);
  }
  return there;
}

/**
 * What would meet if something were used now. What nobody knows counts as the worst it could be.
 * @param actives of what is about to be used
 * @param present what is still in the machine
 */
export function meetings(actives: readonly Active[], present: readonly ChemicalEvent[]): Meeting[] {
  return present.flatMap((event) =>
    actives.flatMap((brought) =>
      event.actives.flatMap((there) => {
        const rule = ruleOf(brought, there);
        const sure = brought !== 'unknown' && there !== 'unknown';
        return rule ? [{ brought, present: event, rule, sure }] : [];
      }),
    ),
  );
}

/** The rule that keeps two actives apart, in either order. */
export function ruleOf(a: Active, b: Active): Forbidden | undefined {
  const fits = (one: Active, wanted: Active) => one === wanted || one === 'unknown';
  return FORBIDDEN.find(
    ({ pair: [x, y] }) => (fits(a, x) && fits(b, y)) || (fits(a, y) && fits(b, x)),
  );
}
