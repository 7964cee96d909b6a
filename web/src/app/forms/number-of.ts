/** A number as people type it, with a comma or a point. */
export const numberOf = (text: string): number =>
  /^\s*[-+]?\d*[.,]?\d+\s*$/.test(text) ? Number(text.trim().replace(',', '.')) : NaN;
