import { benchLoads, expect, machineCalled, ready, test } from './house.js';

test('loads tapped while the server is gone are kept, shown, and sent once when it is back', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  await page.goto(demo.address);
  await ready(page);
  await demo.kill();
  const tap = page.getByRole('button', { name: /Count a load of the Cellar washer/ });
  await tap.click();
  await tap.click();
  await expect(page.getByText('2 not sent yet')).toBeVisible();
  await demo.start();
  await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 20_000 });
  expect(await benchLoads(demo, id)).toHaveLength(2);
  await page.reload();
  await ready(page);
  expect(await benchLoads(demo, id)).toHaveLength(2);
});

test('taps survive a reload while the server is gone', async ({ page, context, demo }) => {
  const { id } = await machineCalled(demo, 'Cellar dryer');
  await page.goto(demo.address);
  await ready(page);
  await page.route('**/api/v1/entries', (route) => route.abort());
  await page.getByRole('button', { name: /Count a load of the Cellar dryer/ }).click();
  await expect(page.getByText('1 not sent yet')).toBeVisible();
  await page.close();
  const again = await context.newPage();
  await again.goto(demo.address);
  await ready(again);
  await expect.poll(async () => (await benchLoads(demo, id)).length).toBe(1);
});

test('a run goes on while the server is gone, through a reload of the server, and is stored once', async ({
  page,
  demo,
}) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  const run = await demo.api<{ id: string }>('runs', {
    tasks: [{ machineId, task: 'gasket-folds' }],
  });
  await page.goto(`${demo.address}visit/${run.id}`);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  const title = page.locator('[data-step-title]');
  await expect(title).toContainText('pull its plug');
  await demo.kill();
  await page.getByRole('button', { name: 'Done, next' }).click();
  await expect(title).toContainText('look into the folds');
  await page.getByRole('button', { name: 'Done, next' }).click();
  await page.getByRole('button', { name: 'Done, next' }).click();
  await page.getByText('heavy', { exact: true }).click();
  await expect(page.getByText('kept on this device, not sent yet')).toBeVisible();
  await demo.start();
  await expect(page.getByText('kept on this device')).toHaveCount(0, { timeout: 20_000 });
  const stored = await demo.api<{ progress: { ticked: object; tasks: object } }>(`runs/${run.id}`);
  expect(Object.keys(stored.progress.ticked)).toHaveLength(3);
  expect(Object.values(stored.progress.tasks)).toEqual([{ grade: 3 }]);
});

test('a tap twice on Finish makes one entry', async ({ page, demo }) => {
  const { id: machineId } = await machineCalled(demo, 'Studio washer');
  const run = await demo.api<{ id: string; version: number; progress: object }>('runs', {
    tasks: [{ machineId, task: 'softener-cup' }],
  });
  const progress = {
    ...run.progress,
    at: 'end',
    tasks: { [`${machineId}/softener-cup`]: { outcome: 'cleaned', grade: 1 } },
  };
  await demo.api(`runs/${run.id}`, { progress }, { 'If-Match': `"${run.version}"` }, 'PATCH');
  await page.goto(`${demo.address}visit/${run.id}`);
  await page.getByRole('button', { name: 'Finish and record' }).dblclick();
  await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();
  const { entries } = await demo.api<{ entries: { task?: string }[] }>(
    `entries?machine=${machineId}&kind=done`,
  );
  const cups = (all: { task?: string }[]) => all.filter(({ task }) => task === 'softener-cup');
  expect(cups(entries)).toHaveLength(1);

  await page.getByRole('button', { name: 'Undo this visit' }).click();
  await expect(page.getByRole('heading', { name: 'Is this right?' })).toBeVisible();
  const after = await demo.api<{ entries: { task?: string }[] }>(
    `entries?machine=${machineId}&kind=done`,
  );
  expect(cups(after.entries)).toHaveLength(0);
});

test('two screens on one run: the second follows, and a clash is settled by asking', async ({
  page,
  context,
  demo,
}) => {
  const { id: machineId } = await machineCalled(demo, 'Studio washer');
  const run = await demo.api<{ id: string }>('runs', {
    tasks: [{ machineId, task: 'softener-cup' }],
  });
  const second = await context.newPage();
  await page.goto(`${demo.address}visit/${run.id}`);
  await second.goto(`${demo.address}visit/${run.id}`);
  await ready(second);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  await expect(second.locator('[data-step-title]')).toContainText('Switch the machine off');

  await second.route('**/api/v1/runs/*', (route) => route.abort());
  await second.getByRole('button', { name: 'Done, next' }).click();
  await expect(second.getByText('kept on this device')).toBeVisible();
  await page.getByRole('button', { name: 'Done, next' }).click();
  await expect(page.locator('[data-step-title]')).toContainText('Lift the cup off');
  await page.getByRole('button', { name: 'Done, next' }).click();
  await expect(page.locator('[data-step-title]')).toContainText('Note how it looks');
  await page.getByText('light', { exact: true }).click();
  await expect
    .poll(async () => (await demo.api<{ version: number }>(`runs/${run.id}`)).version)
    .toBeGreaterThan(3);
  await second.unroute('**/api/v1/runs/*');
  await expect(second.getByText('This visit went on elsewhere')).toBeVisible({ timeout: 15_000 });
  await second.getByRole('button', { name: 'Take the other screen’s' }).click();
  await expect(second.getByRole('radio', { name: /light/ })).toBeChecked();
});

test('a stale edit of a machine shows both versions and lets the person choose', async ({
  page,
  context,
  demo,
}) => {
  const other = await context.newPage();
  const rename = async (on: typeof page, name: string) => {
    await on.goto(`${demo.address}house`);
    await on.getByRole('button', { name: 'Change Studio washer' }).click();
    await on.getByLabel('Your name for it').fill(name);
  };
  await rename(page, 'Pot washer');
  await rename(other, 'Apron washer');
  await other.getByRole('button', { name: 'Store' }).click();
  await expect(other.getByText('The machine is stored.')).toBeVisible();
  await page.getByRole('button', { name: 'Store' }).click();
  const both = page.getByRole('alertdialog');
  await expect(both).toContainText('Pot washer');
  await expect(both).toContainText('Apron washer');
  expect((await machineCalled(demo, 'Apron washer')).name).toBe('Apron washer');
  await both.getByRole('button', { name: 'Keep yours' }).click();
  await expect(page.getByText('The machine is stored.')).toBeVisible();
  expect((await machineCalled(demo, 'Pot washer')).name).toBe('Pot washer');
});

test('what waits is put back by the page when the browser clears its store, and that is said', async ({
  page,
  context,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  await page.goto(demo.address);
  await ready(page);
  await page.route('**/api/v1/entries', (route) => route.abort());
  const tap = page.getByRole('button', { name: /Count a load of the Cellar washer/ });
  await tap.click();
  await tap.click();
  await expect(page.getByText('2 not sent yet')).toBeVisible();
  const browser = await context.newCDPSession(page);
  await browser.send('Storage.clearDataForOrigin', {
    origin: new URL(demo.address).origin,
    storageTypes: 'indexeddb',
  });
  await expect(page.getByText(/has cleared what Needlecase kept/)).toContainText('2 not sent yet');
  await expect(page.getByText('2 not sent yet', { exact: true })).toBeVisible();
  await page.unroute('**/api/v1/entries');
  await expect.poll(async () => (await benchLoads(demo, id)).length, { timeout: 15_000 }).toBe(2);
  await page.reload();
  await ready(page);
  expect(await benchLoads(demo, id)).toHaveLength(2);
});

test('a connection that is lost in the first moment takes nothing, and is no fault of the page', async ({
  page,
  demo,
}) => {
  await page.goto(demo.address);
  await ready(page);
  await page.route(`${demo.address}**`, (route) => route.abort());
  await page.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
  await expect(page.getByText('1 not sent yet')).toBeVisible();
  const find = page.getByRole('combobox', { name: /^Find/ });
  await expect(page.getByLabel(/^Find: not here yet/).or(find)).toBeVisible();
  await expect(page.getByText('Something here did not work as it should')).toHaveCount(0);
  await page.unrouteAll({ behavior: 'ignoreErrors' });
  await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 20_000 });
});

test('a click that fails in the page says so', async ({ page, demo }) => {
  await page.goto(demo.address);
  await ready(page);
  await page.evaluate(() => {
    // Ids cannot be made: a fault that nobody foresaw.
    Object.defineProperty(crypto, 'getRandomValues', {
      value: () => {
        throw new TypeError('x is undefined');
      },
    });
    Object.defineProperty(crypto, 'randomUUID', { value: undefined });
  });
  await page.getByRole('button', { name: /Count a load of the Cellar washer/ }).click();
  await expect(page.getByText('Something here did not work as it should.')).toBeVisible();
});
