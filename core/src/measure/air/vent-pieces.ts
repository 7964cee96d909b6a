/*
 * What a dryer's vent is made of, with the losses and the deductions of its fittings.
 * Losses: ASHRAE fitting data for round elbows and common duct practice, from memory.
 * Deductions: International Residential Code, table M1502.4.6.1 (2015 to 2021), from memory.
 */

export const ELBOW_RADII = ['mitered', '4-in', '6-in', '8-in', '10-in'] as const;
export type ElbowRadius = (typeof ELBOW_RADII)[number];
export const ELBOW_ANGLES = [45, 90] as const;
export type ElbowAngle = (typeof ELBOW_ANGLES)[number];
export const DIRECTIONS = ['level', 'up', 'down'] as const;
export type Direction = (typeof DIRECTIONS)[number];

const FOOT = 0.3048;
const INCH = 0.0254;

/** Deducted from the allowed length for a fitting, m: feet and inches of the code's table. */
export const DEDUCTIONS: Record<ElbowRadius, Record<ElbowAngle, number>> = {
  mitered: { 45: 2.5 * FOOT, 90: 5 * FOOT },
  // A smooth elbow of a 4-inch radius is not in the table: counted like the mitered one.
  '4-in': { 45: 2.5 * FOOT, 90: 5 * FOOT },
  '6-in': { 45: 1 * FOOT, 90: 1 * FOOT + 9 * INCH },
  '8-in': { 45: 1 * FOOT, 90: 1 * FOOT + 7 * INCH },
  '10-in': { 45: 9 * INCH, 90: 1 * FOOT + 6 * INCH },
};

/** Longest run of 4-inch duct before deductions, m: 35 ft. */
export const CODE_LENGTH = 35 * FOOT;
/** Longest transition duct, m: 8 ft, in one piece. */
export const TRANSITION_LENGTH = 8 * FOOT;

const RADII: Record<Exclude<ElbowRadius, 'mitered'>, number> = {
  '4-in': 4 * INCH,
  '6-in': 6 * INCH,
  '8-in': 8 * INCH,
  '10-in': 10 * INCH,
};

/** Loss of a smooth 90° elbow by its radius over the diameter. */
const SMOOTH_90: readonly (readonly [ratio: number, loss: number])[] = [
  [0.5, 0.94],
  [0.75, 0.49],
  [1, 0.34],
  [1.5, 0.24],
  [2, 0.19],
  [2.5, 0.17],
];

/** Share of a 90° elbow's loss that one of 45° has. Common practice. */
const HALF_TURN = 0.6;

/** Loss coefficient of an elbow. @param diameter of the duct, m */
export function elbowLoss(radius: ElbowRadius, angle: ElbowAngle, diameter: number): number {
  if (radius === 'mitered') return angle === 90 ? 1.2 : 0.3;
  const full = interpolated(RADII[radius] / diameter);
  return angle === 90 ? full : full * HALF_TURN;
}

function interpolated(ratio: number): number {
  const last = SMOOTH_90.at(-1)!;
  if (ratio >= last[0]) return last[1];
  for (const [i, [to, loss]] of SMOOTH_90.entries()) {
    if (ratio > to) continue;
    const before = SMOOTH_90[i - 1];
    if (!before) return loss;
    return before[1] + ((ratio - before[0]) / (to - before[0])) * (loss - before[1]);
  }
  return last[1];
}

/** Along the air, from the machine outwards. */
export type VentPiece =
  /** The dryer's own lint screen, and the share of it that is blocked, 0 to 0.95. */
  | { is: 'screen'; blocked: number }
  | { is: 'hose'; length: number; stretched: boolean }
  | { is: 'straight'; length: number; direction: Direction }
  | { is: 'elbow'; angle: ElbowAngle; radius: ElbowRadius }
  | { is: 'narrow'; diameter: number }
  | { is: 'hood'; state: HoodState; screened: boolean };

export const HOOD_STATES = ['free', 'linted', 'stuck'] as const;
export type HoodState = (typeof HOOD_STATES)[number];

/** Loss of the hood by its flap: free, held by lint, nearly shut. Common practice. */
export const HOOD_LOSS: Record<HoodState, number> = { free: 1.2, linted: 6, stuck: 40 };
/** What a screen over the opening adds once it has caught lint. Common practice; none is allowed. */
export const SCREEN_LOSS = 5;

export const MATERIALS = ['smooth-metal', 'semi-rigid', 'foil-flex'] as const;
export type Material = (typeof MATERIALS)[number];

/** Roughness of a clean wall, m. Common practice. */
export const ROUGHNESS: Record<Material, number> = {
  'smooth-metal': 9e-5,
  'semi-rigid': 1e-3,
  'foil-flex': 2e-3,
};
export const HOSE_ROUGHNESS = { stretched: 1.5e-3, slack: 4e-3 } as const;
/** A slack hose lies in folds and loses as if it were longer. Common practice. */
export const SLACK_FACTOR = 1.5;
/** Lint on a wall is rough: as rough as it is thick, up to this, m. Judgement. */
export const LINT_ROUGHNESS = 1.5e-3;

/** Loss of a clean lint screen; of a closed one what is left open counts squared. Judgement. */
export const LINT_SCREEN_LOSS = 1.5;
/** Discharge coefficient of a sharp opening. */
export const SHARP = 0.62;
