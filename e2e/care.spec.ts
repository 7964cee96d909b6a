import type { BenchView, MachineView, SuppliesView } from '@needlecase/core';
import { expect, machineCalled, ready, test, type House, goOn, goTo } from './house.js';

const bench = (house: House) => house.api<BenchView>('bench');

test('several loads of a past day and of a programme are counted, and move what rests on them', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  const line = () => demo.api<MachineView>(`machines/${id}/line`);
  const useOf = async (task: string) => (await line()).tasks.find((one) => one.task === task)!.use!;
  const before = await useOf('drum-clean');
  await page.goto(demo.address);
  await ready(page);
  await page.getByRole('button', { name: /another day: Cellar washer/ }).click();
  const dialog = page.getByRole('dialog');
  for (let i = 0; i < 3; i++) await dialog.getByRole('button', { name: 'One load more' }).click();
  await dialog.getByText('Cool', { exact: true }).click();
  await dialog.getByRole('button', { name: 'Count', exact: true }).click();
  await expect(page.getByText('4 loads counted: Cellar washer')).toBeVisible();
  await expect.poll(() => useOf('drum-clean')).toBeCloseTo(before + 6, 1);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect.poll(() => useOf('drum-clean')).toBeCloseTo(before, 1);
});

test('with a load counted the bench offers what goes with it, once', async ({ page, demo }) => {
  await page.goto(demo.address);
  await ready(page);
  await page.getByRole('button', { name: /^Count a load of the Cellar dryer/ }).click();
  const brushed = page.getByRole('button', { name: /Lint screen brushed off/ });
  await brushed.click();
  await expect(brushed).toBeDisabled();
  const { id } = await machineCalled(demo, 'Cellar dryer');
  await expect
    .poll(
      async () =>
        (await bench(demo)).habits.find(
          ({ machineId, habit }) => machineId === id && habit === 'screen',
        )?.days[6],
    )
    .toBe(true);
});

test('a task of one’s own is added with its steps, run, and falls due again', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Top-floor dryer');
  await page.goto(`${demo.address}machine/${id}/whole`);
  await ready(page);
  await page.getByRole('button', { name: 'Add a task of your own here' }).click();
  await page.getByRole('button', { name: 'Store' }).click();
  await expect(page.getByText('Write something here.')).toBeVisible();
  await page.getByLabel('What is done').fill('Dust the vents');
  await page.getByLabel('Every', { exact: true }).fill('2');
  await page.getByLabel('Steps, one a line').fill('Dust the left side.\nDust the right side.');
  await page.getByRole('button', { name: 'Store' }).click();
  await expect(page.getByRole('heading', { name: 'Dust the vents' })).toBeVisible();
  await page.getByRole('button', { name: 'Start: Dust the vents' }).click();
  await page.getByRole('button', { name: /^Begin with the first step/ }).click();
  const title = page.locator('[data-step-title]');
  await page.getByText('light', { exact: true }).click();
  for (const step of ['Dust the left side.', 'Dust the right side.', 'Put everything back']) {
    await goOn(page);
    await expect(title).toContainText(step);
  }
  await goTo(page, 'Is this right?');
  await page.getByRole('button', { name: /^Finish and record/ }).click();
  await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();
  const line = await demo.api<MachineView>(`machines/${id}/line`);
  const task = line.tasks.find(
    ({ station, task }) => station === 'whole' && task.startsWith('own-'),
  );
  expect(task!.status).toBe('fine');
});

test('a bottle is kept, counted, bought and taken from the shopping list', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}house/supplies`);
  await ready(page);
  const list = page.getByRole('region', { name: 'Shopping list' });
  await expect(list.getByText('Metal foil tape')).toBeVisible();
  await list.getByRole('button', { name: 'Bought: Metal foil tape' }).click();
  await expect(list.getByText('Metal foil tape')).toHaveCount(0);
  await page.getByRole('button', { name: 'Count: Citric acid' }).click();
  const field = page.getByLabel('There is, g');
  await field.fill('lots');
  await page.getByRole('button', { name: 'Store' }).click();
  await expect(page.getByText('Give an amount from 0 to 1000000.')).toBeVisible();
  await field.fill('20');
  await field.press('Enter');
  await expect(page.getByText('Enough for 0 × descale.')).toBeVisible();
  await page.getByRole('button', { name: 'Add a supply' }).click();
  await page.getByLabel('What is it?').selectOption('machine-cleaner');
  await expect(page.getByLabel('Your name for it')).toHaveValue('Washing-machine cleaner');
  await page.getByLabel(/^Content of a pack/).fill('-3');
  await page.getByRole('button', { name: 'Store' }).click();
  await expect(page.locator('.field-problem')).toContainText('Give a number');
  await page.getByLabel(/^Content of a pack/).fill('750');
  await page.getByRole('button', { name: 'Store' }).click();
  await expect(page.getByRole('heading', { name: 'Washing-machine cleaner' })).toBeVisible();
  const { supplies } = await demo.api<SuppliesView>('supplies');
  const leftOf = (item: string) => supplies.find(({ supply }) => supply.item === item)!.left;
  expect(leftOf('citric-acid')).toBe(20);
  expect(leftOf('foil-tape')).toBe(1);
  expect(leftOf('machine-cleaner')).toBeUndefined();
});

test('what a run used up is asked at its end and taken from the shelf', async ({ page, demo }) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  const left = async () =>
    (await demo.api<SuppliesView>('supplies')).supplies.find(
      ({ supply }) => supply.item === 'vinegar',
    )!.left!;
  const before = await left();
  const run = await demo.api<{ id: string }>('runs', {
    tasks: [{ machineId, task: 'pump-filter' }],
  });
  await page.goto(`${demo.address}visit/${run.id}`);
  await page.getByRole('button', { name: /^Begin with the first step/ }).click();
  await goTo(page, 'Is this right?');
  await expect(page.getByRole('checkbox', { name: /Dish soap/ })).toBeChecked();
  await page.getByRole('checkbox', { name: /Household vinegar/ }).check();
  await page.getByRole('button', { name: /^Finish and record/ }).click();
  await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();
  expect(await left()).toBe(before - 250);
});

test('the schools stand side by side, and the house keeps to another', async ({ page, demo }) => {
  await page.goto(`${demo.address}house/schools`);
  await ready(page);
  await expect(page.locator('.school')).toHaveCount(4);
  await page.getByRole('button', { name: 'Keep to Stretch' }).click();
  await expect(page.locator('.school.chosen')).toContainText('Stretch');
  expect((await bench(demo)).household.school).toBe('stretch');
});

test('a multiplier of one’s own moves the date, and a wrong one is told beside the field', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  const baseOf = async () =>
    (await demo.api<MachineView>(`machines/${id}/line`)).tasks.find(
      ({ task }) => task === 'pump-filter',
    )!.base;
  const before = await baseOf();
  await page.goto(`${demo.address}house`);
  await ready(page);
  const field = page.getByLabel('How many times as fast: A pet that sheds');
  await field.fill('9');
  await field.blur();
  await expect(page.getByText('Give a number from 1 to 5.')).toBeVisible();
  expect(await baseOf()).toBe(before);
  await field.fill('3');
  await field.blur();
  await expect(page.getByText('Stored. The dates have moved with it.')).toBeVisible();
  expect(await baseOf()).toBeCloseTo(before / 2, 6);
});

test('before a visit it asks how a machine is built, once, and the steps follow', async ({
  page,
  empty,
}) => {
  const washer = {
    name: 'Washer',
    kind: 'front-load-washer',
    place: 'Bath',
    features: { filterAccess: 'front-left', stacked: 'no' },
    habits: [],
    loadsPerWeek: 5,
  };
  const household = { name: 'H', zone: 'UTC', units: 'metric', school: 'steady', risk: 0.1 };
  await empty.api('setup', { household, machines: [washer] });
  const { id: machineId } = await machineCalled(empty, 'Washer');
  const begin = async () => {
    const tasks = [{ machineId, task: 'pump-filter' }];
    const run = await empty.api<{ id: string }>('runs', { tasks });
    await page.goto(`${empty.address}visit/${run.id}`);
    await ready(page);
  };
  await begin();
  const question = page.getByLabel(/thin drain-down hose beside the filter/);
  await question.selectOption('Yes');
  await expect(question).toHaveCount(0);
  await page.getByRole('button', { name: /^Begin with the first step/ }).click();
  const title = page.locator('[data-step-title]');
  await goTo(page, 'drain-down hose');
  await expect(title).toContainText('Draw the drain-down hose out');
  await begin();
  await expect(page.getByRole('heading', { name: 'Fetch first' })).toBeVisible();
  await expect(question).toHaveCount(0);
});

test('an answer that leaves nothing to do is said before the first step', async ({
  page,
  empty,
}) => {
  const washer = {
    name: 'Washer',
    kind: 'front-load-washer',
    place: 'Bath',
    features: { drainDownHose: 'no', stacked: 'no' },
    habits: [],
    loadsPerWeek: 5,
  };
  const household = { name: 'H', zone: 'UTC', units: 'metric', school: 'steady', risk: 0.1 };
  await empty.api('setup', { household, machines: [washer] });
  const { id: machineId } = await machineCalled(empty, 'Washer');
  const tasks = [{ machineId, task: 'pump-filter' }];
  const run = await empty.api<{ id: string }>('runs', { tasks });
  await page.goto(`${empty.address}visit/${run.id}`);
  await ready(page);
  await page.getByLabel(/Where is the pump filter reached/).selectOption('It has none');
  await expect(page.getByRole('alert')).toContainText('nothing to do for “Clean the pump filter”');
});
