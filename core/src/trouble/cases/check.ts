import type { FieldProblem } from '../../model/check.js';
import type { CaseEvent } from '../../model/schemas.js';
import type { MachineKind } from '../../model/vocabulary.js';
import { wrongTime } from '../../units/clock.js';
import { isWrong, readReading } from '../../units/reading.js';
import { isFinding, isSymptom } from '../diagnosis/diagnosis.js';
import { CAUSES } from '../data/causes.js';
import { STOP_RULES } from '../data/stops.js';
import { measureOf } from './measures.js';
import { isCodeSign } from './state.js';

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
    const wrong = (field: string, message: string) =>
      problems.push({ field: `events.${i}.${field}`, message });
    const impossible = wrongTime(Date.parse(event.at), now);
    if (impossible) wrong('at', impossible);
    if (event.kind === 'gone' && isCodeSign(event.finding)) {
      // Of which code is seen when the case is read.
    } else if ('finding' in event && !isFinding(event.finding, kind)) {
      wrong('finding', 'This kind of machine has no such symptom or check.');
    } else if (event.kind === 'gone' && !isSymptom(event.finding)) {
      wrong('finding', 'Only a symptom can be gone.');
    }
    if ('stop' in event && !isIn(STOP_RULES, event.stop, kind)) {
      wrong('stop', `There is no stop rule "${event.stop}".`);
    }
    if ('cause' in event && !isIn(CAUSES, event.cause, kind)) {
      wrong('cause', 'This kind of machine has no such cause.');
    }
    if (event.kind === 'measure') {
      const reading = readReading(event);
      if (!measureOf(event.quantity)?.kinds.includes(kind)) {
        wrong('quantity', 'This is not measured in a case of this kind of machine.');
      } else if (isWrong(reading)) wrong(reading.field, reading.message);
    }
    return problems;
  });
}

const isIn = (
  list: readonly { id: string; kinds: readonly MachineKind[] }[],
  wanted: string,
  kind: MachineKind,
): boolean => list.some(({ id, kinds }) => id === wanted && kinds.includes(kind));
