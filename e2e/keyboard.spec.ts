import type { Page } from '@playwright/test';
import { expect, machineCalled, ready, test } from './house.js';

/** Presses Tab until something is focused that has this accessible name. */
async function tabTo(page: Page, name: RegExp): Promise<void> {
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Tab');
    const label = await page.evaluate(() => {
      const one = document.activeElement;
      return (
        one?.getAttribute('aria-label') ??
        (one as HTMLInputElement | null)?.labels?.[0]?.textContent ??
        one?.textContent ??
        ''
      );
    });
    if (name.test(label.trim())) return;
  }
  throw new Error(`Tab does not reach ${name}.`);
}

test('the bench by keyboard: skip link, loads, the line with arrow keys, a station', async ({
  page,
  demo,
}) => {
  await page.goto(demo.address);
  await ready(page);
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Go to the contents' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('#main')).toBeFocused();

  await tabTo(page, /^Tap and fill hose/);
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('button', { name: /^Pump filter/ }).first()).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Pump filter', exact: true })).toBeVisible();
  await expect(page).toHaveURL(/machine\/.+\/pump-filter$/);
});

test('a load is counted and taken back by keyboard', async ({ page, demo }) => {
  await page.goto(demo.address);
  await ready(page);
  await tabTo(page, /^Count a load of the Cellar washer/);
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 load counted: Cellar washer')).toBeVisible();
  await expect(page.getByText(/^1 today/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/^1 today/)).toHaveCount(0);
});

test('the slash goes to the find box, which finds machines, stations and tasks', async ({
  page,
  demo,
}) => {
  await page.goto(demo.address);
  await ready(page);
  await page.keyboard.press('/');
  const box = page.getByRole('combobox', { name: /Find/ });
  await expect(box).toBeFocused();
  await page.keyboard.type('lint scr');
  await expect(page.getByRole('option').first()).toContainText(/lint screen/i);
  await box.fill('');
  await page.keyboard.type('studio');
  await page.getByRole('option', { name: /Studio washer top-load washer/ }).waitFor();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1, name: 'Studio washer' })).toBeVisible();
});

test('the slash goes to the find box also before the page had a moment to fetch it', async ({
  page,
  demo,
}) => {
  // However slow the computer: what waits two seconds waits until it is asked for.
  await page.addInitScript(() => {
    const later = window.setTimeout.bind(window);
    const longer = (what: TimerHandler, ms = 0) =>
      later(what, ms > 1500 && ms <= 2000 ? 60_000 : ms);
    window.setTimeout = longer as typeof setTimeout;
  });
  await page.goto(demo.address);
  await ready(page);
  await expect(page.getByRole('combobox', { name: /Find/ })).toHaveCount(0);
  await page.keyboard.press('/');
  await expect(page.getByRole('combobox', { name: /Find/ })).toBeFocused();
  await page.reload();
  await ready(page);
  // What is typed before it is there is not lost, and whoever goes on is not called back.
  await page.route('**/chunk-*.js', async (route) => {
    await new Promise((done) => setTimeout(done, 300));
    await route.continue();
  });
  const box = page.getByRole('combobox', { name: /Find/ });
  await page.getByRole('searchbox', { name: /Find/ }).click();
  await page.keyboard.type('softener');
  await expect(box).toBeFocused();
  await expect(box).toHaveValue('softener');
  await expect(page.getByRole('option').first()).toBeVisible();
  await page.reload();
  await ready(page);
  await page.getByRole('searchbox', { name: /Find/ }).focus();
  await page.keyboard.press('Tab');
  const theme = page.getByRole('button', { name: /theme$/ });
  await expect(theme).toBeFocused();
  await expect(box).toHaveCount(1);
  await expect(theme).toBeFocused();
});

test('a run by keyboard alone, from its first step to its end', async ({ page, demo }) => {
  const { id: machineId } = await machineCalled(demo, 'Studio washer');
  const run = await demo.api<{ id: string }>('runs', {
    tasks: [{ machineId, task: 'softener-cup' }],
  });
  await page.goto(`${demo.address}visit/${run.id}`);
  await ready(page);
  await tabTo(page, /^Begin with the first step/);
  await page.keyboard.press('Enter');
  const title = page.locator('[data-step-title]');
  await expect(title).toContainText('Switch the machine off');
  await expect(title).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(title).toContainText('Lift the cup off');
  await page.keyboard.press('ArrowRight');
  await expect(title).toContainText('Note how it looks');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('radio', { name: /light/ })).toBeChecked();
  await tabTo(page, /^Done, next/);
  await page.keyboard.press('Enter');
  await expect(title).toContainText('Brush the cup');
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByRole('radio', { name: /light/ })).toBeChecked();
  for (let i = 0; i < 16 && (await title.textContent()) !== 'Is this right?'; i++) {
    const before = (await title.textContent())!;
    if (before.includes('mould remover')) {
      await tabTo(page, /^Nothing$/);
      await page.keyboard.press('Enter');
    }
    await title.focus();
    await page.keyboard.press('ArrowRight');
    await expect(title).not.toHaveText(before);
  }
  await tabTo(page, /^Finish and record/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();
  await expect(page.getByText(/due in/)).toBeVisible();
});

test('the first start by keyboard alone', async ({ page, empty }) => {
  await page.goto(empty.address);
  await tabTo(page, /^Name of the household/);
  await page.keyboard.type('Loom House');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Your machines' })).toBeFocused();
  await tabTo(page, /^Your name for it/);
  await page.keyboard.type('Washer');
  await tabTo(page, /^Where it stands/);
  await page.keyboard.type('Bath');
  await tabTo(page, /^Next/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'How they are used' })).toBeFocused();
  await tabTo(page, /^Show what is due/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Your first visit: Bath' })).toBeVisible();
});

test('the log and the house by keyboard: a note is entered, a machine renamed, focus comes back', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}log`);
  await ready(page);
  await tabTo(page, /^Enter something/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toBeVisible();
  await tabTo(page, /^What$/);
  await page.keyboard.press('End');
  await tabTo(page, /^Note$/);
  await page.keyboard.type('The tap drips');
  await tabTo(page, /^Store$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect(page.getByText('The tap drips')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Enter something' })).toBeFocused();

  await page.goto(`${demo.address}house`);
  await ready(page);
  await tabTo(page, /^Change Studio washer/);
  await page.keyboard.press('Enter');
  await tabTo(page, /^Your name for it/);
  await page.keyboard.press('Control+A');
  await page.keyboard.type('Apron washer');
  await page.keyboard.press('Enter');
  await expect(page.getByText('The machine is stored.')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Apron washer' })).toBeVisible();
});
