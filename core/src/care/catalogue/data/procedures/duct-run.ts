import type { Procedure } from '../../types.js';

/** Common practice. Transition hose off, duct brushed from both ends, hood freed, put back tight. */
export const DUCT_RUN: Procedure = {
  task: 'duct-run',
  fetch: [
    { what: 'A duct brush with rods long enough for the run' },
    { what: 'A drill for the rods, if you like' },
    { what: 'A vacuum cleaner with a crevice nozzle' },
    { what: 'Metal foil tape', uses: { supply: 'foil-tape', amount: 0.2 } },
    { what: 'A bag for the lint' },
    { what: 'A torch' },
    { what: 'A bin bag, for the hood test' },
  ],
  steps: [
    {
      id: 'material',
      do: 'Look at what the hose is made of, and for kinks and crushed places.',
      why: 'A crushed hose undoes all the brushing.',
      look: 'Semi-rigid or rigid metal is right. Vinyl, plastic or a crushed hose: replace it before the dryer runs again.',
      hazards: ['duct-material'],
    },
    {
      id: 'hose-clean',
      do: 'Shake the hose out over the bag and vacuum it through.',
      why: 'Lint catches in every fold.',
      hazards: ['lint-burns'],
    },
    {
      id: 'look-in',
      do: 'Shine the torch into the duct, and note how thick the lint lies before you brush.',
      why: 'The grade moves the next date.',
      look: 'A veil is light. A finger thick is heavy. No daylight or opening to be seen where there should be: blocked.',
      note: 'grade',
    },
    {
      id: 'brush',
      figure: 'duct-brush',
      do: 'Push the brush in and turn it clockwise, adding rods one at a time, as far as the next elbow and through it.',
      why: 'Lint sits most at elbows and low points.',
      look: 'Pull back now and then and bag what comes. Do not force an elbow.',
      hazards: ['brush-drill'],
    },
    {
      id: 'hood-open',
      do: 'Outdoors: lift or take off the hood’s flap and clear lint and any nest.',
      why: 'A flap held by lint stops the air as surely as a full duct.',
      look: 'A nest with eggs or young: leave it, do not run the dryer, and ask your local wildlife office.',
      hazards: ['ladder'],
    },
    {
      id: 'hood-screen',
      do: 'If a mesh or screen sits in the hood, take it out.',
      why: 'It mats over within weeks, and many codes forbid it on a dryer. A flap keeps birds out.',
    },
    {
      id: 'brush-out',
      figure: 'duct-brush',
      do: 'Brush the duct from the hood inward as well.',
      why: 'With a riser or two elbows, one end does not reach all of it.',
      look: 'Below a riser lies the most; let it fall and vacuum it out at the bottom.',
      hazards: ['brush-drill'],
    },
    {
      id: 'vacuum',
      do: 'Vacuum both ends, the outlet at the back of the dryer, and the floor behind it.',
      why: 'What you leave blows into the clean duct with the first load.',
      hazards: ['lint-burns'],
    },
    {
      id: 'lint-weight',
      do: 'Weigh or estimate the lint, and note it.',
      why: 'The amount, year against year, tells whether the interval is right.',
      look: 'A loosely full shopping bag is about 100 g.',
      note: 'note',
    },
  ],
  putBack: [
    {
      id: 'flap-free',
      do: 'Put the hood’s flap back and move it with a finger.',
      why: 'It must open by breath and fall shut by itself.',
      hazards: ['ladder'],
    },
  ],
  proof: [
    {
      id: 'hood-bag',
      figure: 'hood',
      do: 'Run the dryer on air or with a small load. Hold a bin bag of known size over the hood and count the seconds until it is full.',
      why: 'It proves the air gets out, and gives a figure to compare next year.',
      look: 'A 113 litre bag fills in about one to two and a half seconds on a clear run.',
      reading: 'bag-fill-time',
      hazards: ['ladder'],
    },
    {
      id: 'leak-feel',
      do: 'While it runs, feel round the joints of the hose for warm air.',
      why: 'Damp air and lint that leak indoors make mould; with gas, the leak is dangerous.',
      look: 'No draught, no warmth at the joints.',
    },
  ],
};
