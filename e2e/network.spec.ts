import type { BenchView, Entry } from '@needlecase/core';
import { expect, goTo, machineCalled, pair, test } from './house.js';

/* A phone on the home network, over http: no secure context, and everything that counts works all the same. */

test('under the name of the house a load is counted, a visit begun and finished', async ({
  page,
  open: { house: demo, plain: address },
  watched,
}) => {
  await pair(page, address, demo.code);
  expect(await page.evaluate(() => isSecureContext)).toBe(false);

  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  const counted = async () =>
    (await demo.api<BenchView>('bench')).loads.find((one) => one.machineId === machineId)!.today;
  const before = await counted();
  await page.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
  await expect(page.getByText('1 load counted: Cellar washer')).toBeVisible();
  await expect.poll(counted).toBe(before + 1);

  await page.goto(`${address}visit`);
  const washer = page.getByRole('group', { name: /Cellar washer/ });
  await washer.getByRole('checkbox').first().waitFor();
  for (const box of await page.getByRole('checkbox').all()) await box.uncheck();
  await washer.getByRole('checkbox', { name: /Clean the dispenser/ }).check();
  await page.getByRole('button', { name: 'Start this visit' }).click();
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  await goTo(page, 'Note how dirty it is');
  await page.getByRole('radio', { name: /light/ }).check({ force: true });
  await goTo(page, 'Is this right?');
  await page.getByRole('button', { name: 'Finish and record' }).click();
  await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();
  const { entries } = await demo.api<{ entries: Entry[] }>('entries?kind=done&limit=1');
  expect(entries[0]).toMatchObject({ task: 'dispenser', grade: 1, source: 'run' });

  expect(watched.foreign).toEqual([]);
  // Whether the safe address holds is tried once; here nobody has put the certificate in.
  expect(watched.complaints).toEqual(['Failed to load resource: net::ERR_CERT_AUTHORITY_INVALID']);
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
