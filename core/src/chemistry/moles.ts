/** g/mol (IUPAC standard atomic weights; NIST Chemistry WebBook, from memory). */
export const MOLAR = {
  acetic: 60.052,
  bicarbonate: 84.007,
  carbonate: 100.087,
  citric: 192.12,
  sodiumAcetate: 82.03,
  calciumAcetate: 158.17,
  water: 18.015,
  carbonDioxide: 44.009,
} as const;

/** L/mol of a gas at 25 °C and 1 atm. */
export const MOLAR_VOLUME = 24.465;
/** Baking soda as it is poured, g/ml. */
export const SODA_DENSITY = 0.93;

/** g of scale that an acid alone dissolves. @param grams of the acid itself */
export const scaleDissolved = (acid: 'acetic' | 'citric', grams: number): number =>
  acid === 'acetic'
    ? (grams / MOLAR.acetic / 2) * MOLAR.carbonate
    : (grams / MOLAR.citric) * 1.5 * MOLAR.carbonate;
