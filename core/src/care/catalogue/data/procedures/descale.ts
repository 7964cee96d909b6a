import type { Procedure } from '../../types.js';

/** Common practice. Scale off the heater and the hoses with acid, in an empty cycle. */
export const DESCALE: Procedure = {
  task: 'descale',
  fetch: [
    {
      what: 'Citric acid, 100 g, or a descaler that your manual allows',
      uses: { supply: 'citric-acid', amount: 100 },
      holds: 'acid',
    },
    { what: 'A measuring jug' },
  ],
  steps: [
    {
      id: 'last-used',
      acts: { at: 'apart' },
      do: 'Bleach or mould remover was used last? Run a full rinse first and stop here.',
      why: 'Acid on chlorine bleach gives off chlorine gas.',
      look: 'Only go on when a rinse has run since.',
      hazards: ['cleaner-alone', 'acid'],
    },
    {
      id: 'found',
      acts: { at: 'drum' },
      do: 'Look at drum edge, gasket and door for a white crust, and note it.',
      why: 'What you choose here decides when it is due next.',
      look: 'None: clear. A thin film: light. A crust that can be felt: heavy.',
      dispute: 'descaling',
      note: 'grade',
    },
    {
      id: 'empty-drum',
      acts: { at: 'drum' },
      do: 'See that the drum is empty.',
      why: 'Acid bleaches colours and eats zips.',
    },
    {
      id: 'pour-acid',
      acts: { at: 'drum', needs: { rinsed: ['yes'] }, does: { rinsed: 'no' }, cleans: true },
      do: 'Put the acid into the empty drum, and nothing else.',
      why: 'Detergent and washing soda spend the acid, and nothing is dissolved. 100 g (3.5 oz) of citric acid dissolve at most 78 g of scale.',
      look: 'Your manual’s descaler and dose come first. Never hydrochloric acid in a machine; formic acid only where its label names washing machines.',
      hazards: ['cleaner-alone'],
      brings: {
        ask: 'What do you descale with?',
        products: ['citric-acid', 'descaler'],
        always: true,
      },
    },
    {
      id: 'warm-cycle',
      acts: { at: 'outside', runs: 'hot' },
      do: 'Run a long cycle at 40 to 60 °C (104 to 140 °F), with nothing in it.',
      why: 'Warm is enough for an acid. Hotter gains nothing, is hard on rubber, and boils vinegar off.',
      hazards: ['hot-glass', 'children'],
      timer: { minutes: 75, label: 'The cycle', optional: true },
    },
  ],
  putBack: [
    {
      id: 'rinse-acid',
      acts: { at: 'outside', runs: 'rinse', does: { rinsed: 'yes' } },
      do: 'Run a rinse with nothing in it.',
      why: 'No acid may be left when detergent or bleach comes next.',
      timer: { minutes: 25, label: 'The rinse', optional: true },
      rinses: 'all',
    },
  ],
  proof: [
    {
      id: 'crust-gone',
      acts: { at: 'drum' },
      do: 'Look at the drum edge once more.',
      why: 'White that wipes off now was scale.',
      look: 'Metal shines. Still a crust: once more, not twice as much.',
    },
  ],
};
