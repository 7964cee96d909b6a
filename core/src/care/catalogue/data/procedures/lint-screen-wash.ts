import { CONDENSING } from '../../../../model/vocabulary.js';
import type { Procedure } from '../../types.js';

/** Common practice. Washing the lint screen and proving it with the pour-through test. */
export const LINT_SCREEN_WASH: Procedure = {
  task: 'lint-screen-wash',
  fetch: [
    { what: 'Hot water' },
    { what: 'Dish soap', uses: { supply: 'dish-soap', amount: 10 } },
    { what: 'A soft brush' },
    { what: 'A cup' },
    { what: 'A dry towel' },
  ],
  steps: [
    {
      id: 'take-out',
      acts: { at: 'slot', does: { screen: 'out' } },
      do: 'Take the lint screen out and roll the lint off with your fingers.',
      why: 'Dry lint comes off in one piece.',
      look: 'If the screen opens like a book, open it: there is lint inside.',
    },
    {
      id: 'pour',
      acts: { at: 'apart', needs: { screen: ['out'] }, touches: 'screen', wets: 'screen' },
      figure: 'lint-screen',
      do: 'Hold the screen level over a sink and pour a cup of water on the mesh.',
      why: 'The pour-through test: water runs straight through a clean mesh and stands on a coated one.',
      look: 'Over a sink, never in the dryer. Does a film of water stand, and on how much of the mesh?',
    },
    {
      id: 'found',
      acts: { at: 'apart' },
      do: 'Note how much of the mesh holds water.',
      why: 'What you choose here decides when it is due next. It is the film that counts here, not the lint you rolled off.',
      look: 'Nothing stands: clear. A third: moderate. Nearly all: blocked.',
      note: 'grade',
    },
    {
      id: 'wash',
      acts: {
        at: 'apart',
        needs: { screen: ['out'] },
        touches: 'screen',
        cleans: true,
        wets: 'screen',
        coats: 'screen',
      },
      figure: 'lint-screen',
      do: 'Brush both sides softly with hot water and soap, and the inside if it opens.',
      why: 'The mesh is delicate: a hard brush pulls the threads apart.',
      look: 'Grey turns white. Film found means dryer sheets or softener; dryer balls leave none.',
    },
    {
      id: 'pour-again',
      acts: {
        at: 'apart',
        needs: { screen: ['out'] },
        touches: 'screen',
        wets: 'screen',
        clears: true,
      },
      figure: 'lint-screen',
      do: 'Rinse, and pour a cup of water on it once more, over the sink.',
      why: 'The same test tells whether the film is off.',
      look: 'Water runs straight through. If it still stands, wash again.',
    },
    {
      id: 'lay-dry',
      acts: { at: 'apart', needs: { screen: ['out'] }, dries: { part: 'screen', minutes: 60 } },
      do: 'Shake it and lay it on the towel to dry, not on a heater.',
      why: 'It goes back wholly dry: wet mesh catches lint and tears.',
      timer: { minutes: 60, label: 'Drying', optional: true },
    },
  ],
  putBack: [
    {
      id: 'screen-seat',
      acts: { at: 'outside', needs: { screen: ['out'] } },
      do: 'Wipe the seat of the lint screen and its seal, and pick the lint out of the corners.',
      why: 'Lint on the seat leaves a gap, and more goes past it to the exchanger.',
      when: { kinds: CONDENSING },
    },
    {
      id: 'hole-check',
      acts: { at: 'apart', needs: { screen: ['out'] }, touches: 'screen', waits: true },
      reading: 'screen-light',
      do: 'Hold a torch behind the mesh, or look at it against the light, before it goes back.',
      why: 'A hole sends lint to the heater and the duct; a screen with a hole is replaced.',
      look: 'Even light all over.',
    },
    {
      id: 'screen-in',
      acts: {
        at: 'slot',
        needs: { housing: ['on'] },
        does: { screen: 'in' },
        touches: 'screen',
        waits: true,
      },
      do: 'Wholly dry: push the lint screen in until it sits.',
      why: 'Until it is back, nobody may use the dryer.',
      look: 'No gap at the edges, the frame not bent, the mesh without a hole.',
      hazards: ['no-screen'],
    },
  ],
  proof: [
    {
      id: 'next-lint',
      acts: { at: 'outside' },
      later: true,
      do: 'Look at the lint after the next load.',
      why: 'Much less than usual means that lint gets past the screen.',
      look: 'About the usual handful, all over the mesh.',
    },
  ],
};
