import type { Entry, Visit } from '@needlecase/core';
import { closeSync, ftruncateSync, mkdtempSync, openSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import { expect, goOn, machineCalled, test } from './house.js';

/** A picture of a given size, full of detail, as a camera would give it. */
async function picture(page: Page, width: number, height: number, type: string): Promise<Buffer> {
  const base64 = await page.evaluate(
    async ([width, height, type]) => {
      const canvas = document.createElement('canvas');
      canvas.width = width;
      canvas.height = height;
      const paper = canvas.getContext('2d')!;
      for (let i = 0; i < 4000; i++) {
        paper.fillStyle = `hsl(${(i * 37) % 360} 60% 50%)`;
        paper.fillRect((i * 733) % width, (i * 389) % height, 90, 60);
      }
      const blob = await new Promise<Blob>((done) => canvas.toBlob((b) => done(b!), type, 0.95));
      const bytes = new Uint8Array(await blob.arrayBuffer());
      let text = '';
      for (let i = 0; i < bytes.length; i += 4096) {
        text += String.fromCharCode(...bytes.subarray(i, i + 4096));
      }
      return btoa(text);
    },
    [width, height, type] as const,
  );
  return Buffer.from(base64, 'base64');
}

/** The same JPEG with an Exif segment that tells a place. */
function withExif(jpeg: Buffer): Buffer {
  const body = Buffer.from('Exif\0\0GPS 48.2N 16.3E');
  const head = Buffer.from([0xff, 0xe1, 0, body.length + 2]);
  return Buffer.concat([jpeg.subarray(0, 2), head, body, jpeg.subarray(2)]);
}

test('photos are made small and kept with the entry, or refused in words', async ({
  demo,
  page,
}) => {
  test.slow();
  const washer = await machineCalled(demo, 'Cellar washer');
  const visit = await demo.api<Visit>('runs', {
    tasks: [{ machineId: washer.id, task: 'dispenser' }],
  });
  await page.goto(`${demo.address}visit/${visit.id}`);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  const field = page.locator('input[type=file]');
  while ((await field.count()) === 0) await goOn(page);
  await page.getByRole('radio', { name: /light/ }).check({ force: true });

  const camera = withExif(await picture(page, 4000, 3000, 'image/jpeg'));
  expect(camera.includes('Exif')).toBe(true);
  await field.setInputFiles({ name: 'IMG_1.jpg', mimeType: 'image/jpeg', buffer: camera });
  await expect(page.getByRole('img', { name: 'Photo 1' })).toBeVisible();
  const png = await picture(page, 900, 1200, 'image/png');
  await field.setInputFiles({ name: 'shot.png', mimeType: 'image/png', buffer: png });
  await expect(page.getByRole('img', { name: 'Photo 2' })).toBeVisible();

  const refused = page.getByRole('alert');
  const text = Buffer.from('This is a letter, whatever its name says.');
  await field.setInputFiles({ name: 'letter.jpg', mimeType: 'image/jpeg', buffer: text });
  await expect(refused).toContainText('no picture that can be read');
  const pdf = Buffer.from('%PDF-1.7 %%EOF');
  await field.setInputFiles({ name: 'manual.pdf', mimeType: 'application/pdf', buffer: pdf });
  await expect(refused).toContainText('no picture that can be read');
  const large = join(mkdtempSync(join(tmpdir(), 'needlecase-large-')), 'film.jpg');
  writeFileSync(large, camera.subarray(0, 100));
  const handle = openSync(large, 'r+');
  ftruncateSync(handle, 100_000_000);
  closeSync(handle);
  await field.setInputFiles(large);
  await expect(refused).toContainText('100 MB; photos up to 50 MB');
  await expect(page.getByRole('img', { name: /^Photo/ })).toHaveCount(2);

  await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 20_000 });
  const photos = await page.evaluate(
    (id) =>
      fetch(`/api/v1/runs/${id}`)
        .then((answer) => answer.json() as Promise<Visit>)
        .then(({ progress }) => Object.values(progress.tasks).flatMap(({ photos = [] }) => photos)),
    visit.id,
  );
  expect(photos).toHaveLength(2);
  const stored = await page.request.get(`${demo.address}api/v1/photos/${photos[0]}`);
  const bytes = await stored.body();
  expect(stored.headers()['content-type']).toBe('image/jpeg');
  expect(bytes.includes('Exif')).toBe(false);
  expect(bytes.length).toBeLessThan(1_400_000);
  const size = await page.evaluate(async (address) => {
    const image = new Image();
    image.src = address;
    await image.decode();
    return [image.naturalWidth, image.naturalHeight];
  }, `/api/v1/photos/${photos[0]}`);
  expect(size).toEqual([1600, 1200]);

  await demo.api(`runs/${visit.id}/finish`, {});
  await page.goto(`${demo.address}log`);
  await expect(page.getByRole('img', { name: 'Photo 2' }).first()).toBeVisible();
  const { entries } = await demo.api<{ entries: Entry[] }>('entries?limit=10');
  expect(entries.find(({ task }) => task === 'dispenser')!.photos).toEqual(photos);
});

test('a photo that waits is shown waiting, and a refused one says why', async ({ demo, page }) => {
  const washer = await machineCalled(demo, 'Cellar washer');
  const visit = await demo.api<Visit>('runs', {
    tasks: [{ machineId: washer.id, task: 'dispenser' }],
  });
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${demo.address}visit/${visit.id}`);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  const field = page.locator('input[type=file]');
  while ((await field.count()) === 0) await goOn(page);
  await page.getByRole('radio', { name: /light/ }).check({ force: true });
  await page.route('**/api/v1/photos/*', (route) => route.abort());
  const buffer = await picture(page, 900, 1200, 'image/jpeg');
  await field.setInputFiles({ name: 'one.jpg', mimeType: 'image/jpeg', buffer });
  const caption = page.locator('nc-photos figcaption');
  await expect(caption).toHaveText('Not sent yet');
  await page.reload();
  await expect(caption).toHaveText('Not sent yet');
  await expect(page.getByRole('img', { name: 'Photo 1' })).toBeVisible();

  const why = 'This picture is larger than 2048 pixels.';
  await page.unroute('**/api/v1/photos/*');
  await page.route('**/api/v1/photos/*', (route) =>
    route.fulfill({
      status: 422,
      contentType: 'application/problem+json',
      body: JSON.stringify({
        title: 'Something here needs another look.',
        errors: [{ field: 'photo', message: why }],
      }),
    }),
  );
  await expect(caption).toHaveText(`Refused: ${why}`, { timeout: 15_000 });
  await page.unroute('**/api/v1/photos/*');
  await page.getByText('1 refused').click();
  if (process.env['SHOT']) await page.screenshot({ path: process.env['SHOT'] });
  await page.getByRole('button', { name: 'Send it again' }).click();
  await expect(caption).toHaveCount(0);
});
