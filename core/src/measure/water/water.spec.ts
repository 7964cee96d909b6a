import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ACTIVES, type Active } from '../../model/vocabulary.js';
import { MeasureProblem } from '../input/fields.js';
import { dose, type DoseQuestion } from '../mix/dose.js';
import { FORBIDDEN } from '../../chemistry/forbidden.js';
import { meetings, unrinsed, type ChemicalEvent } from '../../chemistry/guard.js';
import { MOLAR, MOLAR_VOLUME, scaleDissolved } from '../../chemistry/moles.js';
import { RECIPES } from '../../chemistry/recipes.js';
import { vinegarAndSoda } from '../mix/vinegar-soda.js';
import { drainTest } from './drain-test.js';
import { fillFlow } from './fill-flow.js';
import { level, PITCHES } from './level.js';
import { hardnessClass, scaleGrown } from './scale.js';
import { standpipe } from './standpipe.js';
import { tubWater } from './tub-water.js';

const faultsOf = (work: () => unknown) => {
  try {
    work();
  } catch (problem) {
    if (problem instanceof MeasureProblem) return problem.problems.map(({ field }) => field);
    throw problem;
  }
  return [];
};
const of = (value: number, unit: string) => ({ value, unit });

describe('water in the tub', () => {
  const drum = { height: of(15, 'cm'), radius: of(26, 'cm'), depth: of(35, 'cm') };
  it('is 17.8 L at 15 cm in a drum of 26 by 35 cm', () => {
    const { litres, trays, buckets } = tubWater(drum);
    expect(litres).toBeCloseTo(17.8, 1);
    expect([trays, buckets]).toEqual([12, 3]);
  });
  it('is the same in inches, and a standing drum is a cylinder', () => {
    const us = tubWater({
      height: of(15 / 2.54, 'in'),
      radius: of(26 / 2.54, 'in'),
      depth: of(35 / 2.54, 'in'),
    });
    expect(us.litres).toBeCloseTo(tubWater(drum).litres, 9);
    expect(tubWater(drum, false).litres).toBeCloseTo(Math.PI * 2.6 ** 2 * 1.5, 9);
  });
  it('is carried in one’s own tray and bucket', () => {
    const own = tubWater({ ...drum, tray: of(1, 'L'), bucket: of(20, 'L') });
    expect([own.trays, own.buckets]).toEqual([36, 2]);
  });
  it('refuses water higher than the drum', () => {
    expect(faultsOf(() => tubWater({ ...drum, height: of(60, 'cm') }))).toEqual(['height']);
  });
});

describe('the drain test (common practice)', () => {
  const given = { litres: of(15, 'L'), seconds: of(60, 's') };
  it.each([
    [60, 'good'],
    [70, 'good'],
    [110, 'look'],
    [160, 'clean-now'],
  ] as const)('15 L in %s s is %s', (seconds, verdict) =>
    expect(drainTest({ ...given, seconds: of(seconds, 's') }).verdict).toBe(verdict),
  );
  it('counts this machine’s own clean figure above the usual', () => {
    const test = drainTest({ ...given, clean: of(24, 'L/min') });
    expect(test.share).toBeCloseTo(0.625, 9);
    expect(test.verdict).toBe('look');
  });
  it.each([
    [45, 'pipe'],
    [150, 'machine'],
    [62, 'none'],
  ] as const)('a bucket filled in %s s points at: %s', (seconds, where) => {
    const slow = drainTest({
      ...given,
      seconds: of(seconds === 62 ? 60 : 160, 's'),
      bucketLitres: of(15, 'L'),
      bucketSeconds: of(seconds, 's'),
    });
    expect(slow.where).toBe(where);
  });
  it('knows that a bucket on the floor spares the pump its lift: 0.8 m is a third of the flow', () => {
    // A pump that lifts 1.8 m at most: √(1 - 0/1.8) / √(1 - 0.8/1.8) = 1.34.
    const given = { litres: of(15, 'L'), seconds: of(120, 's'), pipeAt: of(80, 'cm') };
    const bucket = { bucketLitres: of(15, 'L'), bucketSeconds: of(120 / 1.34, 's') };
    const onFloor = drainTest({ ...given, ...bucket, bucketAt: of(0, 'cm') });
    expect(onFloor.bucket! / onFloor.flow).toBeCloseTo(1, 2);
    expect(onFloor.where).toBe('machine');
    const lifted = drainTest({ ...given, ...bucket, bucketAt: of(80, 'cm') });
    expect(lifted.bucket! / lifted.flow).toBeCloseTo(1.34, 2);
    expect(lifted.where).toBe('pipe');
  });
  it('says one thing: verdict, place and sentence agree, whatever was measured', () => {
    const seconds = fc.double({ min: 5, max: 600, noNaN: true });
    fc.assert(
      fc.property(seconds, seconds, (all, bucketSeconds) => {
        const { verdict, where, advice, working } = drainTest({
          litres: of(15, 'L'),
          seconds: of(all, 's'),
          bucketLitres: of(15, 'L'),
          bucketSeconds: of(bucketSeconds, 's'),
        });
        const holds = working.at(-1)!.how.includes(': the pipe holds it back');
        expect(holds).toBe(where === 'pipe' || where === 'both');
        if (verdict === 'good')
          expect([where, advice]).toEqual(['none', 'It drains as it should.']);
        else if (where === 'pipe') expect(advice).toContain('standpipe');
      }),
    );
  });
  it('refuses no seconds, and half a bucket test', () => {
    expect(faultsOf(() => drainTest({ ...given, seconds: of(0, 's') }))).toEqual(['seconds']);
    expect(faultsOf(() => drainTest({ ...given, bucketLitres: of(5, 'L') }))).toEqual([
      'bucketSeconds',
    ]);
  });
});

describe('fill flow (common practice)', () => {
  it('suspects screen or tap under 8 L/min, or under the manual’s figure', () => {
    const at = (litres: number) => fillFlow({ volume: of(litres, 'L'), seconds: of(30, 's') });
    expect(at(3.9).slow).toBe(true);
    expect(at(4.1).slow).toBe(false);
    expect(
      fillFlow({ volume: of(5, 'L'), seconds: of(30, 's'), manual: of(12, 'L/min') }).slow,
    ).toBe(true);
  });
});

describe('standpipe and hose', () => {
  const right = {
    overWeir: of(30, 'in'),
    hoseTop: of(75, 'cm'),
    inserted: of(20, 'cm'),
    inside: of(2, 'in'),
  };
  const ids = (change: object, code?: 'UPC') =>
    standpipe({ ...right, ...change }, code).warnings.map(({ id }) => id);
  // IPC 802.4: 18 to 42 in over the weir; UPC 804.1: 18 to 30 in (from memory).
  it.each<[object, 'IPC' | 'UPC', string[]]>([
    [{}, 'IPC', []],
    [{ overWeir: of(36, 'in') }, 'IPC', []],
    [{ overWeir: of(36, 'in') }, 'UPC', ['overflow']],
    [{ overWeir: of(17, 'in') }, 'IPC', ['overflow']],
    [{ overWeir: of(43, 'in') }, 'IPC', ['overflow']],
    [{ hoseTop: of(40, 'cm') }, 'IPC', ['siphon']],
    [{ inserted: of(10, 'cm') }, 'IPC', ['slips-out']],
    [{ inserted: of(45, 'cm') }, 'IPC', ['too-deep']],
    [{ inside: of(38, 'mm') }, 'IPC', ['narrow']],
  ])('%o by %s: %o', (change, code, wanted) => {
    expect(standpipe({ ...right, ...change }, code).warnings.map(({ id }) => id)).toEqual(wanted);
    expect(ids({})).toEqual([]);
  });
});

describe('level', () => {
  // ISO 261 coarse pitch (from memory); worked example: 4 mm/m over 0.54 m on M10.
  it('is 1.44 turns for 4 mm/m over 0.54 m on M10', () => {
    const { feet } = level({
      across: of(4, 'mm/m'),
      along: of(0, 'mm/m'),
      width: of(54, 'cm'),
      depth: of(50, 'cm'),
    });
    expect(feet.find(({ foot }) => foot === 'front-left')!.turns).toBeCloseTo(1.44, 9);
    expect(feet.find(({ foot }) => foot === 'front-right')!.turns).toBe(0);
    expect(PITCHES).toEqual({ M8: 1.25, M10: 1.5, M12: 1.75 });
  });
  it('takes no number below zero, but which side is higher, and lines of the vial', () => {
    const feet = { width: of(54, 'cm'), depth: of(50, 'cm'), along: of(0, 'mm/m') };
    expect(faultsOf(() => level({ ...feet, across: of(-4, 'mm/m') }))).toEqual(['across']);
    const left = level({ ...feet, across: of(4, 'mm/m') }, 'M10', {
      across: 'left',
      along: 'front',
    });
    expect(left.feet.find(({ foot }) => foot === 'front-right')!.turns).toBeCloseTo(1.44, 9);
    const marks = level({ ...feet, across: of(2, 'marks') });
    expect(marks.feet.find(({ foot }) => foot === 'front-left')!.raise).toBeCloseTo(3.24, 9);
  });
  it('says where a foot ends', () => {
    const { says } = level({
      across: of(30, 'mm/m'),
      along: of(0, 'mm/m'),
      width: of(60, 'cm'),
      depth: of(50, 'cm'),
    });
    expect(says).toContain('15 to 20 mm');
  });
  it('is level after the turns, whatever the slope', () => {
    const slope = fc.double({ min: -30, max: 30, noNaN: true });
    fc.assert(
      fc.property(slope, slope, (across, along) => {
        const given = {
          across: of(Math.abs(across), 'mm/m'),
          along: of(Math.abs(along), 'mm/m'),
          width: of(0.5, 'm'),
          depth: of(0.45, 'm'),
        };
        const now = level(given, 'M10', {
          across: across < 0 ? 'left' : 'right',
          along: along < 0 ? 'back' : 'front',
        });
        if (now.level) return now.feet.every(({ turns }) => turns === 0);
        const raise = (foot: string) => now.feet.find((one) => one.foot === foot)!.raise;
        const after = across + (raise('front-right') - raise('front-left')) / 0.5;
        return (
          Math.abs(after) < 1e-9 &&
          now.feet.every((one) => one.turns >= 0) &&
          now.feet.some((one) => one.turns === 0)
        );
      }),
    );
  });
});

describe('scale', () => {
  it.each([
    [60, 'soft'],
    [61, 'moderately hard'],
    [121, 'hard'],
    [181, 'very hard'],
  ] as const)('%s mg/L is %s (USGS)', (hardness, name) =>
    expect(hardnessClass(hardness)).toBe(name),
  );
  it('grows with hardness, litres and heat, and tells the acid', () => {
    const given = { hardness: of(300, 'mg/L'), litres: of(2000, 'L') };
    const { scale, acid, doses, worthIt } = scaleGrown(given, 60);
    expect(scale).toBeCloseTo(90, 9);
    expect(acid).toBeCloseTo(((90 / 100.087) * 2 * 192.12) / 3, 9);
    expect([doses, worthIt]).toEqual([2, true]);
    expect(scaleGrown(given, 90).scale).toBeCloseTo(210, 9);
    expect(scaleGrown({ ...given, hardness: of(300 / 17.848, '°dH') }).scale).toBeCloseTo(90, 6);
  });
  it('says when a dose is worth it', () => {
    const { daysLeft } = scaleGrown(
      { hardness: of(200, 'mg/L'), litres: of(0, 'L'), litresADay: of(50, 'L') },
      40,
    );
    expect(daysLeft).toBeCloseTo(((100 / 192.12) * 1.5 * 100.087) / 0.5, 6);
  });
  it('refuses a hardness of 5,000', () => {
    expect(faultsOf(() => scaleGrown({ hardness: of(5000, 'mg/L'), litres: of(1, 'L') }))).toEqual([
      'hardness',
    ]);
  });
});

describe('vinegar and soda', () => {
  const two = { vinegar: of(473, 'ml'), strength: of(5, '%'), soda: of(473.2, 'ml') };
  // Worked from molar masses (NIST, from memory): measure of two cups each.
  it('spends the acid: 9.6 L of gas, 407 g of soda left, no power over scale', () => {
    const mix = vinegarAndSoda(two);
    expect(mix.moles.acid).toBeCloseTo(0.394, 3);
    expect(mix.moles.soda).toBeCloseTo(5.24, 2);
    expect(mix.made.gasLitres).toBeCloseTo(9.6, 1);
    expect(Math.round(mix.left.soda)).toBe(407);
    expect([mix.left.acid, mix.dissolves]).toEqual([0, 0]);
    expect(mix.alone).toBeCloseTo(19.7, 1);
  });
  it('dissolves 19.7 g of scale with two cups of vinegar, 78 g with 100 g of citric acid', () => {
    expect(scaleDissolved('acetic', 23.65)).toBeCloseTo(19.7, 1);
    expect(scaleDissolved('citric', 100)).toBeCloseTo(78.1, 1);
  });
  it('keeps mass to 1e-9 in every reaction', () => {
    const { acetic, bicarbonate, carbonate, sodiumAcetate, calciumAcetate, water, carbonDioxide } =
      MOLAR;
    // CH3COOH + NaHCO3 -> CH3COONa + H2O + CO2; 2 CH3COOH + CaCO3 -> Ca(CH3COO)2 + H2O + CO2
    expect(Math.abs(acetic + bicarbonate - sodiumAcetate - water - carbonDioxide)).toBeLessThan(
      0.01,
    );
    expect(Math.abs(2 * acetic + carbonate - calciumAcetate - water - carbonDioxide)).toBeLessThan(
      0.02,
    );
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 5, noNaN: true }),
        fc.double({ min: 0.001, max: 5, noNaN: true }),
        (vinegar, soda) => {
          const mix = vinegarAndSoda({
            vinegar: of(vinegar, 'L'),
            strength: of(5, '%'),
            soda: of(soda, 'L'),
          });
          const react = mix.made.gasLitres / MOLAR_VOLUME;
          const acidIn = mix.moles.acid * acetic;
          const sodaIn = mix.moles.soda * bicarbonate;
          return (
            Math.abs(acidIn - mix.left.acid - react * acetic) < 1e-9 * Math.max(1, acidIn) &&
            Math.abs(sodaIn - mix.left.soda - react * bicarbonate) < 1e-9 * Math.max(1, sodaIn) &&
            Math.abs(mix.made.acetate - react * sodiumAcetate) <
              1e-9 * Math.max(1, mix.made.acetate)
          );
        },
      ),
    );
  });
});

describe('the dose', () => {
  const question: DoseQuestion = {
    detergent: { unit: 'ml', soft: 55, medium: 75, hard: 95, labelLoad: 4.5, pack: 1500, price: 6 },
    soil: 'normal',
    loadsPerWeek: 5,
  };
  const given = { load: of(4.5, 'kg'), hardness: of(200, 'mg/L') };
  it('is the label’s for the label’s load and band (Regulation (EC) 648/2004, annex VII)', () => {
    expect(dose(given, question)).toMatchObject({ needed: 75, band: 'medium' });
    expect(dose({ ...given, hardness: of(100, 'mg/L') }, question).needed).toBe(55);
    expect(dose({ ...given, hardness: of(260, 'mg/L') }, question).needed).toBe(95);
  });
  it('tells what is poured over it in a year, in money too', () => {
    const { over, year } = dose(given, {
      ...question,
      poured: of(105, 'ml') as { value: number; unit: 'ml' },
    });
    expect(over).toBe(30);
    expect(year!.over).toBeCloseTo(30 * 5 * 52.18, 6);
    expect(year!.money).toBeCloseTo((30 * 5 * 52.18 * 6) / 1500, 6);
  });
  it('refuses a negative dose, and grams of a liquid without its density', () => {
    expect(faultsOf(() => dose(given, { ...question, poured: { value: -5, unit: 'ml' } }))).toEqual(
      ['poured'],
    );
    expect(faultsOf(() => dose(given, { ...question, poured: { value: 90, unit: 'g' } }))).toEqual([
      'detergent.density',
    ]);
    for (const [field, value] of [
      ['pack', 0],
      ['pack', NaN],
      ['price', -1],
      ['soft', 0],
      ['labelLoad', 40],
    ] as const) {
      const detergent = { ...question.detergent, [field]: value };
      expect(faultsOf(() => dose(given, { ...question, detergent }))).toEqual([
        `detergent.${field}`,
      ]);
    }
    const dense = { ...question.detergent, density: 1.1 };
    expect(
      dose(given, { ...question, detergent: dense, poured: { value: 110, unit: 'g' } }).poured,
    ).toBeCloseTo(100, 9);
  });
  it('takes a label in fluid ounces or ounces as what it is in ml or g', () => {
    // A US fluid ounce is 29.5735295625 ml, an avoirdupois ounce 28.349523125 g (NIST Handbook 44, appendix C).
    const ounces = { ...question.detergent, unit: 'fl oz' as const, soft: 1, medium: 2, hard: 3 };
    expect(dose(given, { ...question, detergent: ounces })).toMatchObject({ needed: 2 });
    expect(
      dose(given, { ...question, detergent: ounces, poured: { value: 29.5735295625, unit: 'ml' } })
        .poured,
    ).toBeCloseTo(1, 7);
    const powder = { ...question.detergent, unit: 'oz' as const, density: 0.7 };
    expect(
      dose(given, { ...question, detergent: powder, poured: { value: 100, unit: 'ml' } }).poured,
    ).toBeCloseTo(70 / 28.349523125, 7);
    expect(
      faultsOf(() =>
        dose(given, { ...question, detergent: ounces, poured: { value: 2, unit: 'oz' } }),
      ),
    ).toEqual(['detergent.density']);
  });
  it('tells what must never meet a detergent with something that acts', () => {
    const with_ = (...actives: Active[]) =>
      dose(given, { ...question, detergent: { ...question.detergent, actives } }).apart;
    expect(with_()).toEqual([]);
    for (const active of ACTIVES.filter((one) => one !== 'unknown')) {
      const rules = FORBIDDEN.filter(({ pair }) => pair.includes(active));
      expect(new Set(with_(active).map(({ rule }) => rule))).toEqual(new Set(rules));
    }
    const anything = new Set(FORBIDDEN.flatMap(({ pair }) => pair));
    expect(new Set(with_('unknown').map(({ never }) => never)).size).toBe(anything.size);
    expect(with_('peroxide').map(({ never }) => never)).toContain('vinegar (acetic acid)');
  });
});

describe('recipes', () => {
  it('hold nothing in themselves that must not meet', () => {
    for (const { actives, id } of RECIPES) {
      for (const [i, a] of actives.entries()) {
        for (const b of actives.slice(i + 1)) {
          expect(
            FORBIDDEN.some(({ pair }) => pair.includes(a) && pair.includes(b)),
            id,
          ).toBe(false);
        }
      }
      expect(actives.every((one) => ACTIVES.includes(one))).toBe(true);
    }
  });
  it('can never be taken one after the other into a forbidden meeting: the guard stops it, and a rinse frees it', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...RECIPES), { minLength: 2, maxLength: 8 }),
        fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }),
        (sequence, rinses) => {
          const events: ChemicalEvent[] = [];
          for (const [i, { id, actives }] of sequence.entries()) {
            const there = unrinsed(events);
            const stopped = meetings(actives, there).length > 0;
            const forbidden = there.some((event) =>
              event.actives.some((a) =>
                actives.some((b) =>
                  FORBIDDEN.some(
                    ({ pair: [x, y] }) => (a === x && b === y) || (a === y && b === x),
                  ),
                ),
              ),
            );
            if (stopped !== forbidden) return false;
            if (!stopped)
              events.push({ entryId: `${i}`, at: i, kind: 'chemical', product: id, actives });
            if (stopped || rinses[i])
              events.push({ entryId: `r${i}`, at: i + 0.5, kind: 'rinse', actives: [] });
          }
          return true;
        },
      ),
    );
  });
});
