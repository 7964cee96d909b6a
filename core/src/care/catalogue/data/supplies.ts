import type { SupplyUnit } from '../../../model/vocabulary.js';
import { spoken } from '../../../regions/spoken.js';

/** Something that care uses up, or a part that wears. Pack sizes are common ones; each house has its own. */
export interface SupplyKind {
  id: string;
  name: string;
  unit: SupplyUnit;
  pack: number;
  /** What a person takes of a piece that is not used up at once. */
  portion?: string;
  /** What it is for, in a few words. */
  for: string;
}

/** Common practice. */
export const SUPPLIES: readonly SupplyKind[] = spoken([
  { id: 'dish-soap', name: 'Dish soap', unit: 'ml', pack: 500, for: 'washing filters and screens' },
  {
    id: 'vinegar',
    name: 'Household vinegar, 5 %',
    unit: 'ml',
    pack: 1000,
    for: 'soaking slime and soap film',
  },
  {
    id: 'citric-acid',
    name: 'Citric acid, powder',
    unit: 'g',
    pack: 500,
    for: 'dissolving scale',
  },
  {
    id: 'baking-soda',
    name: 'Baking soda',
    unit: 'g',
    pack: 500,
    for: 'a paste for film on drum and glass',
  },
  {
    id: 'machine-cleaner',
    name: 'Washing-machine cleaner',
    unit: 'ml',
    pack: 750,
    for: 'the hot empty cycle, where the manual asks for it',
  },
  {
    id: 'mould-remover',
    name: 'Mould remover',
    unit: 'ml',
    pack: 500,
    for: 'black spots on gasket and drawer',
  },
  {
    id: 'alcohol',
    name: 'Rubbing alcohol',
    unit: 'ml',
    pack: 250,
    for: 'wiping sensor strips',
  },
  { id: 'gloves', name: 'Rubber gloves', unit: 'pieces', pack: 2, for: 'mould remover and sludge' },
  {
    id: 'foil-tape',
    name: 'Metal foil tape',
    unit: 'pieces',
    pack: 1,
    for: 'joints of the duct; a roll',
    portion: 'a strip of tape',
  },
  {
    id: 'sealing-washer',
    name: 'Hose washers',
    unit: 'pieces',
    pack: 4,
    for: 'the joints of the fill hose',
  },
  { id: 'fill-hose', name: 'Braided fill hose', unit: 'pieces', pack: 1, for: 'every five years' },
  {
    id: 'lint-screen',
    name: 'Lint screen, spare',
    unit: 'pieces',
    pack: 1,
    for: 'when the mesh has a hole',
  },
  {
    id: 'pump-filter',
    name: 'Pump filter, spare',
    unit: 'pieces',
    pack: 1,
    for: 'when thread or seal is damaged',
  },
  {
    id: 'gasket',
    name: 'Door gasket, spare',
    unit: 'pieces',
    pack: 1,
    for: 'when it leaks or stays black',
  },
]);
