import { HIDDEN_STATES } from '../data/states.js';
import type { TroubleCause } from '../data/types.js';
import { strengthOf, symptomsOf } from './diagnosis.js';
import { causesOf, priorOf, type Situation } from './priors.js';

/** How likely each symptom of a machine is to be told in a year, 0 to 1: by its causes as they stand now. */
export function likelySymptoms(situation: Situation): Map<string, number> {
  const causes = causesOf(situation).map((cause) => ({ cause, prior: priorOf(cause, situation) }));
  const hidden = HIDDEN_STATES.filter(({ kinds }) => kinds.includes(situation.kind));
  const link = ({ makes }: TroubleCause, id: string): number => {
    const strength = makes[id];
    return strength === undefined ? 0 : strengthOf(strength);
  };
  /** By itself, or by what follows from it. */
  const makes = (cause: TroubleCause, id: string): number =>
    1 -
    hidden.reduce(
      (none, state) => none * (1 - link(cause, state.id) * (state.shows[id] ?? 0)),
      1 - link(cause, id),
    );
  return new Map(
    symptomsOf(situation.kind).map(({ id }) => [
      id,
      1 - causes.reduce((none, { cause, prior }) => none * (1 - prior * makes(cause, id)), 1),
    ]),
  );
}
