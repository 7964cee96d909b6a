/** A chance in words a person can use. */
export const percent = (chance: number): string =>
  chance < 0.01 ? 'under 1 %' : chance > 0.99 ? 'over 99 %' : `${Math.round(100 * chance)} %`;
