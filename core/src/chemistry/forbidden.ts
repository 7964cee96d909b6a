import type { Active } from '../model/vocabulary.js';
import { spoken } from '../regions/spoken.js';

/** What acts in a product, as a label or a person would say it. */
export const ACTIVE_NAMES: Record<Active, string> = spoken({
  hypochlorite: 'chlorine bleach (hypochlorite)',
  'acetic-acid': 'vinegar (acetic acid)',
  acid: 'acid',
  ammonia: 'ammonia',
  alcohol: 'alcohol',
  acetone: 'acetone',
  peroxide: 'oxygen bleach (peroxide)',
  quat: 'hygiene rinse (quaternary ammonium)',
  dithionite: 'colour-run remover (dithionite)',
  unknown: 'something not known',
});

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

/** First aid, as poison centres give it (common practice; WHO/IPCS, from memory). */
const BREATHING =
  'Breathing comes first: out into fresh air; hard breathing, a cough that stays, or a faint: the emergency number at once.';
const CALL = 'Call the poison centre also where nobody feels ill: the harm can come hours later.';
const GAS_AID = `If it has happened: get out and shut the door behind you. Open windows only on your way, and do not go back to clean up. ${BREATHING} Stinging eyes: lenses out, rinse with water for 15 minutes. ${CALL}`;
const SKIN_AID = `If it has happened: do not touch or move it, get out and air the room from outside. ${BREATHING} On skin: wet clothes off, rinse for 15 minutes. In the eyes: lenses out, rinse for 15 minutes. Swallowed: rinse the mouth, do not vomit. ${CALL}`;

const PERACIDS =
  'Bretherick’s Handbook of Reactive Chemical Hazards, peroxyacids from hydrogen peroxide and acids (from memory)';
const SDS_DITHIONITE =
  'EU hazard statements of sodium dithionite: EUH031, contact with acids liberates toxic gas; H251, self-heating (from memory)';
const BRETHERICK =
  'Bretherick’s Handbook of Reactive Chemical Hazards, sodium hypochlorite (from memory)';

/** Each pair once. Sources from memory where so said. */
export const FORBIDDEN: readonly Forbidden[] = spoken([
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
    // Percarbonate and hydrogen peroxide with citric, lactic or formic acid.
    pair: ['peroxide', 'acid'],
    gives: 'peracids, such as performic acid',
    harm: 'They burn skin, eyes and lungs, and a closed bottle or drawer can burst.',
    aid: SKIN_AID,
    source: PERACIDS,
  },
  {
    pair: ['hypochlorite', 'quat'],
    gives: 'chloramines, and neither works any more',
    harm: 'They burn eyes and lungs, and the harm can come hours later.',
    aid: GAS_AID,
    source:
      'Labels of hygiene rinses: not together with chlorine bleach; US CDC, “Cleaning and disinfecting with bleach” (from memory)',
  },
  {
    pair: ['dithionite', 'acetic-acid'],
    gives: 'sulphur dioxide',
    harm: 'It stings and burns the lungs, worst where somebody has asthma.',
    aid: GAS_AID,
    source: SDS_DITHIONITE,
  },
  {
    pair: ['dithionite', 'acid'],
    gives: 'sulphur dioxide',
    harm: 'It stings and burns the lungs, worst where somebody has asthma.',
    aid: GAS_AID,
    source: SDS_DITHIONITE,
  },
  {
    pair: ['dithionite', 'hypochlorite'],
    gives: 'heat and chlorine or sulphur dioxide, all at once',
    harm: 'It spits, can catch fire, and burns the lungs.',
    aid: GAS_AID,
    source: `${BRETHERICK}: with reducing agents`,
  },
  {
    pair: ['dithionite', 'peroxide'],
    gives: 'heat, all at once, and sulphur dioxide',
    harm: 'It foams over and spits, can catch fire, and burns the lungs.',
    aid: GAS_AID,
    source: SDS_DITHIONITE,
  },
  {
    pair: ['peroxide', 'acetone'],
    gives: 'acetone peroxides',
    harm: 'Dried crystals of it can explode.',
    aid: SKIN_AID,
    source:
      'Bretherick’s Handbook of Reactive Chemical Hazards, hydrogen peroxide with ketones (from memory)',
  },
]);
