import type { TroubleCircumstance } from '../../model/vocabulary.js';
import { spoken } from '../../regions/spoken.js';

/** What makes some causes likelier before anything is told, in words for the person whose machine it is. */
export const CIRCUMSTANCES_SAID: Readonly<Record<TroubleCircumstance, string>> = spoken({
  moved: 'the machine was pulled out in the last two weeks',
  'filter-work': 'the filter was worked on in the last three days',
  drifting: 'drying has been getting slower',
  'lint-left': 'the lint screen was left for several loads',
  sheets: 'softener or dryer sheets are used',
  overdose: 'more detergent is poured than the label says',
  'hard-water': 'the water is hard',
  riser: 'the duct goes up through a riser',
  basement: 'the dryer stands in a cellar',
  'long-run': 'the vent run that you laid out is longer than it may be',
  old: 'the machine is more than ten years old',
  'cold-room': 'the room is not heated',
  restricted: 'something holds the air back',
  'hose-siphons': 'you measured the hose too low or too deep in its pipe',
  'hose-loose': 'you measured too little of the hose inside its pipe',
  tilted: 'your phone found it off level',
  'shakes-more': 'your phone felt it shake harder than it used to',
});
