import { angleOf, arcPath, FULL, notch, threadThrough, threadWidth } from './geometry';

describe('geometry of the line drawing', () => {
  it('turns fouling into an angle, and stops at a full ring', () => {
    expect(angleOf(0)).toBe(0);
    expect(angleOf(FULL / 2)).toBeCloseTo(Math.PI);
    expect(angleOf(99)).toBeCloseTo(2 * Math.PI);
    expect(angleOf(-1)).toBe(0);
  });

  it('draws an arc only where there is something to draw', () => {
    expect(arcPath(0, 0.6, 6, 10)).toContain('A');
    expect(arcPath(0, 0.6, 6, 10)).not.toContain('NaN');
  });

  it('puts the notch at the limit, across the ring', () => {
    const [inner, outer] = notch(FULL / 4, 6, 10);
    expect(inner.x).toBeCloseTo(6);
    expect(outer.x).toBeCloseTo(10);
    expect(outer.y).toBeCloseTo(0);
  });

  it('draws one path for each stretch, each beginning where the last one ended', () => {
    const points = [0, 50, 100, 150].map((x) => ({ x, y: x % 100 }));
    const paths = threadThrough(points);
    expect(paths).toHaveLength(3);
    paths.forEach((path, i) => {
      expect(path.startsWith(`M${points[i]!.x},${points[i]!.y}`)).toBe(true);
      expect(path.endsWith(`${points[i + 1]!.x},${points[i + 1]!.y}`)).toBe(true);
    });
  });

  it('makes the thread thinner as a station closes, and never lets it vanish', () => {
    const width = (median: number) => threadWidth(median, 10);
    expect(threadWidth(0, 10)).toBe(10);
    expect(width(0.2)).toBeGreaterThan(width(0.6));
    expect(width(5)).toBeGreaterThan(2);
  });
});
