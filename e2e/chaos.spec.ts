import type { Visit } from '@needlecase/core';
import { randomLcg } from 'd3-random';
import type { Page } from '@playwright/test';
import { ChaosProxy } from './chaos-proxy.js';
import { expect, goOn, machineCalled, ready, test } from './house.js';

/*
 * Two pages of one phone behind a network that loses, delays, doubles and answers by itself. At the end the server
 * and both screens agree with what was done. `npm run chaos` does two thousand things.
 */

const TIMES = Number(process.env['CHAOS'] ?? 300);
const SEED = Number(process.env['SEED'] ?? 0.1626);
const MACHINES = ['Cellar washer', 'Cellar dryer', 'Studio washer'] as const;
/** Every so many things a visit is gone on with; every other of them has a photo taken. */
const VISIT_EVERY = 60;

/** Counts a load, and takes it back where that is wanted; in one go, as fast as a thumb. */
const tap = (page: Page, machine: string, undo: boolean): Promise<boolean> =>
  page.evaluate(
    async ([machine, undo]) => {
      const undos = () =>
        [...document.querySelectorAll<HTMLElement>('nc-toasts button')].filter(
          ({ textContent }) => textContent.trim() === 'Undo',
        );
      /** Until what was done before stands on the device: a page may go a moment later. */
      const onDevice = async () => {
        await new Promise((next) => setTimeout(next, 5));
        const device = await new Promise<IDBDatabase>((done) => {
          const opening = indexedDB.open('needlecase');
          opening.onsuccess = () => done(opening.result);
        });
        await new Promise((done) => {
          device.transaction('outbox').objectStore('outbox').count().onsuccess = done;
        });
        device.close();
      };
      const before = new Set(undos());
      const button = document.querySelector<HTMLElement>(
        `button[aria-label^="Count a load of the ${machine}"]`,
      );
      if (!button) return false;
      button.click();
      // The toast comes when the load is on the device: until then it was not counted.
      for (let i = 0; i < 400; i++) {
        const fresh = undos().find((one) => !before.has(one));
        if (fresh) {
          if (undo) {
            fresh.click();
            await onDevice();
          }
          return true;
        }
        await new Promise((next) => setTimeout(next, 10));
      }
      throw new Error('The tap was not answered.');
    },
    [machine, undo] as const,
  );

/** The bench, however often it has to be asked for. */
async function toBench(page: Page, address: string): Promise<void> {
  await expect(async () => {
    await page.goto(address);
    await expect(
      page.getByRole('button', { name: /^Count a load of the Studio washer/ }),
    ).toBeVisible({ timeout: 3000 });
  }).toPass({ timeout: 60_000 });
}

const title = (page: Page) => page.locator('[data-step-title]');

test(`nothing is lost and nothing doubled in ${TIMES} taps, undos, visits and photos`, async ({
  context,
  page: first,
  demo,
}) => {
  test.setTimeout(120_000 + 600 * TIMES);
  const chance = randomLcg(SEED);
  const of = <T>(from: readonly T[]): T => from[Math.floor(chance() * from.length)]!;
  const proxy = new ChaosProxy(demo.address, SEED / 2);
  await proxy.start();
  const second = await context.newPage();
  const pages = [first, second];
  for (const page of pages) await toBench(page, proxy.address);

  const wanted = new Map<string, number>(MACHINES.map((name) => [name, 0]));
  const left: { id: string; title: string; photo: boolean }[] = [];
  for (let i = 1; i <= TIMES; i++) {
    const page = of(pages);
    if (i % VISIT_EVERY === 0) {
      left.push(await visit(page, left.length % 2 === 0));
      await toBench(page, proxy.address);
      continue;
    }
    const machine = of(MACHINES);
    const undo = chance() < 0.25;
    if (!(await tap(page, machine, undo))) {
      await toBench(page, proxy.address);
      continue;
    }
    if (!undo) wanted.set(machine, wanted.get(machine)! + 1);
  }

  /** Goes some steps into a visit, with a photo where one is asked for, and leaves it. */
  async function visit(page: Page, photo: boolean): Promise<(typeof left)[number]> {
    const { id: machineId } = await machineCalled(demo, 'Cellar washer');
    const task = photo ? 'dispenser' : 'gasket-folds';
    const { id } = await demo.api<Visit>('runs', { tasks: [{ machineId, task }] });
    const begin = page.getByRole('button', { name: 'Begin with the first step' });
    await expect(async () => {
      await page.goto(`${proxy.address}visit/${id}`);
      await expect(begin).toBeVisible({ timeout: 3000 });
    }).toPass({ timeout: 60_000 });
    await begin.click();
    const field = page.locator('input[type=file]');
    for (let step = 0; photo ? (await field.count()) === 0 : step < 2; step++) await goOn(page);
    if (photo) {
      await page.getByRole('radio', { name: /light/ }).check({ force: true });
      const buffer = Buffer.from(await page.evaluate<string>(PICTURE), 'base64');
      await field.setInputFiles({ name: 'one.jpg', mimeType: 'image/jpeg', buffer });
      await expect(page.getByRole('img', { name: 'Photo 1' })).toBeVisible();
    }
    return { id, title: (await title(page).textContent())!, photo };
  }

  proxy.calm = true;
  for (const page of pages) await toBench(page, proxy.address);
  expect(Object.keys(proxy.fates).length).toBe(10);

  for (const [name, count] of wanted) {
    const { id } = await machineCalled(demo, name);
    await expect
      .poll(() => loadsOf(id), { message: name, timeout: 60_000 + 100 * TIMES })
      .toBe(count);
    for (const page of pages) {
      // The screens were told, and say what the server says.
      const said = page.getByRole('button', { name: new RegExp(`^Count a load of the ${name}`) });
      await expect(said).toContainText(`${await today(id)} today`);
    }
  }
  for (const page of pages) {
    await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 30_000 });
    await expect(page.getByText('refused')).toHaveCount(0);
  }
  for (const { id, title: where, photo } of left) {
    const { progress } = await demo.api<Visit>(`runs/${id}`);
    const photos = Object.values(progress.tasks).flatMap((task) => task.photos ?? []);
    expect(photos).toHaveLength(photo ? 1 : 0);
    for (const one of photos) {
      expect((await fetch(`${demo.address}api/v1/photos/${one}`)).status).toBe(200);
    }
    await first.goto(`${proxy.address}visit/${id}`);
    await ready(first);
    await expect(title(first)).toHaveText(where);
  }
  proxy.stop();

  async function loadsOf(machineId: string): Promise<number> {
    let n = 0;
    let next: string | undefined = '';
    while (next !== undefined) {
      const page: { entries: { source: string; count: number }[]; next?: string } = await demo.api(
        `entries?machine=${machineId}&kind=load&limit=200${next && `&before=${next}`}`,
      );
      n += page.entries.filter(({ source }) => source === 'bench').length;
      next = page.next;
    }
    return n;
  }
  async function today(machineId: string): Promise<number> {
    const { loads } = await demo.api<{ loads: { machineId: string; today: number }[] }>('bench');
    return loads.find((one) => one.machineId === machineId)!.today;
  }
});

/** A small picture, as text; run in the page. */
const PICTURE = `(async () => {
  const canvas = document.createElement('canvas');
  canvas.width = 300;
  canvas.height = 200;
  canvas.getContext('2d').fillRect(20, 20, 90, 60);
  const blob = await new Promise((done) => canvas.toBlob(done, 'image/jpeg', 0.9));
  const bytes = new Uint8Array(await blob.arrayBuffer());
  return btoa(String.fromCharCode(...bytes));
})()`;
