/*
 * npm run screenshots: the main views from the demo data, into docs/screenshots/. With names, only
 * those; with --to FOLDER, somewhere else.
 */
import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browser, build, install, root, run } from './steps.mjs';

install();
build();
const executablePath = browser();
const { chromium } = await import('@playwright/test');

const args = process.argv.slice(2);
const toAt = args.indexOf('--to');
const folder = toAt < 0 ? join(root, 'docs/screenshots') : args.splice(toAt, 2)[1];
mkdirSync(folder, { recursive: true });

const work = mkdtempSync(join(tmpdir(), 'needlecase-'));
const file = join(work, 'demo.sqlite');
run('node', ['server/dist/demo.js', file]);

const servers = [];
/** Serves a data file; its address. */
function serve(database, more = {}) {
  const server = spawn('node', ['server/dist/main.js'], {
    cwd: root,
    env: { ...process.env, NEEDLECASE_DB: database, PORT: '0', ...more },
  });
  servers.push(server);
  return new Promise((found) => {
    server.stdout.on('data', (text) => {
      const match = /http:\/\/\S+/.exec(String(text));
      if (match) found(match[0]);
    });
  });
}
const address = await serve(file);
const empty = await serve(join(work, 'empty.sqlite'));

const api = (path, init) => fetch(`${address}api/v1/${path}`, init).then((answer) => answer.json());
const machines = await api('machines');
const idOf = (name) => machines.find((machine) => machine.name === name).id;
const beginRun = (tasks) =>
  api('runs', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ tasks }),
  });

const WIDE = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** Goes on in a run until a step says this. */
async function until(page, words) {
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  for (let i = 0; i < 60; i++) {
    const title = await page.locator('h1').first().textContent();
    if (title.includes(words)) return;
    const nothing = page.getByRole('button', { name: 'Nothing', exact: true });
    if (await nothing.isVisible()) await nothing.click();
    await page.locator('[data-onward]').click();
    await page.waitForFunction((old) => document.querySelector('h1').textContent !== old, title);
  }
  throw new Error(`No step says "${words}".`);
}

const SHOTS = {
  bench: { path: '', act: (page) => page.locator('nc-weeks svg').waitFor() },
  'bench-phone': { path: '', size: PHONE },
  machine: { path: `machine/${idOf('Cellar washer')}` },
  plan: {
    path: 'plan',
    act: async (page) => {
      await page.getByRole('button', { name: 'See Steady' }).click({ timeout: 30_000 });
      await page.getByText('Dots: what each').waitFor();
      await page.waitForTimeout(3000);
      await page.locator('nc-band .band').focus();
      for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
    },
  },
  'plan-phone': {
    size: PHONE,
    path: 'plan',
    act: async (page) => {
      await page.getByRole('button', { name: 'See Steady' }).click({ timeout: 30_000 });
      await page.locator('nc-cloth li button').nth(4).click();
    },
  },
  'visit-step-phone': {
    size: PHONE,
    theme: 'dark',
    before: async () => {
      const tasks = [{ machineId: idOf('Cellar washer'), task: 'pump-filter' }];
      return `visit/${(await beginRun(tasks)).id}`;
    },
    act: (page) => until(page, 'Pull the cap off the hose'),
  },
  'visit-guard-phone': {
    size: PHONE,
    theme: 'dark',
    before: async () => {
      const tasks = ['gasket-folds', 'drum-clean'].map((task) => ({
        machineId: idOf('Cellar washer'),
        task,
      }));
      return `visit/${(await beginRun(tasks)).id}`;
    },
    act: async (page) => {
      await until(page, 'Mould or film left');
      await page.getByRole('button', { name: /^Mould remover with chlorine/ }).click();
      await page.locator('[data-onward]').click();
      const title = () => page.locator('h1').first().textContent();
      while (!(await title()).includes('Look in the manual')) {
        const before = await title();
        const enough = page.getByRole('button', { name: 'It has had its time' });
        if (await enough.isVisible()) await enough.click();
        if (before.includes('run a rinse')) {
          await page.getByRole('button', { name: 'Leave this out' }).click();
        } else await page.locator('[data-onward]').click();
        await page.waitForFunction(
          (old) => document.querySelector('h1').textContent !== old,
          before,
        );
      }
      await page.getByRole('button', { name: /^Vinegar/ }).click();
      await page.getByRole('alert').scrollIntoViewIfNeeded();
    },
  },
  trouble: { path: 'trouble' },
  'trouble-look-phone': {
    size: PHONE,
    path: `trouble?machine=${idOf('Cellar washer')}&finding=drains-slowly`,
    act: async (page) => {
      await page.getByRole('button', { name: 'None of these' }).click();
      await page.locator('nc-look h2').waitFor();
    },
  },
  case: {
    path: 'trouble',
    act: async (page) => {
      await page.getByRole('link', { name: /It takes long/ }).click();
      await page.locator('nc-suspects li').first().waitFor();
    },
  },
  meter: {
    path: `machine/${idOf('Cellar dryer')}/meter`,
    act: async (page) => {
      const file = { name: 'plug.csv', mimeType: 'text/csv', buffer: Buffer.from(dryerLog()) };
      await page.locator('input[type="file"]').setInputFiles(file);
      await page.getByRole('button', { name: 'That is right: read it' }).click();
      await page.getByRole('button', { name: 'Keep them' }).click();
      await page.locator('nc-power-day').waitFor();
      await page.locator('nc-meter li .row').first().click();
      await page.locator('nc-signal').waitFor();
    },
  },
  life: {
    path: `machine/${idOf('Cellar washer')}/life`,
    act: (page) => page.getByText('Fill hose').waitFor(),
  },
  practice: {
    path: 'practice',
    act: async (page) => {
      const game = {
        ...{
          seed: 3,
          level: 'full',
          machine: machines.find(({ name }) => name === 'Cellar washer'),
        },
        acts: [
          ...['look:open-filter', 'prep:unplugged', 'prep:cold', 'measure:tub', 'look:hose-kinked'],
          'prep:flap-open',
        ],
      };
      await page.evaluate(
        (kept) => localStorage.setItem('needlecase.practice.game', JSON.stringify(kept)),
        game,
      );
      await page.goto(`${address}practice/play`);
      await page.locator('nc-practice-stage svg').waitFor();
    },
  },
  measure: { path: 'measure' },
  'level-phone': {
    path: `measure/level?machine=${idOf('Cellar washer')}`,
    size: PHONE,
    theme: 'dark',
    act: async (page) => {
      await page.context().grantPermissions(['accelerometer', 'gyroscope', 'magnetometer']);
      const session = await page.context().newCDPSession(page);
      const lies = (beta) =>
        session.send('DeviceOrientation.setDeviceOrientationOverride', {
          ...{ alpha: 0, beta, gamma: -0.4 },
        });
      await page.getByRole('button', { name: 'Measure it with this phone' }).click();
      await lies(0.5);
      await page.getByRole('button', { name: 'Begin', exact: true }).click();
      await lies(0.6);
      await page.getByText('right higher').waitFor();
    },
  },
  'vent-run': {
    path: 'measure/vent-run',
    act: (page) => page.getByRole('row', { name: /clean the lint out/ }).waitFor(),
  },
  log: { path: 'log' },
  start: {
    at: empty,
    path: 'start',
    act: async (page) => {
      await page.getByLabel('Name of the household').fill('Kiln Lane House');
      await page.getByRole('button', { name: 'Next' }).click();
      await page.getByRole('radio', { name: 'vented dryer' }).check({ force: true });
      await page.getByLabel('Your name for it').fill('Cellar dryer');
      await page.getByLabel('Where it stands').fill('Cellar');
    },
  },
  house: { path: 'house' },
};

const engine = await chromium.launch({
  executablePath,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
try {
  const names = args.length ? args : Object.keys(SHOTS);
  for (const [name, shot] of Object.entries(SHOTS)) {
    const path = shot.before ? await shot.before() : shot.path;
    if (!names.includes(name)) continue;
    const page = await engine.newPage({
      viewport: shot.size ?? WIDE,
      colorScheme: shot.theme ?? 'light',
      reducedMotion: 'reduce',
    });
    page.on('pageerror', (error) => console.error(name, error.message));
    page.on('console', (line) => line.type() === 'error' && console.error(name, line.text()));
    await page.goto(`${shot.at ?? address}${path}`);
    await page.locator('h1').first().waitFor();
    await shot.act?.(page);
    await page.getByText('Reading the').waitFor({ state: 'detached' });
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: join(folder, `${name}.png`) });
    await page.close();
    console.log(`${name}.png`);
  }
} finally {
  await engine.close();
  for (const server of servers) server.kill();
  rmSync(work, { recursive: true, force: true });
}

/** A plug's log of a dryer, a line a minute: its loads grow longer from the thirty-second on. */
function dryerLog() {
  const rows = ['time,power'];
  let at = Date.now() - 98 * 86_400_000;
  const reads = (watts, minutes) => {
    for (let i = 0; i < minutes && at < Date.now(); i++, at += 60_000) {
      rows.push(`${new Date(at).toISOString().slice(0, 19)}Z,${watts}`);
    }
  };
  for (let i = 0; at < Date.now() - 3 * 3_600_000; i++) {
    reads(1.2, 60 * (32 + (i % 5) * 4));
    const slow = i < 32 ? 1 : 1.32;
    reads(200 + Math.round(1900 / slow), slow * (58 + (i % 7)));
    reads(200, 6);
  }
  reads(1.2, 60);
  return rows.join('\n');
}
