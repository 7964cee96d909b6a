import type { Page, Route } from '@playwright/test';
import type { PairingCode, Person } from '@needlecase/core/model/access';
import { expect, goTo, machineCalled, pair, ready, test, type House } from './house.js';
import { faultsIn, LOOKS } from './looks.js';

/* Practice: a machine with a hidden fault, and visits walked through dry. */

/** Everything that a page sends to the server but reading. */
function sent(page: Page): string[] {
  const all: string[] = [];
  page.on('request', (request) => {
    const path = new URL(request.url()).pathname;
    if (path.startsWith('/api/') && request.method() !== 'GET') {
      all.push(`${request.method()} ${path}`);
    }
  });
  return all;
}

const GAME = {
  ...{ seed: 3, level: 'full' },
  machine: {
    ...{ name: 'Cellar washer', kind: 'front-load-washer' },
    features: { filterAccess: 'front-left', drainDownHose: 'yes' },
  },
};

/** The record as it stands: entries, visits, cases. */
const recordOf = (house: House) =>
  Promise.all(['entries', 'runs', 'cases', 'machines'].map((path) => house.api(path)));

/** A case as the device keeps it. */
async function keep(page: Page, address: string, game: unknown): Promise<void> {
  await page.goto(`${address}practice`);
  await page.evaluate(
    (kept) => localStorage.setItem('needlecase.practice.game', JSON.stringify(kept)),
    game,
  );
  await page.goto(`${address}practice/play`);
}

const press = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name }).first().press('Enter');

test('a case by the keyboard alone: stopped, flooded, taken back, mended, proved, asked five questions', async ({
  page,
  demo,
}) => {
  const before = await recordOf(demo);
  const wrote = sent(page);
  const from = Date.now();
  await page.goto(`${demo.address}practice`);
  await page.getByRole('radio', { name: /^Cellar washer/ }).press('Enter');
  await press(page, /^Full of water/);
  await page.waitForURL('**/practice/play');
  await keep(page, demo.address, { ...GAME, acts: [] });

  // The digits go to the pockets, the arrows along them.
  await expect(page.locator('[data-act="prep:unplugged"]')).toBeVisible();
  await page.keyboard.press('1');
  await expect(page.locator('[data-act="prep:unplugged"]')).toBeFocused();
  await page.keyboard.press('ArrowDown');
  await expect(page.locator('[data-act="prep:water-off"]')).toBeFocused();
  await page.locator('[data-act="look:open-filter"]').press('Enter');
  await expect(page.getByText('hand in, plug in')).toBeVisible();
  await page.locator('[data-act="prep:unplugged"]').press('Enter');
  await page.locator('[data-act="prep:cold"]').press('Enter');
  await expect(page.locator('[data-act="look:open-filter"]')).toContainText(/spills 14\.\d L/);
  await page.locator('[data-act="look:open-filter"]').press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'ran on the floor' })).toBeVisible();
  await expect(page.getByText('Floor: 14.2 L on it')).toBeAttached();
  await page.keyboard.press('z');
  await expect(page.getByText('Floor: dry')).toBeAttached();

  // What is begun lasts over a reload.
  await page.reload();
  await expect(page.getByText('Plug: out')).toBeAttached();
  await page.locator('[data-act="prep:let-out"]').press('Enter');
  await page.locator('[data-act="prep:flap-open"]').press('Enter');
  await page.locator('[data-act="fix:filter-clogged"]').press('Enter');
  await expect(page.locator('[data-act="prove:try"]')).toHaveAttribute('aria-disabled', 'true');
  await page.locator('[data-act="prep:unplugged"]').press('Enter');
  await page.locator('[data-act="prove:try"]').press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'It runs as it should.' })).toBeVisible();
  await page.locator('[data-act="prove:ready"]').press('Enter');
  await press(page, 'Finish: it is mended');

  await expect(page.getByRole('heading', { name: 'Mended, and proved.' })).toBeVisible();
  await expect(page.getByText('the pump filter is clogged').first()).toBeVisible();
  await expect(page.getByText('the plug is in').first()).toBeVisible();
  for (let i = 0; i < 5; i++) {
    await page
      .getByRole('region', { name: `Question ${i + 1} of 5` })
      .locator('.choice')
      .first()
      .press('Enter');
    await press(page, i < 4 ? 'Next' : 'Done');
  }
  await expect(page.getByText(/^[0-5] of 5 right\./)).toBeVisible();
  expect(Date.now() - from).toBeLessThan(5 * 60_000);
  expect(wrote).toEqual([]);
  expect(await recordOf(demo)).toEqual(before);
});

test('the guided case by the thumb, on a phone, from its offer to its end', async ({
  page,
  empty,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await empty.api('setup', {
    household: { name: 'H', zone: 'UTC', units: 'metric', school: 'steady', risk: 0.1 },
    machines: [
      {
        ...{ name: 'Washer', kind: 'front-load-washer', place: 'Kitchen', loadsPerWeek: 4 },
        ...{ habits: [], features: { filterAccess: 'front-left', drainDownHose: 'no' } },
      },
    ],
  });
  await page.goto(empty.address);
  await ready(page);
  const wrote = sent(page);
  await page.getByRole('button', { name: 'Practise it' }).click();
  await page.waitForURL('**/practice/play');
  let taps = 1;
  for (; taps < 25; taps++) {
    const now = page.locator('.dock button.now:not([role=tab])');
    if ((await now.count()) === 0) break;
    // Whoever is led sees in the dock what is next.
    await expect(now).toBeInViewport();
    await now.click();
    if (await page.getByRole('heading', { name: 'Mended, and proved.' }).isVisible()) break;
  }
  await expect(page.getByRole('heading', { name: 'Mended, and proved.' })).toBeVisible();
  expect(taps).toBeLessThan(20);
  expect(wrote).toEqual([]);
  // It was offered once.
  await page.goto(empty.address);
  await ready(page);
  await expect(page.locator('nc-practice-offer')).toBeAttached();
  await expect(page.getByRole('button', { name: 'Practise it' })).toHaveCount(0);
});

test('a repair step by step on the screens of a real visit: what is left out comes of it', async ({
  page,
  demo,
}) => {
  const wrote = sent(page);
  await keep(page, demo.address, {
    ...GAME,
    acts: ['prep:unplugged', 'prep:cold', 'prep:let-out'],
  });
  await page
    .locator('li')
    .filter({ has: page.locator('[data-act="fix:filter-clogged"]') })
    .getByRole('button', { name: 'step by step' })
    .click();
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  await expect(page.getByText('Dry run: nothing is recorded.')).toBeVisible();
  await goTo(page, 'Press the cap back on the hose');
  await page.getByRole('button', { name: 'Leave this out' }).click();
  await goTo(page, 'Is this right?');
  await page.getByRole('button', { name: 'End the dry run' }).click();
  await page.waitForURL('**/practice/play');
  await page.locator('[data-act="prove:try"]').click();
  await expect(
    page.getByRole('status').filter({ hasText: 'cap is off the thin hose' }),
  ).toBeVisible();
  expect(wrote).toEqual([]);
});

test('a look is made on Trouble’s own screen: not before its time, then the machine answers', async ({
  page,
  demo,
}) => {
  const wrote = sent(page);
  await keep(page, demo.address, { ...GAME, acts: ['prep:unplugged'] });
  await page.getByRole('button', { name: 'How: Is the pump filter clogged?' }).click();
  await page.waitForURL('**/practice/look/open-filter');
  await expect(page.getByRole('heading', { name: 'Is the pump filter clogged?' })).toBeVisible();
  await expect(page.getByText('Never open the filter all the way')).toBeVisible();
  await expect(page.locator('nc-figure svg')).toBeVisible();
  // The hand is stopped at what is hot, and that is told where the machine stands.
  await page.getByRole('button', { name: /^Look now/ }).click();
  await page.waitForURL('**/practice/play');
  await expect(page.locator('.last .stopped')).toBeVisible();
  await page.locator('[data-act="prep:cold"]').click();
  await page.locator('[data-act="prep:let-out"]').click();
  await page.getByRole('button', { name: 'How: Is the pump filter clogged?' }).click();
  await page.getByRole('button', { name: /^Look now/ }).click();
  await expect(page.getByText('You find: Is the pump filter clogged? Yes.')).toBeVisible();
  await page.getByRole('link', { name: 'Back to the case' }).click();
  await expect(page.locator('[data-act="look:open-filter"]')).toContainText('Done');
  await page.goto(`${demo.address}practice/look/no-such`);
  await expect(page.getByRole('heading', { name: 'There is no such look' })).toBeVisible();
  await page.goto(`${demo.address}practice/look/hose-kinked`);
  await expect(page.getByRole('button', { name: /^Look now/ })).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  expect(wrote).toEqual([]);
});

test('a figure that was taken stands in its real instrument, which says what the case said, and keeps nothing', async ({
  page,
  demo,
}) => {
  const wrote = sent(page);
  await keep(page, demo.address, { ...GAME, level: 'one', seed: 1, acts: [] });
  await page.locator('[data-act="measure:drain"]').click();
  const said = await page.getByRole('status').filter({ hasText: '15 L in' }).textContent();
  await page.getByRole('link', { name: 'Work it out on the instrument' }).click();
  await expect(page.getByRole('heading', { name: 'Drain test' })).toBeVisible();
  const seconds = Number(await page.getByLabel('Time until it is empty').first().inputValue());
  expect(Math.round(seconds)).toBe(Math.round(Number(/in ([\d.]+) s/.exec(said!)![1])));
  const verdict = await page.locator('.verdict').textContent();
  expect(said).toContain(verdict!.trim());
  await expect(page.getByRole('button', { name: 'Keep this reading' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Back to the case' }).click();
  await expect(page.locator('[data-act="measure:drain"]')).toBeVisible();
  expect(wrote).toEqual([]);
});

test('a real visit is walked through dry, says what would have come of a step left out, and is as it was', async ({
  page,
  demo,
}) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  const run = await demo.api<{ id: string }>('runs', {
    tasks: [{ machineId, task: 'pump-filter' }],
  });
  const before = await demo.api(`runs/${run.id}`);
  const wrote = sent(page);
  await page.goto(`${demo.address}visit/${run.id}`);
  await page.getByRole('link', { name: 'Walk through it dry first' }).click();
  await page.waitForURL('**/practice/dry**');
  await expect(page.getByText('Dry run: nothing is recorded.')).toBeVisible();
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  // The machine stands beside its steps, as they leave it.
  await goTo(page, 'Press the cap back on the hose');
  await expect(page.getByText('Plug: out')).toBeAttached();
  await expect(page.getByText('thin hose open')).toHaveCount(2);
  await page.goBack();
  await page.goto(`${demo.address}visit/${run.id}`);
  await page.getByRole('link', { name: 'Walk through it dry first' }).click();
  await page.getByRole('button', { name: 'Begin with the first step' }).click();
  await goTo(page, 'pull its plug');
  await page.getByRole('button', { name: 'Leave this out' }).click();
  await goTo(page, 'Is this right?');
  await page.getByRole('button', { name: 'End the dry run' }).click();
  await expect(page.getByRole('heading', { name: 'Walked through, with gaps' })).toBeVisible();
  await expect(page.getByText('the plug is in')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Question 1 of 5' })).toBeVisible();
  await page.getByRole('link', { name: 'To the real visit' }).click();
  await expect(page.getByRole('button', { name: 'Begin with the first step' })).toBeVisible();
  expect(wrote).toEqual([]);
  expect(await demo.api(`runs/${run.id}`)).toEqual(before);
});

test('practice writes nothing to the record, whoever plays and wherever', async ({
  page,
  browser,
  open: { house, plain },
}) => {
  test.setTimeout(120_000);
  await pair(page, plain, house.code);
  const keeper = <T>(path: string, body?: object): Promise<T> =>
    page.evaluate(
      async ([at, sends]) => {
        const answer = await fetch(`/api/v1/${at}`, {
          ...(sends ? { method: 'POST', body: JSON.stringify(sends) } : {}),
          headers: sends ? { 'Content-Type': 'application/json' } : {},
        });
        return (await answer.json()) as never;
      },
      [path, body] as const,
    );
  await keeper('persons', { name: 'Ilse', thread: 'moss', role: 'keeper' });
  const [{ id: machineId }] = await keeper<[{ id: string }]>('machines');
  const routes = [
    ...['practice', 'practice/play', 'practice/steps/filter-clogged'],
    'practice/look/open-filter',
    `practice/dry?tasks=${machineId}:pump-filter`,
  ];
  for (const role of ['helper', 'guest'] as const) {
    const person = await keeper<Person>('persons', { name: `A ${role}`, thread: 'rust', role });
    const { code } = await keeper<PairingCode>('codes', { personId: person.id });
    const context = await browser.newContext();
    const other = await context.newPage();
    await pair(other, plain, code);
    await ready(other);
    const before = await keeper('entries');
    const wrote = sent(other);
    await keep(other, plain, { ...GAME, acts: [] });
    for (const route of routes) {
      await other.goto(`${plain}${route}`);
      await expect(other.locator('main h1').first()).toBeVisible();
      // What leads elsewhere is walked by its own route.
      for (const button of await other.locator('main button:visible:not(.ask, .steps)').all()) {
        if (await button.isEnabled({ timeout: 400 }).catch(() => false))
          await button.click({ timeout: 400 }).catch(() => undefined);
      }
    }
    expect(wrote, role).toEqual([]);
    expect(await keeper('entries')).toEqual(before);
    await context.close();
  }
});

test('what the device kept wrongly begins nothing, and two tabs play one case', async ({
  page,
  context,
  demo,
}) => {
  for (const wrong of [
    '{',
    'null',
    '{"seed":-1}',
    JSON.stringify({ ...GAME, level: 'none', acts: [] }),
  ]) {
    await page.goto(`${demo.address}practice`);
    await page.evaluate((kept) => localStorage.setItem('needlecase.practice.game', kept), wrong);
    await page.goto(`${demo.address}practice/play`);
    await expect(page.getByRole('heading', { name: 'No case is begun' })).toBeVisible();
  }
  await keep(page, demo.address, { ...GAME, acts: [] });
  const other = await context.newPage();
  await other.goto(`${demo.address}practice/play`);
  await other.locator('[data-act="prep:unplugged"]').click();
  await expect(page.getByText('Plug: out')).toBeAttached();
});

test('a case is begun though the record answers with something else, or not at all', async ({
  page,
  demo,
}) => {
  const wrote = sent(page);
  const answers = [
    (route: Route) => route.fulfill({ contentType: 'text/html', body: '<h1>Sign in</h1>' }),
    () => undefined,
  ];
  for (const answer of answers) {
    await page.route('**/machines/*/trouble', answer);
    await page.goto(`${demo.address}practice`);
    await page.getByRole('radio', { name: /^Cellar washer/ }).click();
    await page.getByRole('button', { name: /^Full of water/ }).click();
    await expect(page.locator('[data-act="prep:unplugged"]')).toBeVisible();
    await page.unroute('**/machines/*/trouble');
  }
  expect(wrote).toEqual([]);
});

test('a case is begun and played without a server, on a device that keeps nothing', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}practice`);
  await expect(page.getByRole('radio', { name: /^Cellar washer/ })).toBeVisible();
  await page.evaluate(() => {
    Storage.prototype.setItem = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await page.route('**/api/**', (route) => route.abort());
  await page.getByRole('radio', { name: /^Cellar washer/ }).click();
  await page.getByRole('button', { name: /^Full of water/ }).click();
  await page.locator('[data-act="prep:unplugged"]').click();
  await expect(page.getByText('Plug: out')).toBeAttached();
  await page.locator('[data-act="prep:cold"]').click();
  await press(page, 'Let it rest');
  await expect(page.getByRole('region', { name: 'Question 1 of 5' })).toBeVisible();
});

test('practice looks right at every size and in both themes', async ({ page, demo }) => {
  test.setTimeout(120_000);
  await page.goto(`${demo.address}practice`);
  await expect(page.getByRole('button', { name: /^Full of water/ })).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  const acts = [
    'look:open-filter',
    'prep:unplugged',
    'prep:cold',
    'measure:tub',
    'look:hose-kinked',
  ];
  await keep(page, demo.address, { ...GAME, acts });
  await expect(page.getByText('Plug: out')).toBeAttached();
  await page.getByRole('button', { name: 'A meter’s plug' }).click();
  await expect(page.getByText('The meter notices: it ends with the pump running')).toBeVisible();
  // A load goes by while it is watched.
  await page.getByRole('button', { name: 'Watch it run' }).click();
  await expect(page.getByRole('timer')).toHaveText(/^\s*minute (?!1:)\d+: \d+ W\s*$/);
  await page.getByRole('button', { name: 'To its end' }).click();
  await expect(page.getByRole('timer')).toHaveCount(0);
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await keep(page, demo.address, { ...GAME, acts: [...acts, 'end:call'] });
  await expect(page.getByRole('heading', { name: /^You called somebody/ })).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
});
