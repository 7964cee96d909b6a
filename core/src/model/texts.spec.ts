import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hasControl, keptText } from './texts.js';

describe('a text as it is kept', () => {
  it('has nothing that turns its direction around (UAX 9, 2.1 and 2.2)', () => {
    // The made-up bill reads as 00012 where it is 21000.
    expect(keptText('\u202e21000\u202c EUR')).toBe('21000 EUR');
    expect(keptText('a\u2066b\u2069c')).toBe('abc');
    // A mark stays: Arabic and Hebrew are written with it.
    expect(keptText('שלום\u200f!')).toBe('שלום\u200f!');
  });

  it('has no sign of no width that joins nothing', () => {
    expect(keptText('\ufeffPump\u200b fil\u2060ter\u200d ')).toBe('Pump filter ');
    expect(keptText('\u200d\u200c')).toBe('');
    // Joiners between what they join are letters of their own: Persian, and a family.
    expect(keptText('می\u200cخواهم')).toBe('می\u200cخواهم');
    expect(keptText('👩\u200d👩\u200d👧')).toBe('👩\u200d👩\u200d👧');
  });

  it('is the same when it is kept again, and loses nothing that is seen', () => {
    const signs = fc.constantFrom(
      'a',
      ' ',
      '\n',
      '\u200b',
      '\u200d',
      '\u202e',
      'ä',
      '🧵',
      '\u200f',
    );
    fc.assert(
      fc.property(fc.array(signs, { maxLength: 12 }), (list) => {
        const text = list.join('');
        const kept = keptText(text);
        expect(keptText(kept)).toBe(kept);
        const seen = (one: string) => one.replace(/\u200b|\u200d|\u202e/g, '');
        expect(seen(kept)).toBe(seen(text));
      }),
    );
  });

  it('may have tabs and ends of lines, and no other control', () => {
    expect(hasControl('a\tb\r\nc')).toBe(false);
    for (const sign of ['\0', '\u0007', '\u001b[2J', '\u007f', '\u0085']) {
      expect(hasControl(`a${sign}b`)).toBe(true);
    }
  });
});
