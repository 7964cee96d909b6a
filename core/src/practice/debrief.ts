import { advise } from '../trouble/diagnosis/advice.js';
import { costOf, type Advice } from '../trouble/diagnosis/advice.js';
import { timesLikelier } from '../trouble/diagnosis/suspects.js';
import { sayFinding } from '../trouble/diagnosis/diagnosis.js';
import type { Answer } from '../model/vocabulary.js';
import { many } from '../units/many.js';
import { playOn } from './bots.js';
import type { PracticeCase, PracticeGame } from './case.js';
import { perform, replay } from './game.js';
import { visitQuestions, type PracticeQuestion } from './questions.js';
import { beliefOf, startState, type PracticeState } from './state.js';
import { LEFT_OPEN, LEFT_SO, STOPPED } from './words.js';

/** What a way through a case cost. */
export interface PracticeCost {
  minutes: number;
  waiting: number;
  /** L. */
  mess: number;
  money: number;
  stopped: number;
}

/** A place at which something cheaper stood. */
export interface CheaperTurn {
  /** Which of the acts, from 0. */
  at: number;
  yours: string;
  instead: string;
  /** Minutes that it was dearer by. */
  saves: number;
  why: string;
}

/** What an answer meant for what was really wrong. */
export interface Meaning {
  say: string;
  /** "It makes … 12 times likelier". */
  means: string;
}

/** What is to be learned of a case that is over. */
export interface Debrief {
  /** One sentence. */
  verdict: string;
  /** What was wrong, in words; empty where nothing was. */
  wrong: readonly string[];
  yours: PracticeCost;
  practised: PracticeCost;
  /** What a practised hand does on the same case. */
  path: readonly { say: string; minutes: number }[];
  turns: readonly CheaperTurn[];
  meant: readonly Meaning[];
  /** Slips, and what was left so. */
  slips: readonly string[];
  questions: readonly PracticeQuestion[];
}

const MOST_TURNS = 3;
const MOST_MEANINGS = 5;
/** A look is cheaper where it tells so many times as much for a minute. Judgement. */
const TELLS_MORE = 1.5;
const TELLING = 1.5;

const costsOf = (state: PracticeState): PracticeCost => ({
  minutes: Math.round(state.minutes),
  waiting: Math.round(state.waiting),
  mess: state.mess,
  money: state.money,
  stopped: state.stopped.length,
});

/** What there is to learn of a case that is over. @throws RangeError for a case that cannot be */
export function debriefOf(played: PracticeGame): Debrief {
  const { game, state } = replay(played);
  const best = playOn('practised', game);
  const { causes } = game.trouble;
  return {
    verdict: verdictOf(game, state),
    wrong: game.hidden.wrong.map((i) => causes[i]!.name),
    yours: costsOf(state),
    practised: costsOf(best.state),
    path: best.state.happened
      .filter(({ is }) => is !== 'hint')
      .map(({ say, minutes }) => ({ say, minutes })),
    turns: turnsOf(game, played.acts),
    meant: meaningsOf(game, state),
    slips: slipsOf(state),
    questions: visitQuestions(game.machine, taskToAsk(game), game.seed),
  };
}

/** Minutes of a practised hand on a case: the notch. */
export const parOf = (game: PracticeCase): number =>
  Math.round(playOn('practised', game).state.minutes);

function verdictOf({ hidden }: PracticeCase, { end, left, proved }: PracticeState): string {
  const nothing = hidden.wrong.length === 0;
  if (end === 'call') {
    return left.length === 0
      ? 'You called somebody, and it was mended already.'
      : 'You called somebody: what was wrong was found, and it cost an afternoon.';
  }
  if (left.length > 0) {
    const still =
      hidden.wrong.length === 1
        ? 'it is still there'
        : left.length === 1
          ? 'one of the two faults is still there'
          : 'both faults are still there';
    return end === 'rest'
      ? `You let it rest, and ${still}.`
      : `You called it mended, and ${still}.`;
  }
  if (nothing) {
    return end === 'rest'
      ? 'Nothing was wrong, and you left it at that.'
      : 'Nothing was wrong: it only looked so this once.';
  }
  return proved ? 'Mended, and proved.' : 'Mended, but nobody ran it to see.';
}

/**
 * The care task to ask about: of what was wrong, else of what could have been.
 * @throws RangeError where a machine has no task at all
 */
export function taskToAsk({ trouble, hidden }: PracticeCase): string {
  const order = [...hidden.wrong, ...trouble.causes.keys()];
  const own = order
    .map((i) => trouble.causes[i]!.fix)
    .find(({ task, who }) => task && who === 'you');
  if (!own?.task) throw new RangeError('A machine of this kind has no task.');
  return own.task;
}

/** Walks the acts once more, and tells where the adviser had something cheaper. */
function turnsOf(game: PracticeCase, acts: readonly string[]): CheaperTurn[] {
  const turns: CheaperTurn[] = [];
  let state = startState(game);
  acts.forEach((act, at) => {
    const turn = /^(look|fix):/.test(act) ? turnAt(game, state, act, at) : undefined;
    if (turn) turns.push(turn);
    state = perform(game, state, act);
  });
  return turns.sort((a, b) => b.saves - a.saves).slice(0, MOST_TURNS);
}

function turnAt(
  game: PracticeCase,
  state: PracticeState,
  act: string,
  at: number,
): CheaperTurn | undefined {
  const { trouble } = game;
  const [kind, id] = act.split(':');
  const advice = advise(trouble, beliefOf(game, state), state.answers, [...state.failed]);
  const instead = cheapestOf(advice);
  if (!instead) return undefined;
  if (kind === 'look') {
    const check = trouble.checks.find((one) => one.id === id);
    if (!check || check.id === instead.check.id || state.answers[check.id] !== undefined)
      return undefined;
    const cost = costOf(check, state.made);
    const gain = advice.checks.find((one) => one.check.id === id)?.gain ?? 0;
    const saves = cost - instead.cost;
    if (saves < 1 || instead.gain / instead.cost < TELLS_MORE * (gain / cost)) return undefined;
    return {
      at,
      yours: check.ask,
      instead: instead.check.ask,
      saves: Math.round(saves),
      why:
        gain < 0.01
          ? 'Yours could tell nothing of what you were told; this one could.'
          : `For each minute it tells ${Math.round(instead.gain / instead.cost / (gain / cost))} times as much.`,
    };
  }
  const cause = trouble.causes.findIndex((one) => one.id === id);
  const chance = beliefOf(game, state).causes[cause] ?? 1;
  const { fix } = trouble.causes[cause] ?? {};
  if (
    !fix ||
    state.left.includes(cause) ||
    (advice.next && 'fix' in advice.next && advice.next.fix.cause.id === id)
  ) {
    return undefined;
  }
  return {
    at,
    yours: fix.say,
    instead: instead.check.ask,
    saves: Math.max(1, Math.round(fix.minutes - instead.cost)),
    why: `It was ${Math.round(100 * chance)} % likely then. A look of ${many(Math.round(instead.check.minutes), 'minute')} would have told.`,
  };
}

/** The look that the adviser would make next, or the most telling one where it would mend already. */
const cheapestOf = ({ next, checks }: Advice): Advice['checks'][number] | undefined =>
  next && 'check' in next ? next.check : checks[0];

function meaningsOf({ trouble, hidden }: PracticeCase, { answers }: PracticeState): Meaning[] {
  return hidden.wrong
    .flatMap((cause) =>
      trouble
        .evidence(answers)
        .filter(([, answer]) => answer !== 'unknown')
        .map(([id, answer]) => ({
          id,
          answer,
          cause,
          times: timesLikelier(trouble, cause, id, answer),
        })),
    )
    .filter(({ times }) => times >= TELLING || times <= 1 / TELLING)
    .sort((a, b) => Math.abs(Math.log(b.times)) - Math.abs(Math.log(a.times)))
    .slice(0, MOST_MEANINGS)
    .map(({ id, answer, cause, times }) => ({
      say: sayAnswer(id, answer),
      means:
        times >= 1
          ? `It made it ${roughly(times)} times likelier that ${trouble.causes[cause]!.name}.`
          : `It spoke against what it was, ${roughly(1 / times)} to one: a sign can mislead.`,
    }));
}

/** What was told, or a look with its answer. */
function sayAnswer(id: string, answer: Answer): string {
  const said = sayFinding(id);
  if (said.endsWith('?')) return `${said} ${answer === 'yes' ? 'Yes.' : 'No.'}`;
  return answer === 'yes' ? `${said}.` : `Not: ${said}.`;
}

const roughly = (times: number): string =>
  times < 10 ? String(Math.round(times * 10) / 10) : String(Math.round(times));

function slipsOf({ stopped, mess, leftSo, happened }: PracticeState): string[] {
  return [
    ...[...new Set(stopped)].map((law) => STOPPED[law]!.say),
    ...(mess > 0
      ? happened
          .filter(({ is }) => is === 'spilled')
          .map(({ say }) => say)
          .slice(0, 2)
      : []),
    ...[...new Set(leftSo.map((fact) => LEFT_SO[fact] ?? LEFT_OPEN))],
  ];
}
