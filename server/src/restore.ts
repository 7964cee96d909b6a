import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { backupName } from './backup/kept.js';
import { BackupProblem } from './backup/problem.js';
import { ChoicesMissing, lookAtBackup, putBack } from './backup/restore.js';
import { writeBackup } from './backup/write.js';
import { FileProblem } from './db/data-file.js';
import { serveDatabase } from './db/open.js';
import { readSettings } from './settings.js';

/*
 * Puts a backup back: `node restore.js FILE [--merge]`, into the data file that NEEDLECASE_DB names. What is
 * there is backed up first. A server on the file is to be stopped before; or it is done in House > Backup.
 */

// What is written here is nobody else's to read.
process.umask(0o077);
const [zip, option] = process.argv.slice(2);
const how = option === '--merge' ? 'merge' : 'replace';
try {
  if (!zip) throw new BackupProblem('Name the backup to put back.');
  const { database, backups } = readSettings(process.env);
  const { db } = serveDatabase(database);
  db.$client.close();
  const staged = `${database}.staged-by-hand`;
  const now = Date.now();
  const look = await lookAtBackup(database, resolve(zip), staged, now);
  if (look.here) {
    mkdirSync(backups, { recursive: true });
    const before = join(backups, backupName(now, 'before-restore'));
    await writeBackup(database, before, now);
    console.log(`What was here is kept in ${before}`);
  }
  // By command nobody is asked: the one that was changed more often holds, and ours where that does not tell.
  const choices = Object.fromEntries(
    look.differences.map(({ id, proposed = 'ours' }) => [id, proposed]),
  );
  const { here } = putBack(database, staged, { how, choices }, now);
  for (const { id, what } of how === 'merge' ? look.differences : []) {
    console.log(
      `${what} differs: ${choices[id] === 'ours' ? 'what was here' : 'the backup'} holds.`,
    );
  }
  console.log(
    `${database} holds ${here.household} with ${here.machines} machines, ${here.entries} entries and ${here.photos} photos.`,
  );
} catch (error) {
  if (!(
    error instanceof BackupProblem ||
    error instanceof FileProblem ||
    error instanceof ChoicesMissing
  )) {
    throw error;
  }
  console.error(error.message);
  process.exit(1);
}
