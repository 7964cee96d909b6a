import type { Region, Units } from './region.js';
import { REGION_SAYINGS } from './sayings.js';
import { REGION_WORDS } from './words.js';

/** In whose words and units a text is told; without units figures stay in both. */
export interface Tongue {
  region: Region;
  units?: Units | undefined;
}

/** As the texts are written. */
export const AS_WRITTEN: Tongue = { region: 'eu' };

interface Table {
  pattern: RegExp;
  by: ReadonlyMap<string, string>;
}

const TABLES = new Map<Region, Table | undefined>();
const SAYINGS = new Map<Region, readonly (readonly [string, string])[]>();

/** The words that differ in a region, as one pattern with the longest phrase first. */
function tableOf(region: Region): Table | undefined {
  if (!TABLES.has(region)) {
    const by = new Map(
      REGION_WORDS.flatMap((word) => {
        const there = word[region];
        return there === undefined || there === word.eu ? [] : [[word.eu, there] as const];
      }),
    );
    const phrases = [...by.keys()].sort((a, b) => b.length - a.length);
    const pattern = new RegExp(`(?<![\\p{L}-])(?:${phrases.join('|')})(?![\\p{L}-]|’s)`, 'giu');
    TABLES.set(region, by.size > 0 ? { pattern, by } : undefined);
  }
  return TABLES.get(region);
}

function sayingsOf(region: Region): readonly (readonly [string, string])[] {
  const known = SAYINGS.get(region);
  if (known) return known;
  const made = REGION_SAYINGS.flatMap((saying) => {
    const there = saying[region];
    return there === undefined || region === 'eu' ? [] : [[saying.eu, there] as const];
  });
  SAYINGS.set(region, made);
  return made;
}

const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** "4 to 10 cm (2 to 4 in)": a figure and, in brackets, the same in the other units. */
const NUMBER = String.raw`(?:\d[\d.,]*(?:/\d+)?(?: to \d[\d.,]*)?|[Hh]alf a|[Tt]wo|[Aa])`;
const METRIC = String.raw`(?:cm|mm|m|kg|g|L|l|litres?|°C)`;
const US = String.raw`(?:in|ft|oz|lb|gal|gallon|pint|°F)`;
const BOTH = new RegExp(
  String.raw`(${NUMBER} ?${METRIC})( a minute)? \((${NUMBER} ?${US})\)`,
  'gu',
);

/** Figures that stand in both units, in one. */
const inOneUnit = (text: string, units: Units): string =>
  text.replace(BOTH, (_, metric: string, rate = '', us: string) =>
    units === 'us' ? `${us}${rate as string}` : `${metric}${rate as string}`,
  );

/** A text in somebody's words and units. A capital at the start of a word stays one. */
export function inTongue(text: string, { region, units }: Tongue): string {
  let told = text;
  for (const [written, there] of sayingsOf(region)) {
    if (told.includes(written)) told = told.replace(written, there);
  }
  // Figures first: their units are words that differ as well.
  if (units) told = inOneUnit(told, units);
  const table = tableOf(region);
  if (table) {
    told = told.replace(table.pattern, (found) => {
      const there = table.by.get(found) ?? table.by.get(found.toLowerCase()) ?? found;
      return /^\p{Lu}/u.test(found) ? capitalised(there) : there;
    });
  }
  return told;
}
