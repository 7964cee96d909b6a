import { hindsightView } from '@needlecase/core/views/hindsight';
import type { AheadProblem } from '@needlecase/core/plan/ahead';
import { replan, type Standing } from '@needlecase/core/plan/standing';
import { schoolsView, speakAs, tongueOf, AS_WRITTEN } from '@needlecase/core';
import type { SheetQuery } from '@needlecase/core/model/planned';
import type { RestoreDraft } from '@needlecase/core/formats/backup';
import type { CodeCard } from '@needlecase/core/print/code-card';
import type { WallSheet } from '@needlecase/core/print/wall-sheet';
import { BackupProblem } from '../backup/problem.js';
import { ChoicesMissing, lookAtBackup, putBack, tryBackup } from '../backup/restore.js';
import { writeBackup } from '../backup/write.js';
import { invalid, ProblemError } from '../http/problem.js';
import { printCodes } from '../pdf/codes.js';
import { printLabels, type Label, type LabelSize } from '../pdf/labels.js';
import { printWall, type Paper } from '../pdf/wall.js';
import { printYear, type YearToPrint } from '../pdf/year.js';
import type { Store } from '../store/store.js';
import { houseOf } from '../work/household.js';
import { yearOf } from '../work/year.js';
import { printCase, printMachine, printVisit } from '../work/sheets.js';

/** Where a job is done. */
export interface Place {
  /** The data file; nothing where it is in memory. */
  file: string | undefined;
  /** What is kept, to be read. */
  store: () => Store;
}

interface Printing {
  id: string;
  /** Instant, milliseconds. */
  now: number;
}
interface PrintingRecord extends Printing {
  asked?: SheetQuery;
}
interface Backing {
  target: string;
  now: number;
}
interface Looking {
  zip: string;
  staged: string;
  now: number;
}
interface Restoring extends Omit<RestoreDraft, 'id'> {
  staged: string;
  now: number;
}

interface Planning {
  problem: AheadProblem;
  standing: readonly Standing[];
}

/** Work that takes its time: it is done beside the loop that answers. */
export const JOBS = {
  'print-machine': ({ store }: Place, { id, now, asked }: PrintingRecord) =>
    printMachine(store(), id, now, asked),
  'print-case': ({ store }: Place, { id, now }: Printing) => printCase(store(), id, now),
  'print-visit': ({ store }: Place, { id, now }: Printing) => printVisit(store(), id, now),
  schools: ({ store }: Place, { machineIds }: { machineIds: readonly string[] }) =>
    schoolsView(houseOf(store(), new Set(machineIds)), store().supplies.list()),
  year: ({ store }: Place) => yearOf(store(), Date.now()),
  hindsight: ({ store }: Place) => hindsightView(houseOf(store()), store().cases.list()),
  plan: (_place: Place, { problem, standing }: Planning) => replan(problem, standing),
  'print-wall': (_place: Place, { sheet, paper }: { sheet: WallSheet; paper: Paper }) =>
    printWall(sheet, paper),
  'print-year': (_place: Place, { view, paper }: { view: YearToPrint; paper: Paper }) =>
    printYear(view, paper),
  'print-codes': (_place: Place, { card, paper }: { card: CodeCard; paper: Paper }) =>
    printCodes(card, paper),
  'print-labels': (
    _place: Place,
    { labels, size, paper }: { labels: Label[]; size: LabelSize; paper: Paper },
  ) => printLabels(labels, size, paper),
  backup: (place: Place, { target, now }: Backing) => writeBackup(fileOf(place), target, now),
  'try-backup': (_place: Place, { zip, staged }: { zip: string; staged: string }) =>
    tryBackup(zip, staged),
  'look-at-backup': (place: Place, { zip, staged, now }: Looking) =>
    lookAtBackup(fileOf(place), zip, staged, now),
  'put-back': (place: Place, { staged, now, ...draft }: Restoring) =>
    putBack(fileOf(place), staged, draft, now),
} as const;
export type JobName = keyof typeof JOBS;
export type JobAsk<J extends JobName> = Parameters<(typeof JOBS)[J]>[1];
export type JobResult<J extends JobName> = Awaited<ReturnType<(typeof JOBS)[J]>>;

function fileOf({ file }: Place): string {
  if (file === undefined) throw new ProblemError(409, 'This household is only in memory.');
  return file;
}

/** Does a job; what is said to the person is a problem, whatever it was. @throws ProblemError */
export async function doJob<J extends JobName>(
  place: Place,
  job: J,
  ask: JobAsk<J>,
): Promise<JobResult<J>> {
  const household = place.store().household.get();
  speakAs(household ? tongueOf(household) : AS_WRITTEN);
  try {
    const work = JOBS[job] as (place: Place, ask: JobAsk<J>) => unknown;
    return (await work(place, ask)) as JobResult<J>;
  } catch (error) {
    if (error instanceof ChoicesMissing) throw invalid(error.problems);
    if (error instanceof BackupProblem) {
      throw new ProblemError(422, error.message, {
        detail: 'Nothing was changed.',
        errors: [{ field: 'backup', message: error.message }],
      });
    }
    throw error;
  }
}
