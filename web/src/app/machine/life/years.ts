import { daysBetween, plusDays, plusMonths, type Day } from '@needlecase/core';
import type { LifeView, PartView } from '@needlecase/core/views/life';

/** The years that a machine's parts are drawn along. */
export interface Scale {
  from: Day;
  to: Day;
  /** 0 to 1, from its beginning to its end. */
  at: (day: Day) => number;
  /** The first of January of each year, or of each second one. */
  years: { at: number; say: string }[];
}

/** Without a date nothing older is drawn than this, in months. */
const LEAST_MONTHS = 24;
/** The days to come that are drawn, in months. */
const AHEAD_MONTHS = 30;
const MOST_YEARS = 9;

/** From what is known first of a machine to some way ahead. */
export function scaleOf({
  today,
  since,
  parts,
}: Pick<LifeView, 'today' | 'since' | 'parts'>): Scale {
  const known = [since, ...parts.flatMap((part) => [part.since, ...part.replaced])].filter(
    (day): day is Day => day !== undefined && day <= today,
  );
  const least = plusMonths(today, -LEAST_MONTHS);
  const from = known.reduce((first, day) => (day < first ? day : first), least);
  const to = plusMonths(today, AHEAD_MONTHS);
  const days = daysBetween(from, to);
  const at = (day: Day): number => Math.min(1, Math.max(0, daysBetween(from, day) / days));
  const [first, last] = [Number(from.slice(0, 4)) + 1, Number(to.slice(0, 4))];
  const step = Math.ceil((last - first + 1) / MOST_YEARS);
  const years: Scale['years'] = [];
  for (let year = first; year <= last; year += step) {
    const day = `${String(year).padStart(4, '0')}-01-01`;
    if (plusDays(day, 200) <= to) years.push({ at: at(day), say: String(year) });
  }
  return { from, to, at, years };
}

/** One stretch of a part's thread, 0 to 1. */
export interface Stretch {
  from: number;
  to: number;
  /** Before the one that is in it now; in its time; past it; to come. */
  kind: 'gone' | 'good' | 'past' | 'ahead';
}

/** The thread of a part: those that were in the machine before, the one that is, and how long it is good for. */
export function stretchesOf(part: PartView, scale: Scale, today: Day): Stretch[] {
  const { since, on, replaced } = part;
  if (since === undefined) return [];
  const { at } = scale;
  const begins = [scale.from, ...replaced.filter((day) => day < since)].filter(
    (day) => day < since,
  );
  const gone = (replaced.length ? begins : []).map((day, i): Stretch => {
    return { from: at(day), to: at(begins[i + 1] ?? since), kind: 'gone' };
  });
  const good = on !== undefined && on < today ? on : today;
  return [
    ...gone,
    { from: at(since), to: at(good), kind: 'good' as const },
    ...(good < today ? [{ from: at(good), to: at(today), kind: 'past' as const }] : []),
    ...(on !== undefined && on > today
      ? [{ from: at(today), to: at(on), kind: 'ahead' as const }]
      : []),
  ].filter(({ from, to }) => to > from);
}
