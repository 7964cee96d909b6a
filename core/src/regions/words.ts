/** A word or a phrase as the texts have it, and what it is called elsewhere; absent where it is the same. */
export interface RegionWord {
  /** As written in the texts: the European English of manuals. */
  eu: string;
  uk?: string;
  us?: string;
}

/**
 * Words of a kind of house, the longer phrases before the words within them. Common usage. A word stands for
 * itself only: what has a second meaning in the texts is listed as a phrase.
 */
export const REGION_WORDS: readonly RegionWord[] = [
  // Water
  { eu: 'stop valve of the house', uk: 'stopcock of the house', us: 'main shut-off valve' },
  { eu: 'main tap of the water', uk: 'stopcock of the house', us: 'main shut-off valve' },
  { eu: 'main tap', uk: 'stopcock', us: 'main shut-off valve' },
  { eu: 'taps', us: 'faucets' },
  { eu: 'tap’s', us: 'faucet’s' },
  { eu: 'tap', us: 'faucet' },
  { eu: 'bath’s drain', us: 'bathtub’s drain' },
  { eu: 'in the bath', us: 'in the bathtub' },
  { eu: 'out of the bath', us: 'out of the bathtub' },
  { eu: 'and a bath', us: 'and a bathtub' },
  // Power
  { eu: 'wall socket', us: 'wall outlet' },
  { eu: 'a multiple socket', us: 'a power strip' },
  { eu: 'sockets', us: 'outlets' },
  { eu: 'socket', us: 'outlet' },
  { eu: 'extension lead', us: 'extension cord' },
  { eu: 'RCD', us: 'GFCI' },
  { eu: 'door lock and earth', us: 'door lock and ground' },
  { eu: 'breaker panel', uk: 'fuse box' },
  // Machines
  { eu: 'heat-pump dryer', uk: 'heat-pump tumble dryer' },
  { eu: 'heat-pump dryers', uk: 'heat-pump tumble dryers' },
  { eu: 'vented dryer', uk: 'vented tumble dryer' },
  { eu: 'condenser dryer', uk: 'condenser tumble dryer' },
  { eu: 'condenser dryers', uk: 'condenser tumble dryers' },
  { eu: 'gas dryer', uk: 'gas tumble dryer' },
  { eu: 'gas dryers', uk: 'gas tumble dryers' },
  { eu: 'clothes dryer', uk: 'tumble dryer' },
  { eu: 'a dryer', uk: 'a tumble dryer' },
  { eu: 'the dryer', uk: 'the tumble dryer' },
  { eu: 'this dryer', uk: 'this tumble dryer' },
  { eu: 'the dryer’s', uk: 'the tumble dryer’s' },
  { eu: 'a dryer’s', uk: 'a tumble dryer’s' },
  { eu: 'cycles', uk: 'programmes' },
  { eu: 'cycle', uk: 'programme' },
  // Tools and supplies
  { eu: 'torch', us: 'flashlight' },
  { eu: 'a spirit level', us: 'a level' },
  { eu: 'spanner', us: 'wrench' },
  { eu: 'bin bag', us: 'trash bag' },
  { eu: 'measuring jug', us: 'measuring cup' },
  { eu: 'with a jug', us: 'with a pitcher' },
  { eu: 'dish soap', uk: 'washing-up liquid' },
  { eu: 'soap and hot water', uk: 'washing-up liquid and hot water' },
  { eu: 'rubbing alcohol', uk: 'surgical spirit' },
  { eu: 'methylated spirit', us: 'denatured alcohol' },
  { eu: 'petrol', us: 'gasoline' },
  { eu: 'telephone’s', us: 'phone’s' },
  { eu: 'telephone', us: 'phone' },
  { eu: 'duvets', us: 'comforters' },
  { eu: 'duvet', us: 'comforter' },
  { eu: 'bed linen', us: 'bed sheets' },
  // The house and help
  { eu: 'cellar', us: 'basement' },
  { eu: 'loft', us: 'attic' },
  { eu: 'cupboard doors', us: 'closet doors' },
  { eu: 'autumn', us: 'fall' },
  { eu: 'licensed gas fitters', uk: 'registered gas engineers' },
  {
    eu: 'licensed gas fitter',
    uk: 'registered gas engineer',
    us: 'licensed gas fitter or your gas utility',
  },
  { eu: 'gas fitter', uk: 'registered gas engineer', us: 'gas fitter' },
  { eu: 'fitter', uk: 'registered engineer' },
  // Spelling
  { eu: 'anticlockwise', us: 'counterclockwise' },
  { eu: 'litres', us: 'liters' },
  { eu: 'litre', us: 'liter' },
  { eu: 'metres', us: 'meters' },
  { eu: 'metre', us: 'meter' },
  { eu: 'millimetres', us: 'millimeters' },
  { eu: 'centimetres', us: 'centimeters' },
  { eu: 'mould', us: 'mold' },
  { eu: 'grey', us: 'gray' },
  { eu: 'colours', us: 'colors' },
  { eu: 'colour', us: 'color' },
  { eu: 'colour-run', us: 'color-run' },
  { eu: 'neighbour’s', us: 'neighbor’s' },
  { eu: 'neighbour', us: 'neighbor' },
  { eu: 'draught', us: 'draft' },
  { eu: 'vapours', us: 'vapors' },
  { eu: 'vapour', us: 'vapor' },
  { eu: 'aluminium', us: 'aluminum' },
  { eu: 'sulphur', us: 'sulfur' },
  { eu: 'poison centre', us: 'poison center' },
  { eu: 'centre', us: 'center' },
  { eu: 'louvres', us: 'louvers' },
  { eu: 'mitred', us: 'mitered' },
];
