import type { Procedure } from '../../types.js';

/** Common practice. After every load: gasket and glass dry, door and drawer ajar. */
export const GASKET_WIPE: Procedure = {
  task: 'gasket-wipe',
  fetch: [{ what: 'A dry cloth' }],
  steps: [
    {
      id: 'wipe-fold',
      acts: { at: 'drum' },
      figure: 'fold',
      do: 'Wipe the fold of the gasket dry, the bottom first.',
      why: 'Water collects at the bottom of the fold.',
      look: 'Hair and small things come along.',
      note: 'grade',
    },
    {
      id: 'wipe-glass',
      acts: { at: 'drum' },
      do: 'Wipe the door glass.',
      why: 'Its inner rim seals against the gasket.',
    },
    {
      id: 'bottom-look',
      acts: { at: 'drum' },
      do: 'Look into the bottom of the fold.',
      why: 'Water that stands there means clogged holes.',
      look: 'No water, no coin.',
    },
  ],
  putBack: [
    {
      id: 'door-ajar',
      acts: { at: 'drum' },
      do: 'Leave the door and the drawer a hand open.',
      why: 'Moving air is what keeps mould away.',
      hazards: ['children'],
    },
  ],
  proof: [
    {
      id: 'tomorrow',
      acts: { at: 'drum' },
      later: true,
      do: 'Feel the fold before the next load.',
      why: 'Dry is right.',
      look: 'Still wet: open the door wider.',
    },
  ],
};
