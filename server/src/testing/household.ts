import {
  emptyProgress,
  planVisit,
  type Household,
  type Machine,
  type MachineDraft,
  type MeterImport,
  type SetupDraft,
  type VisitProgress,
  type VisitTask,
} from '@needlecase/core';
import request from 'supertest';
import { makeApp, type App, type Setting } from '../app.js';
import { openDatabase, type Db } from '../db/open.js';

export const washer: MachineDraft = {
  name: 'Washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: { filterAccess: 'front-right', drainDownHose: 'no' },
  habits: [],
  loadsPerWeek: 5,
};

export const dryer: MachineDraft = {
  name: 'Dryer',
  kind: 'vented-dryer',
  place: 'Cellar',
  features: { energy: 'electric' },
  habits: [],
  loadsPerWeek: 4,
};

export const setup: SetupDraft = {
  household: {
    name: 'Test house',
    zone: 'Europe/Vienna',
    units: 'metric',
    school: 'steady',
    risk: 0.1,
  },
  machines: [washer, dryer],
};

export interface Fixture extends App {
  db: Db;
  api: ReturnType<typeof request>;
  household: Household;
  washer: Machine;
  dryer: Machine;
}

/** A server on an empty file in memory. */
export function emptyApp(setting: Setting = {}): App & { db: Db; api: ReturnType<typeof request> } {
  const db = openDatabase(':memory:');
  const app = makeApp(db, setting);
  return { ...app, db, api: request(app.express) };
}

/** A server with a household of a washer and a dryer. */
export async function readyApp(setting: Setting = {}): Promise<Fixture> {
  const app = emptyApp(setting);
  const { body } = await app.api.post('/api/v1/setup').send(setup).expect(201);
  return { ...app, household: body.household, washer: body.machines[0], dryer: body.machines[1] };
}

export const ago = (days: number): string => new Date(Date.now() - days * 86_400_000).toISOString();

/** Progress of a visit to one machine with every step ticked. */
export function worked(
  tasks: readonly VisitTask[],
  machine: Machine,
  grade: 0 | 1 | 2 | 3 | 4,
): VisitProgress {
  const { steps } = planVisit([...tasks], [machine]);
  return {
    ...emptyProgress(),
    ticked: Object.fromEntries(steps.map(({ key }) => [key, new Date().toISOString()])),
    tasks: Object.fromEntries(tasks.map(({ task }) => [`${machine.id}/${task}`, { grade }])),
  };
}

/** A load as a meter told it: an hour and ten minutes from an instant on. */
export const meterLoad = (from: string): MeterImport['loads'][number] => ({
  from,
  to: new Date(Date.parse(from) + 70 * 60_000).toISOString(),
  ...{ wattHours: 640, peak: 2040, heating: 14, motor: 40, idle: 16, unread: 0 },
});
