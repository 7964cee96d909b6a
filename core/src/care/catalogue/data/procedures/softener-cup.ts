import type { Procedure } from '../../types.js';

/** Common practice. The softener cup of a top loader, its seat, and the agitator. */
export const SOFTENER_CUP: Procedure = {
  task: 'softener-cup',
  fetch: [
    { what: 'Hot water' },
    { what: 'Dish soap', uses: { supply: 'dish-soap', amount: 10 } },
    { what: 'An old toothbrush' },
    { what: 'Two cloths' },
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
      id: 'cup-out',
      acts: { at: 'drum', does: { cup: 'out' } },
      do: 'Lift the cup off, with a turn or a pull straight up, and take out what can be taken out.',
      why: 'Softener sets under the cup and runs onto the laundry.',
      look: 'No cup: open the lid of the detergent place instead.',
    },
    {
      id: 'found',
      acts: { at: 'apart' },
      do: 'Note how it looks before you clean it.',
      why: 'What you choose here decides when it is due next.',
      look: 'Grey flakes under the cup count as heavy.',
      dispute: 'softener',
      note: 'grade',
    },
    {
      id: 'brush-cup',
      acts: { at: 'apart', needs: { cup: ['out'] }, touches: 'cup', cleans: true },
      do: 'Brush the cup and its parts in hot soapy water and rinse.',
      why: 'Hot water loosens softener; cold water sets it.',
    },
    {
      id: 'mould',
      acts: { at: 'apart', needs: { cup: ['out'] }, soaks: { part: 'cup', minutes: 10 } },
      do: 'If black stays: mould remover on the parts in the sink, and wait. Otherwise go on.',
      why: 'Brushing alone leaves the roots.',
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
      acts: { at: 'apart', touches: 'cup', waits: true, clears: true },
      do: 'Rinse the parts under running water for a good minute, and the sink as well.',
      why: 'What stays on them goes into the machine with the next load.',
      look: 'No smell and nothing slippery.',
      rinses: 'station',
    },
    {
      id: 'cup-seat',
      acts: { at: 'drum', needs: { cup: ['out'] } },
      do: 'Wipe the seat of the cup and the top of the agitator.',
      why: 'A sticky seat collects lint.',
    },
    {
      id: 'agitator',
      acts: { at: 'drum', needs: { cup: ['out'] } },
      do: 'Wipe down the agitator’s fins, and under its cap if that comes off by hand.',
      why: 'Flakes on the laundry come from here.',
      look: 'Do not unscrew it: the bolt below is for a repair.',
      hazards: ['electric'],
    },
  ],
  putBack: [
    {
      id: 'cup-in',
      acts: {
        at: 'drum',
        needs: { cup: ['out'] },
        does: { cup: 'in' },
        touches: 'cup',
        waits: true,
      },
      do: 'Dry the cup and press it back on.',
      why: 'A loose cup is thrown off in the spin.',
    },
  ],
  proof: [
    {
      id: 'flush',
      acts: { at: 'outside' },
      later: true,
      do: 'After the next rinse look into the cup.',
      why: 'It is free when nothing is left standing.',
      look: 'Empty but for a few drops.',
    },
  ],
};
