import type { Procedure } from '../../types.js';

/** Common practice. The two sensor strips of a dryer that stops by itself. */
export const MOISTURE_SENSOR: Procedure = {
  task: 'moisture-sensor',
  fetch: [
    { what: 'Rubbing alcohol, or white vinegar', uses: { supply: 'alcohol', amount: 5 } },
    { what: 'Cotton pads' },
    { what: 'A torch' },
  ],
  steps: [
    {
      id: 'find',
      way: 'sensor-place',
      acts: { at: 'drum', needs: { cool: ['yes'] }, does: { strips: 'seen' } },
      figure: 'strips',
      do: 'Find the two bare metal strips.',
      why: 'They feel the damp as the clothes brush past.',
      look: 'In the drum beside the lint screen, in the door frame, or at the back wall. Two parallel strips, a finger long, about a finger apart.',
    },
    {
      id: 'found',
      acts: { at: 'drum', needs: { cool: ['yes'] } },
      do: 'Look at the strips and feel them, and note what is on them.',
      why: 'What you choose here decides when it is due next.',
      look: 'Bright metal: clear. A dull or sticky film: moderate to heavy.',
      note: 'grade',
    },
    {
      id: 'wipe',
      acts: {
        at: 'drum',
        needs: { cool: ['yes'], strips: ['seen'] },
        does: { pads: 'in' },
        touches: 'strips',
        cleans: true,
      },
      figure: 'strips',
      do: 'Wipe both strips with alcohol or vinegar on a cotton pad until the pad stays white.',
      why: 'The film keeps damp cloth from touching the metal.',
      look: 'One or the other, not both. No metal brush: scratches hold film.',
      hazards: ['solvent'],
      brings: {
        ask: 'What do you wipe with?',
        products: ['alcohol', 'vinegar'],
        always: true,
      },
    },
    {
      id: 'dry-strips',
      acts: { at: 'drum', needs: { cool: ['yes'] }, does: { pads: 'in' }, touches: 'strips' },
      do: 'Wipe them with a pad and clear water, then dry with a clean one.',
      why: 'What stays on dries to a film again.',
      rinses: 'station',
    },
  ],
  putBack: [
    {
      id: 'pads-away',
      acts: { at: 'drum', does: { pads: 'none' } },
      do: 'Take the pads out, leave the door open until the smell is gone, and only then plug in.',
      why: 'Alcohol vapour must be gone before anything can spark or get warm.',
      hazards: ['solvent'],
    },
  ],
  proof: [
    {
      id: 'auto',
      acts: { at: 'outside' },
      later: true,
      do: 'Dry a mixed load on the automatic cycle and feel it when it stops.',
      why: 'Even dryness is the proof.',
      look: 'Still damp, though a timed cycle dries well: measure the sensor next.',
    },
  ],
};
