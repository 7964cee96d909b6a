import { describe, expect, it } from 'vitest';
import type { Machine } from '../../model/schemas.js';
import { aboutWork, AS_IT_IS, choiceOf, choicesFor, isWhole, NOTE, ofMachine } from './choosing.js';
import { orderOf, readDate, type DateOrder } from './dates.js';
import { Meanings } from './meaning.js';
import { MOST_LINES, readNotes, type NotesGround } from './read-notes.js';

const machine = (id: string, name: string, kind: Machine['kind'], place = 'Cellar') =>
  ({
    ...{ id, name, kind, place, version: 1 },
    ...{ features: {}, habits: [], loadsPerWeek: 3 },
  }) as unknown as Machine;
const WASHER = machine('w', 'Cellar washer', 'front-load-washer');
const DRYER = machine('d', 'Cellar dryer', 'vented-dryer');
const HEAT_PUMP = machine('h', 'Top-floor dryer', 'heat-pump-dryer', 'Top floor');
const GROUND: NotesGround = {
  machines: [WASHER, DRYER],
  zone: 'Europe/Vienna',
  now: Date.parse('2026-11-27T20:00:00Z'),
};

describe('a date', () => {
  it.each<[string, string, DateOrder?]>([
    ['2024-03-05', '2024-03-05'],
    ['2024/3/5', '2024-03-05'],
    ['20240305', '2024-03-05'],
    ['5.3.2024', '2024-03-05'],
    ['05/03/24', '2024-03-05'],
    ['03/05/2024', '2024-03-05', 'month'],
    ['25/12/2023', '2023-12-25', 'month'],
    ['12/25/2023', '2023-12-25', 'day'],
    ['5 March 2024', '2024-03-05'],
    ['5th of March, 2024', '2024-03-05'],
    ['Tue 5 Mar 24', '2024-03-05'],
    ['March 5, 2024', '2024-03-05'],
    ['Sept 1st 2023', '2023-09-01'],
    ['45356', '2024-03-05'],
    ['1.2.98', '1998-02-01'],
  ])('%s is read as %s', (written, day, order) => {
    expect(readDate(written, order)).toEqual({ day });
  });

  it.each([
    ['2024-03-05 08:30', 510],
    ['2024-03-05T18:05:09Z', 1085],
    ['5.3.2024, 7.15', 435],
    ['03/05/24 6:05 pm', 1085],
    ['5 March 2024 12:10 AM', 10],
  ])('with a time, %s, is of %i minutes after midnight', (written, minutes) => {
    expect(readDate(written)!.minutes).toBe(minutes);
  });

  it('of a month alone says that it is vague', () => {
    expect(readDate('March 2024')).toEqual({ day: '2024-03-15', vague: true });
    expect(readDate('3/2024')).toEqual({ day: '2024-03-15', vague: true });
    expect(readDate('2024-03')).toEqual({ day: '2024-03-15', vague: true });
  });

  it.each([
    '',
    'last week',
    '31.2.2024',
    '2024-13-01',
    '5',
    '1.1.1800',
    'pump filter',
    '99/99/2024',
  ])('is not made of “%s”', (written) => expect(readDate(written)).toBeUndefined());

  it('comes day or month first as its column tells, and is asked where nothing tells', () => {
    expect(orderOf(['3/4/2024', '25/4/2024'])).toBe('day');
    expect(orderOf(['3/4/2024', '4/25/2024'])).toBe('month');
    expect(orderOf(['3/4/2024', '5/6/2024'])).toBe('asked');
    expect(orderOf(['3.4.2024', '5.6.2024'])).toBe('day');
    expect(orderOf(['4/4/2024', '2024-04-04', 'May 2020'])).toBeUndefined();
    // Both ways in one column: what most tell, and each that can only be read one way by itself.
    expect(orderOf(['25/4/2024', '26/4/2024', '4/27/2024'])).toBe('day');
  });
});

describe('what was meant', () => {
  const meanings = new Meanings([WASHER, DRYER, HEAT_PUMP]);
  it.each<[string, object]>([
    ['cleaned pump filter', { kind: 'done', task: 'pump-filter', machineId: 'w', doubts: [] }],
    ['Coin trap emptied, 2 hair grips', { kind: 'done', task: 'pump-filter' }],
    ['descaled with citric acid', { kind: 'done', task: 'descale', machineId: 'w' }],
    ['Vent pipe brushed through', { kind: 'done', task: 'duct-run', machineId: 'd', doubts: [] }],
    ['hot empty wash', { kind: 'done', task: 'drum-clean', machineId: 'w' }],
    ['checked the fill hose', { kind: 'opened', task: 'fill-hose', machineId: 'w' }],
    ['new fill hose', { kind: 'replaced', station: 'tap', machineId: 'w' }],
    ['outside vent cleared of lint', { kind: 'done', task: 'hood', machineId: 'd' }],
    ['condenser rinsed', { kind: 'done', task: 'heat-exchanger', machineId: 'h', doubts: [] }],
    ['washing machine levelled', { kind: 'done', task: 'level', machineId: 'w' }],
    ['Top-floor dryer: washed the lint trap', { task: 'lint-screen-wash', machineId: 'h' }],
    ['3 loads', { kind: 'load', count: 3 }],
    ['error E21 on the washer', { kind: 'code', code: 'E21', machineId: 'w' }],
    ['Aunt Rosa visited', { kind: 'note', doubts: ['machine'] }],
  ])('by “%s” is told', (text, meaning) => {
    expect(meanings.of(text)).toMatchObject(meaning);
  });

  it('is doubtful where two machines fit, or two tasks do', () => {
    expect(meanings.of('washed the lint screen').doubts).toContain('machine');
    expect(meanings.of('cleaned dispenser').machineId).toBe('w');
    expect(meanings.of('cleaned', 'Cellar dryer')).toMatchObject({ kind: 'note', machineId: 'd' });
  });
});

describe('a table of notes', () => {
  it('has its columns guessed by their names, or by what is in them', () => {
    const named = readNotes(
      [
        ['Appliance', 'When', 'Job', 'Remarks'],
        ['Cellar washer', '25/4/2024', 'Pump filter cleaned', 'full of fluff'],
      ],
      GROUND,
    );
    expect(named).toMatchObject({ header: true, columns: ['machine', 'date', 'what', 'note'] });
    expect(named.lines).toMatchObject([
      {
        line: 2,
        doubts: [],
        draft: {
          ...{ kind: 'done', task: 'pump-filter', machineId: 'w', source: 'import' },
          at: '2024-04-25T10:00:00.000Z',
          note: 'Pump filter cleaned. full of fluff',
        },
      },
    ]);
    const bare = readNotes(
      [
        ['1', 'washer', '2024-01-05', 'pump filter'],
        ['2', 'dryer', '2024-02-05', 'brushed the duct'],
        ['3', 'dryer', 'Feb 2024', 'brushed the duct'],
      ],
      GROUND,
    );
    expect(bare.header).toBe(false);
    expect(bare.columns.slice(1)).toEqual(['machine', 'date', 'what']);
    expect(bare.lines.map(({ draft }) => draft?.machineId)).toEqual(['w', 'd', 'd']);
    expect(bare.lines[2]!.doubts).toEqual(['day']);
  });

  it('asks for the order of its dates where nothing tells it, and takes what is said', () => {
    const rows = [
      ['3/4/2024', 'pump filter cleaned'],
      ['5/6/2024', 'pump filter cleaned'],
    ];
    expect(readNotes(rows, GROUND).order).toBe('asked');
    const told = readNotes(rows, GROUND, { order: 'month' });
    expect(told.order).toBe('month');
    expect(told.lines[0]!.draft!.at.slice(0, 10)).toBe('2024-03-04');
  });

  it('says of each line that cannot be kept why, and keeps none of the future', () => {
    const { lines } = readNotes(
      [
        ['Date', 'What'],
        ['', 'pump filter'],
        ['some day', 'pump filter'],
        ['2030-01-01', 'pump filter'],
        ['2024-01-01', ''],
        [],
        ['2024-01-01', 'pump filter'],
      ],
      GROUND,
    );
    expect(lines.map(({ line, wrong }) => [line, wrong])).toEqual([
      [2, 'It has no date.'],
      [3, '“some day” is no date.'],
      [4, 'It is in the future.'],
      [5, 'It says nothing.'],
      [7, undefined],
    ]);
  });

  it('takes our own sign off a cell, and runs nothing', () => {
    const { lines } = readNotes(
      [
        ['Date', 'What'],
        ['2024-01-01', "'=1+1"],
      ],
      GROUND,
    );
    expect(lines[0]!.draft).toMatchObject({ kind: 'note', note: '=1+1' });
  });

  it('is bounded: two hundred columns, long cells, a million lines', () => {
    const wide = [['2024-01-01', 'pump filter cleaned', ...Array<string>(198).fill('=x()')]];
    expect(readNotes(wide, GROUND).columns.length).toBeLessThanOrEqual(60);
    expect(readNotes(wide, GROUND).lines[0]!.draft).toMatchObject({ task: 'pump-filter' });
    const long = readNotes([['2024-01-01', 'x'.repeat(1e6)]], GROUND);
    expect(long.lines[0]!.draft!.note!.length).toBeLessThanOrEqual(2000);
    const many = Array.from({ length: 1_000_000 }, () => ['2024-01-01', 'pump filter cleaned']);
    const begun = Date.now();
    expect(readNotes(many, GROUND).lines).toHaveLength(MOST_LINES);
    expect(Date.now() - begun).toBeLessThan(4000);
  });
});

describe('a line that was meant otherwise', () => {
  const draftOf = (text: string) => {
    const { doubts: _doubts, ...meaning } = new Meanings([WASHER, DRYER]).of(text);
    return { ...meaning, at: '2024-01-01T12:00:00Z' };
  };

  it('stays what it is at another machine that has such work, and is a note at one that has not', () => {
    const loads = draftOf('3 loads');
    expect(isWhole(loads)).toBe(false);
    expect(ofMachine(loads, DRYER)).toMatchObject({ kind: 'load', count: 3, machineId: 'd' });
    expect(isWhole(ofMachine(loads, DRYER))).toBe(true);
    const brushed = draftOf('Cellar dryer: washed the lint screen');
    expect(ofMachine(brushed, HEAT_PUMP)).toMatchObject({ kind: 'done', task: 'lint-screen-wash' });
    const note = ofMachine(brushed, WASHER);
    expect(note).toMatchObject({ kind: 'note', machineId: 'w' });
    expect(note).not.toHaveProperty('task');
    const hose = draftOf('new fill hose');
    expect(ofMachine(hose, DRYER).kind).toBe('note');
    expect(ofMachine(loads, undefined)).toMatchObject({ kind: 'note' });
  });

  it('may be other work, a note, or what it was understood as', () => {
    const loads = ofMachine(draftOf('3 loads'), WASHER);
    expect(choicesFor(loads, WASHER).slice(0, 2)).toEqual([AS_IT_IS, NOTE]);
    expect(choiceOf(loads)).toBe(AS_IT_IS);
    expect(aboutWork(loads, AS_IT_IS)).toEqual(loads);
    const filter = aboutWork(loads, 'pump-filter');
    expect(filter).toMatchObject({ kind: 'done', task: 'pump-filter', machineId: 'w' });
    expect(filter).not.toHaveProperty('count');
    expect(choiceOf(filter)).toBe('pump-filter');
    expect(choicesFor(filter, WASHER)).not.toContain(AS_IT_IS);
    const looked = draftOf('checked the fill hose');
    expect(aboutWork(looked, 'inlet-screen').kind).toBe('opened');
    expect(choiceOf(aboutWork(looked, NOTE))).toBe(NOTE);
  });

  it('is whole whatever line it comes of, once it has a machine', () => {
    for (const text of ['3 loads', 'error E21', 'pump filter cleaned', 'new fill hose', 'Rosa']) {
      expect(isWhole({ ...ofMachine(draftOf(text), WASHER), note: text }), text).toBe(true);
    }
  });
});
