import type { Procedure } from '../../types.js';

/** Common practice. The folds of the door gasket and the drain holes at their bottom. */
export const GASKET_FOLDS: Procedure = {
  task: 'gasket-folds',
  fetch: [
    { what: 'A torch' },
    { what: 'Tweezers or a thin brush' },
    { what: 'Two cloths' },
    { what: 'Warm soapy water' },
    {
      what: 'Mould remover, in case it is black',
      uses: { supply: 'mould-remover', amount: 30, share: 0.3 },
      holds: 'chlorine',
    },
    { what: 'Rubber gloves, in case it is black' },
    {
      what: 'Household vinegar, in case of soap film',
      uses: { supply: 'vinegar', amount: 100, share: 0.3 },
      holds: 'acid',
    },
  ],
  finds: ['hair', 'coin', 'hair grip', 'sock', 'lint roll', 'mask', 'padding', 'rubber granules'],
  steps: [
    {
      id: 'look',
      acts: { at: 'drum' },
      figure: 'fold',
      do: 'Open the door and look into the folds with the torch, all the way round.',
      why: 'The bottom is where everything ends up.',
      look: 'Hair, coins, standing water, black spots.',
    },
    {
      id: 'peel',
      acts: { at: 'drum' },
      figure: 'fold',
      do: 'Peel the lip back gently and pick out hair, lint and small things.',
      why: 'The rubber tears where it is forced, and a torn gasket leaks.',
      look: 'Sharp things hide here: look before you feel.',
    },
    {
      id: 'found',
      acts: { at: 'drum' },
      do: 'Note how dirty it is before you clean it.',
      why: 'What you choose here decides when it is due next.',
      look: 'Water standing in the fold means the drain holes are clogged: that is heavy at least.',
      note: 'grade',
    },
    {
      id: 'holes',
      acts: { at: 'drum' },
      figure: 'fold',
      do: 'Find the drain holes at the bottom of the fold, often three, and clear each with tweezers or the brush.',
      why: 'Through them the fold empties after each load.',
      look: 'A little water poured into the fold runs away at once.',
    },
    {
      id: 'wipe',
      acts: { at: 'drum', touches: 'gasket', cleans: true },
      do: 'Wipe the folds with a soapy cloth, top to bottom.',
      why: 'Soap first: it takes the grease that mould lives on.',
    },
    {
      id: 'treat',
      acts: { at: 'drum', soaks: { part: 'gasket', minutes: 20 }, does: { rinsed: 'no' } },
      do: 'Mould or film left? Choose one: mould remover for black spots, or vinegar and water for soap film.',
      why: 'One or the other and never both. Bleach shortens the rubber’s life, so keep it for what soap leaves. A gasket that stays black can be replaced.',
      look: 'Vinegar one to one with water. Leave it on as long as the label says, then wipe it off. The label also says what must not follow it in this machine.',
      hazards: ['mould-remover', 'mould-health', 'acid'],
      timer: { minutes: 20, label: 'Working in', optional: true },
      brings: {
        ask: 'What do you use on the gasket?',
        products: ['vinegar', 'mould-bleach', 'mould-peroxide', 'mould-alcohol', 'mould-unknown'],
      },
    },
  ],
  putBack: [
    {
      id: 'dry',
      acts: { at: 'drum', touches: 'gasket', waits: true, clears: true },
      do: 'Dry the folds, let the lip spring back, and wipe the door glass.',
      why: 'Dry rubber stays clean longer.',
      look: 'The lip lies flat all round.',
    },
  ],
  proof: [
    {
      id: 'rinse',
      acts: { at: 'outside', runs: 'rinse', touches: 'gasket', does: { rinsed: 'yes' } },
      do: 'If you used mould remover or vinegar, run a rinse with nothing in the drum.',
      why: 'It clears what is left in the folds, before anything else meets it.',
      look: 'Leave the door ajar afterwards.',
      hazards: ['mould-remover', 'children'],
      rinses: 'all',
    },
    {
      id: 'fold-look',
      acts: { at: 'drum' },
      later: true,
      do: 'Look into the fold after the next load.',
      why: 'It shows that the drain holes are open.',
      look: 'No water stands in the fold.',
    },
  ],
};
