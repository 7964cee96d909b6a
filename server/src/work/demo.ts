import { awayFrom } from '../../../demo/away.js';
import { randomUUID } from 'node:crypto';
import { completed, plusDays, startOf, type Machine } from '@needlecase/core';
import { CASES } from '../../../demo/cases.js';
import { CODE_SHEETS } from '../../../demo/code-sheets.js';
import { history } from '../../../demo/history.js';
import { HOUSEHOLD, MACHINES, SHELF, type DemoMachine } from '../../../demo/household.js';
import { identitiesFrom, REPAIRS } from '../../../demo/life.js';
import { MANUAL, RECEIPT } from '../../../demo/papers.js';
import { plugOf } from '../../../demo/plug.js';
import { VENT_RUNS } from '../../../demo/vent-runs.js';
import type { Store } from '../store/store.js';
import { addToCase } from './cases.js';
import { keepLoads } from './meter.js';

/** The dryer upstairs has a metering plug since then, days ago. */
const METERED_DAYS = 56;

/** What its plug told, beside what was tapped. */
export function addPlug(store: Store, today: string): void {
  const machine = store.machines.list().find(({ name }) => name === MACHINES['top-dryer'].name)!;
  const { zone } = HOUSEHOLD;
  const from = startOf(plusDays(today, -METERED_DAYS), zone);
  const taps = store.entries
    .loadsBetween(machine.id, from, Date.now())
    .map(({ at }) => Date.parse(at))
    .sort((a, b) => a - b);
  const { loads, days } = plugOf(taps, 'condenser');
  for (const { day, minutes } of days) store.meterDays.keep(machine.id, day, minutes);
  keepLoads(store, machine, loads, { zone, author: 'Wren' });
}

/** The washer's manual with its pages, and a receipt. */
function addPapers(store: Store, washer: Machine, dryer: Machine): void {
  const document = randomUUID();
  const manual = { machineId: washer.id, kind: 'manual', name: MANUAL.name } as const;
  store.documents.keep(document, manual, 'application/pdf', MANUAL.file);
  const { id, version, ...draft } = washer;
  const pages = MANUAL.pages.map((page) => ({ document, ...page }));
  store.machines.replace(id, version, { ...draft, pages });
  const receipt = { machineId: dryer.id, kind: 'receipt', name: RECEIPT.name } as const;
  store.documents.keep(randomUUID(), receipt, 'application/pdf', RECEIPT.file);
}

/**
 * Fills an empty file with Kiln Lane House, its two years ending today.
 * @param today calendar date in the demo household's zone
 * @returns how many entries there are
 */
export function fillDemo(store: Store, today: string): number {
  store.household.create(HOUSEHOLD);
  const made = new Map<DemoMachine, Machine>();
  const identities = identitiesFrom(today);
  for (const [key, draft] of Object.entries(MACHINES)) {
    const identity = identities[key as DemoMachine];
    made.set(
      key as DemoMachine,
      store.machines.create({ ...draft, ...(identity ? { identity } : {}) }),
    );
  }
  const origin = { zone: HOUSEHOLD.zone, author: 'Wren' };
  for (const { machine, ...draft } of history(today, HOUSEHOLD.zone)) {
    const owner = made.get(machine)!;
    const entry = { ...draft, machineId: owner.id, source: 'demo' } as const;
    store.entries.add(completed(entry, owner), origin);
  }
  for (const { machine, daysAgo, euros, ...draft } of REPAIRS) {
    const owner = made.get(machine)!;
    const at = new Date(startOf(plusDays(today, -daysAgo), HOUSEHOLD.zone) + 61_200_000);
    const entry = {
      ...{ ...draft, machineId: owner.id, at: at.toISOString(), source: 'demo' as const },
      ...(euros === undefined ? {} : { cost: { amount: euros, currency: 'EUR' } }),
    };
    store.entries.add(completed(entry, owner), origin);
  }
  for (const { counted, daysAgo, ...supply } of SHELF) {
    const { item, unit } = store.supplies.create(supply);
    const at = new Date(startOf(plusDays(today, -daysAgo), HOUSEHOLD.zone) + 36_000_000);
    const entry = { kind: 'stock', supply: item, value: counted, unit, source: 'demo' } as const;
    store.entries.add({ ...entry, at: at.toISOString() }, origin);
  }
  addPapers(store, made.get('cellar-washer')!, made.get('top-dryer')!);
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
