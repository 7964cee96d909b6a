/*
 * The normal distribution, for beliefs about fouling.
 */

/**
 * Normal cumulative distribution function.
 * @param z standard deviations from the mean
 * @returns probability, 0 to 1; absolute error below 1e-14
 * @source Marsaglia 2004, "Evaluating the normal distribution", Journal of Statistical Software 11(4):
 *   the Taylor series about 0; beyond 6 the asymptotic tail
 */
export function normalCdf(z: number): number {
  if (z < -38) return 0;
  if (z > 38) return 1;
  if (Math.abs(z) > 6) {
    const tail = tailBeyond(Math.abs(z));
    return z < 0 ? tail : 1 - tail;
  }
  let sum = z;
  let term = z;
  for (let i = 3; Math.abs(term) > 1e-17 * Math.abs(sum) && i < 400; i += 2) {
    term *= (z * z) / i;
    sum += term;
  }
  return 0.5 + sum * density(z);
}

const density = (z: number): number => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI);

/** Upper tail for z > 6, by Lentz' continued fraction 1/(z+1/(z+2/(z+3/...))). */
function tailBeyond(z: number): number {
  let fraction = z;
  for (let k = 60; k >= 1; k--) fraction = z + k / fraction;
  return density(z) / fraction;
}

/**
 * Inverse of the normal cumulative distribution function.
 * @param p probability, above 0 and below 1
 * @throws RangeError outside that range
 * @source bisection and Newton steps on `normalCdf`
 */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) throw new RangeError('A probability lies between 0 and 1.');
  let low = -10;
  let high = 10;
  for (let i = 0; i < 20; i++) {
    const middle = (low + high) / 2;
    if (normalCdf(middle) < p) low = middle;
    else high = middle;
  }
  let z = (low + high) / 2;
  for (let i = 0; i < 3; i++) z -= (normalCdf(z) - p) / density(z);
  return z;
}
