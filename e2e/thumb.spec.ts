import type { Visit } from '@needlecase/core';
import type { Page, Route } from '@playwright/test';
import { benchLoads, expect, machineCalled, ready, test } from './house.js';

/* From the thumb to the server, through what stands between them. */

const tap = (page: Page) =>
  page.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
const ENTRIES = '**/api/v1/entries';

/** What a network in between answers. */
const BETWEEN: Record<string, (route: Route) => Promise<void>> = {
  'a login page with 200': (route) =>
    route.fulfill({
      status: 200,
      contentType: 'text/html',
      body: '<!doctype html><h1>Sign in</h1>',
    }),
  'JSON of something else with 200': (route) => route.fulfill({ status: 200, json: { ok: true } }),
  'the way to a login page': (route) =>
    route.fulfill({ status: 302, headers: { location: '/index.html' }, body: '' }),
  'a 401': (route) => route.fulfill({ status: 401, body: 'Who are you?' }),
  'a 404': (route) => route.fulfill({ status: 404, body: 'Nothing here' }),
  'a 429 in problem details': (route) =>
    route.fulfill({
      status: 429,
      contentType: 'application/problem+json',
      body: JSON.stringify({ title: 'Too many at once.', status: 429 }),
    }),
  'a 502': (route) => route.fulfill({ status: 502, body: 'Bad gateway' }),
};

for (const [what, answer] of Object.entries(BETWEEN)) {
  test(`a load tapped while ${what} comes back waits, says so, and is counted once`, async ({
    page,
    demo,
  }) => {
    const { id } = await machineCalled(demo, 'Cellar washer');
    await page.goto(demo.address);
    await ready(page);
    await page.route(ENTRIES, answer);
    await tap(page);
    await page.getByText('1 not sent yet').click();
    await expect(page.locator('nc-waiting strong').first()).toHaveText(
      /Something else answered|Too many/,
    );
    expect(await benchLoads(demo, id)).toHaveLength(0);
    await page.unroute(ENTRIES);
    await page.getByRole('button', { name: 'Try now' }).click();
    await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(1);
    await expect(page.getByText('not sent yet')).toHaveCount(0);
  });
}

test('what was noted for one household waits at the server of another, which says so', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  await page.goto(demo.address);
  await ready(page);
  const own = await page.evaluate(() => localStorage.getItem('needlecase.house'));
  const tell = (house: string) =>
    page.evaluate((one) => localStorage.setItem('needlecase.house', one), house);
  await tell(JSON.stringify('11111111-1111-4111-8111-111111111111'));
  await tap(page);
  await page.getByText('1 not sent yet').click();
  await expect(page.locator('nc-waiting strong')).toContainText(
    'This is the Needlecase of another household.',
  );
  expect(await benchLoads(demo, id)).toHaveLength(0);
  await tell(own!);
  // What was noted for another stays where it is; the rest of the story is a server of that household.
  await expect(page.getByText('1 not sent yet')).toBeVisible();
});

test('what the server refuses stays aside with the reason, and is corrected and sent', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  await page.goto(demo.address);
  await ready(page);
  const refusal = {
    title: 'Something here needs another look.',
    status: 422,
    errors: [{ field: 'at', message: 'The machine came into use later.' }],
  };
  await page.route(ENTRIES, (route) =>
    route.fulfill({
      status: 422,
      contentType: 'application/problem+json',
      body: JSON.stringify(refusal),
    }),
  );
  await tap(page);
  await page.getByText('1 refused').click();
  await expect(page.locator('nc-waiting .why')).toContainText('The machine came into use later.');
  await page.unroute(ENTRIES);
  await page.reload();
  await page.getByText('1 refused').click();
  await page.getByRole('button', { name: 'Correct and send' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('The machine came into use later.')).toBeVisible();
  const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
  await dialog.getByLabel('When').fill(`${yesterday}T10:00`);
  await dialog.getByRole('button', { name: /Store|Enter|Send/ }).click();
  await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(1);
  const [load] = await benchLoads(demo, id);
  expect(load!.at.startsWith(yesterday)).toBe(true);
  await expect(page.getByText('1 refused')).toHaveCount(0);
});

test('a load whose answer was lost is undone all the same', async ({ page, demo }) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  await page.goto(demo.address);
  await ready(page);
  await page.route(ENTRIES, async (route) => {
    await route.fetch();
    await route.abort();
  });
  await tap(page);
  await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(1);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('2 not sent yet')).toBeVisible();
  // One may be on its way just now.
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 15_000 });
  expect(await benchLoads(demo, id)).toHaveLength(0);
});

test('two tabs send a load once, and both learn of it', async ({ page, context, demo }) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  const other = await context.newPage();
  for (const one of [page, other]) {
    await one.goto(demo.address);
    await ready(one);
    await one.route(ENTRIES, (route) => route.abort());
  }
  await tap(page);
  await tap(other);
  await expect(page.getByText('2 not sent yet')).toBeVisible();
  await expect(other.getByText('2 not sent yet')).toBeVisible();
  for (const one of [page, other]) await one.unroute(ENTRIES);
  for (const one of [page, other]) {
    await expect(one.getByText('not sent yet')).toHaveCount(0, { timeout: 15_000 });
  }
  expect(await benchLoads(demo, id)).toHaveLength(2);
});

for (const minutes of [18, -18]) {
  test(`a phone whose clock is off by ${minutes} minutes loses nothing, and is told so once`, async ({
    page,
    demo,
  }) => {
    const { id } = await machineCalled(demo, 'Cellar washer');
    await page.clock.install({ time: Date.now() + minutes * 60_000 });
    await page.goto(demo.address);
    await ready(page);
    await tap(page);
    await page.clock.runFor(5000);
    await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(1);
    const [load] = await benchLoads(demo, id);
    const off = (instant: string) => Math.abs(Date.parse(instant) - Date.parse(load!.recordedAt));
    expect(off(load!.at)).toBeLessThan(60_000);
    expect(off(load!.deviceAt!)).toBeGreaterThan(15 * 60_000);
    await expect(
      page.getByText(`The clock of this device is 18 minutes ${minutes > 0 ? 'fast' : 'slow'}.`),
    ).toBeVisible();
  });
}

test('a slow clock, and what changed meanwhile, are heard though the stream comes late', async ({
  page,
  context,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  let open = (): void => undefined;
  const held = new Promise<void>((done) => (open = done));
  await context.route('**/api/v1/changes?*', async (route) => {
    await held;
    await route.continue();
  });
  await page.clock.install({ time: Date.now() - 18 * 60_000 });
  await page.goto(demo.address);
  await ready(page);
  await tap(page);
  await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(1);
  const [load] = await benchLoads(demo, id);
  expect(Math.abs(Date.parse(load!.at) - Date.parse(load!.recordedAt))).toBeLessThan(60_000);

  await demo.api('entries', {
    id: crypto.randomUUID(),
    kind: 'load',
    machineId: id,
    at: new Date().toISOString(),
    count: 1,
  });
  open();
  await page.clock.runFor(3000);
  await expect(page.getByText(/\b2 today/).first()).toBeVisible();
});

test('eight tabs share one stream, none hangs, and all see a load', async ({ context, demo }) => {
  test.slow();
  const { id } = await machineCalled(demo, 'Cellar washer');
  const tabs: Page[] = [];
  for (let i = 0; i < 8; i++) {
    const tab = await context.newPage();
    await tab.goto(demo.address);
    await ready(tab);
    tabs.push(tab);
  }
  await tap(tabs[7]!);
  await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(1);
  for (const tab of tabs) {
    await expect(
      tab
        .locator('nc-bench')
        .getByText(/\b1 today/)
        .first(),
    ).toBeVisible();
  }
  // The tab that holds the stream is shut: another takes it over.
  await tabs[0]!.close();
  await tap(tabs[6]!);
  for (const tab of tabs.slice(1)) {
    await expect(
      tab
        .locator('nc-bench')
        .getByText(/\b2 today/)
        .first(),
    ).toBeVisible();
  }
});

test('a bench reads anew what it missed while the server was away', async ({ page, demo }) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  await page.goto(demo.address);
  await ready(page);
  await demo.kill();
  await expect(page.getByText('No connection')).toBeVisible();
  await demo.start();
  await demo.api('entries', { machineId, kind: 'load', at: new Date().toISOString() });
  await expect(
    page
      .locator('nc-bench')
      .getByText(/\b1 today/)
      .first(),
  ).toBeVisible({
    timeout: 15_000,
  });
});

/** A device whose shelves take nothing more. */
const full = (page: Page) =>
  page.addInitScript(() => {
    for (const way of ['add', 'put'] as const) {
      IDBObjectStore.prototype[way] = () => {
        throw new DOMException('full', 'QuotaExceededError');
      };
    }
  });

test('a full device says that only the page has it, and the server gets it all the same', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  await full(page);
  await page.goto(demo.address);
  await ready(page);
  await tap(page);
  await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(1);

  await page.route(ENTRIES, (route) => route.abort());
  await tap(page);
  await expect(page.getByText(/leave the page open until it is sent/).last()).toBeVisible();
  await page.getByText('1 not sent yet, only on this page').click();
  await expect(page.locator('nc-waiting')).toContainText('This device has no room');
  await expect(page.locator('nc-waiting')).not.toContainText('Safe here');
  await page.unroute(ENTRIES);
  await page.getByRole('button', { name: 'Try now' }).click();
  await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(2);
  await expect(page.getByText('only on this page')).toHaveCount(0);
});

test('a visit on a full device is never said to be kept there', async ({ page, demo }) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  const visit = await demo.api<Visit>('runs', {
    tasks: [{ machineId: id, task: 'gasket-folds' }],
  });
  await full(page);
  await page.goto(`${demo.address}visit/${visit.id}`);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  await page.route('**/api/v1/runs/*', (route) => route.abort());
  await page.getByRole('button', { name: 'Done, next' }).click();
  await expect(page.getByText('only on this page, not sent yet: leave it open')).toBeVisible();
  await expect(page.getByText('kept on this device')).toHaveCount(0);
  await page.unroute('**/api/v1/runs/*');
  const stored = async () => (await demo.api<Visit>(`runs/${visit.id}`)).progress.ticked;
  await expect.poll(async () => Object.keys(await stored()).length).toBe(1);
});

test('a visit begun in an older program goes on where it stood', async ({ page, demo }) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  const visit = await demo.api<Visit>('runs', {
    tasks: [{ machineId: id, task: 'gasket-folds' }],
  });
  await page.goto(demo.address);
  await ready(page);
  await page.goto(`${demo.address}visit/${visit.id}`);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  await page.getByRole('button', { name: 'Done, next' }).click();
  await expect(page.getByText('step 2 of')).toBeVisible();
  const stored = async () => (await demo.api<Visit>(`runs/${visit.id}`)).progress;
  await expect.poll(async () => Object.keys((await stored()).ticked)).toHaveLength(1);
  const held = await demo.api<Visit>(`runs/${visit.id}`);
  await page.goto(demo.address);
  await page.evaluate(
    ([run]) =>
      localStorage.setItem(
        `needlecase.run.${run.id}`,
        JSON.stringify({ run: { ...run, state: 'paused' }, base: run.version, unsent: true }),
      ),
    [held] as const,
  );
  await page.evaluate(
    (run) =>
      new Promise((done) => {
        const opening = indexedDB.open('needlecase');
        opening.onsuccess = () => {
          const shelves = opening.result.transaction('visits', 'readwrite');
          shelves.objectStore('visits').delete(run);
          shelves.oncomplete = () => {
            opening.result.close();
            done(undefined);
          };
        };
      }),
    visit.id,
  );
  await page.reload();
  await expect.poll(async () => (await demo.api<Visit>(`runs/${visit.id}`)).state).toBe('paused');
  expect(await page.evaluate(() => Object.keys(localStorage).join())).not.toContain('run.');
});
