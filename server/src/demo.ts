import { randomUUID } from 'node:crypto';
import { rmSync, existsSync } from 'node:fs';
import { eq } from 'drizzle-orm';
import { completed, dayOf, plusDays, startOf, type Machine } from '@needlecase/core';
import { CASES } from '../../demo/cases.js';
import { CODE_SHEETS } from '../../demo/code-sheets.js';
import { history } from '../../demo/history.js';
import { HOUSEHOLD, MACHINES, SHELF, type DemoMachine } from '../../demo/household.js';
import { VENT_RUNS } from '../../demo/vent-runs.js';
import { openDatabase, type Db } from './db/open.js';
import { facts } from './db/tables.js';
import { addToCase } from './routes/cases.js';
import { Store } from './store/store.js';

/*
 * Makes the demo's data file: `node demo.js FILE [--fresh]`. A file made on an earlier day is made
 * anew, so that its dates are near, unless somebody has written in it since.
 */

const [file, option] = process.argv.slice(2);
if (!file) throw new Error('Name the file to make.');

const today = dayOf(Date.now(), HOUSEHOLD.zone);
console.log(keep(file) && option !== '--fresh' ? 'The demo data is kept as it is.' : make(file));

/** Whether there is a demo file that should not be made anew. */
function keep(path: string): boolean {
  if (!existsSync(path)) return false;
  const db = openDatabase(path);
  const made = factOf(db, 'demo-day');
  const untouched = factOf(db, 'demo-entries') === String(new Store(db).entries.count());
  db.$client.close();
  if (made === today) return true;
  if (!untouched) {
    console.log(
      `The demo data was made on ${made} and written in since; "npm run demo -- --fresh" makes it anew.`,
    );
  }
  return !untouched;
}

function make(path: string): string {
  for (const end of ['', '-wal', '-shm']) rmSync(path + end, { force: true });
  const db = openDatabase(path);
  const store = new Store(db);
  const count = store.write(() => {
    store.household.create(HOUSEHOLD);
    const made = new Map<DemoMachine, Machine>();
    for (const [key, draft] of Object.entries(MACHINES)) {
      made.set(key as DemoMachine, store.machines.create(draft));
    }
    const origin = { zone: HOUSEHOLD.zone, author: 'Wren' };
    for (const { machine, ...draft } of history(today, HOUSEHOLD.zone)) {
      const owner = made.get(machine)!;
      const entry = { ...draft, machineId: owner.id, source: 'demo' } as const;
      store.entries.add(completed(entry, owner), origin);
    }
    for (const { counted, daysAgo, ...supply } of SHELF) {
      const { item, unit } = store.supplies.create(supply);
      const at = new Date(startOf(plusDays(today, -daysAgo), HOUSEHOLD.zone) + 36_000_000);
      const entry = { kind: 'stock', supply: item, value: counted, unit, source: 'demo' } as const;
      store.entries.add({ ...entry, at: at.toISOString() }, origin);
    }
    for (const sheet of CODE_SHEETS) store.codeSheets.create(sheet);
    for (const { machine, events } of CASES) {
      const owner = made.get(machine)!;
      const dated = events.map(({ daysAgo, hour, ...event }, i) => {
        const day = startOf(plusDays(today, -daysAgo), HOUSEHOLD.zone);
        const at = new Date(day + hour * 3_600_000 + i * 60_000).toISOString();
        return { id: randomUUID(), at, ...event };
      });
      const news = { id: randomUUID(), machineId: owner.id, events: dated };
      addToCase(store, news, owner, HOUSEHOLD.zone);
    }
    for (const { machine, ...draft } of VENT_RUNS) {
      store.ventRuns.create({ ...draft, machineId: made.get(machine)!.id });
    }
    const total = store.entries.count();
    for (const [name, value] of [
      ['demo-day', today],
      ['demo-entries', String(total)],
    ] as const) {
      db.insert(facts).values({ name, value }).run();
    }
    return total;
  });
  db.$client.pragma('wal_checkpoint(TRUNCATE)');
  db.$client.close();
  return `The demo data is made: Kiln Lane House with ${count} entries.`;
}

function factOf(db: Db, name: string): string | undefined {
  return db.select().from(facts).where(eq(facts.name, name)).get()?.value;
}
