import type { Entry, Household } from '@needlecase/core';
import type { MetersView } from '@needlecase/core/model/meters';
import { expect, House, machineCalled, test } from './house.js';
import { axeFaults, faultsIn, LOOKS } from './looks.js';

/* A meter that speaks as it goes on: a plug that stands in, through a real broker; and one that sends by itself. */

const loadsOf = async (house: House, id: string): Promise<Entry[]> =>
  (await house.api<{ entries: Entry[] }>(`entries?machine=${id}&kind=load&limit=200`)).entries;

test('a plug that stands in is watched as it runs, and its load is counted by itself, also through a crash', async ({
  page,
  demo,
}) => {
  test.setTimeout(120_000);
  await demo.kill();
  const house = new House(demo.file, { NEEDLECASE_PLUG: 'on' });
  await house.start();
  try {
    const { id } = await machineCalled(house, 'Studio washer');
    const before = (await loadsOf(house, id)).length;
    await page.goto(`${house.address}machine/${id}/meter`);
    await page.getByRole('button', { name: 'Set one up' }).click();
    await expect(page.getByText('Never use a plug beyond its rating').first()).toBeVisible();
    await page.getByLabel('How what it reads comes here').selectOption('stand-in');
    await page.getByRole('button', { name: 'Set it up' }).click();
    await expect(page.getByText('Nothing has come from it yet.')).toBeVisible();
    await page.getByLabel('Programme').selectOption('quick');
    await page.getByLabel('How fast').selectOption('300');
    await page.getByRole('button', { name: 'Run it' }).click();
    await expect(page.getByText(/A load runs since .* kWh so far/)).toBeVisible({
      timeout: 20_000,
    });
    await expect(page.locator('.watts b')).not.toHaveText('0');
    await expect
      .poll(async () => (await loadsOf(house, id)).length, { timeout: 60_000 })
      .toBe(before + 1);
    // Nothing was thanked for that a crash takes away, and nothing is counted twice after it.
    const { meters } = await house.api<MetersView>('meters');
    const { at } = meters[0]!.newest!;
    await house.kill();
    await house.start();
    const after = (await house.api<MetersView>('meters')).meters[0]!;
    expect(Date.parse(after.newest!.at)).toBeGreaterThanOrEqual(Date.parse(at));
    const all = await loadsOf(house, id);
    expect(all).toHaveLength(before + 1);
    expect(all.filter(({ source }) => source === 'meter')).toHaveLength(1);
    await page.reload();
    // It ran a while ago: right after midnight that was another day.
    const ran = all.find(({ source }) => source === 'meter')!;
    const { zone } = await house.api<Household>('household');
    const day = new Intl.DateTimeFormat('sv-SE', { timeZone: zone }).format(Date.parse(ran.at));
    await page.getByLabel('Day', { exact: true }).fill(day);
    await expect(page.locator('nc-power-day .stitch')).not.toHaveCount(0);
    expect(await axeFaults(page)).toEqual([]);
  } finally {
    await house.kill();
  }
});

test('a meter that sends by itself is told its token once, and what it sends is seen', async ({
  page,
  demo,
}) => {
  const { id } = await machineCalled(demo, 'Studio washer');
  await page.goto(`${demo.address}machine/${id}/meter`);
  await page.getByRole('button', { name: 'Set one up' }).click();
  const setUp = page.getByRole('button', { name: 'Set it up' });
  await page.getByLabel('What it is called').fill('');
  await setUp.click();
  await expect(page.getByText('Write something here.')).toBeVisible();
  expect((await demo.api<MetersView>('meters')).meters).toEqual([]);
  await page.getByLabel('How what it reads comes here').selectOption('broker');
  await page.getByLabel('The topic of this plug alone').fill('plugs/#');
  await setUp.click();
  await expect(page.getByText('Give its address, such as')).toBeVisible();
  await expect(page.getByText('without + or #')).toBeVisible();
  await page.getByLabel('What it is called').fill('Plug in the studio');
  await page.getByLabel('How what it reads comes here').selectOption('sends');
  await setUp.dblclick();
  const told = page.getByLabel('How to send a sample');
  await expect(told).toContainText('needlecase_');
  const { meters } = await demo.api<MetersView>('meters');
  expect(meters).toHaveLength(1);
  const [, token] = /Bearer (\S+)'/.exec((await told.textContent())!)!;
  const send = (watts: number) =>
    demo.api(`meters/${meters[0]!.id}/samples`, [{ at: Date.now(), watts }], {
      Authorization: `Bearer ${token}`,
    });
  await send(2041);
  await expect(page.locator('.watts')).toHaveText('2041 W');
  await page.reload();
  await expect(page.locator('.watts')).toHaveText('2041 W');
  await expect(told).toHaveCount(0);
  await page.getByRole('button', { name: 'Change it' }).click();
  await page.getByLabel('What it is called').fill('');
  await page.getByRole('button', { name: 'Keep the change' }).click();
  await expect(page.getByText('Write something here.')).toBeVisible();
  await page.getByLabel('What it is called').fill('Plug by the window');
  await page.getByLabel('A dryer at the same socket').selectOption({ label: 'Cellar dryer' });
  await page.getByRole('button', { name: 'Keep the change' }).click();
  await expect(
    page.getByRole('heading', { name: 'Plug by the window', exact: true }),
  ).toBeVisible();
  await expect(page.getByLabel('What it is called')).toHaveCount(0);
  // It is the same meter, with the same token and what it told.
  await send(2043);
  await expect(page.locator('.watts')).toHaveText('2043 W');
  await page.getByRole('button', { name: 'Take this meter away' }).click();
  await page.getByRole('button', { name: 'Keep it' }).click();
  expect((await demo.api<MetersView>('meters')).meters).toHaveLength(1);
  await page.getByRole('button', { name: 'Take this meter away' }).click();
  await page.getByRole('button', { name: 'Take it away' }).click();
  await expect(page.getByRole('button', { name: 'Set one up' })).toBeVisible();
});

test('the page of a live meter is sound at every size', async ({ page, demo }) => {
  const { id } = await machineCalled(demo, 'Studio washer');
  const draft = { name: 'Plug', machineId: id };
  const meter = await demo.api<{ id: string; token: string }>('meters', draft);
  const now = Date.now();
  const samples = Array.from({ length: 300 }, (_, i) => ({
    at: now - (300 - i) * 10_000,
    watts: i < 90 ? 1 : 90 + ((i * 7) % 300),
  }));
  await demo.api(`meters/${meter.id}/samples`, samples, {
    Authorization: `Bearer ${meter.token}`,
  });
  await page.goto(`${demo.address}machine/${id}/meter`);
  await expect(page.locator('nc-live-meter .power')).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
});
