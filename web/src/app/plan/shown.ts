import { plusDays, type Day } from '@needlecase/core';
import type { YearPlan } from '@needlecase/core/plan/year-plan';
import type { PlannedTaskView, PlannedVisitView, PlanView } from '@needlecase/core/views/plan';

/** A visit as it is drawn: one that stands, or one of a plan that is only looked at. */
export interface ShownVisit {
  key: string;
  day: Day;
  place: string;
  tasks: readonly PlannedTaskView[];
  minutes: number;
  saves: number;
  window?: { from: Day; to: Day };
  held: boolean;
  who?: string;
  /** What stands, to be changed. */
  planned?: PlannedVisitView;
}

/** The visits that stand. */
export const standingIn = ({ visits }: PlanView): ShownVisit[] =>
  visits.map(({ id, ...visit }) => ({ ...visit, key: id, planned: { id, ...visit } }));

/** The visits of a plan that is only looked at. */
export function lookedAt({ tasks }: Pick<PlanView, 'tasks'>, { visits }: YearPlan): ShownVisit[] {
  const called = new Map(tasks.map((one) => [`${one.machineId}/${one.task}`, one]));
  return visits.map(({ tasks: done, ...visit }, i) => ({
    ...visit,
    key: `look-${i}`,
    tasks: done.flatMap((task) => {
      const name = called.get(`${task.machineId}/${task.task}`);
      return name ? [{ ...task, ...name }] : [];
    }),
  }));
}

/** `8 h 20`, hours and minutes. */
export function sayHours(minutes: number): string {
  const whole = Math.round(minutes);
  const hours = Math.floor(whole / 60);
  return hours ? `${hours} h ${String(whole % 60).padStart(2, '0')}` : `${whole} min`;
}

const weekday = new Intl.DateTimeFormat('en-GB', { weekday: 'short', timeZone: 'UTC' });
const weekdayLong = new Intl.DateTimeFormat('en-GB', { weekday: 'long', timeZone: 'UTC' });
/** Three letters each: nobody's calendar has a fourth for September alone. */
const MONTHS = 'Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec'.split(' ');
const monthLong = new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' });
const at = (day: Day): Date => new Date(`${day}T12:00:00Z`);
const dayIn = (day: Day): number => Number(day.slice(8));

/** `Sat 28 Nov`. */
export const sayShort = (day: Day): string =>
  `${weekday.format(at(day))} ${dayIn(day)} ${MONTHS[Number(day.slice(5, 7)) - 1]!}`;
/** `Saturday 28 November`. */
export const sayLong = (day: Day): string =>
  `${weekdayLong.format(at(day))} ${dayIn(day)} ${monthLong.format(at(day))}`;
/** `28 Nov`, with its year where that is asked for. */
export const sayDate = (day: Day, year = false): string =>
  `${dayIn(day)} ${MONTHS[Number(day.slice(5, 7)) - 1]!}${year ? ` ${day.slice(0, 4)}` : ''}`;
export const sayMonth = (day: Day): string => MONTHS[Number(day.slice(5, 7)) - 1]!;
export const dayAfter = (day: Day, days = 1): Day => plusDays(day, days);
