import type { Document } from '@needlecase/core/model/documents';
import type { LifeView } from '@needlecase/core/views/life';
import { expect, machineCalled, test } from './house.js';
import { faultsIn, LOOKS } from './looks.js';

/* A machine along its life: its parts, what was replaced, its papers with their pages. */

const PAPER = Buffer.from('%PDF-1.7\n1 0 obj <<>> endobj\ntrailer <<>>\n%%EOF\n');

test('a part is replaced, with what it cost, and is no longer due', async ({ page, demo }) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  await page.goto(demo.address);
  await page.getByRole('link', { name: 'Fill hose of the Cellar washer' }).click();
  await expect(page.getByRole('heading', { name: 'Life of the Cellar washer' })).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.setViewportSize(LOOKS[0]!);
  await page.getByText('Fill hose', { exact: true }).click();
  await page.getByRole('button', { name: 'It was replaced' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByLabel('Part')).toHaveValue('fill-hose');
  await dialog.getByLabel('What it cost').fill('-5');
  await dialog.getByLabel('In', { exact: true }).fill('e1');
  await dialog.getByLabel('Why').fill('A bulge near the tap');
  await dialog.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(dialog.getByText('Give a number from 0')).toBeVisible();
  await expect(dialog.getByText('Give its three letters')).toBeVisible();
  expect((await demo.api<LifeView>(`machines/${id}/life`)).spent).toEqual([
    { amount: 11.9, currency: 'EUR' },
  ]);
  await dialog.getByLabel('What it cost').fill('14.5');
  await dialog.getByLabel('In', { exact: true }).fill('eur');
  await dialog.getByRole('button', { name: 'Store', exact: true }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByText(/14\.50 EUR: A bulge near the tap/)).toBeVisible();
  await expect(page.getByText('26.40 EUR for parts and calls so far.')).toBeVisible();
  await page.getByRole('link', { name: 'Bench', exact: true }).click();
  await expect(page.getByText('Warranty of the Top-floor dryer')).toBeVisible();
  await expect(page.getByText('Fill hose of the Cellar washer')).toHaveCount(0);
});

test('a manual is kept once, found by its name, and its page noted at an interval and a step', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar dryer');
  const papers = async () =>
    (await demo.api<Document[]>('documents')).filter(({ machineId }) => machineId === id);
  await page.goto(`${demo.address}machine/${id}/life`);
  const file = page.getByLabel('Manual or receipt');
  await file.setInputFiles({
    name: 'x.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.alloc(20_000_001),
  });
  await expect(page.getByText('It is larger than 20 MB.')).toBeVisible();
  await file.setInputFiles({
    name: 'page.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('<html>'),
  });
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/no PDF and no picture/)).toBeVisible();
  expect(await papers()).toEqual([]);
  await file.setInputFiles({
    name: 'Tumbling by Tarnhollow.pdf',
    mimeType: 'application/pdf',
    buffer: PAPER,
  });
  // The answer is lost: the same file goes once more, and is there once.
  let lost = false;
  await page.route('**/api/v1/documents/*/file?*', async (route) => {
    if (lost || route.request().method() !== 'PUT') return route.continue();
    lost = true;
    await route.fetch();
    await route.abort();
  });
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText(/cannot be reached/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Tumbling by Tarnhollow is kept.')).toBeVisible();
  expect(await papers()).toHaveLength(1);

  await page.getByLabel('Find anything').fill('tumbling');
  await page.getByRole('option', { name: /Tumbling by Tarnhollow/ }).click();
  await expect(page.locator('.marked')).toContainText('Tumbling by Tarnhollow');

  await page.goto(`${demo.address}machine/${id}/duct-run`);
  const noting = page.getByText('Note the page of its manual').first();
  await noting.click();
  const here = page.locator('nc-manual-page').first();
  await here.getByLabel('page').fill('nine');
  await here.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('Give a page from 1 to 5000.')).toBeVisible();
  await here.getByLabel('page').fill('31');
  await here.getByRole('button', { name: 'Keep it' }).click();
  const link = page.getByRole('link', { name: 'Tumbling by Tarnhollow, page 31' });
  await expect(link).toHaveAttribute('href', /\/api\/v1\/documents\/[0-9a-f-]+\/file#page=31$/);

  const run = await demo.api<{ id: string; version: number; progress: object }>('runs', {
    tasks: [{ machineId: id, task: 'duct-run' }],
  });
  const progress = { ...run.progress, at: `${id}/duct-run/look-in` };
  await demo.api(`runs/${run.id}`, { progress }, { 'If-Match': `"${run.version}"` }, 'PATCH');
  await page.goto(`${demo.address}visit/${run.id}`);
  await page.locator('nc-step').getByText('Note the page of its manual').click();
  await page.locator('nc-step').getByLabel('page').fill('32');
  await page.locator('nc-step').getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('link', { name: 'Tumbling by Tarnhollow, page 32' })).toBeVisible();

  await page.goto(`${demo.address}machine/${id}/life`);
  await page.getByRole('button', { name: 'Take away: Tumbling by Tarnhollow' }).click();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await expect(page.getByText('Tumbling by Tarnhollow is taken away.')).toBeVisible();
  expect(await papers()).toEqual([]);
  await page.goto(`${demo.address}machine/${id}/duct-run`);
  await expect(page.getByRole('heading', { name: 'Brush the duct run through' })).toBeVisible();
  await expect(page.getByText('page 31')).toHaveCount(0);
});

test('another edition of a sheet of codes is looked at beside ours, and taken over row by row', async ({
  page,
  demo,
}) => {
  const edition = {
    ...{ format: 'needlecase-code-sheet-1', maker: 'Fennowick', family: 'Loop 7 front loaders' },
    kinds: ['front-load-washer'],
    rows: [
      { code: 'HEM 18', says: 'Not pumped out within three minutes', class: 'drain' },
      { code: 'ZIG-77', says: 'Tub too full', class: 'fill' },
    ],
  };
  // Whoever is quicker than the server is told the same.
  let go = (): void => undefined;
  const held = new Promise<void>((done) => (go = done));
  await page.route('**/api/v1/code-sheets', async (route) => {
    if (route.request().method() === 'GET') await held;
    await route.continue();
  });
  await page.goto(`${demo.address}house/codes`);
  await page.getByLabel('Import a file').setInputFiles({
    ...{ name: 'edition-2.json', mimeType: 'application/json' },
    buffer: Buffer.from(JSON.stringify(edition)),
  });
  go();
  await expect(
    page.getByText(/1 code only in the file, 8 codes only in yours, 1 differs/),
  ).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.setViewportSize(LOOKS[0]!);
  await page.getByLabel('Take over HEM 18').uncheck();
  await page.getByRole('button', { name: 'Take 1 row over' }).click();
  const table = page.getByRole('region', { name: 'Codes of Fennowick' });
  await expect(table.getByText('Tub too full')).toBeVisible();
  await expect(table.getByText('Water not pumped out in time')).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(table.getByText('Tub too full')).toHaveCount(0);
  const coming = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Print the sheet Fennowick for the wall' }).click();
  expect((await coming).suggestedFilename()).toBe('codes.pdf');
});

test('the record is printed for somebody, of days, with what is theirs to know', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}log/take`);
  await page.getByLabel('For', { exact: true }).selectOption('a buyer');
  await expect(
    page.getByText('Left out: your notes, what things cost, where your valves'),
  ).toBeVisible();
  await page.getByLabel('When').selectOption('the last year');
  const link = page.getByRole('link', { name: 'Cellar dryer' });
  await expect(link).toHaveAttribute('href', /for=buyer&from=\d{4}-\d\d-\d\d$/);
  const coming = page.waitForEvent('download');
  await link.click();
  expect((await coming).suggestedFilename()).toBe('cellar-dryer.pdf');
});

test('two tabs: what one notes the other sees, and neither undoes the other’s page', async ({
  page,
  context,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  const address = `${demo.address}machine/${id}/pump-filter`;
  const second = await context.newPage();
  await page.goto(address);
  await second.goto(address);
  const note = async (tab: typeof page, number: string, nth: number) => {
    const here = tab.locator('nc-manual-page').nth(nth);
    await here.locator('summary').click();
    await here.getByLabel('page').fill(number);
    await here.getByRole('button', { name: 'Keep it' }).click();
  };
  await note(page, '11', 0);
  await expect(page.getByRole('link', { name: /, page 11$/ })).toBeVisible();
  await expect(second.getByRole('link', { name: /, page 11$/ })).toBeVisible();
  await note(second, '12', 1);
  await expect(page.getByRole('link', { name: /, page 12$/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /, page 11$/ })).toBeVisible();
});
