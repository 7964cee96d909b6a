import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { FileProblem } from './db/data-file.js';
import { BackupProblem } from './backup/problem.js';
import { writeBackup } from './backup/write.js';
import { readSettings } from './settings.js';

/* Makes a backup: `node backup.js FILE`, of the data file that NEEDLECASE_DB names, also while it is served. */

// What is written here is nobody else's to read.
process.umask(0o077);
const [target] = process.argv.slice(2);
try {
  if (!target) throw new BackupProblem('Name the file to make, such as needlecase.zip.');
  const { database } = readSettings(process.env);
  if (!existsSync(database)) throw new BackupProblem(`There is no data file ${database}.`);
  if (existsSync(target)) throw new BackupProblem(`${target} is there already. Name another file.`);
  const { counts, household } = await writeBackup(database, resolve(target), Date.now());
  console.log(
    `${target} holds ${household.name} with ${counts['entries']} entries and ${counts['photos']} photos. It was read again and is good.`,
  );
} catch (error) {
  if (!(error instanceof BackupProblem || error instanceof FileProblem)) throw error;
  console.error(error.message);
  process.exit(1);
}
