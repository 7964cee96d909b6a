import { awayFrom } from '../../../demo/away.js';
import { randomUUID } from 'node:crypto';
import { completed, plusDays, startOf, type Machine } from '@needlecase/core';
import { CASES } from '../../../demo/cases.js';
import { CODE_SHEETS } from '../../../demo/code-sheets.js';
import { history } from '../../../demo/history.js';
import { HOUSEHOLD, MACHINES, SHELF, type DemoMachine } from '../../../demo/household.js';
import { VENT_RUNS } from '../../../demo/vent-runs.js';
import type { Store } from '../store/store.js';
import { addToCase } from './cases.js';

/**
 * Fills an empty file with Kiln Lane House, its two years ending today.
 * @param today calendar date in the demo household's zone
 * @returns how many entries there are
 */
export function fillDemo(store: Store, today: string): number {
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
      return { ...event, id: randomUUID(), at };
    });
    const news = { id: randomUUID(), machineId: owner.id, events: dated };
    addToCase(store, news, owner, origin);
  }
  for (const span of awayFrom(today)) store.absences.create(span);
  for (const { machine, ...draft } of VENT_RUNS) {
    store.ventRuns.create({ ...draft, machineId: made.get(machine)!.id });
  }
  return store.entries.count();
}
