import { MeasureProblem, type FieldProblem } from '@needlecase/core';

/** A result, or what is wrong with what was given. */
export interface Attempt<T> {
  value?: T;
  problems: readonly FieldProblem[];
}

export function attempt<T>(work: () => T): Attempt<T> {
  try {
    return { value: work(), problems: [] };
  } catch (problem) {
    if (problem instanceof MeasureProblem) return { problems: problem.problems };
    throw problem;
  }
}
