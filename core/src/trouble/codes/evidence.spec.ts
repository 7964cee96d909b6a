import { describe, expect, it } from 'vitest';
import { stationsOf } from '../../care/catalogue/lookup.js';
import type { CodeSeen } from '../../model/schemas.js';
import { CODE_CLASSES, CODE_STRENGTHS, MACHINE_KINDS } from '../../model/vocabulary.js';
import { STRENGTHS } from '../data/types.js';
import { causesOf } from '../diagnosis/priors.js';
import { codeClassById } from './classes.js';
import { codeFinding, codeLinks, sayCode } from './evidence.js';

const all = MACHINE_KINDS.flatMap((kind) =>
  CODE_CLASSES.map((about) => ({ kind, about, build: { kind, features: {} } })),
);

describe('a display code as evidence', () => {
  it.each(all)('about $about at a $kind links causes by chances', ({ about, build }) => {
    const causes = causesOf(build);
    const { leak, links } = codeLinks({ class: about, listed: true }, causes);
    expect(leak).toBeGreaterThan(0);
    for (const [index, link] of links) {
      expect(causes[index]).toBeDefined();
      expect(link).toBeGreaterThan(0);
      expect(link).toBeLessThan(1);
    }
  });

  it.each(all)('about $about at a $kind tells less where it was picked', ({ about, build }) => {
    const causes = causesOf(build);
    const listed = codeLinks({ class: about, listed: true }, causes);
    const picked = codeLinks({ class: about, listed: false }, causes);
    expect([...picked.links.keys()]).toEqual([...listed.links.keys()]);
    for (const [index, link] of picked.links) expect(link).toBeLessThan(listed.links.get(index)!);
    expect(picked.leak).toBeGreaterThan(listed.leak);
  });

  it.each(all)('about $about at a $kind points where the sheet does', ({ about, build }) => {
    const causes = causesOf(build);
    const none = codeLinks({ class: about, listed: true }, causes).links;
    for (const { id } of stationsOf(build)) {
      const { links } = codeLinks({ class: about, listed: true, stations: [id] }, causes);
      causes.forEach(({ station }, i) => {
        const [before, after] = [none.get(i) ?? 0, links.get(i) ?? 0];
        if (station === id) expect(after).toBeGreaterThanOrEqual(before);
        else expect(after).toBeLessThanOrEqual(before);
      });
    }
  });

  it('is the stronger, the more reliably the sheet says it points', () => {
    const causes = causesOf({ kind: 'front-load-washer', features: {} });
    const station = 'pump-filter';
    const weight = (strength: (typeof CODE_STRENGTHS)[number]) => {
      const seen: CodeSeen = { class: 'drain', listed: true, stations: [station], strength };
      const { links } = codeLinks(seen, causes);
      return causes.reduce((sum, one, i) => sum + (one.station === station ? links.get(i)! : 0), 0);
    };
    const falling = CODE_STRENGTHS.map(weight);
    expect(falling).toEqual([...falling].sort((a, b) => b - a));
    expect(CODE_STRENGTHS.map((one) => STRENGTHS[one])).toEqual(
      Object.values(STRENGTHS).sort((a, b) => b - a),
    );
  });

  it('is said with its meaning, the sheet’s words before the class’s', () => {
    expect(
      sayCode({ code: 'HEM-18', says: 'drains too slowly', class: 'drain', listed: true }),
    ).toBe('HEM-18: drains too slowly');
    expect(sayCode({ class: 'drain', listed: false })).toBe('a code about draining');
    for (const about of CODE_CLASSES) {
      const said = sayCode({ code: 'NIP1', class: about, listed: false });
      expect(said).toContain(codeClassById(about).say.split(':')[0]);
    }
    expect(codeFinding(2)).toBe('code:2');
  });
});
