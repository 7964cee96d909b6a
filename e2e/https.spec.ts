import type { BenchView } from '@needlecase/core';
import Database from 'better-sqlite3';
import { chromium, type BrowserContext } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { hostname, tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, keptWhole, machineCalled, pair, test, type OpenHouse } from './house.js';
import { plainFaults } from './looks.js';
import { wholeSlice } from './whole.js';

/*
 * A phone on the home network, over https by the household's own authority: put into a store of its own as a person
 * puts it into a phone's, with nothing that makes the browser look away.
 */

async function withAuthority(
  open: OpenHouse,
  work: (context: BrowserContext) => Promise<void>,
  serviceWorkers: 'allow' | 'block' = 'allow',
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
      serviceWorkers,
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

    await keptWhole(page);
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

test('the whole slice over https: loads, a visit with a photo and a grade, undo, a case', async ({
  open,
}) => {
  test.slow();
  const { house } = open;
  await withAuthority(open, async (context) => {
    const page = await context.newPage();
    await pair(page, open.safe, house.code);
    await wholeSlice(page, open.safe, house);
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

test('a house that lays down another address leads its devices there, with what waits', async ({
  open,
}) => {
  const { house } = open;
  const { id: machineId } = await machineCalled(house, 'Cellar washer');
  const counted = async () =>
    (await house.api<BenchView>('bench')).loads.find((one) => one.machineId === machineId)!.today;
  // Known by a name of its own, and by nothing that was laid down at the installation.
  await house.kill();
  const file = new Database(house.file);
  file.prepare("INSERT INTO facts VALUES ('host', 'needlecase.local')").run();
  file.close();
  delete house.env['NEEDLECASE_ORIGIN'];
  await house.start();
  const { port } = new URL(open.safe);
  const other = `${hostname().toLowerCase().split('.')[0]}.local`;
  await withAuthority(
    open,
    async (context) => {
      const page = await context.newPage();
      const before = `https://needlecase.local:${port}/`;
      await pair(page, before, house.code);
      await page.route('**/api/v1/entries', (route) => route.abort());
      await page.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
      await expect(page.getByText('1 not sent yet')).toBeVisible();
      await page.goto(`${before}house/phones`);
      await page.getByText('Another address').click();
      await page.getByRole('button', { name: `Use https://${other}:${port}` }).click();
      await expect(page.getByText(`It is https://${other}:${port} from now on.`)).toBeVisible();
      await page.reload();
      await expect(page.getByText(`This house is at https://${other}:${port} now.`)).toBeVisible();
      await page.getByRole('button', { name: 'Go there' }).click();
      await expect(page.getByLabel('Code')).toHaveValue(/^\w{4}-\w{4}$/);
      await page.unroute('**/api/v1/entries');
      await page.getByRole('button', { name: 'Let it in' }).click();
      await page.waitForURL(`https://${other}:${port}/`);
      await expect.poll(counted).toBe(1);
      await expect(page.getByText('This house is at')).toHaveCount(0);
    },
    'block',
  );
});

test('a browser that does not know the authority is not let through, and says so', async ({
  open,
  page,
}) => {
  await page.goto(`${open.plain}phone#${open.house.code}`);
  await page.getByRole('button', { name: 'Try it' }).click();
  await expect(page.getByText('This phone does not trust it yet.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Go on', exact: true })).toBeHidden();
  for (const kind of await page.locator('summary').all()) await kind.click();
  expect(await plainFaults(page)).toEqual([]);
  await page.getByRole('link', { name: 'Go on without the certificate' }).click();
  await expect(page.getByLabel('Code')).toHaveValue(open.house.code);
  await expect(page.goto(open.safe)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/);
});
