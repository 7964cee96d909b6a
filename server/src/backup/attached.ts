import { getTableName } from 'drizzle-orm';
import {
  BACKUP_KIND_NAMES,
  summaryOf,
  type BackupKind,
  type BackupSummary,
} from '@needlecase/core/formats/backup';
import type { Db } from '../db/open.js';
import { households } from '../db/tables.js';
import { countOf, PARTS } from './parts.js';

/** The tables that a backup tells of, in an order in which each stands only on those before it. */
export const TABLES: readonly string[] = BACKUP_KIND_NAMES.flatMap((kind) =>
  PARTS[kind].tables.map((table) => getTableName(table)),
);

/** A staged file beside the household's own, in one connection, while some work is done. */
export function withAttached<T>(db: Db, staged: string, work: () => T): T {
  db.$client.prepare('ATTACH ? AS theirs').run(staged);
  try {
    return work();
  } finally {
    db.$client.exec('DETACH theirs');
  }
}

/** What is in a data file; nothing before the first start. */
export function holdings(db: Db, now: number): BackupSummary | undefined {
  const household = db.select().from(households).get();
  if (!household) return undefined;
  const counts = Object.fromEntries(
    BACKUP_KIND_NAMES.map((kind: BackupKind) => [kind, countOf(db, kind)]),
  );
  return summaryOf({
    made: new Date(now).toISOString(),
    household,
    counts,
  });
}
