import type { FieldProblem } from '../../model/check.js';
import type { Machine, TroubleQuestion } from '../../model/schemas.js';
import { STOP_RULES } from '../data/stops.js';
import { isFinding } from './diagnosis.js';

/**
 * What is wrong with a question about a machine in trouble.
 * @param machine the one that it names; undefined where there is none
 */
export function checkTroubleQuestion(
  { machineId, kind, answers, code, stops = [] }: TroubleQuestion,
  machine: Machine | undefined,
): FieldProblem[] {
  if (machineId !== undefined && !machine) {
    return [{ field: 'machineId', message: 'There is no such machine.' }];
  }
  const known = machine?.kind ?? kind;
  if (!known) return [{ field: 'kind', message: 'Name a machine, or a kind of machine.' }];
  const rules = STOP_RULES.filter(({ kinds }) => kinds.includes(known)).map(({ id }) => id);
  return [
    ...(code !== undefined && !machine
      ? [{ field: 'code', message: 'A code is looked up for a machine: name it with machineId.' }]
      : []),
    ...Object.keys(answers)
      .filter((finding) => !isFinding(finding, known))
      .map((finding) => ({
        field: `answers.${finding}`,
        message: 'This kind of machine has no such symptom or check.',
      })),
    ...stops
      .filter((stop) => !rules.includes(stop))
      .map((stop) => ({ field: 'stops', message: `There is no stop rule "${stop}".` })),
  ];
}
