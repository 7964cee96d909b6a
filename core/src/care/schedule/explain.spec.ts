import { describe, expect, it } from 'vitest';
import type { Grade } from '../../model/vocabulary.js';
import { MS_PER_DAY } from '../../units/calendar.js';
import { taskById } from '../catalogue/lookup.js';
import { due } from './due.js';
import { Openings, type Opening } from '../record/openings.js';
import { sayLoads, sayState, why } from './explain.js';
import { household, machine } from '../../model/testing.js';
import { Usage } from '../record/load-counts.js';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const TODAY = '2026-06-15';

function dueOf(task: string, seen: [daysAgo: number, grade?: Grade][], perWeek = 5) {
  const openings = seen.map(([daysAgo, grade]): Opening => {
    const at = NOW - daysAgo * MS_PER_DAY;
    const opening = {
      entryId: `${daysAgo}`,
      at,
      day: new Date(at).toISOString().slice(0, 10),
      task,
      cleaned: true,
    };
    return grade === undefined ? opening : { ...opening, grade };
  });
  return due({
    task: taskById(task),
    machine: machine(taskById(task).kinds[0]!),
    household: household(),
    openings: new Openings(openings),
    usage: new Usage([], perWeek),
    now: NOW,
  });
}

describe('sayState', () => {
  it.each<[string, [number][], number, string]>([
    ['never opened', [], 5, 'not known yet'],
    ['long past', [[100]], 5, 'due since 7 May'],
    ['ahead', [[40]], 5, 'due in 3 weeks'],
    ['tomorrow', [[60]], 5, 'due tomorrow'],
  ])('%s', (_what, seen, perWeek, said) => {
    const washer = machine('front-load-washer');
    expect(sayState(dueOf('pump-filter', seen, perWeek), washer, TODAY)).toBe(said);
  });
});

describe('sayLoads', () => {
  it.each([
    [{ counted: 12, estimated: 0.2 }, '12 loads since, all counted'],
    [{ counted: 0, estimated: 7.6 }, 'about 8 loads since, from your usual week'],
    [{ counted: 1, estimated: 3 }, 'about 4 loads since: 1 counted, 3 from your usual week'],
  ])('says what %j rests on', (loads, said) => {
    expect(sayLoads(loads)).toBe(said);
  });
});

describe('why', () => {
  const said = (task: string, seen: [number, Grade?][], perWeek?: number) =>
    why(taskById(task), dueOf(task, seen, perWeek), TODAY);

  it('says where the interval comes from, and what the loads in it are', () => {
    expect(said('pump-filter', [[10]]).interval).toBe(
      'Every 2 months or 43 loads, whichever comes first, as the rhythm “Steady” says. The loads are the same time at 5 loads a week.',
    );
    expect(said('duct-run', [[10]]).interval).toContain('(in spring and in autumn)');
  });

  it('says today for today', () => {
    expect(said('pump-filter', [[0]]).short).toBe('done today, 0 loads since.');
    expect(said('pump-filter', [[1]]).short).toBe('done 1 day ago, 1 load since.');
  });

  it('says nothing of what is not there', () => {
    const never = said('pump-filter', []);
    expect(never.lastTime).toBe('Never opened, as far as this record goes.');
    expect(never).not.toHaveProperty('evidence');
    expect(never).not.toHaveProperty('profile');
    expect(never).not.toHaveProperty('range');
  });

  it('says that the cap holds it where evidence would go further', () => {
    const seen: [number, Grade][] = [1200, 1000, 800, 600, 400, 20].map((ago) => [ago, 0]);
    const clear = said('duct-run', [[1400], ...seen]);
    expect(clear.cap).toMatch(/^Held at 12 months by .*: never longer, whatever was found\.$/);
  });

  it('says that it grows by half at most', () => {
    expect(said('pump-filter', [[120], [60, 0]]).evidence).toContain('grows by half at most');
  });

  it('is written in sentences', () => {
    const { short: _short, ...sentences } = said('pump-filter', [
      [200],
      [140, 1],
      [80, 3],
      [20, 2],
    ]);
    for (const sentence of Object.values(sentences)) {
      expect(sentence).toMatch(/^[A-Z0-9].*\.$/s);
      expect(sentence).not.toMatch(/undefined|NaN|\s\s/);
    }
  });
});
