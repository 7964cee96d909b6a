import { deflateRawSync } from 'node:zlib';
import { randomLcg } from 'd3-random';
import type { Page } from '@playwright/test';
import { standInLog } from '@needlecase/core/loads/stand-in/log';
import type { Entry, Household, MeterView } from '@needlecase/core';
import { expect, machineCalled, test, type House } from './house.js';
import { faultsIn, LOOKS } from './looks.js';

/* A meter's file, taken in: the worker reads it, the page asks, the server keeps it whole or not at all. */

const DAY = 86_400_000;
const log = standInLog({
  ...{ kinds: ['cotton', 'quick', 'hot'], loads: 12, every: 10, noise: 1 },
  ...{ from: Date.now() - 12 * DAY, random: randomLcg(0.37) },
});
const csv = (rows: readonly string[]) => ({
  name: 'plug.csv',
  mimeType: 'text/csv',
  buffer: Buffer.from(`time,power\n${rows.join('\n')}\n`),
});
const ROWS = log.samples
  .filter(({ at }) => at < Date.now())
  .map(({ at, watts }) => `${new Date(at).toISOString().slice(0, 19)}Z,${watts.toFixed(1)}`);
const LOADS = log.loads.filter(({ to }) => to < Date.now()).length;

async function choose(page: Page, house: House, file: ReturnType<typeof csv>): Promise<string> {
  const { id } = await machineCalled(house, 'Studio washer');
  await page.goto(`${house.address}machine/${id}/meter`);
  await page.locator('input[type="file"]').setInputFiles(file);
  return id;
}
const read = (page: Page) => page.getByRole('button', { name: 'That is right: read it' }).click();
const loadsOf = async (house: House, id: string): Promise<Entry[]> =>
  (await house.api<{ entries: Entry[] }>(`entries?machine=${id}&kind=load&limit=200`)).entries;

test('a file is looked at, read, and kept; its loads are counted once, however often it comes', async ({
  page,
  demo,
}) => {
  const id = await choose(page, demo, csv(ROWS));
  const before = (await loadsOf(demo, id)).length;
  await expect(page.getByRole('row').nth(1)).toContainText(`${log.samples[0]!.watts.toFixed(1)} W`);
  await read(page);
  await expect(page.getByText(`${LOADS} loads in`)).toBeVisible();
  expect(await loadsOf(demo, id)).toHaveLength(before);
  await page.getByRole('button', { name: 'Keep them' }).click();
  await expect(page.getByText(`${LOADS} loads came in`)).toBeVisible();
  const met = (await loadsOf(demo, id)).filter(({ source }) => source === 'meter');
  expect(met).toHaveLength(LOADS);

  // The day is drawn with its loads; one that is opened tells what it was.
  const { zone } = await demo.api<Household>('household');
  const day = new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(Date.parse(met[3]!.at));
  const shown = await demo.api<MeterView>(`machines/${id}/meter?day=${day}`);
  await page.getByLabel('Day', { exact: true }).fill(day);
  await expect(page.locator('nc-power-day .stitch')).toHaveCount(shown.loads.length);
  await page.locator('nc-meter li .row').filter({ hasText: 'kWh' }).first().click();
  await expect(page.getByText(/motor alone \d+ min/)).toBeVisible();
  const counted = (await loadsOf(demo, id)).length;

  await page.locator('input[type="file"]').setInputFiles(csv(ROWS));
  await read(page);
  await page.getByRole('button', { name: 'Keep them' }).click();
  await expect(page.getByText(`0 loads came in, ${LOADS} were known.`)).toBeVisible();
  expect(await loadsOf(demo, id)).toHaveLength(counted);
});

test('what came in is taken back in one tap, and what was no load is struck out', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Studio washer');
  const before = await loadsOf(demo, id);
  await choose(page, demo, csv(ROWS));
  await read(page);
  await page.getByRole('button', { name: 'Keep them' }).click();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText(/loads taken back/)).toBeVisible();
  const after = await loadsOf(demo, id);
  const told = (all: Entry[]) => all.map(({ at, count = 1 }) => `${at} ${count}`).sort();
  expect(told(after)).toEqual(told(before));
});

test('a broken file is told by its lines; one that is written in two ways is not taken at all', async ({
  page,
  demo,
}) => {
  const broken = [...ROWS.slice(0, 3000), '2026-13-45,oops', '\0\0\0', ...ROWS.slice(3000)];
  const id = await choose(page, demo, csv(broken));
  await read(page);
  await expect(page.getByText('2 lines of')).toBeVisible();
  await expect(page.getByText('line 3002: there is no time in it')).toBeVisible();
  const other = ROWS.map((row, i) => (i < 500 ? row : row.replace(',', ';').replaceAll('-', '/')));
  await page.locator('input[type="file"]').setInputFiles(csv(other));
  await read(page);
  await expect(page.getByText('too much to trust the rest')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep them' })).toHaveCount(0);
  await page
    .locator('input[type="file"]')
    .setInputFiles({ ...csv([]), buffer: Buffer.from('hello') });
  await expect(page.getByText('No column of times and none of figures')).toBeVisible();
  expect((await demo.api<MeterView>(`machines/${id}/meter`)).watts).toEqual([]);
});

test('a file of two bytes a letter is read; reading is stopped at once', async ({ page, demo }) => {
  const text = csv(ROWS.slice(0, 20_000)).buffer.toString();
  const wide = Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]);
  await choose(page, demo, { ...csv([]), buffer: wide });
  await read(page);
  await expect(page.getByRole('button', { name: 'Keep them' })).toBeVisible();
  const long = csv(
    Array.from({ length: 20 }, () => ROWS)
      .flat()
      .slice(0, 900_000),
  );
  await page.locator('input[type="file"]').setInputFiles(long);
  await read(page);
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('progressbar')).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'That is right: read it' })).toBeVisible();
});

test('the meter’s page is clean in each look, with a day and with a file that is understood', async ({
  page,
  demo,
}) => {
  await page.setViewportSize(LOOKS[0]!);
  await choose(page, demo, csv(ROWS));
  await read(page);
  await expect(page.getByRole('button', { name: 'Keep them' })).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.getByRole('button', { name: 'Keep them' }).click();
  await expect(page.locator('nc-power-day')).toBeVisible();
  await page
    .locator('.btn-close, [aria-label="Dismiss"]')
    .first()
    .click()
    .catch(() => undefined);
  expect(await faultsIn(page, LOOKS)).toEqual([]);
});

test('that drying got slower stands on the bench, and leads to a case that knows of it', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Cellar dryer');
  const day = new Date(Date.now() - 100 * DAY).toISOString().slice(0, 10);
  const packed = deflateRawSync(Buffer.alloc(2880)).toString('base64');
  const loads = Array.from({ length: 48 }, (_, i) => {
    const from = Date.now() - (98 - 2 * i) * DAY;
    const minutes = 60 * (i < 32 ? 1 : 1.4) * (1 + 0.04 * Math.sin(7 * i));
    return {
      ...{
        from: new Date(from).toISOString(),
        to: new Date(from + minutes * 60_000).toISOString(),
      },
      ...{ wattHours: 2000, peak: 2100, heating: 50, motor: 10, idle: 0, unread: 0 },
    };
  });
  await demo.api(`machines/${id}/meter`, { loads, days: [{ day, minutes: packed }] });
  await page.goto(demo.address);
  const signal = page.locator('nc-signal');
  await expect(signal).toContainText(/Cellar dryer: drying takes \d+.% longer since/);
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.setViewportSize(LOOKS[0]!);
  await signal.getByRole('link', { name: 'Look for the cause' }).click();
  await page.getByRole('button', { name: 'None of these' }).click();
  await expect(page.locator('nc-suspects li').first()).toBeVisible();
  await expect(page.getByText('Drying got slower over weeks or months').first()).toBeVisible();

  // It stands wherever the machine does: with a loop of its thread where it most likely comes from.
  await page.goto(`${demo.address}trouble`);
  await expect(page.locator('nc-signal')).toContainText('Cellar dryer: drying takes');
  await page.goto(`${demo.address}machine/${id}`);
  await expect(page.locator('nc-line .snag')).toHaveCount(1);
  await expect(page.getByRole('link', { name: 'its meter' })).toBeVisible();
  await expect(page.getByRole('button', { name: /by the meter, drying takes/ })).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.goto(`${demo.address}machine/${id}/meter`);
  await expect(
    page.getByText(/Since .*: Drying took \d+ % longer for the same energy/),
  ).toBeVisible();

  // Who knows why is asked once, and is not told again; taken back, it stands as before.
  await page.goto(demo.address);
  await signal.getByRole('button', { name: 'I know why' }).click();
  await signal.getByRole('button', { name: 'Note it' }).click();
  await expect(signal).toContainText('Say why, in a word or two.');
  await signal.getByLabel('Why does it take longer?').fill('Guests');
  await signal.getByRole('button', { name: 'Note it' }).dblclick();
  await expect(page.getByText('It is told again only if it changes once more.')).toBeVisible();
  await expect(signal).toHaveCount(0);
  const noted = await demo.api<{ entries: Entry[] }>(`entries?machine=${id}&kind=explained`);
  expect(noted.entries).toHaveLength(1);
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(signal).toBeVisible();
});

test('a load is called by its programme, parted and joined by hand; how a file is written is remembered', async ({
  page,
  demo,
}) => {
  // In kilowatts, which nothing in it tells.
  const thousandth = ROWS.map((row) => {
    const [at, watts] = row.split(',');
    return `${at},${(Number(watts) / 1000).toFixed(4)}`;
  });
  const id = await choose(page, demo, csv(thousandth));
  await page.getByLabel('Its figures are').selectOption('kW');
  await read(page);
  await page.getByRole('button', { name: 'Keep them' }).click();
  await expect(page.locator('nc-power-day')).toBeVisible();
  await page.locator('input[type="file"]').setInputFiles(csv(thousandth));
  await expect(page.getByLabel('Its figures are')).toHaveValue('kW');

  const loads = (await loadsOf(demo, id)).filter(({ source }) => source === 'meter');
  const { zone } = await demo.api<Household>('household');
  const dayOf = (at: string) =>
    new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(Date.parse(at));
  const day = dayOf(loads[4]!.at);
  await page.getByLabel('Day', { exact: true }).fill(day);
  await expect(page.locator('#day-title')).toHaveText(new RegExp(`^${Number(day.slice(8))} `));
  const rows = page.locator('nc-meter li .row').filter({ hasText: 'kWh' });
  await rows.first().click();
  await page.getByLabel('Its programme').fill('Towels 60');
  // Twice at once, as an unsure thumb does it.
  await page
    .getByRole('button', { name: 'Call it so' })
    .evaluate((button: HTMLButtonElement) => [1, 2].forEach(() => button.click()));
  await expect(page.getByText('Called Towels 60')).toBeVisible();
  // Its kind is called so, too, among what the loads take.
  const kinds = page.getByRole('region', { name: 'What its loads take, by kind' });
  await expect(kinds.getByText('Towels 60')).toBeVisible();
  await expect(rows.first()).toContainText('Towels 60');
  const before = await rows.count();
  await page.getByRole('button', { name: 'These were two' }).click();
  await expect(page.getByText(/Two loads from here on|No pause is to be seen/)).toBeVisible();
  if ((await rows.count()) > before) {
    await page.getByRole('button', { name: 'One with the next' }).click();
    await expect(page.getByText('One load from here on')).toBeVisible();
    await expect(rows).toHaveCount(before);
  }
  expect(await faultsIn(page, LOOKS)).toEqual([]);
});

test('how well was foretold stands in the log, and is sound at every size', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}log`);
  await page.getByRole('link', { name: 'How well did we foretell?' }).click();
  await expect(page.getByText(/\d\d in 100 lay in the range/)).toBeVisible();
  await expect(page.locator('nc-reliability .thread')).toHaveCount(2);
  await expect(page.getByText(/suspected first in \d+ of \d+ cases/)).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
});
