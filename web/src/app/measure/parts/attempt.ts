import { inUnits, MeasureProblem, type FieldProblem, type UnitSystem } from '@needlecase/core';

/** A result, or what is wrong with what was given. */
export interface Attempt<T> {
  value?: T;
  problems: readonly FieldProblem[];
}

/** Does an instrument's work, its sentences read in a system's units. */
export function attempt<T>(work: () => T, units: UnitSystem = 'metric'): Attempt<T> {
  try {
    return { value: inUnits(work(), units), problems: [] };
  } catch (problem) {
    if (problem instanceof MeasureProblem) return { problems: inUnits(problem.problems, units) };
    throw problem;
  }
}
