import { STATIONS } from '../../care/catalogue/data/stations.js';
import type { FieldProblem } from '../../model/check.js';
import type { CodeSheet, CodeSheetDraft } from '../../model/schemas.js';
import { bare, sayLamps } from './read.js';

/**
 * What a schema cannot see in a code sheet: a second one of its maker and family; rows without a code, twice,
 * or at stations that are not.
 * @param kept the sheets of the house
 * @param but the id of the sheet that is changed
 */
export function checkSheet(
  draft: CodeSheetDraft,
  kept: readonly CodeSheet[] = [],
  but?: string,
): FieldProblem[] {
  const { rows, lamps = [] } = draft;
  const problems: FieldProblem[] = [];
  if (kept.some((one) => one.id !== but && bareName(one) === bareName(draft))) {
    problems.push({ field: 'family', message: 'There is a sheet of this maker and family.' });
  }
  const seen = new Set<string>();
  rows.forEach(({ code, pattern, stations = [] }, i) => {
    const wrong = (field: string, message: string) =>
      problems.push({ field: `rows.${i}.${field}`, message });
    if ((code === undefined) === (pattern === undefined)) {
      return wrong('code', 'Give either a code, or the lamps that show it.');
    }
    if (code !== undefined && bare(code) === '') wrong('code', 'Give letters or digits.');
    const key = code === undefined ? sayLamps(pattern!) : bare(code);
    if (seen.has(key)) wrong('code', 'This code is on the sheet already.');
    seen.add(key);
    const strange = pattern?.lamps.filter((lamp) => !lamps.includes(lamp)) ?? [];
    if (strange.length) wrong('pattern', `The sheet names no lamp “${strange[0]}”.`);
    for (const station of stations) {
      if (!STATIONS.some(({ id }) => id === station)) {
        wrong('stations', `There is no station “${station}”.`);
      }
    }
  });
  return problems;
}

const bareName = ({ maker, family }: CodeSheetDraft): string =>
  `${maker} ${family}`.trim().toLowerCase();
