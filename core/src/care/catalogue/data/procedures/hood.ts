import type { Procedure } from '../../types.js';

/** Common practice. The outlet outdoors. */
export const HOOD: Procedure = {
  task: 'hood',
  fetch: [
    { what: 'A soft brush' },
    { what: 'A torch' },
    { what: 'Work gloves' },
    { what: 'A bag for the lint' },
  ],
  finds: ['lint', 'nest', 'screen', 'leaves'],
  steps: [
    {
      id: 'flap-move',
      acts: { at: 'hood' },
      figure: 'hood',
      do: 'Look at the flap, then move it with a finger.',
      why: 'It must open by breath and fall shut by itself.',
      hazards: ['ladder'],
    },
    {
      id: 'found',
      acts: { at: 'hood' },
      do: 'Note how much lint or nest is in it.',
      why: 'What you choose here decides when it is due next.',
      look: 'A few threads: light. The flap sluggish: moderate. Held open or shut by lint: heavy. Shut or nested in: blocked.',
      note: 'grade',
    },
    {
      id: 'clearance',
      acts: { at: 'hood' },
      do: 'Look round the hood: it ends outdoors, 0.9 m (3 ft) or more from windows, doors and air intakes.',
      why: 'Closer, its damp and a gas dryer’s fumes come back in (IRC M1502.3). Never into a flue, chimney, loft, crawl space or garage.',
      look: 'Elsewhere, or closer: have the duct moved, and leave a gas dryer off until then. A hose out of a window, or a window kit: short, straight, and nobody’s open window beside it.',
    },
    {
      id: 'clear-hood',
      acts: { at: 'hood', does: { hood: 'open' }, cleans: true },
      do: 'Brush the lint off flap, hinge and rim into the bag.',
      why: 'The hinge is where it starts to stick.',
      look: 'A nest with eggs or young: leave it, do not run the dryer, and ask your local wildlife office.',
    },
    {
      id: 'hood-screen',
      acts: { at: 'hood', needs: { hood: ['open'] } },
      do: 'If a mesh or screen sits in the hood, take it out.',
      why: 'It mats over within weeks, and many codes forbid it on a dryer.',
      look: 'A flap, and if need be a guard made for dryers, keeps birds out.',
    },
    {
      id: 'look-up',
      acts: { at: 'hood' },
      do: 'Shine the torch into the duct.',
      why: 'It shows whether the duct itself is due.',
      look: 'More than a thin film of lint: brush the duct too. A hood that opens down or to the side comes off the wall to see in: two to four screws. Renew the seal behind it.',
    },
  ],
  putBack: [
    {
      id: 'flap-falls',
      acts: { at: 'hood', does: { hood: 'shut' } },
      figure: 'hood',
      do: 'Let the flap fall shut once more.',
      why: 'A flap that stays open lets cold and mice in.',
      look: 'Broken, warped or gone: the hood is replaced, with one made for dryers, without a mesh.',
    },
  ],
  proof: [
    {
      id: 'hood-bag',
      acts: { at: 'hood', needs: { hood: ['shut'] }, runs: 'air' },
      figure: 'hood',
      do: 'Run the dryer without heat. Hold a bin bag over the hood and count the seconds.',
      why: 'It proves that the air gets out, and gives a figure to compare.',
      look: 'A 113 litre (30 gal) bag fills in two and a half to five seconds on a clear run, with a strong heater in half of that.',
      hazards: ['bag-test'],
      reading: 'bag-fill-time',
    },
  ],
};
