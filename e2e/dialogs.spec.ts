import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from '@playwright/test';
import type { BenchView, Visit } from '@needlecase/core';
import { bySense, expect, machineCalled, ready, test, type House } from './house.js';
import { faultsIn, LOOKS } from './looks.js';

/* Every dialog and every form that opens in place, looked at in each way that the views are. */

interface Opened {
  /** Opens it and says what stands in it then. */
  open: (page: Page, house: House) => Promise<void>;
  /** Where the keyboard is once it is open. */
  begins?: string;
}

const onBench = async (page: Page, house: House) => {
  await page.goto(house.address);
  await ready(page);
};
const newVisit = async (house: House, at?: string): Promise<Visit> => {
  const { id: machineId } = await machineCalled(house, 'Cellar washer');
  const visit = await house.api<Visit>('runs', { tasks: [{ machineId, task: 'pump-filter' }] });
  if (!at) return visit;
  const progress = { ...visit.progress, at };
  const match = { 'If-Match': `"${visit.version}"` };
  return house.api<Visit>(`runs/${visit.id}`, { progress }, match, 'PATCH');
};

/** By the component that is opened; the law below holds that none is missing. */
const DIALOGS: Record<string, Opened[]> = {
  EntryDialogComponent: [
    {
      open: async (page, house) => {
        await page.goto(`${house.address}log`);
        await page.getByRole('button', { name: 'Enter something' }).click();
      },
    },
    {
      open: async (page, house) => {
        await page.goto(`${house.address}log?kind=reading`);
        await page
          .getByRole('button', { name: /^Correct:/ })
          .first()
          .click();
        await expect(page.getByRole('dialog').getByLabel(/^Figure, /)).toBeVisible();
      },
    },
  ],
  LoadsDialogComponent: [
    {
      open: async (page, house) => {
        await onBench(page, house);
        await page.getByRole('button', { name: /another day: Cellar washer/ }).click();
      },
    },
  ],
  UnderWayComponent: [
    {
      open: async (page, house) => {
        const { tasks } = await newVisit(house);
        const [{ machineId, task }] = tasks as [Visit['tasks'][number]];
        await page.goto(`${house.address}visit?machine=${machineId}&task=${task}`);
        await page.getByRole('button', { name: 'Start this visit' }).click();
      },
    },
  ],
};

const IN_PLACE: Record<string, (page: Page, house: House) => Promise<void>> = {
  'the interval’s form': async (page, house) => {
    const { id } = await machineCalled(house, 'Cellar dryer');
    await page.goto(`${house.address}machine/${id}/duct-run`);
    await page.getByRole('button', { name: 'Change this interval' }).click();
    await page.getByLabel('Interval', { exact: true }).selectOption('own');
  },
  'the house’s forms': async (page, house) => {
    await page.goto(`${house.address}house`);
    await page.getByRole('button', { name: 'Change', exact: true }).click();
    await page.getByRole('button', { name: 'Change Cellar dryer' }).click();
    await page.getByRole('button', { name: 'Add a machine' }).click();
  },
  'retiring a machine': async (page, house) => {
    await page.goto(`${house.address}house`);
    await page.getByRole('button', { name: 'Retire Cellar dryer' }).click();
  },
  'a supply’s form': async (page, house) => {
    await page.goto(`${house.address}house/supplies`);
    await page.getByRole('button', { name: 'Add a supply' }).click();
  },
  'what waits to be sent': async (page, house) => {
    await onBench(page, house);
    await page.route('**/api/v1/entries*', (route) => route.abort());
    await page.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
    await page.getByText('1 not sent yet').click();
    await expect(page.locator('nc-waiting li').first()).toBeVisible();
  },
  'something dangerous': async (page, house) => {
    await page.goto(`${house.address}trouble?danger=yes`);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  },
  'the stop questions': async (page, house) => {
    await page.goto(`${house.address}trouble`);
    await bySense(page, 'See');
    await page
      .getByRole('button', { name: 'It does not drain: water stands in the drum: Cellar washer' })
      .click();
    await expect(page.getByRole('button', { name: 'None of these' })).toBeVisible();
  },
  'suspects and line of a case': async (page, house) => {
    const { cases } = await house.api<BenchView>('bench');
    await page.setViewportSize({ width: 390, height: 844 });
    await page.goto(`${house.address}trouble/${cases[0]!.id}`);
    await page.getByRole('tab').last().click();
  },
  'an opened visit of the plan': async (page, house) => {
    await page.goto(`${house.address}plan`);
    await page.getByRole('button', { name: 'See Steady' }).click({ timeout: 20_000 });
    await page.getByRole('listbox').focus();
    await page.keyboard.press('Enter');
    await expect(page.locator('nc-visit-card h2')).toBeVisible();
  },
  'a finished visit': async (page, house) => {
    await page.goto(`${house.address}visit/${(await newVisit(house, 'end')).id}`);
    await page.getByLabel('What came of it').selectOption('Done');
    await page.getByRole('button', { name: 'Finish and record' }).click();
    await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();
  },
};

/** What of an open dialog cannot be got at: it is cut off, or something lies over its buttons. */
const outOfReach = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const dialog = document.querySelector('[role="dialog"]')!;
    return [...dialog.querySelectorAll<HTMLElement>('button, input, select, textarea')]
      .filter((one) => one.checkVisibility({ visibilityProperty: true, opacityProperty: true }))
      .flatMap((one) => {
        one.scrollIntoView({ block: 'center', behavior: 'instant' });
        const { left, right, top, bottom } = one.getBoundingClientRect();
        const name = one.getAttribute('aria-label') ?? one.textContent?.trim() ?? one.id;
        if (left < 0 || right > innerWidth || top < 0 || bottom > innerHeight) {
          return [`cut off: ${name}`];
        }
        const over = document.elementFromPoint((left + right) / 2, (top + bottom) / 2);
        const reached = over && (one.contains(over) || over.contains(one) || dialog.contains(over));
        return reached ? [] : [`covered: ${name}`];
      });
  });

test('every dialog that a screen opens is in this list', () => {
  const sources = join(import.meta.dirname, '../web/src/app');
  const opened = readdirSync(sources, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !name.endsWith('.spec.ts'))
    .flatMap((name) => [
      ...readFileSync(join(sources, name), 'utf8').matchAll(/\.open\(\s*(\w+Component)/g),
    ])
    .map(([, component]) => component!);
  expect([...new Set(opened)].sort()).toEqual(Object.keys(DIALOGS).sort());
});

for (const [name, ways] of Object.entries(DIALOGS)) {
  for (const [i, { open }] of ways.entries()) {
    test(`${name}, way ${i + 1}: begins at its first field, all of it in reach, axe-clean in each look`, async ({
      page,
      demo,
    }) => {
      await page.setViewportSize(LOOKS[0]!);
      await open(page, demo);
      const dialog = page.getByRole('dialog');
      await expect(dialog).toBeVisible();
      await expect(dialog.locator(':focus')).toHaveCount(1);
      await expect(dialog.locator('.btn-close:focus')).toHaveCount(0);
      expect(await faultsIn(page, LOOKS, () => outOfReach(page))).toEqual([]);
    });
  }
}

for (const [name, open] of Object.entries(IN_PLACE)) {
  test(`what opens in place is clean in each look: ${name}`, async ({ page, demo }) => {
    await page.setViewportSize(LOOKS[0]!);
    await open(page, demo);
    expect(await faultsIn(page, LOOKS)).toEqual([]);
  });
}
