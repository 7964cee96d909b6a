/* Bundles the server and the demo maker, with the packages that they use. */
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
    cell: 'server/src/threads/cell.ts',
    backup: 'server/src/backup.ts',
    restore: 'server/src/restore.ts',
    demo: 'server/src/demo.ts',
    benchmark: 'server/src/benchmark.ts',
    'big-house': 'server/src/big-house.ts',
  },
  outdir: 'server/dist',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  splitting: true,
  sourcemap: 'linked',
  // One file is read faster than a thousand: a start takes half as long.
  minifyWhitespace: true,
  minifySyntax: true,
  banner: {
    js: "import { createRequire as requireFor } from 'node:module';\nconst require = requireFor(import.meta.url);",
  },
  // Native, or with files of their own beside them.
  external: ['better-sqlite3', 'pdfmake', 'piscina'],
  logLevel: 'warning',
});
cpSync(join(root, 'server/migrations'), join(root, 'server/dist/migrations'), { recursive: true });
