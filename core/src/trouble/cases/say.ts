import type { CaseEvent, EntryDraft } from '../../model/schemas.js';
import { tasksOf } from '../../care/catalogue/lookup.js';
import type { Build } from '../../care/catalogue/types.js';
import type { Answer, CaseEnding, MachineKind } from '../../model/vocabulary.js';
import { isSymptom, sayFinding } from '../diagnosis/diagnosis.js';
import { sayCode } from '../codes/evidence.js';
import { causeById } from '../data/causes.js';
import { STOP_RULES } from '../data/stops.js';
import {
  CASE_MEASURES,
  measureOf,
  measuresFor,
  verdictOf,
  type CaseMeasure,
  type Verdict,
} from './measures.js';
import {
  caseTitle,
  isCodeSign,
  signsOf,
  toldSymptoms,
  type CaseState,
  type LoggedFigure,
  type VisitProof,
} from './state.js';
import { codeClassById } from '../codes/classes.js';

export const ANSWER_WORDS: Record<Answer, string> = {
  yes: 'yes',
  no: 'no',
  partly: 'in part',
  unknown: 'not known',
};

export const ENDING_WORDS: Record<CaseEnding, string> = {
  fixed: 'fixed',
  professional: 'given to a professional',
  'by-itself': 'gone by itself',
  mistake: 'a mistake',
};

/** One line of a case's timeline. */
export function sayCaseEvent(event: CaseEvent): string {
  switch (event.kind) {
    case 'answer':
      return isSymptom(event.finding) && event.answer === 'yes'
        ? `Told: ${sayFinding(event.finding)}`
        : `${sayFinding(event.finding)} ${isSymptom(event.finding) ? '— ' : ''}${ANSWER_WORDS[event.answer]}`;
    case 'take-back':
      return `Taken back: ${sayFinding(event.finding)}`;
    case 'stop':
      return `Stopped: ${STOP_RULES.find(({ id }) => id === event.stop)?.say ?? event.stop}`;
    case 'no-stop':
      return 'Nothing that calls for stopping at once';
    case 'code':
      return `On the display: ${sayCode(event.code)}`;
    case 'code-back':
      return 'A code was taken back';
    case 'looked':
      return `Looked, and ${causeById(event.cause).name}`;
    case 'looked-back':
      return 'That was taken back';
    case 'fix':
      return `Begun: ${causeById(event.cause).fix.say}`;
    case 'fix-back':
      return 'The work was not done';
    case 'measure':
      return `${measureOf(event.quantity)?.label ?? event.quantity}: ${event.value} ${event.unit}`;
    case 'gone': {
      const sign = isCodeSign(event.finding) ? 'The code' : sayFinding(event.finding);
      return `${sign} — ${event.gone ? 'gone' : 'still there'}`;
    }
    case 'not-held':
      return 'The work did not help';
    case 'rest':
      return event.until ? `Left to rest until ${event.until}` : 'Left to rest';
    case 'wake':
      return 'Taken up again';
    case 'close':
      return `Closed: ${ENDING_WORDS[event.ending]}`;
    case 'reopen':
      return 'It came back: opened again';
    case 'note':
      return event.note;
  }
}

/** A measure of a case with both figures and what came of it. */
export interface CaseComparison {
  measure: CaseMeasure;
  before?: number;
  after?: number;
  verdict?: Verdict;
}

/** Figures older than this say nothing of how it was before the work. */
const BEFORE_DAYS = 90;

/** Symptoms told, and those that the codes seen stand for. */
const measuredBy = (state: CaseState): string[] => [
  ...toldSymptoms(state),
  ...state.codes.flatMap(({ class: about }) => codeClassById(about).shows),
];

/**
 * A case's state with the log's figures where it has none of its own: the latest before the work, and
 * the latest since, such as those read in its run; and with what the proofs of its run showed: a sign
 * that a good proof measures is gone.
 */
export function withFigures(
  state: CaseState,
  kind: MachineKind,
  figures: Readonly<Record<string, readonly LoggedFigure[]>>,
  proofs: readonly VisitProof[] = [],
): CaseState {
  const { fix } = state;
  if (!fix) return state;
  const given = proofs.filter(({ at, task }) => at >= fix.at && task === fix.task);
  const filled = {
    ...state,
    before: { ...state.before },
    after: { ...state.after },
    gone: { ...state.gone },
    proofs: given,
  };
  for (const { quantity, good } of given) {
    const measured = quantity === undefined ? undefined : measureOf(quantity);
    if (!good || !measured) continue;
    for (const sign of toldSymptoms(state)) {
      if (measured.of.includes(sign)) filled.gone[sign] ??= true;
    }
  }
  for (const { quantity, unit } of measuresFor(measuredBy(state), kind)) {
    const logged = figures[quantity] ?? [];
    const before = logged.find(({ at }) => at < fix.at && fix.at - at < BEFORE_DAYS * 86_400_000);
    const after = logged.find(({ at }) => at >= fix.at);
    if (before) filled.before[quantity] ??= { ...before, unit };
    if (after) filled.after[quantity] ??= { ...after, unit };
  }
  return filled;
}

/** The measures that fit a case of a kind of machine, and those taken, each before against after. */
export function comparisons(state: CaseState, kind: MachineKind): CaseComparison[] {
  const fitting = measuresFor(measuredBy(state), kind);
  const taken = CASE_MEASURES.filter(
    ({ quantity, kinds }) =>
      kinds.includes(kind) && (state.before[quantity] ?? state.after[quantity]),
  );
  return CASE_MEASURES.filter((one) => fitting.includes(one) || taken.includes(one)).map(
    (measure) => {
      const [before, after] = [state.before, state.after].map(
        (figures) => figures[measure.quantity]?.value,
      );
      return {
        measure,
        ...(before === undefined ? {} : { before }),
        ...(after === undefined ? {} : { after }),
        ...(before === undefined || after === undefined
          ? {}
          : { verdict: verdictOf(measure, before, after) }),
      };
    },
  );
}

export type Proven = 'proven' | 'doubtful' | 'open';

/** Symptoms that tell of weeks, and are not asked again after the work. */
export const ASKED_LATER: readonly string[] = ['getting-worse', 'slow-drift'];

/**
 * Whether the work of a case held: every symptom told and every code seen is gone, and every figure taken
 * before and after is better. A figure that is no better, or a look of the visit that showed it is not
 * right, makes it doubtful.
 */
export function provenBy(state: CaseState, kind: MachineKind): Proven {
  if (!state.fix) return 'open';
  const signs = signsOf(state).filter((sign) => !ASKED_LATER.includes(sign));
  const figures = comparisons(state, kind).flatMap(({ verdict }) => verdict ?? []);
  if (figures.some((one) => one !== 'better')) return 'doubtful';
  if (state.proofs?.some(({ good }) => !good)) return 'doubtful';
  const allGone = signs.every((sign) => state.gone[sign]);
  return allGone && (signs.length > 0 || figures.length > 0) ? 'proven' : 'open';
}

/** What came of a case, in a few sentences. */
export function sayOutcome(state: CaseState, kind: MachineKind): string {
  const cause = state.found?.cause ?? state.fix?.cause;
  const figures = comparisons(state, kind)
    .filter(({ before, after }) => before !== undefined && after !== undefined)
    .map(({ measure, before, after }) => `${measure.label}: ${before} before, ${after} after.`);
  return [
    `${caseTitle(state)}: ${state.ending ? ENDING_WORDS[state.ending] : 'open'}.`,
    ...(cause ? [`Cause: ${causeById(cause).name}.`] : []),
    ...figures,
  ].join(' ');
}

/**
 * What the log keeps of an event: a code seen, a figure read, the end.
 * @param after the state once the event is in
 */
export function entriesOfCase(
  event: CaseEvent,
  after: CaseState,
  { id, machineId }: { id: string; machineId: string },
  machine: Build,
): EntryDraft[] {
  const common = { id: event.id, machineId, caseId: id, at: event.at, source: 'case' } as const;
  if (event.kind === 'code' && event.code.code) {
    return [
      { ...common, kind: 'code', code: event.code.code.slice(0, 40), note: event.code.says ?? '' },
    ];
  }
  if (event.kind === 'measure') {
    const { quantity, value, unit } = event;
    return [{ ...common, kind: 'reading', quantity, value, unit }];
  }
  if (event.kind === 'close' && event.ending !== 'mistake') {
    const cause = after.found?.cause ?? after.fix?.cause;
    const { station } = cause ? causeById(cause) : {};
    return [
      ...taught(after, common, machine),
      {
        ...common,
        kind: 'case',
        note: sayOutcome(after, machine.kind),
        ...(station && station !== 'whole' ? { station } : {}),
      },
    ];
  }
  return [];
}

/** Grade of a station that had closed so far that something did not work. */
const BLOCKED = 4;

/**
 * A case that was mended, with a cause of fouling, counts as that station found blocked, at the age that it
 * had when the work began. Where nobody can tell (a professional, gone by itself, a kink, wear) it teaches
 * nothing.
 */
function taught(
  { ending, fix, found, changedAt }: CaseState,
  common: Pick<EntryDraft, 'machineId' | 'caseId' | 'source'> & { id: string },
  machine: Build,
): EntryDraft[] {
  const cause = found?.cause ?? fix?.cause;
  if (ending !== 'fixed' || cause === undefined) return [];
  const { fouling, teaches = true } = causeById(cause);
  if (!teaches || !tasksOf(machine).some(({ id }) => id === fouling)) return [];
  return [
    {
      ...common,
      id: twinOf(common.id),
      at: new Date(fix?.at ?? changedAt).toISOString(),
      kind: 'opened',
      task: fouling!,
      grade: BLOCKED,
      note: 'Found by a case of trouble.',
    },
  ];
}

/** Another id, always the same for one: an event may leave two entries, and each only once. */
const twinOf = (id: string): string => (parseInt(id[0]!, 16) ^ 8).toString(16) + id.slice(1);
