import { INSTRUMENT_SCREENS } from '@needlecase/core/measure/instruments';
import { expect, machineCalled, ready, test, type House } from './house.js';
import { axeFaults, faultsIn, LOOKS, type Look } from './looks.js';

const VIEWS: Record<string, (house: House) => Promise<string>> = {
  Bench: () => Promise.resolve(''),
  'Machine, washer': async (house) => `machine/${(await machineCalled(house, 'Cellar washer')).id}`,
  'Machine, dryer': async (house) =>
    `machine/${(await machineCalled(house, 'Cellar dryer')).id}/hood`,
  Plan: () => Promise.resolve('plan'),
  'Sticker of a machine': async (house) =>
    `m/${(await machineCalled(house, 'Cellar dryer')).id.replaceAll('-', '').slice(0, 6)}`,
  Visit: () => Promise.resolve('visit'),
  'Visit, opening': async (house) => `visit/${await newVisit(house)}`,
  'Visit, step': async (house) => `visit/${await newVisit(house, 'pump-filter/found')}`,
  'Visit, ending': async (house) => `visit/${await newVisit(house, 'end')}`,
  'Visit, guard': async (house) => `visit/${await newVisit(house, 'pump-filter/soak')}`,
  Trouble: async (house) => `trouble?machine=${(await machineCalled(house, 'Cellar washer')).id}`,
  Cases: () => Promise.resolve('trouble'),
  'Case, open': async (house) =>
    `trouble/${(await house.api<{ cases: { id: string }[] }>('bench')).cases[0]!.id}`,
  'House, codes': () => Promise.resolve('house/codes'),
  Measure: () => Promise.resolve('measure'),
  Log: () => Promise.resolve('log?undone=yes'),
  House: () => Promise.resolve('house'),
  'House, schools': () => Promise.resolve('house/schools'),
  'House, supplies': () => Promise.resolve('house/supplies'),
  'House, backup': async (house) => {
    await house.api('backups', {});
    return 'house/backup';
  },
  'House, mail': () => Promise.resolve('house/mail'),
  'House, phones': () => Promise.resolve('house/phones'),
  'House, about': () => Promise.resolve('house/about'),
  'Let a device in': () => Promise.resolve('pair'),
  'Bench, visits under way': () => Promise.resolve(''),
  'Not found': () => Promise.resolve('nowhere'),
};

async function newVisit(house: House, at?: string): Promise<string> {
  const { id: machineId } = await machineCalled(house, 'Cellar washer');
  const tasks = [{ machineId, task: 'pump-filter' }];
  const run = await house.api<{ id: string; version: number; progress: object }>('runs', { tasks });
  if (at) {
    const step = at === 'end' ? at : `${machineId}/${at}`;
    const progress = {
      ...run.progress,
      at: step,
      ticked: { [`${machineId}/unplugged/unplug`]: new Date().toISOString() },
    };
    await house.api(`runs/${run.id}`, { progress }, { 'If-Match': `"${run.version}"` }, 'PATCH');
  }
  return run.id;
}

/** All instruments share their parts: each is looked at wide and narrow in the light, three in the dark. */
const IN_THE_DARK: readonly string[] = ['vent-run', 'drum-model', 'mix'];
const looksAt = (name: string): readonly Look[] =>
  LOOKS.filter(
    ({ theme, width, rules }) =>
      width !== 390 && (theme === 'light' || (rules !== 'none' && IN_THE_DARK.includes(name))),
  );

const PAGES: [name: string, path: (house: House) => Promise<string>, looks: readonly Look[]][] = [
  ...Object.entries(VIEWS).map(([name, path]) => [name, path, LOOKS] as (typeof PAGES)[number]),
  ...INSTRUMENT_SCREENS.map(
    ({ name }) =>
      [name, () => Promise.resolve(`measure/${name}`), looksAt(name)] as (typeof PAGES)[number],
  ),
];
const AT_ONCE = 9;

for (let from = 0; from < PAGES.length; from += AT_ONCE) {
  const pages = PAGES.slice(from, from + AT_ONCE);
  test(`axe-clean, within their width, and asking nothing of other origins: ${pages.map(([name]) => name).join('; ')}`, async ({
    page,
    demo,
    watched,
  }) => {
    test.setTimeout(120_000);
    for (const [name, path, looks] of pages) {
      await page.setViewportSize(looks[0]!);
      await page.goto(demo.address + (await path(demo)));
      await ready(page);
      expect(await faultsIn(page, looks), name).toEqual([]);
    }
    expect(watched.foreign).toEqual([]);
    expect(watched.complaints).toEqual([]);
  });
}

test('the first start is axe-clean in all its steps', async ({ page, empty }) => {
  await page.goto(empty.address);
  for (const heading of ['Your household', 'Your machines', 'How they are used']) {
    await expect(page.getByRole('heading', { name: heading })).toBeVisible();
    expect(await axeFaults(page)).toEqual([]);
    if (heading === 'Your household') await page.getByLabel('Name of the household').fill('Loom');
    if (heading === 'Your machines') {
      await page.getByLabel('Your name for it').fill('Washer');
      await page.getByLabel('Where it stands').fill('Bath');
    }
    if (heading !== 'How they are used') await page.getByRole('button', { name: 'Next' }).click();
  }
});

test('the theme follows the system until it is turned by hand, and then stays', async ({
  page,
  demo,
}) => {
  const shown = page.locator('html');
  await page.emulateMedia({ colorScheme: 'dark' });
  await page.goto(demo.address);
  await expect(shown).toHaveAttribute('data-bs-theme', 'dark');
  await page.emulateMedia({ colorScheme: 'light' });
  await page.reload();
  await expect(shown).toHaveAttribute('data-bs-theme', 'light');
  await page.getByRole('button', { name: 'Use the dark theme' }).click();
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'dark');
  await page.getByRole('button', { name: 'Use the light theme' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-bs-theme', 'light');
});

test('the policy lets no inline script run', async ({ page, demo }) => {
  const answer = await page.goto(demo.address);
  expect(answer!.headers()['content-security-policy']).toMatch(/script-src 'self'(;|$)/);
  await ready(page);
  const ran = await page.evaluate(() => {
    const script = document.createElement('script');
    script.textContent = 'window.ran = true';
    document.head.append(script);
    return 'ran' in window;
  });
  expect(ran).toBe(false);
});
