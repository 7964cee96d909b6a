import { resolve } from 'node:path';

/** Where the data is and where the server listens; from the environment. */
export interface Settings {
  /** NEEDLECASE_DB: the data file. */
  database: string;
  /** NEEDLECASE_BACKUPS: the folder that a backup is put into every day. */
  backups: string;
  /** PORT: 0 lets the system choose. */
  port: number;
  /** HOST: 127.0.0.1 unless told otherwise. */
  host: string;
  /** NEEDLECASE_LOG: pino level. */
  log: string;
}

/** @throws RangeError for a port that is none */
export function readSettings(env: NodeJS.ProcessEnv): Settings {
  const port = Number(env['PORT'] ?? 4310);
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    throw new RangeError('PORT is a whole number from 0 to 65535.');
  }
  const database = resolve(env['NEEDLECASE_DB'] ?? 'data/needlecase.sqlite');
  return {
    database,
    backups: resolve(env['NEEDLECASE_BACKUPS'] ?? `${database.replace(/\.sqlite$/, '')}-backups`),
    port,
    host: env['HOST'] ?? '127.0.0.1',
    log: env['NEEDLECASE_LOG'] ?? 'warn',
  };
}
