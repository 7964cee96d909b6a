import { AxeBuilder } from '@axe-core/playwright';
import { expect, machineCalled, ready, test, type House } from './house.js';

const INSTRUMENTS = [
  'vent-run',
  'hood-air',
  'exhaust-air',
  'drying-test',
  'drum-model',
  'lint-screen',
  'moisture-sensor',
  'running-cost',
  'tub-water',
  'drain-test',
  'fill-flow',
  'standpipe',
  'dose',
  'mix',
  'scale',
  'level',
];

const VIEWS: Record<string, (house: House) => Promise<string>> = {
  Bench: () => Promise.resolve(''),
  'Machine, washer': async (house) => `machine/${(await machineCalled(house, 'Cellar washer')).id}`,
  'Machine, dryer': async (house) =>
    `machine/${(await machineCalled(house, 'Cellar dryer')).id}/hood`,
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

/** The second size checks what differs there; contrast is all that differs between the themes. */
const LOOKS = [
  { theme: 'light', size: { width: 1280, height: 800 }, rules: 'all' },
  { theme: 'light', size: { width: 390, height: 844 }, rules: 'all' },
  { theme: 'dark', size: { width: 1280, height: 800 }, rules: 'contrast' },
  { theme: 'dark', size: { width: 390, height: 844 }, rules: 'none' },
  { theme: 'light', size: { width: 360, height: 640 }, rules: 'none' },
] as const;

/** All instruments share their parts: each is looked at once wide and once narrow, three in the dark. */
const instrumentsFor = (theme: string, width: number): string[] => {
  if (theme === 'dark') return width > 400 ? ['vent-run', 'drum-model', 'mix'] : [];
  return width === 390 ? [] : INSTRUMENTS;
};

for (const { theme, size, rules } of LOOKS) {
  test.describe(`${theme}, ${size.width}x${size.height}`, () => {
    test.use({ viewport: size, colorScheme: theme });

    test('every view is axe-clean, fits its width, and asks nothing of other origins', async ({
      page,
      demo,
      watched,
    }) => {
      test.setTimeout(180_000);
      const instruments = Object.fromEntries(
        instrumentsFor(theme, size.width).map((path) => [
          path,
          () => Promise.resolve(`measure/${path}`),
        ]),
      );
      for (const [name, path] of Object.entries({ ...VIEWS, ...instruments })) {
        await page.goto(demo.address + (await path(demo)));
        await ready(page);
        await expect(page.locator('html')).toHaveAttribute('data-bs-theme', theme);
        if (rules !== 'none') {
          const axe = new AxeBuilder({ page });
          const { violations } = await (
            rules === 'contrast' ? axe.withRules(['color-contrast']) : axe
          ).analyze();
          const said = violations.map(
            ({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html).join(' | ')}`,
          );
          expect(said, name).toEqual([]);
        }
        for (const button of await page.locator('button.btn:visible, a.btn:visible').all()) {
          const cut = await button.evaluate(
            (one) =>
              one.scrollWidth > one.clientWidth + 1 ||
              one.getBoundingClientRect().right > document.documentElement.clientWidth,
          );
          expect(cut, `${name}: ${await button.textContent()}`).toBe(false);
        }
        const wide = await page.evaluate(() => document.documentElement.scrollWidth);
        expect(wide, name).toBeLessThanOrEqual(size.width);
      }
      expect(watched.foreign).toEqual([]);
      expect(watched.complaints).toEqual([]);
    });
  });
}

test('the first start is axe-clean in all its steps', async ({ page, empty }) => {
  await page.goto(empty.address);
  for (const heading of ['Your household', 'Your machines', 'How they are used']) {
    await expect(page.getByRole('heading', { name: heading })).toBeVisible();
    expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
    if (heading === 'Your household') await page.getByLabel('Name of the household').fill('Loom');
    if (heading === 'Your machines') {
      await page.getByLabel('Your name for it').fill('Washer');
      await page.getByLabel('Where it stands').fill('Bath');
    }
    if (heading !== 'How they are used') await page.getByRole('button', { name: 'Next' }).click();
  }
});

test('dialogs, the interval’s form, the house’s forms and a finished visit are axe-clean', async ({
  page,
  demo,
}) => {
  const clean = async (what: string) => {
    const { violations } = await new AxeBuilder({ page }).analyze();
    expect(
      violations.map(({ id, nodes }) => [id, nodes.map(({ html }) => html)]),
      what,
    ).toEqual([]);
  };
  await page.goto(`${demo.address}log`);
  await page.getByRole('button', { name: 'Enter something' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await clean('enter');
  await page.goto(`${demo.address}log?kind=reading`);
  await page
    .getByRole('button', { name: /^Correct:/ })
    .first()
    .click();
  await expect(page.getByRole('dialog').getByLabel(/^Figure, /)).toBeVisible();
  await clean('correct');
  await page.goto(
    demo.address + (await VIEWS['Machine, dryer']!(demo)).replace('hood', 'duct-run'),
  );
  await page.getByRole('button', { name: 'Change this interval' }).click();
  await page.getByLabel('Interval', { exact: true }).selectOption('own');
  await clean('interval');
  await page.goto(`${demo.address}house`);
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  await page.getByRole('button', { name: 'Change Cellar dryer' }).click();
  await page.getByRole('button', { name: 'Add a machine' }).click();
  await clean('house');
  await page.goto(`${demo.address}visit/${await newVisit(demo, 'end')}`);
  await page.getByLabel('What came of it').selectOption('Done');
  await page.getByRole('button', { name: 'Finish and record' }).click();
  await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();
  await clean('finished');
});

test('the theme is turned by hand and stays', async ({ page, demo }) => {
  await page.goto(demo.address);
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
