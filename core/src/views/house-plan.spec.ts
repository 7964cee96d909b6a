import { describe, expect, it } from 'vitest';
import type { Absence } from '../model/planned.js';
import { housePlan, type PlanView } from './plan.js';

const absence = (id: string, from: string): Absence => ({ id, version: 1, from, to: from });
/** A section’s plan, as far as a house’s is made of it. */
const section = (place: string, days: string[], absences: Absence[]): PlanView =>
  ({
    ...{ household: {}, start: '2026-12-01', end: '2027-11-28', places: [place], minutes: 60 },
    visits: days.map((day) => ({ day, place })),
    absences,
    away: absences.map(({ from, to }) => ({
      ...{ day: from, kind: 'before', span: { from, to }, minutes: 15, todo: [place, 'Plugs'] },
    })),
  }) as unknown as PlanView;

describe('the plan of a house out of those of its sections', () => {
  const before = section('Attic', ['2026-12-19', '2027-01-02'], [absence('a', '2027-03-01')]);
  const after = section(
    'Cellar',
    ['2026-12-26'],
    [absence('a', '2027-03-01'), absence('b', '2027-06-01')],
  );

  it('has every visit by its day, and each day away once with what is done everywhere', () => {
    const { visits, away, minutes, places } = housePlan([before, after]);
    expect(visits.map(({ day }) => day)).toEqual(['2026-12-19', '2026-12-26', '2027-01-02']);
    expect([minutes, places]).toEqual([120, ['Attic', 'Cellar']]);
    expect(away.map(({ day, todo }) => [day, todo])).toEqual([
      ['2027-03-01', ['Attic', 'Plugs', 'Cellar']],
      ['2027-06-01', ['Cellar', 'Plugs']],
    ]);
  });

  it('knows each day away that it tells, though one was laid down between two sections', () => {
    for (const views of [
      [before, after],
      [after, before],
    ]) {
      const { away, absences } = housePlan(views);
      for (const { span } of away) {
        expect(absences.some(({ from }) => from === span.from)).toBe(true);
      }
    }
  });
});
