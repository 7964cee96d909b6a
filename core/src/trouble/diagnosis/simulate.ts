import { advise, costOf, SOMEBODY_ELSE } from './advice.js';
import { symptomsOf, type Answers, type Diagnosis } from './diagnosis.js';
import { DECIDES, type Check, type TroubleCause } from '../data/types.js';
import type { Answer } from '../../model/vocabulary.js';

/** A trouble drawn from the network: what is wrong, and what each finding would show. */
export interface DrawnTrouble {
  /** Indices of the causes that are there. */
  present: number[];
  shows: ReadonlyMap<string, boolean>;
  /** Symptoms that the person comes with. */
  reported: Answers;
}

/** Ways to go about it. */
export type Policy = 'advised' | 'random' | 'fixed';

/**
 * Draws a trouble as the network has it, with at least one symptom to come with.
 * @param random numbers from 0 up to 1
 */
export function drawTrouble(trouble: Diagnosis, random: () => number): DrawnTrouble {
  const symptoms = symptomsOf(trouble.situation.kind);
  for (;;) {
    const present = trouble.network.causes.flatMap(({ prior }, i) => (random() < prior ? i : []));
    if (present.length === 0 || present.length > 2) continue;
    const shows = new Map(
      trouble.network.findings.map((finding) => [finding.id, random() < finding.chance(present)]),
    );
    const reported = Object.fromEntries(
      symptoms.filter(({ id }) => shows.get(id)).map(({ id }) => [id, 'yes' as const]),
    );
    const own = symptoms.some(
      ({ id }) => shows.get(id) && present.some((i) => trouble.causes[i]!.makes[id] !== undefined),
    );
    if (own) return { present, shows, reported };
  }
}

/** Minutes until all that is wrong is put right. */
export function minutesTo(
  trouble: Diagnosis,
  drawn: DrawnTrouble,
  policy: Policy,
  random: () => number,
): number {
  return policy === 'advised'
    ? advisedMinutes(trouble, drawn)
    : orderedMinutes(
        trouble,
        drawn,
        policy === 'random' ? shuffled(trouble.checks, random) : trouble.checks,
      );
}

function advisedMinutes(trouble: Diagnosis, { present, shows, reported }: DrawnTrouble): number {
  const answers: Record<string, Answer> = { ...reported };
  const wrong = new Set(present);
  const tried = new Set<string>();
  let minutes = 0;
  for (let step = 0; step < 60; step++) {
    const belief = trouble.network.believe(Object.entries(answers));
    // What was put right already is out of it.
    trouble.causes.forEach(({ id }, i) => tried.has(id) && (belief.causes[i] = 0));
    const { next, checks, fixes } = advise(trouble, belief, answers);
    const fix = fixes.find(({ cause }) => !tried.has(cause.id));
    const doFix = next && 'fix' in next ? fix : undefined;
    if (doFix ?? (checks.length === 0 ? fix : undefined)) {
      const { cause } = (doFix ?? fix)!;
      minutes += cause.fix.minutes;
      tried.add(cause.id);
      wrong.delete(trouble.causes.indexOf(cause));
      if (wrong.size === 0) return minutes;
    } else if (next && 'check' in next) {
      minutes += costOf(next.check.check);
      answers[next.check.check.id] = shows.get(next.check.check.id) ? 'yes' : 'no';
    } else break;
  }
  return minutes + SOMEBODY_ELSE;
}

function orderedMinutes(
  trouble: Diagnosis,
  { present, shows }: DrawnTrouble,
  checks: readonly Check[],
): number {
  const wrong = new Set(present);
  let minutes = 0;
  for (const check of checks) {
    minutes += costOf(check);
    if (!shows.get(check.id)) continue;
    for (const cause of decided(trouble, check)) {
      minutes += cause.fix.minutes;
      wrong.delete(trouble.causes.indexOf(cause));
      if (wrong.size === 0) return minutes;
    }
  }
  return minutes + SOMEBODY_ELSE;
}

const decided = ({ causes }: Diagnosis, { id }: Check): TroubleCause[] =>
  causes.filter(({ makes }) => makes[id] === DECIDES || makes[id] === 'nearly always');

function shuffled<T>(all: readonly T[], random: () => number): T[] {
  const list = [...all];
  for (let i = list.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    [list[i], list[j]] = [list[j]!, list[i]!];
  }
  return list;
}
