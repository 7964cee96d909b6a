import { scaleDissolved } from '../../chemistry/moles.js';
import {
  CITRIC_DOSE,
  FALLS_OUT,
  HARD_FROM,
  HEATED_LITRES,
  VERY_HARD_FROM,
} from '../../measure/water/scale.js';

/* How fast scale grows: hardness x litres x the share that falls out at the usual wash temperature. */

/** What one dose of citric acid dissolves, g CaCO3. */
export const SCALE_A_DOSE = scaleDissolved('citric', CITRIC_DOSE);

/** Hardness reckoned with where the household's is not known, mg/L CaCO3: where very hard begins. */
export const HARDNESS_UNKNOWN = VERY_HARD_FROM;
/** Up to here there is nothing worth descaling, mg/L CaCO3: soft and moderately hard. */
export const HARDLY_ANY_SCALE = HARD_FROM;

/**
 * Loads at the usual temperature after which one dose of citric acid is worth it.
 * @param hardness mg/L CaCO3, above 0
 */
export const loadsForADose = (hardness: number): number =>
  (SCALE_A_DOSE * 1000) / (Math.max(hardness, 1) * HEATED_LITRES * FALLS_OUT[40]);
