import type { Visit } from '@needlecase/core';
import { expect, ready, test } from './house.js';

/* Work that is under way already, and a page that is older than its server. */

test('work that is under way is not begun again unasked', async ({ page, demo }) => {
  await page.goto(demo.address);
  await ready(page);
  const open = async () => (await demo.api<Visit[]>('runs')).length;
  const before = await open();
  // Another screen begins the same work.
  const { visit } = await demo.api<{ visit: { tasks: Visit['tasks'] } }>('bench');
  const [{ machineId, task }] = visit.tasks as [Visit['tasks'][number]];
  const underWay = await demo.api<Visit>('runs', { tasks: [{ machineId, task }] });
  // The bench goes on with it; chosen once more, it is asked about.
  await expect(page.getByRole('heading', { name: /^Under way: / })).toBeVisible();
  const choice = `${demo.address}visit?machine=${machineId}&task=${task}`;
  await page.goto(choice);
  const start = page.getByRole('button', { name: 'Start this visit' });
  await start.click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('This work is under way already');
  await expect(dialog).toContainText('A visit with 1 task was begun');
  if (process.env['SHOT']) await page.screenshot({ path: process.env['SHOT'] });
  await page.getByRole('button', { name: 'Close and begin nothing' }).click();
  expect(await open()).toBe(before + 1);
  await start.click();
  await dialog.getByRole('button', { name: 'Go on with that visit' }).click();
  await expect(page).toHaveURL(new RegExp(`/visit/${underWay.id}$`));
  await page.goto(choice);
  await start.click();
  await dialog.getByRole('button', { name: 'Begin another all the same' }).click();
  await expect(page).toHaveURL(/\/visit\/[\w-]{36}$/);
  expect(await open()).toBe(before + 2);
});

test('a page of another release says that a newer one is there', async ({ page, demo }) => {
  await page.goto(demo.address);
  await ready(page);
  await expect(page.getByText('A newer Needlecase is there.')).toHaveCount(0);
  const release = await page.evaluate(
    () =>
      new Promise((told) => {
        const stream = new EventSource('/api/v1/changes');
        stream.addEventListener('release', ({ data }) => {
          stream.close();
          told(data);
        });
      }),
  );
  const own = await page.locator('script[src*="main-"]').getAttribute('src');
  expect(own).toContain(release);

  await page.route('**/api/v1/changes*', (route) =>
    route.fulfill({
      contentType: 'text/event-stream',
      body: 'event: release\ndata: main-ANOTHER1.js\n\n',
    }),
  );
  await page.reload();
  await ready(page);
  await expect(page.getByText('A newer Needlecase is there.')).toHaveCount(1);
  await page.unroute('**/api/v1/changes*');
  await page.getByRole('button', { name: 'Reload' }).click();
  await ready(page);
  await expect(page.getByText('A newer Needlecase is there.')).toHaveCount(0);
});

test('a click whose part of the program is gone says so', async ({ page, demo }) => {
  await page.goto(demo.address);
  await ready(page);
  await page.route('**/chunk-*.js', (route) => route.fulfill({ status: 404, body: 'gone' }));
  await page.getByRole('link', { name: 'Measure' }).click();
  await expect(page.getByText(/A part of Needlecase could not be loaded/)).toBeVisible();
  await page.unroute('**/chunk-*.js');
  await page.getByRole('button', { name: 'Reload' }).click();
  await ready(page);
  await page.getByRole('link', { name: 'Measure' }).click();
  await expect(page).toHaveURL(/measure/);
});
