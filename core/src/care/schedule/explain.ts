import { QUANTITIES, type Quantity } from '../../model/quantities.js';
import { GRADE_NAMES, type Grade } from '../../model/vocabulary.js';
import { sayDay, sayDistance, sayDays, type Day } from '../../units/calendar.js';
import { many } from '../../units/many.js';
import { taskOf } from '../catalogue/lookup.js';
import type { Build, Task } from '../catalogue/types.js';
import type { Due, LimitDates } from './due.js';
import type { Evidence } from '../fouling/learning.js';
import { BASELINE_PER_WEEK } from '../catalogue/interval-figure.js';
import { CIRCUMSTANCE_NAMES, sayInterval, scaled, type SpeedUp } from './interval.js';
import type { Loads } from '../record/load-counts.js';

/** Why a task is due when it is, in sentences. Empty parts are left out. */
export interface Why {
  /** One sentence for lists. */
  short: string;
  lastTime: string;
  interval: string;
  profile?: string;
  evidence?: string;
  /** What caps there are, and whether one of them holds the date now. */
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
export function sayState(
  due: Pick<Due, 'task' | 'status' | 'needless' | 'on' | 'inForce'>,
  machine: Build,
  today: Day,
): string {
  if (due.needless) return 'not needed: your water is soft';
  if (due.status === 'off') {
    const { safety } = taskOf(machine, due.task);
    return safety ? 'switched off, though it keeps people safe' : 'switched off';
  }
  if (due.status === 'habit') return 'with each load';
  if (due.status === 'unknown') return 'not known yet';
  if (!due.on) return due.inForce.school.sign ? `only ${due.inForce.school.sign}` : 'nothing due';
  if (due.on < today) return `due since ${sayDay(due.on, today)}`;
  return due.on === today ? 'due today' : `due ${sayDistance(due.on, today)}`;
}

/** Explains a due date. @param trouble when trouble is to be expected, if that is to be told too */
export function why(task: Task, due: Due, today: Day, trouble?: LimitDates): Why {
  const { inForce } = due;
  const result: Why = {
    short: short(due),
    lastTime: sayLast(task, due, today),
    interval: sayRule(task, due),
  };
  if (inForce.speedUps.length) result.profile = inForce.speedUps.map(saySpeedUp).join(' ');
  if (due.evidence.length) result.evidence = sayEvidence(task, due);
  const cap = sayCap(task, due, today);
  if (cap) result.cap = cap;
  const range = sayRange(trouble, today);
  if (range) result.range = range;
  return result;
}

function sayLast(task: Task, due: Due, today: Day): string {
  const { last } = due;
  if (!last) return `Never ${task.ungraded ? 'done' : 'opened'}, as far as this record goes.`;
  const along = last.task === task.id ? '' : ' along with another task';
  return `Last done${along} on ${sayDay(last.day, today)}, ${sayDistance(last.day, today)}; ${sayLoads(due.loads!)}.${sayWeighted(task, due)}`;
}

/** Where loads of special programmes make the figure reckoned with another one. */
function sayWeighted(task: Task, due: Due): string {
  if (task.driver !== 'loads' || due.use === undefined) return '';
  const [plain, weighted] = [round(total(due)), round(due.use)];
  return plain === weighted
    ? ''
    : ` They count as ${many(weighted, 'load')}, because some were hot, cool or heavily soiled.`;
}

/** "Halved: softener or dryer sheets in use." */
function saySpeedUp({ circumstance, multiplier, own }: SpeedUp): string {
  const pace =
    multiplier === 2
      ? 'Halved'
      : `Shortened to ${Math.round(100 / multiplier)} %, as it fouls ${multiplier} times as fast`;
  return `${pace}: ${CIRCUMSTANCE_NAMES[circumstance]}${own ? ' (your own figure)' : ''}.`;
}

function sayCap(task: Task, due: Due, today: Day): string | undefined {
  const said = [sayFailed(task, due), sayOwnCap(task, due, today)].filter(Boolean).join(' ');
  return said || undefined;
}

/** What a find of trouble holds the date to. */
function sayFailed({ driver }: Task, { held, learned }: Due): string {
  const age = many(round(learned), driver === 'loads' ? 'load' : 'day');
  if (held === 'failed') {
    return `It was found blocked after ${age}: no later than that, unless something of its cause was changed and noted.`;
  }
  return held === 'heavy' ? `It was found heavy: no more than 15 % beyond that, ${age}.` : '';
}

function sayOwnCap(task: Task, due: Due, today: Day): string | undefined {
  if (due.held === 'own') return 'Your own figure holds: it is not lengthened, whatever was found.';
  if (!task.cap) return undefined;
  const cap = task.cap.everyLoad ? 'with every load' : sayInterval(task.cap).replace('every ', '');
  if (task.cap.everyLoad) return `It is done ${cap}; no rhythm may loosen that.`;
  return due.by === 'cap'
    ? `Held at ${cap} by ${sayDay(due.on!, today)}: never longer, whatever was found.`
    : `Never longer than ${cap}, whatever is found. That is not reached now.`;
}

/** The range of dates in which trouble would come if the station were left alone. */
function sayRange(trouble: LimitDates | undefined, today: Day): string | undefined {
  if (!trouble?.early) return undefined;
  const say = (day: Day | undefined) => (day ? sayDay(day, today) : 'more than ten years from now');
  if (!trouble.late || trouble.late > today) {
    return `Left alone, trouble is likely between ${say(trouble.early)} and ${say(trouble.late)}, most likely around ${say(trouble.even)}.`;
  }
  return `It should have caused trouble by ${say(trouble.late)}, nine times in ten.`;
}

function short(due: Due): string {
  if (due.needless) return 'scale needs harder water than yours.';
  if (!due.last) return 'not noted yet. Once it was, the dates begin.';
  const loads = round(total(due));
  const when = due.days === 0 ? 'today' : `${sayDays(due.days!)} ago`;
  return `done ${when}, ${many(loads, 'load')} since.`;
}

const total = (due: Due): number => due.loads!.counted + due.loads!.estimated;
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function sayRule(task: Task, due: Due): string {
  const { school } = due.inForce;
  if (task.habit && school.everyLoad) return `With every load, as ${due.from} says.`;
  if (school.sign !== undefined && due.evidence.length === 0) {
    return `Only ${school.sign}, as ${due.from} says. What you find and grade can still call for it.`;
  }
  const now = sayInterval(due.inForce);
  const plain = sayInterval(scaled(task, school, [], 1));
  const said = school.said ? ` (${school.said})` : '';
  const after = school.after ? ` Also ${school.after.said}.` : '';
  const converted =
    school.loads === undefined && task.driver === 'loads'
      ? ` The loads are the same time at ${BASELINE_PER_WEEK} loads a week.`
      : '';
  return now === plain
    ? `${capital(now)}${said}, as ${due.from} says.${after}${converted}`
    : `${capital(now)}. ${capital(due.from)} says ${plain.replace(', whichever comes first', '')}${said}.${after}${converted}`;
}

function sayEvidence(task: Task, due: Due): string {
  const unit = task.driver === 'loads' ? 'load' : 'day';
  const { opened, measured } = due.seen;
  const seen = [
    ...(opened ? [sayOpened(due, unit)] : []),
    ...(measured ? [sayMeasured(due)] : []),
  ].join(' ');
  if (due.held === 'own') return `${seen} That would allow longer; your own figure holds.`;
  const [was, is] = [round(due.base), round(due.learned)];
  if (was === is) return `${seen} That fits the interval.`;
  const moved = `Was every ${many(was, unit)}, now every ${is}.`;
  const restraint =
    due.held === 'restraint'
      ? ' It may lengthen further; it grows by half at most at each opening.'
      : due.held === 'stretch'
        ? ' It goes no further than twice the longest rhythm.'
        : '';
  return `${seen} ${moved}${restraint}`;
}

function sayOpened({ seen: { opened, typical, always }, evidence }: Due, unit: string): string {
  const times = opened === 1 ? 'once, after' : `${opened} times, after about`;
  return `Opened ${times} ${many(round(typical), unit)}: ${sayGrades(opened, always, evidence)}.`;
}

function sayMeasured({ seen, evidence }: Due): string {
  const last = evidence.findLast((one) => one.measured)?.measured;
  if (!last) return '';
  const { quantity, value, clean, fouling } = last;
  const { reason, unit } = QUANTITIES[quantity] as Quantity;
  const times = seen.measured === 1 ? 'once' : `${seen.measured} times, at last`;
  return `Measured ${times}: ${reason} ${value} ${unit} against ${clean} ${unit} when clean, ${Math.round(fouling * 100)} % of the way to trouble.`;
}

function sayGrades(
  opened: number,
  always: Grade | undefined,
  evidence: readonly Evidence[],
): string {
  if (always !== undefined) return `${GRADE_NAMES[always]}${opened > 1 ? ' each time' : ''}`;
  const grades = evidence.flatMap(({ grade }) => (grade === undefined ? [] : GRADE_NAMES[grade]));
  const recent = grades.slice(-5);
  return `${opened > recent.length ? 'lately ' : ''}${recent.join(', ')}`;
}
