import { MACHINE_KINDS } from '../../../../model/vocabulary.js';
import type { Procedure } from '../../types.js';

const ONE_PIECE = MACHINE_KINDS.filter((kind) => kind !== 'tower');

/** Common practice. Standing level and firm on all four feet. */
export const LEVEL: Procedure = {
  task: 'level',
  fetch: [{ what: 'A spirit level' }, { what: 'A spanner for the feet' }, { what: 'A torch' }],
  steps: [
    {
      id: 'corners',
      acts: { at: 'outside', needs: { place: ['home'] } },
      do: 'Press on each corner of the top in turn.',
      why: 'A machine that rocks walks in the spin.',
      look: 'No corner gives.',
      hazards: ['panel-shock'],
    },
    {
      id: 'bubble',
      acts: { at: 'outside', needs: { place: ['home'] } },
      figure: 'level',
      do: 'Lay the level on the top, along and then across.',
      why: 'It must be level both ways, front to back and side to side.',
      look: 'The bubble between its marks.',
    },
    {
      id: 'found',
      acts: { at: 'outside' },
      do: 'Note how it stands: firm and level is clear, rocking is heavy, walking is blocked.',
      why: 'What you choose here decides when it is due next.',
      note: 'grade',
    },
    {
      id: 'feet',
      acts: {
        at: 'outside',
        needs: { place: ['home'] },
        does: { locknuts: 'loose' },
        cleans: true,
      },
      figure: 'level',
      do: 'Loosen the locknut of the low corner’s foot, and turn the foot out until the bubble is right.',
      why: 'A short foot stands firmer than a long one.',
      look: 'Feet as far in as they go. A board as a lever takes the weight off; keep fingers out from under it.',
      hazards: ['tipping'],
      when: { stacked: ['no'], kinds: ONE_PIECE },
    },
    {
      id: 'feet-stack',
      acts: { at: 'outside', needs: { place: ['home'] } },
      do: 'Leave the feet of a stack or tower alone: have them set by somebody trained.',
      why: 'To turn a foot, the machine above has to come down first. A stack is never tipped to level it.',
      hazards: ['stacked'],
      when: { stacked: ['above', 'below'], or: { kinds: ['tower'] } },
    },
    {
      id: 'locknuts',
      acts: {
        at: 'outside',
        needs: { place: ['home'] },
        does: { locknuts: 'tight' },
      },
      figure: 'level',
      do: 'Tighten the locknuts up against the housing.',
      why: 'A loose foot turns in the spin.',
      when: { stacked: ['no'], kinds: ONE_PIECE },
    },
  ],
  putBack: [
    {
      id: 'corners-again',
      acts: { at: 'outside', needs: { place: ['home'] } },
      do: 'Press the corners once more, and see that hoses and cable hang free.',
      why: 'All four must carry.',
    },
  ],
  proof: [
    {
      id: 'spin',
      acts: { at: 'outside' },
      later: true,
      do: 'Watch the next spin from beside it.',
      why: 'At full speed it shows.',
      look: 'It hums and stays. A roar that rises with the speed is another matter: bearings.',
    },
  ],
};
