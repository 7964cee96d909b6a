import { imageSize } from 'image-size';

const SEGMENT = 0xff;
const START_OF_SCAN = 0xda;
const END_OF_IMAGE = 0xd9;
/** Segments that carry metadata: Exif and XMP (APP1), Photoshop and IPTC (APP13), comments (COM). */
const METADATA = new Set([0xe1, 0xed, 0xfe]);

export interface Jpeg {
  width: number;
  height: number;
  /** Whether it says where, when or with what it was taken. */
  metadata: boolean;
  /** Where the picture ends; what stands after it is none of it. Nothing where it is cut short. */
  end?: number;
}

/**
 * Looks at a picture's bytes, whatever its name or declared type.
 * @returns nothing where they are no JPEG
 * @source ITU-T T.81, annex B: segments and scans from the start of the image to its end
 */
export function readJpeg(bytes: Uint8Array): Jpeg | undefined {
  try {
    const { type, width, height } = imageSize(bytes);
    if (type !== 'jpg' || !width || !height) return undefined;
    return { width, height, ...walked(bytes) };
  } catch {
    return undefined;
  }
}

/** Goes from segment to segment, over the scans between them, to the end of the image. */
function walked(bytes: Uint8Array): Pick<Jpeg, 'metadata' | 'end'> {
  let metadata = false;
  let at = 2;
  while (at + 1 < bytes.length) {
    if (bytes[at] !== SEGMENT) return { metadata };
    const marker = bytes[at + 1]!;
    if (marker === END_OF_IMAGE) return { metadata, end: at + 2 };
    // Any number of fill bytes may stand before a marker.
    if (marker === SEGMENT) {
      at++;
      continue;
    }
    if (METADATA.has(marker)) metadata = true;
    if (at + 3 >= bytes.length) return { metadata };
    at += 2 + bytes[at + 2]! * 256 + bytes[at + 3]!;
    if (marker === START_OF_SCAN) at = endOfScan(bytes, at);
  }
  return { metadata };
}

/** In a scan, 0xFF stands before 0 where it is data, and before restart marks; anything else ends it. */
function endOfScan(bytes: Uint8Array, from: number): number {
  let at = from;
  while (at + 1 < bytes.length) {
    const marker = bytes[at + 1]!;
    if (bytes[at] === SEGMENT && marker !== 0 && (marker < 0xd0 || marker > 0xd7)) return at;
    at++;
  }
  return bytes.length;
}
