import type { Answer } from '../../model/vocabulary.js';
import { advise, type Advice } from './advice.js';
import type { Answers, Diagnosis } from './diagnosis.js';
import type { StopRule, TroubleCause } from '../data/types.js';
import { CIRCUMSTANCES_SAID } from '../data/circumstances.js';
import { STOP_RULES } from '../data/stops.js';
import { PARTLY_YES, type CauseBelief } from './hypotheses.js';
import { holds } from '../../care/catalogue/lookup.js';
import { raisedBy, stateSpeaks } from './priors.js';

/** A cause with its chance, and what speaks for and against it. */
export interface Suspect {
  cause: TroubleCause;
  chance: number;
  because: string[];
  against: string[];
}

export interface Assessment {
  /** Stop rules that hold: then nothing else is told. */
  stops: StopRule[];
  /** The likeliest first. */
  suspects: Suspect[];
  /** Chance that nothing on the list is there: something else, or nothing wrong. */
  other: number;
  advice: Advice | undefined;
  belief: CauseBelief | undefined;
}

const WORTH_TELLING = 0.005;
/** An answer that makes a cause so many times likelier is named as its reason. */
const TELLING = 1.5;
const REASONS = 3;

/**
 * What is likely wrong, why, and what to do next.
 * @param stops ids of the stop rules that the person said yes to
 * @param history by care task, in words, why its station is as fouled as it is
 */
export function assess(
  trouble: Diagnosis,
  answers: Answers,
  stops: readonly string[] = [],
  history: Readonly<Record<string, string>> = {},
): Assessment {
  const holding = STOP_RULES.filter(
    ({ id, kinds }) => stops.includes(id) && kinds.includes(trouble.situation.kind),
  );
  if (holding.length)
    return { stops: holding, suspects: [], other: 0, advice: undefined, belief: undefined };
  const belief = trouble.believe(answers);
  return {
    stops: [],
    suspects: suspectsOf(trouble, belief, answers, history),
    other: trouble.network.without(belief, trouble.explaining(answers)),
    advice: advise(trouble, belief, answers),
    belief,
  };
}

function suspectsOf(
  trouble: Diagnosis,
  belief: CauseBelief,
  answers: Answers,
  history: Readonly<Record<string, string>>,
): Suspect[] {
  const explains = trouble.explaining(answers);
  return trouble.causes
    .map((cause, i) => ({ cause, i, chance: belief.causes[i]! }))
    .filter(({ i, chance }) => explains[i] && chance >= WORTH_TELLING)
    .sort((a, b) => b.chance - a.chance)
    .map(({ cause, i, chance }): Suspect => {
      const weighed = trouble
        .evidence(answers)
        .filter(([, answer]) => answer !== 'unknown')
        .map(([id, answer]) => ({ id, answer, times: timesLikelier(trouble, i, id, answer) }))
        .sort((a, b) => Math.abs(Math.log(b.times)) - Math.abs(Math.log(a.times)));
      const known = cause.fouling === undefined ? undefined : history[cause.fouling];
      const raised = raisedBy(cause, trouble.situation);
      const speaks = stateSpeaks(cause, trouble.situation) ?? 'for';
      const { likelier } = cause;
      const built = likelier && holds(likelier.when, trouble.situation) ? [likelier.said] : [];
      return {
        cause,
        chance,
        because: [
          ...weighed
            .filter(({ times }) => times >= TELLING)
            .slice(0, REASONS)
            .map(({ id, answer }) => sayAnswer(trouble.say(id), answer)),
          ...(known && speaks === 'for' ? [known] : []),
          ...built,
          ...(raised ? [CIRCUMSTANCES_SAID[raised]] : []),
        ],
        against: [
          ...weighed
            .filter(({ times }) => times <= 1 / TELLING)
            .slice(0, REASONS)
            .map(({ id, answer }) => sayAnswer(trouble.say(id), answer)),
          ...(known && speaks === 'against' ? [known] : []),
        ],
      };
    });
}

/** How many times likelier an answer is with a cause alone than with none. @param cause its index */
export function timesLikelier(
  { network }: Diagnosis,
  cause: number,
  finding: string,
  answer: Answer,
): number {
  const known = network.findings.find(({ id }) => id === finding)!;
  const having = network.chanceGiven(known, [cause]);
  const lacking = network.chanceGiven(known, []);
  if (answer === 'no') return (1 - having) / (1 - lacking);
  if (answer === 'yes') return having / lacking;
  const partly = (chance: number) => PARTLY_YES * chance + (1 - PARTLY_YES) * (1 - chance);
  return partly(having) / partly(lacking);
}

function sayAnswer(said: string, answer: Answer): string {
  const answered = answer === 'yes' ? 'yes' : answer === 'no' ? 'no' : 'in part';
  return said.endsWith('?')
    ? `“${said}” ${answered}`
    : answer === 'yes'
      ? `“${said}”`
      : `not: “${said}”`;
}
