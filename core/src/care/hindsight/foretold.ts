import type { Household, Machine } from '../../model/schemas.js';
import type { Grade } from '../../model/vocabulary.js';
import type { Day } from '../../units/calendar.js';
import { MS_PER_DAY } from '../../units/days.js';
import { stationById } from '../catalogue/lookup.js';
import type { Station } from '../catalogue/types.js';
import type { History } from '../record/history.js';
import { questionsOf } from '../schedule/dues.js';
import { believedBefore } from '../schedule/due.js';

/** An opening, with what was believed the day before it: by entries before it alone. */
export interface Foretold {
  machineId: string;
  task: string;
  line: Station['line'];
  day: Day;
  grade: Grade;
  /** Chance of each grade, 0 to 1, lightest first. */
  chances: readonly number[];
  /**
   * Days between when this find was expected and when it was seen; more than nothing where it fouled more slowly. Of a
   * station that is clean or blocked nobody knows since when.
   */
  daysOff?: number;
}

/** Fouling in the middle of each grade that has one. */
const MIDDLE: Partial<Record<Grade, number>> = { 1: 0.18, 2: 0.44, 3: 0.75 };

/**
 * What was believed before each graded opening of a machine, in the order of tasks and of time.
 * @param widened how many times wider things are believed than the catalogue has it
 */
export function foretold(
  machine: Machine,
  history: Pick<History, 'openings' | 'readings' | 'usage'>,
  household: Household,
  now: number,
  widened = household.widened ?? 1,
): Foretold[] {
  const found: Foretold[] = [];
  for (const question of questionsOf(machine, history, { ...household, widened }, now)) {
    const { task, openings } = question;
    const { line } = stationById(task.station);
    for (const { belief, n, grade, opening } of believedBefore(question)) {
      const middle = MIDDLE[grade];
      const expected = middle === undefined ? undefined : middle / belief.foulingAt(1).median;
      const days = daysBefore(openings.list, opening.at);
      found.push({
        ...{ machineId: machine.id, task: task.id, line, day: opening.day, grade },
        chances: belief.gradeChances(n),
        ...(expected === undefined || days === undefined
          ? {}
          : { daysOff: (n - expected) * (days / n) }),
      });
    }
  }
  return found;
}

/** Days from the last clean to an opening. */
function daysBefore(
  openings: readonly { at: number; cleaned: boolean }[],
  at: number,
): number | undefined {
  const clean = openings.findLast((one) => one.cleaned && one.at < at);
  return clean && (at - clean.at) / MS_PER_DAY;
}
