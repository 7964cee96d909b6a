import { dryLoad } from '../../measure/air/drum.js';
import { WARMS_FOR, WET_UNTIL, type HeaterDuty } from '../cycles/duty.js';

/** Air at the hood as the watts tell it, m³/s. */
export type AirFromWatts =
  | { flow: number; low: number; high: number }
  /** The limit does not cut: there is more than this, and the watts tell no more. */
  | { more: number };

/** Flows that the drum model is asked at, m³/s. */
const FLOWS = [
  0.006, 0.008, 0.01, 0.013, 0.016, 0.02, 0.024, 0.028, 0.033, 0.038, 0.045, 0.053, 0.06,
];
/** A usual load: the share of time in the wet stretch hardly depends on it. */
const USUAL = { dry: 3, moisture: 0.6, target: 0.03, humidity: 0.5 };
/** From here on the heater is as good as always on. */
const ALWAYS = 0.97;
/**
 * Spread of the flow's natural logarithm: the limit (10 K of some 107), the room where nobody told it (5 K), leaks past
 * the heater and heat lost (a tenth). Judgement; checked on made-up dryers in air.spec.
 */
const SPREAD = 0.115;
/** Eight in ten of a normal law lie within so many standard deviations. */
const EIGHT_IN_TEN = 1.2816;

const CURVES = new Map<string, { flow: number; duty: number }[]>();

/**
 * The air of a vented dryer from its heater's on-share: the limit thermostat lets as much heat through as the air takes
 * away, so that the share tells the air, by the drum model; where it does not cut, only that there is more than that.
 * @param room °C where it stands
 */
export function airFromDuty(
  { duty, heater }: Pick<HeaterDuty, 'duty' | 'heater'>,
  room = 18,
): AirFromWatts {
  const curve = curveOf(heater, room);
  const free = curve.find((one) => one.duty >= ALWAYS)?.flow ?? FLOWS.at(-1)!;
  if (duty >= ALWAYS) return { more: free };
  const above = curve.findIndex((one) => one.duty >= duty);
  if (above < 0) return { more: FLOWS.at(-1)! };
  const [a, b] = [curve[Math.max(0, above - 1)]!, curve[above]!];
  const part = b.duty > a.duty ? (duty - a.duty) / (b.duty - a.duty) : 0;
  // Below the first flow it goes on in proportion.
  const flow = above === 0 ? (b.flow * duty) / b.duty : a.flow + part * (b.flow - a.flow);
  const factor = Math.exp(EIGHT_IN_TEN * SPREAD);
  return { flow, low: flow / factor, high: flow * factor };
}

/** Share of the time that the model's heater is on while the load is wet, by flow; the same are asked for again. */
function curveOf(heater: number, room: number): { flow: number; duty: number }[] {
  const rounded = Math.max(500, Math.round(heater / 50) * 50);
  const key = `${rounded} ${Math.round(room)}`;
  const known = CURVES.get(key);
  if (known) return known;
  let least = 0;
  const curve = FLOWS.map((flow) => {
    const { moments, minutes } = dryLoad({
      ...USUAL,
      flow,
      heater: rounded,
      room: Math.round(room),
    });
    const wet = moments.filter(({ at }) => at > WARMS_FOR && at <= WET_UNTIL * minutes);
    const mean = wet.reduce((sum, { heating }) => sum + heating, 0) / Math.max(1, wet.length);
    least = Math.max(least, mean);
    return { flow, duty: least };
  });
  CURVES.set(key, curve);
  return curve;
}
