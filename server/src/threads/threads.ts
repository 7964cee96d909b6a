import type { Piscina } from 'piscina';
import { FileProblem } from '../db/data-file.js';
import { ProblemError } from '../http/problem.js';
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
        }),
    ));
  return {
    async run<J extends JobName>(job: J, ask: JobAsk<J>): Promise<JobResult<J>> {
      const outcome = (await (await pool()).run({ job, ask })) as Outcome;
      return resultOf<JobResult<J>>(outcome);
    },
    async close() {
      await (await made)?.destroy();
    },
  };
}
