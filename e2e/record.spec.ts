import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { Entry } from '@needlecase/core';
import { expect, machineCalled, test, type House } from './house.js';
import { faultsIn, LOOKS } from './looks.js';

/* The record: looked at as charts, taken along in open files, and fed from old notes. */

const entriesOf = async (house: House, query = ''): Promise<Entry[]> =>
  (await house.api<{ entries: Entry[] }>(`entries?limit=200${query}`)).entries;

/** Notes that were taken in, as they stand. */
async function importedIn(house: House): Promise<Entry[]> {
  const { entries } = await house.api<{ entries: Entry[] }>('record.json?pictures=false');
  const gone = new Set(entries.map(({ revises }) => revises));
  return entries.filter(
    ({ id, kind, source }) => source === 'import' && kind !== 'undone' && !gone.has(id),
  );
}

async function saved(page: Page, name: string | RegExp): Promise<string> {
  const file = page.waitForEvent('download');
  await page.getByRole('link', { name }).click();
  return readFileSync(await (await file).path(), 'utf8');
}

test('the record is taken along: a table of a machine and a time, a calendar, all of it as JSON', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar washer');
  await page.goto(`${demo.address}log`);
  await page.getByRole('link', { name: 'Take it along' }).click();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.setViewportSize(LOOKS[0]!);
  const all = (await saved(page, 'Everything that happened')).split('\r\n').length;
  await page.getByLabel('Of', { exact: true }).selectOption({ label: 'Cellar washer' });
  await page.getByLabel('When').selectOption('the last year');
  const some = await saved(page, 'Everything that happened');
  expect(some.split('\r\n').length).toBeLessThan(all);
  expect(some).toContain(id);
  expect(some).not.toContain('Cellar dryer');
  await page.getByLabel('When').selectOption('from one day to another');
  await page.getByLabel('First day').fill('2026-03-02');
  await page.getByLabel('Last day').fill('2026-03-01');
  await page.getByLabel('Last day').blur();
  await expect(page.getByText('The last day is before the first.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Loads' })).toHaveCount(0);
  await page.getByLabel('When').selectOption('from the beginning');
  expect(await saved(page, 'What was done')).toContain('BEGIN:VEVENT');
  const record = JSON.parse(await saved(page, 'JSON without pictures')) as { entries: Entry[] };
  expect(record.entries.length).toBeGreaterThan(100);
});

test('a record as JSON is taken in again on a server that holds nothing yet', async ({
  page,
  demo,
  empty,
}) => {
  await page.goto(`${demo.address}log/take`);
  const text = await saved(page, 'JSON, with its photos');
  await page.goto(empty.address);
  await page.getByRole('link', { name: 'Have you a backup?' }).click();
  await page.setInputFiles('input[type=file]', {
    ...{ name: 'needlecase-record.json', mimeType: 'application/json', buffer: Buffer.from(text) },
  });
  await expect(page.getByRole('heading', { name: /is whole/ })).toBeVisible();
  await page.getByRole('button', { name: 'Put it back' }).click();
  await page.getByRole('button', { name: 'Go to the bench' }).click();
  await expect(page.getByRole('button', { name: /Count a load/ }).first()).toBeVisible();
  expect(await entriesOf(empty, '&all=true')).toEqual(await entriesOf(demo, '&all=true'));
});

test('old notes are looked at before they are kept, once, and taken back by one tap', async ({
  page,
  demo,
}) => {
  const imported = () => importedIn(demo);
  await page.goto(`${demo.address}log`);
  await page.getByRole('link', { name: 'Bring old notes in' }).click();
  await page.getByRole('button', { name: 'Look at them' }).click();
  await expect(page.getByText('Paste some lines, or choose a file.')).toBeVisible();
  const lines = [
    'When;Which;What',
    '3/4/2019;Cellar washer;Pump filter cleaned, two coins',
    '5/6/2019;Cellar dryer;brushed the vent pipe',
    '6/6/2019;;washed the lint screen',
    'some day;Cellar washer;descaled',
    '7/6/2019;Cellar washer;=HYPERLINK("http://x.example")',
  ].join('\n');
  await page.getByLabel('Paste lines here').fill(lines);
  await page.getByRole('button', { name: 'Look at them' }).click();
  await expect(page.getByText('can be read two ways')).toBeVisible();
  await page.getByLabel('Dates have').selectOption('the day first');
  await expect(page.getByRole('heading', { name: 'To be looked at: 1' })).toBeVisible();
  await expect(page.getByText('In doubt: which machine')).toBeVisible();
  await expect(page.getByText('“some day” is no date.')).toBeVisible();
  expect(await imported()).toEqual([]);
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.setViewportSize(LOOKS[0]!);
  await page.getByLabel('Machine of line 4').selectOption({ label: 'Top-floor dryer' });
  await expect(page.getByRole('heading', { name: /To be looked at/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Keep 4 notes' }).dblclick();
  await expect(page.getByText('4 notes came in.')).toBeVisible();
  const kept = await imported();
  expect(kept).toHaveLength(4);
  const filter = kept.find(({ task }) => task === 'pump-filter')!;
  expect(filter.at.slice(0, 10)).toBe('2019-04-03');
  expect(kept.find(({ task }) => task === 'duct-run')!.kind).toBe('done');
  expect(kept.some(({ note }) => note?.startsWith('=HYPERLINK'))).toBe(true);

  // The same once more adds nothing.
  await page.goto(`${demo.address}log/bring`);
  await page.locator('input[type="file"]').setInputFiles({
    ...{ name: 'notes.csv', mimeType: 'text/csv', buffer: Buffer.from(lines) },
  });
  await page.getByLabel('Dates have').selectOption('the day first');
  await page.getByLabel('Machine of line 4').selectOption({ label: 'Top-floor dryer' });
  await page.getByRole('button', { name: 'Keep 4 notes' }).click();
  await expect(page.getByText('0 notes came in, 4 were there before.')).toBeVisible();
  expect(await imported()).toHaveLength(4);
});

test('taking old notes back takes all of them', async ({ page, demo }) => {
  await page.goto(`${demo.address}log/bring`);
  await page
    .getByLabel('Paste lines here')
    .fill('2019-04-03;Cellar washer;Pump filter cleaned\n2019-05-03;Cellar washer;Descaled');
  await page.getByRole('button', { name: 'Look at them' }).click();
  await page.getByRole('button', { name: 'Keep 2 notes' }).click();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('2 notes taken back.')).toBeVisible();
  expect(await importedIn(demo)).toEqual([]);
});

test('a file of a million lines, and one that is none, are told so and take no time', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}log/bring`);
  const million = Buffer.from('2019-04-03;Cellar washer;Pump filter cleaned\n'.repeat(1_000_000));
  await page
    .locator('input[type="file"]')
    .setInputFiles({ name: 'notes.csv', mimeType: 'text/csv', buffer: million });
  await expect(page.getByText('Only the first 5000 lines are looked at')).toBeVisible();
  await page.getByRole('button', { name: 'Take other notes' }).click();
  await page.locator('input[type="file"]').setInputFiles({
    ...{ name: 'photo.csv', mimeType: 'text/csv', buffer: Buffer.from([0x89, 0x50, 0, 0, 0, 1]) },
  });
  await expect(page.getByText('This is no text: save it as CSV first.')).toBeVisible();
});

test('figures stand as charts with what was done to the machine, two side by side, and as a table', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}log`);
  await page.getByRole('link', { name: 'Charts' }).click();
  await expect(page.locator('nc-record-chart .thread')).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.setViewportSize(LOOKS[0]!);
  await page.getByLabel('Machine').selectOption({ label: 'Cellar dryer' });
  await expect(page.getByRole('heading', { name: /Cellar dryer: / })).toBeVisible();
  await page.getByLabel('How much at once').selectOption('a year');
  await page.getByRole('button', { name: 'Earlier' }).click();
  await expect(page).toHaveURL(/~1y~time~183/);
  await page.getByLabel('Keep this question as').fill('Dryer, a year');
  await page.getByRole('button', { name: 'Keep this question' }).click();
  await page.getByRole('button', { name: 'Another beside it' }).click();
  await expect(page.locator('nc-record-chart')).toHaveCount(2);
  await page.getByText('As a table').first().click();
  await expect(page.getByRole('columnheader', { name: 'When' }).first()).toBeVisible();
  await page.goto(`${demo.address}log/charts`);
  await page.getByRole('button', { name: 'Dryer, a year', exact: true }).click();
  await expect(page.getByRole('heading', { name: /Cellar dryer: / })).toBeVisible();
});

test('words are sought in notes and finds', async ({ page, demo }) => {
  await page.goto(`${demo.address}log`);
  const sought = page.getByRole('searchbox', { name: 'Words in notes and finds' });
  await sought.fill('impeller plug');
  await sought.press('Enter');
  await expect(page.getByText('A plug of felt and fluff')).toBeVisible();
  await expect(page.locator('nc-log li')).toHaveCount(1);
  await sought.fill('100%_nothing');
  await sought.press('Enter');
  await expect(page.getByText('Nothing like that has been noted yet.')).toBeVisible();
});

test('photos of a station stand through time, two over each other with a seam', async ({
  page,
  demo,
}) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  await page.goto(`${demo.address}log/pictures`);
  await expect(page.getByText('No photos here yet.')).toBeVisible();
  for (const [i, colour] of ['#456', '#864'].entries()) {
    const id = `00000000-0000-4000-8000-00000000000${i}`;
    await page.evaluate(
      async ([address, fill]) => {
        const canvas = new OffscreenCanvas(640, 480);
        const on = canvas.getContext('2d')!;
        on.fillStyle = fill!;
        on.fillRect(0, 0, 640, 480);
        const body = await canvas.convertToBlob({ type: 'image/jpeg' });
        await fetch(address!, { method: 'PUT', body, headers: { 'Content-Type': 'image/jpeg' } });
      },
      [`/api/v1/photos/${id}`, colour],
    );
    const at = new Date(Date.now() - (2 - i) * 86_400_000).toISOString();
    const work = { kind: 'done', task: 'pump-filter', machineId, at, photos: [id] };
    await demo.api('entries', work);
  }
  await page.goto(`${demo.address}log/pictures?machine=${machineId}&station=pump-filter`);
  await expect(page.locator('.pair img')).toHaveCount(2);
  await expect(page.locator('nc-pictures li img')).toHaveCount(2);
  const slider = page.getByRole('slider');
  await slider.fill('20');
  await expect(page.locator('.pair .before')).toHaveAttribute('style', /80%/);
  await page
    .getByRole('button', { name: /^Left: / })
    .last()
    .click();
  await expect(page.getByRole('button', { name: /^Left: / }).last()).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  expect(await faultsIn(page, LOOKS)).toEqual([]);
});

test('a year of care tells who worked how long, and what each month cost', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}log`);
  await page.getByRole('link', { name: 'A year of care' }).click();
  await expect(page.getByText(/at work in fifty-three weeks/)).toBeVisible();
  expect(await page.locator('nc-year .stitch').count()).toBeGreaterThan(20);
  await expect(page.getByRole('rowheader').first()).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
});

const PAGES = [
  ['log/charts', '**/machines/*/charts'],
  ['log/year', '**/api/v1/year'],
  ['log/pictures', '**/entries?photos*'],
  ['machine/any/life', '**/machines/*/life'],
] as const;

for (const [address, asked] of PAGES) {
  test(`${address}: an answer that is a sign-in page, and none at all, are told in words`, async ({
    page,
    demo,
  }) => {
    const html = { status: 200, contentType: 'text/html', body: '<html>Sign in</html>' };
    await page.route(asked, (route) => route.fulfill(html));
    await page.goto(demo.address + address);
    await expect(page.getByRole('alert')).toBeVisible();
    await expect(page.getByRole('alert')).not.toContainText(/undefined|SyntaxError|\[object/);
    await page.unroute(asked);
    await page.route(asked, (route) => route.abort());
    await page.goto(demo.address + address);
    await expect(page.getByRole('alert')).toContainText(/reach/i);
  });
}

test('absurd addresses of a chart show what there is', async ({ page, demo }) => {
  const wrong: Error[] = [];
  page.on('pageerror', (error) => wrong.push(error));
  const { id } = await machineCalled(demo, 'Cellar dryer');
  for (const a of [
    `${id}~drying-minutes~2y~time~1e308`,
    `${id}~drying-minutes~3m~loads~-5`,
    'nobody~nothing~never~where~x',
    '~~~~',
    encodeURIComponent('%00<script>'),
  ]) {
    await page.goto(`${demo.address}log/charts?a=${a}&b=${a}`);
    await expect(page.locator('nc-record-chart svg').first(), a).toBeVisible();
  }
  // However often one goes back, one does not leave the record behind.
  await page.goto(`${demo.address}log/charts?a=${id}~drying-minutes~3m~time~0`);
  const earlier = page.getByRole('button', { name: 'Earlier' });
  for (let i = 0; i < 15; i++) await earlier.click();
  await expect(page.locator('nc-record-chart .dot').first()).toBeVisible();
  expect(wrong).toEqual([]);
});

test('notes whose answer is lost are kept once, and what stays out says so in a second tab, too', async ({
  page,
  context,
  demo,
}) => {
  const lines = '2019-04-03;Cellar washer;Pump filter cleaned\n2019-05-03;;3 loads';
  const bring = async (tab: Page) => {
    await tab.goto(`${demo.address}log/bring`);
    await tab.getByLabel('Paste lines here').fill(lines);
    await tab.getByRole('button', { name: 'Look at them' }).click();
  };
  await bring(page);
  // What wants a machine is not right without one; with one it is loads as before.
  await expect(page.getByRole('button', { name: /doubtful ones/ })).toHaveCount(0);
  await page.getByLabel('Machine of line 2').selectOption({ label: 'Studio washer' });
  await expect(page.getByText('Studio washer: 3 loads counted')).toBeVisible();
  await page.route('**/old-notes', async (route) => {
    await route.fetch();
    await route.abort();
  });
  await page.getByRole('button', { name: 'Keep 2 notes' }).click();
  await expect(page.getByRole('alert')).toBeVisible();
  await page.unroute('**/old-notes');
  await page.getByRole('button', { name: 'Keep 2 notes' }).click();
  await expect(page.getByText('2 notes came in')).toBeVisible();
  expect(await importedIn(demo)).toHaveLength(2);
  const second = await context.newPage();
  await bring(second);
  await second.getByLabel('Machine of line 2').selectOption({ label: 'Studio washer' });
  await second.getByRole('button', { name: 'Leave line 1 out' }).click();
  await second.getByRole('button', { name: 'Keep 1 note' }).click();
  await expect(second.getByText('0 notes came in, 1 was there before')).toBeVisible();
  expect(await importedIn(demo)).toHaveLength(2);
});

test('on paper, pages are dark on white, whole, and without what is pressed', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar dryer');
  await page.emulateMedia({ colorScheme: 'dark' });
  for (const [path, drawn] of [
    ['log/charts', 'nc-record-chart .thread'],
    ['log/year', 'nc-year .stitch'],
    [`machine/${id}/life`, 'nc-part-row svg'],
  ] as const) {
    await page.goto(demo.address + path);
    await expect(page.locator(drawn).first()).toBeVisible();
    await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark');
    await page.emulateMedia({ media: 'print', colorScheme: 'dark' });
    await expect(page.locator(drawn).first()).toBeVisible();
    const seen = await page.evaluate(() => ({
      ink: getComputedStyle(document.querySelector('h1')!).color,
      paper: getComputedStyle(document.body).backgroundColor,
      pressed: [...document.querySelectorAll('button, select, nav, input')].filter((one) =>
        one.checkVisibility(),
      ).length,
      cut: [...document.querySelectorAll('[role="group"], [role="region"]')].filter(
        (one) => getComputedStyle(one).overflowX !== 'visible',
      ).length,
    }));
    expect(seen, path).toEqual({
      ...{ ink: 'rgb(34, 42, 85)', pressed: 0, cut: 0 },
      paper: expect.stringMatching(/^rgba?\((255, 255, 255|0, 0, 0, 0)/) as unknown as string,
    });
    await page.emulateMedia({ media: 'screen', colorScheme: 'dark' });
  }
});
