import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stationsOf } from '../../care/catalogue/lookup.js';
import { check } from '../../model/check.js';
import type { CodeSheetDraft } from '../../model/schemas.js';
import { CODE_CLASSES, MACHINE_KINDS } from '../../model/vocabulary.js';
import { Diagnosis } from '../diagnosis/diagnosis.js';
import { SYMPTOMS } from '../data/symptoms.js';
import { assess } from '../diagnosis/suspects.js';
import { CODE_CLASS_LIST, codeClassById } from './classes.js';
import { bare, readCode, readLamps, sayLamps, seenOf } from './read.js';
import { checkSheet } from './sheet.js';

const sheet: CodeSheetDraft = {
  format: 'needlecase-code-sheet-1',
  maker: 'Brackenfold',
  family: 'Test',
  kinds: ['front-load-washer'],
  lamps: ['Filter', 'Tank'],
  rows: [
    { code: 'HEM-18', says: 'Not pumped out', class: 'drain', stations: ['pump-filter'] },
    { code: 'Sel', says: 'Foam', class: 'suds' },
    { code: 'BOB1', says: 'Balance', class: 'balance' },
    { code: 'FRA0', says: 'Fill', class: 'fill' },
    { pattern: { lamps: ['Filter', 'Tank'], flashes: 3 }, says: 'Water', class: 'drain' },
  ],
};
const other: CodeSheetDraft = {
  ...sheet,
  maker: 'Ullswick',
  rows: [{ code: 'PLY4', says: 'Motor', class: 'motor' }],
};
const machine = { kind: 'front-load-washer', maker: 'brackenfold Loop' } as const;
const read = (typed: string) => readCode(typed, [sheet, other], machine);

describe('reading a code', () => {
  it.each([
    ['HEM-18', 'HEM-18', 0],
    ['hem 18', 'HEM-18', 0],
    ['HEM18', 'HEM-18', 0],
    ['  hem.18 ', 'HEM-18', 0],
    ['ＨＥＭ１８', 'HEM-18', 0],
    ['H£M18', 'HEM-18', 1],
    ['HEM1B', 'HEM-18', 1],
    ['HEMl8', 'HEM-18', 1],
    ['5EL', 'Sel', 1],
    ['SEL', 'Sel', 0],
    ['8OB1', 'BOB1', 1],
    ['FRAO', 'FRA0', 1],
    ['frad', 'FRA0', 1],
  ])('reads %s as %s', (typed, code, alike) => {
    const reading = read(typed);
    expect(reading.is).toBe('found');
    if (reading.is !== 'found') return;
    expect(reading.match.row.code).toBe(code);
    expect(reading.match.alike).toBe(alike);
    if (alike) expect(reading.say).toBe(`You typed ${typed.trim()}, your sheet has ${code}.`);
  });

  it('does not take a 6 for an 8 through the b between them', () => {
    expect(read('6OB1').is).toBe('unknown');
  });

  it('tells of another maker’s sheet, but does not take its meaning', () => {
    const reading = read('PLY4');
    expect(reading.is).toBe('elsewhere');
    expect(reading.say).toContain('Ullswick Test');
  });

  it('asks where two codes look the same', () => {
    const twice = {
      ...sheet,
      rows: [
        ...sheet.rows,
        { code: 'NE8D', says: 'x', class: 'door' } as const,
        { code: 'NEB0', says: 'y', class: 'door' } as const,
      ],
    };
    const reading = readCode('NEBD', [twice], machine);
    expect(reading.is).toBe('several');
  });

  it.each(['', '   ', '🧺', '—', '9'.repeat(13), 'x'.repeat(10_000)])(
    'says clearly that %s is no code',
    (typed) => {
      const reading = read(typed);
      expect(reading.is).toBe('unreadable');
      expect(reading.say).toMatch(/Type/);
    },
  );

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'binary', maxLength: 300 }),
        (typed) => read(typed).say.length > 0,
      ),
    );
  });

  it('finds every code of a sheet by itself, in any case and spacing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('HEM-18', 'Sel', 'BOB1', 'FRA0'),
        fc.constantFrom('', ' ', '-', '.'),
        (code, gap) => {
          const typed = [...bare(code)].join(gap).toLowerCase();
          const reading = read(typed);
          return reading.is === 'found' && reading.match.row.code === code;
        },
      ),
    );
  });

  it('looks two lamps flashing three times up, in either order', () => {
    for (const lamps of [
      ['Filter', 'Tank'],
      ['tank', 'filter'],
    ]) {
      expect(readLamps({ lamps, flashes: 3 }, [sheet], machine)[0]!.row.says).toBe('Water');
      expect(readLamps({ lamps, flashes: 2 }, [sheet], machine)).toEqual([]);
    }
    expect(sayLamps({ lamps: ['Filter', 'Tank'], flashes: 3 })).toBe(
      'Filter and Tank flash 3 times',
    );
  });
});

describe('a code sheet', () => {
  it('is right by its schema and by itself', () => {
    expect(check('CodeSheetDraft', sheet)).toEqual([]);
    expect(checkSheet(sheet)).toEqual([]);
  });

  it.each<[string, object, string]>([
    ['a row with neither code nor lamps', { says: 'x', class: 'door' }, 'rows.5.code'],
    ['a code that is there', { code: 'hem18', says: 'x', class: 'door' }, 'rows.5.code'],
    [
      'a lamp the sheet does not name',
      { pattern: { lamps: ['Sun'], flashes: 1 }, says: 'x', class: 'door' },
      'rows.5.pattern',
    ],
    [
      'a station that is none',
      { code: 'X1', says: 'x', class: 'door', stations: ['moon'] },
      'rows.5.stations',
    ],
  ])('says what is wrong with %s', (_what, row, field) => {
    const problems = checkSheet({ ...sheet, rows: [...sheet.rows, row as never] });
    expect(problems.map((one) => one.field)).toEqual([field]);
  });
});

describe('what a code tells', () => {
  it('has every class, and each but the reminder points at symptoms there are', () => {
    expect(CODE_CLASS_LIST.map(({ id }) => id)).toEqual([...CODE_CLASSES]);
    for (const { id, shows } of CODE_CLASS_LIST) {
      expect(shows.length > 0).toBe(id !== 'reminder');
      for (const symptom of shows) expect(SYMPTOMS.some((one) => one.id === symptom)).toBe(true);
    }
    expect(() => codeClassById('no' as never)).toThrow(RangeError);
  });

  const chanceOf = (id: string, codes: Parameters<typeof seenOf>[0][], listed = true) => {
    const seen = codes.map((row) => ({ ...seenOf(row), listed }));
    const trouble = new Diagnosis({ kind: 'front-load-washer', features: {}, codes: seen });
    return assess(trouble, {}).suspects.find(({ cause }) => cause.id === id)?.chance ?? 0;
  };

  it('raises what sits where the sheet points above what only shares its class', () => {
    const [drain] = sheet.rows;
    const { stations: _none, ...anywhere } = drain!;
    const times = (row: typeof anywhere) =>
      chanceOf('filter-clogged', [row]) / chanceOf('drain-hose-closed', [row]);
    expect(times(drain!)).toBeGreaterThan(1.3 * times(anywhere));
    expect(chanceOf('filter-clogged', [drain!])).toBeGreaterThan(0.5);
  });

  it('weighs a class picked by hand less than a row of a sheet', () => {
    const row = { code: 'Z9', says: 'x', class: 'drain' } as const;
    expect(chanceOf('filter-clogged', [row], false)).toBeLessThan(
      chanceOf('filter-clogged', [row]),
    );
    expect(chanceOf('filter-clogged', [row], false)).toBeGreaterThan(
      chanceOf('filter-clogged', []),
    );
  });

  it('says the code among the reasons', () => {
    const codes = [seenOf(sheet.rows[0]!)];
    const { suspects } = assess(
      new Diagnosis({ kind: 'front-load-washer', features: {}, codes }),
      {},
    );
    expect(suspects[0]!.because.join()).toContain('HEM-18: Not pumped out');
  });

  it.each(MACHINE_KINDS)('holds together for a %s, whatever class and station', (kind) => {
    const places = stationsOf({ kind, features: {} }).map(({ id }) => id);
    fc.assert(
      fc.property(
        fc.constantFrom(...CODE_CLASSES),
        fc.uniqueArray(fc.constantFrom(...places), { maxLength: 3 }),
        fc.boolean(),
        (about, stations, listed) => {
          const codes = [{ class: about, stations, listed }];
          const { suspects, other } = assess(new Diagnosis({ kind, features: {}, codes }), {});
          return (
            suspects.every(({ chance }) => chance > 0 && chance <= 1) && other >= 0 && other <= 1
          );
        },
      ),
      { numRuns: 40 },
    );
  });
});
