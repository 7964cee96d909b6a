import { expect, machineCalled, ready, test } from './house.js';

test('an interval is changed for one task, by the manual’s figure, and the due date moves with its reason', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Top-floor dryer');
  await page.goto(`${demo.address}machine/${id}/heat-exchanger`);
  await ready(page);
  const panel = page.locator('nc-station');
  const before = await panel.locator('.due-line .state').textContent();
  await panel.getByRole('button', { name: 'Change this interval' }).click();
  await panel.getByLabel('Interval', { exact: true }).selectOption('own');
  await panel.getByRole('button', { name: 'Store' }).click();
  await expect(panel.getByText('Give a whole number.')).toBeVisible();
  await panel.getByLabel('Every', { exact: true }).fill('10');
  await panel.getByLabel('Unit', { exact: true }).selectOption('loads');
  await panel.getByLabel('Where it says so').fill('Manual, page 12');
  await panel.getByRole('button', { name: 'Store' }).click();
  await expect(panel.getByText('your own figure (Manual, page 12)')).toBeVisible();
  await expect(panel.locator('.due-line .state')).not.toHaveText(before!);

  await panel.getByRole('button', { name: 'Change this interval' }).click();
  await expect(panel.getByLabel('Every', { exact: true })).toHaveValue('10');
  await panel.getByLabel('Interval', { exact: true }).selectOption('house');
  await panel.getByRole('button', { name: 'Store' }).click();
  await expect(panel.locator('.due-line .state')).toHaveText(before!);
});

test('a safety task is switched off only when asked twice, and stays marked', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar dryer');
  await page.goto(`${demo.address}machine/${id}/duct-run`);
  await ready(page);
  const panel = page.locator('nc-station');
  await panel.getByRole('button', { name: 'Change this interval' }).click();
  await panel.getByLabel('Interval', { exact: true }).selectOption('off');
  await panel.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(panel.getByText('This task keeps people safe')).toBeVisible();
  expect(await demo.api(`machines/${id}`)).not.toHaveProperty('rules');
  await panel.getByRole('button', { name: 'Store it all the same' }).click();
  await expect(panel.getByText('switched off, though it keeps people safe')).toBeVisible();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await ready(page);
  await expect(
    page.getByRole('region', { name: /Next visit/ }).getByText('Brush the duct run'),
  ).toHaveCount(0);

  // Changing what the machine is called keeps its rules.
  await page.goto(`${demo.address}house`);
  await page.getByRole('button', { name: 'Change Cellar dryer' }).click();
  await page.getByLabel('Your name for it').fill('Lower dryer');
  await page.getByRole('button', { name: 'Store' }).click();
  await expect(page.getByText('The machine is stored.')).toBeVisible();
  expect(await demo.api(`machines/${id}`)).toMatchObject({
    name: 'Lower dryer',
    rules: { 'duct-run': { off: true, acknowledged: true } },
  });
});

test('the school of the household moves every date, and a risk out of range is refused beside the field', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}house`);
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByLabel('Accepted chance of being late, %').fill('50');
  await page.getByRole('button', { name: 'Store' }).click();
  await expect(page.getByText('Give a number from 2 to 30.')).toBeVisible();
  await page.getByLabel('Accepted chance of being late, %').fill('5');
  await page.getByLabel('Rhythm of cleaning').selectOption('often');
  await page.getByRole('button', { name: 'Store' }).click();
  await expect(page.getByText('The household is stored.')).toBeVisible();
  await expect(page.getByText(/Rhythm: little and often; a date leaves 5 % chance/)).toBeVisible();
});
