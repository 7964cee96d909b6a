import { describe, expect, it } from 'vitest';
import type { PlannedVisit } from '../model/planned.js';
import { matched } from './matching.js';
import type { AheadVisit } from './year-plan.js';

const tasks = (...ids: string[]) => ids.map((task) => ({ machineId: 'm', task }));
const row = (id: string, day: string, held: boolean, ...ids: string[]): PlannedVisit => ({
  ...{ id, day, place: 'Cellar', version: 1, changedAt: '2026-12-01T00:00:00Z' },
  tasks: tasks(...ids),
  ...(held ? { held } : {}),
});
const visit = (day: string, held: boolean, ...ids: string[]): AheadVisit => ({
  ...{ day, place: 'Cellar', minutes: 30, saves: 0, held },
  tasks: tasks(...ids).map((one) => ({ ...one, minutes: 5, safety: false, slips: false })),
});
const names = (visits: AheadVisit[], rows: PlannedVisit[]) =>
  matched(visits, rows).map((one) => one?.id);

describe('visits of a plan and those of before', () => {
  it('are the same by their day and their work', () => {
    const rows = [row('a', '2026-12-05', false, 'x', 'y'), row('b', '2026-12-12', false, 'z')];
    expect(
      names([visit('2026-12-19', false, 'x', 'y'), visit('2026-12-12', false, 'z')], rows),
    ).toEqual(['a', 'b']);
    expect(names([visit('2027-02-06', false, 'x', 'y')], rows)).toEqual([undefined]);
  });

  it('keep what was laid down by hand, though more of other work goes along with it', () => {
    const rows = [
      row('by hand', '2026-12-12', true, 'x'),
      row('other', '2026-12-12', false, 'y', 'z', 'w'),
    ];
    expect(names([visit('2026-12-12', true, 'x', 'y', 'z', 'w')], rows)).toEqual(['by hand']);
  });
});
