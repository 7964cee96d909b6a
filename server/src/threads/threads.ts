import type { Piscina } from 'piscina';
import { FileProblem } from '../db/data-file.js';
import { ProblemError } from '../http/problem.js';
import { doJob, type JobAsk, type JobName, type JobResult, type Place } from './jobs.js';

/** Does the work that takes its time. */
export interface Threads {
  /** @throws ProblemError */
  run<J extends JobName>(job: J, ask: JobAsk<J>): Promise<JobResult<J>>;
  close(): Promise<void>;
}

/** What a thread gives back: an error does not cross as the one it is. */
export type Outcome =
  | { done: unknown }
  | { problem: Pick<ProblemError, 'status' | 'title' | 'more'> }
  | { failed: Failure };

interface Failure {
  message: string;
  stack: string | undefined;
  code: string | undefined;
  /** It is a sentence for a person. */
  told: boolean;
}

/** In the loop itself: for a file in memory, and for tests. */
export const sameThread = (place: Place): Threads => ({
  run: (job, ask) => doJob(place, job, ask),
  close: () => Promise.resolve(),
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
      if ('done' in outcome) return outcome.done as JobResult<J>;
      if ('problem' in outcome) {
        const { status, title, more } = outcome.problem;
        throw new ProblemError(status, title, more);
      }
      const { told, message, ...rest } = outcome.failed;
      throw told ? new FileProblem(message) : Object.assign(new Error(message), rest);
    },
    async close() {
      await (await made)?.destroy();
    },
  };
}
