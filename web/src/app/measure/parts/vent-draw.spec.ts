import { ventRun, type VentPiece } from '@needlecase/core';
import fc from 'fast-check';
import { drawRun } from './vent-draw';

const length = fc.double({ min: 0.1, max: 8, noNaN: true });
const piece: fc.Arbitrary<VentPiece> = fc.oneof(
  fc.record({
    is: fc.constant('straight' as const),
    length,
    direction: fc.constantFrom('level' as const, 'up' as const, 'down' as const),
  }),
  fc.record({ is: fc.constant('hose' as const), length, stretched: fc.boolean() }),
  fc.record({
    is: fc.constant('elbow' as const),
    angle: fc.constantFrom(45 as const, 90 as const),
    radius: fc.constantFrom('mitered' as const, '6-in' as const),
  }),
  fc.constant<VentPiece>({ is: 'narrow', diameter: 0.08 }),
  fc.constant<VentPiece>({ is: 'hood', state: 'linted', screened: false }),
);
const run = (pieces: VentPiece[]) =>
  ventRun({
    pieces,
    ...{ material: 'smooth-metal', diameter: 0.1, lining: 0, temperature: 60 },
    blower: { shutOff: 400, freeFlow: 0.095 },
  });
const SHEETS = [
  { width: 800, height: 400, labels: true },
  { width: 366, height: 300, labels: false },
];

describe('the drawing of a vent run', () => {
  it('keeps every bead and every word on the sheet, and no word on another, whatever is laid out', () => {
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 14 }), (pieces) => {
        const result = run(pieces);
        for (const sheet of SHEETS) {
          const drawn = drawRun(pieces, result, [0, pieces.length - 1], sheet);
          expect(JSON.stringify(drawn)).not.toMatch(/NaN|null|Infinity/);
          for (const { x, y } of drawn.pieces) {
            expect(x).toBeGreaterThan(-60);
            expect(x).toBeLessThan(sheet.width + 60);
            expect(y).toBeGreaterThan(-40);
            expect(y).toBeLessThan(drawn.height + 40);
          }
          const boxes = drawn.labels.map(({ x, y, anchor }) => ({
            left: { start: x, end: x - 132, middle: x - 66 }[anchor],
            top: y - 16,
          }));
          for (const [i, one] of boxes.entries()) {
            expect(one.left).toBeGreaterThanOrEqual(0);
            for (const other of boxes.slice(i + 1)) {
              const apart =
                Math.abs(one.left - other.left) >= 132 || Math.abs(one.top - other.top) >= 40;
              expect(apart).toBe(true);
            }
          }
        }
      }),
      { numRuns: 200 },
    );
  });

  it('draws the thread as thick as the pressure that is left, and marks low points and mitred elbows', () => {
    const pieces: VentPiece[] = [
      { is: 'straight', length: 1, direction: 'level' },
      { is: 'elbow', angle: 90, radius: 'mitered' },
      { is: 'straight', length: 2, direction: 'up' },
      { is: 'hood', state: 'free', screened: false },
    ];
    const drawn = drawRun(pieces, run(pieces), [], SHEETS[0]!);
    const widths = drawn.pieces.map(({ width }) => width);
    expect(widths).toEqual([...widths].sort((a, b) => b - a));
    expect(drawn.pieces[0]!.low).toBe(true);
    expect(drawn.pieces[1]!.mitre).toBeDefined();
    // It leaves upwards: a roof, no wall.
    expect(drawn.roof).toBeDefined();
    expect(drawn.wall).toBeUndefined();
  });
});
