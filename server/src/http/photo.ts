import { readJpeg, type Jpeg } from './jpeg.js';
import { invalid } from './problem.js';

/** A photo comes small: the browser makes it so. */
export const MOST_BYTES = 1_500_000;
const LONGEST_SIDE = 2048;

/**
 * A photo that came in, up to where the picture ends.
 * @throws 422 where it is none, is too large, or says where it was taken
 */
export function photoIn(bytes: Buffer): { picture: Buffer; jpeg: Jpeg } {
  const jpeg = readJpeg(bytes);
  const wrong = (message: string) => invalid([{ field: 'photo', message }]);
  if (!jpeg) throw wrong('This is no JPEG, whatever it is called.');
  if (Math.max(jpeg.width, jpeg.height) > LONGEST_SIDE) {
    throw wrong(`Send it with at most ${LONGEST_SIDE} pixels on its longer side.`);
  }
  if (jpeg.metadata) {
    throw wrong('Take its metadata out first: it may tell where and when it was taken.');
  }
  if (jpeg.end === undefined) throw wrong('This picture is cut short: its end is missing.');
  return { picture: bytes.subarray(0, jpeg.end), jpeg };
}
