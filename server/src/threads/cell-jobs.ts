import { check, type Day } from '@needlecase/core';
import type { DocumentType } from '@needlecase/core/model/documents';
import type { DraftName } from '@needlecase/core/model/schemas';
import { NoCalendar, readCalendar, type ReadCalendar } from '../calendar/read.js';
import { documentType } from '../http/document.js';
import { photoIn } from '../http/photo.js';
import { invalid, mustBeRight, ProblemError } from '../http/problem.js';
import { unsound } from '../http/sound.js';

/* What comes from outside, read without anything of the household at hand. */

/** The field of a request that a thing came in. */
interface From {
  field: string;
}

const CELL_JOBS = {
  /** A body of JSON: read, gone through, and held against its schema. */
  json({ bytes, draft }: { bytes: Uint8Array; draft?: DraftName }): unknown {
    let value: unknown;
    try {
      value = JSON.parse(Buffer.from(bytes).toString('utf8'));
    } catch {
      value = undefined;
    }
    if (typeof value !== 'object' || value === null) {
      throw new ProblemError(400, 'This is not JSON that can be read.', {
        detail: 'Nothing was stored.',
      });
    }
    const problem = unsound(value);
    if (problem) throw invalid([problem]);
    if (draft) mustBeRight(check(draft, value));
    return value;
  },
  calendar({
    text,
    from,
    to,
    zone,
    field,
  }: From & { text: string; from: Day; to: Day; zone: string }): ReadCalendar {
    try {
      return readCalendar(text, from, to, zone);
    } catch (error) {
      if (error instanceof NoCalendar) throw invalid([{ field, message: error.message }]);
      throw error;
    }
  },
  /** A photo as it is kept. */
  picture({ bytes }: { bytes: Uint8Array }): ReturnType<typeof photoIn> {
    return photoIn(Buffer.from(bytes));
  },
  document({ bytes }: { bytes: Uint8Array }): DocumentType {
    return documentType(Buffer.from(bytes));
  },
} as const;
export type CellJob = keyof typeof CELL_JOBS;
export type CellAsk<J extends CellJob> = Parameters<(typeof CELL_JOBS)[J]>[0];
export type CellResult<J extends CellJob> = ReturnType<(typeof CELL_JOBS)[J]>;

/** Does a job. @throws ProblemError what is wrong with what came in */
export const doCellJob = <J extends CellJob>(job: J, ask: CellAsk<J>): unknown =>
  (CELL_JOBS as Record<CellJob, (ask: CellAsk<J>) => unknown>)[job](ask);
