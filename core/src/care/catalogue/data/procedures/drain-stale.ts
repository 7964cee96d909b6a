import type { Procedure } from '../../types.js';

/** Common practice. The litre of water that stays in the sump, let out through the drain-down hose. */
export const DRAIN_STALE: Procedure = {
  task: 'drain-stale',
  fetch: [{ what: 'A torch' }],
  steps: [
    {
      id: 'glass',
      acts: { at: 'drum' },
      do: 'Look through the door glass: is there water in the drum?',
      why: 'A drum that would not empty fills many trays; then clean the filter instead.',
      look: 'No water to be seen.',
      hazards: ['scald'],
    },
    {
      id: 'hose-out',
      acts: { at: 'filter', does: { thinHose: 'out' } },
      figure: 'drain-down',
      do: 'Draw the drain-down hose out and lay its end in the tray.',
      why: 'It lets the water out a little at a time, without touching the filter.',
      look: 'No hose: give this up, and enter it under the machine. The filter then does both.',
    },
    {
      id: 'hose-drain',
      acts: {
        at: 'filter',
        needs: { thinHose: ['out'] },
        drains: true,
        does: { thinHose: 'open', capTight: 'no' },
      },
      figure: 'drain-down',
      do: 'Pull the cap off. At half a tray, pinch the hose and empty the tray. Repeat until nothing comes.',
      why: 'A tray filled to the rim cannot be carried.',
      hazards: ['scald'],
      note: 'trays',
    },
    {
      id: 'found',
      acts: { at: 'apart' },
      do: 'Smell and look at the water, and note it.',
      why: 'What you choose here decides when it is due next.',
      look: 'Clear: clear. Cloudy: light. Grey and musty: moderate. Slime or a stench: heavy, and then clean the filter too.',
      dispute: 'draining',
      note: 'grade',
    },
  ],
  putBack: [
    {
      id: 'hose-cap',
      acts: { at: 'filter', needs: { thinHose: ['open'] }, does: { thinHose: 'clipped' } },
      figure: 'drain-down',
      do: 'Press the cap back on the hose, firmly, and clip the hose into its holder.',
      why: 'A loose cap lets the next load’s water out on your floor.',
      look: 'Tug at the cap: it stays.',
    },
  ],
  proof: [
    {
      id: 'pour-look',
      acts: { at: 'filter', does: { water: 'poured' }, proves: ['cap'] },
      do: 'Pour two litres (half a gallon) of water into the drum, and look at the cap with the torch.',
      why: 'The plug stays out and the front off: you see the place before anything hides it.',
      look: 'Dry paper under the cap stays dry for a minute.',
      when: { filterAccess: ['lower-front'] },
    },
    {
      id: 'drips',
      acts: { at: 'outside', runs: 'rinse', proves: ['cap'] },
      do: 'Run a rinse, and look below the open flap while the water is let out.',
      why: 'A cap that is not on shows itself now.',
      look: 'Dry paper under the hose stays dry.',
      when: { filterAccess: ['front-left', 'front-right', 'unknown'] },
    },
  ],
};
