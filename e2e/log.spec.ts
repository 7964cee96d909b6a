import { expect, machineCalled, ready, test } from './house.js';

test('the log is filtered by machine and station, and goes back page by page', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}log`);
  await ready(page);
  const lines = page.locator('section.day li');
  await expect(lines.first()).toBeVisible();
  const shown = await lines.count();
  await page.getByRole('button', { name: 'Show older entries' }).click();
  await expect.poll(() => lines.count()).toBeGreaterThan(shown);

  await page.getByLabel('Machine', { exact: true }).selectOption('Cellar dryer');
  await page.getByLabel('Station', { exact: true }).selectOption('Duct run');
  await page.getByLabel('Kind of entry', { exact: true }).selectOption('Work done');
  await expect(lines.first()).toContainText('Brush the duct run through');
  for (const line of await lines.all()) await expect(line).toContainText('Cellar dryer');
  await expect(page).toHaveURL(/machine=.*station=duct-run.*kind=done/);
  await page.reload();
  await expect(page.getByLabel('Station', { exact: true })).toHaveValue('duct-run');
  await expect(lines.first()).toContainText('Brush the duct run through');
});

test('a correction says beside the field what is wrong, and takes the old entry’s place', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}log?kind=done`);
  await ready(page);
  const first = page.getByRole('button', { name: /^Correct:/ }).first();
  const name = (await first.getAttribute('aria-label'))!;
  await first.click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('When', { exact: true }).fill('2199-01-01T10:00');
  await dialog.getByRole('button', { name: 'Store the correction' }).click();
  await expect(dialog.getByText('This is in the future. Give a time up to now.')).toBeVisible();
  await expect(dialog.getByLabel('When', { exact: true })).toBeFocused();
  await dialog.getByLabel('When', { exact: true }).fill('2026-01-05T10:00');
  await dialog.getByLabel('How it looked').selectOption('blocked');
  await dialog.getByLabel('Note').fill('It was worse than I first wrote');
  await dialog.getByRole('button', { name: 'Store the correction' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByRole('button', { name })).toHaveCount(0);

  await page.getByLabel('With undone and corrected').check();
  await expect(page.getByText('corrected', { exact: true })).toHaveCount(1);
});

test('an entry is undone and brought back', async ({ page, demo }) => {
  await page.goto(`${demo.address}log?kind=code`);
  await ready(page);
  const code = page.getByText('Code on the display: HEM-18');
  await expect(code).toHaveCount(1);
  await page.getByRole('button', { name: /^Undo: Code/ }).click();
  await expect(page.locator('section.day')).toHaveCount(0);
  await page.getByRole('button', { name: 'Bring it back' }).click();
  await expect(code.first()).toBeVisible();
});

test('loads of a past day and work done long ago are entered by hand, and the dates follow', async ({
  page,
  demo,
}) => {
  const studio = await machineCalled(demo, 'Studio washer');
  await page.goto(`${demo.address}log?machine=${studio.id}`);
  await ready(page);
  const dialog = page.getByRole('dialog');
  const enter = () => page.getByRole('button', { name: 'Enter something' }).click();

  await enter();
  await dialog.getByLabel('Machine').selectOption('Studio washer');
  await dialog.getByLabel('When', { exact: true }).fill('2026-01-05T10:00');
  await dialog.getByLabel('Loads', { exact: true }).fill('0');
  await dialog.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(dialog.getByText('Give a number from 1 to 50.')).toBeVisible();
  await dialog.getByLabel('Loads', { exact: true }).fill('4');
  await dialog.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(dialog).toHaveCount(0);

  await enter();
  await dialog.getByLabel('What', { exact: true }).selectOption('Work that was done');
  await dialog.getByLabel('Machine').selectOption('Studio washer');
  await dialog.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(dialog.getByText('This is needed here.')).toBeVisible();
  await dialog.getByLabel('Task').selectOption('Clean the softener cup and the agitator');
  await dialog.getByLabel('How it looked').selectOption('light');
  await dialog.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(dialog).toHaveCount(0);

  const kinds = async (kind: string) =>
    (
      await demo.api<{ entries: Record<string, unknown>[] }>(
        `entries?machine=${studio.id}&kind=${kind}&limit=200`,
      )
    ).entries;
  expect((await kinds('load')).find(({ count }) => count === 4)).toMatchObject({
    at: '2026-01-05T09:00:00.000Z',
    source: 'log',
  });
  expect((await kinds('done')).filter(({ source }) => source === 'log')).toHaveLength(1);
  const { states } = await demo.api<{
    states: { dues: { machineId: string; task: string; status: string }[] }[];
  }>('bench');
  expect(
    states
      .flatMap(({ dues }) => dues)
      .find(({ machineId, task }) => machineId === studio.id && task === 'softener-cup'),
  ).toMatchObject({
    status: 'fine',
  });
});

test('a visit is one line that opens, and is taken back as a whole', async ({ page, demo }) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  const run = await demo.api<{ id: string }>('runs', {
    tasks: ['pump-filter', 'gasket-folds'].map((task) => ({ machineId, task })),
  });
  const progress = {
    ...{ ticked: {}, readings: {}, timers: {}, fetched: [] },
    tasks: {
      [`${machineId}/pump-filter`]: { outcome: 'cleaned', grade: 2 },
      [`${machineId}/gasket-folds`]: { outcome: 'cleaned', grade: 1 },
    },
  };
  const { version } = await demo.api<{ version: number }>(`runs/${run.id}`);
  await page.goto(`${demo.address}log`);
  await page.evaluate(
    async ([id, at, body]) => {
      const json = { 'Content-Type': 'application/json' };
      const kept = await fetch(`/api/v1/runs/${id}`, {
        ...{ method: 'PATCH', headers: { ...json, 'If-Match': `"${at}"` } },
        body: JSON.stringify({ progress: body }),
      });
      if (!kept.ok) throw new Error(await kept.text());
      await fetch(`/api/v1/runs/${id}/finish`, { method: 'POST', headers: json, body: '{}' });
    },
    [run.id, version, progress] as const,
  );
  const visit = page.locator('li.visit').first();
  await expect(visit).toContainText('Visit, Cellar washer: 2 tasks');
  const filter = visit.getByText('Clean the pump filter').first();
  await expect(filter).toBeHidden();
  await visit.locator('summary').click();
  await expect(filter).toBeVisible();
  await visit.getByRole('button', { name: 'Undo the visit' }).click();
  await expect(page.getByText('The visit is undone. It is paused where it was.')).toBeVisible();
  await page.getByRole('button', { name: 'Go on with it' }).click();
  await expect(page).toHaveURL(new RegExp(`visit/${run.id}$`));
});
