import { spoken } from '../../../regions/spoken.js';

/** Small drawings beside steps: what each shows, for who cannot see it. Drawn by the screens. */
export const FIGURES = spoken({
  'plug-out': 'The plug drawn out of its socket.',
  'flap-left': 'The flap at the lower left of the front, with the tray before it.',
  'flap-right': 'The flap at the lower right of the front, with the tray before it.',
  'drain-down': 'The short hose beside the filter, its cap off, over a tray half full.',
  'filter-out': 'The filter’s handle, turned anticlockwise.',
  'filter-in': 'The filter’s notch in line, turned clockwise until its tab meets the stop.',
  impeller: 'The little wheel at the back of the housing, turned with a skewer.',
  fold: 'The gasket’s fold with three drain holes at its bottom.',
  drawer: 'The drawer drawn out while the tab at its back is pressed.',
  jets: 'A thin wire in one of the small holes of the roof above the drawer.',
  inlet: 'The little screen behind the hose, gripped by its middle rib and pulled straight out.',
  tap: 'The tap’s handle across the pipe: shut.',
  standpipe: 'The hose hooked 15 to 30 cm (6 to 12 in) into the standpipe, open around it.',
  level: 'The bubble between its marks, and a foot with its locknut.',
  'lint-screen': 'Water from the tap running straight through the screen.',
  'screen-well': 'A long brush in the slot from which the screen was taken.',
  strips: 'Two bare metal strips side by side, wiped with a pad.',
  exchanger: 'Water showered through the fins from both sides.',
  'duct-brush': 'A brush on rods in the duct, turned clockwise only.',
  'gas-hose': 'Behind the dryer: a hose with a valve beside the plug means gas.',
  'vent-ways': 'A duct that goes straight out, one that climbs, one that goes down.',
  elbows: 'A duct from the dryer to the wall with its bends numbered: two.',
  condensate: 'A long drawer full of water, and a thin hose into a drain.',
  stack: 'One machine on the other, with a strip between them.',
  cellar: 'A machine in a room below the ground, with a small high window.',
  'type-plate': 'The plate inside the door frame with the power in watts.',
  hood: 'The hood’s flap lifted by the air, and a bag held over it.',
} as const);

export type FigureId = keyof typeof FIGURES;
