import { parentPort } from 'node:worker_threads';
import { CELL_JOBS, type CellAsk, type CellJob } from './cell-jobs.js';
import { outcomeOf } from './outcome.js';

/* A thread in which something foreign is read: it knows nothing of the household, and can be ended at any moment. */

parentPort!.on('message', ({ job, ask }: { job: CellJob; ask: CellAsk<CellJob> }) => {
  const work = CELL_JOBS[job] as (ask: CellAsk<CellJob>) => unknown;
  void outcomeOf(() => work(ask)).then((outcome) => parentPort!.postMessage(outcome));
});
