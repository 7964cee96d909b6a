import { rmSync } from 'node:fs';
import { expect, ready, test } from './house.js';

test('a page that is open says at once that nothing is stored any more, what was rescued, and what to do', async ({
  page,
  demo,
}) => {
  await page.goto(demo.address);
  await ready(page);
  rmSync(`${demo.file}-wal`);
  const banner = page.getByRole('alert').filter({ hasText: '-wal away' });
  await expect(banner).toContainText(/Everything up to then is in demo-\d+\.sqlite\.rescued-/);
  await expect(banner).toContainText('stop the server');
  // What is there can be read, and what is counted waits on the device.
  await page.getByRole('link', { name: 'Log' }).click();
  await expect(page.getByRole('heading', { name: 'Log', level: 1 })).toBeVisible();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await page
    .getByRole('button', { name: /Count a load/ })
    .first()
    .click();
  await expect(page.getByText('1 not sent yet')).toBeVisible();
  await expect(banner).toBeVisible();
});
