import type { Household, Machine } from './schemas.js';
import type { MachineKind } from './vocabulary.js';

/** Machines and a household for tests. */
export const household = (change: Partial<Household> = {}): Household => ({
  id: '00000000-0000-4000-8000-000000000000',
  version: 1,
  name: 'Test house',
  zone: 'Europe/Vienna',
  units: 'metric',
  school: 'steady',
  risk: 0.1,
  ...change,
});

export const machine = (kind: MachineKind, change: Partial<Machine> = {}): Machine => ({
  id: '00000000-0000-4000-8000-000000000001',
  version: 1,
  name: 'Test machine',
  kind,
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
  ...change,
});
