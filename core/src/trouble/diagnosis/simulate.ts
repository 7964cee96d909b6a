import { advise, costOf, SOMEBODY_ELSE, WATCH } from './advice.js';
import { symptomsOf, type Answers, type Diagnosis } from './diagnosis.js';
import { minutesWith, stagesOf, type Made } from '../data/stages.js';
import { DECIDES, type Check, type TroubleCause } from '../data/types.js';
import type { Answer } from '../../model/vocabulary.js';

/** A trouble drawn from the network: what is wrong, and what each finding would show. */
export interface DrawnTrouble {
  /** Indices of the causes that are there; none where nothing is wrong. */
  present: number[];
  shows: ReadonlyMap<string, boolean>;
  /** Symptoms that the person comes with. */
  reported: Answers;
  /** Indices of the causes that make any of these: put right, and the trouble is over. */
  wrong: number[];
}

/**
 * Ways to go about it. `knowing` is told what is wrong and only puts it right: nobody does better.
 */
export const POLICIES = ['knowing', 'advised', 'metered', 'random', 'fixed'] as const;
export type Policy = (typeof POLICIES)[number];

/**
 * Draws a trouble as the network has it, with at least one symptom to come with: one fault, two, or none
 * at all where chance alone made the symptom.
 * @param random numbers from 0 up to 1
 */
export function drawTrouble(trouble: Diagnosis, random: () => number): DrawnTrouble {
  for (;;) {
    const present = trouble.network.causes.flatMap(({ prior }, i) => (random() < prior ? i : []));
    if (present.length > 2) continue;
    const drawn = drawSigns(trouble, present, random);
    if (Object.keys(drawn.reported).length > 0) return drawn;
  }
}

/**
 * Draws what a machine with these causes shows, as the network has it.
 * @param present indices of the causes, a number of them @param random numbers from 0 up to 1
 */
export function drawSigns(
  trouble: Diagnosis,
  present: number[],
  random: () => number,
): DrawnTrouble {
  const states = trouble.network.states.map((state) => random() < state.chance(present));
  const shows = new Map(
    trouble.network.findings.map((finding) => [
      finding.id,
      random() < finding.chance(present, states),
    ]),
  );
  const reported = Object.fromEntries(
    symptomsOf(trouble.situation.kind)
      .filter(({ id }) => shows.get(id))
      .map(({ id }) => [id, 'yes' as const]),
  );
  const explains = trouble.explaining(reported);
  return { present, shows, reported, wrong: present.filter((i) => explains[i]) };
}

/** Minutes until what is wrong is put right; stages that were made once are not made again. */
export function minutesTo(
  trouble: Diagnosis,
  drawn: DrawnTrouble,
  policy: Policy,
  random: () => number,
): number {
  if (policy === 'knowing') return new Work(trouble, drawn).putRight(drawn.wrong);
  if (policy === 'advised') return advisedMinutes(trouble, drawn, drawn.reported);
  if (policy === 'metered') return advisedMinutes(trouble, drawn, withMeter(trouble, drawn));
  const checks = policy === 'random' ? shuffled(trouble.checks, random) : trouble.checks;
  return orderedMinutes(trouble, drawn, checks);
}

/** What was spent on a trouble, and what is still wrong. */
class Work {
  minutes = 0;
  #made: Made = 0;
  readonly #wrong: Set<number>;

  constructor(
    readonly trouble: Diagnosis,
    { wrong }: DrawnTrouble,
  ) {
    this.#wrong = new Set(wrong);
  }

  look(check: Check): void {
    this.minutes += costOf(check, this.#made);
    this.#made |= stagesOf(check);
  }

  /** @returns whether the trouble is over */
  fix(cause: number): boolean {
    const { fix } = this.trouble.causes[cause]!;
    this.minutes += minutesWith(fix, this.#made);
    this.#made |= stagesOf(fix);
    return this.#wrong.delete(cause) && this.#wrong.size === 0;
  }

  /** Lets it rest, and has somebody come where that was not the end of it. @returns minutes of it all */
  leave(): number {
    return this.minutes + WATCH + (this.#wrong.size > 0 ? SOMEBODY_ELSE : 0);
  }

  /** @returns minutes of it all */
  putRight(causes: readonly number[]): number {
    for (const cause of causes) this.fix(cause);
    return this.minutes;
  }
}

/** What a meter's watts show by themselves, before anybody looks: loads that take longer, heat that stays away. */
export const METER_TELLS: readonly string[] = [
  ...['long-heating', 'slow-fill', 'wont-spin', 'wrong-heat'],
  ...['slow-drift', 'long-drying', 'no-heat', 'heat-stops-early', 'stops-minutes', 'runs-on'],
  // By the heater's on-share.
  'weak-air',
];

function withMeter({ situation }: Diagnosis, { shows, reported }: DrawnTrouble): Answers {
  const told = symptomsOf(situation.kind).filter(({ id }) => METER_TELLS.includes(id));
  const seen = told.map(({ id }) => [id, shows.get(id) ? 'yes' : 'no'] as const);
  return { ...Object.fromEntries(seen), ...reported };
}

function advisedMinutes(trouble: Diagnosis, drawn: DrawnTrouble, told: Answers): number {
  const { shows } = drawn;
  const answers: Record<string, Answer> = { ...told };
  const failed: number[] = [];
  const work = new Work(trouble, drawn);
  for (let step = 0; step < 60; step++) {
    const { next } = advise(trouble, trouble.believe(answers, failed), answers, failed);
    if (!next) break;
    if ('fix' in next) {
      const cause = trouble.causes.indexOf(next.fix.cause);
      if (work.fix(cause)) return work.minutes;
      failed.push(cause);
    } else {
      const { check } = next.check;
      work.look(check);
      answers[check.id] = shows.get(check.id) ? 'yes' : 'no';
    }
  }
  return work.leave();
}

function orderedMinutes(trouble: Diagnosis, drawn: DrawnTrouble, checks: readonly Check[]): number {
  const work = new Work(trouble, drawn);
  for (const check of checks) {
    work.look(check);
    if (!drawn.shows.get(check.id)) continue;
    for (const cause of decided(trouble, check)) {
      if (work.fix(trouble.causes.indexOf(cause))) return work.minutes;
    }
  }
  return work.leave();
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
