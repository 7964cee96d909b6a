import { FRONT_LOADERS } from '../../../../model/vocabulary.js';
import type { Procedure } from '../../types.js';

/** Common practice. The hot empty cycle, with or without a cleaner as the manual says. */
export const DRUM_CLEAN: Procedure = {
  task: 'drum-clean',
  fetch: [
    { what: 'A cloth' },
    { what: 'A torch' },
    {
      what: 'Baking soda, for a paste where there is film',
      uses: { supply: 'baking-soda', amount: 30, share: 0.4 },
    },
    {
      what: 'Washing-machine cleaner, only if your manual asks for it',
      uses: { supply: 'machine-cleaner', amount: 100, share: 0.4 },
    },
  ],
  steps: [
    {
      id: 'drum-wipe',
      acts: { at: 'drum' },
      do: 'Turn the drum, and wipe it and the glass.',
      why: 'What is wiped off need not be boiled off.',
      look: 'Film: rub it with a paste of baking soda and water, and wipe it off.',
    },
    {
      id: 'found',
      acts: { at: 'drum' },
      do: 'Smell into the drum and feel behind its rim, and note it.',
      why: 'What you choose here decides when it is due next.',
      look: 'No smell: clear. Slippery behind the rim: moderate. Black flakes on the laundry: heavy.',
      note: 'grade',
    },
    {
      id: 'manual-says',
      way: 'drum-programme',
      acts: { at: 'drum', needs: { rinsed: ['yes'] }, does: { rinsed: 'no' } },
      do: 'Look in the manual: its own drum cycle, or the hottest one; a cleaner, or nothing.',
      why: 'The maker knows the rubber and the heater. Nothing acid goes together with anything chlorinated.',
      look: 'If mould remover was used on gasket or drawer: a full rinse first.',
      hazards: ['cleaner-alone'],
      dispute: 'drum-cleaner',
      brings: {
        ask: 'What goes into the drum for the hot cycle?',
        products: [
          'vinegar',
          'citric-acid',
          'cleaner-acid',
          'cleaner-oxygen',
          'cleaner-mild',
          'cleaner-unknown',
          'bleach',
        ],
      },
    },
    {
      id: 'hot-cycle',
      acts: { at: 'outside', runs: 'hot', cleans: true },
      do: 'Start it empty and let it run to its end.',
      why: 'Heat is what takes the film off.',
      look: '60 to 105 minutes. It needs nobody; you can leave the room but not the house.',
      hazards: ['hot-glass', 'children'],
      timer: { minutes: 90, label: 'The hot cycle', optional: true },
    },
    {
      id: 'cleaner-out',
      acts: { at: 'outside', runs: 'rinse', does: { rinsed: 'yes' } },
      do: 'If you put something in: run a rinse with nothing in the drum.',
      why: 'No cleaner may be left when the next thing goes in, or on the next load.',
      look: 'No smell of cleaner, and no foam on the glass.',
      timer: { minutes: 25, label: 'The rinse', optional: true },
      rinses: 'all',
    },
  ],
  putBack: [
    {
      id: 'all-ajar',
      acts: { at: 'drum' },
      do: 'Wipe the rim dry and leave door and drawer ajar.',
      why: 'Heat and damp behind a shut door grow the next film.',
      hazards: ['children'],
    },
  ],
  proof: [
    {
      id: 'filter-again',
      acts: { at: 'outside' },
      later: true,
      do: 'Once the machine has cooled, clean the pump filter.',
      why: 'What the heat loosened ends up there.',
      look: 'A visit of its own leads you: cooled down, plug out, tray below, and at its end the look for drips. Answer here what you found: flakes are good, they are out.',
      hazards: ['scald', 'electric'],
      when: {
        kinds: FRONT_LOADERS,
        filterAccess: ['front-left', 'front-right', 'lower-front', 'behind', 'unknown'],
      },
    },
    {
      id: 'smell-again',
      acts: { at: 'drum' },
      later: true,
      do: 'Smell into the drum after the next load.',
      why: 'A clean drum smells of nothing.',
      look: 'Does it still foam with nothing in it? Then once more, and less detergent from now on.',
    },
  ],
};
