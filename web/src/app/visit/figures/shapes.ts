/** What a stroke of a figure stands for; the style sheet gives it its look. */
export type Stroke = 'line' | 'soft' | 'thick' | 'water' | 'air' | 'go' | 'solid';

export interface Shape {
  d: string;
  as: Stroke;
}

export const shape = (as: Stroke, d: string): Shape => ({ as, d });

export const ring = (x: number, y: number, r: number): string =>
  `M${x - r},${y}a${r},${r} 0 1,0 ${2 * r},0a${r},${r} 0 1,0 ${-2 * r},0`;

export const box = (x: number, y: number, width: number, height: number, r = 4): string =>
  `M${x + r},${y}h${width - 2 * r}a${r},${r} 0 0,1 ${r},${r}v${height - 2 * r}a${r},${r} 0 0,1 ${-r},${r}h${2 * r - width}a${r},${r} 0 0,1 ${-r},${-r}v${2 * r - height}a${r},${r} 0 0,1 ${r},${-r}z`;

const HEAD = 11;
const head = (x: number, y: number, direction: number): string =>
  [2.6, -2.6]
    .map(
      (side) =>
        `M${fix(x)},${fix(y)}L${fix(x + HEAD * Math.cos(direction + side))},${fix(y + HEAD * Math.sin(direction + side))}`,
    )
    .join('');

/** An arrow from one point to another. */
export const arrow = (x1: number, y1: number, x2: number, y2: number): string =>
  `M${x1},${y1}L${x2},${y2}${head(x2, y2, Math.atan2(y2 - y1, x2 - x1))}`;

/** An arrow round a centre, in degrees as on the screen: 0 to the right, 90 down. */
export function turn(x: number, y: number, r: number, from: number, to: number): string {
  const rad = Math.PI / 180;
  const at = (angle: number) =>
    [x + r * Math.cos(angle * rad), y + r * Math.sin(angle * rad)] as const;
  const [a, b] = [at(from), at(to)];
  const clockwise = to > from;
  const large = Math.abs(to - from) > 180 ? 1 : 0;
  const direction = to * rad + (clockwise ? 1 : -1) * (Math.PI / 2);
  return `M${fix(a[0])},${fix(a[1])}A${r},${r} 0 ${large},${clockwise ? 1 : 0} ${fix(b[0])},${fix(b[1])}${head(b[0], b[1], direction)}`;
}

/** The same drawing seen in a mirror, on a sheet 240 wide. */
export const MIRROR = 'translate(240 0) scale(-1 1)';

const fix = (n: number): number => Math.round(n * 10) / 10;
