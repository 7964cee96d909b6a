import type { Procedure } from '../../types.js';

/** Common practice. The well below the lint screen, and a secondary screen where there is one. */
export const SCREEN_WELL: Procedure = {
  task: 'screen-well',
  fetch: [
    { what: 'A torch' },
    { what: 'A vacuum cleaner with a crevice nozzle' },
    { what: 'A long thin brush' },
    { what: 'A wire brush, if there is a metal secondary screen' },
  ],
  steps: [
    {
      id: 'screen-out',
      acts: { at: 'slot', does: { screen: 'out' } },
      do: 'Take the lint screen out and lay it aside.',
      why: 'The well is below it.',
    },
    {
      id: 'torch',
      acts: { at: 'well' },
      do: 'Shine the torch into the well, and note how much of it is matted.',
      why: 'What you choose here decides when it is due next.',
      look: 'A few threads: light. Half the passage: moderate. Felt all over: heavy. No passage to be seen: blocked.',
      note: 'grade',
      reading: 'blocked-before',
    },
    {
      id: 'pick',
      acts: { at: 'well', cleans: true },
      figure: 'screen-well',
      do: 'Pick out what your fingers or tweezers reach.',
      why: 'Whole pieces come out better than crumbs.',
      look: 'Long and short screws below a cover: leave them in.',
      hazards: ['sharp-metal'],
    },
    {
      id: 'nozzle',
      acts: { at: 'well' },
      figure: 'screen-well',
      do: 'Run the crevice nozzle and the thin brush down, 8 to 10 cm (3 to 4 in) and no further.',
      why: 'Below that the brush meets the blower.',
      look: 'Draw upwards, so that nothing is pushed further in.',
      hazards: ['lint-burns'],
    },
    {
      id: 'crust',
      acts: { at: 'well' },
      do: 'A hard crust on a metal second screen: loosen it with the wire brush.',
      why: 'Lint that has been damp sets like felt and does not vacuum off.',
      look: 'On plastic the soft brush only. Work along the mesh, not into it.',
    },
    {
      id: 'share',
      acts: { at: 'well' },
      do: 'Look once more and estimate the share still blocked.',
      why: 'Before and after, side by side, tell whether it was worth the trouble.',
      reading: 'blocked-after',
    },
  ],
  putBack: [
    {
      id: 'screen-in',
      acts: {
        at: 'slot',
        needs: { housing: ['on'] },
        does: { screen: 'in' },
        touches: 'screen',
        waits: true,
      },
      do: 'Push the lint screen in until it sits.',
      why: 'The dryer must never run without it.',
      look: 'No gap at the edges.',
      hazards: ['no-screen'],
    },
  ],
  proof: [
    {
      id: 'weak-air',
      acts: { at: 'outside' },
      later: true,
      do: 'At the next load feel the air at the hood.',
      why: 'A clear well gives it back its strength.',
      look: 'The flap stands well open while it runs.',
    },
  ],
};
