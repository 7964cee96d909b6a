/** A load that somebody tapped. */
export interface TappedLoad {
  id: string;
  /** UTC milliseconds. */
  at: number;
  /** Loads counted with it. */
  count: number;
}

/** People tap before they start it, and when they empty it, ms. Common practice. */
const BEFORE = 30 * 60_000;
const AFTER = 12 * 3_600_000;

/**
 * Which tap is of which load that a meter found: one to one, the nearest first; a tap of several loads is of so many.
 * @param loads UTC milliseconds, in any order
 * @returns the tap's id of each load, by the load's place; nothing where nobody tapped
 */
export function matchTaps(
  loads: readonly { from: number; to: number }[],
  taps: readonly TappedLoad[],
): (string | undefined)[] {
  const away = ({ from, to }: { from: number; to: number }, at: number): number =>
    at < from ? from - at : at > to ? at - to : 0;
  const pairs = loads.flatMap((load, i) =>
    taps.flatMap((tap) =>
      tap.at >= load.from - BEFORE && tap.at <= load.to + AFTER
        ? [{ i, tap, away: away(load, tap.at) }]
        : [],
    ),
  );
  const left = new Map(taps.map(({ id, count }) => [id, count]));
  const matched: (string | undefined)[] = loads.map(() => undefined);
  for (const { i, tap } of pairs.sort((a, b) => a.away - b.away)) {
    const more = left.get(tap.id)!;
    if (matched[i] !== undefined || more === 0) continue;
    matched[i] = tap.id;
    left.set(tap.id, more - 1);
  }
  return matched;
}
