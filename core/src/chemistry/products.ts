import type { Active } from '../model/vocabulary.js';

/** A kind of cleaning product, told apart by what acts in it. */
export interface Product {
  id: string;
  name: string;
  /** What the label says. */
  label: string;
  actives: readonly Active[];
}

/** The answer where nothing is used. */
export const NOTHING = 'nothing';

/** Common practice; the words are those that labels use. */
export const PRODUCTS: readonly Product[] = [
  {
    id: 'vinegar',
    name: 'Vinegar',
    label: 'household vinegar, acetic acid',
    actives: ['acetic-acid'],
  },
  { id: 'citric-acid', name: 'Citric acid', label: 'citric acid', actives: ['acid'] },
  {
    id: 'descaler',
    name: 'Another descaler',
    label: 'an acid: lactic, sulfamic, formic, hydrochloric',
    actives: ['acid'],
  },
  {
    id: 'mould-bleach',
    name: 'Mould remover with chlorine',
    label: 'sodium hypochlorite, “chlorine bleach”, “active chlorine”',
    actives: ['hypochlorite'],
  },
  {
    id: 'mould-peroxide',
    name: 'Mould remover with oxygen',
    label: 'hydrogen peroxide, “active oxygen”',
    actives: ['peroxide'],
  },
  {
    id: 'mould-alcohol',
    name: 'Mould remover with alcohol',
    label: 'ethanol, isopropanol',
    actives: ['alcohol'],
  },
  {
    id: 'mould-unknown',
    name: 'Mould remover, I cannot tell which',
    label: 'the label is gone or names none of these',
    actives: ['unknown'],
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
  },
  {
    id: 'cleaner-mild',
    name: 'Machine cleaner with neither',
    label: 'surfactants, soda or enzymes alone: no acid, no bleach',
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
  },
  {
    id: 'alcohol',
    name: 'Rubbing alcohol',
    label: 'isopropanol, ethanol, methylated spirit',
    actives: ['alcohol'],
  },
  { id: 'acetone', name: 'Acetone', label: 'nail polish remover, acetone', actives: ['acetone'] },
  {
    id: 'ammonia',
    name: 'A cleaner with ammonia',
    label: 'ammonia, “ammonium hydroxide”; some glass cleaners',
    actives: ['ammonia'],
  },
];

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
