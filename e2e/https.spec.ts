import type { BenchView, Entry } from '@needlecase/core';
import { chromium, type BrowserContext } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, goTo, machineCalled, pair, ready, test, type OpenHouse } from './house.js';

/*
 * A phone on the home network, over https by the household's own authority: put into a store of its own as a person
 * puts it into a phone's, with nothing that makes the browser look away.
 */

async function withAuthority(
  open: OpenHouse,
  work: (context: BrowserContext) => Promise<void>,
): Promise<void> {
  const home = mkdtempSync(join(tmpdir(), 'needlecase-home-'));
  const store = `sql:${join(home, '.pki/nssdb')}`;
  const run = (command: string, ...args: string[]) => {
    const { status, stderr } = spawnSync(command, args, { env: { ...process.env, HOME: home } });
    if (status !== 0) throw new Error(`${command}: ${String(stderr)}`);
  };
  run('mkdir', '-p', join(home, '.pki/nssdb'));
  run('certutil', '-N', '-d', store, '--empty-password');
  const authority = open.house.file.replace('.sqlite', '-keys/authority.crt');
  run('certutil', '-A', '-d', store, '-t', 'C,,', '-n', 'Needlecase', '-i', authority);
  const { launchOptions } = test.info().project.use;
  const browser = await chromium.launch({
    ...launchOptions,
    env: { ...(process.env as Record<string, string>), HOME: home },
  });
  try {
    const context = await browser.newContext({
      viewport: { width: 390, height: 844 },
      serviceWorkers: 'allow',
    });
    context.setDefaultTimeout(15_000);
    await work(context);
  } finally {
    await browser.close();
    rmSync(home, { recursive: true, force: true });
  }
}

test('from the address on the first page to a counted load, through the cellar and a new certificate', async ({
  open,
}) => {
  test.slow();
  const { house } = open;
  const { id: machineId } = await machineCalled(house, 'Cellar washer');
  const counted = async () =>
    (await house.api<BenchView>('bench')).loads.find((one) => one.machineId === machineId)!.today;
  await withAuthority(open, async (context) => {
    const page = await context.newPage();
    // The page of plain http finds that the safe address holds, and leads there.
    await page.goto(`${open.plain}phone#${house.code}`);
    await page.getByRole('link', { name: 'Go on', exact: true }).click();
    await expect(page.getByLabel('Code')).toHaveValue(house.code);
    await page.getByRole('button', { name: 'Let it in' }).click();
    await page.waitForURL(open.safe);
    const count = page.getByRole('button', { name: /^Count a load of the Cellar washer/ });
    await count.click();
    await expect.poll(counted).toBe(1);
    expect(await page.evaluate(() => isSecureContext)).toBe(true);
    const [cookie] = await context.cookies();
    expect(cookie).toMatchObject({
      name: '__Host-needlecase',
      httpOnly: true,
      secure: true,
      sameSite: 'Strict',
    });

    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
    await page.reload();
    await count.waitFor();
    // Without a connection, and with a certificate by the same authority after.
    await house.kill();
    await count.click();
    await expect(page.getByText('1 not sent yet')).toBeVisible();
    await page.reload();
    await count.click();
    await expect(page.getByText('2 not sent yet')).toBeVisible();
    const certificate = house.file.replace('.sqlite', '-keys/server.crt');
    rmSync(certificate);
    await house.start();
    await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 20_000 });
    await expect.poll(counted).toBe(3);
  });
});

test('the whole slice over https: a visit with a photo and a grade, an undo, a case', async ({
  open,
}) => {
  test.slow();
  const { house } = open;
  await withAuthority(open, async (context) => {
    const page = await context.newPage();
    await pair(page, open.safe, house.code);
    await page.goto(`${open.safe}visit`);
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
    const done = await house.api<{ entries: Entry[] }>('entries?kind=done&limit=1');
    expect(done.entries[0]).toMatchObject({ task: 'dispenser', grade: 1 });

    await page.getByRole('button', { name: 'Undo this visit' }).click();
    await expect(page.getByRole('heading', { name: 'Is this right?' })).toBeVisible();
    await page.goto(open.safe);
    await ready(page);
  });
});

test('a phone that began over plain http goes over to the safe address with what waits, and who it is', async ({
  open,
}) => {
  const { house } = open;
  const { id: machineId } = await machineCalled(house, 'Cellar washer');
  const counted = async () =>
    (await house.api<BenchView>('bench')).loads.find((one) => one.machineId === machineId)!.today;
  await withAuthority(open, async (context) => {
    const page = await context.newPage();
    await pair(page, open.plain, house.code);
    await page.route('**/api/v1/entries', (route) => route.abort());
    await page.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
    await expect(page.getByText('1 not sent yet')).toBeVisible();
    await page.getByRole('button', { name: 'Go there' }).click();
    await expect(page.getByLabel('Code')).toHaveValue(/^\w{4}-\w{4}$/);
    expect(new URL(page.url()).hash).toBe('');
    await page.unroute('**/api/v1/entries');
    await page.getByRole('button', { name: 'Let it in' }).click();
    await page.waitForURL(open.safe);
    await expect.poll(counted).toBe(1);
    // The old address still has it, and sends it, too: it is the same load.
    await page.goto(open.plain);
    await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 15_000 });
    expect(await counted()).toBe(1);
  });
});

test('a browser that does not know the authority is not let through, and says so', async ({
  open,
  page,
}) => {
  await page.goto(`${open.plain}phone#${open.house.code}`);
  await page.getByRole('button', { name: 'Try it' }).click();
  await expect(page.getByText('This phone does not trust it yet.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Go on', exact: true })).toBeHidden();
  await page.getByRole('link', { name: 'Go on without the certificate' }).click();
  await expect(page.getByLabel('Code')).toHaveValue(open.house.code);
  await expect(page.goto(open.safe)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
});
