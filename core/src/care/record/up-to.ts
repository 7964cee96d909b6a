import type { History } from './history.js';
import type { LoadCount } from './load-counts.js';
import { Usage } from './load-counts.js';
import { Openings } from './openings.js';

/** A machine's history as it stood at an instant: nothing that came after is in it. @param at UTC milliseconds */
export function historyUpTo(history: History, at: number): History {
  const before = <T extends { at: number }>(list: readonly T[]): T[] =>
    list.filter((one) => one.at < at);
  const { usage } = history;
  const readings = new Map([...history.readings].map(([task, list]) => [task, before(list)]));
  const latest: History['latest'] = new Map();
  for (const one of [...readings.values()].flat()) {
    if (one.at >= (latest.get(one.quantity)?.at ?? -Infinity)) latest.set(one.quantity, one);
  }
  return {
    ...history,
    ...{ readings, latest },
    openings: new Map(
      [...history.openings].map(([task, { list }]) => [task, new Openings(before(list))]),
    ),
    chemicals: before(history.chemicals),
    proofs: before(history.proofs),
    explained: before(history.explained),
    replaced: before(history.replaced),
    usage: new Usage(before<LoadCount>(usage.taps), usage.usualPerWeek),
  };
}
