import { randomLcg } from 'd3-random';
import { standInLog } from '@needlecase/core/loads/stand-in/log';
import type { BenchView } from '@needlecase/core';
import { expect, machineCalled, pair, test } from './house.js';
import { wholeSlice } from './whole.js';

/* A phone on the home network, over http: no secure context, and everything that counts works all the same. */

test('the whole slice over plain http: loads, a visit with a photo and a grade, undo, a case', async ({
  page,
  open: { house: demo, plain: address },
  watched,
}) => {
  await pair(page, address, demo.code);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);

  await wholeSlice(page, address, demo);

  expect(watched.foreign).toEqual([]);
  // Whether the safe address holds is tried once; here nobody has put the certificate in.
  expect(watched.complaints).toEqual(['Failed to load resource: net::ERR_CERT_AUTHORITY_INVALID']);
});

test('a meter’s file is read over plain http from a paired phone, and its loads are kept', async ({
  page,
  open: { house: demo, plain },
}) => {
  await pair(page, plain, demo.code);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);
  const { id } = await machineCalled(demo, 'Studio washer');
  await page.goto(`${plain}machine/${id}/meter`);
  const { samples, loads } = standInLog({
    ...{ kinds: ['cotton'], loads: 2, every: 30, noise: 1, random: randomLcg(0.21) },
    from: Date.now() - 4 * 86_400_000,
  });
  const rows = samples.map(({ at, watts }) => `${Math.round(at / 1000)},${watts.toFixed(1)}`);
  await page.locator('input[type="file"]').setInputFiles({
    ...{ name: 'plug.csv', mimeType: 'text/csv' },
    buffer: Buffer.from(`time,power\n${rows.join('\n')}\n`),
  });
  await page.getByRole('button', { name: 'That is right: read it' }).click();
  await page.getByRole('button', { name: 'Keep them' }).click();
  await expect(page.getByText(`${loads.length} loads came in`)).toBeVisible();
});

test('the record is taken along, and old notes are brought in, over plain http from a paired phone', async ({
  page,
  open: { house: demo, plain },
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await pair(page, plain, demo.code);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);
  await page.goto(`${plain}log/take`);
  const coming = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Everything that happened' }).click();
  expect((await coming).suggestedFilename()).toBe('needlecase-entries.csv');
  expect(await (await coming).failure()).toBeNull();
  await page.goto(`${plain}log/bring`);
  await page
    .getByLabel('Paste lines here')
    .fill('2019-04-03;Cellar washer;Pump filter cleaned\n2019-05-03;Cellar washer;Descaled');
  await page.getByRole('button', { name: 'Look at them' }).click();
  await page.getByRole('button', { name: 'Keep 2 notes' }).click();
  await expect(page.getByText('2 notes came in.')).toBeVisible();
  await page.goto(`${plain}log/charts`);
  await expect(page.locator('nc-record-chart .thread')).toBeVisible();
});

test('what plain http takes away is said once, and no more', async ({
  page,
  open: { house: demo, plain },
}) => {
  const said = page.getByText(/Opened over plain http/);
  await pair(page, plain, demo.code);
  await expect(said).toBeVisible();
  await page.getByRole('button', { name: 'I see' }).click();
  await expect(said).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('button', { name: /^Count a load/ }).first()).toBeVisible();
  await expect(said).toHaveCount(0);
  await page.goto(demo.address);
  await expect(page.getByRole('button', { name: /^Count a load/ }).first()).toBeVisible();
  await expect(said).toHaveCount(0);
});

test('what waits goes along by hand where the old address does not answer any more', async ({
  page,
  demo,
}) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  const counted = async () =>
    (await demo.api<BenchView>('bench')).loads.find((one) => one.machineId === machineId)!.today;
  const before = await counted();
  const { port } = new URL(demo.address);
  await page.goto(demo.address);
  await page
    .getByRole('button', { name: /^Count a load/ })
    .first()
    .waitFor();
  await page.route(`${demo.address}api/**`, (route) => route.abort());
  await page.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
  await page.getByText('1 not sent yet').click();
  await expect(page.getByText(/^Safe here/)).toBeVisible();
  await demo.kill();
  await demo.start();
  const moved = page.getByText('The house has another address now?');
  await expect(moved).toBeVisible({ timeout: 25_000 });
  await moved.click();
  await page.getByLabel('The address, as House').fill('needlecase');
  await page.getByRole('button', { name: 'Go there with what waits' }).click();
  await expect(page.getByText('That is no address')).toBeVisible();
  await page.getByLabel('The address, as House').fill(`http://localhost:${port}/house`);
  await page.getByRole('button', { name: 'Go there with what waits' }).click();
  await page.waitForURL(`http://localhost:${port}/pair`);
  await expect.poll(counted).toBe(before + 1);
});

test('a network that answers with a sign-in page takes no load away', async ({ page, demo }) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  const counted = async () =>
    (await demo.api<BenchView>('bench')).loads.find((one) => one.machineId === machineId)!.today;
  const before = await counted();
  await page.goto(demo.address);
  const count = page.getByRole('button', { name: /^Count a load of the Cellar washer/ });
  await count.waitFor();
  for (const status of [200, 403]) {
    const answered = page.waitForResponse('**/api/v1/entries');
    await page.route('**/api/v1/entries', (route) =>
      route.fulfill({ status, contentType: 'text/html', body: '<h1>Sign in to this network</h1>' }),
    );
    await count.click();
    await answered;
    await expect(page.getByText(/not sent yet/).first()).toBeVisible();
    await page.unroute('**/api/v1/entries');
  }
  await expect(page.getByText(/not sent yet/)).toHaveCount(0, { timeout: 15_000 });
  expect(await counted()).toBe(before + 2);
});
