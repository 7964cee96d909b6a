import type { Entry } from '@needlecase/core';
import { expect, keptWhole, machineCalled, ready, test } from './house.js';

test.use({ serviceWorkers: 'allow' });

test('photos that another application shares wait through a shut server, and become a note with its machine', async ({
  page,
  demo,
}) => {
  test.slow();
  const { id: machineId } = await machineCalled(demo, 'Cellar dryer');
  await page.goto(demo.address);
  await keptWhole(page);
  await page.reload();
  await ready(page);
  await page.goto(`${demo.address}share`);
  await expect(page.getByText('Nothing is here.')).toBeVisible();
  await demo.kill();
  // As the system does when something is shared: it posts the form.
  await page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = 300;
    canvas.getContext('2d')!.fillRect(20, 20, 200, 120);
    const picture = await new Promise<Blob>((done) => canvas.toBlob((blob) => done(blob!)));
    const form = document.createElement('form');
    form.action = '/share';
    form.method = 'POST';
    form.enctype = 'multipart/form-data';
    const field = document.createElement('input');
    field.type = 'file';
    field.name = 'photos';
    const files = new DataTransfer();
    files.items.add(new File([picture], 'lint.png', { type: 'image/png' }));
    field.files = files.files;
    const text = document.createElement('input');
    text.name = 'text';
    text.value = 'Behind the screen';
    form.append(field, text);
    document.body.append(form);
    form.submit();
  });
  await expect(page.getByLabel('What is on it?')).toHaveValue('Behind the screen');
  await expect(page.getByRole('img', { name: 'Photo 1' })).toBeVisible();
  await page.getByLabel('Of which machine?').selectOption({ label: 'Cellar dryer' });
  await page.getByRole('button', { name: 'Keep as a note' }).click();
  await expect(page.getByText('2 not sent yet')).toBeVisible();
  await demo.start();
  await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 20_000 });
  const { entries } = await demo.api<{ entries: Entry[] }>('entries?kind=note&limit=1');
  expect(entries[0]).toMatchObject({ machineId, note: 'Behind the screen' });
  expect(entries[0]!.photos).toHaveLength(1);
  await page.goto(`${demo.address}share`);
  await expect(page.getByText('Nothing is here.')).toBeVisible();
});
