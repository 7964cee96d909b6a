import type { Procedure } from '../../types.js';

/** Common practice. The second, finer filter by the plinth or in the door. */
export const FINE_FILTER: Procedure = {
  task: 'fine-filter',
  fetch: [
    { what: 'Hot water' },
    { what: 'Dish soap', uses: { supply: 'dish-soap', amount: 10 } },
    { what: 'A soft brush' },
    { what: 'A dry towel' },
  ],
  steps: [
    {
      id: 'fine-out',
      acts: { at: 'outside', does: { fineFilter: 'out' } },
      do: 'Open the flap at the foot or the box in the door, and take the fine screen out.',
      why: 'It sits behind the lint screen and is often forgotten.',
      look: 'Mind which way round it sits.',
    },
    {
      id: 'found',
      acts: { at: 'apart' },
      do: 'Note how grey it is before you wash it.',
      why: 'What you choose here decides when it is due next.',
      look: 'White: clear. Grey in patches: moderate. Grey all over: heavy. Shiny and closed: blocked.',
      note: 'grade',
    },
    {
      id: 'wash-fine',
      acts: {
        at: 'apart',
        needs: { fineFilter: ['out'] },
        touches: 'fineFilter',
        cleans: true,
        wets: 'fineFilter',
      },
      do: 'Wash it in hot water with soap and the soft brush, until it is white and even.',
      why: 'Grey that stays is film: soap and heat take it off.',
      look: 'Foam: press it, do not wring it.',
    },
    {
      id: 'rinse-fine',
      acts: {
        at: 'apart',
        needs: { fineFilter: ['out'] },
        touches: 'fineFilter',
        wets: 'fineFilter',
      },
      do: 'Rinse until the water runs clear, and press it out in the towel.',
      why: 'Soap left in it foams in the condensate.',
    },
    {
      id: 'dry-fine',
      acts: {
        at: 'apart',
        needs: { fineFilter: ['out'] },
        dries: { part: 'fineFilter', minutes: 60 },
      },
      do: 'Let it dry wholly.',
      why: 'A wet screen catches lint and holds it.',
      timer: { minutes: 60, label: 'Drying', optional: true },
    },
  ],
  putBack: [
    {
      id: 'fine-in',
      acts: {
        at: 'outside',
        needs: { fineFilter: ['out'] },
        does: { fineFilter: 'in' },
        touches: 'fineFilter',
        waits: true,
      },
      do: 'Put the dry screen back the right way round and shut the flap.',
      why: 'A gap lets lint on to the heat exchanger.',
      look: 'The flap clicks.',
    },
  ],
  proof: [
    {
      id: 'runs-on',
      acts: { at: 'outside' },
      later: true,
      do: 'Watch the next load past the first ten minutes.',
      why: 'A clogged fine screen stops the dryer after minutes.',
      look: 'It runs to its end.',
    },
  ],
};
