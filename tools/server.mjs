/* Bundles the server and the demo maker; better-sqlite3 stays outside, it is native. */
import { build } from 'esbuild';
import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './steps.mjs';

rmSync(join(root, 'server/dist'), { recursive: true, force: true });
await build({
  absWorkingDir: root,
  entryPoints: {
    main: 'server/src/main.ts',
    worker: 'server/src/threads/worker.ts',
    backup: 'server/src/backup.ts',
    restore: 'server/src/restore.ts',
    demo: 'server/src/demo.ts',
    benchmark: 'server/src/benchmark.ts',
  },
  outdir: 'server/dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  splitting: true,
  sourcemap: 'linked',
  external: [
    'better-sqlite3',
    'express',
    'pino',
    'pino-http',
    'helmet',
    'compression',
    'pdfmake',
    'piscina',
    'yazl',
    'yauzl',
    'express-rate-limit',
    'multicast-dns',
    'qrcode',
    'reflect-metadata',
    '@peculiar/x509',
  ],
  logLevel: 'warning',
});
cpSync(join(root, 'server/migrations'), join(root, 'server/dist/migrations'), { recursive: true });
