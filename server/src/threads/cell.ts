import { parentPort } from 'node:worker_threads';
import { doCellJob, type CellAsk, type CellJob } from './cell-jobs.js';
import { outcomeOf } from './outcome.js';

/* A thread in which something foreign is read: it knows nothing of the household, and can be ended at any moment. */

parentPort!.on('message', ({ job, ask }: { job: CellJob; ask: CellAsk<CellJob> }) => {
  void outcomeOf(() => doCellJob(job, ask)).then((outcome) => parentPort!.postMessage(outcome));
});
