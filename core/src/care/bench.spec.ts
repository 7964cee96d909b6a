import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import { MS_PER_DAY } from '../units/calendar.js';
import { nextVisit, stateOf, type History } from './bench.js';
import type { Opening } from './due.js';
import { household, machine } from './testing.js';
import { Usage } from './usage.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const house = household();
const cleaned = (task: string, daysAgo: number): Opening => {
  const at = NOW - daysAgo * MS_PER_DAY;
  return { entryId: task, at, day: new Date(at).toISOString().slice(0, 10), task, cleaned: true };
};
const history = (...openings: Opening[]): History => ({
  openings: new Map(openings.map((opening) => [opening.task, [opening]])),
  usage: new Usage([], 5),
});

describe('stateOf', () => {
  it.each(MACHINE_KINDS)('gives every station of a %s a state in words', (kind) => {
    const { stations, dues } = stateOf(machine(kind), history(), house, NOW);
    expect(stations.every(({ said }) => said.length > 0)).toBe(true);
    expect(dues.every(({ status }) => status === 'unknown')).toBe(true);
    expect(stations.filter(({ status }) => status === 'unknown')).toHaveLength(dues.length);
  });

  it('shows fouling only where there was a clean to count from', () => {
    const washer = machine('front-load-washer');
    const { stations } = stateOf(washer, history(cleaned('pump-filter', 20)), house, NOW);
    const gauge = (id: string) => stations.find((station) => station.id === id)!;
    expect(gauge('gasket').fouling).toBeUndefined();
    const { low, median, high } = gauge('pump-filter').fouling!;
    expect(0 < low && low < median && median < high).toBe(true);
    expect(gauge('drain-hose')).toMatchObject({ status: 'none', said: 'nothing scheduled' });
  });
});

describe('nextVisit', () => {
  const cellar = machine('front-load-washer', { id: 'a', place: 'Cellar' });
  const attic = machine('condenser-dryer', { id: 'b', place: 'Attic' });
  const visitOf = (cellarDays: number, atticDays: number) => {
    const all = (days: number, ...tasks: string[]) =>
      history(...tasks.map((task) => cleaned(task, days)));
    return nextVisit(
      [cellar, attic],
      [
        stateOf(cellar, all(cellarDays, 'pump-filter', 'gasket-folds', 'dispenser'), house, NOW),
        stateOf(attic, all(atticDays, 'heat-exchanger', 'lint-screen-wash'), house, NOW),
      ],
      '2026-06-15',
    )!;
  };

  it('goes where it is most urgent and takes along what is due there within two weeks', () => {
    const visit = visitOf(40, 5);
    expect(visit.place).toBe('Cellar');
    expect(visit.tasks.map(({ task }) => task).sort()).toEqual(['dispenser', 'gasket-folds']);
    expect(visit.minutes.hands).toBeGreaterThan(0);
    expect(visitOf(5, 40).place).toBe('Attic');
  });

  it('proposes the next one ahead of time when nothing is due', () => {
    const visit = visitOf(2, 3);
    expect(visit.place).toBe('Attic');
    expect(visit.on! > '2026-06-15').toBe(true);
  });

  it('is none without machines', () => {
    expect(nextVisit([], [], '2026-06-15')).toBeUndefined();
  });
});
