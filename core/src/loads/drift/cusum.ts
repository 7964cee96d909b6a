/** What counts as half of the shift that is looked for, and where a signal is given, in standard deviations. */
export interface CusumLimits {
  k: number;
  h: number;
}
/** Montgomery, Introduction to Statistical Quality Control, table 9.3: two sides, run length 465, 10.4 at one sigma. */
export const TABULAR: CusumLimits = { k: 0.5, h: 5 };

/**
 * A tabular CUSUM of figures that are standard normal while nothing changes (Page 1954; Montgomery, chapter 9): each
 * side adds up what lies further out than `k`, and falls back to nothing otherwise.
 * @example
 *   const chart = new Cusum();
 *   for (const z of figures) if (chart.add(z)) tell(chart.since);
 */
export class Cusum {
  /** What has been added up on each side. */
  up = 0;
  down = 0;
  /** How many figures ago each side left nothing: when the shift began, most likely. */
  upSince = 0;
  downSince = 0;

  constructor(readonly limits: CusumLimits = TABULAR) {}

  /** @param z standard deviations from what is usual @returns to which side it has shifted, if it has */
  add(z: number): 'up' | 'down' | undefined {
    const { k, h } = this.limits;
    this.up = Math.max(0, this.up + z - k);
    this.upSince = this.up > 0 ? this.upSince + 1 : 0;
    this.down = Math.max(0, this.down - z - k);
    this.downSince = this.down > 0 ? this.downSince + 1 : 0;
    return this.up > h ? 'up' : this.down > h ? 'down' : undefined;
  }

  /** From here on as if nothing had been. */
  reset(): void {
    this.up = this.down = this.upSince = this.downSince = 0;
  }
}
