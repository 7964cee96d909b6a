import { execFile, execFileSync } from 'node:child_process';

/*
 * SQLite's own shell, of Debian's packages: as many other programs have it, older than the one in the server, which
 * looks for locks that were lost before it takes a -wal away.
 */
const LOOK = 'SELECT count(*) FROM sqlite_master';

/** Another program that opens a file with SQLite, reads from it and closes it, as a file manager's preview does. */
export const lookedAt = (file: string): void =>
  void execFileSync('sqlite3', [file, LOOK], { stdio: ['ignore', 'ignore', 'ignore'] });

/** The same beside what goes on; a file that is held just then is left alone. */
export const lookedAtMeanwhile = (file: string): Promise<void> =>
  new Promise((done) => {
    execFile('sqlite3', [file, LOOK], () => done());
  });
