import type { ThreadWatch } from './threads.js';
import { Worker } from 'node:worker_threads';
import { heldBack, invalid } from '../http/problem.js';
import { doCellJob, type CellAsk, type CellJob, type CellResult } from './cell-jobs.js';
import { outcomeOf, resultOf, type Outcome } from './outcome.js';

/** How much something foreign may take while it is read. */
export interface CellLimits {
  /** Time, ms. */
  ms: number;
  /** Memory, MB. */
  megabytes: number;
}

export const CELL_LIMITS: CellLimits = { ms: 5000, megabytes: 256 };

/** Reads what comes from outside. */
export interface Cells {
  /**
   * @param field of the request that it came in
   * @throws ProblemError what is wrong with it, or which limit it was over
   */
  read<J extends CellJob>(job: J, ask: CellAsk<J>, field: string): Promise<CellResult<J>>;
  close(): Promise<void>;
  /** Is told where what reads came to a stop by itself, and where it reads again. */
  watch?: ThreadWatch;
}

/** Under this the watch is told of all that is read. */
const READING = 'reading what came in';
const STOPPED = 'This could not be read: what reads it came to a stop.';

/** In the loop itself, without limits of time and memory: for tests. */
export const sameCell = (): Cells => ({
  read: async <J extends CellJob>(job: J, ask: CellAsk<J>) =>
    resultOf<CellResult<J>>(await outcomeOf(() => doCellJob(job, ask))),
  close: () => Promise.resolve(),
});

const MOST_CELLS = 2;
const MOST_WAITING = 40;
const IDLE_MS = 30_000;

interface Cell {
  worker: Worker;
  /** Is told what came of what is being read. */
  over: (outcome: Outcome | string) => void;
  idle?: NodeJS.Timeout;
}

/**
 * In threads of their own, each with limits: what is over one is killed with its thread, and who sent it is told which
 * limit it was.
 * @param script the built `cell.js`
 */
export function ownCells(script: string, limits: CellLimits = CELL_LIMITS): Cells {
  const free: Cell[] = [];
  const all = new Set<Cell>();
  const waiting: (() => void)[] = [];

  const opened = (): Cell => {
    const worker = new Worker(script, {
      resourceLimits: { maxOldGenerationSizeMb: limits.megabytes, maxYoungGenerationSizeMb: 32 },
    });
    const cell: Cell = { worker, over: () => undefined };
    worker.on('message', (outcome: Outcome) => cell.over(outcome));
    worker.on('error', (error: NodeJS.ErrnoException) => {
      cell.over(
        error.code === 'ERR_WORKER_OUT_OF_MEMORY'
          ? `Reading this took more than ${limits.megabytes} MB of memory. It was stopped.`
          : STOPPED,
      );
    });
    // Ended by itself, it is nobody's any more.
    worker.on('exit', () => {
      cell.over(STOPPED);
      gone(cell);
    });
    worker.unref();
    all.add(cell);
    return cell;
  };
  const gone = (cell: Cell): void => {
    clearTimeout(cell.idle);
    all.delete(cell);
    const at = free.indexOf(cell);
    if (at >= 0) free.splice(at, 1);
  };
  const ended = async (cell: Cell): Promise<void> => {
    gone(cell);
    await cell.worker.terminate();
  };
  const taken = async (): Promise<Cell> => {
    while (free.length === 0 && all.size >= MOST_CELLS) {
      if (waiting.length >= MOST_WAITING) throw heldBack('Too much is being read at once.');
      await new Promise<void>((next) => waiting.push(next));
    }
    const cell = free.pop() ?? opened();
    clearTimeout(cell.idle);
    return cell;
  };
  const given = (cell: Cell): void => {
    if (all.has(cell)) {
      free.push(cell);
      cell.idle = setTimeout(() => void ended(cell), IDLE_MS);
      cell.idle.unref();
    }
    waiting.shift()?.();
  };

  /** @returns what came of it, or the limit that it was over, in words */
  const asked = (cell: Cell, message: unknown): Promise<Outcome | string> =>
    new Promise((done) => {
      const timer = setTimeout(() => {
        cell.over(`Reading this took longer than ${limits.ms / 1000} seconds. It was stopped.`);
      }, limits.ms);
      cell.over = (outcome) => {
        clearTimeout(timer);
        cell.over = () => undefined;
        done(outcome);
      };
      cell.worker.ref();
      cell.worker.postMessage(message);
    });

  const cells: Cells = {
    async read<J extends CellJob>(job: J, ask: CellAsk<J>, field: string) {
      const cell = await taken();
      try {
        const outcome = await asked(cell, { job, ask });
        if (typeof outcome !== 'string') {
          cell.worker.unref();
          cells.watch?.did(READING);
          return resultOf<CellResult<J>>(outcome);
        }
        await ended(cell);
        if (outcome === STOPPED) cells.watch?.failed(READING);
        throw invalid([{ field, message: outcome }]);
      } finally {
        given(cell);
      }
    },
    async close() {
      await Promise.all([...all].map(ended));
    },
  };
  return cells;
}
