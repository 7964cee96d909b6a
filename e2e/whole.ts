import type { BenchView, Entry } from '@needlecase/core';
import type { Page } from '@playwright/test';
import { bySense, expect, goTo, machineCalled, type House } from './house.js';

/** A small picture as a camera gives it, made by the browser. */
export async function snapshot(page: Page): Promise<Buffer> {
  const base64 = await page.evaluate(() => {
    const canvas = document.createElement('canvas');
    canvas.width = 900;
    canvas.height = 600;
    canvas.getContext('2d')!.fillRect(100, 100, 300, 200);
    return canvas.toDataURL('image/jpeg').split(',')[1]!;
  });
  return Buffer.from(base64, 'base64');
}

/** What a household does at its machines, from the first load to a case: on a page that is let in at its bench. */
export async function wholeSlice(page: Page, address: string, house: House): Promise<void> {
  const { id: machineId } = await machineCalled(house, 'Cellar washer');
  const counted = async () =>
    (await house.api<BenchView>('bench')).loads.find((one) => one.machineId === machineId)!.today;
  const before = await counted();
  const count = page.getByRole('button', { name: /^Count a load of the Cellar washer/ });
  await count.click();
  await expect(page.getByText('1 load counted: Cellar washer')).toBeVisible();
  await expect.poll(counted).toBe(before + 1);
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect.poll(counted).toBe(before);
  await count.click();
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
  const buffer = await snapshot(page);
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'IMG_1.jpg', mimeType: 'image/jpeg', buffer });
  await expect(page.getByRole('img', { name: 'Photo 1' })).toBeVisible();
  await goTo(page, 'Is this right?');
  await page.getByRole('button', { name: 'Finish and record' }).click();
  await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();
  const done = async () =>
    (await house.api<{ entries: Entry[] }>('entries?kind=done&limit=1')).entries[0];
  expect(await done()).toMatchObject({ task: 'dispenser', grade: 1, source: 'run' });
  const [photo] = (await done())!.photos!;
  const kept = await page.evaluate(
    async (path) => (await fetch(path)).headers.get('Content-Type'),
    `/api/v1/photos/${photo}`,
  );
  expect(kept).toBe('image/jpeg');
  await page.getByRole('button', { name: 'Undo this visit' }).click();
  await expect(page.getByRole('heading', { name: 'Is this right?' })).toBeVisible();
  expect(await done()).not.toMatchObject({ task: 'dispenser', source: 'run', photos: [photo] });

  await page.goto(`${address}trouble?machine=${machineId}`);
  await bySense(page, 'See');
  const casesBefore = (await house.api<object[]>('cases')).length;
  await page.getByRole('button', { name: 'It does not drain: water stands in the drum' }).click();
  await expect.poll(async () => (await house.api<object[]>('cases')).length).toBe(casesBefore + 1);
}
