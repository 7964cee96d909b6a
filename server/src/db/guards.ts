import type Database from 'better-sqlite3';

/**
 * Does work on tables whose rows are otherwise never changed, without the triggers that see to it. To be called
 * inside a transaction: where it fails, the triggers are back with everything else.
 */
export function withoutGuards(
  client: Database.Database,
  tables: readonly string[],
  work: () => void,
): void {
  const guards = client
    .prepare(
      `SELECT name, sql FROM main.sqlite_master
       WHERE type = 'trigger' AND tbl_name IN (${tables.map(() => '?').join(', ')})`,
    )
    .all(...tables) as { name: string; sql: string }[];
  for (const { name } of guards) client.exec(`DROP TRIGGER main."${name}"`);
  work();
  for (const { sql } of guards) client.exec(sql);
}
