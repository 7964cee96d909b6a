import type { Piscina } from 'piscina';
import { FileProblem } from '../db/data-file.js';
import { invalid, ProblemError } from '../http/problem.js';
import { doJob, type JobAsk, type JobName, type JobResult, type Place } from './jobs.js';
import { resultOf, type Outcome } from './outcome.js';

/** Does the work that takes its time. */
export interface Threads {
  /** @throws ProblemError */
  run<J extends JobName>(job: J, ask: JobAsk<J>): Promise<JobResult<J>>;
  close(): Promise<void>;
}

/** In the loop itself: for a file in memory, and for tests. */
export const sameThread = (place: Place): Threads => ({
  run: (job, ask) => doJob(place, job, ask),
  close: () => Promise.resolve(),
});

/** What work in threads came to, for whoever watches over them. */
export interface ThreadWatch {
  failed(job: string): void;
  did(job: string): void;
}

/** The same, told to somebody: a sentence for a person is no failure of a thread. */
export const watched = (threads: Threads, watch: ThreadWatch): Threads => ({
  async run<J extends JobName>(job: J, ask: JobAsk<J>): Promise<JobResult<J>> {
    try {
      const result = await threads.run(job, ask);
      watch.did(job);
      return result;
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof FileProblem)) watch.failed(job);
      throw error;
    }
  },
  close: () => threads.close(),
});

/** Work that reads what comes from outside: how long it may take, ms, and what is told of it beyond. */
const FOREIGN: Partial<Record<JobName, number>> = {
  'look-at-backup': 600_000,
  'try-backup': 600_000,
};
/** Work that changes nothing is done once more where its thread died, by no fault of its own. */
const ONCE_MORE: ReadonlySet<JobName> = new Set<JobName>([
  ...(['plan', 'schools', 'year', 'hindsight'] as const),
  ...(['print-machine', 'print-case', 'print-visit', 'print-wall', 'print-year'] as const),
  ...(['print-codes', 'print-labels'] as const),
]);
/** Of a thread, MB. */
const MOST_MEMORY = 1500;
const MOST_THREADS = 2;
const IDLE_MS = 60_000;

/**
 * In threads of their own, each with the data file open. They are started when there is work, and end when there
 * has been none for a while.
 * @param worker the built `worker.js`
 */
export function ownThreads(file: string, worker: string): Threads {
  let made: Promise<Piscina> | undefined;
  const pool = () =>
    (made ??= import('piscina').then(
      ({ Piscina }) =>
        new Piscina({
          filename: worker,
          workerData: { file },
          minThreads: 0,
          maxThreads: MOST_THREADS,
          idleTimeout: IDLE_MS,
          resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY },
        }),
    ));
  return {
    async run<J extends JobName>(job: J, ask: JobAsk<J>): Promise<JobResult<J>> {
      const limit = FOREIGN[job];
      const how = limit === undefined ? {} : { signal: AbortSignal.timeout(limit) };
      const running = async () => (await pool()).run({ job, ask }, how) as Promise<unknown>;
      const outcome = await running()
        .catch((error: unknown) => {
          if (!ONCE_MORE.has(job) || !isDeath(error)) throw error;
          return running();
        })
        .then((done) => done as Outcome)
        .catch((error: unknown) => {
          throw limit === undefined ? error : overLimit(error as NodeJS.ErrnoException, limit);
        });
      return resultOf<JobResult<J>>(outcome);
    },
    async close() {
      await (await made)?.destroy();
    },
  };
}

const isDeath = (error: unknown): boolean =>
  error instanceof Error && error.message.startsWith('worker exited');

/** What is told of something foreign that was stopped while it was read. */
function overLimit(error: NodeJS.ErrnoException, ms: number): Error {
  const what =
    error.name === 'AbortError'
      ? `Reading it took longer than ${ms / 60_000} minutes. It was stopped.`
      : error.code === 'ERR_WORKER_OUT_OF_MEMORY'
        ? `Reading it took more than ${MOST_MEMORY} MB of memory. It was stopped.`
        : undefined;
  return what === undefined ? error : invalid([{ field: 'backup', message: what }]);
}
