import { dayOf, tasksOf, type MachineDraft } from '@needlecase/core';
import { randomUUID } from 'node:crypto';
import { openDatabase } from '../db/open.js';
import { Store } from '../store/store.js';

const DAY = 86_400_000;

/** How a house is set up that is only measured. */
export const HOUSE = {
  name: 'Bench',
  zone: 'Europe/Vienna',
  units: 'metric',
  school: 'steady',
  risk: 0.1,
} as const;

/** Two machines of each of four kinds. */
export const MACHINES: readonly MachineDraft[] = (
  ['front-load-washer', 'vented-dryer', 'condenser-dryer', 'top-load-washer'] as const
).flatMap((kind) =>
  [1, 2].map((n) => ({
    ...{ name: `${kind} ${n}`, kind, place: 'Cellar', features: {}, habits: [] },
    loadsPerWeek: 14,
  })),
);

/**
 * A file with many machines and ten years of entries, put in past all checks: it would take minutes otherwise.
 * @param machines how many, in a place for each dozen or so
 */
export function makeBigHouse(file: string, entries: number, machines = 500): void {
  const now = Date.now();
  const db = openDatabase(file);
  const store = new Store(db);
  const insert = db.$client.prepare(
    `INSERT INTO entries (id, machine_id, kind, at, day, zone, author, source, recorded_at, task, grade, count, more)
     VALUES (?, ?, ?, ?, ?, ?, 'bench', 'api', ?, ?, ?, ?, '{}')`,
  );
  store.write(() => {
    store.household.create(HOUSE);
    const all = Array.from({ length: machines }, (_, i) =>
      store.machines.create({
        ...MACHINES[i % MACHINES.length]!,
        name: `M ${i}`,
        place: `Room ${i % Math.ceil(machines / 12.5)}`,
      }),
    );
    for (let i = 0; i < entries; i++) {
      const machine = all[i % all.length]!;
      const at = Math.round(now - (i / entries) * 10 * 365 * DAY);
      const round = Math.floor(i / all.length);
      const tasks = tasksOf(machine);
      const what =
        round % 30 === 0
          ? ['done', tasks[(round / 30) % tasks.length]!.id, round % 3, null]
          : ['load', null, null, 1];
      const [kind, task, grade, count] = what;
      const day = dayOf(at, HOUSE.zone);
      insert.run(randomUUID(), machine.id, kind, at, day, HOUSE.zone, at, task, grade, count);
    }
  });
  store.close();
}
