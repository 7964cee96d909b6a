import { AxeBuilder } from '@axe-core/playwright';
import { expect, machineCalled, ready, test, type House } from './house.js';

const VIEWS: Record<string, (house: House) => Promise<string>> = {
  Bench: () => Promise.resolve(''),
  'Machine, washer': async (house) => `machine/${(await machineCalled(house, 'Cellar washer')).id}`,
  'Machine, dryer': async (house) =>
    `machine/${(await machineCalled(house, 'Cellar dryer')).id}/hood`,
  Visit: () => Promise.resolve('visit'),
  'Run, opening': async (house) => `run/${await newRun(house)}`,
  'Run, step': async (house) => `run/${await newRun(house, 'pump-filter/found')}`,
  'Run, ending': async (house) => `run/${await newRun(house, 'end')}`,
  Log: () => Promise.resolve('log?undone=yes'),
  House: () => Promise.resolve('house'),
  'Not found': () => Promise.resolve('nowhere'),
};

async function newRun(house: House, at?: string): Promise<string> {
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
  { theme: 'dark', size: { width: 390, height: 844 }, rules: 'contrast' },
  { theme: 'light', size: { width: 360, height: 640 }, rules: 'none' },
] as const;

for (const { theme, size, rules } of LOOKS) {
  test.describe(`${theme}, ${size.width}x${size.height}`, () => {
    test.use({ viewport: size, colorScheme: theme });

    test('every view is axe-clean, fits its width, and asks nothing of other origins', async ({
      page,
      demo,
      watched,
    }) => {
      for (const [name, path] of Object.entries(VIEWS)) {
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
