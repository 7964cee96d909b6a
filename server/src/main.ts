import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { makeApp } from './app.js';
import { endOnFaults } from './faults.js';
import { openDatabase } from './db/open.js';
import { readSettings } from './settings.js';

const settings = readSettings(process.env);
const log = pino({ level: settings.log });
endOnFaults(log);
const webRoot = join(dirname(fileURLToPath(import.meta.url)), '../../web/dist/browser');
const { express, store, changes } = makeApp(openDatabase(settings.database), webRoot, log);
store.answers.forgetOld();

const server = express.listen(settings.port, settings.host, (error?: Error) => {
  if (error) {
    const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE';
    console.error(
      taken
        ? `Port ${settings.port} is taken. Set PORT to another one.`
        : `Needlecase cannot listen: ${error.message}`,
    );
    process.exit(1);
  }
  const { port } = server.address() as AddressInfo;
  const host = settings.host.includes(':') ? `[${settings.host}]` : settings.host;
  console.log(`Needlecase is at http://${host}:${port}/`);
});

function stop(): void {
  changes.close();
  server.close(() => {
    store.close();
    process.exit(0);
  });
  server.closeIdleConnections();
}
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
