import type { FieldProblem } from '../../model/check.js';
import type { CaseEvent } from '../../model/schemas.js';
import type { CaseEventKind, MachineKind } from '../../model/vocabulary.js';
import { isFinding, isSymptom } from '../diagnosis/diagnosis.js';
import { CAUSES } from '../data/causes.js';
import { STOP_RULES } from '../data/stops.js';
import { CASE_MEASURES } from './measures.js';

/** What each event has to tell. */
const NEEDS: Partial<Record<CaseEventKind, (keyof CaseEvent)[]>> = {
  answer: ['finding', 'answer'],
  'take-back': ['finding'],
  stop: ['stop'],
  code: ['code'],
  'code-back': ['of'],
  looked: ['cause'],
  fix: ['cause'],
  measure: ['quantity', 'value', 'unit'],
  gone: ['finding', 'gone'],
  close: ['ending'],
  note: ['note'],
};
/** Phones' clocks are off by some. */
const CLOCK_SLACK_MS = 10 * 60_000;

/**
 * Checks what a schema cannot see in what happened in a case.
 * @param kind of the machine
 * @param now UTC instant, milliseconds
 */
export function checkCaseEvents(
  events: readonly CaseEvent[],
  kind: MachineKind,
  now: number,
): FieldProblem[] {
  return events.flatMap((event, i) => {
    const problems: FieldProblem[] = [];
    const wrong = (field: keyof CaseEvent, message: string) =>
      problems.push({ field: `events.${i}.${field}`, message });
    for (const field of NEEDS[event.kind] ?? []) {
      if (event[field] === undefined) wrong(field, 'This is needed here.');
    }
    if (Date.parse(event.at) > now + CLOCK_SLACK_MS) {
      wrong('at', 'This is in the future. Give a time up to now.');
    }
    const { finding, stop, cause, quantity, unit } = event;
    if (finding !== undefined && !isFinding(finding, kind)) {
      wrong('finding', 'This kind of machine has no such symptom or check.');
    } else if (event.kind === 'gone' && finding !== undefined && !isSymptom(finding)) {
      wrong('finding', 'Only a symptom can be gone.');
    }
    if (
      stop !== undefined &&
      !STOP_RULES.some((one) => one.id === stop && one.kinds.includes(kind))
    ) {
      wrong('stop', `There is no stop rule "${stop}".`);
    }
    if (
      cause !== undefined &&
      !CAUSES.some((one) => one.id === cause && one.kinds.includes(kind))
    ) {
      wrong('cause', 'This kind of machine has no such cause.');
    }
    const measure = CASE_MEASURES.find((one) => one.quantity === quantity);
    if (quantity !== undefined && !measure) wrong('quantity', 'This is not measured in a case.');
    if (measure && unit !== undefined && unit !== measure.unit) {
      wrong('unit', `Give it in ${measure.unit}.`);
    }
    return problems;
  });
}
