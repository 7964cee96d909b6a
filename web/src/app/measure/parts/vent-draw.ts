import type { VentPiece, VentRunResult } from '@needlecase/core';

/* The run to scale in isometric lines, and the pressure along it. */

export interface DrawnPiece {
  d: string;
  width: number;
  /** Where its words go. */
  x: number;
  y: number;
  settles: boolean;
  low: boolean;
  kind: VentPiece['is'];
}

export interface DrawnRun {
  viewBox: string;
  pieces: DrawnPiece[];
  /** Pa against m along the run, as steps. */
  profile: { at: number; pressure: number }[];
}

type Point = readonly [x: number, y: number, z: number];
/** What a fitting takes up in the drawing, m. */
const FITTING = 0.18;
const COS = Math.cos(Math.PI / 6);

/**
 * Lays the run out in the room: level pieces follow the heading, an elbow between two level ones turns
 * it to the right and then to the left, one before a rise or fall stands it up.
 */
export function drawRun(
  pieces: readonly VentPiece[],
  { pieces: results, pressure }: VentRunResult,
): DrawnRun {
  let at: Point = [0, 0, 0];
  let heading = 0;
  let side = 1;
  let along = 0;
  const flat: [number, number][] = [];
  const profile = [{ at: 0, pressure }];
  const drawn = pieces.map((piece, i) => {
    const result = results[i]!;
    const points: Point[] = [at];
    const go = (length: number, direction: 'level' | 'up' | 'down') => {
      const [x, y, z] = at;
      at =
        direction === 'level'
          ? [x + length * Math.cos(heading), y + length * Math.sin(heading), z]
          : [x, y, z + (direction === 'up' ? length : -length)];
      points.push(at);
    };
    let length = FITTING;
    if (piece.is === 'straight') {
      length = piece.length;
      go(length, piece.direction);
    } else if (piece.is === 'hose') {
      length = piece.length;
      const steps = 6;
      for (let k = 0; k < steps; k++) {
        const [x, y, z] = at;
        const sway = (k % 2 ? 1 : -1) * (piece.stretched ? 0.03 : 0.12);
        at = [
          x + (length / steps) * Math.cos(heading),
          y + (length / steps) * Math.sin(heading),
          z,
        ];
        points.push([at[0], at[1], at[2] + sway]);
      }
    } else if (piece.is === 'elbow') {
      const before = directionBefore(pieces, i);
      const after = pieces.slice(i + 1).find(({ is }) => is === 'straight');
      const next = after?.is === 'straight' ? after.direction : 'level';
      go(FITTING / 2, before);
      if (before === 'level' && next === 'level') {
        heading += side * ((piece.angle * Math.PI) / 180);
        side = -side;
      }
      go(FITTING / 2, next);
    } else go(FITTING, 'level');
    along += length;
    profile.push({ at: along, pressure: result.before - result.loss });
    const screen = points.map(project);
    flat.push(...screen);
    const middle = screen[Math.floor(screen.length / 2)]!;
    return {
      d: screen.map(([x, y], k) => `${k ? 'L' : 'M'}${x.toFixed(3)} ${y.toFixed(3)}`).join(''),
      width: 0.05 + 0.12 * (pressure ? result.before / pressure : 1),
      x: middle[0],
      y: middle[1],
      settles: result.settles,
      low: result.low,
      kind: piece.is,
    };
  });
  const xs = flat.map(([x]) => x);
  const ys = flat.map(([, y]) => y);
  const [left, top] = [Math.min(0, ...xs) - 0.5, Math.min(0, ...ys) - 0.4];
  const [right, bottom] = [Math.max(1, ...xs) + 0.5, Math.max(0.5, ...ys) + 0.4];
  return { viewBox: `${left} ${top} ${right - left} ${bottom - top}`, pieces: drawn, profile };
}

const project = ([x, y, z]: Point): [number, number] => [(x - y) * COS, (x + y) * 0.5 - z];

function directionBefore(pieces: readonly VentPiece[], at: number): 'level' | 'up' | 'down' {
  const last = pieces.slice(0, at).findLast(({ is }) => is === 'straight');
  return last?.is === 'straight' ? last.direction : 'level';
}
