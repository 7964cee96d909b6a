import type { Hazard } from '../catalogue.js';

/** Cautions, each shown at the step where it counts. Common practice. */
export const HAZARDS: readonly Hazard[] = [
  {
    id: 'electric',
    caution:
      'Plug out before hands go in. If the machine is wired in without a plug, switch off its circuit breaker. Dry your hands first.',
  },
  {
    id: 'scald',
    caution:
      'After a hot cycle the water can scald. Wait until the door glass is only lukewarm before you let any water out.',
  },
  {
    id: 'hot-dryer',
    caution: 'A dryer just used is hot inside. Wait until the drum feels cool to the hand.',
  },
  {
    id: 'flood',
    caution:
      'Never open the filter all the way while the drum holds water: it comes out faster than any towel can take it.',
  },
  {
    id: 'tipping',
    caution:
      'A washer weighs as much as a grown person. Tip it only with a second person, prop it, keep feet clear, and keep hoses and cable from being pinched.',
  },
  {
    id: 'wedged',
    caution: 'The cap is plastic. Do not lever it; what breaks here has to be replaced.',
  },
  {
    id: 'impeller',
    caution:
      'Only with the plug out: the impeller can start, and broken glass or a pin may sit beside it.',
  },
  {
    id: 'mould-remover',
    caution:
      'Many mould removers contain chlorine bleach. Never let it meet vinegar, citric acid, descaler, ammonia, alcohol or peroxide, in the machine or on the cloth. Air the room, wear gloves, and run a full rinse before anything else goes in.',
  },
  {
    id: 'acid',
    caution:
      'Vinegar must not meet chlorine bleach: together they give off chlorine gas. If bleach was used here since the last full rinse, leave the vinegar out.',
  },
  {
    id: 'sharp-fins',
    caution: 'The fins are thin and sharp. Hold the block by its ends and wear gloves.',
  },
  {
    id: 'gas',
    caution:
      'Gas dryer: shut its gas valve first, and never run it with the duct off. If you smell gas: touch no switch, leave, and call from outside. Anything on the gas line itself is work for a licensed fitter.',
  },
  {
    id: 'gas-unsure',
    caution:
      'If you do not know whether this dryer burns gas, look for a second pipe with a valve at its back. If there is one, or you are unsure, leave the duct to a professional.',
  },
  {
    id: 'moving',
    caution:
      'Pull with a second person if it does not slide easily. Watch that the cable, the hoses and the duct come along and are not stretched.',
  },
  {
    id: 'stacked',
    caution:
      'This dryer stands in a stack. Do not pull the stack alone: it can come down. Two people, or work from the hood side only.',
  },
  {
    id: 'ladder',
    caution:
      'Work from the ground where you can. On a ladder: firm ground, somebody holding it, never reaching sideways. Too high is a reason to call someone.',
  },
  {
    id: 'brush-drill',
    caution:
      'Turn the rods clockwise only. The other way they unscrew, and the brush stays in the duct.',
  },
  {
    id: 'lint-burns',
    caution:
      'Lint burns fast. No flame and no smoking while you work, and empty the vacuum cleaner afterwards.',
  },
  {
    id: 'duct-material',
    caution:
      'Vinyl or plastic duct must not stay on a dryer: it burns. Foil is allowed only where your local code and the maker’s manual say so.',
  },
  {
    id: 'no-screen',
    caution: 'Never run a dryer without its lint screen: the lint goes to the heater and the duct.',
  },
  {
    id: 'heat-pump-manual',
    caution:
      'Many heat-pump dryers have a heat exchanger that does not come out. Follow your manual; never open the sealed refrigerant circuit.',
  },
];
