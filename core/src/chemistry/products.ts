import type { Active } from '../model/vocabulary.js';
import { spoken } from '../regions/spoken.js';

/** A kind of cleaning product, told apart by what acts in it. */
export interface Product {
  id: string;
  name: string;
  /** What the label says. */
  label: string;
  actives: readonly Active[];
  /** What whoever uses it has to know, told where it is chosen. */
  care?: string;
}

/** The answer where nothing is used. */
export const NOTHING = 'nothing';

/** Common practice; the words are those that labels use. */
export const PRODUCTS: readonly Product[] = spoken([
  {
    id: 'vinegar',
    name: 'Vinegar',
    label: 'household vinegar, acetic acid',
    actives: ['acetic-acid'],
  },
  {
    id: 'citric-acid',
    name: 'Citric acid',
    label: 'citric acid',
    actives: ['acid'],
    care: 'Wear gloves, and keep it out of your eyes.',
  },
  {
    id: 'descaler',
    name: 'Another descaler',
    label: 'an acid: lactic, sulfamic; formic only where the label names washing machines',
    actives: ['acid'],
    care: 'Never hydrochloric acid in a machine: it eats steel, and its fumes burn. The label’s dose, gloves and goggles.',
  },
  {
    id: 'mould-bleach',
    name: 'Mould remover with chlorine',
    label: 'sodium hypochlorite, “chlorine bleach”, “active chlorine”',
    actives: ['hypochlorite'],
    care: 'Not with asthma, and never sprayed: on a cloth. Window open, gloves, goggles. As long as the label says, and nothing else with it. It meets no acid, no alcohol, no urine.',
  },
  {
    id: 'mould-peroxide',
    name: 'Mould remover with oxygen',
    label: 'hydrogen peroxide, “active oxygen”',
    actives: ['peroxide'],
    care: 'Not with asthma, and never sprayed: on a cloth. Window open, gloves, goggles. As long as the label says, and nothing else with it.',
  },
  {
    id: 'mould-alcohol',
    name: 'Mould remover with alcohol',
    label: 'ethanol, isopropanol',
    actives: ['alcohol'],
    care: 'No flame near. Door open until the smell is gone, and only then the plug.',
  },
  {
    id: 'mould-unknown',
    name: 'Mould remover, I cannot tell which',
    label: 'the label is gone or names none of these',
    actives: ['unknown'],
    care: 'Not with asthma, and never sprayed: on a cloth. Window open, gloves, goggles. As long as the label says, and nothing else with it. Until you know what is in it, it counts as the worst.',
  },
  {
    id: 'cleaner-acid',
    name: 'Machine cleaner with acid',
    label: 'citric or another acid',
    actives: ['acid'],
  },
  {
    id: 'cleaner-oxygen',
    name: 'Machine cleaner with oxygen',
    label: 'sodium percarbonate, “oxygen bleach”',
    actives: ['peroxide'],
    care: 'Not together with any acid: they make peracids.',
  },
  {
    id: 'cleaner-mild',
    name: 'Machine cleaner with neither',
    label: 'surfactants, washing soda or enzymes alone: no acid, no bleach',
    actives: [],
  },
  {
    id: 'cleaner-unknown',
    name: 'Machine cleaner, I cannot tell which',
    label: 'the label is gone or names none of these',
    actives: ['unknown'],
  },
  {
    id: 'bleach',
    name: 'Chlorine bleach',
    label: 'sodium hypochlorite',
    actives: ['hypochlorite'],
    care: 'Plain, 5 to 8 %, never thick, scented or splash-less. Only where the manual allows it and has a place for it. Window open, gloves, goggles, in cold to warm water (US CDC, “Cleaning and disinfecting with bleach”). It pits stainless steel and eats the aluminium that carries the drum.',
  },
  {
    id: 'alcohol',
    name: 'Rubbing alcohol',
    label: 'isopropanol, ethanol, methylated spirit',
    actives: ['alcohol'],
    care: 'A few drops on a pad. No flame near. Door open until the smell is gone, and only then the plug.',
  },
  {
    id: 'hygiene-rinse',
    name: 'Hygiene rinse',
    label: 'quaternary ammonium, “benzalkonium chloride”',
    actives: ['quat'],
    care: 'Never together with chlorine bleach.',
  },
  {
    id: 'colour-run-remover',
    name: 'Colour-run remover',
    label: 'sodium dithionite, “hydrosulfite”',
    actives: ['dithionite'],
    care: 'Alone: never with an acid, an oxygen powder or chlorine bleach. Window open.',
  },
  {
    id: 'oxygen-powder',
    name: 'Oxygen powder',
    label: 'sodium percarbonate, “oxygen bleach”; stain remover powder',
    actives: ['peroxide'],
    care: 'Not together with any acid: they make peracids.',
  },
  {
    id: 'dishwasher-tablet',
    name: 'A dishwasher tablet',
    label: 'bleach (oxygen, in old ones chlorine), salts and surfactants that foam',
    actives: ['unknown'],
    care: 'Not made for washing machines: it may foam, bleach and leave salts. No maker allows it that says nothing of it.',
  },
  {
    id: 'drain-cleaner',
    name: 'Drain cleaner',
    label: 'lye (sodium hydroxide), often with chlorine bleach; some are strong acids',
    actives: ['unknown'],
    care: 'Only into the trap, never into the machine. It stays in the trap until much water has run: no other cleaner, and no open trap, until then.',
  },
  { id: 'acetone', name: 'Acetone', label: 'nail polish remover, acetone', actives: ['acetone'] },
  {
    id: 'ammonia',
    name: 'A cleaner with ammonia',
    label: 'ammonia, “ammonium hydroxide”; some glass cleaners; urine in pet bedding gives it off',
    actives: ['ammonia'],
  },
]);

const BY_ID = new Map(PRODUCTS.map((product) => [product.id, product]));

/** @throws RangeError for a product that is not known */
export function productById(id: string): Product {
  const product = BY_ID.get(id);
  if (!product) throw new RangeError(`No product is called "${id}".`);
  return product;
}

/** A product within a sentence; one that is not known is told as it was entered. */
export function sayProduct(id = 'a cleaning product'): string {
  const name = BY_ID.get(id)?.name ?? id;
  return name.charAt(0).toLowerCase() + name.slice(1);
}
