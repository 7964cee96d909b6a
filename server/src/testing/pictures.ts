import { randomBytes } from 'node:crypto';

/** A JPEG's frame of a given size with nothing in it: enough to be told apart from others. */
export function jpeg(width: number, height: number, ...segments: Buffer[]): Buffer {
  const frame = Buffer.from([0xff, 0xc0, 0, 11, 8, 0, 0, 0, 0, 1, 1, 0x11, 0]);
  frame.writeUInt16BE(height, 5);
  frame.writeUInt16BE(width, 7);
  const app0 = Buffer.from([
    0xff,
    0xe0,
    0,
    16,
    ...Buffer.from('JFIF\0'),
    1,
    1,
    0,
    0,
    1,
    0,
    1,
    0,
    0,
  ]);
  const scan = Buffer.from([0xff, 0xda, 0, 8, 1, 1, 0, 0, 63, 0, 0xff, 0xd9]);
  return Buffer.concat([Buffer.from([0xff, 0xd8]), app0, ...segments, frame, scan]);
}

/** What one segment holds at most, bytes. */
const SEGMENT = 65_000;

/** A JPEG of about so many bytes, which do not pack. */
export function photo(bytes: number): Buffer {
  const filling = Array.from({ length: Math.ceil(bytes / SEGMENT) }, (_, i) => {
    const size = Math.min(SEGMENT, bytes - i * SEGMENT);
    const head = Buffer.from([0xff, 0xe2, 0, 0]);
    head.writeUInt16BE(size + 2, 2);
    return Buffer.concat([head, randomBytes(size)]);
  });
  return jpeg(800, 600, ...filling);
}
