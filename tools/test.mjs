/*
 * npm test: installs what is missing, then formatting, lint, layering, types, builds, units,
 * components and the browser. Every part runs; the last line counts the tests of all of them.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { bin, browser, build, outsideTools, install, root } from './steps.mjs';

const started = Date.now();
install();
build();
const CHROMIUM = browser();
outsideTools();

const reports = join(root, '.cache/reports');
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });

const vitest = (name) => ({
  file: join(reports, `${name}.json`),
  read: ({ numPassedTests, numFailedTests, testResults }) => ({
    passed: numPassedTests,
    failed:
      numFailedTests +
      testResults.filter(
        ({ status, assertionResults }) => status === 'failed' && assertionResults.length === 0,
      ).length,
    names: testResults.flatMap(({ name, status, assertionResults }) => {
      const failed = assertionResults.filter((one) => one.status === 'failed');
      const file = name.replace(`${root}/`, '');
      if (status === 'failed' && !assertionResults.length) return [file];
      return failed.map(({ fullName }) => `${file}: ${fullName}`);
    }),
  }),
});

/** Browser tests of a status, of a suite and of all within it. */
const ofStatus =
  (wanted) =>
  ({ file, specs = [], suites = [] }) => [
    ...specs
      .filter(({ tests }) => tests.some(({ status }) => status === wanted))
      .map(({ title, line }) => `${file}:${line}: ${title}`),
    ...suites.flatMap(ofStatus(wanted)),
  ];

/** Checks types; what was checked before and did not change is not checked again. */
const types = (config) => [
  bin('tsc'),
  ...['-p', config, '--incremental'],
  ...['--tsBuildInfoFile', join(root, '.cache', `${config.replaceAll('/', '-')}.tsbuildinfo`)],
];

/** Each part's command, and where it counts its tests; a part without counts is one test itself. */
const parts = [
  {
    name: 'format',
    command: [
      bin('prettier'),
      ...['--check', '--log-level', 'warn', '--cache', '--cache-strategy', 'content'],
      ...['--cache-location', join(root, '.cache/prettier'), '.'],
    ],
  },
  { name: 'lint', command: [bin('eslint'), '.', '--max-warnings', '0'] },
  {
    name: 'layers',
    command: ['node', 'tools/layout.mjs', '--check'],
  },
  { name: 'advisories', command: ['node', 'tools/advisories.mjs'] },
  { name: 'types of core', command: types('core/tsconfig.json') },
  { name: 'types of server', command: types('server/tsconfig.json') },
  { name: 'types of demo and tools', command: types('tsconfig.json') },
  { name: 'types of browser tests', command: types('e2e/tsconfig.json') },
  {
    name: 'units',
    command: [
      bin('vitest'),
      'run',
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${join(reports, 'units.json')}`,
    ],
    counts: vitest('units'),
  },
  {
    name: 'components',
    command: [
      bin('ng'),
      'test',
      '--watch=false',
      '--reporters=default',
      '--reporters=json',
      `--output-file=${join(reports, 'components.json')}`,
    ],
    counts: vitest('components'),
  },
  {
    name: 'browser',
    command: [bin('playwright'), 'test', '--config', 'e2e/playwright.config.ts'],
    counts: {
      file: join(reports, 'browser.json'),
      read: ({ stats, suites }) => ({
        // Only where CI asks for a second try is there one; what needed it is named at the end.
        passed: stats.expected + stats.flaky,
        failed: stats.unexpected,
        names: suites.flatMap(ofStatus('unexpected')),
        twice: suites.flatMap(ofStatus('flaky')),
      }),
    },
  },
];

const sum = { passed: 0, failed: 0 };
const failures = [];
/** Passed at the second try: each is a fault to be looked into, in the test or in the program. */
const secondTry = [];
const only = process.argv.slice(2);

/** Runs one part; what it prints is shown when it has ended, or at once where nothing runs beside it. */
async function runPart({ name, command, counts }, alone) {
  const begun = Date.now();
  const [program, ...args] = command;
  const printed = [];
  const status = await new Promise((ended) => {
    const child = spawn(program, args, {
      cwd: root,
      stdio: alone ? 'inherit' : ['ignore', 'pipe', 'pipe'],
      env: {
        ...process.env,
        CHROMIUM,
        NG_CLI_ANALYTICS: 'false',
        PLAYWRIGHT_JSON: counts?.file ?? '',
      },
    });
    for (const stream of [child.stdout, child.stderr])
      stream?.on('data', (text) => printed.push(text));
    child.on('close', ended);
  });
  const own = { passed: status === 0 ? 1 : 0, failed: status === 0 ? 0 : 1, names: [] };
  if (counts && existsSync(counts.file)) {
    Object.assign(own, counts.read(JSON.parse(readFileSync(counts.file, 'utf8'))));
    if (status !== 0 && own.failed === 0) own.failed = 1;
  }
  if (own.failed) failures.push(...(own.names.length ? own.names : [name]));
  secondTry.push(...(own.twice ?? []));
  sum.passed += own.passed;
  sum.failed += own.failed;
  process.stdout.write(Buffer.concat(printed));
  const seconds = Math.round((Date.now() - begun) / 1000);
  console.log(`== ${name}: ${own.passed} passed, ${own.failed} failed, ${seconds} s\n`);
}

const wanted = parts.filter(({ name }) => !only.length || only.includes(name));
const inTurn = async (lane) => {
  for (const part of lane) await runPart(part, false);
};
const counting = ({ name }) => ['units', 'components', 'types of server'].includes(name);
const inBrowser = wanted.filter(({ name }) => name === 'browser');
const before = wanted.filter((part) => !inBrowser.includes(part));
// Two lanes for two cores; the browser has the machine to itself, its waits are short.
await Promise.all([
  inTurn(before.filter(counting)),
  inTurn(before.filter((part) => !counting(part))),
]);
for (const part of inBrowser) await runPart(part, true);
console.log(`\nAll of it took ${Math.round((Date.now() - started) / 1000)} s.`);
for (const name of secondTry) console.log(`only at the second try: ${name}`);
for (const name of failures) console.log(`failed: ${name}`);
console.log(`${sum.passed} passed, ${sum.failed} failed`);
process.exit(sum.failed ? 1 : 0);
