import { test as base, expect, type Page } from '@playwright/test';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { copyFileSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const at = (path: string) => fileURLToPath(new URL(path, import.meta.url));
const scratch = mkdtempSync(join(tmpdir(), 'needlecase-e2e-'));
process.on('exit', () => rmSync(scratch, { recursive: true, force: true }));

/** The built server on a data file of its own. */
export class House {
  #process: ChildProcess | undefined;
  #port = '0';
  address = '';

  /** The code that it shows at its start where it is open to the network. */
  code = '';

  /** @param env what is set beside; open to the network where HOST says so */
  constructor(
    readonly file: string,
    readonly env: Record<string, string> = {},
  ) {}

  async start(): Promise<void> {
    this.#process = spawn(process.execPath, [at('../server/dist/main.js')], {
      env: { ...process.env, NEEDLECASE_DB: this.file, PORT: this.#port, ...this.env },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const told = this.env['HOST'] ? /In the house it is at/ : /\n/;
    let text = '';
    await new Promise<void>((done) => {
      this.#process!.stdout!.on('data', (more: Buffer) => {
        text += String(more);
        this.code = /within a day: (\S+)/.exec(text)?.[1] ?? this.code;
        if (told.test(text)) done();
      });
    });
    this.#port = /http:\/\/\S+:(\d+)\//.exec(text)![1]!;
    this.address = `http://127.0.0.1:${this.#port}/`;
  }

  /** Ends the process at once, as a crash would. */
  async kill(): Promise<void> {
    const running = this.#process;
    if (!running || running.exitCode !== null || running.signalCode !== null) return;
    const gone = new Promise((done) => running.once('exit', done));
    running.kill('SIGKILL');
    await gone;
  }

  async api<T = unknown>(
    path: string,
    body?: object,
    headers: Record<string, string> = {},
    method = 'POST',
  ): Promise<T> {
    const init = body
      ? {
          method,
          body: JSON.stringify(body),
          headers: { 'Content-Type': 'application/json', ...headers },
        }
      : {};
    const answer = await fetch(`${this.address}api/v1/${path}`, init);
    return answer.json() as Promise<T>;
  }
}

/** A house on the network, and the addresses that other devices know it by. */
export interface OpenHouse {
  house: House;
  /** Over plain http. */
  plain: string;
  /** Over https. */
  safe: string;
}

/** A port that nobody listens at. */
async function freePort(): Promise<number> {
  const server = createServer().listen(0);
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}

/** A house on the home network as `house.test`, on a data file. */
export async function onNetwork(file: string): Promise<OpenHouse> {
  const [port, tls] = [await freePort(), await freePort()];
  const house = new House(file, {
    HOST: '0.0.0.0',
    PORT: String(port),
    NEEDLECASE_TLS_PORT: String(tls),
    NEEDLECASE_ORIGIN: `https://house.test:${tls}`,
    NEEDLECASE_NAME: 'off',
  });
  await house.start();
  return { house, plain: `http://house.test:${port}/`, safe: `https://house.test:${tls}/` };
}

interface Fixtures {
  /** A server on an empty file. */
  empty: House;
  /** A server on a fresh copy of the demo household. */
  demo: House;
  /** The demo household, open to the home network under a name that is not the machine's own. */
  open: OpenHouse;
  /** What the page asked of other origins, and what it complained of. */
  watched: { foreign: string[]; complaints: string[] };
}

function demoFile(): string {
  const file = join(scratch, 'demo.sqlite');
  if (!existsSync(file)) {
    const made = spawnSync(process.execPath, [at('../server/dist/demo.js'), file]);
    if (made.status !== 0) throw new Error(String(made.stderr));
  }
  return file;
}

let files = 0;

export const test = base.extend<Fixtures>({
  // eslint-disable-next-line no-empty-pattern
  empty: async ({}, use) => {
    const house = new House(join(scratch, `empty-${++files}.sqlite`));
    await house.start();
    await use(house);
    await house.kill();
  },
  // eslint-disable-next-line no-empty-pattern
  demo: async ({}, use) => {
    const file = join(scratch, `demo-${++files}.sqlite`);
    copyFileSync(demoFile(), file);
    const house = new House(file);
    await house.start();
    await use(house);
    await house.kill();
  },
  // eslint-disable-next-line no-empty-pattern
  open: async ({}, use) => {
    const file = join(scratch, `open-${++files}.sqlite`);
    copyFileSync(demoFile(), file);
    const open = await onNetwork(file);
    await use(open);
    await open.house.kill();
  },
  watched: async ({ page }, use) => {
    const watched = { foreign: [] as string[], complaints: [] as string[] };
    page.on('request', (request) => {
      const url = new URL(request.url());
      const own = ['127.0.0.1', 'localhost', 'house.test'].includes(url.hostname);
      if (!own && !['data:', 'blob:'].includes(url.protocol)) watched.foreign.push(request.url());
    });
    page.on('pageerror', (error) => watched.complaints.push(error.message));
    page.on('console', (line) => {
      if (line.type() === 'error') watched.complaints.push(line.text());
    });
    await use(watched);
  },
});

export { expect };

export interface Named {
  id: string;
  name: string;
}

export async function machineCalled(house: House, name: string): Promise<Named> {
  const machines = await house.api<Named[]>('machines');
  return machines.find((machine) => machine.name === name)!;
}

/** Lets a page's device in by a code. */
export async function pair(page: Page, address: string, code: string): Promise<void> {
  await page.goto(`${address}pair#${code}`);
  await page.getByRole('button', { name: 'Let it in' }).click();
  await page.waitForURL(address);
}

/** Waits until nothing says that it is being read. */
export async function ready(page: Page): Promise<void> {
  await expect(page.locator('h1').first()).toBeVisible();
  await expect(page.getByText('Reading the')).toHaveCount(0);
}

/** In a visit: answers what a step asks with nothing, waits for nothing, and goes on to the next. */
export async function goOn(page: Page): Promise<void> {
  const title = page.locator('[data-step-title]');
  const before = (await title.textContent())!;
  // What was chosen just now is shown at the next frame, and takes the question away; then in one go.
  await page.evaluate(async () => {
    for (let i = 0; i < 2; i++) await new Promise(requestAnimationFrame);
    for (const words of ['Nothing', 'It has had its time']) {
      [...document.querySelectorAll('button')]
        .find(({ textContent }) => textContent.trim() === words)
        ?.click();
    }
  });
  await page.locator('[data-onward]').click();
  await expect(title).not.toHaveText(before);
}

/** Goes on until a step's title has some words in it. */
export async function goTo(page: Page, words: string | RegExp): Promise<void> {
  const title = page.locator('[data-step-title]');
  const there = (text: string) =>
    typeof words === 'string' ? text.includes(words) : words.test(text);
  for (let i = 0; i < 60 && !there((await title.textContent())!); i++) await goOn(page);
  await expect(title).toContainText(words);
}

/** A load as the server tells it. */
export interface Load {
  at: string;
  deviceAt?: string;
  recordedAt: string;
  source: string;
}

/** The loads of a machine that were counted at the bench, the latest first. */
export async function benchLoads(house: House, machineId: string): Promise<Load[]> {
  const { entries } = await house.api<{ entries: Load[] }>(
    `entries?machine=${machineId}&kind=load&limit=200`,
  );
  return entries.filter(({ source }) => source === 'bench');
}

/** On the way into trouble: shows what is noticed by a sense, such as `See`. */
export const bySense = (page: Page, sense: string): Promise<void> =>
  page.getByRole('button', { name: new RegExp(`^${sense}: `) }).click();

/** Waits until the application is kept on the device whole: from then on it is there without a connection. */
export const keptWhole = (page: Page): Promise<void> =>
  expect
    .poll(
      () =>
        page.evaluate(
          async () =>
            (await caches.match('/needlecase-whole', { cacheName: 'needlecase-worker' })) !==
            undefined,
        ),
      { timeout: 60_000 },
    )
    .toBe(true);
