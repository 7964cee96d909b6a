import { randomLcg } from 'd3-random';
import { randomUUID } from 'node:crypto';
import { statSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { performance } from 'node:perf_hooks';
import {
  dayOf,
  duesOf,
  gather,
  inDriver,
  tasksOf,
  Usage,
  Diagnosis,
  drawTrouble,
  minutesTo,
  POLICIES,
  type Policy,
  MACHINE_KINDS,
  troubleView,
  USUAL_BLOWER,
  ventRun,
  dryLoad,
  type VentRun,
  type MachineKind,
  type EntryDraft,
  type Fact,
  type Grade,
  Openings,
  type History,
  type Household,
} from '@needlecase/core';
import { parse as parseCsv } from 'csv-parse/sync';
import Papa from 'papaparse';
import { findCycles } from '@needlecase/core/loads/cycles/cycles';
import { MeterReader } from '@needlecase/core/loads/log/meter-reader';
import { guessShape } from '@needlecase/core/loads/log/shape';
import { houseProblem } from '@needlecase/core/plan/house-problem';
import { solve } from '@needlecase/core/plan/solve';
import { makeApp } from './app.js';
import { lookAtBackup, putBack } from './backup/restore.js';
import { writeBackup } from './backup/write.js';
import { fillDemo } from './work/demo.js';
import { houseOf } from './work/household.js';
import { openDatabase } from './db/open.js';
import { Store } from './store/store.js';
import { HOUSE, MACHINES, makeBigHouse } from './testing/big-house.js';
import { photo } from './testing/pictures.js';

/*
 * Measures the server and the engines: `node benchmark.js FILE` makes a file with 8 machines and 60,000
 * entries, and prints one line of JSON.
 */

const DAY = 86_400_000;
const YEARS = 10;
const now = Date.now();

/** How long some work takes, seconds. */
async function timed(work: () => unknown): Promise<number> {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
}

/** The median of many timings of some work, milliseconds. */
async function median(times: number, work: () => unknown): Promise<number> {
  const spans: number[] = [];
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    await work();
    spans.push(performance.now() - start);
  }
  return spans.sort((a, b) => a - b)[times >> 1]!;
}

async function apiTimes(file: string, entries: number) {
  const { store, express } = makeApp(openDatabase(file));
  store.write(() => {
    store.household.create(HOUSE);
    const machines = MACHINES.map((draft) => store.machines.create(draft));
    const origin = { zone: HOUSE.zone, author: 'bench' };
    for (let i = 0; i < entries; i++) {
      const machine = machines[i % machines.length]!;
      const at = new Date(now - (i / entries) * YEARS * 365 * DAY).toISOString();
      const tasks = tasksOf(machine);
      const round = Math.floor(i / machines.length);
      const care = round % 30 === 0;
      const draft: EntryDraft = care
        ? {
            kind: 'done',
            machineId: machine.id,
            at,
            task: tasks[(round / 30) % tasks.length]!.id,
            grade: (round % 3) as Grade,
          }
        : { kind: 'load', machineId: machine.id, at, count: 1 };
      store.entries.add(draft, origin);
    }
  });
  // One dryer with a figure a day.
  const measured = store.machines.list().find(({ kind }) => kind === 'vented-dryer')!;
  store.write(() => {
    for (let day = 0; day < YEARS * 365; day++) {
      store.entries.add(
        {
          ...{ kind: 'reading', machineId: measured.id, quantity: 'drying-minutes', unit: 'min' },
          value: 50 + (day % 90) / 3 + ((day * 7) % 11),
          at: new Date(now - day * DAY).toISOString(),
        },
        { zone: HOUSE.zone, author: 'bench' },
      );
    }
  });
  const server = express.listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  const address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/v1`;
  const bench = async () => {
    const answer = await fetch(`${address}/bench`);
    if (!answer.ok) throw new Error(`The bench answers ${answer.status}.`);
    return answer.arrayBuffer();
  };
  const machineId = store.machines.list()[0]!.id;
  const afterTap = async () => {
    store.write(() =>
      store.entries.add(
        { kind: 'load', machineId, at: new Date().toISOString(), count: 1 },
        { zone: HOUSE.zone, author: 'bench' },
      ),
    );
    await bench();
  };
  await bench();
  const warm = await median(41, bench);
  const tapped = await median(21, afterTap);
  const cold = await median(11, () => {
    store.entries.dropCaches();
    return bench();
  });
  const log = await median(21, async () =>
    (await fetch(`${address}/entries?limit=60`)).arrayBuffer(),
  );
  // Told by its bytes as they come, as somebody who saves it does.
  const saved = (path: string) =>
    timed(async () => {
      for await (const _piece of (await fetch(`${address}/${path}`))
        .body! as unknown as AsyncIterable<Uint8Array>);
    });
  const record = {
    entries: await saved('entries.csv'),
    loads: await saved('loads.csv'),
    json: await saved('record.json'),
    charts: await median(5, async () =>
      (await fetch(`${address}/machines/${measured.id}/charts`)).arrayBuffer(),
    ),
  };
  server.closeAllConnections();
  server.close();
  store.close();
  return { warm, tapped, cold, log, record };
}

/** Seconds and the most memory, MB, that a backup and its way back take with so many photos, some put in first. */
async function backupTimes(file: string, photos: number, more: number) {
  const db = openDatabase(file);
  const store = new Store(db);
  store.write(() => {
    for (let i = 0; i < more; i++) {
      store.photos.keep(randomUUID(), photo(300_000), { width: 800, height: 600 });
    }
  });
  db.$client.pragma('wal_checkpoint(TRUNCATE)');
  store.close();
  let most = 0;
  const watch = setInterval(() => (most = Math.max(most, process.memoryUsage.rss())), 20);
  const [zip, fresh] = [`${file}.zip`, `${file}.restored`];
  openDatabase(fresh).$client.close();
  const before = process.memoryUsage.rss();
  const backup = await timed(() => writeBackup(file, zip, Date.now()));
  const restore = await timed(async () => {
    await lookAtBackup(fresh, zip, `${fresh}.staged`, Date.now());
    putBack(fresh, `${fresh}.staged`, { how: 'replace' }, Date.now());
  });
  clearInterval(watch);
  return {
    photos,
    backup,
    restore,
    megabytes: statSync(zip).size / 1e6,
    memory: (most - before) / 1e6,
  };
}

/** Ten years of a machine used five times a week, each task done as the steady school says. */
function decade(_: unknown, which: number): History {
  const machine = { kind: 'front-load-washer', features: {} } as const;
  const loads = Array.from({ length: YEARS * 260 }, (_, i): Fact => {
    const at = now - i * 1.4 * DAY;
    return { entryId: `l${i}`, kind: 'load', at, day: dayOf(at, HOUSE.zone), count: 1 };
  });
  const due = tasksOf(machine).filter(({ habit }) => !habit);
  const work = due.flatMap(({ id: task, intervals }) => {
    const every = inDriver(intervals.steady, 'days');
    const times = Math.floor((YEARS * 365) / every);
    return Array.from({ length: times }, (_, i): Fact => {
      const at = now - (times - i - 0.5 - which / 100) * every * DAY;
      const grade = ((i + which) % 3) as Grade;
      return { entryId: `${task}${i}`, kind: 'done', at, day: dayOf(at, HOUSE.zone), task, grade };
    });
  });
  const { taps, ...past } = gather([...loads, ...work]);
  return { ...past, usage: new Usage(taps, 5) };
}

/** So many different pasts are made up; more machines than that share their entries, not their lists. */
const PASTS = Array.from({ length: 20 }, decade);

/** Time for the due dates of so many machines, none of them worked out before, milliseconds. */
function dueTimes(machines: number): number {
  const household: Household = { id: 'h', version: 1, ...HOUSE };
  const machine = { id: 'm', version: 1, ...MACHINES[0]! };
  const histories = Array.from({ length: machines }, (_, i): History => {
    const past = PASTS[i % PASTS.length]!;
    const openings = new Map(
      [...past.openings].map(([task, list]) => [task, new Openings(list.list)]),
    );
    return { ...past, openings };
  });
  const start = performance.now();
  for (const history of histories) duesOf(machine, history, household, now);
  return performance.now() - start;
}

const TROUBLES = 1000;

/** Mean minutes to put troubles of a kind right, by the way to go about it. */
function minutesOf(kind: MachineKind): Record<Policy, number> {
  const trouble = new Diagnosis({ kind, features: {} });
  const random = randomLcg(42 / 1000);
  const sums: Record<Policy, number> = { knowing: 0, advised: 0, metered: 0, random: 0, fixed: 0 };
  for (let i = 0; i < TROUBLES; i++) {
    const drawn = drawTrouble(trouble, random);
    for (const policy of POLICIES) {
      sums[policy] += minutesTo(trouble, drawn, policy, random) / TROUBLES;
    }
  }
  return sums;
}

/** Time for one answer of the trouble engine, milliseconds. */
const troubleTime = (): Promise<number> =>
  median(101, () =>
    troubleView(
      { kind: 'front-load-washer', features: {} },
      { 'drains-slowly': 'yes', 'code-drain': 'yes', gurgle: 'no' },
    ),
  );

/** A year of a meter, a sample a second, in the pieces in which a file streams by. */
function* yearOfMeter(rows: number): Generator<Buffer> {
  const start = 1_735_689_600;
  // About what a file gives at a time.
  const piece = 4000;
  for (let from = 0; from < rows; from += piece) {
    const lines = Array.from({ length: Math.min(piece, rows - from) }, (_, i) => {
      const second = from + i;
      const watts = second % 86_400 < 5400 ? 120 + ((second * 7919) % 1900) : 1 + (second % 3);
      return `${start + second},${watts}.${second % 10}`;
    });
    yield Buffer.from(`${lines.join('\n')}\n`);
  }
}

const YEAR_OF_SECONDS = 31_536_000;
const COMPARED = 1_000_000;

/** How a meter's file is read: rows a second, and the memory that a year of it takes; others on the same rows. */
async function meterTimes() {
  const [head] = [...yearOfMeter(200)];
  const { shape } = guessShape(head!.toString())!;
  const reader = new MeterReader({ shape, interval: 1000, zone: HOUSE.zone, now });
  const before = process.memoryUsage.rss();
  let [spent, most] = [0, before];
  for (const piece of yearOfMeter(YEAR_OF_SECONDS)) {
    const start = performance.now();
    reader.push(piece);
    spent += performance.now() - start;
    most = Math.max(most, process.memoryUsage.rss());
  }
  reader.end();
  const found = await timed(() => findCycles(reader.series.stretches(), reader.series.bin));
  const text = Buffer.concat([...yearOfMeter(COMPARED)]).toString();
  const papa = await timed(() => Papa.parse(text, { step: () => undefined }));
  const csv = await timed(() => parseCsv(text));
  return {
    rows: reader.taken,
    own: reader.taken / (spent / 1000),
    papaparse: COMPARED / papa,
    csvParse: COMPARED / csv,
    megabytes: (most - before) / 1e6,
    found: 1000 * found,
  };
}

/** The run that is solved: a riser and two elbows. */
const VENT: VentRun = {
  pieces: [
    { is: 'hose', length: 1.5, stretched: false },
    { is: 'straight', length: 2, direction: 'level' },
    { is: 'elbow', angle: 90, radius: '4-in' },
    { is: 'straight', length: 2.5, direction: 'up' },
    { is: 'elbow', angle: 90, radius: 'mitered' },
    { is: 'straight', length: 1, direction: 'level' },
    { is: 'hood', state: 'linted', screened: false },
  ],
  material: 'smooth-metal',
  diameter: 0.1,
  lining: 0.004,
  temperature: 60,
  blower: USUAL_BLOWER,
};
const LOAD = { dry: 3.83, moisture: 0.575, target: 0.04, heater: 5400, room: 24, humidity: 0.5 };

/** Time for a year of the demo household to be planned, and how near the best it is known to be after two seconds. */
async function planTimes() {
  const { store } = makeApp(openDatabase(':memory:'));
  store.write(() => fillDemo(store, dayOf(Date.now(), HOUSE.zone)));
  const house = houseOf(store);
  const problem = houseProblem(house, { weekdays: [6, 7] });
  const first = await median(5, () => solve(problem, { rounds: 1 }).next());
  const begun = performance.now();
  let within = Infinity;
  for (const { cost, bound } of solve(problem, { rounds: 10_000 })) {
    within = cost / bound - 1;
    if (performance.now() - begun > 2000) break;
  }
  return { first, within };
}

const file = process.argv[2];
if (!file) throw new Error('Name a file to make.');
dueTimes(20);
const dues = Object.fromEntries([10, 100, 1000].map((n) => [n, dueTimes(n)]));
const trouble = {
  answer: await troubleTime(),
  minutes: MACHINE_KINDS.map((kind) => ({ kind, ...minutesOf(kind) })),
};
const measure = {
  vent: await median(101, () => ventRun(VENT)),
  drum: await median(21, () => dryLoad({ ...LOAD, flow: 0.03 })),
};
makeBigHouse(`${file}.big`, 500_000);

const api = await apiTimes(file, 60_000);
const backup = [await backupTimes(file, 50, 50), await backupTimes(file, 500, 450)];
const plan = await planTimes();
const meter = await meterTimes();
console.log(JSON.stringify({ api, dues, trouble, measure, backup, plan, meter }));
