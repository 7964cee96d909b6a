import type { CaseRecord, Entry, Visit } from '@needlecase/core';
import { bySense, expect, goTo, keptWhole, machineCalled, test, type House } from './house.js';

test.use({ serviceWorkers: 'allow' });

/** The visit's entries on the server, newest first. */
const entriesOf = async (house: House, run: string): Promise<Entry[]> => {
  const { entries } = await house.api<{ entries: Entry[] }>('entries?limit=200&all=true');
  return entries.filter(({ runId }) => runId === run);
};

test('a visit goes on without a connection, through a shut tab, and is recorded once on return', async ({
  demo,
  context,
}) => {
  test.slow();
  const washer = await machineCalled(demo, 'Cellar washer');
  const visit = await demo.api<Visit>('runs', {
    tasks: [{ machineId: washer.id, task: 'gasket-folds' }],
  });
  let page = await context.newPage();
  await page.goto(demo.address);
  await keptWhole(page);
  // What was read under the worker's eyes is at hand later.
  await page.reload();
  await page
    .getByRole('button', { name: /Count a load/ })
    .first()
    .waitFor();
  await page.goto(`${demo.address}visit/${visit.id}`);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  await page.getByRole('button', { name: 'Done, next' }).click();
  await expect(page.getByText('step 2 of')).toBeVisible();

  await demo.kill();
  await page.getByRole('button', { name: 'Done, next' }).click();
  await expect(page.getByText('kept on this device, not sent yet')).toBeVisible();
  await page.close();

  page = await context.newPage();
  await page.goto(`${demo.address}visit/${visit.id}`);
  await expect(page.getByText('step 3 of')).toBeVisible();
  await page.reload();
  await expect(page.getByText('step 3 of')).toBeVisible();
  await goTo(page, 'Note how dirty it is');
  await page.getByRole('radio', { name: /moderate/ }).check({ force: true });
  await goTo(page, 'Mould or film left');
  await page.getByRole('button', { name: /^Mould remover with chlorine/ }).click();
  await goTo(page, 'run a rinse');
  await page.getByRole('button', { name: 'A full rinse has run to its end' }).click();
  await goTo(page, 'Is this right?');
  await page.getByRole('button', { name: 'Finish and record' }).click();
  await expect(page.getByRole('heading', { name: 'Done, and kept on this device' })).toBeVisible();
  await page.getByText('3 not sent yet').click();
  await expect(page.getByText(/Used: mould remover with chlorine/)).toBeVisible();
  await expect(page.getByRole('link', { name: /Visit begun/ })).toBeVisible();
  await page.close();

  // The tab that comes back is another page of the application.
  page = await context.newPage();
  await page.goto(`${demo.address}log`);
  await expect(page.getByText('3 not sent yet')).toBeVisible();
  await demo.start();
  // A try whose answer is lost on the way is given up after 12 s, and made again 3 s later.
  await expect(page.getByText('not sent yet')).toBeHidden({ timeout: 40_000 });

  const recorded = await entriesOf(demo, visit.id);
  expect(recorded.map(({ kind, task, grade }) => [kind, task, grade])).toEqual([
    ['proof', 'gasket-folds', undefined],
    ['done', 'gasket-folds', 2],
  ]);
  const { entries } = await demo.api<{ entries: Entry[] }>(
    `entries?limit=200&machine=${washer.id}`,
  );
  const guard = entries.filter(({ kind }) => kind === 'chemical' || kind === 'rinse');
  expect(guard.map(({ kind, product }) => product ?? kind).sort()).toEqual([
    'mould-bleach',
    'rinse',
  ]);
  expect((await demo.api<Visit>(`runs/${visit.id}`)).state).toBe('finished');
});

test('can be installed: a manifest with icons, and a worker that keeps the application', async ({
  demo,
  page,
}) => {
  await page.goto(demo.address);
  const manifest = await page.evaluate(async () => {
    const link = document.querySelector<HTMLLinkElement>('link[rel=manifest]')!;
    return (await fetch(link.href)).json() as Promise<{
      display: string;
      icons: { src: string; sizes: string }[];
    }>;
  });
  expect(manifest.display).toBe('standalone');
  for (const { src } of manifest.icons) {
    expect((await page.request.get(demo.address + src)).ok(), src).toBe(true);
  }
  const scope = await page.evaluate(async () => (await navigator.serviceWorker.ready).scope);
  expect(scope).toBe(demo.address);
});

test('trouble is told without a connection, and is on the server once when it is back', async ({
  demo,
  context,
}) => {
  test.slow();
  let page = await context.newPage();
  await page.goto(demo.address);
  await keptWhole(page);
  await page.reload();
  await page
    .getByRole('button', { name: /Count a load/ })
    .first()
    .waitFor();
  await demo.kill();
  await page.getByRole('link', { name: 'Trouble', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'What is it?', level: 1 })).toBeVisible();
  await bySense(page, 'See');
  await page.getByRole('button', { name: 'It drains slowly: Studio washer' }).click();
  await page.getByRole('button', { name: 'None of these' }).click();
  await expect(page.locator('nc-suspects li').first()).toBeVisible();
  await bySense(page, 'Hear');
  await page.getByRole('button', { name: 'The drain gurgles' }).dblclick();
  // It is safe on the device once it is counted here.
  await expect(page.getByText('3 not sent yet')).toBeVisible();
  const address = page.url();
  await page.close();

  page = await context.newPage();
  await page.goto(address);
  await expect(page.getByText('3 not sent yet')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'It drains slowly' })).toBeVisible();
  await demo.start();
  await expect(page.getByText('not sent yet')).toHaveCount(0, { timeout: 15_000 });
  const cases = await demo.api<CaseRecord[]>('cases');
  const { events } = cases.find(({ id }) => address.endsWith(id))!;
  expect(events.map((one) => ('finding' in one ? one.finding : one.kind))).toEqual([
    'drains-slowly',
    'no-stop',
    'gurgle',
  ]);
});

test('a paper that was opened is there without a connection; files are never given out of what was kept', async ({
  demo,
  page,
}) => {
  const [paper] = await demo.api<{ id: string }[]>('documents');
  await page.goto(demo.address);
  await keptWhole(page);
  await page.reload();
  await page
    .getByRole('button', { name: /Count a load/ })
    .first()
    .waitFor();
  const asked = (path: string) =>
    page.evaluate(
      (at) =>
        fetch(at).then(
          async (answer) => `${answer.status} ${(await answer.text()).slice(0, 5)}`,
          () => 'not there',
        ),
      `/api/v1/${path}`,
    );
  const file = `documents/${paper!.id}/file`;
  expect(await asked(file)).toBe('200 %PDF-');
  expect(await asked('loads.csv')).toMatch(/^200/);
  expect(await asked('record.json?pictures=false')).toMatch(/^200/);
  await demo.kill();
  expect(await asked(file)).toBe('200 %PDF-');
  expect(await asked('bench')).toMatch(/^200/);
  for (const path of ['loads.csv', 'record.json?pictures=false']) {
    expect(await asked(path), path).toMatch(/^(504|not there)/);
  }
});
