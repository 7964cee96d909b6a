import type { CaseRecord } from '../../model/schemas.js';
import { Diagnosis, isSymptom } from '../diagnosis/diagnosis.js';
import type { Situation } from '../diagnosis/priors.js';
import { assess } from '../diagnosis/suspects.js';
import type { Answer } from '../../model/vocabulary.js';
import { caseState } from './state.js';

/** What was suspected when a case was opened, against what it was. */
export interface FirstSuspected {
  caseId: string;
  cause: string;
  /** Its place among the suspects, from 1; none where it was not among them. */
  place?: number;
  /** Its chance then, 0 to 1. */
  chance: number;
  /** The chance of whatever was suspected first, 0 to 1. */
  said: number;
}

/**
 * What a case that was put right suspected at first: by the symptoms that were told before any look.
 * @param situation of the machine as it was known when the case was opened
 * @returns nothing where nobody found what it was
 */
export function firstSuspected(
  record: CaseRecord,
  situation: Situation,
): FirstSuspected | undefined {
  const state = caseState(record);
  const cause = state.fix?.cause ?? state.found?.cause;
  if (state.state !== 'closed' || state.ending !== 'fixed' || cause === undefined) return undefined;
  const answers: Record<string, Answer> = {};
  for (const event of record.events) {
    if (event.kind === 'looked' || event.kind === 'fix') break;
    if (event.kind !== 'answer') continue;
    if (!isSymptom(event.finding)) break;
    answers[event.finding] = event.answer;
  }
  const { suspects } = assess(new Diagnosis(situation), answers, [], {});
  const at = suspects.findIndex((one) => one.cause.id === cause);
  return {
    ...{ caseId: record.id, cause, chance: suspects[at]?.chance ?? 0 },
    said: suspects[0]?.chance ?? 0,
    ...(at < 0 ? {} : { place: at + 1 }),
  };
}
