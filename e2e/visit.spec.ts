import type { BenchView, Entry, Visit } from '@needlecase/core';
import type { Page } from '@playwright/test';
import { bySense, expect, goOn, goTo, machineCalled, ready, test, type House } from './house.js';

async function begin(
  page: Page,
  house: House,
  machine: string,
  ...tasks: string[]
): Promise<Visit> {
  const { id: machineId } = await machineCalled(house, machine);
  const visit = await house.api<Visit>('runs', {
    tasks: tasks.map((task) => ({ machineId, task })),
  });
  await page.goto(`${house.address}visit/${visit.id}`);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  return visit;
}

test('chlorine on the gasket stops vinegar in the drum until a rinse has run', async ({
  page,
  demo,
}) => {
  test.slow();
  await begin(page, demo, 'Cellar washer', 'gasket-folds', 'drum-clean');
  await goTo(page, 'Mould or film left');
  const onward = page.locator('[data-onward]');
  await expect(onward).toBeDisabled();
  await page.getByRole('button', { name: /^Mould remover with chlorine/ }).click();
  await goTo(page, 'run a rinse with nothing');
  await expect(onward).toHaveText('Rinse first');
  await page.getByRole('button', { name: 'Leave this out' }).click();

  await goTo(page, 'Look in the manual');
  await page.getByRole('button', { name: /^Vinegar/ }).click();
  const stop = page.getByRole('alert');
  await expect(stop).toContainText('it gives chlorine gas');
  await expect(stop).toContainText('get out and shut the door behind you');
  await expect(onward).toBeDisabled();
  // A reload, another way in, another visit: it is still in there.
  await page.reload();
  await page.getByRole('button', { name: /^Citric acid/ }).click();
  await expect(stop).toContainText('chlorine gas');
  await page.goto(`${demo.address}visit`);
  const washer = page.getByRole('group', { name: /Cellar washer/ });
  await washer.getByRole('checkbox').first().waitFor();
  for (const box of await page.getByRole('checkbox').all()) await box.uncheck();
  await washer.getByRole('checkbox', { name: /Descale/ }).check();
  await expect(page.getByText('Not rinsed out of Cellar washer yet')).toBeVisible();
  await expect(page.getByText('The visit will stop before “Put the acid')).toBeVisible();
  await page.goBack();
  await page.getByRole('button', { name: /^Vinegar/ }).click();
  await stop.getByRole('button', { name: 'A full rinse has run to its end' }).click();
  await page.getByRole('button', { name: /^Vinegar/ }).click();
  await expect(page.getByText('Noted: vinegar')).toBeVisible();
  await expect(onward).toBeEnabled();

  await expect
    .poll(async () => {
      const { entries } = await demo.api<{ entries: Entry[] }>('entries?limit=20');
      const told = entries.filter(({ kind }) => kind === 'chemical' || kind === 'rinse').reverse();
      return told.map(({ product, kind }) => product ?? kind);
    })
    .toEqual(['mould-bleach', 'rinse', 'vinegar']);
  // What was not used after all is taken back.
  await page.getByRole('button', { name: 'I did not use it' }).click();
  await expect
    .poll(async () => {
      const { states } = await demo.api<BenchView>('bench');
      return states.flatMap(({ chemicals }) => chemicals.events);
    })
    .toEqual([]);
});

test('a proof comes back as a question after the next load, and stays open where it did not hold', async ({
  page,
  demo,
}) => {
  test.slow();
  await begin(page, demo, 'Cellar washer', 'dispenser');
  await goTo(page, 'Note how dirty it is');
  await page.getByRole('radio', { name: /light/ }).check({ force: true });
  await goTo(page, 'Is this right?');
  await page.getByRole('button', { name: 'Finish and record' }).click();
  await expect(page.getByText('To be looked at after the next load')).toBeVisible();
  await page.getByRole('link', { name: 'To the bench', exact: true }).click();
  const question = page.getByRole('heading', { name: /Did it hold\?/ });
  await ready(page);
  await expect(question).toHaveCount(0);
  await page.getByRole('button', { name: /Count a load of the Cellar washer/ }).click();
  await expect(question).toContainText('Clean the dispenser');
  await page.getByRole('button', { name: 'It is not right' }).click();
  await expect(page.getByRole('heading', { name: /It did not hold/ })).toBeVisible();
  await page.getByRole('button', { name: 'It is right now' }).click();
  await expect(page.getByRole('heading', { name: /hold/ })).toHaveCount(0);
});

test('a timer goes on at other steps and through a reload, and says when it is up', async ({
  page,
  demo,
}) => {
  await page.clock.install();
  await begin(page, demo, 'Cellar washer', 'pump-filter');
  await page.getByRole('button', { name: /^Start a timer/ }).click();
  await goOn(page);
  const chip = page.getByRole('button', { name: /29:5\d|30:00/ });
  await expect(chip).toBeVisible();
  await page.reload();
  await expect(chip).toBeVisible();
  // The page's clock alone goes forward: the server's is not heard meanwhile.
  await page.route('**/api/**', (route) => route.abort());
  await page.clock.fastForward('31:00');
  await expect(page.getByText('the time is up')).toBeVisible();
  await page.getByRole('button', { name: /done$/ }).click();
  await expect(page.getByRole('timer')).toHaveText('0:00');
});

test('a second screen sees the first one’s progress within a second', async ({
  page,
  demo,
  context,
}) => {
  const visit = await begin(page, demo, 'Studio washer', 'softener-cup');
  const second = await context.newPage();
  await second.goto(`${demo.address}visit/${visit.id}`);
  await ready(second);
  await expect(second.locator('[data-step-title]')).toContainText('Switch the machine off');
  await page.locator('[data-onward]').click();
  await expect(second.locator('[data-step-title]')).toContainText('Lift the cup off', {
    timeout: 1000,
  });
});

test('a swipe goes on and back', async ({ page, demo }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await begin(page, demo, 'Studio washer', 'softener-cup');
  const swipe = (from: number, to: number) =>
    page.evaluate(
      ([from, to]) => {
        const target = document.querySelector('nc-step h1')!;
        const touch = (clientX: number) =>
          new Touch({ identifier: 1, target, clientX, clientY: 400 });
        const send = (type: string, touches: Touch[], changedTouches: Touch[]) =>
          target.dispatchEvent(new TouchEvent(type, { touches, changedTouches, bubbles: true }));
        send('touchstart', [touch(from)], [touch(from)]);
        send('touchend', [], [touch(to)]);
      },
      [from, to] as const,
    );
  const title = page.locator('[data-step-title]');
  await swipe(300, 120);
  await expect(title).toContainText('Lift the cup off');
  await swipe(100, 130);
  await expect(title).toContainText('Lift the cup off');
  await swipe(80, 290);
  await expect(title).toContainText('Switch the machine off');
});

test('what soaks is not touched before its time, and no rinse is told while the machine cannot run', async ({
  page,
  demo,
}) => {
  test.slow();
  await begin(page, demo, 'Cellar washer', 'gasket-folds', 'pump-filter');
  await goTo(page, 'Mould or film left');
  await page.getByRole('button', { name: /^Mould remover with chlorine/ }).click();
  // The work that does not touch it comes meanwhile.
  await goTo(page, 'If it smells or is slimy');
  await page.getByRole('button', { name: /^Vinegar/ }).click();
  const stop = page.getByRole('alert');
  await expect(stop).toContainText('chlorine gas');
  await expect(stop).toContainText('No rinse can run yet: the pump filter is out, the plug is out');
  await expect(stop.getByRole('button', { name: /full rinse/ })).toHaveCount(0);
  await goTo(page, 'Dry the folds');
  const onward = page.locator('[data-onward]');
  await expect(onward).toBeDisabled();
  await expect(onward).toHaveText(/Wait 1\d:\d\d/);
  await page.reload();
  await expect(onward).toHaveText(/Wait 1\d:\d\d/);
  await page.getByRole('button', { name: 'It has had its time' }).click();
  await expect(onward).toBeEnabled();
});

test('a tower: from its first start, with the filter behind the lower front, to a finished visit and into trouble', async ({
  page,
  empty,
}) => {
  test.slow();
  await page.goto(empty.address);
  await page.getByLabel('Name of the household').fill('Loom House');
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByRole('radio', { name: /^tower/ }).check({ force: true });
  await page.getByLabel('Your name for it').fill('Hall tower');
  await page.getByLabel('Where it stands').fill('Hall');
  await page.getByLabel('Where is the pump filter reached?').selectOption('lower-front');
  await page.getByLabel('Electric or gas?').selectOption('gas');
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByRole('button', { name: 'Show what is due' }).click();
  await expect(page.getByRole('heading', { name: 'Your first visit: Hall' })).toBeVisible();

  const { id: machineId } = await machineCalled(empty, 'Hall tower');
  const visit = await empty.api<Visit>('runs', {
    tasks: ['pump-filter', 'duct-run'].map((task) => ({ machineId, task })),
  });
  await page.goto(`${empty.address}visit/${visit.id}`);
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  await goTo(page, 'Two of you: move the stack or tower');
  await goTo(page, 'Unscrew the whole lower front');
  await goTo(page, 'Pour two litres');
  await goTo(page, 'Hang the lower front');
  await goTo(page, 'feel round the joints');
  await goTo(page, 'open the gas valve, and brush soapy water');
  await goTo(page, 'Two of you: push the stack back');
  await goTo(page, 'Smell at the gas valve');
  await goTo(page, 'Is this right?');
  await page.getByRole('button', { name: 'Finish and record' }).click();
  await expect(page.getByRole('heading', { name: 'Done and recorded' })).toBeVisible();

  await page.goto(`${empty.address}trouble?machine=${machineId}`);
  await bySense(page, 'Feel');
  await page.getByRole('button', { name: 'The machine gets hotter than it used to' }).click();
  await page.getByRole('button', { name: 'None of these' }).click();
  await expect(
    page.getByText('Do not use this dryer until its air line was cleaned'),
  ).toBeVisible();
});
