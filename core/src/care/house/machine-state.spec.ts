import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { MS_PER_DAY } from '../../units/calendar.js';
import type { Machine } from '../../model/schemas.js';
import { duesOf } from '../schedule/dues.js';
import { nextVisit } from '../visit/next.js';
import { stateOf } from './machine-state.js';
import { tasksOf } from '../catalogue/lookup.js';
import type { History } from '../record/history.js';
import { Openings, type Opening } from '../record/openings.js';
import { household, machine } from '../../model/testing.js';
import { Usage } from '../record/load-counts.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const house = household();
const cleaned = (task: string, daysAgo: number): Opening => {
  const at = NOW - daysAgo * MS_PER_DAY;
  return { entryId: task, at, day: new Date(at).toISOString().slice(0, 10), task, cleaned: true };
};
const history = (...openings: Opening[]): History => ({
  openings: new Map(openings.map((opening) => [opening.task, new Openings([opening])])),
  readings: new Map(),
  latest: new Map(),
  habits: new Map(),
  chemicals: [],
  proofs: [],
  explained: [],
  replaced: [],
  usage: new Usage([], 5),
});

describe('stateOf', () => {
  it.each(MACHINE_KINDS)('gives every station of a %s a state in words', (kind) => {
    const { stations, dues } = stateOf(machine(kind), history(), house, NOW);
    expect(stations.every(({ said }) => said.length > 0)).toBe(true);
    expect(dues.every(({ status }) => status === 'unknown')).toBe(true);
    const due = new Set(dues.map(({ station }) => station));
    expect(
      stations
        .filter(({ status }) => status === 'unknown')
        .map(({ id }) => id)
        .sort(),
    ).toEqual([...due].sort());
  });

  it('shows fouling only where there was a clean to count from', () => {
    const washer = machine('front-load-washer');
    const { stations } = stateOf(washer, history(cleaned('pump-filter', 20)), house, NOW);
    const gauge = (id: string) => stations.find((station) => station.id === id)!;
    expect(gauge('gasket').fouling).toBeUndefined();
    const { low, median, high } = gauge('pump-filter').fouling!;
    expect(0 < low && low < median && median < high).toBe(true);
    expect(gauge('house-drain')).toMatchObject({ status: 'none', said: 'nothing scheduled' });
  });

  it('keeps what is done with each load off the list of what is due', () => {
    const dryer = machine('heat-pump-dryer', { features: { condensateTo: 'tank' } });
    const { stations, dues } = stateOf(dryer, history(), house, NOW);
    expect(dues.map(({ task }) => task)).not.toContain('tank-empty');
    expect(stations.find(({ id }) => id === 'tank')).toMatchObject({
      status: 'none',
      said: 'with each load',
    });
  });
});

describe('nextVisit', () => {
  const cellar = machine('front-load-washer', { id: 'a', place: 'Cellar' });
  const attic = machine('condenser-dryer', { id: 'b', place: 'Attic' });
  /** Everything was done so many days ago. */
  const all = (one: Machine, days: number, but: Record<string, number> = {}) =>
    history(...tasksOf(one).map(({ id }) => cleaned(id, but[id] ?? days)));
  const visitOf = (
    cellarDays: Record<string, number>,
    atticDays: Record<string, number>,
    minutes?: number,
  ) =>
    nextVisit(
      [cellar, attic],
      [
        stateOf(cellar, all(cellar, 1, cellarDays), house, NOW),
        stateOf(attic, all(attic, 1, atticDays), house, NOW),
      ],
      '2026-06-15',
      minutes,
    )!;
  const tasksIn = (visit: ReturnType<typeof visitOf>) => visit.tasks.map(({ task }) => task).sort();

  it('goes where it is most urgent and takes along what is due there within two weeks', () => {
    const visit = visitOf({ dispenser: 40, 'gasket-folds': 20 }, { 'fine-filter': 10 });
    expect(visit.place).toBe('Cellar');
    expect(tasksIn(visit)).toEqual(['dispenser', 'gasket-folds']);
    expect(visit.minutes.hands).toBeGreaterThan(0);
    expect(visitOf({}, { 'heat-exchanger': 40 }).place).toBe('Attic');
  });

  it('proposes the next one ahead of time when nothing is due', () => {
    const visit = visitOf({}, {});
    expect(visit.on! > '2026-06-15').toBe(true);
  });

  it('keeps to the minutes at work, tells what is left for later, and always has the most urgent', () => {
    const known = stateOf(cellar, history(cleaned('pump-filter', 400)), house, NOW);
    const within = (minutes: number) => nextVisit([cellar], [known], '2026-06-15', minutes)!;
    for (const minutes of [10, 30, 60, 120]) {
      const visit = within(minutes);
      expect(visit.tasks[0]!.task).toBe('pump-filter');
      if (visit.tasks.length > 1) expect(visit.minutes.hands).toBeLessThanOrEqual(minutes);
      expect(visit.tasks.length + visit.later).toBeGreaterThan(8);
    }
    expect(within(10).tasks).toHaveLength(1);
    expect(within(60).tasks.length).toBeGreaterThan(within(30).tasks.length);
    expect(within(600).later).toBeLessThanOrEqual(1);
  });

  it('takes what can hurt somebody first where nothing is known yet', () => {
    const dryer = machine('vented-dryer', {
      id: 'c',
      place: 'Cellar',
      features: { energy: 'gas' },
    });
    const states = [cellar, dryer].map((one) => stateOf(one, history(), house, NOW));
    const { tasks } = nextVisit([cellar, dryer], states, '2026-06-15', 600)!;
    const danger = tasks.map(({ safety }) => safety === true);
    expect(danger.lastIndexOf(true)).toBeLessThan(danger.indexOf(false));
    expect(tasks.slice(0, 3).map(({ task }) => task)).toContain('duct-run');
    const within = nextVisit([cellar, dryer], states, '2026-06-15', 60)!.tasks;
    expect(within.map(({ task }) => task)).toContain('duct-run');
  });

  it('never asks twice for what another task does along the way', () => {
    const dryer = machine('vented-dryer', { id: 'c', place: 'Cellar' });
    const state = stateOf(dryer, all(dryer, 400), house, NOW);
    const tasks = nextVisit([dryer], [state], '2026-06-15', 600)!.tasks.map(({ task }) => task);
    expect(tasks).toContain('duct-run');
    expect(tasks).not.toContain('hood');
  });

  it('leaves nothing due out for what is not, and says why something has to wait', () => {
    for (const minutes of [20, 45, 60, 90, 120, 600]) {
      for (const days of [5, 20, 45, 90, 200, 400]) {
        const visit = visitOf({ 'pump-filter': days, dispenser: 30, descale: 500 }, {}, minutes);
        const chosen = visit.tasks.map(({ task }) => task);
        const due = stateOf(
          cellar,
          all(cellar, 1, { 'pump-filter': days, dispenser: 30, descale: 500 }),
          house,
          NOW,
        )
          .dues.filter(({ status }) => status === 'due')
          .map(({ task }) => task);
        const told = [...chosen, ...visit.waits.map(({ task }) => task)];
        if (visit.place === 'Cellar') expect(told).toEqual(expect.arrayContaining(due));
        for (const { minutes: own, because } of visit.waits) {
          expect(own).toBeGreaterThan(0);
          expect(because).toMatch(new RegExp(`^with it \\d+ min, more than your ${minutes}$`));
        }
      }
    }
  });

  it('does not propose what a visit under way has', () => {
    const states = [stateOf(cellar, all(cellar, 400), house, NOW)];
    const before = nextVisit([cellar], states, '2026-06-15', 60)!;
    const after = nextVisit([cellar], states, '2026-06-15', 60, before.tasks);
    const again = before.tasks.filter(({ task }) => after?.tasks.some((one) => one.task === task));
    expect(again).toEqual([]);
  });

  it('is none without machines', () => {
    expect(nextVisit([], [], '2026-06-15')).toBeUndefined();
  });
});

describe('what calls for another task', () => {
  const washer = machine('front-load-washer', { school: 'count' });
  const filterAfter = (...openings: Opening[]) =>
    duesOf(washer, history(...openings), house, NOW).find(({ task }) => task === 'pump-filter')!;

  it('makes the filter due on the day of a drum clean done after it, by the count', () => {
    const after = filterAfter(cleaned('pump-filter', 20), cleaned('drum-clean', 4));
    expect(after).toMatchObject({ status: 'due', on: '2026-06-11', by: 'after' });
    const before = filterAfter(cleaned('pump-filter', 4), cleaned('drum-clean', 20));
    expect(before.by).not.toBe('after');
  });

  it('levels a machine after it was pulled out, under the school that says so', () => {
    const stretched = machine('front-load-washer', { school: 'stretch' });
    const levelOf = (...openings: Opening[]) =>
      duesOf(stretched, history(...openings), house, NOW).find(({ task }) => task === 'level')!;
    expect(levelOf(cleaned('level', 300)).on).toBeUndefined();
    expect(levelOf(cleaned('level', 300), cleaned('inlet-screen', 9)).on).toBe('2026-06-06');
  });
});
