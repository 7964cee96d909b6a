import { due, reckon, type DueQuestion } from '../care/schedule/due.js';
import { LIMIT } from '../care/fouling/belief.js';
import { CAUSES } from '../trouble/data/causes.js';
import type { Risk } from './ahead.js';
import { rhythmInForce, type Asked, type Rhythm } from './rhythm.js';
import { WEEK } from './weeks.js';

/** Finding out what is wrong, and a load that is washed or dried again, minutes. Judgement. */
const TROUBLE = 60;
/** What nobody can grade goes wrong once in so many intervals. Judgement. */
const UNGRADED = 4;

/** Minutes that it costs where a task's station passes its limit: to find it, and to put it right. */
export function troubleOf(task: string): number {
  const fixes = CAUSES.filter(({ fouling }) => fouling === task).map(({ fix }) => fix.minutes);
  return TROUBLE + (fixes.length ? fixes.reduce((a, b) => a + b, 0) / fixes.length : 0);
}

/** The chance that a task's station passes its limit, by the days that it is left alone. */
export function chanceBy(
  question: DueQuestion,
  { every }: Pick<Rhythm, 'every'>,
  perWeek: number,
): (days: number) => number {
  const { task } = question;
  if (task.ungraded || !Number.isFinite(every)) {
    return (days) => (Number.isFinite(every) ? Math.min(1, days / every) / UNGRADED : 0);
  }
  const { belief } = reckon(question);
  return (days) =>
    days <= 0
      ? 0
      : belief.chanceAbove(LIMIT, task.driver === 'loads' ? (days * perWeek) / WEEK : days);
}

/**
 * What a task risks, week by week, as chances 0 to 1 and minutes. Of what was never opened it is taken that its
 * interval has passed.
 * @param weeks of the plan, their number
 */
export function riskOf(
  question: DueQuestion,
  asked: Pick<Asked, 'perWeek' | 'weeks' | 'skipped'>,
  weeks: number,
): Risk {
  const { perWeek } = asked;
  const rhythm = rhythmInForce({ ...asked, question, known: due(question) });
  const every = rhythm?.every ?? Infinity;
  const chance = chanceBy(question, { every }, perWeek);
  const elapsed = rhythm?.elapsed ?? (Number.isFinite(every) ? every : 0);
  const by = (passed: number) =>
    rising(Array.from({ length: weeks + 1 }, (_, n) => chance(passed + n * WEEK)));
  return { after: by(0), first: by(elapsed), stake: troubleOf(question.task.id) };
}

/** Left alone longer it is never less likely. */
function rising(chances: readonly number[]): number[] {
  let most = 0;
  return chances.map((chance) => (most = Math.max(most, chance)));
}
