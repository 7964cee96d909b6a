import type { Procedure } from '../../types.js';

/** Common practice. Standing level and firm on all four feet. */
export const LEVEL: Procedure = {
  task: 'level',
  fetch: [{ what: 'A spirit level' }, { what: 'A spanner for the feet' }, { what: 'A torch' }],
  steps: [
    {
      id: 'corners',
      acts: { at: 'outside', needs: { place: ['home'], tipped: ['no'] } },
      do: 'Press on each corner of the top in turn.',
      why: 'A machine that rocks walks in the spin.',
      look: 'No corner gives.',
      hazards: ['panel-shock'],
    },
    {
      id: 'bubble',
      acts: { at: 'outside', needs: { place: ['home'], tipped: ['no'] } },
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
        needs: { place: ['home'], tipped: ['no'] },
        does: { locknuts: 'loose' },
        cleans: true,
      },
      figure: 'level',
      do: 'Loosen the locknut of the low corner’s foot and turn the foot out until the bubble is right. Feet as far in as they go.',
      why: 'A short foot stands firmer than a long one.',
      look: 'Do not lift it on your fingers: lever it with a board, or have somebody tip it a little. In a stack only with two people, one steadying the upper machine.',
      hazards: ['tipping', 'stacked'],
    },
    {
      id: 'locknuts',
      acts: {
        at: 'outside',
        needs: { place: ['home'], tipped: ['no'] },
        does: { locknuts: 'tight' },
      },
      figure: 'level',
      do: 'Tighten the locknuts up against the housing.',
      why: 'A loose foot turns in the spin.',
    },
  ],
  putBack: [
    {
      id: 'corners-again',
      acts: { at: 'outside', needs: { place: ['home'], tipped: ['no'] } },
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
