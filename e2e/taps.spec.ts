import type { Page } from '@playwright/test';
import { bySense, expect, machineCalled, ready, test } from './house.js';

/* How many taps it takes from the first sight to the first advice, with a phone at the machine. */

test.use({ viewport: { width: 390, height: 844 } });

const advice = (page: Page) => page.locator('nc-look h2, nc-fix h2, nc-first h2').first();

/** Counts what is tapped. */
async function counted(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    const key = 'taps';
    document.addEventListener(
      'click',
      (event) => {
        if (event.isTrusted) {
          sessionStorage.setItem(key, String(Number(sessionStorage.getItem(key) ?? 0) + 1));
        }
      },
      true,
    );
  });
  return () => page.evaluate(() => Number(sessionStorage.getItem('taps') ?? 0));
}

const TROUBLES = [
  ['water full', 'See', 'It does not drain: water stands in the drum: Cellar washer', 'wont-drain'],
  ['hot, not dry', 'Feel', 'The laundry is very hot at the end: Cellar dryer', 'hot-laundry'],
  ['a smell', 'Smell', 'It smells musty: Cellar washer', 'musty-smell'],
  ['a leak after filter work', 'See', 'Drips or a pool at the front: Cellar washer', 'pool-front'],
  ['a condenser stops', 'See', 'It stops after a few minutes: Top-floor dryer', 'stops-minutes'],
] as const;

for (const [name, sense, button] of TROUBLES) {
  test(`${name}: the first advice within four taps of the bench`, async ({ page, demo }) => {
    const taps = await counted(page);
    if (name === 'a leak after filter work') {
      const { id } = await machineCalled(demo, 'Cellar washer');
      await demo.api('entries', {
        ...{ machineId: id, kind: 'done', task: 'pump-filter', grade: 1 },
        at: new Date(Date.now() - 86_400_000).toISOString(),
      });
    }
    await page.goto(demo.address);
    await ready(page);
    await page.getByRole('link', { name: 'Trouble', exact: true }).click();
    await bySense(page, sense);
    await page.getByRole('button', { name: button }).click();
    await page.getByRole('button', { name: 'None of these' }).click();
    await expect(advice(page)).toBeVisible();
    expect(await taps()).toBeLessThanOrEqual(4);
    await page.getByRole('tab', { name: 'Suspects' }).click();
    await expect(page.locator('nc-suspects li').first()).toBeVisible();
  });
}

test('before anything is set up: four taps to the first advice for a washer full of water', async ({
  page,
  empty,
}) => {
  const taps = await counted(page);
  await page.goto(empty.address);
  await page.getByRole('link', { name: 'Help first, set up later' }).click();
  await page.getByRole('button', { name: 'front-load washer' }).click();
  await page.getByRole('button', { name: 'It does not drain: water stands in the drum' }).click();
  await page.getByRole('button', { name: 'None of these' }).click();
  await expect(advice(page)).toBeVisible();
  expect(await taps()).toBe(4);
  expect(await empty.api('household')).toMatchObject({ status: 404 });
});

test('the field at the top leads from people’s words to the case, by keys', async ({
  page,
  demo,
}) => {
  await page.goto(demo.address);
  await ready(page);
  await page.keyboard.press('/');
  await page.keyboard.type('washer full of water');
  const answer = page.getByRole('option', { name: /It does not drain: water stands/ }).first();
  await expect(answer).toContainText('Cellar washer');
  await page.keyboard.press('Enter');
  await page.waitForURL(/trouble/);
  await page.getByRole('button', { name: 'None of these' }).click();
  await expect(advice(page)).toBeVisible();
});
