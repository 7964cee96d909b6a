import { VENTED } from '../../../model/vocabulary.js';
import type { Hazard } from '../types.js';
import { spoken } from '../../../regions/spoken.js';

/** Cautions, each shown at the step where it counts. Common practice. */
export const HAZARDS: readonly Hazard[] = spoken([
  {
    id: 'electric',
    caution:
      'Plug out before hands go in. Wired in without a plug: switch its circuit off, and try that the machine stays dark. Dry your hands first.',
  },
  {
    id: 'scald',
    caution:
      'Water from a hot cycle scalds within seconds, and double glass hides how hot it is. A drum that did not drain stays hot for hours: wait until tomorrow, or measure the first cup: under 40 °C (104 °F).',
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
      'A full drum holds four buckets or more, and after a hot cycle it scalds for hours. Do not pull the drain hose down, do not tip or move the machine, and do not force the door.',
  },
  {
    id: 'tipping',
    caution:
      'A washer weighs as much as a grown person. Never tip it: lever a foot free with a board, a second person steadies the top, and no hand or foot goes under it.',
  },
  {
    id: 'wedged',
    caution: 'The cap is plastic. Do not lever it; what breaks here has to be replaced.',
  },
  {
    id: 'impeller',
    caution:
      'Only with the plug out, and with a skewer, never a finger: broken glass or a pin may sit beside it.',
  },
  {
    id: 'mould-remover',
    caution:
      'Many mould removers contain chlorine bleach. On a cloth, never sprayed; gloves, goggles, window open; not with asthma. Never with vinegar, citric acid, descaler, ammonia, alcohol or peroxide, nor on pet bedding with urine. A full rinse before anything else goes in.',
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
      'Gas dryer: shut its gas valve first, and never run it with the duct off. If you smell gas: touch no switch, leave, and call from outside. Anything on the gas line itself is work for a licensed gas fitter.',
    when: { energy: ['gas', 'unknown'] },
  },
  {
    id: 'gas-unsure',
    caution:
      'If you do not know whether this dryer burns gas, look for a second pipe with a valve at its back. If there is one, or you are unsure, leave the duct to a professional.',
  },
  {
    id: 'moving',
    caution:
      'Pull with a second person if it does not slide easily: a machine weighs 30 to 100 kg (70 to 220 lb). Watch that the cable, the hoses and the duct come along and are not stretched.',
  },
  {
    id: 'stacked',
    caution:
      'This machine stands in a stack, and a stack is top-heavy: never move it or lift a foot of it alone. Two people, one at each side, or leave it where it stands.',
  },
  {
    id: 'ladder',
    caution:
      'Work from the ground where you can. On a ladder: firm ground, somebody holding it, never reaching sideways. A hood on the roof, or too high, is work for a professional.',
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
      'Vinyl or plastic duct burns. Some dryers are still supplied with one: metal is safer, change it. Foil is allowed only where your local code and the maker’s manual say so.',
  },
  {
    id: 'no-screen',
    caution: 'Never run a dryer without its lint screen: the lint goes to the heater and the duct.',
  },
  {
    id: 'heat-pump-manual',
    caution:
      'The coil is sealed, and may hold propane (R290: a flame sign on the plate). Follow your manual; never pierce, scrape or bend it. A hiss, or oil below: touch no switch, no flame, open a window, get out, and call a refrigeration technician.',
    when: { kinds: ['heat-pump-dryer'] },
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
      'A dryer never blows into the room, nor into a flue, chimney, loft, crawl space or garage. The damp makes mould, and the lint burns. A gas dryer run with its duct off fills the house with carbon monoxide.',
  },
  {
    id: 'hot-glass',
    caution: 'During the hot cycle the door glass gets hot enough to burn. Do not lean on it.',
  },
  {
    id: 'cleaner-alone',
    caution:
      'One product only. Never put an acid (vinegar, citric acid, descaler) in together with chlorine bleach or with an oxygen powder, or before what was used last has been rinsed out.',
  },
  {
    id: 'gas-professional',
    caution:
      'On a gas dryer, or if you are not sure, blower and cabinet are work for a licensed gas fitter. Leave the panels on.',
  },
  {
    id: 'inside-panels',
    caution:
      'Behind the panels are mains wiring, a heater and a thermal cut-out, and a capacitor that holds a charge after the plug is out. Touch no part with wires on it, never bypass a cut-out, and stop if you see scorch marks.',
  },
  {
    id: 'belt-pinch',
    caution:
      'Only with the plug out: the belt and the rollers pinch fingers, and the drum edge is sharp.',
  },
  {
    id: 'solvent',
    caution:
      'Rubbing alcohol burns and its vapour makes you dizzy. A few drops on a pad, no flame near, door open until the smell is gone, and only then the plug. Nothing with chlorine beside it.',
  },
  {
    id: 'sink-edge',
    caution:
      'The water in the trap is dirty and may hold bleach or drain cleaner, which burns skin and eyes. Gloves and goggles on, and your face away. If drain cleaner was poured in lately, leave the trap closed.',
  },
  {
    id: 'panel-shock',
    caution:
      'If you feel the least tingle from the machine, let go, do not touch it again, and call an electrician.',
  },
  {
    id: 'mould-health',
    caution:
      'Heavy mould: wear a mask (FFP2 or N95), and keep children out. With asthma or weak immunity, let somebody else do it.',
  },
  {
    id: 'bag-test',
    caution:
      'Hold the bag from the ground only, with the heat off. Let go after 5 seconds, full or not: a closed hood holds the air back.',
  },
  {
    id: 'gas-connector',
    caution:
      'Moving a gas dryer bends its connector, and old or uncoated brass ones break (US CPSC). Valve out of reach, or a connector that is old or that you cannot name: do not move it, call a licensed gas fitter. Plug out of reach: switch its circuit off first.',
    when: { kinds: [...VENTED], energy: ['gas', 'unknown'] },
  },
  {
    id: 'live-parts',
    caution:
      'Behind this panel a capacitor can hold a charge after the plug is out. Touch no part with wires on it.',
  },
  {
    id: 'lead',
    caution:
      'Straight into the wall socket: never an extension lead, a multiple socket or a travel adapter. A heater overheats them.',
  },
  {
    id: 'children',
    caution:
      'Children and pets climb in, and the door falls shut. Look into the drum before each start. A door ajar: child lock on, or hooked, or the room out of their reach.',
  },
  {
    id: 'fire-load',
    caution:
      'Never into a dryer: foam rubber, latex, rubber-backed mats, anything with oil, wax, petrol, spot remover or thinner. No lighter in a pocket. Let the cool-down finish; not while you sleep or are out.',
  },
  {
    id: 'hot-hose',
    caution: 'Two hoses: shut both taps. What comes out of the hot one scalds: let it cool first.',
  },
]);
