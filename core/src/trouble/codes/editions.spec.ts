import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CodeRow, CodeSheetDraft } from '../../model/schemas.js';
import { CODE_CLASSES } from '../../model/vocabulary.js';
import { compareEditions, withTaken } from './editions.js';
import { checkSheet } from './sheet.js';

const sheet = (...rows: CodeRow[]): CodeSheetDraft => ({
  ...{ format: 'needlecase-code-sheet-1', maker: 'Fennowick', family: 'Loop 7' },
  ...{ kinds: ['front-load-washer'], rows },
});
const row = (code: string, says: string, more: Partial<CodeRow> = {}): CodeRow => ({
  ...{ code, says, class: 'drain', ...more },
});

const someRow = fc.record(
  {
    code: fc.constantFrom('HEM-18', 'HEM-19', 'YRN-04', 'SEL-23', 'LUP-41'),
    says: fc.constantFrom('Not pumped out', 'No water', 'Door open'),
    class: fc.constantFrom(...CODE_CLASSES),
    clears: fc.constantFrom('Clean the filter', 'Open the tap'),
  },
  { requiredKeys: ['code', 'says', 'class'] },
);
const someSheet = fc
  .uniqueArray(someRow, { selector: ({ code }) => code, maxLength: 5 })
  .map((rows) => sheet(...rows));

describe('two editions of a sheet', () => {
  it('differ code by code, however a code is written', () => {
    const ours = sheet(row('HEM-18', 'Not pumped out'), row('YRN 04', 'No water'), row('A1', 'x'));
    const theirs = sheet(
      row('hem18', 'Water not pumped out', { stations: ['pump'] }),
      row('YRN-04', 'No water'),
      row('SEL-23', 'Leak'),
    );
    expect(
      compareEditions(ours, theirs).map(({ shows, is, fields }) => [shows, is, fields]),
    ).toEqual([
      ['hem18', 'other', ['says', 'stations']],
      ['SEL-23', 'new', []],
      ['A1', 'gone', []],
    ]);
  });

  it('of which all is taken over do not differ any more; of which nothing is, ours is as it was', () => {
    fc.assert(
      fc.property(someSheet, someSheet, (ours, theirs) => {
        const all = compareEditions(ours, theirs);
        const taken = withTaken(ours, theirs, all);
        expect(compareEditions(taken, theirs)).toEqual([]);
        expect(compareEditions(theirs, taken)).toEqual([]);
        expect(withTaken(ours, theirs, [])).toEqual(ours);
        expect(compareEditions(ours, ours)).toEqual([]);
      }),
    );
  });

  it('of which any part is taken over make a sheet that is right', () => {
    fc.assert(
      fc.property(someSheet, someSheet, fc.infiniteStream(fc.boolean()), (ours, theirs, coin) => {
        const some = compareEditions(ours, theirs).filter(() => coin.next().value as boolean);
        expect(checkSheet(withTaken(ours, theirs, some))).toEqual([]);
      }),
    );
  });

  it('bring the lamps with them that their rows are shown by', () => {
    const lamps = {
      ...sheet({ says: 'Tank full', class: 'tank', pattern: { lamps: ['Tank'], flashes: 2 } }),
      lamps: ['Tank', 'Start'],
    };
    const ours = sheet(row('A1', 'x'));
    const taken = withTaken(ours, lamps, compareEditions(ours, lamps));
    expect(taken.lamps).toEqual(['Tank']);
    expect(checkSheet(taken)).toEqual([]);
  });
});
