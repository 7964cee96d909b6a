import type { Active } from '../model/vocabulary.js';
import { spoken } from '../regions/spoken.js';

/** A mix that people make, as data: what goes where, and what has to follow. */
export interface Recipe {
  id: string;
  name: string;
  for: string;
  parts: readonly { what: string; ml?: number; g?: number; scaled?: 'front-top' }[];
  /** What acts in it. */
  actives: readonly Active[];
  where: 'drum' | 'drawer' | 'soak';
  programme: string;
  celsius?: number;
  rinse: 'full' | 'place';
  school: string;
  reason: string;
}

/** Common practice. No recipe brings an acid and chlorine together. */
export const RECIPES: readonly Recipe[] = spoken([
  {
    id: 'vinegar-half',
    name: 'Vinegar and water, one to one',
    for: 'slime and soap film on filter, drawer and gasket',
    parts: [
      { what: 'vinegar, 5 %', ml: 250 },
      { what: 'warm water', ml: 250 },
    ],
    actives: ['acetic-acid'],
    where: 'soak',
    programme: 'soak for ten minutes, brush, rinse under the tap',
    rinse: 'place',
    school: 'often recommended for parts that are taken out',
    reason: 'Half strength dissolves film, and spares rubber when it is rinsed off.',
  },
  {
    id: 'vinegar-hot',
    name: 'Vinegar in a hot empty cycle',
    for: 'film and some scale behind the drum',
    parts: [
      {
        what: 'vinegar, 5 %: 2 cups in a front loader, 4 in a top loader',
        ml: 473,
        scaled: 'front-top',
      },
    ],
    actives: ['acetic-acid'],
    where: 'drum',
    programme: 'the hottest, empty',
    celsius: 90,
    rinse: 'full',
    school:
      'some; others say citric acid or the manual’s cleaner, and some makers forbid vinegar, which can harden seals',
    reason: 'Heat and acid loosen film. Only where the manual does not forbid it.',
  },
  {
    id: 'citric-hot',
    name: 'Citric acid in a hot empty cycle',
    for: 'scale',
    parts: [{ what: 'citric acid', g: 100 }],
    actives: ['acid'],
    where: 'drum',
    programme: '60 °C (140 °F), empty (above, it can leave its own salt)',
    celsius: 60,
    rinse: 'full',
    school: 'most, against scale',
    reason: '100 g dissolve at most 78 g of scale, four times what two cups of vinegar do.',
  },
  {
    id: 'soda-paste',
    name: 'Baking-soda paste',
    for: 'film on the glass and in the drawer',
    parts: [
      { what: 'baking soda', g: 60 },
      { what: 'water', ml: 20 },
    ],
    actives: [],
    where: 'soak',
    programme: 'rub on, leave five minutes, wipe off',
    rinse: 'place',
    school: 'some; it scours mildly',
    reason: 'It scours gently. Mixed with vinegar it would only fizz: each spends the other.',
  },
  {
    id: 'bleach-hot',
    name: 'Chlorine bleach in a warm empty cycle',
    for: 'mould and slime that come back',
    parts: [{ what: 'plain chlorine bleach, 5 to 8 %, half a cup', ml: 118 }],
    actives: ['hypochlorite'],
    where: 'drawer',
    programme: 'cold to warm, empty, then an extra rinse',
    celsius: 40,
    rinse: 'full',
    school: 'some; only where the manual allows it and has a place for it',
    reason:
      'It kills what grows, and heat only drives it off (US CDC). Window open, gloves, goggles. It must never meet vinegar, citric acid, descaler, ammonia, alcohol or peroxide.',
  },
  {
    id: 'oxygen-hot',
    name: 'Oxygen bleach in a hot empty cycle',
    for: 'smell and grease, without chlorine',
    parts: [{ what: 'oxygen bleach powder (percarbonate)', g: 60 }],
    actives: ['peroxide'],
    where: 'drum',
    programme: '60 °C (140 °F), empty',
    celsius: 60,
    rinse: 'full',
    school: 'makers who say oxygen powder and never chlorine',
    reason: 'It frees oxygen from 40 °C (104 °F) on. Not together with chlorine or any acid.',
  },
]);
