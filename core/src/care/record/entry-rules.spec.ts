import { describe, expect, it } from 'vitest';
import { check } from '../../model/check.js';
import { ENTRY_KINDS, kindOfEntry, type ToldField } from '../../model/entry-kinds.js';
import type { EntryDraft } from '../../model/schemas.js';
import { procedureById } from '../catalogue/lookup.js';
import { checkEntry, completed } from './entry-rules.js';
import { sayEntry, sayEntryIn } from './entry-words.js';
import { machine } from '../../model/testing.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const washer = machine('front-load-washer');
const load: EntryDraft = { kind: 'load', machineId: washer.id, at: '2026-06-15T09:00:00Z' };

/** What any entry may name. */
const COMMON = ['machineId', 'task', 'note', 'caseId', 'station'];

describe('checkEntry', () => {
  it.each<[string, Partial<EntryDraft>, (keyof EntryDraft)[]]>([
    ['a load', {}, []],
    ['a clock a little fast', { at: '2026-06-15T10:05:00Z' }, []],
    ['the far future', { at: '2126-06-15T09:00:00Z' }, ['at']],
    ['the far past', { at: '1889-06-15T09:00:00Z' }, ['at']],
    ['work without its task', { kind: 'done' }, ['task']],
    ['a task of another machine', { kind: 'done', task: 'duct-run' }, ['task']],
    [
      'a task at another station',
      { kind: 'done', task: 'dispenser', station: 'gasket' },
      ['station'],
    ],
    ['a station of another machine', { kind: 'note', note: 'x', station: 'hood' }, ['station']],
    ['a reading without its figure', { kind: 'reading' }, ['quantity', 'value', 'unit']],
    ['an empty note', { kind: 'note', note: '' }, ['note']],
    ['a number of notes', { kind: 'note', note: 'x', count: 2 }, ['count']],
    ['an undoing out of nowhere', { kind: 'undone' }, ['kind']],
  ])('%s', (_what, change, fields) => {
    const problems = checkEntry({ ...load, ...change }, washer, NOW);
    expect(problems.map(({ field }) => field)).toEqual(fields);
  });

  it('knows no machine that is not there', () => {
    expect(checkEntry(load, undefined, NOW)).toEqual([
      { field: 'machineId', message: 'There is no such machine.' },
    ]);
  });

  it('refuses what happened before the machine came into use, in the household’s days', () => {
    const since = { ...washer, inUseSince: '2026-06-10' };
    const before = { ...load, at: '2026-06-09T21:59:00Z' };
    expect(checkEntry(before, since, NOW, 'Europe/Vienna')).toEqual([
      {
        field: 'at',
        message:
          'The machine came into use on 10 June 2026. Give a later time, or change that date under House.',
      },
    ]);
    const after = { ...load, at: '2026-06-09T22:01:00Z' };
    expect(checkEntry(after, since, NOW, 'Europe/Vienna')).toEqual([]);
  });

  it.each<[Partial<EntryDraft>, string]>([
    [{ kind: 'habit', habit: 'juggling' }, 'habit'],
    [{ kind: 'habit' }, 'habit'],
    [{ kind: 'note', note: 'x', programme: 'hot' }, 'programme'],
    [{ kind: 'stock', supply: 'vinegar' }, 'value'],
    [{ kind: 'bought', supply: 'vinegar', value: -1 }, 'value'],
  ])('%j is wrong at %s', (change, field) => {
    const { count: _count, ...bare } = load;
    expect(checkEntry({ ...bare, ...change }, washer, NOW).map((one) => one.field)).toEqual([
      field,
    ]);
  });

  it.each<[Partial<EntryDraft>, string]>([
    [{ quantity: 'no-such-quantity', value: -5, unit: 'furlong' }, 'quantity'],
    [{ quantity: 'drain-time', value: 5, unit: 'furlong' }, 'unit'],
    [{ quantity: 'drain-time', value: -5, unit: 's' }, 'value'],
  ])('a reading of %j is wrong at %s', (change, field) => {
    const { count: _count, ...bare } = load;
    const draft: EntryDraft = { ...bare, kind: 'reading', ...change };
    expect(checkEntry(draft, washer, NOW).map((one) => one.field)).toEqual([field]);
  });

  it('a reading goes into the log in the unit of its quantity', () => {
    const draft: EntryDraft = {
      ...load,
      kind: 'reading',
      quantity: 'drain-time',
      value: 2,
      unit: 'min',
    };
    expect(completed(draft)).toMatchObject({ value: 120, unit: 's' });
  });

  it('fills in one load, and a task’s station', () => {
    expect(completed(load).count).toBe(1);
    expect(completed({ ...load, kind: 'done', task: 'gasket-folds' }).station).toBe('gasket');
  });
});

describe('a part that was replaced', () => {
  const replaced = (more: Partial<EntryDraft>) =>
    checkEntry(
      { kind: 'replaced', machineId: washer.id, at: load.at, ...more },
      washer,
      Date.parse(load.at),
    );
  it('says where it was; where nothing is told, the place is asked for', () => {
    expect(replaced({ part: 'fill-hose' })).toEqual([]);
    expect(completed({ ...load, kind: 'replaced', part: 'fill-hose' }).station).toBe('tap');
    expect(replaced({}).map(({ field }) => field)).toEqual(['station']);
    expect(replaced({ station: 'pump-filter' })).toEqual([]);
  });
  it('is one that the machine has, at its own station', () => {
    expect(replaced({ part: 'drum-belt', station: 'whole' })[0]!.field).toBe('part');
    expect(replaced({ part: 'flux-capacitor', station: 'tap' })[0]!.field).toBe('part');
    expect(replaced({ part: 'fill-hose', station: 'gasket' })[0]!.field).toBe('station');
  });
});

describe('sayEntry', () => {
  it.each<[Partial<EntryDraft>, string]>([
    [{ count: 1 }, '1 load counted'],
    [{ count: 3 }, '3 loads counted'],
    [{ kind: 'done', task: 'pump-filter' }, 'Clean the pump filter'],
    [{ kind: 'opened', station: 'gasket' }, 'Looked at, left alone: door gasket'],
    [{ kind: 'reading', quantity: 'drain-time', value: 48, unit: 's' }, 'Drained empty in 48 s'],
    [{ kind: 'code', code: 'HEM-18' }, 'Code on the display: HEM-18'],
    [{ count: 2, programme: 'hot' }, '2 loads counted (hot)'],
    [{ kind: 'habit', habit: 'pockets' }, 'Pockets emptied'],
    [{ kind: 'bought', supply: 'vinegar', value: 1000, unit: 'ml' }, 'Supply bought: 1000 ml'],
    [{ kind: 'replaced', station: 'pump' }, 'Replaced: drain pump'],
    [{ kind: 'replaced', part: 'fill-hose' }, 'Replaced: fill hose'],
    [{ kind: 'called', note: 'x' }, 'Somebody was called in'],
  ])('%j', (change, said) => {
    expect(sayEntry({ ...load, ...change })).toBe(said);
  });
});

describe('sayEntryIn', () => {
  const fill = { ...load, kind: 'reading' as const, quantity: 'fill-litres', value: 15, unit: 'L' };
  it('tells a figure as the household reads it, and what was recorded beside it', () => {
    // 15 L are 3.9626 US gallons (NIST SP 811).
    expect(sayEntryIn(fill, 'us')).toBe('In ten seconds the tap gave 3.96 gal (recorded: 15 L)');
    expect(sayEntryIn(fill, 'metric')).toBe('In ten seconds the tap gave 15 L');
  });
  it('leaves alone what has no units of its own', () => {
    expect(sayEntryIn({ ...fill, quantity: 'old-thing' }, 'us')).toBe(
      sayEntry({ ...fill, quantity: 'old-thing' }),
    );
    expect(sayEntryIn({ ...load, count: 3 }, 'us')).toBe('3 loads counted');
  });
});

/** Something right for each field. */
const RIGHT: Required<Pick<EntryDraft, ToldField | 'machineId' | 'task' | 'note' | 'caseId'>> = {
  machineId: washer.id,
  task: 'pump-filter',
  note: 'x',
  caseId: washer.id,
  count: 2,
  programme: 'hot',
  cycle: {
    ...{ to: '2026-01-01T09:00:00Z', wattHours: 640, peak: 2040 },
    ...{ heating: 14, motor: 50, idle: 20, unread: 0 },
  },
  grade: 2,
  found: [{ what: 'coin', count: 1 }],
  trays: 2,
  used: [{ supply: 'vinegar', amount: 100 }],
  quantity: 'drain-time',
  value: 40,
  unit: 's',
  device: 'Odo’s phone',
  placement: 'on the lid',
  code: 'fip7',
  habit: 'pockets',
  supply: 'vinegar',
  product: 'vinegar',
  actives: ['acetic-acid'],
  step: 'drain-test',
  result: 'good',
  part: 'filter-seal',
  cost: { amount: 12.5, currency: 'EUR' },
};

describe.each(ENTRY_KINDS.filter((kind) => kind !== 'undone'))(
  'an entry of the kind %s',
  (kind) => {
    const { needs, allows } = kindOfEntry(kind);
    const right: Record<string, unknown> = { kind, at: load.at, station: 'pump-filter', ...RIGHT };
    const only = (fields: readonly string[]) =>
      Object.fromEntries(['kind', 'at', ...fields].map((field) => [field, right[field]]));
    const wrong = (draft: object) =>
      checkEntry(draft as EntryDraft, washer, NOW).map(({ field }) => field);
    const proofOf = procedureById('pump-filter').proof[0]!.id;
    const whole = {
      ...only([...needs, ...allows]),
      ...(kind === 'proof' ? { step: proofOf } : {}),
      ...(kind === 'explained' ? { quantity: 'filling' } : {}),
    };

    it('may tell all that its row names', () => {
      expect(wrong(whole)).toEqual([]);
      expect(check('EntryDraft', whole)).toEqual([]);
    });

    it('needs what its row says', () => {
      for (const field of needs) {
        const { [field]: _left, ...rest } = whole as Record<string, unknown>;
        // A part says where it was.
        if (field === 'station') delete rest['part'];
        expect(wrong(rest), field).toContain(field);
      }
    });

    it('may tell nothing else, and has words', () => {
      for (const field of Object.keys(RIGHT).filter((one) => !COMMON.includes(one))) {
        if ([...needs, ...allows].includes(field as ToldField)) continue;
        expect(wrong({ ...whole, [field]: right[field] }), field).toEqual([field]);
      }
      expect(sayEntry(whole as EntryDraft).length).toBeGreaterThan(3);
    });
  },
);

describe('a reason that is known', () => {
  const draft = { kind: 'explained', at: load.at, machineId: washer.id, note: 'Guests' } as const;
  it('is of a figure that a meter tells, or of all of them', () => {
    expect(checkEntry(draft, washer, NOW)).toEqual([]);
    expect(checkEntry({ ...draft, quantity: 'spins' }, washer, NOW)).toEqual([]);
    expect(checkEntry({ ...draft, quantity: 'drain-rate' }, washer, NOW)).toMatchObject([
      { field: 'quantity' },
    ]);
  });
});
