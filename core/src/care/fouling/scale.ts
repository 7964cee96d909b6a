/*
 * How fast scale grows: hardness x litres x the share that falls out at the wash temperature.
 * Judgement, as the shares are: a load takes some 50 litres; at 40 °C 5 % of its hardness stays.
 */

const LITRES_A_LOAD = 50;
const SHARE_AT_40 = 0.05;
/** What one dose of 100 g citric acid dissolves, g CaCO3: 3 mol for 2 of acid, 100.087 and 192.12 g/mol. */
export const SCALE_A_DOSE = ((100 / 192.12) * 3 * 100.087) / 2;

/** Hardness reckoned with where the household's is not known, mg/L CaCO3: where very hard begins. */
export const HARDNESS_UNKNOWN = 180;
/** Up to here there is nothing worth descaling, mg/L CaCO3 (USGS: soft and moderately hard). */
export const HARDLY_ANY_SCALE = 120;

/**
 * Loads at the usual temperature after which one dose of citric acid is worth it.
 * @param hardness mg/L CaCO3, above 0
 */
export const loadsForADose = (hardness: number): number =>
  (SCALE_A_DOSE * 1000) / (Math.max(hardness, 1) * LITRES_A_LOAD * SHARE_AT_40);
