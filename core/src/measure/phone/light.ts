/*
 * A screen held against a lamp or a bright window, in a photo: how much light it lets through, against the bare light
 * round it in the same picture.
 *
 *   ┌───────────────────────┐
 *   │   bare light          │   rim: between the outline and one a third larger
 *   │   A┌──────────┐B      │
 *   │    │  screen  │       │   inside: light let through, against what the rim says of the light there
 *   │   D└──────────┘C      │
 *   └───────────────────────┘
 */

/** A picture as browsers give it: red, green, blue and opacity of each pixel, 0 to 255. */
export interface Picture {
  width: number;
  height: number;
  data: ArrayLike<number>;
}

/** A place in a picture, pixels. */
export interface Corner {
  x: number;
  y: number;
}

/** What a screen lets through. */
export interface LightThrough {
  /** Share of the light, 0 to 1. */
  share: number;
  /** Share by cells of the outline, row by row from its first corner: where it is blocked. */
  cells: readonly number[];
  columns: number;
  rows: number;
  /** Share of it that is shut, 0 to 1: told only where open and shut part into two humps. */
  blocked?: number;
}

export type NoLight = 'corners' | 'too small' | 'dark' | 'burnt out' | 'uneven' | 'black';

/** Linear light, 0 to 1, of a value of a picture. IEC 61966-2-1. */
const LINEAR = Float64Array.from({ length: 256 }, (_, value) => {
  const share = value / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
});
const COLUMNS = 24;
const ROWS = 18;
const LEAST_SIDE = 24;
/** The rim: this much larger than the outline, less what lies right at its frame. */
const RIM = { from: 1.08, to: 1.35 } as const;
/** Linear light of the rim below which the picture is dark, and above which its brightest is lost. Judgement. */
const DARK = 0.03;
const BURNT = 0.97;
/** The rim may scatter by so much about its own plane, as a share of its light. Judgement. */
const UNEVEN = 0.3;
/** So much of the rim has to be bare light. Judgement. */
const BARE = 0.6;
/** Two humps: so many times apart as they are wide (Ashman's D; Ashman, Bird and Zepf 1994). */
const TWO_HUMPS = 2.5;
const LEAST_HUMP = 0.05;
/** Less than this passes no mesh: a plate, a lid, a hand. Judgement. */
const NOTHING = 0.01;

/** Linear luminance, 0 to 1, by the weights of ITU-R BT.709. */
const lightAt = ({ data }: Picture, pixel: number): number =>
  0.2126 * LINEAR[data[4 * pixel]!]! +
  0.7152 * LINEAR[data[4 * pixel + 1]!]! +
  0.0722 * LINEAR[data[4 * pixel + 2]!]!;

const turn = (a: Corner, b: Corner, c: Corner): number =>
  (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);

/** Whether four corners, in their order round, enclose a shape that bulges outwards everywhere. */
export function isOutline(corners: readonly Corner[]): boolean {
  if (corners.length !== 4) return false;
  const turns = corners.map((one, i) => turn(one, corners[(i + 1) % 4]!, corners[(i + 2) % 4]!));
  return turns.every((one) => one > 0) || turns.every((one) => one < 0);
}

const insideOf = (corners: readonly Corner[], x: number, y: number): boolean => {
  let sign = 0;
  for (let i = 0; i < 4; i++) {
    const [a, b] = [corners[i]!, corners[(i + 1) % 4]!];
    const side = (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x);
    if (side === 0) continue;
    if (sign !== 0 && Math.sign(side) !== sign) return false;
    sign = Math.sign(side);
  }
  return true;
};

/**
 * How much light a screen lets through.
 * @param corners of its mesh in the picture, in their order round, pixels
 */
export function lightThrough(picture: Picture, corners: readonly Corner[]): LightThrough | NoLight {
  if (!isOutline(corners)) return 'corners';
  const within = corners.every(
    ({ x, y }) => x >= 0 && y >= 0 && x < picture.width && y < picture.height,
  );
  if (!within) return 'corners';
  const sides = corners.map((one, i) => {
    const next = corners[(i + 1) % 4]!;
    return Math.hypot(next.x - one.x, next.y - one.y);
  });
  if (Math.min(...sides) < LEAST_SIDE) return 'too small';
  const rim = rimOf(picture, corners);
  if (rim === undefined) return 'too small';
  if (typeof rim === 'string') return rim;
  const sums = new Float64Array(COLUMNS * ROWS);
  const counts = new Float64Array(COLUMNS * ROWS);
  let [sum, count] = [0, 0];
  const [left, right] = range(
    corners.map(({ x }) => x),
    picture.width,
  );
  const [top, bottom] = range(
    corners.map(({ y }) => y),
    picture.height,
  );
  for (let y = top; y <= bottom; y++) {
    for (let x = left; x <= right; x++) {
      if (!insideOf(corners, x, y)) continue;
      const share = lightAt(picture, y * picture.width + x) / rim(x, y);
      sum += share;
      count++;
      const cell = cellOf(corners, x, y);
      sums[cell] = sums[cell]! + share;
      counts[cell] = counts[cell]! + 1;
    }
  }
  if (sum / count < NOTHING) return 'black';
  const cells = Array.from(sums, (one, i) => (counts[i] ? Math.min(1, one / counts[i]) : 0));
  // Of cells, not of pixels: the wires of a mesh that is near are dark as well, and shut nothing.
  const blocked = shutShare(cells.filter((_, i) => counts[i]! > 0));
  return {
    share: Math.min(1, sum / count),
    cells,
    columns: COLUMNS,
    rows: ROWS,
    ...(blocked === undefined ? {} : { blocked }),
  };
}

const range = (all: readonly number[], most: number): [number, number] => [
  Math.max(0, Math.floor(Math.min(...all))),
  Math.min(most - 1, Math.ceil(Math.max(...all))),
];

/** In which cell of the outline a pixel lies: by its distances from opposite sides. */
function cellOf(corners: readonly Corner[], x: number, y: number): number {
  const [a, b, c, d] = corners as [Corner, Corner, Corner, Corner];
  const from = (p: Corner, q: Corner): number =>
    Math.abs((q.x - p.x) * (y - p.y) - (q.y - p.y) * (x - p.x)) / Math.hypot(q.x - p.x, q.y - p.y);
  const across = from(d, a) / (from(d, a) + from(b, c));
  const along = from(a, b) / (from(a, b) + from(c, d));
  const column = Math.min(COLUMNS - 1, Math.floor(across * COLUMNS));
  const row = Math.min(ROWS - 1, Math.floor(along * ROWS));
  return row * COLUMNS + column;
}

/**
 * The bare light over the picture: a plane laid through the rim, so that a lamp that is brighter on one side does not
 * count as a screen that is more open there.
 */
function rimOf(
  picture: Picture,
  corners: readonly Corner[],
): ((x: number, y: number) => number) | NoLight | undefined {
  const middle = {
    x: corners.reduce((sum, { x }) => sum + x / 4, 0),
    y: corners.reduce((sum, { y }) => sum + y / 4, 0),
  };
  const grown = (times: number): Corner[] =>
    corners.map(({ x, y }) => ({
      x: middle.x + times * (x - middle.x),
      y: middle.y + times * (y - middle.y),
    }));
  const [inner, outer] = [grown(RIM.from), grown(RIM.to)];
  const [left, right] = range(
    outer.map(({ x }) => x),
    picture.width,
  );
  const [top, bottom] = range(
    outer.map(({ y }) => y),
    picture.height,
  );
  const seen: { x: number; y: number; light: number }[] = [];
  for (let y = top; y <= bottom; y++) {
    for (let x = left; x <= right; x++) {
      if (!insideOf(outer, x, y) || insideOf(inner, x, y)) continue;
      seen.push({
        x: x - middle.x,
        y: y - middle.y,
        light: lightAt(picture, y * picture.width + x),
      });
    }
  }
  if (seen.length < 200) return undefined;
  const sorted = seen.map(({ light }) => light).sort((a, b) => a - b);
  const usual = sorted[sorted.length >> 1]!;
  if (usual < DARK) return 'dark';
  if (usual > BURNT) return 'burnt out';
  // A frame or a hand in the rim is darker than the lamp: it does not count.
  const bare = seen.filter(({ light }) => light > 0.5 * usual);
  if (bare.length < BARE * seen.length) return 'uneven';
  const plane = planeThrough(bare);
  const off = Math.sqrt(
    bare.reduce((sum, one) => sum + (one.light - plane(one.x, one.y)) ** 2, 0) / bare.length,
  );
  if (off > UNEVEN * usual) return 'uneven';
  return (x, y) => Math.max(DARK / 2, plane(x - middle.x, y - middle.y));
}

/** The plane that lies nearest to some points, by least squares. */
function planeThrough(
  all: readonly { x: number; y: number; light: number }[],
): (x: number, y: number) => number {
  const n = all.length;
  const mean = (of: (one: (typeof all)[number]) => number) =>
    all.reduce((sum, one) => sum + of(one), 0) / n;
  const [mx, my, ml] = [mean(({ x }) => x), mean(({ y }) => y), mean(({ light }) => light)];
  let [xx, yy, xy, xl, yl] = [0, 0, 0, 0, 0];
  for (const { x, y, light } of all) {
    xx += (x - mx) ** 2;
    yy += (y - my) ** 2;
    xy += (x - mx) * (y - my);
    xl += (x - mx) * (light - ml);
    yl += (y - my) * (light - ml);
  }
  const whole = xx * yy - xy * xy;
  const a = whole > 0 ? (xl * yy - yl * xy) / whole : 0;
  const b = whole > 0 ? (yl * xx - xl * xy) / whole : 0;
  return (x, y) => ml + a * (x - mx) + b * (y - my);
}

const BINS = 64;

/** Share that is shut, where open and shut part into two humps; by Otsu's threshold (Otsu 1979). */
function shutShare(shares: readonly number[]): number | undefined {
  const counts = new Float64Array(BINS);
  for (const one of shares) {
    const bin = Math.min(BINS - 1, Math.max(0, Math.floor((one / 1.2) * BINS)));
    counts[bin] = counts[bin]! + 1;
  }
  const at = (bin: number): number => ((bin + 0.5) * 1.2) / BINS;
  const stats = (from: number, to: number) => {
    let [n, sum] = [0, 0];
    for (let i = from; i < to; i++) {
      n += counts[i]!;
      sum += counts[i]! * at(i);
    }
    const mean = n ? sum / n : 0;
    let squares = 0;
    for (let i = from; i < to; i++) squares += counts[i]! * (at(i) - mean) ** 2;
    return { n, mean, variance: n ? squares / n : 0 };
  };
  let [best, cut] = [-1, 0];
  for (let i = 1; i < BINS; i++) {
    const [low, high] = [stats(0, i), stats(i, BINS)];
    const between = low.n * high.n * (low.mean - high.mean) ** 2;
    if (between > best) [best, cut] = [between, i];
  }
  const [low, high] = [stats(0, cut), stats(cut, BINS)];
  const least = LEAST_HUMP * shares.length;
  if (low.n < least || high.n < least) return undefined;
  const apart =
    (Math.SQRT2 * (high.mean - low.mean)) / Math.sqrt(low.variance + high.variance + 1e-6);
  return apart > TWO_HUMPS ? low.n / shares.length : undefined;
}
