import { elbowLoss, type VentPiece } from './vent-pieces.js';
import type { VentRun } from './vent-run.js';

export const IMPROVEMENTS = ['clean', 'hood', 'hose', 'elbow'] as const;
export type ImprovementId = (typeof IMPROVEMENTS)[number];

/** Something that can be changed in a run. */
interface Change {
  id: ImprovementId;
  say: string;
  /** Whether there is anything to change. */
  fits: (run: VentRun) => boolean;
  apply: (run: VentRun) => VentRun;
}

/** A hose that is long enough to pull the machine out, m. Common practice. */
const SHORT_HOSE = 1.2;

const mapped = (run: VentRun, change: (piece: VentPiece) => VentPiece): VentRun => ({
  ...run,
  pieces: run.pieces.map(change),
});

/** Index of the elbow that loses the most, the first of equals; -1 where there is none. */
const worstElbow = ({ pieces, diameter }: VentRun): number =>
  pieces
    .map((piece, i) => ({
      i,
      loss: piece.is === 'elbow' ? elbowLoss(piece.radius, piece.angle, diameter) : 0,
    }))
    .reduce((a, b) => (b.loss > a.loss ? b : a), { i: -1, loss: 0 }).i;

const ALL: readonly Change[] = [
  {
    id: 'clean',
    say: 'clean the lint out',
    fits: ({ lining }) => lining > 0,
    apply: (run) => ({ ...run, lining: 0 }),
  },
  {
    id: 'hood',
    say: 'free the hood',
    fits: ({ pieces }) =>
      pieces.some((piece) => piece.is === 'hood' && (piece.state !== 'free' || piece.screened)),
    apply: (run) =>
      mapped(run, (piece) =>
        piece.is === 'hood' ? { ...piece, state: 'free', screened: false } : piece,
      ),
  },
  {
    id: 'hose',
    say: 'a short, stretched hose instead',
    fits: ({ pieces }) =>
      pieces.some(
        (piece) => piece.is === 'hose' && (!piece.stretched || piece.length > SHORT_HOSE),
      ),
    apply: (run) =>
      mapped(run, (piece) =>
        piece.is === 'hose'
          ? { is: 'hose', length: Math.min(piece.length, SHORT_HOSE), stretched: true }
          : piece,
      ),
  },
  {
    id: 'elbow',
    say: 'one elbow fewer',
    fits: (run) => run.pieces.length > 1 && worstElbow(run) >= 0,
    apply: (run) => {
      const worst = worstElbow(run);
      return { ...run, pieces: run.pieces.filter((_, i) => i !== worst) };
    },
  },
];

/** A change to a run, tried in thought. */
export interface Improvement {
  id: ImprovementId;
  say: string;
  run: VentRun;
}

/** What can be changed in a run, each by itself as the run it would be. */
export const improvements = (run: VentRun): Improvement[] =>
  ALL.filter(({ fits }) => fits(run)).map(({ id, say, apply }) => ({ id, say, run: apply(run) }));

/** A run with several changes made. */
export const improved = (run: VentRun, ids: readonly ImprovementId[]): VentRun =>
  ALL.reduce((now, { id, fits, apply }) => (ids.includes(id) && fits(now) ? apply(now) : now), run);
