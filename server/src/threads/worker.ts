import { workerData } from 'node:worker_threads';
import { FileProblem } from '../db/data-file.js';
import { readDatabase, type Db } from '../db/open.js';
import { ProblemError } from '../http/problem.js';
import { Store } from '../store/store.js';
import { doJob, type JobAsk, type JobName, type Place } from './jobs.js';
import type { Outcome } from './threads.js';

/*
 * A thread beside the loop. It reads the data file through a connection of its own; what it holds of it is
 * dropped when another connection has written.
 */

const { file } = workerData as { file: string };

let db: Db | undefined;
let store: Store | undefined;
let version: unknown;

const place: Place = {
  file,
  store: () => {
    db ??= readDatabase(file);
    store ??= new Store(db);
    const now = db.$client.pragma('data_version', { simple: true });
    if (now !== version) store.dropCaches();
    version = now;
    return store;
  },
};

export default async function work<J extends JobName>({
  job,
  ask,
}: {
  job: J;
  ask: JobAsk<J>;
}): Promise<Outcome> {
  try {
    return { done: await doJob(place, job, ask) };
  } catch (error) {
    if (error instanceof ProblemError) {
      const { status, title, more } = error;
      return { problem: { status, title, more } };
    }
    const { message, stack, code } = error as NodeJS.ErrnoException;
    return { failed: { message, stack, code, told: error instanceof FileProblem } };
  }
}
