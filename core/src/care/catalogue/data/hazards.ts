import type { Hazard } from '../types.js';

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
      'Water from a hot wash scalds within seconds, and double glass hides how hot it is. A drum that did not drain stays hot for hours: wait until tomorrow, or measure the first cup: under 40 °C (104 °F).',
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
    id: 'full-drum',
    caution:
      'A full drum holds four buckets or more, and after a hot wash it scalds for hours. Do not pull the drain hose down, do not tip or move the machine, and do not force the door.',
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
      'This machine stands in a stack, and a stack is top-heavy: never move it or lift a foot of it alone. Two people, one at each side, or leave it where it stands.',
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
  {
    id: 'water-pressure',
    caution:
      'The hose is under the pressure of the whole house. Shut the tap before anything is loosened.',
  },
  {
    id: 'sharp-metal',
    caution:
      'Edges of sheet metal cut. Wear gloves, and move your hands slowly behind the machine.',
  },
  {
    id: 'never-indoors',
    caution:
      'A dryer never blows into the room: the damp makes mould and the lint burns. A gas dryer run with its duct off fills the room with carbon monoxide.',
  },
  {
    id: 'hot-glass',
    caution:
      'During the hot cycle the door glass gets hot enough to burn. Keep children and pets away, and do not lean on it.',
  },
  {
    id: 'cleaner-alone',
    caution:
      'One product only. Never put an acid (vinegar, citric acid, descaler) in together with chlorine bleach, or before what was used last has been rinsed out.',
  },
  {
    id: 'gas-professional',
    caution:
      'On a gas dryer, or if you are not sure, the inside of the cabinet is work for a licensed professional. Leave the panels on.',
  },
  {
    id: 'inside-panels',
    caution:
      'Behind the panels are mains wiring, a heater and a thermal cut-out. Touch and change none of them, never bypass a cut-out, and stop if you see scorch marks.',
  },
  {
    id: 'belt-pinch',
    caution:
      'Only with the plug out: the belt and the rollers pinch fingers, and the drum edge is sharp.',
  },
  {
    id: 'solvent',
    caution:
      'Rubbing alcohol burns and its vapour makes you dizzy. A few drops on a pad, no flame near, door open; nothing with chlorine beside it.',
  },
  {
    id: 'sink-edge',
    caution:
      'The water in the trap is dirty and may hold bleach or drain cleaner. Gloves on, and keep your face away. If drain cleaner was poured in lately, leave the trap closed.',
  },
  {
    id: 'panel-shock',
    caution:
      'If you feel the least tingle from the machine, let go, do not touch it again, and call an electrician.',
  },
];
