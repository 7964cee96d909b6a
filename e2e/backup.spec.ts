import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, machineCalled, ready, test } from './house.js';

let folder: string;
test.beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'needlecase-'))));
test.afterEach(() => rmSync(folder, { recursive: true, force: true }));

interface Log {
  entries: { id: string }[];
}

test('a backup is taken along, and put back on a server that holds nothing yet', async ({
  page,
  demo,
  empty,
}) => {
  await page.goto(`${demo.address}house/backup`);
  await expect(page.getByRole('heading', { name: 'No backup yet' })).toBeVisible();
  const coming = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Take one along' }).click();
  const file = join(folder, 'house.zip');
  await (await coming).saveAs(file);

  await page.goto(empty.address);
  await page.getByRole('link', { name: 'Have you a backup?' }).click();
  await page.setInputFiles('input[type=file]', file);
  await expect(page.getByRole('heading', { name: /is whole/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Household/ })).toContainText('Kiln Lane House');
  await page.getByRole('button', { name: 'Put it back' }).click();
  await page.getByRole('button', { name: 'Go to the bench' }).click();
  await ready(page);
  await expect(page.getByRole('button', { name: /Count a load/ }).first()).toBeVisible();
  const all = 'entries?limit=200&all=true';
  expect(await empty.api<Log>(all)).toEqual(await demo.api<Log>(all));
});

test('one from the folder is put in the place of what is here, and what was here can be had again', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  const newest = async () => (await demo.api<Log>('entries?limit=1')).entries[0]!.id;
  await page.goto(`${demo.address}house/backup`);
  await page.getByRole('button', { name: 'Make one now' }).click();
  await expect(page.getByRole('heading', { name: /less than an hour ago/ })).toBeVisible();
  const before = await newest();
  const load = { kind: 'load', machineId: id, at: new Date().toISOString(), count: 1 };
  const { id: tapped } = await demo.api<{ id: string }>('entries', load);
  await page.getByText(/in the folder/).click();
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByText('Everything in this backup is here already.')).toBeVisible();
  await page.getByRole('button', { name: 'Put it in the place of all this' }).click();
  await expect(page.getByRole('heading', { name: 'It is back' })).toBeVisible();
  expect(await newest()).toBe(before);
  await page.getByRole('button', { name: 'Look at what was here before' }).click();
  await expect(page.getByText('New from the backup: 1 entry.')).toBeVisible();
  await page.getByRole('button', { name: 'Merge', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'It is back' })).toBeVisible();
  expect(await newest()).toBe(tapped);
});

test('what differs is asked, and a file that is no backup is told for what it is', async ({
  page,
  demo,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${demo.address}house/backup`);
  await page.getByRole('button', { name: 'Make one now' }).click();
  await expect(page.getByRole('heading', { name: /less than an hour ago/ })).toBeVisible();
  const { id } = await machineCalled(demo, 'Cellar washer');
  const { version, ...machine } = await demo.api<{ version: number; id?: string }>(
    `machines/${id}`,
  );
  delete machine.id;
  const changed = { ...machine, name: 'Apron washer' };
  await demo.api(`machines/${id}`, changed, { 'If-Match': `"${version}"` }, 'PUT');
  await page.getByText(/in the folder/).click();
  await page.getByRole('button', { name: 'Look at it' }).click();
  const asked = page.getByRole('group', { name: /Machine “Apron washer” differs/ });
  await expect(asked).toContainText('Cellar washer');
  await expect(asked.getByRole('button', { pressed: true })).toHaveText('What is here');
  await asked.getByRole('button', { name: 'What is in the backup' }).click();
  await page.getByRole('button', { name: 'Merge', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'It is back' })).toBeVisible();
  expect(await machineCalled(demo, 'Cellar washer')).toBeDefined();

  const file = join(folder, 'letter.zip');
  writeFileSync(file, 'Dear all');
  await page.setInputFiles('input[type=file]', file);
  await expect(page.getByRole('alert')).toContainText('This is no backup of Needlecase.');
});
