import { quantityOf, type QuantityId } from '../../model/quantities.js';
import type { Entry } from '../../model/schemas.js';

/* What was found and measured at a station, made use of. */

/** What a find that comes again leads to. Common practice. */
const LEADS: readonly { what: readonly string[]; to: string }[] = [
  {
    what: [
      'hair grip',
      'coin',
      'button',
      'mask',
      'dye catcher',
      'colour catcher',
      'toothpick',
      'gum',
    ],
    to: 'Empty pockets before each load, and wash small things in a closed net.',
  },
  {
    what: ['sock', 'fabric', 'hair tie'],
    to: 'Wash small things in a closed net, never the net alone.',
  },
  {
    what: ['padding', 'rubber granules'],
    to: 'Something comes apart: rubber-backed rugs and worn padding are washed elsewhere.',
  },
  {
    what: ['hair', 'lint', 'fluff', 'lint roll'],
    to: 'Roll the hair off dry before the load, and shake blankets outdoors.',
  },
  {
    what: ['rubber crumbs'],
    to: 'The fill hose comes apart from inside: replace it, with its washers.',
  },
  { what: ['nest', 'leaves'], to: 'A guard made for dryers keeps birds out; never a mesh.' },
];

/** What was found at the last two openings alike, and what to do about it. */
export interface Again {
  what: string;
  to: string;
}

/** @param entries of one station, the newest first */
export function foundAgain(entries: readonly Pick<Entry, 'found'>[]): Again[] {
  const [last, before] = entries
    .filter(({ found }) => found?.length)
    .map(({ found }) => new Set(found!.map(({ what }) => what)));
  if (!last || !before) return [];
  return LEADS.flatMap(({ what, to }) => {
    const again = what.filter((one) => last.has(one) && before.has(one));
    return again.length ? [{ what: again.join(', '), to }] : [];
  });
}

/** Figures that are compared from year to year. */
const YEARLY: readonly QuantityId[] = ['lint-mass', 'blocked-before', 'blocked-after'];

export interface YearlyFigure {
  quantity: QuantityId;
  /** "Lint brushed out". */
  say: string;
  unit: string;
  /** The oldest first; the mean of a year's readings. */
  years: { year: number; value: number }[];
}

/** What was weighed and estimated at a station, year by year. @param entries in any order */
export function yearByYear(
  entries: readonly Pick<Entry, 'kind' | 'quantity' | 'value' | 'at'>[],
): YearlyFigure[] {
  return YEARLY.flatMap((quantity) => {
    const read = entries.filter((one) => one.kind === 'reading' && one.quantity === quantity);
    if (read.length === 0) return [];
    const byYear = new Map<number, number[]>();
    for (const { at, value } of read) {
      const year = new Date(at).getUTCFullYear();
      byYear.set(year, [...(byYear.get(year) ?? []), value!]);
    }
    const mean = (all: readonly number[]) => all.reduce((a, b) => a + b, 0) / all.length;
    const { logged, unit } = quantityOf(quantity)!;
    return [
      {
        quantity,
        say: logged.replace(/:$/, ''),
        unit,
        years: [...byYear]
          .sort((a, b) => a[0] - b[0])
          .map(([year, all]) => ({ year, value: Number(mean(all).toPrecision(3)) })),
      },
    ];
  });
}
