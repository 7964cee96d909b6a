import { rmSync, existsSync } from 'node:fs';
import { eq } from 'drizzle-orm';
import { dayOf } from '@needlecase/core';
import { HOUSEHOLD } from '../../demo/household.js';
import { openDatabase, type Db } from './db/open.js';
import { facts } from './db/tables.js';
import { Store } from './store/store.js';
import { addPlug, fillDemo } from './work/demo.js';

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
    fillDemo(store, today);
    addPlug(store, today);
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
