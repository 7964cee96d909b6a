import type { Procedure } from '../../catalogue.js';

const DRAWER = { dispenser: ['drawer', 'unknown'] } as const;
const CUP = { dispenser: ['cup'] } as const;

/** Common practice. Drawer or cup, its inserts, and the cavity above. */
export const DISPENSER: Procedure = {
  task: 'dispenser',
  fetch: [
    { what: 'Hot water and dish soap' },
    { what: 'An old toothbrush' },
    { what: 'A thin interdental brush or soft wire', when: DRAWER },
    { what: 'Two cloths' },
    { what: 'A torch' },
    { what: 'Mould remover and gloves, in case it is black' },
  ],
  steps: [
    {
      id: 'draw-out',
      do: 'Press the release at the back of the drawer and draw it out.',
      why: 'The worst is behind and above it, and the drawer cleans best in a sink.',
      look: 'The release is often on the softener cover. Do not pull against it.',
      when: DRAWER,
    },
    {
      id: 'cup-out',
      do: 'Lift the softener cup off, with a turn or a pull straight up, and take out what can be taken out.',
      why: 'Softener sets under the cup and runs onto the wash.',
      when: CUP,
    },
    {
      id: 'found',
      do: 'Note how dirty it is before you clean it.',
      why: 'The grade moves the next date.',
      look: 'Black in the cavity’s roof counts as heavy, even where the drawer itself looks clean.',
      note: 'grade',
    },
    {
      id: 'inserts',
      do: 'Take the inserts apart: softener cover, siphon, liquid flap.',
      why: 'The siphon’s narrow tube is what stops first.',
      look: 'Water runs through the siphon.',
      when: DRAWER,
    },
    {
      id: 'brush',
      do: 'Brush everything in hot soapy water and rinse.',
      why: 'Hot water loosens softener; cold water sets it.',
    },
    {
      id: 'mould',
      do: 'If black stays: mould remover on the parts in the sink, wait, then rinse very well. Otherwise go on.',
      why: 'Brushing alone leaves the roots, and it is back in two weeks.',
      look: 'Keep it in the sink. Nothing acid in the same sink until it is rinsed.',
      hazards: ['mould-remover'],
      timer: { minutes: 10, label: 'Mould remover working', optional: true },
    },
    {
      id: 'stuff-hole',
      do: 'Stuff a cloth into the hole that leads to the tub.',
      why: 'What you loosen above must not fall into the machine.',
      when: DRAWER,
    },
    {
      id: 'jets',
      do: 'Run the interdental brush or wire into each jet in the roof, the softener’s first.',
      why: 'Blocked jets leave powder and softener standing in the drawer.',
      look: 'With the torch: every hole is dark and round.',
      when: DRAWER,
    },
    {
      id: 'cavity',
      do: 'Wipe the cavity, the roof first and then the sides.',
      why: 'Top before bottom: what falls is wiped next.',
      look: 'A white cloth comes out white.',
      when: DRAWER,
    },
    {
      id: 'cup-seat',
      do: 'Wipe the seat of the cup and the top of the agitator.',
      why: 'A sticky seat collects fluff.',
      when: CUP,
    },
    {
      id: 'level-tab',
      do: 'Wipe the level tab and its slot clean.',
      why: 'A tab that sticks lets the compartment overfill.',
      when: DRAWER,
    },
  ],
  putBack: [
    {
      id: 'cloth-out',
      do: 'Take the cloth out of the hole.',
      why: 'Left in, no water gets to the wash.',
      when: DRAWER,
    },
    {
      id: 'drawer-in',
      do: 'Dry the parts, put the inserts in, and slide the drawer home until it clicks.',
      why: 'A drawer that is not home drips down the front.',
      look: 'Softener cover and siphon are pressed down.',
      when: DRAWER,
    },
    {
      id: 'cup-in',
      do: 'Dry the cup and press it back on.',
      why: 'A loose cup is thrown off in the spin.',
      when: CUP,
    },
    {
      id: 'ajar',
      do: 'Leave the drawer a finger open.',
      why: 'Air is what keeps mould away.',
      when: DRAWER,
    },
  ],
  proof: [
    {
      id: 'flush',
      do: 'After the next rinse look into the drawer or cup.',
      why: 'Jets and siphon are free when nothing is left standing.',
      look: 'No powder, and no more than a spoonful of water in the softener place.',
    },
  ],
};
