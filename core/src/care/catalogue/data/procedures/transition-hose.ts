import type { Procedure } from '../../types.js';

/** Common practice. The short hose behind the dryer: what it is made of, kinks, crush, lint. */
export const TRANSITION_HOSE: Procedure = {
  task: 'transition-hose',
  fetch: [
    { what: 'A torch' },
    { what: 'A vacuum cleaner' },
    { what: 'Metal foil tape', uses: { supply: 'foil-tape', amount: 0.1 } },
    { what: 'A bag for the lint' },
  ],
  steps: [
    {
      id: 'material',
      acts: { at: 'behind' },
      do: 'Look at what the hose is made of.',
      why: 'Only metal stands the heat.',
      look: 'Rigid or semi-rigid metal is right. Vinyl or plastic must go before the dryer runs again.',
      hazards: ['duct-material'],
    },
    {
      id: 'found',
      acts: { at: 'behind' },
      do: 'Note how kinked, crushed or linted it is.',
      why: 'What you choose here decides when it is due next.',
      look: 'A crush to half its width counts as heavy, flat as blocked.',
      note: 'grade',
    },
    {
      id: 'hose-clean',
      acts: { at: 'apart', needs: { duct: ['off'] }, cleans: true },
      do: 'Shake the hose out over the bag and vacuum it through.',
      why: 'Lint catches in every fold.',
      hazards: ['lint-burns'],
    },
    {
      id: 'wall-end',
      acts: { at: 'duct' },
      do: 'Look into the wall with the torch.',
      why: 'It shows whether the duct itself is due.',
      look: 'More than a thin film of lint: brush the duct too.',
    },
    {
      id: 'shorten',
      acts: { at: 'apart', needs: { duct: ['off'] } },
      do: 'If it is longer than it needs to be, cut or push it to the shortest run without a kink.',
      why: 'Every extra fold takes air. One piece, never joined, never through a wall or a ceiling.',
    },
  ],
  putBack: [
    {
      id: 'no-crush',
      acts: { at: 'apart', needs: { duct: ['off'] } },
      do: 'Hold it as it will lie when the dryer is back, and see that nothing crushes it.',
      why: 'This is decided now and not seen later.',
    },
  ],
  proof: [
    {
      id: 'leak-feel',
      acts: { at: 'behind', runs: 'air', proves: ['duct'] },
      do: 'Run the dryer on air alone, without heat, and feel round both joints for a draught.',
      why: 'Damp air that leaks indoors makes mould; with gas it is dangerous.',
      look: 'No draught at the joints.',
      hazards: ['never-indoors'],
    },
  ],
};
