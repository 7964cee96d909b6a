import type { MachineKind } from '../model/vocabulary.js';
import { COMMON_DRUM, tubLitres } from '../measure/water/tub.js';

/*
 * Water by gravity: what stands above an open end runs out of it, and no more.
 *
 *   standpipe 0.75 ┐      ┌ 0.75 rim
 *      trap 0.40   │  ( drum )
 *                  │   ╰─┬╯ sill 0.31, lowest point 0.23
 *    bucket 0.20   └─────┴── sump and filter 0.08
 */

/** Heights above the floor, metres; common practice for a machine of 85 cm. */
export const HEIGHT = { drum: 0.23, sill: 0.31, filter: 0.08, bucket: 0.2, trap: 0.4 } as const;

/** Litres that always stand in the sump, below the drum. */
export const SUMP = 1;

/** Litres that a machine of a kind holds up to a height above the floor, metres. */
function litresUpTo(height: number, kind: MachineKind): number {
  if (height <= HEIGHT.filter) return 0;
  if (height <= HEIGHT.drum) return SUMP;
  const inDrum = Math.min(height - HEIGHT.drum, 2 * COMMON_DRUM.radius);
  // A top loader's tub stands upright.
  return (
    SUMP +
    (kind === 'top-load-washer'
      ? Math.PI * COMMON_DRUM.radius ** 2 * inDrum * 1000
      : tubLitres(inDrum))
  );
}

/**
 * What runs out of an end that is opened or held at a height.
 * @param litres in drum and sump @param height of the end above the floor, metres
 * @returns litres, 0 where all of it stands lower
 */
export const litresAbove = (litres: number, height: number, kind: MachineKind): number =>
  Math.max(0, litres - litresUpTo(height, kind));

/** Whether the door stays locked: water stands above its sill. A lid on top is never below it. */
export const isDoorLocked = (litres: number, kind: MachineKind): boolean =>
  kind !== 'top-load-washer' && litresAbove(litres, HEIGHT.sill, kind) > 0;
