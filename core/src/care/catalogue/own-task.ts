import type { Acts } from '../../world/acts.js';
import type { OwnTask } from '../../model/schemas.js';
import type { MachineKind } from '../../model/vocabulary.js';
import type { Procedure, Task } from './types.js';

/** A household's own task, as the engines read tasks. It has one interval, whatever the school. */
export function ownTask(own: OwnTask, kind: MachineKind): Task {
  const interval = { [own.unit]: own.every };
  return {
    id: own.id,
    station: own.station,
    name: own.name,
    kinds: [kind],
    driver: own.unit === 'loads' ? 'loads' : 'days',
    intervals: { often: interval, steady: interval, stretch: interval, count: interval },
    safety: false,
    setups: own.unplugged ? ['unplugged'] : [],
    minutes: { hands: own.minutes, waiting: 0 },
    reason: own.reason?.trim() || 'You added this task yourself.',
    basis: 'your own',
    own: true,
    speeds: {},
  };
}

/** Its steps, with the grade asked for at the start and a look at the end. */
export function ownProcedure(own: OwnTask): Procedure {
  // Where the household pulls the plug for it, the plug stays out until it is done.
  const worked: Acts = own.unplugged
    ? { at: 'outside', needs: { power: ['off'] } }
    : { at: 'outside' };
  return {
    task: own.id,
    fetch: [{ what: `What you need for: ${own.name}` }],
    steps: [
      {
        id: 'found',
        acts: { at: 'outside' },
        do: 'Note how it looks before you begin.',
        why: 'The grade moves the next date.',
        note: 'grade',
      },
      ...own.steps.map((step, i) => ({
        id: `own-${i + 1}`,
        acts: worked,
        do: step,
        why: own.reason?.trim() || 'It is a step you wrote yourself.',
      })),
    ],
    putBack: [
      {
        id: 'own-back',
        acts: { at: 'outside' },
        do: 'Put everything back as it was.',
        why: 'The machine must be ready for the next load.',
      },
    ],
    proof: [
      {
        id: 'own-proof',
        acts: { at: 'outside' },
        later: true,
        do: 'Look at it once more at the next load.',
        why: 'Work that holds shows itself then.',
        look: 'It does what it should.',
      },
    ],
  };
}
