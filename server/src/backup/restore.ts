import { existsSync } from 'node:fs';
import type {
  BackupLook,
  BackupManifest,
  Restored,
  RestoreDraft,
} from '@needlecase/core/formats/backup';
import { BACKUP_KIND_NAMES, summaryOf } from '@needlecase/core/formats/backup';
import type { FieldProblem } from '@needlecase/core';
import { withoutGuards } from '../db/guards.js';
import { openDatabase, readDatabase, type Db } from '../db/open.js';
import { households } from '../db/tables.js';
import { holdings, TABLES, withAttached } from './attached.js';
import { merge, missingChoices, planMerge, type Merge } from './merge.js';
import { countOf } from './parts.js';
import { BackupProblem } from './problem.js';
import { removeStaged, stageBackup } from './stage.js';

/**
 * Checks a backup whole, and tells what it would mean here. It is left staged, to be put back.
 * @param staged where it is unpacked to
 * @throws BackupProblem in words
 */
export async function lookAtBackup(
  file: string,
  zip: string,
  staged: string,
  now: number,
): Promise<Omit<BackupLook, 'id'>> {
  const manifest = await stageBackup(zip, staged);
  return withBoth(file, staged, (ours, theirs) => {
    const here = holdings(ours, now);
    const plan = isSame(ours, manifest) ? planMerge(ours, theirs) : undefined;
    return {
      backup: summaryOf(manifest),
      ...(here ? { here } : {}),
      same: plan !== undefined,
      added: plan?.added ?? {},
      differences: plan?.differences ?? [],
    };
  });
}

/**
 * Puts a backup back in trial, into a file of its own that is let go afterwards, and holds what is there then against
 * what the backup says of itself.
 * @throws BackupProblem in words
 */
export async function tryBackup(zip: string, staged: string): Promise<void> {
  const manifest = await stageBackup(zip, staged);
  const db = readDatabase(staged);
  try {
    for (const kind of BACKUP_KIND_NAMES) {
      const [there, said] = [countOf(db, kind), manifest.counts[kind] ?? 0];
      if (there === said) continue;
      throw new BackupProblem(
        `The backup does not come back whole: of ${kind} ${there} of ${said} are there.`,
      );
    }
    if (db.$client.pragma('integrity_check', { simple: true }) !== 'ok') {
      throw new BackupProblem('The backup does not come back whole: its file is not sound.');
    }
  } finally {
    db.$client.close();
    removeStaged(staged);
  }
}

/** What could not be done, for want of an answer. */
export class ChoicesMissing extends Error {
  constructor(readonly problems: FieldProblem[]) {
    super('Things differ, and it was not said which hold.');
  }
}

/**
 * Puts a staged backup in the place of what is here, or takes in what is missing here: all of it, or nothing.
 * Afterwards the staged file is gone.
 * @throws BackupProblem where it is no longer staged, or cannot be merged; ChoicesMissing
 */
export function putBack(
  file: string,
  staged: string,
  { how, choices = {} }: Omit<RestoreDraft, 'id'>,
  now: number,
): Omit<Restored, 'before'> {
  if (!existsSync(staged)) {
    throw new BackupProblem('This backup was handed in too long ago. Choose the file again.');
  }
  const restored = withBoth(file, staged, (ours, theirs) => {
    const plan = how === 'merge' ? mergeOf(ours, theirs) : undefined;
    if (plan) {
      const problems = missingChoices(plan, choices);
      if (problems.length) throw new ChoicesMissing(problems);
    }
    const client = ours.$client;
    client
      .transaction(() => {
        client.pragma('defer_foreign_keys = ON');
        if (plan) merge(ours, theirs, plan, choices);
        else replace(ours);
        if ((client.pragma('foreign_key_check') as unknown[]).length) {
          throw new BackupProblem('This backup does not fit together. Nothing was changed.');
        }
      })
      .immediate();
    const here = holdings(ours, now)!;
    return { here, added: plan?.added ?? everything(here) };
  });
  removeStaged(staged);
  return restored;
}

const everything = ({ machines, entries, visits, cases, photos }: Restored['here']) => ({
  machines,
  entries,
  runs: visits,
  cases,
  photos,
});

function mergeOf(ours: Db, theirs: Db): Merge {
  const id = (db: Db) => db.select({ id: households.id }).from(households).get()?.id;
  if (id(ours) === undefined || id(ours) !== id(theirs)) {
    throw new BackupProblem(
      'Only a backup of the same household can be merged. This one can be put in the place of what is here.',
    );
  }
  return planMerge(ours, theirs);
}

const isSame = (ours: Db, { household }: BackupManifest): boolean =>
  ours.select({ id: households.id }).from(households).get()?.id === household.id;

/** Everything here goes, everything there comes. */
function replace({ $client: client }: Db): void {
  withoutGuards(client, TABLES, () => {
    client.exec("DELETE FROM main.facts WHERE name <> 'host'");
    for (const table of TABLES.toReversed()) client.exec(`DELETE FROM main."${table}"`);
    for (const table of TABLES) {
      const columns = client.pragma(`theirs.table_info("${table}")`) as { name: string }[];
      const names = columns.map(({ name }) => `"${name}"`).join(', ');
      client.exec(
        `INSERT INTO main."${table}" (${names}) SELECT ${names} FROM theirs."${table}" ORDER BY rowid`,
      );
    }
  });
}

/** The household's file with the staged one attached, and the staged one by itself. */
function withBoth<T>(file: string, staged: string, work: (ours: Db, theirs: Db) => T): T {
  const theirs = readDatabase(staged);
  try {
    const ours = openDatabase(file);
    try {
      return withAttached(ours, staged, () => work(ours, theirs));
    } finally {
      ours.$client.close();
    }
  } finally {
    theirs.$client.close();
  }
}
