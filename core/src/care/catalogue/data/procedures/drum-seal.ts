import type { Procedure } from '../../types.js';

/** Common practice. The drum and the felt or rubber round the door. */
export const DRUM_SEAL: Procedure = {
  task: 'drum-seal',
  fetch: [
    { what: 'A soft cloth' },
    { what: 'Warm water with a drop of dish soap' },
    { what: 'A vacuum cleaner with a brush nozzle' },
  ],
  steps: [
    {
      id: 'found',
      acts: { at: 'drum', needs: { cool: ['yes'] } },
      do: 'Run a finger along the door seal and note how much lint and film there is.',
      why: 'What you choose here decides when it is due next.',
      look: 'Lint on the seal all round counts as heavy.',
      note: 'grade',
    },
    {
      id: 'vacuum-seal',
      acts: { at: 'drum', needs: { cool: ['yes'] }, cleans: true },
      do: 'Vacuum the seal and the groove behind it.',
      why: 'Dry lint comes off; wetted lint smears.',
      look: 'Loose or torn felt: note it. Damp air gets out there.',
    },
    {
      id: 'wipe-seal',
      acts: { at: 'drum', needs: { cool: ['yes'] } },
      do: 'Wipe the seal and the door’s inside with the damp cloth.',
      why: 'Film is what lint sticks to.',
    },
    {
      id: 'wipe-drum',
      acts: { at: 'drum', needs: { cool: ['yes'] } },
      do: 'Wipe the drum and its ribs, and dry them.',
      why: 'Dye and film in the drum come off on the next load.',
      look: 'No solvent and no scouring: the drum gets warm.',
    },
  ],
  putBack: [
    {
      id: 'seal-lies',
      acts: { at: 'drum' },
      do: 'Shut the door on a strip of paper and pull.',
      why: 'Where it slides out freely, air gets out too.',
      look: 'It is held all round.',
    },
  ],
  proof: [
    {
      id: 'dry-rim',
      acts: { at: 'outside' },
      later: true,
      do: 'At the next load feel round the door while it runs.',
      why: 'A seal that holds lets no warm air out.',
      look: 'No draught at the rim.',
    },
  ],
};
