import { workerData } from 'node:worker_threads';
import { readDatabase, type Db } from '../db/open.js';
import { Store } from '../store/store.js';
import { doJob, type JobAsk, type JobName, type Place } from './jobs.js';
import { outcomeOf, type Outcome } from './outcome.js';

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

export default function work<J extends JobName>({
  job,
  ask,
}: {
  job: J;
  ask: JobAsk<J>;
}): Promise<Outcome> {
  return outcomeOf(() => doJob(place, job, ask));
}
