import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { getTableName } from 'drizzle-orm';
import Ajv from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import Database from 'better-sqlite3';
import fc from 'fast-check';
import ical from 'ical.js';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import {
  dayOf,
  GRADES,
  MACHINE_KINDS,
  tasksOf,
  type BenchView,
  type Entry,
} from '@needlecase/core';
import { cellText, safeCell } from '@needlecase/core/units/cells';
import { RECORD_KINDS, recordSchema } from '@needlecase/core/formats/record';
import { columnsOf } from '@needlecase/core/care/tables/tables';
import { localInstant } from '@needlecase/core/units/calendar';
import { PARTS } from '../backup/parts.js';
import { lookAtBackup, putBack } from '../backup/restore.js';
import { openDatabase } from '../db/open.js';
import { everyAnswer, fullHouse, serve, type Served } from '../testing/full-house.js';
import { ago, readyApp, setup } from '../testing/household.js';
import { recordOf } from './write-record.js';

let folder: string;
let house: Served;
let count = 0;
const fresh = () => join(folder, `${++count}.sqlite`);
const written = (from: Served, pictures = true): string => {
  const file = join(folder, `${++count}.json`);
  const db = openDatabase(from.file);
  writeFileSync(file, [...recordOf(db, Date.now(), pictures)].join(''));
  db.$client.close();
  return file;
};

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  house = await fullHouse(fresh());
});
afterAll(() => {
  house.store.close();
  rmSync(folder, { recursive: true, force: true });
});

async function putInto(file: string, record: string) {
  openDatabase(file).$client.close();
  const staged = `${file}.staged`;
  await lookAtBackup(file, record, staged, Date.now());
  putBack(file, staged, { how: 'replace' }, Date.now());
}

function rowsOf(file: string): Record<string, unknown[]> {
  const client = new Database(file, { readonly: true });
  const tables = RECORD_KINDS.flatMap((kind) => PARTS[kind].tables).map(getTableName);
  const rows = Object.fromEntries(
    tables.map((table) => {
      const order = table === 'case_events' ? 'case_id, number' : 'rowid';
      const all = client.prepare(`SELECT * FROM ${table} ORDER BY ${order}`).all() as object[];
      return [table, all.map((row) => (table === 'case_events' ? { ...row, number: 0 } : row))];
    }),
  );
  client.close();
  return rows;
}

describe('the record as JSON', () => {
  it('is valid by its published schema, and has something of every kind', () => {
    const record = JSON.parse(readFileSync(written(house), 'utf8')) as Record<string, unknown>;
    const ajv = new Ajv.default({ allErrors: true, strict: false });
    addFormats.default(ajv);
    const validate = ajv.compile(recordSchema());
    expect(validate(record), JSON.stringify(validate.errors?.slice(0, 3))).toBe(true);
    for (const kind of RECORD_KINDS) {
      expect(Object.keys(record[kind] as object).length, kind).toBeGreaterThan(0);
    }
    expect(validate({ ...record, secret: 1 })).toBe(false);
  });

  it('put into an empty file makes every row again, and answers every question as before', async () => {
    vi.useFakeTimers({ toFake: ['Date'], now: Date.now() });
    try {
      const file = fresh();
      await putInto(file, written(house));
      expect(rowsOf(file)).toEqual(rowsOf(house.file));
      const again = serve(file);
      expect(await everyAnswer(again)).toEqual(await everyAnswer(house));
      again.store.close();
    } finally {
      vi.useRealTimers();
    }
  });

  it('may come in any order and any form: names sorted, one line or many', async () => {
    const record = JSON.parse(readFileSync(written(house), 'utf8')) as Record<string, unknown>;
    for (const indent of [undefined, 3]) {
      const sorted = Object.fromEntries(
        Object.entries(record).sort(([a], [b]) => a.localeCompare(b)),
      );
      const path = join(folder, `${++count}.json`);
      writeFileSync(path, JSON.stringify(sorted, undefined, indent));
      const file = fresh();
      await putInto(file, path);
      expect(rowsOf(file)).toEqual(rowsOf(house.file));
    }
  });

  it('without pictures leaves out photos and papers, and nothing else', async () => {
    const path = written(house, false);
    const file = fresh();
    await putInto(file, path);
    const { photos: _all, documents: _papers, ...rest } = rowsOf(house.file);
    const { photos, documents, ...put } = rowsOf(file);
    expect([photos, documents]).toEqual([[], []]);
    expect(put).toEqual(rest);
  });

  it.each<[string, (text: string) => string, RegExp]>([
    ['cut short', (text) => text.slice(0, -500), /cut short/],
    ['half a line', (text) => text.slice(0, 5000), /cut short/],
    ['no JSON', (text) => text.replace('"machines":[', '"machines":[,'), /cannot be read/],
    ['of something else', (text) => text.replace('needlecase-record', 'other'), /no record/],
    ['of a newer program', (text) => text.replace('"version":1', '"version":99'), /newer/],
    ['with a kind that is none', (text) => text.replace('"cases":[', '"caves":['), /caves/],
    ['with an absurd entry', (text) => text.replace(/"count":2/, '"count":-2'), /entries, \d+: /],
    [
      'with an entry of no machine',
      (text) => {
        const [head, entries] = text.split('"entries":[') as [string, string];
        return `${head}"entries":[${entries.replace(/"machineId":"[^"]{8}/, '"machineId":"00000000')}`;
      },
      /does not fit/,
    ],
    ['with no household', () => '{"format":"needlecase-record","version":1}', /no household/],
  ])('that is %s is refused whole, with the place', async (_, spoil, words) => {
    const path = join(folder, `${++count}.json`);
    const text = readFileSync(written(house), 'utf8');
    writeFileSync(path, spoil(text));
    expect(spoil(text)).not.toBe(text);
    await expect(putInto(fresh(), path)).rejects.toThrow(words);
  });

  it('of any household gives the same due dates: out, into an empty house, and asked again', async () => {
    const drafts = fc.array(
      fc.record({
        machine: fc.nat(2),
        kind: fc.constantFrom('load', 'done', 'opened', 'note', 'replaced'),
        days: fc.integer({ min: 0, max: 700 }),
        grade: fc.option(fc.constantFrom(...GRADES), { nil: undefined }),
        task: fc.nat(40),
        note: fc.option(fc.string({ minLength: 1, maxLength: 30, unit: 'grapheme' }), {
          nil: undefined,
        }),
        undone: fc.boolean(),
      }),
      { maxLength: 40 },
    );
    const machines = fc.array(fc.constantFrom(...MACHINE_KINDS), { minLength: 1, maxLength: 3 });
    await fc.assert(
      fc.asyncProperty(machines, drafts, async (kinds, told) => {
        const first = serve(fresh());
        const second = fresh();
        try {
          const { body } = await first.api
            .post('/api/v1/setup')
            .send({
              household: setup.household,
              machines: kinds.map((kind, i) => ({
                ...{ name: `M${i}`, kind, place: 'Cellar' },
                ...{ features: {}, habits: [], loadsPerWeek: 3 + i },
              })),
            })
            .expect(201);
          for (const one of told) {
            const machine = body.machines[one.machine % kinds.length];
            const tasks = tasksOf(machine);
            const task = tasks[one.task % tasks.length]!;
            const work = one.kind === 'done' || one.kind === 'opened';
            const draft = {
              ...{ kind: one.kind, machineId: machine.id, at: ago(one.days) },
              ...(work ? { task: task.id } : {}),
              ...(work && one.grade !== undefined ? { grade: one.grade } : {}),
              ...(one.kind === 'replaced' ? { station: task.station } : {}),
              ...(one.note?.trim() || one.kind === 'note' ? { note: one.note?.trim() || 'x' } : {}),
            };
            const answer = await first.api.post('/api/v1/entries').send(draft);
            if (answer.status === 201 && one.undone) {
              await first.api.post(`/api/v1/entries/${answer.body.id}/undo`).expect(201);
            }
          }
          await putInto(second, written(first));
          const again = serve(second);
          const dues = async (at: Served) =>
            ((await at.api.get('/api/v1/bench').expect(200)).body as BenchView).states.map(
              ({ dues: all }) => all.map(({ task, on, said, status }) => [task, on, said, status]),
            );
          const before = await dues(first);
          expect(before.flat().length).toBeGreaterThan(0);
          expect(await dues(again)).toEqual(before);
          again.store.close();
        } finally {
          first.store.close();
        }
      }),
      { numRuns: 12 },
    );
  }, 120_000);
});

describe('tables', () => {
  const NASTY = [
    '=1+1',
    '+1',
    '-1',
    '@SUM(A1)',
    '\t=1',
    "'quoted",
    "'=1",
    'plain, with "quotes"',
    'two\r\nlines',
    '＝1+1',
    ' leading',
    '',
    'Ünïcode ⟦│⟧ 🧺',
  ];

  it('hold what a spreadsheet would run as text, and give back what was written', () => {
    for (const text of NASTY) {
      expect(cellText(safeCell(text))).toBe(text);
      expect(safeCell(text)).not.toMatch(/^[=+\-@\t\r\n＝＋－＠]/);
    }
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => cellText(safeCell(text)) === text),
    );
  });

  const python = (() => {
    try {
      execFileSync('python3', ['--version']);
      return true;
    } catch {
      return false;
    }
  })();

  it('are opened by other readers: the same cells, whatever was typed', async () => {
    const { api, washer } = await readyApp();
    const notes = NASTY.filter((text) => text.trim());
    for (const note of notes) {
      const draft = { kind: 'note', machineId: washer.id, at: ago(1), note };
      await api.post('/api/v1/entries').send(draft).expect(201);
    }
    const stored = (await api.get('/api/v1/entries').expect(200)).body.entries as Entry[];
    const { text, headers } = await api.get('/api/v1/entries.csv').buffer(true).expect(200);
    expect(headers['content-type']).toMatch(/^text\/csv/);
    expect(headers['content-disposition']).toContain('needlecase-entries.csv');
    expect(text.startsWith('\uFEFFat,machine,kind')).toBe(true);
    expect(text.split('\r\n').length).toBeGreaterThan(notes.length);
    const { data, errors } = Papa.parse<Record<string, string>>(text.replace('\uFEFF', ''), {
      header: true,
      skipEmptyLines: true,
    });
    expect(errors).toEqual([]);
    const read = (rows: readonly Record<string, string>[]) =>
      rows.map(({ id, note }) => [id!, cellText(note!)]).sort();
    const wanted = stored.map(({ id, note }) => [id, note!]).sort();
    expect(read(data)).toEqual(wanted);
    for (const { note } of data) expect(note).not.toMatch(/^[=+\-@\t\r\n]/);
    if (!python) return;
    const path = join(folder, 'entries.csv');
    writeFileSync(path, text);
    const program =
      'import csv,json,sys\nprint(json.dumps(list(csv.DictReader(open(sys.argv[1],newline="",encoding="utf-8-sig")))))';
    const rows = JSON.parse(
      execFileSync('python3', ['-c', program, path], { encoding: 'utf8' }),
    ) as Record<string, string>[];
    expect(read(rows)).toEqual(wanted);
  });

  it('tell amounts in the household’s units, with what was recorded beside them', async () => {
    const { api, washer, dryer, household } = await readyApp();
    const reading = { kind: 'reading', quantity: 'lint-mass', value: 28.35, unit: 'g' };
    await api
      .post('/api/v1/entries')
      .send({ ...reading, machineId: dryer.id, at: ago(3) })
      .expect(201);
    const rows = async (query = '') => {
      const { text } = await api.get(`/api/v1/readings.csv${query}`).buffer(true).expect(200);
      return Papa.parse<Record<string, string>>(text.replace('\uFEFF', ''), {
        header: true,
        skipEmptyLines: true,
      }).data;
    };
    expect(await rows()).toMatchObject([
      { machine: 'Dryer', quantity: 'lint-mass', value: '28.35', unit: 'g', recorded_unit: 'g' },
    ]);
    const { id: _id, version, ...draft } = household;
    await api
      .put('/api/v1/household')
      .set('If-Match', `"${version}"`)
      .send({ ...draft, units: 'us' })
      .expect(200);
    const [row] = await rows();
    expect(Number(row!['value'])).toBeCloseTo(1, 3);
    expect(row).toMatchObject({ unit: 'oz', recorded_value: '28.35', recorded_unit: 'g' });
    expect(await rows(`?machine=${washer.id}`)).toEqual([]);
    const day = dayOf(Date.parse(ago(3)), household.zone);
    expect(await rows(`?from=${day}&to=${day}`)).toHaveLength(1);
    expect(await rows(`?to=2020-01-01`)).toEqual([]);
    // The ends of all calendars.
    expect(await rows('?from=0001-01-01&to=9999-12-31')).toHaveLength(1);
    expect(await rows('?from=9999-12-31')).toEqual([]);
    expect(await rows('?to=0000-01-01')).toEqual([]);
    const wrong = await api.get('/api/v1/readings.csv?from=2026-02-01&to=2026-01-01').expect(422);
    expect(wrong.body.errors[0].field).toBe('to');
    await api.get('/api/v1/readings.csv?from=yesterday').expect(422);
  });

  it('tell instants by the clock of their zone, with its offset', () => {
    expect(localInstant(Date.parse('2026-11-27T20:19:00Z'), 'Europe/Vienna')).toBe(
      '2026-11-27T21:19:00+01:00',
    );
    expect(localInstant(Date.parse('2026-07-01T00:00:00Z'), 'America/St_Johns')).toBe(
      '2026-06-30T21:30:00-02:30',
    );
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4e9 }), (s) =>
        ['Europe/Vienna', 'Australia/Lord_Howe', 'UTC'].every(
          (zone) => Date.parse(localInstant(1000 * s, zone)) === 1000 * s,
        ),
      ),
    );
  });

  it('have columns of their own names, none twice', () => {
    for (const table of ['entries', 'readings', 'loads'] as const) {
      const names = columnsOf(table);
      expect(new Set(names).size).toBe(names.length);
      for (const name of names) expect(name).toMatch(/^[a-z][a-z_]*$/);
    }
  });

  it('of sixty thousand entries come a piece at a time; how fast, the benchmark tells', async () => {
    const file = fresh();
    let served = serve(file);
    const { body } = await served.api.post('/api/v1/setup').send(setup).expect(201);
    const machineId = body.machines[0].id as string;
    served.store.close();
    const db = openDatabase(file);
    db.$client
      .prepare(
        `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 60000)
         INSERT INTO entries (id, machine_id, kind, at, day, zone, author, source, recorded_at, count, more)
         SELECT printf('00000000-0000-4000-8000-%012d', i), ?, 'load', ? - 60000 * i, '2026-01-01',
           'Europe/Vienna', 'test', 'api', 0, 1, json_object('note', 'Load ' || i) FROM n`,
      )
      .run(machineId, Date.now());
    db.$client.close();
    served = serve(file);
    const server = createServer(served.express).listen(0, '127.0.0.1');
    await once(server, 'listening');
    try {
      const { port } = server.address() as AddressInfo;
      for (const path of ['entries.csv', 'loads.csv', 'record.json']) {
        const answer = await fetch(`http://127.0.0.1:${port}/api/v1/${path}`);
        let [bytes, pieces, largest] = [0, 0, 0];
        for await (const piece of answer.body! as unknown as AsyncIterable<Uint8Array>) {
          bytes += piece.length;
          pieces++;
          largest = Math.max(largest, piece.length);
        }
        expect(bytes, path).toBeGreaterThan(4_000_000);
        expect(pieces, path).toBeGreaterThan(20);
        expect(largest, path).toBeLessThan(1_000_000);
      }
    } finally {
      server.close();
      served.store.close();
    }
  }, 60_000);
});

describe('what was done as a calendar', () => {
  it('is one that another reader understands: a visit an event, taking nobody’s time', async () => {
    const { text, headers } = await house.api.get('/api/v1/done.ics').buffer(true).expect(200);
    expect(headers['content-type']).toMatch(/^text\/calendar/);
    const events = new ical.Component(ical.parse(text)).getAllSubcomponents('vevent');
    expect(events.length).toBeGreaterThan(20);
    const uids = events.map((event) => event.getFirstPropertyValue('uid'));
    expect(new Set(uids).size).toBe(uids.length);
    for (const event of events) {
      const { startDate, endDate } = new ical.Event(event);
      expect(startDate.compare(endDate)).toBe(-1);
      expect(event.getFirstPropertyValue('transp')).toBe('TRANSPARENT');
    }
    const [one] = events;
    expect(String(one!.getFirstPropertyValue('summary'))).toMatch(/: /);
  });
});
