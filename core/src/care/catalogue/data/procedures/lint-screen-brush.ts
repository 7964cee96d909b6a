import type { Procedure } from '../../types.js';

/** Common practice. The lint screen, by hand, with every load. */
export const LINT_SCREEN_BRUSH: Procedure = {
  task: 'lint-screen-brush',
  fetch: [{ what: 'Nothing but your hand' }],
  steps: [
    {
      id: 'take-out',
      acts: { at: 'slot', does: { screen: 'out' } },
      do: 'Draw the lint screen straight out.',
      why: 'After each load, so that no load ever starts with a full screen.',
      hazards: ['hot-dryer'],
    },
    {
      id: 'roll-off',
      acts: { at: 'apart', needs: { screen: ['out'] } },
      do: 'Roll the lint off with your fingers, from one edge to the other.',
      why: 'Dry lint comes off in one piece, and nothing has to touch the mesh.',
    },
    {
      id: 'against-light',
      acts: { at: 'apart', needs: { screen: ['out'] } },
      do: 'Hold the mesh against the light.',
      why: 'A hole lets lint through to the heater; a grey film that does not roll off calls for washing.',
      look: 'Even light all over. If water would stand on it, wash it.',
      note: 'grade',
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
      do: 'Push the screen in until it sits.',
      why: 'Without it the lint goes to the heater and the duct.',
      look: 'No gap at the edges.',
      hazards: ['no-screen'],
    },
  ],
  proof: [
    {
      id: 'next-time',
      acts: { at: 'outside' },
      later: true,
      do: 'Look at the amount with the next load.',
      why: 'Much less than usual can mean that lint goes past the screen.',
      look: 'About the usual handful.',
    },
  ],
};
