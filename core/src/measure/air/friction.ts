/** Reynolds number up to which flow is laminar; reckoned as turbulent from here on. Textbook, from memory. */
const TRANSITION = 2040;
/** Between these a pipe may be either: what it loses is drawn as a straight line from one to the other. */
const LAMINAR = 2000;
const TURBULENT = 4000;

/**
 * Darcy friction factor of a round pipe: 64/Re while laminar, else Colebrook and White's equation,
 * solved by Newton's method for x = 1/√f to a step of 1e-12.
 *
 * ```
 *   x + 2 lg( e/D / 3.7 + 2.51 x / Re ) = 0
 * ```
 * @param reynolds above 0
 * @param relativeRoughness e/D, 0 to 0.2
 * @throws RangeError outside these
 * @example frictionFactor(1e5, 1e-4) // 0.018514
 */
export function frictionFactor(reynolds: number, relativeRoughness: number): number {
  if (!(reynolds > 0)) throw new RangeError('The Reynolds number is above 0.');
  if (!(relativeRoughness >= 0 && relativeRoughness <= 0.2)) {
    throw new RangeError('The relative roughness is from 0 to 0.2.');
  }
  if (reynolds < TRANSITION) return 64 / reynolds;
  const a = relativeRoughness / 3.7;
  const b = 2.51 / reynolds;
  // Haaland's formula is within a few percent.
  let x = -1.8 * Math.log10(a ** 1.11 + 6.9 / reynolds);
  for (let i = 0; i < 30; i++) {
    const inner = a + b * x;
    const step = (x + 2 * Math.log10(inner)) / (1 + (2 * b) / (Math.LN10 * inner));
    x -= step;
    if (Math.abs(step) < 1e-12) break;
  }
  return 1 / (x * x);
}

/**
 * Pressure lost along a straight round duct (Darcy and Weisbach), Pa.
 * @param duct diameter, length and roughness, m
 * @param flow m³/s
 * @param air density kg/m³ and viscosity Pa·s
 */
export function straightLoss(
  duct: { diameter: number; length: number; roughness: number },
  flow: number,
  air: { density: number; viscosity: number },
): number {
  if (flow <= 0) return 0;
  const speed = speedIn(duct.diameter, flow);
  const reynolds = (air.density * speed * duct.diameter) / air.viscosity;
  const f = bridged(reynolds, Math.min(0.2, duct.roughness / duct.diameter));
  return f * (duct.length / duct.diameter) * (air.density / 2) * speed * speed;
}

/** The friction factor without a jump, so that a blower and a run always meet somewhere. */
function bridged(reynolds: number, relativeRoughness: number): number {
  if (reynolds <= LAMINAR || reynolds >= TURBULENT) {
    return frictionFactor(reynolds, relativeRoughness);
  }
  const [from, to] = [64 / LAMINAR, frictionFactor(TURBULENT, relativeRoughness)];
  return from + ((reynolds - LAMINAR) / (TURBULENT - LAMINAR)) * (to - from);
}

/** m/s. @param diameter m @param flow m³/s */
export const speedIn = (diameter: number, flow: number): number =>
  (4 * flow) / (Math.PI * diameter * diameter);
