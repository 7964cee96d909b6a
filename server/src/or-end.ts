import { FileProblem } from './db/data-file.js';

/** What cannot be begun is told in one sentence, and ends it. */
export function orEnd<T>(begin: () => T): T {
  try {
    return begin();
  } catch (error) {
    if (!(error instanceof FileProblem || error instanceof RangeError)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}
