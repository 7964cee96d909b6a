import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { VentRunInput } from '../../model/vent-runs.js';
import { runningCost } from '../cost.js';
import { MeasureProblem } from '../input/fields.js';
import { atmosphereAt } from './properties.js';
import { ventRunOf } from './vent-input.js';
import { DEDUCTIONS, ELBOW_ANGLES, ELBOW_RADII, elbowLoss, type VentPiece } from './vent-pieces.js';
import { USUAL_BLOWER, ventRun, type VentRun } from './vent-run.js';
import { IMPROVEMENTS, improvements, improved } from './improvements.js';

const FOOT = 0.3048;
const base: VentRun = {
  pieces: [
    { is: 'hose', length: 1.5, stretched: true },
    { is: 'straight', length: 2, direction: 'level' },
    { is: 'elbow', angle: 90, radius: '4-in' },
    { is: 'straight', length: 2.5, direction: 'up' },
    { is: 'elbow', angle: 90, radius: 'mitered' },
    { is: 'straight', length: 1, direction: 'level' },
    { is: 'hood', state: 'free', screened: false },
  ],
  material: 'smooth-metal',
  diameter: 0.1016,
  lining: 0,
  temperature: 60,
  blower: USUAL_BLOWER,
};
const faultsOf = (work: () => unknown) => {
  try {
    work();
  } catch (problem) {
    if (problem instanceof MeasureProblem) return problem.problems.map(({ field }) => field);
    throw problem;
  }
  return [];
};

describe('code length', () => {
  // International Residential Code, table M1502.4.6.1 (2015 to 2021), from memory: feet and inches.
  const table: Record<string, [number, number]> = {
    'mitered/45': [2, 6],
    'mitered/90': [5, 0],
    '6-in/45': [1, 0],
    '6-in/90': [1, 9],
    '8-in/45': [1, 0],
    '8-in/90': [1, 7],
    '10-in/45': [0, 9],
    '10-in/90': [1, 6],
  };
  it.each(Object.entries(table))(
    'deducts for %s the %s of the table, in metric and US sameData',
    (fitting, [feet, inches]) => {
      const [radius, angle] = fitting.split('/') as ['6-in', '90'];
      const wanted = (feet + inches / 12) * FOOT;
      expect(DEDUCTIONS[radius][Number(angle) as 90]).toBeCloseTo(wanted, 9);
      const elbow = { is: 'elbow', angle: Number(angle) as 90, radius } as const;
      const metric = ventRunOf({
        pieces: [
          { is: 'straight', length: { value: 3.048, unit: 'm' }, direction: 'level' },
          elbow,
        ],
        material: 'smooth-metal',
        diameter: { value: 101.6, unit: 'mm' },
      });
      const us = ventRunOf({
        pieces: [{ is: 'straight', length: { value: 10, unit: 'ft' }, direction: 'level' }, elbow],
        material: 'smooth-metal',
        diameter: { value: 4, unit: 'in' },
      });
      const [a, b] = [ventRun(metric), ventRun(us)];
      expect(a.code.used).toBeCloseTo(10 * FOOT + wanted, 9);
      expect(b.code.used).toBeCloseTo(a.code.used, 9);
      expect(b.flow).toBeCloseTo(a.flow, 9);
      expect(a.code.limit).toBeCloseTo(35 * FOOT, 9);
    },
  );

  it('passes at the limit and fails beyond it; the maker’s figure overrides', () => {
    const straight = (length: number, limit?: number) =>
      ventRun({
        ...base,
        pieces: [{ is: 'straight', length, direction: 'level' }],
        ...(limit ? { limit } : {}),
      }).code;
    expect(straight(35 * FOOT).passes).toBe(true);
    expect(straight(35.1 * FOOT).passes).toBe(false);
    expect(straight(12, 14).passes).toBe(true);
    const both = ventRunOf({
      pieces: [{ is: 'hood', state: 'free', screened: false }],
      material: 'smooth-metal',
      diameter: { value: 4, unit: 'in' },
      limit: { value: 12, unit: 'm' },
      makerLimit: { value: 30, unit: 'ft' },
    });
    expect(both.limit).toBeCloseTo(30 * FOOT, 9);
  });
});

describe('losses of elbows', () => {
  // Common duct tables, from memory: r/D 0.5, 0.75, 1.0, 1.5.
  it.each([
    ['4-in', 0.2032, 0.94],
    ['6-in', 0.2032, 0.49],
    ['4-in', 0.1016, 0.34],
    ['6-in', 0.1016, 0.24],
    ['mitered', 0.1016, 1.2],
  ] as const)('a %s bend in %s m loses %s', (radius, diameter, loss) =>
    expect(elbowLoss(radius, 90, diameter)).toBeCloseTo(loss, 9),
  );
  it('are less for half a turn', () => {
    for (const radius of ELBOW_RADII) {
      expect(elbowLoss(radius, 45, 0.1)).toBeLessThan(elbowLoss(radius, 90, 0.1));
    }
  });
});

describe('a vent run', () => {
  it('meets the blower where both pressures are the same, and loses all of it on the way', () => {
    const { flow, pressure, pieces } = ventRun(base);
    const { shutOff, freeFlow } = base.blower;
    // A blower's pressure goes with the air's density: 60 °C against the 20 °C of its figures.
    const thin = (20 + 273.15) / (base.temperature + 273.15);
    expect(pressure).toBeCloseTo(shutOff * thin * (1 - (flow / freeFlow) ** 2), 6);
    expect(pieces.reduce((sum, { loss }) => sum + loss, 0)).toBeCloseTo(pressure, 9);
    expect(pieces[0]!.before).toBeCloseTo(pressure, 9);
    expect(flow).toBeGreaterThan(0.04);
  });

  it('has a crossing for every lining: 15 m, 44.5 mm of lint', () => {
    const long: VentPiece[] = [{ is: 'straight', length: 15, direction: 'level' }];
    for (const lining of [0.03, 0.04, 0.0445, 0.0449]) {
      const { flow, pressure } = ventRun({ ...base, pieces: long, diameter: 0.1, lining });
      const thin = (20 + 273.15) / (base.temperature + 273.15);
      const { shutOff, freeFlow } = base.blower;
      expect(pressure / (shutOff * thin * (1 - (flow / freeFlow) ** 2))).toBeCloseTo(1, 4);
    }
  });

  it('loses hardly any air to a hundredth of a millimetre of lint', () => {
    const clean = ventRun({ ...base, lining: 0 }).flow;
    expect(ventRun({ ...base, lining: 1e-5 }).flow / clean).toBeGreaterThan(0.995);
    expect(ventRun({ ...base, lining: 1.5e-3 }).flow / clean).toBeLessThan(0.97);
  });

  it('makes less pressure in thin air: 1,600 m over the sea, and hot', () => {
    const at = (change: Partial<VentRun>) => ventRun({ ...base, ...change }).pressure;
    expect(at({ altitude: 1600 })).toBeLessThan(0.9 * at({}));
    // Standard atmosphere, ISO 2533 (from memory): 83.5 kPa at 1,600 m.
    expect(atmosphereAt(1600) / 1000).toBeCloseTo(83.5, 1);
    expect(at({ temperature: 80 })).toBeLessThan(at({ temperature: 20 }));
  });

  it('has the lint screen as a piece: half shut it loses four times as much', () => {
    const loss = (blocked: number) => {
      const { flow, pieces } = ventRun({
        ...base,
        pieces: [{ is: 'screen', blocked }, ...base.pieces],
      });
      return pieces[0]!.loss / flow ** 2;
    };
    expect(loss(0.5) / loss(0)).toBeCloseTo(4, 6);
    const flow = (blocked: number) =>
      ventRun({ ...base, pieces: [{ is: 'screen', blocked }, ...base.pieces] }).flow;
    expect(flow(0.85)).toBeLessThan(0.85 * flow(0));
  });

  it('never gets more air from more restriction', () => {
    const piece: fc.Arbitrary<VentPiece> = fc.oneof(
      fc.record({
        is: fc.constant('straight' as const),
        length: fc.double({ min: 0.1, max: 10, noNaN: true }),
        direction: fc.constantFrom('level' as const, 'up' as const, 'down' as const),
      }),
      fc.record({
        is: fc.constant('elbow' as const),
        angle: fc.constantFrom(...ELBOW_ANGLES),
        radius: fc.constantFrom(...ELBOW_RADII),
      }),
      fc.record({
        is: fc.constant('hose' as const),
        length: fc.double({ min: 0.1, max: 3, noNaN: true }),
        stretched: fc.boolean(),
      }),
      fc.record({
        is: fc.constant('hood' as const),
        state: fc.constantFrom('free' as const, 'linted' as const, 'stuck' as const),
        screened: fc.boolean(),
      }),
    );
    fc.assert(
      fc.property(
        fc.array(piece, { minLength: 1, maxLength: 12 }),
        piece,
        fc.double({ min: 0, max: 0.02, noNaN: true }),
        (pieces, more, lining) => {
          const run = { ...base, pieces };
          const flow = ventRun(run).flow;
          return (
            ventRun({ ...run, pieces: [...pieces, more] }).flow <= flow + 1e-12 &&
            ventRun({ ...run, lining }).flow <= flow + 1e-12 &&
            improvements({ ...run, lining }).every(
              (one) => ventRun(one.run).flow >= ventRun({ ...run, lining }).flow - 1e-12,
            )
          );
        },
      ),
      { numRuns: 60 },
    );
  });

  it('gains with each change of a fouled run, and most with all of them', () => {
    const foul: VentRun = {
      ...base,
      lining: 0.008,
      pieces: base.pieces.map((piece) =>
        piece.is === 'hose'
          ? { ...piece, stretched: false }
          : piece.is === 'hood'
            ? { ...piece, state: 'stuck' }
            : piece,
      ),
    };
    const now = ventRun(foul).flow;
    const each = improvements(foul);
    expect(each.map(({ id }) => id)).toEqual([...IMPROVEMENTS]);
    for (const { run } of each) expect(ventRun(run).flow).toBeGreaterThan(now);
    const all = ventRun(improved(foul, IMPROVEMENTS)).flow;
    for (const { run } of each) expect(all).toBeGreaterThan(ventRun(run).flow);
    expect(improved(foul, [])).toBe(foul);
    // The mitered elbow is the one to go.
    const fewer = improved(foul, ['elbow']).pieces;
    expect(fewer).toHaveLength(foul.pieces.length - 1);
    expect(fewer.some((piece) => piece.is === 'elbow' && piece.radius === 'mitered')).toBe(false);
  });

  it('marks where lint settles and where water gathers, and says what is not allowed', () => {
    const bad = ventRun({
      ...base,
      lining: 0.02,
      pieces: [...base.pieces.slice(0, -1), { is: 'hood', state: 'stuck', screened: true }],
    });
    expect(bad.pieces[1]!.low).toBe(true);
    expect(bad.remarks.join(' ')).toMatch(/screen at the hood/);
    const slow = ventRun({ ...base, diameter: 0.2, pieces: base.pieces });
    expect(slow.pieces[1]!.settles).toBe(true);
  });

  it('loses in a narrow place as a sharp opening does: (Q / 0.62 A)² ρ/2', () => {
    const { flow, pressure } = ventRun({ ...base, pieces: [{ is: 'narrow', diameter: 0.06 }] });
    const speed = flow / (0.62 * Math.PI * 0.03 ** 2);
    expect(pressure).toBeCloseTo((1.0596 / 2) * speed ** 2, 0);
  });

  it.each<[string, object, string[]]>([
    ['a diameter of nothing', { diameter: { value: 0, unit: 'mm' } }, ['diameter']],
    [
      'a negative length',
      { pieces: [{ is: 'straight', length: { value: -2, unit: 'm' } }] },
      ['pieces.0.length'],
    ],
    ['a unit of something else', { diameter: { value: 100, unit: 'kg' } }, ['diameter']],
    ['an elbow without a bend', { pieces: [{ is: 'elbow', angle: 90 }] }, ['pieces.0.radius']],
    ['lint that fills it', { lining: { value: 50, unit: 'mm' } }, ['lining']],
    [
      '500 elbows',
      {
        pieces: Array.from({ length: 500 }, () => ({ is: 'elbow', angle: 90, radius: 'mitered' })),
      },
      ['pieces'],
    ],
  ])('refuses %s', (_what, change, fields) => {
    const given = {
      pieces: [{ is: 'straight', length: { value: 2, unit: 'm' } }],
      material: 'smooth-metal',
      diameter: { value: 100, unit: 'mm' },
      ...change,
    } as VentRunInput;
    expect(faultsOf(() => ventRun(ventRunOf(given)))).toEqual(fields);
  });
});

describe('running cost', () => {
  const given = {
    flowNow: { value: 25, unit: 'L/s' },
    flowClean: { value: 60, unit: 'L/s' },
    dry: { value: 3, unit: 'kg' },
    moisture: { value: 60, unit: '%' },
    heater: { value: 5, unit: 'kW' },
    room: { value: 18, unit: '°C' },
  };
  it('tells what the restriction costs a year, and nothing where there is none', () => {
    const { year, now, clean } = runningCost(given, { price: 0.3, loadsPerWeek: 5 });
    expect(now.minutes).toBeGreaterThan(clean.minutes);
    expect(year!.extraMoney).toBeCloseTo((now.energy - clean.energy) * 5 * 52.18 * 0.3, 9);
    const none = runningCost(
      { ...given, flowNow: given.flowClean },
      { price: 0.3, loadsPerWeek: 5 },
    );
    expect(none.year!.extraEnergy).toBe(0);
  });
  it('says that a blocked vent does not get it dry, and never that it saves', () => {
    const blocked = runningCost(
      {
        ...given,
        flowNow: { value: 4, unit: 'L/s' },
        dry: { value: 8, unit: 'kg' },
        heater: { value: 5.4, unit: 'kW' },
      },
      { price: 0.3, loadsPerWeek: 5 },
    );
    expect(blocked.dries).toBe(false);
    expect(blocked.year).toBeUndefined();
    expect(blocked.says).toContain('does not get dry');
    fc.assert(
      fc.property(
        fc.double({ min: 4, max: 60, noNaN: true }),
        fc.double({ min: 1, max: 8, noNaN: true }),
        (now, dry) => {
          const { year, clean } = runningCost(
            { ...given, flowNow: { value: now, unit: 'L/s' }, dry: { value: dry, unit: 'kg' } },
            { price: 0.3, loadsPerWeek: 5 },
          );
          return !year || year.extraEnergy >= -0.0201 * clean.energy * year.loads;
        },
      ),
      { numRuns: 30 },
    );
  });
  it('refuses more air now than when clean, and a price below nothing', () => {
    const wrong = () =>
      runningCost(
        { ...given, flowNow: { value: 80, unit: 'L/s' } },
        { price: -1, loadsPerWeek: 5 },
      );
    expect(faultsOf(wrong)).toEqual(['flowNow', 'price']);
  });
});
