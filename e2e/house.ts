import { test as base, expect, type Page } from '@playwright/test';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, rmSync } from 'node:fs';
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

  constructor(readonly file: string) {}

  async start(): Promise<void> {
    this.#process = spawn(process.execPath, [at('../server/dist/main.js')], {
      env: { ...process.env, NEEDLECASE_DB: this.file, PORT: this.#port },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.address = await new Promise((found) => {
      this.#process!.stdout!.on('data', (text: Buffer) => {
        const match = /http:\/\/\S+:(\d+)\//.exec(String(text));
        if (!match) return;
        this.#port = match[1]!;
        found(match[0]);
      });
    });
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

interface Fixtures {
  /** A server on an empty file. */
  empty: House;
  /** A server on a fresh copy of the demo household. */
  demo: House;
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
