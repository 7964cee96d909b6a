import type { Procedure } from '../../types.js';

/** Common practice. The jets in the roof of the cavity, and the siphon of the softener place. */
export const DISPENSER_JETS: Procedure = {
  task: 'dispenser-jets',
  fetch: [
    { what: 'A thin interdental brush or soft wire' },
    { what: 'Hot water' },
    { what: 'A torch' },
    { what: 'An old toothbrush' },
  ],
  steps: [
    {
      id: 'found',
      acts: { at: 'drawer', needs: { drawer: ['out'] } },
      do: 'Look at the jets and the siphon, and note how many are closed.',
      why: 'What you choose here decides when it is due next.',
      look: 'Every hole dark and round: clear. Half of them closed: heavy.',
      dispute: 'softener',
      note: 'grade',
    },
    {
      id: 'siphon',
      acts: { at: 'apart', needs: { drawer: ['out'] }, does: { inserts: 'out' } },
      do: 'Pull siphon, softener cover and the small wedge off the drawer, and rinse them in hot water.',
      why: 'The siphon’s narrow tube is what stops first, and softener sets hard below the wedge.',
      look: 'The wedge sits over the softener’s outlet and comes out with a press at its back. Water runs through the siphon.',
    },
    {
      id: 'jets',
      acts: { at: 'drawer', needs: { drawer: ['out'], cloth: ['in'] }, cleans: true },
      figure: 'jets',
      do: 'Run the thin brush or wire into each jet in the roof, the softener’s first.',
      why: 'Blocked jets leave powder and softener standing in the drawer.',
      look: 'No force: the roof is thin plastic.',
    },
    {
      id: 'roof',
      acts: { at: 'drawer', needs: { drawer: ['out'], cloth: ['in'] } },
      do: 'Brush the roof round the jets and wipe it.',
      why: 'What was loosened must not dry on.',
    },
  ],
  putBack: [
    {
      id: 'siphon-in',
      acts: {
        at: 'apart',
        needs: { drawer: ['out'] },
        does: { inserts: 'in' },
        touches: 'inserts',
        waits: true,
      },
      do: 'Press siphon and cover back on the drawer.',
      why: 'A siphon that sits loose empties the softener at once.',
    },
  ],
  proof: [
    {
      id: 'rinse-look',
      acts: { at: 'outside' },
      later: true,
      do: 'After the next rinse see whether powder or softener is left standing.',
      why: 'Jets and siphon are free when nothing is left standing.',
      look: 'No powder, and no more than a spoonful of water in the softener place.',
    },
  ],
};
