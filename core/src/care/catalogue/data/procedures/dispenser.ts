import type { Procedure } from '../../types.js';

/** Common practice. The drawer, its inserts, and the cavity above. */
export const DISPENSER: Procedure = {
  task: 'dispenser',
  fetch: [
    { what: 'Hot water' },
    { what: 'Dish soap', uses: { supply: 'dish-soap', amount: 10 } },
    { what: 'An old toothbrush' },
    { what: 'A torch' },
    {
      what: 'Mould remover, in case it is black',
      uses: { supply: 'mould-remover', amount: 20, share: 0.3 },
      holds: 'chlorine',
    },
    { what: 'Rubber gloves, in case it is black' },
  ],
  steps: [
    {
      id: 'found',
      acts: { at: 'drawer', needs: { drawer: ['out'] } },
      do: 'Note how dirty it is before you clean it.',
      why: 'What you choose here decides when it is due next.',
      look: 'Black in the cavity’s roof counts as heavy, even where the drawer itself looks clean.',
      note: 'grade',
    },
    {
      id: 'inserts',
      acts: { at: 'apart', needs: { drawer: ['out'] }, does: { inserts: 'out' } },
      do: 'Take the inserts out of the drawer: softener cover, siphon, liquid flap.',
      why: 'The siphon’s narrow tube is what stops first.',
      look: 'Water runs through the siphon.',
    },
    {
      id: 'brush',
      acts: { at: 'apart', touches: 'inserts', cleans: true },
      do: 'Brush everything in hot soapy water and rinse.',
      why: 'Hot water loosens softener; cold water sets it.',
    },
    {
      id: 'mould',
      acts: { at: 'apart', needs: { inserts: ['out'] }, soaks: { part: 'inserts', minutes: 10 } },
      do: 'If black stays: mould remover on the parts in the sink, and wait. Otherwise go on.',
      why: 'Brushing alone leaves the roots, and it is back in two weeks.',
      look: 'Keep it in the sink, away from anything else you clean with.',
      hazards: ['mould-remover', 'mould-health'],
      timer: { minutes: 10, label: 'Mould remover working', optional: true },
      brings: {
        ask: 'What do you use on the parts?',
        products: ['mould-bleach', 'mould-peroxide', 'mould-alcohol', 'mould-unknown'],
      },
    },
    {
      id: 'mould-rinse',
      acts: { at: 'apart', touches: 'inserts', waits: true, clears: true },
      do: 'Rinse the parts under running water for a good minute, and the sink as well.',
      why: 'What stays on them goes into the machine with the next load.',
      look: 'No smell and nothing slippery.',
      rinses: 'station',
    },
    {
      id: 'cavity',
      acts: { at: 'drawer', needs: { drawer: ['out'], cloth: ['in'] } },
      do: 'Wipe the cavity, the roof first and then the sides.',
      why: 'Top before bottom: what falls is wiped next.',
      look: 'A white cloth comes out white.',
    },
    {
      id: 'level-tab',
      acts: { at: 'drawer', needs: { drawer: ['out'] } },
      do: 'Wipe the level tab and its slot clean.',
      why: 'A tab that sticks lets the compartment overfill.',
    },
  ],
  putBack: [
    {
      id: 'cavity-dry',
      acts: { at: 'drawer', needs: { drawer: ['out'] } },
      do: 'Wipe the cavity dry.',
      why: 'Mould needs the wet more than the dirt.',
    },
  ],
  proof: [
    {
      id: 'flush',
      acts: { at: 'outside' },
      later: true,
      do: 'After the next rinse look into the drawer.',
      why: 'Jets and siphon are free when nothing is left standing.',
      look: 'No powder, and no more than a spoonful of water in the softener place.',
    },
  ],
};
