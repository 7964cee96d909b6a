import { GRADE_NAMES } from '../model/vocabulary.js';
import { many, sayDay, sayDistance, sayDays, type Day } from '../units/calendar.js';
import { taskById, type Task } from './catalogue.js';
import type { Due, Evidence } from './due.js';
import { BASELINE_PER_WEEK, CIRCUMSTANCE_NAMES, sayInterval, scaled } from './interval.js';
import type { Loads } from './usage.js';

/** Why a task is due when it is, in sentences. Empty parts are left out. */
export interface Why {
  /** One sentence for lists. */
  short: string;
  lastTime: string;
  interval: string;
  profile?: string;
  evidence?: string;
  cap?: string;
  range?: string;
}

const round = (n: number): number => Math.round(n);

/** Loads in words, and what the figure rests on. */
export function sayLoads({ counted, estimated }: Loads): string {
  const [c, e] = [round(counted), round(estimated)];
  if (e === 0) return `${many(c, 'load')} since, all counted`;
  if (c === 0) return `about ${many(e, 'load')} since, from your usual week`;
  return `about ${many(c + e, 'load')} since: ${c} counted, ${e} from your usual week`;
}

/** `due today`, `due in 9 days`, `due since 3 October`: the state in a few words. */
export function sayState(due: Due, today: Day): string {
  if (due.status === 'off') {
    return taskById(due.task).safety ? 'switched off, though it keeps people safe' : 'switched off';
  }
  if (due.status === 'unknown') return 'not known yet';
  if (!due.on) return 'nothing due';
  if (due.on < today) return `due since ${sayDay(due.on, today)}`;
  return due.on === today ? 'due today' : `due ${sayDistance(due.on, today)}`;
}

/** Explains a due date. */
export function why(task: Task, due: Due, today: Day): Why {
  const { inForce, last } = due;
  const lastTime = last
    ? `Last cleaned on ${sayDay(last.day, today)}, ${sayDistance(last.day, today)}; ${sayLoads(due.loads!)}.`
    : 'Never opened, as far as this record goes.';
  const result: Why = { short: short(due), lastTime, interval: sayRule(task, due) };
  if (inForce.speedUps.length) {
    result.profile = inForce.speedUps
      .map(
        ({ circumstance, multiplier }) =>
          `${multiplier} times faster: ${CIRCUMSTANCE_NAMES[circumstance]}.`,
      )
      .join(' ');
  }
  if (due.evidence.length) result.evidence = sayEvidence(task, due);
  if (due.by === 'cap') {
    result.cap = `Held at ${sayInterval(task.cap!).replace('every ', '')}: never longer, whatever was found.`;
  }
  if (due.on && due.evenOddsOn && due.evenOddsOn > due.on) {
    result.range = `By ${sayDay(due.evenOddsOn, today)} it would be as likely as not to have caused trouble.`;
  }
  return result;
}

function short(due: Due): string {
  if (!due.last) return 'nobody has noted how it looks. Open it once, and the dates begin.';
  const loads = round(total(due));
  const when = due.days === 0 ? 'today' : `${sayDays(due.days!)} ago`;
  return `cleaned ${when}, ${many(loads, 'load')} since.`;
}

const total = (due: Due): number => due.loads!.counted + due.loads!.estimated;
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function sayRule(task: Task, due: Due): string {
  const { school } = due.inForce;
  const now = sayInterval(due.inForce);
  const plain = sayInterval(scaled(task, school, [], 1));
  const said = school.said ? ` (${school.said})` : '';
  const converted =
    school.loads === undefined && task.driver === 'loads'
      ? ` The loads are the same time at ${BASELINE_PER_WEEK} loads a week.`
      : '';
  return now === plain
    ? `${capital(now)}${said}, as ${due.from} says.${converted}`
    : `${capital(now)}. ${capital(due.from)} says ${plain.replace(', whichever comes first', '')}${said}.${converted}`;
}

function sayEvidence(task: Task, due: Due): string {
  const unit = task.driver === 'loads' ? 'load' : 'day';
  const count = due.evidence.length;
  const typical = round(due.evidence.reduce((sum, { n }) => sum + n, 0) / count);
  const seen = `Opened ${count === 1 ? 'once, after' : `${count} times, after about`} ${many(typical, unit)}: ${sayGrades(due.evidence)}.`;
  const [was, is] = [round(due.base), round(due.learned)];
  if (was === is) return `${seen} That bears the interval out.`;
  const moved = `Was every ${many(was, unit)}, now every ${is}.`;
  const held = due.evidence.at(-1)!.held;
  const restraint =
    held === 'restraint'
      ? ' It may lengthen further; it grows by half at most at each opening.'
      : held === 'stretch'
        ? ' It goes no further than twice the longest school.'
        : '';
  return `${seen} ${moved}${restraint}`;
}

function sayGrades(evidence: readonly Evidence[]): string {
  const grades = evidence.map(({ opening }) => GRADE_NAMES[opening.grade!]);
  const different = new Set(grades);
  if (different.size === 1) return `${grades[0]}${grades.length > 1 ? ' each time' : ''}`;
  const recent = grades.slice(-5);
  return `${grades.length > recent.length ? 'lately ' : ''}${recent.join(', ')}`;
}
