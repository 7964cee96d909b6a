import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { isOutline, lightThrough, type Corner, type Picture } from './light.js';

const [WIDE, HIGH] = [320, 240];
/** The value of a picture for linear light, IEC 61966-2-1 the other way round. */
const valueOf = (light: number): number => {
  const l = Math.min(1, Math.max(0, light));
  return Math.round(255 * (l <= 0.0031308 ? 12.92 * l : 1.055 * l ** (1 / 2.4) - 0.055));
};

interface Making {
  /** Share of the light at a place of the mesh, 0 to 1 each way. */
  open: (u: number, v: number) => number;
  turned?: number;
  lamp?: (x: number, y: number) => number;
  blur?: number;
}

/** A screen held against a lamp, and its corners. */
function screen({ open, turned = 0, lamp = () => 0.7, blur = 0 }: Making): {
  picture: Picture;
  corners: Corner[];
} {
  const angle = (turned * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [w, h] = [130, 90];
  const place = (u: number, v: number): Corner => {
    const [x, y] = [(u - 0.5) * w, (v - 0.5) * h];
    return { x: WIDE / 2 + x * cos - y * sin, y: HIGH / 2 + x * sin + y * cos };
  };
  const light = Array.from({ length: WIDE * HIGH }, (_, i) => {
    const [x, y] = [i % WIDE, Math.floor(i / WIDE)];
    const [dx, dy] = [x - WIDE / 2, y - HIGH / 2];
    const [u, v] = [(dx * cos + dy * sin) / w + 0.5, (-dx * sin + dy * cos) / h + 0.5];
    const inside = u >= 0 && u <= 1 && v >= 0 && v <= 1;
    return lamp(x, y) * (inside ? open(u, v) : 1);
  });
  const smeared = light.map((one, i) => {
    let [sum, n] = [one, 1];
    for (let k = 1; k <= blur; k++) {
      sum += light[i - k] ?? one;
      sum += light[i + k] ?? one;
      n += 2;
    }
    return sum / n;
  });
  const data = new Uint8ClampedArray(4 * WIDE * HIGH);
  smeared.forEach((one, i) => {
    const value = valueOf(one);
    data.set([value, value, value, 255], 4 * i);
  });
  return {
    picture: { width: WIDE, height: HIGH, data },
    corners: [place(0, 0), place(1, 0), place(1, 1), place(0, 1)],
  };
}

const through = (making: Making) => {
  const { picture, corners } = screen(making);
  const found = lightThrough(picture, corners);
  if (typeof found === 'string') throw new Error(found);
  return found;
};

describe('light through a screen', () => {
  const dots = (share: number) => {
    const random = randomLcg(0.31);
    const open = Array.from({ length: 60 * 60 }, () => (random() < share ? 0.95 : 0.02));
    const made = open.reduce((sum, one) => sum + one, 0) / open.length;
    return {
      made,
      open: (u: number, v: number) =>
        open[Math.min(59, Math.floor(v * 60)) * 60 + Math.min(59, Math.floor(u * 60))]!,
    };
  };

  it.each([
    [0.4, 0, 0],
    [0.25, 17, 0],
    [0.6, -30, 0],
    [0.35, 8, 3],
  ])(
    'of %d open, turned %d°, smeared by %d, is told within 5 points, in even and uneven light',
    (share, turned, blur) => {
      const { made, open } = dots(share);
      for (const lamp of [() => 0.7, (x: number, y: number) => 0.35 + 0.0012 * x + 0.0008 * y]) {
        const found = through({ open, turned, blur, lamp });
        expect(Math.abs(found.share - made)).toBeLessThan(0.05);
      }
    },
  );

  it('shows where it is blocked, and how much of it, only where there are two humps', () => {
    const half = through({ open: (u) => (u < 0.3 ? 0.03 : 0.4) });
    expect(half.blocked!).toBeCloseTo(0.3, 1);
    const row = half.cells.slice(half.columns * 9, half.columns * 10);
    expect(row[2]!).toBeLessThan(0.1);
    expect(row.at(-3)!).toBeGreaterThan(0.3);
    // A wholly clean or wholly blocked one has one hump.
    expect(through({ open: () => 0.4 }).blocked).toBeUndefined();
    expect(through({ open: () => 0.04 }).blocked).toBeUndefined();
  });

  it('says why it tells nothing', () => {
    const { picture, corners } = screen({ open: () => 0.4 });
    const [a, b, c, d] = corners as [Corner, Corner, Corner, Corner];
    expect(lightThrough(picture, [a, c, b, d])).toBe('corners');
    expect(lightThrough(picture, [a, b, c, { x: -5, y: 2 }])).toBe('corners');
    expect(
      lightThrough(picture, [
        { x: 10, y: 10 },
        { x: 20, y: 10 },
        { x: 20, y: 20 },
        { x: 10, y: 20 },
      ]),
    ).toBe('too small');
    const dark = screen({ open: () => 0.4, lamp: () => 0.01 });
    expect(lightThrough(dark.picture, dark.corners)).toBe('dark');
    const burnt = screen({ open: () => 0.4, lamp: () => 1 });
    expect(lightThrough(burnt.picture, burnt.corners)).toBe('burnt out');
    const shut = screen({ open: () => 0.002 });
    expect(lightThrough(shut.picture, shut.corners)).toBe('black');
    const random = randomLcg(0.2);
    const window = screen({ open: () => 0.4, lamp: () => (random() < 0.5 ? 0.9 : 0.3) });
    expect(lightThrough(window.picture, window.corners)).toBe('uneven');
    expect([isOutline(corners), isOutline([a, b, c]), isOutline([d, c, b, a])]).toEqual([
      true,
      false,
      true,
    ]);
  });
});
