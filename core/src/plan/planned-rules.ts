import type { FieldProblem } from '../model/check.js';
import type { AbsenceDraft, PlannedChange, PlannedVisit } from '../model/planned.js';
import { many } from '../units/many.js';
import { daysBetween, sayDay } from '../units/calendar.js';
import { calendarOf, type AheadProblem } from './ahead.js';
import { lateAfter, weeksOf } from './standing.js';
import { isAway } from './weeks.js';

/** Longer than this nobody is away from a house that they keep, days. Judgement. */
const LONGEST = 366;

/**
 * What is wrong with a change to a planned visit. What keeps people safe is left out, or moved past its date, only when
 * that was said twice.
 * @param others the other visits that stand, by which its own times are told
 */
export function checkPlanned(
  change: PlannedChange,
  visit: PlannedVisit,
  problem: AheadProblem,
  others: readonly PlannedVisit[],
): FieldProblem[] {
  const { day, tasks = visit.tasks, skipped, acknowledged } = change;
  if (visit.done) {
    return [{ field: '', message: 'This visit is done: nothing of it can be changed.' }];
  }
  const isIts = (one: (typeof tasks)[number]) =>
    visit.tasks.some(({ machineId, task }) => machineId === one.machineId && task === one.task);
  const found: FieldProblem[] = tasks.every(isIts)
    ? []
    : [{ field: 'tasks', message: 'This is no work of this visit.' }];
  const calendar = calendarOf(problem);
  const say = (message: string) => found.push({ field: 'day', message });
  if (day !== undefined) {
    if (day < problem.start) say('This day is over.');
    else if (day > calendar.end) say(`The plan ends on ${sayDay(calendar.end)}.`);
    else if (isAway(problem.spans, day)) say('Nobody is at home on this day.');
  }
  if (found.length || acknowledged) return found;
  const safe = tasks.flatMap(({ machineId, task }) => {
    const i = problem.of.findIndex((one) => one.machineId === machineId && one.task === task);
    return problem.chores[i]?.safety ? [i] : [];
  });
  if (safe.length === 0) return [];
  const twice = (message: string) => [{ field: 'acknowledged', message }];
  if (skipped) {
    return twice('This work keeps people safe. Say once more that you leave it out.');
  }
  if (day === undefined || day <= visit.day) return [];
  const plan = weeksOf(
    problem,
    others.map(({ skipped: out, ...one }) => ({ ...one, skipped: out !== undefined })),
  );
  const [old, week] = [visit.day, day].map((one) => calendar.weekOf(one)) as [number, number];
  const late = Math.max(...safe.map((chore) => lateAfter(problem, plan, chore, old, week)));
  return late > 0
    ? twice(
        `This work keeps people safe, and it would be ${many(late, 'week')} late. Say once more that you want it so.`,
      )
    : [];
}

/** What is wrong with days away. @param others that are there already */
export function checkAbsence(
  { from, to }: AbsenceDraft,
  others: readonly AbsenceDraft[],
): FieldProblem[] {
  if (to < from) return [{ field: 'to', message: 'This ends before it begins.' }];
  if (daysBetween(from, to) >= LONGEST) {
    return [{ field: 'to', message: 'More than a year away is not planned for.' }];
  }
  const other = others.find((one) => one.from <= to && from <= one.to);
  return other
    ? [
        {
          field: 'from',
          message: `You are away from ${sayDay(other.from)} to ${sayDay(other.to)} already.`,
        },
      ]
    : [];
}
