import type { Procedure } from '../../types.js';

/** Common practice. The lint of a washer-dryer, which has no screen for it. */
export const FLUFF_RINSE: Procedure = {
  task: 'fluff-rinse',
  fetch: [{ what: 'A damp cloth' }, { what: 'A torch' }],
  steps: [
    {
      id: 'found',
      acts: { at: 'drum' },
      do: 'Look into the gasket’s fold and round the air opening, and note how much lint there is.',
      why: 'What you choose here decides when it is due next.',
      look: 'The opening is at the drum’s rim. A few threads: light. A grey felt in the fold: heavy.',
      note: 'grade',
    },
    {
      id: 'wipe-fluff',
      acts: { at: 'drum', cleans: true },
      do: 'Wipe the lint out of the fold, the glass and the drum with the damp cloth.',
      why: 'What is wiped off need not go through the pump filter.',
      look: 'Only when the drum is no more than lukewarm.',
      hazards: ['hot-dryer'],
    },
    {
      id: 'rinse-fluff',
      way: 'fluff-programme',
      acts: { at: 'outside', runs: 'rinse' },
      do: 'Run the lint rinse of your manual, or a cold rinse without spin, with nothing in the drum.',
      why: 'Water down the wet wall takes the lint with it.',
      timer: { minutes: 25, label: 'The rinse', optional: true },
    },
  ],
  putBack: [
    {
      id: 'fluff-ajar',
      acts: { at: 'drum' },
      do: 'Wipe the rim dry and leave the door ajar.',
      why: 'Lint that dries in the fold is the start of the next felt.',
      hazards: ['children'],
    },
  ],
  proof: [
    {
      id: 'fluff-dries',
      acts: { at: 'outside' },
      later: true,
      do: 'Watch how long the next drying takes.',
      why: 'Shorter again is the proof. Longer each time means that the channel is matted: work for a technician.',
      look: 'No more than half of what it washes is dried at a time.',
    },
  ],
};
