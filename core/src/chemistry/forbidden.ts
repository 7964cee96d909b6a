import type { Active } from '../model/vocabulary.js';

/** What acts in a product, as a label or a person would say it. */
export const ACTIVE_NAMES: Record<Active, string> = {
  hypochlorite: 'chlorine bleach (hypochlorite)',
  'acetic-acid': 'vinegar (acetic acid)',
  acid: 'acid',
  ammonia: 'ammonia',
  alcohol: 'alcohol',
  acetone: 'acetone',
  peroxide: 'oxygen bleach (peroxide)',
  unknown: 'something not known',
};

/** Two things that must not meet. */
export interface Forbidden {
  pair: readonly [Active, Active];
  /** What they make of each other. */
  gives: string;
  /** What that does to a person. */
  harm: string;
  /** What to do if it happened. */
  aid: string;
  source: string;
}

const GAS_AID =
  'If it has happened: get out and shut the door behind you, open windows only on your way, and do not go back to clean up. Coughing, tight breath or stinging eyes: fresh air, rinse eyes with water for 15 minutes, and call your poison centre or the emergency number.';
const SKIN_AID =
  'If it has happened: do not touch or move it, get out and air the room from outside. On skin or in the eyes: rinse with plenty of water for 15 minutes, and call your poison centre or the emergency number.';

const BRETHERICK =
  'Bretherick’s Handbook of Reactive Chemical Hazards, sodium hypochlorite (from memory)';

/** Each pair once. Sources from memory where so said. */
export const FORBIDDEN: readonly Forbidden[] = [
  {
    pair: ['hypochlorite', 'acetic-acid'],
    gives: 'chlorine gas',
    harm: 'It burns the lungs, in a small room within a few breaths.',
    aid: GAS_AID,
    source:
      'US CDC, “Cleaning and disinfecting with bleach”; Washington State Department of Health, “Dangers of mixing bleach with cleaners” (both from memory)',
  },
  {
    pair: ['hypochlorite', 'acid'],
    gives: 'chlorine gas',
    harm: 'It burns the lungs, in a small room within a few breaths.',
    aid: GAS_AID,
    source:
      'US CDC, “Cleaning and disinfecting with bleach”; the warning on bleach and descaler labels, EU hazard statement EUH031 (from memory)',
  },
  {
    pair: ['hypochlorite', 'ammonia'],
    gives: 'chloramine gas',
    harm: 'It burns eyes and lungs, and the harm can come hours later.',
    aid: GAS_AID,
    source:
      'Washington State Department of Health, “Dangers of mixing bleach with cleaners” (from memory)',
  },
  {
    pair: ['hypochlorite', 'alcohol'],
    gives: 'chloroform and other chlorinated vapours',
    harm: 'They make you dizzy or faint and harm liver and nerves.',
    aid: GAS_AID,
    source: `${BRETHERICK}: the haloform reaction`,
  },
  {
    pair: ['hypochlorite', 'acetone'],
    gives: 'chloroform and other chlorinated vapours',
    harm: 'They make you dizzy or faint and harm liver and nerves.',
    aid: GAS_AID,
    source: `${BRETHERICK}: the haloform reaction`,
  },
  {
    pair: ['hypochlorite', 'peroxide'],
    gives: 'oxygen and heat, all at once',
    harm: 'It foams over and spits, and can burst a closed drawer or bottle.',
    aid: SKIN_AID,
    source: BRETHERICK,
  },
  {
    pair: ['peroxide', 'acetic-acid'],
    gives: 'peracetic acid',
    harm: 'It burns skin, eyes and lungs, and eats rubber.',
    aid: SKIN_AID,
    source: 'US EPA, acute exposure guideline levels for peracetic acid (from memory)',
  },
  {
    pair: ['peroxide', 'acetone'],
    gives: 'acetone peroxides',
    harm: 'Dried crystals of it can explode.',
    aid: SKIN_AID,
    source:
      'Bretherick’s Handbook of Reactive Chemical Hazards, hydrogen peroxide with ketones (from memory)',
  },
];
