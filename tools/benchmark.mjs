/* npm run benchmark: what the budgets in the guide ask for, measured on this machine. */
import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { quantile, timed, underLoad } from './load.mjs';
import { browser, build, install, root } from './steps.mjs';

install();
build();
const executablePath = browser({ whole: true });
const { chromium } = await import('@playwright/test');

const work = mkdtempSync(join(tmpdir(), 'needlecase-benchmark-'));
const file = join(work, 'bench.sqlite');
const rows = [];
const row = (what, figure, budget) => rows.push({ what, figure, budget });
const ms = (value) => `${value < 10 ? value.toFixed(1) : Math.round(value)} ms`;

try {
  const { api, dues, trouble, measure, backup, plan } = JSON.parse(
    execFileSync('node', ['server/dist/benchmark.js', file], { cwd: root, encoding: 'utf8' }),
  );

  const { server, address } = await serve(file);
  const engine = await chromium.launch({
    executablePath,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  });
  const firsts = [];
  const changes = [];
  let inPage = 0;
  let scripts = new Set();
  for (let i = 0; i < 5; i++) {
    const page = await (await engine.newContext()).newPage();
    scripts = new Set();
    page.on('response', (answer) => {
      if (answer.url().endsWith('.js')) scripts.add(new URL(answer.url()).pathname);
    });
    await page.goto(address);
    await page
      .getByRole('button', { name: /Count a load/ })
      .first()
      .waitFor();
    firsts.push(await page.evaluate(() => performance.now()));
    await page.getByRole('link', { name: 'Log' }).click();
    await page.getByRole('heading', { name: 'Log', level: 1 }).waitFor();
    await page.getByRole('link', { name: 'Bench', exact: true }).click();
    await page
      .getByRole('button', { name: /Count a load/ })
      .first()
      .waitFor();
    changes.push(
      await page.evaluate(async () => {
        const start = performance.now();
        [...document.querySelectorAll('nav a')].find((a) => a.textContent === 'Log').click();
        while (document.querySelector('h1')?.textContent !== 'Log') {
          await new Promise((next) => requestAnimationFrame(next));
        }
        return performance.now() - start;
      }),
    );
    if (i === 0) inPage = await troubleInPage(page);
    if (i === 0) {
      const fresh = await (await engine.newContext()).newPage();
      scripts = new Set();
      fresh.on('response', (answer) => {
        if (answer.url().endsWith('.js')) scripts.add(new URL(answer.url()).pathname);
      });
      await fresh.goto(address);
      await fresh
        .getByRole('button', { name: /Count a load/ })
        .first()
        .waitFor();
      const bytes = [...scripts].reduce(
        (sum, path) =>
          sum + gzipSync(readFileSync(join(root, 'web/dist/browser', path)), { level: 9 }).length,
        0,
      );
      row('Initial JavaScript of the Bench, gzip', `${Math.round(bytes / 1000)} kB`, '170 kB');
    }
    await page.context().close();
  }
  await engine.close();
  server.kill();

  const middle = (values) => values.sort((a, b) => a - b)[values.length >> 1];
  row(
    'Bench usable in the browser, 8 machines and 60,000 entries, first visit',
    ms(middle(firsts)),
    '700 ms',
  );
  row('Change of view, Bench to Log', ms(middle(changes)), '60 ms');
  row('Bench from the API, median, 60,000 entries', ms(api.warm), '15 ms');
  row('  right after a load was counted', ms(api.tapped), '15 ms');
  row('  with nothing at hand, all read from the file', ms(api.cold), '');
  row('Newest 60 log entries from the API', ms(api.log), '');
  row('Due dates with learning, 10 machines of 10 years', ms(dues[10]), '');
  row('  100 machines', ms(dues[100]), '');
  row('  1,000 machines', ms(dues[1000]), '1000 ms');

  row('Trouble: one answer in the page, front loader, median', ms(inPage), '3 ms');
  row('Trouble: one answer in Node', ms(trouble.answer), '3 ms');
  for (const { kind, knowing, advised, random, fixed } of trouble.minutes) {
    const share = Math.round(100 * (advised / Math.min(random, fixed)));
    const times = (advised / knowing).toFixed(2);
    row(
      `  a thousand troubles of a ${kind}, minutes: advised; one who knows ${Math.round(knowing)}, random order ${Math.round(random)}, fixed order ${Math.round(fixed)}`,
      `${Math.round(advised)} (${share} %, ${times} times)`,
      kind === 'vented-dryer' ? '60 %, 1.6 times' : '60 %, 1.5 times',
    );
  }

  const big = await serve(`${file}.big`);
  const firstOfAll = await timed(`${big.address}api/v1/bench`);
  const again = [];
  for (let i = 0; i < 21; i++) again.push(await timed(`${big.address}api/v1/bench`));
  big.server.kill();
  row('Bench of 500 machines and 500,000 entries', ms(middle(again)), '60 ms');
  row('  the first after a start; others are answered meanwhile', ms(firstOfAll), '');
  const small = await serve(file);
  row(
    'First bench after a start, 60,000 entries',
    ms(await timed(`${small.address}api/v1/bench`)),
    '300 ms',
  );
  const load = await underLoad(small.address, 30);
  small.server.kill();
  for (const [name, times] of Object.entries(load)) {
    row(
      `  50 readers, 5 writers, records printed, 30 s: ${name}, ${times.length} times, median and p99`,
      `${ms(quantile(times, 0.5))}, ${ms(quantile(times, 0.99))}`,
      name === 'small' ? '300 ms' : '',
    );
  }
  for (const { photos, megabytes, ...took } of backup) {
    row(
      `Backup of 60,000 entries and ${photos} photos (${Math.round(megabytes)} MB), and its way back`,
      `${took.backup.toFixed(1)} s, ${took.restore.toFixed(1)} s`,
      '60 s, 60 s',
    );
    row('  the most memory it took beside', `${Math.round(took.memory)} MB`, '');
  }

  row('A year planned: the first plan of the demo household', ms(plan.first), '200 ms');
  row(
    '  within so much of the best there can be, after 2 s',
    `${(100 * plan.within).toFixed(1)} %`,
    '3 %',
  );
  row('Vent run solved', ms(measure.vent), '1 ms');
  row('Drum model, a load', ms(measure.drum), '3 ms');

  const wide = Math.max(...rows.map(({ what }) => what.length));
  console.log(`${'measured'.padEnd(wide)}  ${'figure'.padStart(9)}  budget`);
  for (const { what, figure, budget } of rows) {
    console.log(`${what.padEnd(wide)}  ${figure.padStart(9)}  ${budget}`);
  }
} finally {
  rmSync(work, { recursive: true, force: true });
}

/** Starts the built server on a file. */
async function serve(data) {
  const server = spawn('node', ['server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, NEEDLECASE_DB: data, PORT: '0' },
  });
  const address = await new Promise((found) =>
    server.stdout.on('data', (text) => {
      const match = /http:\/\/\S+/.exec(String(text));
      if (match) found(match[0]);
    }),
  );
  return { server, address };
}

/** Tells a front loader's trouble step by step; what the engine took for an answer, ms, in the middle. */
async function troubleInPage(page) {
  await page.goto(`${new URL(page.url()).origin}/trouble`);
  await page
    .getByRole('link', { name: /Line of the/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'None of these' }).click();
  await page.locator('nc-tell .choice').first().click();
  for (let i = 0; i < 12; i++) {
    await page
      .locator('nc-tell .choice')
      .nth(i % 3)
      .click();
  }
  const times = await page.evaluate(() =>
    performance.getEntriesByName('trouble answer').map(({ duration }) => duration),
  );
  return times.sort((a, b) => a - b)[Math.floor(times.length / 2)];
}
