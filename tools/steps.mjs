/*
 * What the commands share: installing, building and finding the browser, each only when something
 * changed. Plain JavaScript on Node alone, since it runs before anything is installed.
 */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const cache = join(root, '.cache');

/** Runs a command in the repository; ends the program when it fails. */
export function run(command, args, env = {}) {
  const result = spawnSync(command, args, {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  if (result.status !== 0) process.exit(result.status ?? 1);
}

export const bin = (name) => join(root, 'node_modules/.bin', name);

/** A print of files' contents; folders are read whole. */
function printOf(paths) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) {
        if (!['node_modules', 'dist', '.angular', 'test-results'].includes(name)) {
          visit(join(path, name));
        }
      }
      return;
    }
    if (path.includes('.generated.')) return;
    hash.update(relative(root, path)).update('\0').update(readFileSync(path));
  };
  for (const path of paths) visit(join(root, path));
  return hash.digest('hex');
}

/** Does work unless it was done before for the same files and its products are still there. */
function unlessDone(name, inputs, products, work) {
  const stamp = join(cache, `${name}.stamp`);
  const print = printOf(inputs);
  const done =
    existsSync(stamp) &&
    readFileSync(stamp, 'utf8') === print &&
    products.every((path) => existsSync(join(root, path)));
  if (done) return;
  work();
  mkdirSync(cache, { recursive: true });
  writeFileSync(stamp, print);
}

export function install() {
  unlessDone(
    'install',
    ['package-lock.json', '.npmrc'],
    [
      'node_modules/.package-lock.json',
      'node_modules/better-sqlite3/build/Release/better_sqlite3.node',
    ],
    () => {
      console.log('Installing packages. This takes a few minutes the first time.');
      run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
    },
  );
}

export function build() {
  unlessDone(
    'validators',
    [
      'core/src/model',
      'core/src/formats',
      'tools/validators.ts',
      'tools/standalone.ts',
      'package-lock.json',
    ],
    [
      'core/src/model/validators.generated.js',
      'core/src/model/queries.generated.js',
      'core/src/formats/backup.generated.js',
      'core/src/model/access.generated.js',
    ],
    () => run(bin('tsx'), ['tools/validators.ts']),
  );
  unlessDone(
    'derived',
    ['core/src', 'tools/derived.ts', 'tools/standalone.ts', 'package-lock.json'],
    ['server/src/http/derived.generated.json', 'core/src/model/instruments.generated.js'],
    () => run(bin('tsx'), ['tools/derived.ts']),
  );
  unlessDone(
    'server',
    [
      'core/src',
      'server/src',
      'server/migrations',
      'demo',
      'tools/server.mjs',
      'package-lock.json',
    ],
    ['server/dist/main.js', 'server/dist/worker.js', 'server/dist/cell.js', 'server/dist/demo.js'],
    () => run('node', ['tools/server.mjs']),
  );
  unlessDone(
    'web',
    [
      'core/src',
      'web',
      'angular.json',
      'tsconfig.base.json',
      'package-lock.json',
      'tools/licences.mjs',
      'tools/fewer-files.mjs',
      'tools/kept-answers.mjs',
      'tools/preload.mjs',
    ],
    ['web/dist/browser/index.html', 'web/dist/browser/licences.txt'],
    () => {
      console.log('Building the web application.');
      run(bin('ng'), ['build'], { NG_CLI_ANALYTICS: 'false' });
      run('node', ['tools/fewer-files.mjs']);
      run('node', ['tools/licences.mjs']);
      run('node', ['tools/preload.mjs']);
    },
  );
}

/** Debian's Chromium without a window, and the whole of it; the first is lighter. */
const SHELL = { path: '/usr/bin/chromium-headless-shell', package: 'chromium-headless-shell' };
const WHOLE = { path: '/usr/bin/chromium', package: 'chromium' };

/**
 * Where Chromium is; from Debian's packages when it is not there yet.
 * @param whole for measuring: the browser that people use, where it is there
 */
export function browser({ whole = false } = {}) {
  if (process.env.CHROMIUM) return process.env.CHROMIUM;
  const wanted = whole ? [WHOLE, SHELL] : [SHELL, WHOLE];
  const there = () => wanted.find(({ path }) => existsSync(path))?.path;
  if (!existsSync(SHELL.path) && !(whole && existsSync(WHOLE.path))) {
    console.log('Installing Chromium from Debian’s packages.');
    apt(['update', '-qq']);
    // A system without the one may have the other.
    if (!aptInstall(SHELL.package) && !there()) aptInstall(WHOLE.package);
  }
  const path = there();
  if (!path) {
    console.error('No Chromium: install it, and name it in the environment as CHROMIUM.');
    process.exit(1);
  }
  return path;
}

/** What the tests hold certificates and the data file against; of Debian's packages. */
export function outsideTools() {
  const wanted = { openssl: 'openssl', certutil: 'libnss3-tools', sqlite3: 'sqlite3' };
  const missing = Object.entries(wanted).filter(
    ([command]) => spawnSync('which', [command]).status !== 0,
  );
  if (missing.length === 0) return;
  apt(['update', '-qq']);
  for (const [command, name] of missing) {
    console.log(`Installing ${command} from Debian’s packages.`);
    if (!aptInstall(name)) {
      console.error(`No ${command}: install ${name}.`);
      process.exit(1);
    }
  }
}

const aptInstall = (name) =>
  apt(['install', '-y', '-qq', '--no-install-recommends', name]).status === 0;

function apt(args) {
  const [command, ...rest] = [...(process.getuid?.() === 0 ? [] : ['sudo']), 'apt-get', ...args];
  return spawnSync(command, rest, {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
}
