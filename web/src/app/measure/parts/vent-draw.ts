import type { VentPiece, VentRunResult } from '@needlecase/core';

/*
 * The run to scale in an oblique drawing of the room, cut at the outer wall, and the pressure along it.
 *
 *      depth /            up |  / depth: to the right and up by a part of it
 *           /  ____x          |/____ along
 */

export interface DrawnPiece {
  /** Path of its middle line. */
  d: string;
  /** Of the thread at its beginning: as thick as the pressure still to be overcome. */
  width: number;
  /** The same as a share of the whole, 0 to 1, for its shade. */
  share: number;
  /** Where its bead lies. */
  x: number;
  y: number;
  settles: boolean;
  low: boolean;
  kind: VentPiece['is'];
  /** A mitred elbow: the line across it. */
  mitre?: string;
  /** Where the way of the air is marked, with its turn in degrees. */
  arrows: { x: number; y: number; turn: number }[];
}

/** A label that found room beside its bead. */
export interface Placed {
  i: number;
  x: number;
  y: number;
  anchor: 'start' | 'end' | 'middle';
}

export interface DrawnRun {
  width: number;
  height: number;
  pieces: DrawnPiece[];
  machine: { front: string; sides: string; glass: string };
  floor: string;
  /** The outer wall, cut; a roof where the run leaves upwards. */
  wall?: { face: string; cut: string; stitches: string };
  roof?: string;
  room: { x: number; y: number };
  outdoors: { x: number; y: number };
  hood?: { x: number; y: number; d: string; linted: boolean };
  labels: Placed[];
}

/** Room that a drawing has, px. */
export interface Sheet {
  width: number;
  height: number;
  /** Words beside the beads; without them the numbers are told below. */
  labels: boolean;
}

type Point = readonly [x: number, y: number, z: number];
type Flat = readonly [x: number, y: number];

/** How depth is drawn, as shares of its length. */
const RIGHT = 0.344;
const UP = 0.239;
/** What a fitting takes up in the drawing, m. */
const FITTING = 0.16;
/** A machine of the usual size, m; the air leaves so far above the floor. */
const MACHINE = { wide: 0.62, deep: 0.6, high: 0.85, outlet: 0.16 };
const WALL = 0.26;
/** px a metre at most. */
const MOST_SCALE = 133;
const MARGIN = 26;
const project = ([x, y, z]: Point): Flat => [x + RIGHT * y, -z - UP * y];

/** @param worst indices of the pieces that are named beside their beads */
export function drawRun(
  pieces: readonly VentPiece[],
  { pieces: results, pressure }: VentRunResult,
  worst: readonly number[],
  sheet: Sheet,
): DrawnRun {
  const laid = layOut(pieces);
  const end = laid.at(-1)!.points.at(-1)!;
  const floorAt = -MACHINE.outlet;
  const all = laid.flatMap(({ points }) => points);
  const lowest = Math.min(floorAt, ...all.map(([, , z]) => z - 0.12));
  const highest = Math.max(MACHINE.high - MACHINE.outlet, ...all.map(([, , z]) => z)) + 0.45;
  const up = lastWay(pieces) === 'up';
  const cut = end[0] - (pieces.at(-1)?.is === 'hood' ? FITTING + WALL : WALL);
  const corners: Point[] = [
    [-MACHINE.wide - 0.15, 0, floorAt],
    [-MACHINE.wide - 0.15, MACHINE.deep, MACHINE.high],
    [cut + WALL, 0.9, highest],
    [end[0] + (up ? 0.6 : 1), 0, lowest],
    ...all,
  ];
  const flat = corners.map(project);
  const [left, right] = [Math.min(...flat.map(([x]) => x)), Math.max(...flat.map(([x]) => x))];
  const [top, bottom] = [Math.min(...flat.map(([, y]) => y)), Math.max(...flat.map(([, y]) => y))];
  const scale = Math.min(
    MOST_SCALE,
    (sheet.width - 2 * MARGIN) / (right - left),
    (sheet.height - 2 * MARGIN) / (bottom - top),
  );
  const height = (bottom - top) * scale + 2 * MARGIN;
  const across = (sheet.width - (right - left) * scale) / 2;
  const at = (point: Point): Flat => {
    const [x, y] = project(point);
    return [across + (x - left) * scale, MARGIN + (y - top) * scale];
  };
  const path = (...points: Point[]) =>
    points.map((point, i) => `${i ? 'L' : 'M'}${at(point).map(say).join(',')}`).join('');
  const thick = Math.min(1, scale / 90);
  const drawn = pieces.map((piece, i): DrawnPiece => {
    const { points, bend } = laid[i]!;
    const result = results[i]!;
    const share = pressure ? Math.max(0, Math.min(1, result.before / pressure)) : 0;
    const middle = at(bend ?? halfWay(points));
    const [from, to] = [at(points[0]!), at(points.at(-1)!)];
    const turn = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI;
    const far = Math.hypot(to[0] - from[0], to[1] - from[1]);
    const count = piece.is === 'straight' ? Math.min(3, Math.floor(far / 90)) : 0;
    return {
      d: path(...points),
      width: (6 + 20 * share) * Math.max(0.45, thick),
      share,
      x: middle[0],
      y: middle[1],
      settles: result.settles,
      low: result.low,
      kind: piece.is,
      ...(piece.is === 'elbow' && piece.radius === 'mitered'
        ? { mitre: `M${say(middle[0] - 10)},${say(middle[1] + 10)}l20,-20` }
        : {}),
      arrows: Array.from({ length: count }, (_, k) => {
        const part = (k + 0.7) / (count + 0.4);
        return {
          x: from[0] + (to[0] - from[0]) * part,
          y: from[1] + (to[1] - from[1]) * part,
          turn,
        };
      }),
    };
  });
  const [m, mz] = [-MACHINE.wide, MACHINE.high - MACHINE.outlet];
  const [a, b] = [m - 0.02, -0.02];
  const hood = pieces.at(-1)?.is === 'hood' ? at(laid.at(-1)!.points[0]!) : undefined;
  const last = pieces.at(-1);
  // The bead of a hood lies beside it, not on it.
  if (hood && drawn.length) {
    const bead = drawn.at(-1)!;
    bead.x = hood[0] + 54;
    bead.y = hood[1] - 16;
  }
  const [corner, foot] = [at([a, MACHINE.deep, mz]), at([b, 0, floorAt])];
  /** Where no words go: the machine and the hood. */
  const shut: Box[] = [
    { left: corner[0] - 40, right: foot[0] + 24, top: corner[1], bottom: foot[1] },
    ...(hood
      ? [{ left: hood[0], right: hood[0] + 42, top: hood[1] - 20, bottom: hood[1] + 20 }]
      : []),
  ];
  return {
    width: sheet.width,
    height,
    pieces: drawn,
    machine: {
      front: path([a, 0, floorAt], [b, 0, floorAt], [b, 0, mz], [a, 0, mz], [a, 0, floorAt]),
      sides:
        path([a, 0, mz], [a, MACHINE.deep, mz], [b, MACHINE.deep, mz], [b, 0, mz]) +
        path([b, MACHINE.deep, mz], [b, MACHINE.deep, floorAt], [b, 0, floorAt]),
      glass: path(
        [a + 0.14, 0, floorAt + 0.2],
        [b - 0.14, 0, floorAt + 0.2],
        [b - 0.14, 0, mz - 0.2],
        [a + 0.14, 0, mz - 0.2],
        [a + 0.14, 0, floorAt + 0.2],
      ),
    },
    floor: path(
      [m - 0.15, 0, lowest],
      [up ? end[0] + 0.5 : cut, 0, lowest],
      [up ? end[0] + 0.5 : cut, 0.9, lowest],
      [m - 0.15, 0.9, lowest],
      [m - 0.15, 0, lowest],
    ),
    ...(up
      ? { roof: path([m - 0.15, 0, end[2] - FITTING], [end[0] + 0.8, 0, end[2] - FITTING]) }
      : {
          wall: {
            face: path(
              [cut + WALL, 0, lowest],
              [cut + WALL, 0.9, lowest],
              [cut + WALL, 0.9, highest],
              [cut, 0.9, highest],
              [cut, 0, highest],
              [cut + WALL, 0, highest],
              [cut + WALL, 0, lowest],
            ),
            cut: path(
              [cut, 0, lowest],
              [cut + WALL, 0, lowest],
              [cut + WALL, 0, highest],
              [cut, 0, highest],
              [cut, 0, lowest],
            ),
            stitches: Array.from({ length: Math.floor((highest - lowest) / 0.22) }, (_, k) => {
              const z = lowest + 0.12 + k * 0.22;
              return path([cut + 0.06, 0, z], [cut + WALL - 0.06, 0, z + 0.1]);
            }).join(''),
          },
        }),
    room: pointOf(at([m - 0.1, 0, highest - 0.24])),
    outdoors: pointOf(at([cut + WALL + 0.34, 0, lowest + 0.35])),
    ...(hood && last?.is === 'hood'
      ? {
          hood: {
            ...pointOf(hood),
            d: `M${say(hood[0])},${say(hood[1] - 18)}q30,0 40,36h-40z`,
            linted: last.state !== 'free' || last.screened,
          },
        }
      : {}),
    labels: sheet.labels ? placed(drawn, worst, { ...sheet, height }, shut) : [],
  };
}

const say = (n: number): string => n.toFixed(1);
const pointOf = ([x, y]: Flat) => ({ x, y });
const halfWay = (points: readonly Point[]): Point => {
  if (points.length > 2) return points[Math.floor(points.length / 2)]!;
  const [a, b] = [points[0]!, points.at(-1)!];
  return [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2];
};

interface Laid {
  points: Point[];
  /** Where an elbow turns. */
  bend?: Point;
}

/**
 * Level pieces follow the heading, an elbow between two level ones turns it into the depth and back, one before a
 * rise or fall stands it up.
 */
function layOut(pieces: readonly VentPiece[]): Laid[] {
  let at: Point = [0, 0, 0];
  let heading = 0;
  let side = 1;
  return pieces.map((piece, i): Laid => {
    const points: Point[] = [at];
    const go = (length: number, direction: 'level' | 'up' | 'down') => {
      const [x, y, z] = at;
      at =
        direction === 'level'
          ? [x + length * Math.cos(heading), y + length * Math.sin(heading), z]
          : [x, y, z + (direction === 'up' ? length : -length)];
      points.push(at);
    };
    if (piece.is === 'straight') go(piece.length, piece.direction);
    else if (piece.is === 'hose') {
      const steps = piece.stretched ? 4 : 8;
      // In folds it covers less of the way than it is long.
      const length = piece.length * (piece.stretched ? 1 : 0.6);
      for (let k = 0; k < steps; k++) {
        const [x, y, z] = at;
        const sway = (k % 2 ? 1 : -1) * (piece.stretched ? 0.01 : 0.07);
        at = [
          x + (length / steps) * Math.cos(heading),
          y + (length / steps) * Math.sin(heading),
          z,
        ];
        points.push([at[0], at[1], at[2] + (k === steps - 1 ? 0 : sway)]);
      }
    } else if (piece.is === 'elbow') {
      go(FITTING / 2, wayBefore(pieces, i));
      const bend = at;
      const next = wayAfter(pieces, i);
      if (wayBefore(pieces, i) === 'level' && next === 'level') {
        heading += side * ((piece.angle * Math.PI) / 180);
        side = -side;
      }
      go(FITTING / 2, next);
      return { points, bend };
    } else go(FITTING, lastWay(pieces) === 'up' && piece.is === 'hood' ? 'up' : 'level');
    return { points };
  });
}

function wayBefore(pieces: readonly VentPiece[], at: number): 'level' | 'up' | 'down' {
  const last = pieces.slice(0, at).findLast(({ is }) => is === 'straight');
  return last?.is === 'straight' ? last.direction : 'level';
}

function wayAfter(pieces: readonly VentPiece[], at: number): 'level' | 'up' | 'down' {
  const next = pieces.slice(at + 1).find(({ is }) => is === 'straight');
  return next?.is === 'straight' ? next.direction : 'level';
}

const lastWay = (pieces: readonly VentPiece[]) => wayBefore(pieces, pieces.length);

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const WORDS = { width: 132, height: 40, away: 20 };

/** Words beside beads, each where it covers no bead and no other words. */
function placed(
  pieces: readonly DrawnPiece[],
  worst: readonly number[],
  { width, height }: Sheet,
  shut: readonly Box[],
): Placed[] {
  const taken: Box[] = pieces.map(({ x, y }) => ({
    left: x - 14,
    right: x + 14,
    top: y - 14,
    bottom: y + 14,
  }));
  taken.push(...shut);
  return worst.flatMap((i): Placed[] => {
    const { x, y } = pieces[i]!;
    const { away } = WORDS;
    const ways: Placed[] = [
      { i, x: x + away, y: y - 6, anchor: 'start' },
      { i, x: x - away, y: y - 6, anchor: 'end' },
      { i, x, y: y - 48, anchor: 'middle' },
      { i, x, y: y + 34, anchor: 'middle' },
      { i, x: x + away, y: y + 44, anchor: 'start' },
      { i, x: x - away, y: y - 52, anchor: 'end' },
    ];
    const boxOf = (one: Placed) => {
      const from = { start: one.x, end: one.x - WORDS.width, middle: one.x - WORDS.width / 2 };
      const left = from[one.anchor];
      return {
        left,
        right: left + WORDS.width,
        top: one.y - 16,
        bottom: one.y - 16 + WORDS.height,
      };
    };
    const free = ways.find((one) => {
      const box = boxOf(one);
      const inside = box.left >= 0 && box.right <= width && box.top >= 0 && box.bottom <= height;
      return (
        inside &&
        !taken.some(
          (other) =>
            box.left < other.right &&
            other.left < box.right &&
            box.top < other.bottom &&
            other.top < box.bottom,
        )
      );
    });
    if (!free) return [];
    taken.push(boxOf(free));
    return [free];
  });
}
