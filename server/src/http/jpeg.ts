import { imageSize } from 'image-size';

const SEGMENT = 0xff;
const START_OF_SCAN = 0xda;
/** Segments that carry metadata: Exif and XMP (APP1), Photoshop and IPTC (APP13), comments (COM). */
const METADATA = new Set([0xe1, 0xed, 0xfe]);

export interface Jpeg {
  width: number;
  height: number;
  /** Whether it says where, when or with what it was taken. */
  metadata: boolean;
}

/**
 * Looks at a picture's bytes, whatever its name or declared type.
 * @returns nothing where they are no JPEG
 * @source ITU-T T.81, annex B: segments from the start of image to the start of scan
 */
export function readJpeg(bytes: Uint8Array): Jpeg | undefined {
  try {
    const { type, width, height } = imageSize(bytes);
    if (type !== 'jpg' || !width || !height) return undefined;
    return { width, height, metadata: hasMetadata(bytes) };
  } catch {
    return undefined;
  }
}

function hasMetadata(bytes: Uint8Array): boolean {
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === SEGMENT) {
    const marker = bytes[at + 1]!;
    if (marker === START_OF_SCAN) return false;
    if (METADATA.has(marker)) return true;
    at += 2 + bytes[at + 2]! * 256 + bytes[at + 3]!;
  }
  return false;
}
