import type { Machine, PracticeMachine } from '@needlecase/core';

/** As a practice machine is named among machines, and its steps are keyed. */
export const PRACTICE = 'practice';

/** A practice machine as one of a household. */
export const practiceMachine = ({ name, kind, features }: PracticeMachine): Machine => ({
  ...{ id: PRACTICE, version: 1, name: name || 'The practice machine', kind, features },
  ...{ place: 'Practice', habits: [], loadsPerWeek: 0 },
});
