import { line as curveLine, curveCatmullRom, arc as ringArc } from 'd3-shape';

/* Where things lie on the line drawing, and how thread and gauges are drawn. */

export interface Point {
  x: number;
  y: number;
}

/** Fouling at which the ring is full; the limit, 1, sits a little before. */
export const FULL = 1.2;

/** How far past a full ring a fouling is, as a part of one more ring. */
export const overOf = (fouling: number): number =>
  Math.min(1, Math.max(0, (fouling - FULL) / FULL));

/** Angle on the ring for a fouling, radians clockwise from the top. */
export const angleOf = (fouling: number): number =>
  (Math.min(Math.max(fouling, 0), FULL) / FULL) * 2 * Math.PI;

const makeArc = ringArc<{ from: number; to: number; inner: number; outer: number }>()
  .startAngle(({ from }) => angleOf(from))
  .endAngle(({ to }) => angleOf(to))
  .innerRadius(({ inner }) => inner)
  .outerRadius(({ outer }) => outer)
  .cornerRadius(1.5);

/** SVG path of the part of a ring between two foulings. */
export const arcPath = (from: number, to: number, inner: number, outer: number): string =>
  makeArc({ from, to, inner, outer }) ?? '';

/** A line across the ring at a fouling. */
export function notch(fouling: number, inner: number, outer: number): [Point, Point] {
  const angle = angleOf(fouling);
  const at = (radius: number) => ({ x: Math.sin(angle) * radius, y: -Math.cos(angle) * radius });
  return [at(inner), at(outer)];
}

/**
 * A smooth thread through points, as one path for each stretch between neighbours, so that a stretch
 * can be thinner than the next.
 */
export function threadThrough(points: readonly Point[]): string[] {
  const recorder = new Stretches();
  curveLine<Point>(
    ({ x }) => x,
    ({ y }) => y,
  )
    .curve(curveCatmullRom.alpha(0.5))
    .context(recorder as unknown as CanvasRenderingContext2D)([...points]);
  return recorder.paths;
}

/** A drawing context that keeps each curve as a path of its own. */
class Stretches {
  readonly paths: string[] = [];
  #at = '0,0';

  moveTo(x: number, y: number): void {
    this.#at = `${round(x)},${round(y)}`;
  }

  lineTo(x: number, y: number): void {
    this.#add(`L${round(x)},${round(y)}`, x, y);
  }

  bezierCurveTo(ax: number, ay: number, bx: number, by: number, x: number, y: number): void {
    this.#add(`C${[ax, ay, bx, by, x, y].map(round).join(',')}`, x, y);
  }

  closePath(): void {
    /* threads are open */
  }

  #add(command: string, x: number, y: number): void {
    this.paths.push(`M${this.#at}${command}`);
    this.moveTo(x, y);
  }
}

const round = (n: number): number => Math.round(n * 10) / 10;

/** Thickness of the thread past a station: thinner as the station closes. */
export const threadWidth = (narrowing: number, full: number): number =>
  full * (1 - 0.68 * Math.min(1, narrowing));
