import type { Entry, KeptVentRun } from '@needlecase/core';
import { bySense, expect, machineCalled, ready, test } from './house.js';

test('a vent run is laid out, changed by drag and by button, kept and compared', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}measure/vent-run`);
  await expect(
    page.getByRole('button', { name: 'Open Out of the cellar, as it is' }),
  ).toBeVisible();
  const air = page.locator('.counts b').first();
  // What is kept for this dryer is what stands there at first.
  const asItIs = page
    .getByRole('row', { name: /Out of the cellar, as it is/ })
    .locator('td')
    .first();
  await expect(air).toHaveText((await asItIs.textContent())!.trim());
  const before = parseFloat((await air.textContent())!);
  await expect(page.getByRole('row', { name: /clean the lint out/ })).toContainText('min');
  await page.getByRole('checkbox', { name: 'clean the lint out' }).check();
  await page.getByRole('checkbox', { name: 'free the hood' }).check();
  await expect(page.getByRole('row', { name: /all that is ticked/ })).toContainText('min');
  await page.getByLabel(/^How piece/).selectOption('stretched');
  await expect.poll(async () => parseFloat((await air.textContent())!)).toBeGreaterThan(before);
  const pieces = page.locator('.pieces li');
  const count = await pieces.count();
  await page.getByRole('button', { name: '+ Elbow' }).click();
  await expect(pieces).toHaveCount(count + 1);
  await expect(pieces.last()).toContainText('Hood');
  await pieces.first().locator('.grip').hover();
  await page.mouse.down();
  const third = (await pieces.nth(2).boundingBox())!;
  await page.mouse.move(third.x + 8, third.y + 10, { steps: 8 });
  await page.mouse.move(third.x + 8, third.y + 26, { steps: 8 });
  await page.mouse.up();
  await expect(pieces.first()).not.toContainText('Hose');
  await page.getByLabel('Length of piece 1, m').fill('-2');
  await page.getByLabel('Length of piece 1, m').blur();
  await expect(page.getByRole('alert').first()).toContainText('Give a number from 0.02 to 30 m.');
  await expect(page.getByRole('button', { name: 'Keep this run' })).toBeDisabled();
  await page.getByLabel('Length of piece 1, m').fill('2');
  await page.getByLabel('Length of piece 1, m').blur();
  await page.getByLabel('Name of this run').fill('Tried');
  await page.getByRole('button', { name: 'Keep this run' }).click();
  await expect(page.getByRole('row', { name: /Tried/ })).toBeVisible();
  const kept = await demo.api<KeptVentRun[]>('vent-runs');
  expect(kept.map(({ name }) => name)).toContain('Tried');
});

test('a slow drain raises the filter and moves its date, and says why; a good one proves the case', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  const suspect = async () => {
    const { suspects } = await demo.api<{ suspects: { cause: string; chance: number }[] }>(
      'trouble/suspects',
      { machineId: id, answers: { 'drains-slowly': 'yes', gurgle: 'no' } },
    );
    return suspects.find(({ cause }) => cause === 'filter-clogged')!.chance;
  };
  const before = await suspect();
  await page.goto(`${demo.address}measure/drain-test?machine=${id}`);
  await page.getByRole('textbox', { name: 'Water in the drum' }).fill('15');
  await page.getByRole('textbox', { name: 'Time until it is empty' }).fill('150');
  await expect(page.getByText(/clean the pump filter now/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep this reading' }).click();
  await expect(page.locator('.moved').first()).toContainText('pump filter');
  expect(await suspect()).toBeGreaterThan(before);
  const { entries } = await demo.api<{ entries: Entry[] }>(
    `entries?machine=${id}&kind=reading&limit=1`,
  );
  expect(entries[0]).toMatchObject({ quantity: 'drain-time', value: 150, source: 'measure' });

  await page.goto(`${demo.address}trouble?machine=${id}`);
  await bySense(page, 'See');
  await page.getByRole('button', { name: 'It drains slowly' }).click();
  await page.getByRole('button', { name: 'None of these' }).click();
  await page.getByText('You looked already?').click();
  await page.getByLabel('Then it is that').selectOption('filter-clogged');
  await page.getByRole('button', { name: 'That is it' }).click();
  await page.getByRole('button', { name: 'I have done it' }).click();
  await expect(page.getByText('150 s')).toBeVisible();
  const address = page.url();
  await expect(page.getByText('not sent yet')).toHaveCount(0);
  await page.goto(`${demo.address}measure/drain-test?machine=${id}`);
  await page.getByRole('textbox', { name: 'Time until it is empty' }).fill('62');
  await page.getByRole('button', { name: 'Keep this reading' }).click();
  await expect(page.getByText('Kept.').first()).toBeVisible();
  await page.goto(address);
  await expect(page.getByText('Better than before: it held.')).toBeVisible();
});

test('the drum model runs in a worker, and less air never dries faster', async ({ page, demo }) => {
  await page.goto(`${demo.address}measure/drum-model`);
  const minutes = async () => parseFloat((await page.locator('.numbers b').first().textContent())!);
  await expect(page.getByText('until it is dry')).toBeVisible();
  const free = await minutes();
  expect(page.workers().length).toBe(1);
  await page.getByLabel('Air at the hood').fill('10');
  await expect.poll(minutes).toBeGreaterThan(1.5 * free);
  await page.getByRole('textbox', { name: 'Moisture at the start' }).fill('400');
  await expect(page.getByRole('alert')).toContainText('Give a number from 5 to 300 %.');
});

test('the guard stops vinegar after bleach in a planned order until a rinse', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}measure/mix`);
  await ready(page);
  await page
    .getByRole('button', { name: 'Use next: Chlorine bleach in a warm empty cycle' })
    .click();
  await page.getByRole('button', { name: 'Use next: Vinegar in a hot empty cycle' }).click();
  await expect(page.getByRole('alert')).toContainText('chlorine gas');
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await page
    .getByRole('button', { name: 'Use next: Chlorine bleach in a warm empty cycle' })
    .click();
  await page.getByRole('button', { name: 'A full rinse comes next' }).click();
  await page.getByRole('button', { name: 'Use next: Vinegar in a hot empty cycle' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('a step that asks for a figure leads to its instrument, and the visit waits', async ({
  page,
  demo,
}) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  const run = await demo.api<{ id: string; version: number; progress: object }>('runs', {
    tasks: [{ machineId, task: 'pump-filter' }],
  });
  await demo.api(
    `runs/${run.id}`,
    { progress: { ...run.progress, at: `${machineId}/pump-filter/drain-test` } },
    { 'If-Match': `"${run.version}"` },
    'PATCH',
  );
  await page.goto(`${demo.address}visit/${run.id}`);
  await page.getByRole('link', { name: /Measure it more closely/ }).click();
  await expect(page.getByRole('heading', { name: 'Drain test', level: 1 })).toBeVisible();
  await expect(page.getByText('It goes to the Cellar washer’s record.')).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel(/Seconds until empty/)).toBeVisible();
});

test('a drying test goes on after the page was shut, and its minutes are kept', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Top-floor dryer');
  const address = `${demo.address}measure/drying-test?machine=${id}`;
  const next = page.getByRole('button', { name: 'Next' });
  await page.goto(address);
  await expect(next).toBeDisabled();
  await page.getByRole('button', { name: 'A usual mixed load' }).click();
  await next.click();
  await page.getByLabel('The washer’s spin').selectOption('1400');
  await next.click();
  await page.getByRole('textbox', { name: 'Wet weight' }).fill('4.5');
  await next.click();
  await page.getByRole('button', { name: 'It starts now' }).click();
  await page.goto(demo.address);
  await page.goto(address);
  await expect(page.getByRole('heading', { name: 'Dry it' })).toBeVisible();
  await page.getByRole('button', { name: /tap when it stops/ }).click();
  // It stopped within a second: that is no drying, and is refused beside the field.
  await expect(next).toBeDisabled();
  await page.getByRole('textbox', { name: 'Time in the dryer' }).fill('72');
  await next.click();
  await page.getByRole('textbox', { name: 'Weight afterwards' }).fill('3.05');
  await next.click();
  await page.getByRole('button', { name: 'Keep the minutes of a usual load' }).click();
  await expect(page.getByText('Kept.').first()).toBeVisible();
  const { entries } = await demo.api<{ entries: Entry[] }>(
    `entries?machine=${id}&kind=reading&limit=1`,
  );
  // Heat of the usual load over that of this one: 4.52 MJ / 4.12 MJ × 72 min.
  expect(entries[0]).toMatchObject({ quantity: 'drying-minutes', value: 79, unit: 'min' });
});
