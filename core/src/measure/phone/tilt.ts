import type { Amount } from '../../units/quantity.js';
import type { Higher } from '../water/level.js';

/*
 * A phone lying on a machine, its screen up and its top edge to the back, as a level.
 *
 *        back                 across: how far its right side stands higher, mm on a metre
 *      ┌───────┐  y           along: how far its top, at the back, stands higher
 *      │ phone │  ↑
 *      └───────┘  └─→ x
 *        front
 */

/** How far a side stands higher than the other, mm/m. */
export interface Tilt {
  /** The phone's right side over its left. */
  across: number;
  /** Its top over its foot. */
  along: number;
}

/** What the sensor of a browser gives, degrees: W3C, Device Orientation Event, turned about z, x and y in turn. */
export interface Orientation {
  beta: number;
  gamma: number;
}

const RADIAN = Math.PI / 180;
/** Browsers round to a tenth of a degree: 1.75 mm/m (W3C, Device Orientation Event, from memory). */
export const ROUNDING = 1000 * Math.tan(0.1 * RADIAN);
/** mm/m that a phone's level is good for at best: resolution, placement, its back. Judgement. */
export const GIVE = 2;
/** mm/m below which no foot is turned by a phone: the bubble finishes it. Judgement. */
export const TURNS_FROM = 4;
/** mm/m that readings of a phone that lies still scatter by at most; further off, it lies on no machine. Judgement. */
const STILL = 6;
const LYING = 150;
const LEAST_READINGS = 5;

/** Rise over run, mm/m, of an axis whose upward part is this share of it, -1 to 1. */
const slope = (up: number): number => (1000 * up) / Math.sqrt(Math.max(1e-12, 1 - up * up));

/**
 * How a phone lies, mm/m.
 * @param orientation degrees
 * @source the last row of Rz(alpha) Rx(beta) Ry(gamma): W3C, Device Orientation Event
 */
export function tiltOf({ beta, gamma }: Orientation): Tilt {
  const [b, g] = [beta * RADIAN, gamma * RADIAN];
  return { across: slope(-Math.cos(b) * Math.sin(g)), along: slope(Math.sin(b)) };
}

/**
 * The machine's tilt and the phone's own error, from one reading and another with the phone turned half round on the
 * same place: what turns with it is its own.
 * @returns mm/m; the tilt as in the first reading
 */
export const halfTurn = (first: Tilt, turned: Tilt): { tilt: Tilt; own: Tilt } => ({
  tilt: {
    across: (first.across - turned.across) / 2,
    along: (first.along - turned.along) / 2,
  },
  own: {
    across: (first.across + turned.across) / 2,
    along: (first.along + turned.along) / 2,
  },
});

/** What some readings of a phone that lies still come to, mm/m. */
export interface MeanTilt {
  tilt: Tilt;
  /** Standard deviation of a reading, the larger of both ways. */
  spread: number;
  /** Good for so much, both ways; never less than the phone is. */
  give: number;
}

/** Why readings tell no level. */
export type NoTilt = 'too few' | 'not lying' | 'moved';

/**
 * The mean of some readings, less the phone's own error.
 * @param readings mm/m @param own mm/m, from turning it half round
 */
export function meanTilt(
  readings: readonly Tilt[],
  own: Tilt = { across: 0, along: 0 },
): MeanTilt | NoTilt {
  const real = readings.filter(
    ({ across, along }) => Number.isFinite(across) && Number.isFinite(along),
  );
  if (real.length < LEAST_READINGS) return 'too few';
  const of = (side: keyof Tilt) => {
    const all = real.map((one) => one[side]);
    const mean = all.reduce((sum, one) => sum + one, 0) / all.length;
    const variance = all.reduce((sum, one) => sum + (one - mean) ** 2, 0) / (all.length - 1);
    return { mean, spread: Math.sqrt(variance) };
  };
  const [across, along] = [of('across'), of('along')];
  if (Math.max(Math.abs(across.mean), Math.abs(along.mean)) > LYING) return 'not lying';
  const spread = Math.max(across.spread, along.spread);
  if (spread > STILL) return 'moved';
  return {
    tilt: { across: across.mean - own.across, along: along.mean - own.along },
    spread,
    give: Math.max(GIVE, 2 * (spread / Math.sqrt(real.length)) + ROUNDING / 2),
  };
}

/** What the level instrument takes in of a tilt, and which side stands higher. */
export const levelGiven = ({
  across,
  along,
}: Tilt): { given: { across: Amount; along: Amount }; higher: Higher } => ({
  given: {
    across: { value: Math.abs(across), unit: 'mm/m' },
    along: { value: Math.abs(along), unit: 'mm/m' },
  },
  higher: {
    across: across >= 0 ? 'right' : 'left',
    along: along > 0 ? 'back' : 'front',
  },
});

/** Whether a tilt, mm/m, is worth a foot's turns by a phone; below that a bubble tells more. */
export const isWorthTurns = ({ across, along }: Tilt): boolean =>
  Math.max(Math.abs(across), Math.abs(along)) > TURNS_FROM;
