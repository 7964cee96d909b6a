import type { DocumentType } from '../model/documents.js';

/** What a file is by what is in it, whatever its name; and whether its end is there. */
export interface FileLook {
  type: DocumentType;
  whole: boolean;
}

const has = (bytes: Uint8Array, at: number, text: string): boolean =>
  at >= 0 && [...text].every((sign, i) => bytes[at + i] === sign.charCodeAt(0));

function find(bytes: Uint8Array, text: string, from: number, to: number): boolean {
  for (let at = Math.max(0, from); at + text.length <= Math.min(to, bytes.length); at++) {
    if (has(bytes, at, text)) return true;
  }
  return false;
}

/** The header of a PDF stands within its first bytes, its end mark within its last (ISO 32000-1, 7.5.2 and annex H). */
const NEAR_START = 1024;
const NEAR_END = 2048;
const PNG = '\u0089PNG\r\n\u001a\n';
const JPEG = '\u00ff\u00d8\u00ff';

/**
 * Looks into a file.
 * @returns nothing where it is none that is kept as a document
 * @source ISO 32000-1 (PDF); ITU-T T.81, annex B (JPEG); ISO/IEC 15948, 5.2 and 11.2.5 (PNG); RFC 9649, 2 (WebP)
 */
export function lookAtFile(bytes: Uint8Array): FileLook | undefined {
  const { length } = bytes;
  if (has(bytes, 0, PNG)) {
    return { type: 'image/png', whole: find(bytes, 'IEND', length - 64, length) };
  }
  if (has(bytes, 0, JPEG)) {
    return { type: 'image/jpeg', whole: find(bytes, '\u00ff\u00d9', length - 64_000, length) };
  }
  if (has(bytes, 0, 'RIFF') && has(bytes, 8, 'WEBP')) {
    const size = new DataView(bytes.buffer, bytes.byteOffset).getUint32(4, true);
    return { type: 'image/webp', whole: size + 8 <= length };
  }
  if (find(bytes, '%PDF-', 0, NEAR_START)) {
    return { type: 'application/pdf', whole: find(bytes, '%%EOF', length - NEAR_END, length) };
  }
  return undefined;
}
