import { cautionsFor, stationById } from '../care/catalogue/lookup.js';
import type { FigureId } from '../care/catalogue/data/figures.js';
import type { Build, Station } from '../care/catalogue/types.js';
import type { MachineKind } from '../model/vocabulary.js';
import { costOf, type CheckAdvice, type FixAdvice } from '../trouble/diagnosis/advice.js';
import { stagesOf } from '../trouble/data/stages.js';
import { Diagnosis, symptomsOf, type Answers } from '../trouble/diagnosis/diagnosis.js';
import type { CaseRecord } from '../model/schemas.js';
import {
  caseState,
  situationIn,
  type LoggedFigure,
  type VisitProof,
} from '../trouble/cases/state.js';
import type { CodeReading } from '../trouble/codes/read.js';
import type { Sense, StopRule, Who } from '../trouble/data/types.js';
import type { Rung } from '../trouble/data/door-ladder.js';
import { causeById } from '../trouble/data/causes.js';
import { stopsOf } from '../trouble/data/stops.js';
import {
  doorLadder,
  firstThings,
  waterLevel,
  type FirstThing,
} from '../trouble/diagnosis/first.js';
import type { CauseBelief } from '../trouble/diagnosis/hypotheses.js';
import { looksLeft, sureness, type Sureness } from '../trouble/diagnosis/sureness.js';
import { likelySymptoms } from '../trouble/diagnosis/likely.js';
import { causesOf, type Situation } from '../trouble/diagnosis/priors.js';
import { assess } from '../trouble/diagnosis/suspects.js';

/* What the trouble engine says, as it crosses a border: to the screens and over the API. */

export interface SuspectView {
  cause: string;
  name: string;
  station: string;
  /** 0 to 1. */
  chance: number;
  who: Who;
  fix: string;
  task?: string;
  because: string[];
  against: string[];
}

export interface CheckView {
  id: string;
  ask: string;
  how: string;
  figure?: FigureId;
  needs: readonly string[];
  /** The words of its hazards. */
  cautions: readonly string[];
  minutes: number;
  /** Minutes with mess and hazards counted in. */
  cost: number;
  /** Bits expected. */
  gain: number;
  /** Questions of other looks that cost little once this one is made: what it opens is open. */
  along: string[];
  /** What would be likeliest after a yes, and after a no. */
  yes: string;
  no: string;
}

export interface FixView {
  cause: string;
  name: string;
  say: string;
  who: Who;
  task?: string;
  chance: number;
  minutes: number;
}

export interface TroubleView {
  stops: StopRule[];
  /** What is done before any look. */
  first: FirstThing[];
  /** Where the door stays locked: the rungs, the cheapest first. */
  ladder?: RungView[];
  suspects: SuspectView[];
  /** Chance that it is something else, 0 to 1. */
  other: number;
  /** Chance that at least one of the suspects sits on a line, 0 to 1, by line. */
  lines: Partial<Record<Station['line'], number>>;
  next?: { check: CheckView } | { fix: FixView };
  /** How sure the likeliest is. */
  sure?: Sureness;
  /** About how many more looks it takes. */
  more?: number;
  /** Other checks, the most telling a minute first. */
  checks: CheckView[];
  fixes: FixView[];
}

/** A rung of the ladder of a locked door. */
export interface RungView {
  id: string;
  do: string;
  why: string;
  minutes: number;
  cautions: readonly string[];
}

/** A machine as the trouble engine knows it, and what can be told of it. */
export interface TroubleStart {
  symptoms: SymptomView[];
  stops: Pick<StopRule, 'id' | 'say'>[];
  situation: Situation;
  /** By care task, why its station is as fouled as it is. */
  said: Record<string, string>;
  /** The latest figures of each quantity read at the machine. */
  figures: Record<string, LoggedFigure[]>;
  /** What the looks at the end of its visits showed. */
  proofs: VisitProof[];
}

/** An answer over the API, with what a display code was read as. */
export type TroubleAnswer = TroubleView & { code?: CodeReading };

export interface SymptomView {
  id: string;
  say: string;
  sense: Sense;
}

/** What is likely to be told of a machine, by its state now. */
export interface LikelyTrouble {
  machineId: string;
  /** Chances within a year, 0 to 1, by symptom. */
  chances: Record<string, number>;
}

/** The chances of every symptom of a machine. */
export const likelyTrouble = (machineId: string, situation: Situation): LikelyTrouble => ({
  machineId,
  chances: Object.fromEntries(
    [...likelySymptoms(situation)].map(([id, chance]) => [id, Math.round(1000 * chance) / 1000]),
  ),
});

/** What to do next in a case, and whom it suspects most. */
export interface CaseLook {
  /** The question of the next look, or the work to be done. */
  say: string;
  kind: 'check' | 'fix';
  minutes: number;
  /** The two likeliest; chances from 0 to 1. */
  suspects: { name: string; chance: number }[];
}

const MOST_CHECKS = 6;

/** What can be told of a machine that is in trouble, and what to ask before anything else. */
export const troubleStart = (
  kind: MachineKind,
): { symptoms: SymptomView[]; stops: Pick<StopRule, 'id' | 'say'>[] } => ({
  symptoms: symptomsOf(kind).map(({ id, say, sense }) => ({ id, say, sense })),
  stops: stopsOf(kind).map(({ id, say }) => ({ id, say })),
});

/** The work for a cause that somebody looked and found. */
export const lookedFix = (cause: string): FixView =>
  fixView({ cause: causeById(cause), chance: 1 });

/** Symptoms that something at a station makes. */
export function symptomsAt(machine: Build, station: string): string[] {
  const here = causesOf(machine).filter((cause) => cause.station === station);
  return symptomsOf(machine.kind)
    .filter(({ id }) => here.some(({ makes }) => makes[id] !== undefined))
    .map(({ id }) => id);
}

const KEPT = 8;
const CASES = new Map<string, Diagnosis>();

/** A case is asked again with each answer; its network stays the same while the machine does. */
function caseOf(situation: Situation): Diagnosis {
  const key = JSON.stringify(situation);
  const known = CASES.get(key);
  if (known) return known;
  const made = new Diagnosis(situation);
  if (CASES.size >= KEPT) CASES.delete(CASES.keys().next().value!);
  CASES.set(key, made);
  return made;
}

/**
 * What is likely wrong with a machine, why, and what to do next.
 * @param answers by symptom or check
 * @param stops ids of stop rules that hold: then only these are told
 * @param history by care task, in words, why its station is as fouled as it is
 */
export function troubleView(
  situation: Situation,
  answers: Answers,
  stops: readonly string[] = [],
  history: Readonly<Record<string, string>> = {},
): TroubleView {
  const trouble = caseOf(situation);
  const {
    stops: holding,
    suspects,
    other,
    advice,
    belief,
  } = assess(trouble, answers, stops, history);
  if (!advice || !belief)
    return { stops: holding, first: [], suspects: [], other: 0, lines: {}, checks: [], fixes: [] };
  const { next } = advice;
  const explains = trouble.explaining(answers);
  const there = trouble.network.blank();
  const lines = linesOf(trouble, belief, answers);
  const locked = answers['door-locked'] === 'yes' || answers['door-locked'] === 'partly';
  return {
    stops: [],
    first: firstThings(situation, answers, lines.air ?? 0),
    ...(locked
      ? {
          ladder: doorLadder(situation, waterLevel(situation, answers)).map((rung) =>
            rungView(situation, rung),
          ),
        }
      : {}),
    suspects: suspects.map(({ cause, chance, because, against }) => ({
      cause: cause.id,
      name: cause.name,
      station: cause.station,
      chance,
      who: cause.fix.who,
      fix: cause.fix.say,
      ...(cause.fix.task ? { task: cause.fix.task } : {}),
      because,
      against,
    })),
    other,
    lines,
    ...(suspects[0]
      ? {
          sure: sureness(
            suspects[0].chance,
            trouble.evidence(answers).filter(([, answer]) => answer !== 'unknown').length,
            suspects[0].cause.fouling !== undefined &&
              situation.fouling?.[suspects[0].cause.fouling] !== undefined,
          ),
        }
      : {}),
    ...(next && 'check' in next
      ? {
          more: looksLeft(
            suspects.map(({ chance }) => chance),
            next.check.gain,
          ),
        }
      : {}),
    ...(next
      ? {
          next:
            'check' in next
              ? { check: checkView(trouble, belief, next.check, advice.checks, explains, there) }
              : { fix: fixView(next.fix) },
        }
      : {}),
    checks: advice.checks
      .slice(0, MOST_CHECKS)
      .map((check) => checkView(trouble, belief, check, advice.checks, explains, there)),
    fixes: advice.fixes.slice(0, MOST_CHECKS).map(fixView),
  };
}

/**
 * A look as it is shown, also one that is not worth its minutes now; none where such a machine has no such look.
 * @param ruledOut numbers of causes, by index
 */
export function lookView(
  trouble: Diagnosis,
  answers: Answers,
  ruledOut: readonly number[],
  id: string,
): CheckView | undefined {
  const check = trouble.checks.find((one) => one.id === id);
  if (!check) return undefined;
  const belief = trouble.believe(answers, [...ruledOut]);
  const advice: CheckAdvice = { check, cost: costOf(check), gain: 0, expected: 0 };
  const explains = trouble.explaining(answers);
  return checkView(trouble, belief, advice, [], explains, trouble.network.blank());
}

/** What to do next in a case that is open; nothing where its work is to be proved or nothing is worth its minutes. */
export function caseLook(
  record: CaseRecord,
  { situation, said }: Pick<TroubleStart, 'situation' | 'said'>,
): CaseLook | undefined {
  const state = caseState(record);
  if (state.fix) return undefined;
  const suspects = (list: readonly SuspectView[]) =>
    list.slice(0, 2).map(({ name, chance }) => ({ name, chance }));
  const { next, suspects: all } = troubleView(
    situationIn(situation, state),
    state.answers,
    state.stops,
    said,
  );
  if (!next) return undefined;
  return 'check' in next
    ? { say: next.check.ask, kind: 'check', minutes: next.check.minutes, suspects: suspects(all) }
    : { say: next.fix.say, kind: 'fix', minutes: next.fix.minutes, suspects: suspects(all) };
}

const rungView = (machine: Build, { id, do: what, why, minutes, hazards }: Rung): RungView => ({
  id,
  do: what,
  why,
  minutes,
  cautions: cautionsFor(machine, hazards),
});

function linesOf(trouble: Diagnosis, belief: CauseBelief, answers: Answers): TroubleView['lines'] {
  const explains = trouble.explaining(answers);
  const lineOf = trouble.causes.map(({ station }) => stationById(station).line);
  return Object.fromEntries(
    [...new Set(lineOf)].map((line) => {
      const marked = lineOf.map((one, i) => one === line && explains[i]!);
      return [line, 1 - trouble.network.without(belief, marked)];
    }),
  );
}

function checkView(
  trouble: Diagnosis,
  belief: CauseBelief,
  { check, cost, gain }: CheckAdvice,
  others: readonly CheckAdvice[],
  explains: readonly boolean[],
  there: CauseBelief,
): CheckView {
  const { id, ask, how, figure, needs, hazards, minutes } = check;
  const likeliest = (seen: boolean): string => {
    const after = trouble.network.after(belief, id, seen, there);
    const none = trouble.network.without(after, explains);
    // What explains nothing that was told may be there as well, and is not the trouble.
    const causes = after.causes.map((chance, i) => (explains[i] ? chance : 0));
    const best = causes.reduce((best, chance, i) => (chance > causes[best]! ? i : best), 0);
    const percent = (chance: number) => `${Math.min(99, Math.round(100 * chance))} %`;
    return causes[best]! >= none
      ? `then most likely ${trouble.causes[best]!.name} (${percent(causes[best]!)})`
      : `then most likely something that is not on this list (${percent(none)})`;
  };
  return {
    id,
    ask,
    how,
    ...(figure ? { figure } : {}),
    needs,
    cautions: cautionsFor(trouble.situation, hazards),
    minutes,
    cost,
    gain,
    along: others
      .filter((one) => one.check !== check && costOf(one.check, stagesOf(check)) <= one.cost / 2)
      .map((one) => one.check.ask),
    yes: likeliest(true),
    no: likeliest(false),
  };
}

const fixView = ({
  cause,
  chance,
  minutes = cause.fix.minutes,
}: Pick<FixAdvice, 'cause' | 'chance'> & Partial<FixAdvice>): FixView => ({
  cause: cause.id,
  name: cause.name,
  say: cause.fix.say,
  who: cause.fix.who,
  ...(cause.fix.task ? { task: cause.fix.task } : {}),
  chance,
  minutes,
});
