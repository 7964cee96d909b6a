import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ACTIVES, type Active } from '../model/vocabulary.js';
import { ACTIVE_NAMES, FORBIDDEN } from './forbidden.js';
import { meetings, ruleOf, unrinsed, type ChemicalEvent } from './guard.js';
import { productById, PRODUCTS, sayProduct } from './products.js';

const KNOWN = ACTIVES.filter((active) => active !== 'unknown');

/**
 * What must not meet, written down a second time and apart from the table that the guard reads.
 * Sources, from memory: US CDC on bleach; Washington State Department of Health, "Dangers of mixing
 * bleach with cleaners"; Bretherick's Handbook of Reactive Chemical Hazards.
 */
const MUST_NOT_MEET: Record<string, RegExp> = {
  'acetic-acid hypochlorite': /chlorine gas/,
  'acid hypochlorite': /chlorine gas/,
  'ammonia hypochlorite': /chloramine/,
  'alcohol hypochlorite': /chlor/,
  'acetone hypochlorite': /chlor/,
  'hypochlorite peroxide': /oxygen and heat/,
  'acetic-acid peroxide': /peracetic/,
  'acetone peroxide': /acetone peroxides/,
  'acid peroxide': /performic/,
  'hypochlorite quat': /chloramine/,
  'acetic-acid dithionite': /sulphur dioxide/,
  'acid dithionite': /sulphur dioxide/,
  'dithionite hypochlorite': /heat/,
  'dithionite peroxide': /heat/,
};

let counted = 0;
const used = (at: number, actives: readonly Active[], station?: string): ChemicalEvent => ({
  entryId: `c${counted++}`,
  at,
  kind: 'chemical',
  actives,
  ...(station ? { station } : {}),
});
const rinse = (at: number, station?: string): ChemicalEvent => ({
  entryId: `r${counted++}`,
  at,
  kind: 'rinse',
  actives: [],
  ...(station ? { station } : {}),
});

describe('what must not meet', () => {
  const pairs = KNOWN.flatMap((a, i) => KNOWN.slice(i).map((b) => [a, b] as const));

  it.each(pairs)('%s with %s', (a, b) => {
    const wanted = MUST_NOT_MEET[[a, b].sort().join(' ')];
    const [there, back] = [ruleOf(a, b), ruleOf(b, a)];
    expect(there).toBe(back);
    if (wanted) expect(there!.gives).toMatch(wanted);
    else expect(there).toBeUndefined();
    expect(meetings([b], [used(1, [a])])).toHaveLength(wanted ? 1 : 0);
  });

  it('takes what is not known for the worst it could be', () => {
    for (const active of ['hypochlorite', 'acid', 'acetic-acid', 'peroxide', 'ammonia'] as const) {
      const [met] = meetings(['unknown'], [used(1, [active])]);
      expect(met).toMatchObject({ sure: false });
      expect(meetings([active], [used(1, ['unknown'])])).toHaveLength(1);
    }
    expect(meetings(['unknown'], [used(1, ['unknown'])])[0]!.rule.gives).toBe('chlorine gas');
    expect(meetings([], [used(1, ['unknown'])])).toEqual([]);
  });

  it('gives for each pair what comes of it, the harm, the first aid and the source', () => {
    for (const { pair, gives, harm, aid, source } of FORBIDDEN) {
      for (const active of pair) expect(ACTIVE_NAMES[active]).toBeTruthy();
      expect(gives).toBeTruthy();
      expect(harm).toMatch(/\.$/);
      expect(aid).toMatch(/Breathing comes first.*emergency number.*lenses out.*poison centre/);
      expect(source.length).toBeGreaterThan(20);
    }
    expect(FORBIDDEN).toHaveLength(Object.keys(MUST_NOT_MEET).length);
  });

  it('has no product twice, and a product for each active', () => {
    expect(new Set(PRODUCTS.map(({ id }) => id)).size).toBe(PRODUCTS.length);
    const acting = new Set(PRODUCTS.flatMap(({ actives }) => actives));
    expect([...acting].sort()).toEqual([...ACTIVES].sort());
    expect(productById('vinegar').actives).toEqual(['acetic-acid']);
    expect(() => productById('holy-water')).toThrow('holy-water');
    expect([sayProduct('bleach'), sayProduct('My mix')]).toEqual(['chlorine bleach', 'my mix']);
  });
});

describe('what is still in a machine', () => {
  const bleach = used(10, ['hypochlorite'], 'gasket');
  const vinegar = used(20, ['acetic-acid'], 'pump-filter');

  it('is what was used since the last full rinse', () => {
    expect(unrinsed([vinegar, bleach])).toEqual([bleach, vinegar]);
    expect(unrinsed([bleach, rinse(15), vinegar])).toEqual([vinegar]);
    expect(unrinsed([bleach, vinegar, rinse(30)])).toEqual([]);
    expect(unrinsed([bleach, vinegar], 15)).toEqual([vinegar]);
  });

  it('loses by the rinse of one place only what was used there', () => {
    expect(unrinsed([bleach, vinegar, rinse(30, 'pump-filter')])).toEqual([bleach]);
    expect(unrinsed([used(10, ['acid']), rinse(30, 'pump-filter')])).toHaveLength(1);
  });

  it('counts an event once that is told twice, and a rinse at the same instant before the product', () => {
    expect(unrinsed([bleach, bleach])).toEqual([bleach]);
    expect(unrinsed([rinse(10), bleach])).toEqual([bleach]);
  });

  it('lets nothing forbidden through, whatever is tried in whatever order', () => {
    const act = fc.oneof(
      fc.record({
        actives: fc.subarray([...ACTIVES], { maxLength: 2 }),
        station: fc.option(fc.constantFrom('gasket', 'pump-filter'), { nil: undefined }),
      }),
      fc.record({ rinse: fc.constantFrom('all', 'gasket', 'pump-filter') }),
    );
    fc.assert(
      fc.property(fc.array(act, { maxLength: 25 }), (acts) => {
        const events: ChemicalEvent[] = [];
        acts.forEach((one, at) => {
          if ('rinse' in one) {
            events.push(rinse(at, one.rinse === 'all' ? undefined : one.rinse));
          } else if (meetings(one.actives, unrinsed(events)).length === 0) {
            events.push(used(at, one.actives, one.station));
          }
        });
        // Told by a plain walk of its own: no two used without a rinse between that reached both.
        events.forEach((second, j) => {
          events.slice(0, j).forEach((first, i) => {
            if (first.kind === 'rinse' || second.kind === 'rinse') return;
            const rinsed = events
              .slice(i, j)
              .some(
                ({ kind, station }) =>
                  kind === 'rinse' && (station === undefined || station === first.station),
              );
            if (rinsed) return;
            for (const a of first.actives) {
              for (const b of second.actives) {
                expect(MUST_NOT_MEET[[a, b].sort().join(' ')]).toBeUndefined();
              }
            }
          });
        });
      }),
    );
  });
});
