/** A front loader's drum, metres. */
export interface Drum {
  radius: number;
  /** From the glass to the back. */
  depth: number;
}

/** A common drum, 52 cm across and 35 cm deep; judgement from common practice. */
export const COMMON_DRUM: Drum = { radius: 0.26, depth: 0.35 };

/** Litres: a shallow tray, a household bucket; what of each can be carried without a spill. Common practice. */
const USUAL = { tray: 3, bucket: 10 } as const;
const CARRIED = { tray: 0.5, bucket: 0.8 } as const;

/**
 * Water standing in a front loader, up to a height at the glass: a segment of a lying cylinder.
 * @param height of the water above the drum's lowest point, metres, from 0 to twice the radius
 * @returns litres
 * @throws RangeError outside that range
 * @source V = L (R² acos((R-h)/R) - (R-h) √(2Rh-h²)), any table of solids
 */
export function tubLitres(height: number, { radius, depth }: Drum = COMMON_DRUM): number {
  if (!(height >= 0 && height <= 2 * radius)) {
    throw new RangeError(`A height from 0 to ${2 * radius} m.`);
  }
  const above = radius - height;
  const area =
    radius ** 2 * Math.acos(above / radius) -
    above * Math.sqrt(Math.max(0, 2 * radius * height - height ** 2));
  return depth * area * 1000;
}

/**
 * How high so much water stands in a drum, the other way round from `tubLitres`; a full drum for more than it holds.
 * @param litres from 0
 * @returns metres over the drum's lowest point, to a tenth of a millimetre
 */
export function heightOfLitres(litres: number, drum: Drum = COMMON_DRUM): number {
  let [low, high] = [0, 2 * drum.radius];
  if (litres >= tubLitres(high, drum)) return high;
  while (high - low > 1e-5) {
    const middle = (low + high) / 2;
    if (tubLitres(middle, drum) < litres) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** How often a tray or a bucket has to be carried. @param litres of water @param holds litres of each */
export function tripsFor(
  litres: number,
  holds: { tray: number; bucket: number } = USUAL,
): { trays: number; buckets: number } {
  const trips = (each: number) => Math.max(0, Math.ceil(litres / each - 1e-9));
  return {
    trays: trips(CARRIED.tray * holds.tray),
    buckets: trips(CARRIED.bucket * holds.bucket),
  };
}
