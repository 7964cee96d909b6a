import type { CaseEvent, CaseRecord, CodeSeen } from '../../model/schemas.js';
import type { Answer, CaseEnding } from '../../model/vocabulary.js';
import { STOP_RULES } from '../data/stops.js';
import { isSymptom, sayFinding } from '../diagnosis/diagnosis.js';
import { sayCode } from '../codes/evidence.js';
import { isWrong, readReading } from '../../units/reading.js';
import type { Situation } from '../diagnosis/priors.js';

/** Days within which a symptom that comes back opens its case again, where nobody chose. */
const RETURN_DAYS = 30;

export interface CaseFigure {
  value: number;
  unit: string;
  /** UTC instant, milliseconds. */
  at: number;
}

/** A figure in the machine's log, taken in no case. */
export interface LoggedFigure {
  value: number;
  /** UTC instant, milliseconds. */
  at: number;
}

/** What a look at the end of a visit showed. */
export interface VisitProof {
  /** UTC instant, milliseconds. */
  at: number;
  task: string;
  /** What was looked at. */
  say: string;
  good: boolean;
  /** The figure taken with it, where there is one. */
  quantity?: string;
}

/** What holds in a case now: it follows from its events, in their order. */
export interface CaseState {
  state: 'open' | 'resting' | 'closed';
  /** UTC instants, milliseconds. */
  openedAt: number;
  changedAt: number;
  closedAt?: number;
  /** Calendar date until which it rests. */
  until?: string;
  ending?: CaseEnding;
  returnDays: number;
  answers: Record<string, Answer>;
  /** Stop rules that were asked. */
  asked: string[];
  stops: string[];
  codes: (CodeSeen & { event: string })[];
  /** What somebody looked and found, by the event that told it. */
  found?: { event: string; cause: string };
  /** The work begun, the latest. */
  fix?: { at: number; cause: string; task?: string; runId?: string };
  /** Causes whose fix was done and did not help. */
  tried: string[];
  /** Figures by quantity: those before the first work, and those after the latest. */
  before: Record<string, CaseFigure>;
  after: Record<string, CaseFigure>;
  /** Of symptoms and codes (`code:` and its event) asked again after the work: whether they are gone. */
  gone: Record<string, boolean>;
  /** Proofs that the visit of the work gave. */
  proofs?: VisitProof[];
  notes: string[];
  reopened: number;
}

/** @throws RangeError where there are no events */
export function caseState({ events }: Pick<CaseRecord, 'events'>): CaseState {
  const [first] = events;
  if (!first) throw new RangeError('A case begins with an event.');
  const state: CaseState = {
    state: 'open',
    openedAt: Date.parse(first.at),
    changedAt: Date.parse(first.at),
    returnDays: RETURN_DAYS,
    answers: {},
    asked: [],
    stops: [],
    codes: [],
    tried: [],
    before: {},
    after: {},
    gone: {},
    notes: [],
    reopened: 0,
  };
  for (const event of events) fold(state, event);
  return state;
}

function fold(state: CaseState, event: CaseEvent): void {
  const at = Date.parse(event.at);
  state.changedAt = Math.max(state.changedAt, at);
  switch (event.kind) {
    case 'answer':
      state.answers[event.finding] = event.answer;
      break;
    case 'take-back':
      delete state.answers[event.finding];
      break;
    case 'stop':
      state.asked = [...new Set([...state.asked, event.stop])];
      state.stops = [...new Set([...state.stops, event.stop])];
      break;
    case 'no-stop':
      state.asked = [
        ...new Set([...state.asked, ...(event.asked ?? STOP_RULES.map(({ id }) => id))]),
      ];
      state.stops = [];
      break;
    case 'code':
      state.codes = [...state.codes, { ...event.code, event: event.id }];
      break;
    case 'code-back':
      state.codes = state.codes.filter((code) => code.event !== event.of);
      break;
    case 'looked':
      state.found = { event: event.id, cause: event.cause };
      break;
    case 'looked-back':
      delete state.found;
      break;
    case 'fix': {
      const { cause, task, runId } = event;
      state.fix = { at, cause, ...(task ? { task } : {}), ...(runId ? { runId } : {}) };
      // What was asked and measured after an earlier try says nothing of this one.
      state.gone = {};
      state.after = {};
      break;
    }
    case 'fix-back':
      delete state.fix;
      break;
    case 'measure': {
      const { quantity, value, unit } = event;
      const reading = readReading(event);
      const figure = { ...(isWrong(reading) ? { value, unit } : reading), at };
      if (state.fix) state.after[quantity] = figure;
      else state.before[quantity] = figure;
      break;
    }
    case 'gone':
      state.gone[event.finding] = event.gone;
      if (!event.gone) notHeld(state);
      break;
    case 'not-held':
      notHeld(state);
      break;
    case 'rest':
      state.state = 'resting';
      if (event.until) state.until = event.until;
      else delete state.until;
      break;
    case 'wake':
      wake(state);
      break;
    case 'close':
      state.state = 'closed';
      state.closedAt = at;
      state.ending = event.ending;
      if (event.returnDays !== undefined) state.returnDays = event.returnDays;
      break;
    case 'reopen':
      wake(state);
      state.reopened++;
      // It came back, perhaps of the same cause: the looks are taken anew.
      delete state.fix;
      delete state.found;
      state.tried = [];
      state.gone = {};
      state.before = { ...state.before, ...state.after };
      state.after = {};
      for (const [finding, answer] of Object.entries(state.answers)) {
        if (!isSymptom(finding) || answer !== 'yes') delete state.answers[finding];
      }
      break;
    case 'note':
      if (event.note) state.notes.push(event.note);
      break;
  }
}

/** The work did not help: its cause is as good as ruled out, and the search goes on. */
function notHeld(state: CaseState): void {
  if (state.fix) state.tried = [...new Set([...state.tried, state.fix.cause])];
  delete state.fix;
  delete state.found;
  state.gone = {};
  state.before = { ...state.before, ...state.after };
  state.after = {};
}

function wake(state: CaseState): void {
  state.state = 'open';
  delete state.until;
  delete state.closedAt;
  delete state.ending;
}

/** Symptoms that were told, in the order of telling. */
export const toldSymptoms = ({ answers }: Pick<CaseState, 'answers'>): string[] =>
  Object.entries(answers)
    .filter(([id, answer]) => isSymptom(id) && (answer === 'yes' || answer === 'partly'))
    .map(([id]) => id);

/** Under this id a code of a case is asked again. */
export const signOfCode = (event: string): string => `code:${event}`;
/** Whether a sign asked again is a code. */
export const isCodeSign = (sign: string): boolean => sign.startsWith('code:');

/** Whether nothing was told in a case that still holds: somebody only looked, and it is let go in silence. */
export const isMereLook = (state: CaseState): boolean =>
  state.state === 'open' &&
  Object.values(state.answers).every((answer) => answer === 'unknown') &&
  state.stops.length + state.codes.length + state.notes.length + state.tried.length === 0 &&
  !state.found &&
  !state.fix;

/** The open case of a machine in which a symptom or a code was told already, where there is one. */
export const goesOn = (
  records: readonly CaseRecord[],
  machineId: string,
  told: { finding?: string; code?: string },
): CaseRecord | undefined =>
  records.find((record) => {
    if (record.machineId !== machineId) return false;
    const state = caseState(record);
    return (
      state.state !== 'closed' &&
      ((told.finding !== undefined && toldSymptoms(state).includes(told.finding)) ||
        (told.code !== undefined && state.codes.some(({ code }) => code === told.code)))
    );
  });

/** What has to be gone for a case to be over: the symptoms told, and the codes seen. */
export const signsOf = (state: Pick<CaseState, 'answers' | 'codes'>): string[] => [
  ...toldSymptoms(state),
  ...state.codes.map(({ event }) => signOfCode(event)),
];

/** What a case is called: its first symptom, or its code. */
export function caseTitle(state: Pick<CaseState, 'answers' | 'codes' | 'stops'>): string {
  const [symptom] = toldSymptoms(state);
  if (symptom) return sayFinding(symptom);
  const [code] = state.codes;
  if (code) return `Code ${sayCode(code)}`;
  const [stop] = state.stops;
  const rule = STOP_RULES.find(({ id }) => id === stop);
  return stop ? `Stopped for safety${rule ? `: ${rule.short}` : ''}` : 'Not told yet';
}

/** Whether a case that rests has rested long enough. @param today calendar date */
export const isRested = ({ state, until }: CaseState, today: string): boolean =>
  state === 'resting' && until !== undefined && until <= today;

/**
 * A closed case whose symptom or code has come back within its time; the latest.
 * @param now UTC instant, milliseconds
 */
export function returning(
  records: readonly CaseRecord[],
  machineId: string,
  told: { finding?: string; code?: string },
  now: number,
): CaseRecord | undefined {
  return records
    .filter((record) => record.machineId === machineId)
    .map((record) => ({ record, state: caseState(record) }))
    .filter(
      ({ state }) =>
        state.closedAt !== undefined &&
        state.ending !== 'mistake' &&
        now - state.closedAt <= state.returnDays * 86_400_000 &&
        ((told.finding !== undefined && toldSymptoms(state).includes(told.finding)) ||
          (told.code !== undefined && state.codes.some(({ code }) => code === told.code))),
    )
    .sort((a, b) => b.state.closedAt! - a.state.closedAt!)[0]?.record;
}

/** A machine's situation with what its case adds to it. */
export const situationIn = (
  situation: Situation,
  { codes, tried }: Pick<CaseState, 'codes' | 'tried'>,
): Situation => ({
  ...situation,
  ...(codes.length ? { codes: codes.map(({ event: _event, ...code }) => code) } : {}),
  ...(tried.length ? { ruledOut: tried } : {}),
});
