import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lookAtFile } from './document-type.js';

const text = (...parts: string[]) => Uint8Array.from(parts.join(''), (sign) => sign.charCodeAt(0));
/** A picture of one point: its head, one chunk and its end (ISO/IEC 15948). */
const png = text(
  '\x89PNG\r\n\x1a\n\0\0\0\rIHDR\0\0\0\x01\0\0\0\x01\x08\x04\0\0\0\xb5\x1c\x0c\x02',
  '\0\0\0\x0bIDATx\xdacd`\0\0\0\x06\0\x02\x30\x81\xd0\x2f\0\0\0\0IEND\xaeB`\x82',
);

describe('what a file is', () => {
  it('is told by what is in it', () => {
    expect(lookAtFile(text('%PDF-1.7\n', '1 0 obj', '\n%%EOF\n'))).toEqual({
      ...{ type: 'application/pdf', whole: true },
    });
    expect(lookAtFile(text('junk before\n%PDF-2.0\n', 'x'.repeat(5000), '%%EOF'))?.whole).toBe(
      true,
    );
    expect(lookAtFile(png)).toEqual({ type: 'image/png', whole: true });
    expect(lookAtFile(text('RIFF\x04\0\0\0WEBP'))).toEqual({ type: 'image/webp', whole: true });
    expect(lookAtFile(text('\xff\xd8\xff\xe0..\xff\xd9'))).toEqual({
      type: 'image/jpeg',
      whole: true,
    });
  });

  it('says where its end is missing', () => {
    expect(lookAtFile(png.subarray(0, 40))?.whole).toBe(false);
    expect(lookAtFile(text('%PDF-1.7\n', 'x'.repeat(5000)))?.whole).toBe(false);
    expect(lookAtFile(text('RIFF\xff\0\0\0WEBP'))?.whole).toBe(false);
    expect(lookAtFile(text('\xff\xd8\xff\xe0'))?.whole).toBe(false);
  });

  it('is nothing that is kept where it is a page, a program, a drawing or nothing', () => {
    for (const other of ['', '<html>', '<svg xmlns=""/>', 'MZ', 'PK\x03\x04', '%!PS', 'GIF89a']) {
      expect(lookAtFile(text(other)), other).toBeUndefined();
    }
  });

  it('holds for any bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 80 }), (bytes) => {
        const look = lookAtFile(bytes);
        expect(look === undefined || typeof look.whole === 'boolean').toBe(true);
      }),
    );
  });
});
