import type { Page } from '@playwright/test';
import { expect, House, test } from './house.js';
import { axeFaults } from './looks.js';

interface Visit {
  id: string;
  day: string;
  place: string;
  held: boolean;
  skipped?: string;
  window?: { from: string; to: string };
  tasks: { safety: boolean; name: string }[];
}
interface Year {
  start: string;
  visits: Visit[];
  absences: { from: string; to: string }[];
  minutes: number;
  taken: number;
}
const plan = (house: House) => house.api<Year>('plan');
const later = (day: string, days: number) =>
  new Date(Date.parse(`${day}T12:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);

test('keys that come faster than the page is drawn are all heard', async ({ page, demo }) => {
  const band = await open(page, demo);
  const { visits } = await plan(demo);
  const at = async () => (await chosen(page).getAttribute('id'))!.replace('visit-', '');
  const from = visits.findIndex(({ id }) => id === visits[0]!.id);
  // All in one turn: nothing is drawn between them.
  const press = (keys: [string, boolean][]) =>
    band.evaluate((element, all) => {
      for (const [key, shiftKey] of all) {
        element.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey, bubbles: true }));
      }
    }, keys);
  await press([['Home', false], ...Array<[string, boolean]>(4).fill(['ArrowRight', false])]);
  expect(await at()).toBe(visits[from + 4]!.id);
  const { day } = visits[from + 4]!;
  await press([
    ['m', false],
    ['ArrowRight', true],
    ['ArrowRight', false],
    ['ArrowRight', false],
  ]);
  expect(await page.getByLabel('To this day').inputValue()).toBe(later(day, 9));
});

/** The year as it stands, with the band in focus. */
async function open(page: Page, house: House) {
  await page.goto(`${house.address}plan`);
  await page.getByRole('button', { name: 'See Steady' }).click({ timeout: 20_000 });
  const band = page.getByRole('listbox');
  await band.focus();
  return band;
}
const chosen = (page: Page) => page.locator('[role=option][aria-selected=true]');

/** Goes from visit to visit until one has no work that keeps people safe, with nobody away in the week after. */
async function toHarmless(page: Page, { visits, absences }: Year): Promise<Visit> {
  for (let i = 0; i < visits.length; i++) {
    const id = (await chosen(page).getAttribute('id'))!.replace('visit-', '');
    const visit = visits.find((one) => one.id === id)!;
    const nobody = absences.some(({ from, to }) => from <= later(visit.day, 8) && visit.day <= to);
    const harmless = visit.tasks.every(({ safety }) => !safety);
    if (!nobody && harmless && visit.tasks.length > 1) return visit;
    await page.keyboard.press('ArrowRight');
  }
  throw new Error('There is no such visit.');
}

test('by the keyboard alone a visit is moved, pinned and left out, and each is told', async ({
  page,
  demo,
}) => {
  await open(page, demo);
  const visit = await toHarmless(page, await plan(demo));
  await page.keyboard.press('m');
  const told = page.locator('nc-plan p[role=status]');
  await expect(told).toContainText('Taken up');
  await page.keyboard.press('ArrowRight');
  await expect(told).not.toContainText('Taken up');
  await page.keyboard.press('Escape');
  await expect(told).toHaveText('Put back.');
  await page.keyboard.press('m');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByText('What the move does')).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(told).toHaveText('Laid down.');
  const to = later(visit.day, 7);
  const found = async () => (await plan(demo)).visits.find(({ id }) => id === visit.id)!;
  expect(await found()).toMatchObject({ day: to, held: true });

  // To the card, by its heading, and on to its buttons.
  await page.getByRole('listbox').focus();
  await expect(chosen(page)).toHaveAttribute('id', `visit-${visit.id}`);
  await page.keyboard.press('Enter');
  await expect(page.locator('nc-visit-card h2')).toBeFocused();
  const focused = page.locator(':focus');
  const press = async (name: string) => {
    for (let i = 0; i < 20 && (await focused.textContent())?.trim() !== name; i++) {
      await page.keyboard.press('Tab');
    }
    await expect(focused).toHaveText(name);
    await page.keyboard.press('Enter');
  };
  await press('More');
  await expect(focused).toHaveText('Let it move');

  // Another, on the day that it has: pinned and let go, it is where it was.
  await page.getByRole('listbox').focus();
  await page.keyboard.press('ArrowRight');
  const other = await toHarmless(page, await plan(demo));
  const standing = async () => (await plan(demo)).visits.find(({ id }) => id === other.id)!;
  await page.keyboard.press('Enter');
  await expect(page.locator('nc-visit-card h2')).toBeFocused();
  await press('More');
  await press('Pin to its day');
  await expect.poll(async () => (await standing()).held).toBe(true);
  await press('Let it move');
  await expect.poll(async () => (await standing()).held).toBe(false);
  await expect(page.getByRole('button', { name: 'Pin to its day' })).toBeVisible();
  await press('Leave out once');
  await expect(page.getByLabel('Why is it left out this once?')).toBeFocused();
  await page.keyboard.type('Nobody has time');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await standing()).skipped).toBe('Nobody has time');
  await expect(page.locator('nc-visit-card')).toContainText('Left out this once: Nobody has time');
});

test('a visit is dragged along the band, and what that does is told before it is dropped', async ({
  page,
  demo,
}) => {
  await open(page, demo);
  const visit = await toHarmless(page, await plan(demo));
  const ring = (await page.locator('nc-band .ring').boundingBox())!;
  const [x, y] = [ring.x + ring.width / 2, ring.y + ring.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 12, y, { steps: 4 });
  await page.mouse.move(x + 24, y, { steps: 6 });
  await page.mouse.up();
  await expect(page.locator('nc-visit-card')).toContainText('times a year');
  const day = await page.getByLabel('To this day').inputValue();
  expect(day > visit.day).toBe(true);
  await page.getByRole('button', { name: 'Drop it here' }).click();
  await expect
    .poll(async () => (await plan(demo)).visits.find(({ id }) => id === visit.id)?.day)
    .toBe(day);
});

test('what keeps people safe is moved past its date only when said twice', async ({
  page,
  demo,
}) => {
  await open(page, demo);
  const { visits } = await plan(demo);
  const safe = visits.find(({ tasks }) => tasks.some(({ safety }) => safety))!;
  while ((await chosen(page).getAttribute('id')) !== `visit-${safe.id}`) {
    await page.keyboard.press('ArrowRight');
  }
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  const day = later(safe.day, 62);
  await page.getByLabel('To this day').fill(day);
  await expect(page.locator('nc-visit-card')).toContainText('you are asked twice');
  await page.getByRole('button', { name: 'Drop it here' }).click();
  await expect(page.getByText('Say once more that you want it so.')).toBeVisible();
  expect((await plan(demo)).visits.find(({ id }) => id === safe.id)!.day).toBe(safe.day);
  await page.getByRole('button', { name: 'Yes, all the same' }).click();
  await expect
    .poll(async () => (await plan(demo)).visits.find(({ id }) => id === safe.id)?.day)
    .toBe(day);
});

test('a year of fewer hours is proposed, pulled along the curve, and taken', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}plan`);
  const before = await plan(demo);
  await expect(page.getByText('A year you could keep')).toBeVisible({ timeout: 20_000 });
  const slider = page.getByRole('slider');
  await expect(slider).toHaveAttribute('aria-busy', 'false', { timeout: 20_000 });
  await slider.focus();
  await page.keyboard.press('Home');
  const least = await slider.getAttribute('aria-valuetext');
  await page.keyboard.press('ArrowRight');
  await expect(slider).not.toHaveAttribute('aria-valuetext', least!);
  await page.getByRole('button', { name: 'Take this year' }).click();
  await expect(page.getByText('The year is planned by it now')).toBeVisible();
  const after = await plan(demo);
  expect(after.taken).toBeGreaterThan(10);
  expect(after.minutes).toBeLessThan(before.minutes);
  await expect(page.getByText('A year you could keep')).toBeHidden();
});

test('days away empty the year there; wrong ones are told beside their field', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}plan`);
  await page.getByRole('button', { name: 'When we are away' }).click();
  const { start } = await plan(demo);
  await page.getByLabel('First day away').fill(later(start, 150));
  await page.getByLabel('Last day away').fill(later(start, 140));
  await page.getByRole('button', { name: 'We are away then' }).click();
  await expect(page.getByText('This ends before it begins.')).toBeVisible();
  expect((await plan(demo)).absences).toHaveLength(3);
  await page.getByLabel('Last day away').fill(later(start, 161));
  await page.getByRole('button', { name: 'We are away then' }).click();
  await expect.poll(async () => (await plan(demo)).absences.length).toBe(4);
  const { visits } = await plan(demo);
  const within = visits.filter(({ day }) => day >= later(start, 150) && day <= later(start, 161));
  expect(within).toEqual([]);
  expect(await axeFaults(page)).toEqual([]);
});

test('no day, no minutes and an absurd way are told beside their fields; what is right is kept', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}plan`);
  await page.getByRole('button', { name: 'Days and people' }).click();
  for (const day of ['Sat', 'Sun']) {
    await page.getByLabel(day, { exact: true }).first().uncheck();
  }
  await page.getByRole('button', { name: 'Keep that' }).click();
  await expect(page.getByText('Tick one day at least')).toBeVisible();
  await page.getByLabel('Wed', { exact: true }).first().check();
  await page.getByLabel('Minutes at work in one visit').fill('0');
  await page.getByLabel('Minutes to fetch things').fill('9000');
  await page.getByRole('button', { name: 'Keep that' }).click();
  await expect(page.locator('nc-wishes .field-problem')).toHaveCount(2);
  expect((await demo.api<{ visitMinutes: number }>('household')).visitMinutes).toBe(90);
  expect(await axeFaults(page)).toEqual([]);
  await page.getByLabel('Minutes at work in one visit').fill('45');
  await page.getByLabel('Minutes to fetch things').fill('5');
  await page.getByRole('button', { name: 'Keep that' }).click();
  await expect
    .poll(async () => (await demo.api<{ visitMinutes: number }>('household')).visitMinutes)
    .toBe(45);
  const { visits, start } = await plan(demo);
  // What cannot wait is on the first day there is.
  for (const { day } of visits.filter((one) => one.day > later(start, 6))) {
    expect(new Date(`${day}T12:00:00Z`).getUTCDay()).toBe(3);
  }
});

test('an address for calendars is made and read; the panels are axe-clean', async ({
  page,
  demo,
}) => {
  await page.goto(`${demo.address}plan`);
  await page.getByRole('button', { name: 'Calendar, paper' }).click();
  await page.getByLabel('What is it for?').fill('My phone');
  await page.getByRole('button', { name: 'Make an address' }).click();
  const address = (await page.locator('.address').textContent())!.trim();
  const answer = await page.request.get(address);
  expect(answer.headers()['content-type']).toContain('text/calendar');
  expect(await answer.text()).toContain('BEGIN:VEVENT');
  expect(await axeFaults(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take back: My phone' }).click();
  await expect(page.getByText('My phone')).toBeHidden();
  expect((await page.request.get(address)).status()).toBe(404);
  await page.getByText('What if it were otherwise?').click();
  await expect(page.getByRole('button', { name: 'Look' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'As a list' }).click();
  await expect(page.getByRole('table').first()).toBeVisible();
  expect(await axeFaults(page)).toEqual([]);
});

test('the code on a machine opens it on a phone, and counts a load', async ({ page, demo }) => {
  const machines = await demo.api<{ id: string; name: string }[]>('machines');
  const dryer = machines.find(({ name }) => name === 'Cellar dryer')!;
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${demo.address}m/${dryer.id.replaceAll('-', '').slice(0, 6)}`);
  await expect(page.getByRole('heading', { name: 'Cellar dryer' })).toBeVisible();
  await page.getByRole('button', { name: 'One load more' }).click();
  await expect(page.getByText('1 today')).toBeVisible();
  await page.getByRole('link', { name: 'Something is wrong' }).click();
  await expect(page).toHaveURL(new RegExp(`trouble\\?machine=${dryer.id}`));
  await page.goto(`${demo.address}m/zzzzzz`);
  await expect(page.getByRole('heading', { name: 'No such machine here' })).toBeVisible();
});

test('on a phone a visit is opened over the cloth, and moved without dragging', async ({
  page,
  demo,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`${demo.address}plan`);
  await page.getByRole('button', { name: 'See Steady' }).click({ timeout: 20_000 });
  const { visits } = await plan(demo);
  const at = visits.findIndex(
    // Of the days of each week on which visits are, the first: the next day has room for it.
    ({ tasks, window, day }) =>
      window && later(day, 1) <= window.to && tasks.every(({ safety }) => !safety),
  );
  expect(at).toBeGreaterThanOrEqual(0);
  await page.locator('nc-cloth li button').nth(at).click();
  await page.getByRole('button', { name: 'Move', exact: true }).click();
  await page.getByRole('button', { name: 'A day later' }).click();
  await page.getByRole('button', { name: 'Drop it here' }).click();
  await expect
    .poll(async () => (await plan(demo)).visits.find(({ id }) => id === visits[at]!.id)?.day)
    .toBe(later(visits[at]!.day, 1));
  expect(await axeFaults(page)).toEqual([]);
});

test('a letter is sent to the post office that stands in, and read in the house', async ({
  page,
  demo,
}) => {
  await demo.kill();
  const house = new House(demo.file, { NEEDLECASE_POST_OFFICE: 'on' });
  await house.start();
  try {
    await page.goto(`${house.address}house/mail`);
    await page.getByLabel('Write to').fill('nobody');
    await page.getByRole('button', { name: 'Write there' }).click();
    await expect(page.locator('.field-problem')).toBeVisible();
    await page.getByLabel('Write to').fill('wren@loom.invalid');
    await page.getByRole('button', { name: 'Write there' }).click();
    await page.getByRole('button', { name: 'Send one now to wren@loom.invalid' }).click();
    await expect(page.getByText('The letter to wren@loom.invalid left.')).toBeVisible();
    const letter = page.locator('details', { hasText: 'Kiln Lane House' });
    await letter.locator('summary').click();
    await expect(letter).toContainText('Visits until');
    expect(await axeFaults(page)).toEqual([]);
    if (process.env['PICTURE']) await page.screenshot({ path: process.env['PICTURE'] });
    const stop = /No more letters: \S+(\/letters\/stop\/\S+)/.exec(
      (await letter.textContent())!,
    )![1]!;
    await page.goto(house.address + stop.slice(1));
    await page.getByRole('button', { name: 'No more letters' }).click();
    await expect(page.getByText('No more letters go out to this address.')).toBeVisible();
    const { recipients } = await house.api<{ recipients: unknown[] }>('mail');
    expect(recipients).toEqual([]);
  } finally {
    await house.kill();
  }
});

test('what another answers in the place of the server is told, and nothing stays in the air', async ({
  page,
  demo,
}) => {
  const page200 = { status: 200, contentType: 'text/html', body: '<html>Sign in</html>' };
  await page.route('**/api/v1/plan/problem**', (route) => route.fulfill(page200));
  await page.goto(`${demo.address}plan`);
  await expect(page.getByText('It cannot be reckoned without the server.')).toBeVisible();
  await expect(page.locator('nc-visit-card')).toBeVisible();
  await page.route('**/api/v1/plan', (route) => route.fulfill(page200));
  await page.reload();
  await expect(page.getByRole('alert')).toContainText('Something else answered');
});

test('what is typed stays when another tab changes the same, and no change is lost by it', async ({
  page,
  demo,
  context,
}) => {
  await page.goto(`${demo.address}plan`);
  await page.getByRole('button', { name: 'See Steady' }).click({ timeout: 20_000 });
  const card = page.locator('nc-visit-card');
  await card.getByRole('button', { name: 'Give' }).click();
  await page.getByLabel('Who does it?').fill('Wren and a friend');
  await page.getByRole('button', { name: 'Days and people' }).click();
  await page.getByLabel('Minutes to fetch things').fill('7');

  const { visits } = await demo.api<{ visits: { id: string; version: number }[] }>('plan');
  const { id, version } = visits[0]!;
  await demo.api(`plan/visits/${id}`, { who: 'Odo' }, { 'If-Match': `"${version}"` }, 'PUT');
  const other = await context.newPage();
  await other.goto(`${demo.address}plan`);
  await other.getByRole('button', { name: 'Days and people' }).click();
  await other.getByLabel('Minutes at work in one visit').fill('50');
  await other.getByRole('button', { name: 'Keep that' }).click();
  await expect(other.locator('nc-wishes')).toBeHidden();

  await expect(card).toContainText('Odo.');
  await expect(page.getByLabel('Who does it?')).toHaveValue('Wren and a friend');
  await expect(page.getByLabel('Minutes to fetch things')).toHaveValue('7');
  await page.getByRole('button', { name: 'Keep that' }).click();
  await expect(page.locator('nc-wishes .field-problem')).toBeVisible();
  const { visitMinutes } = await demo.api<{ visitMinutes: number }>('household');
  expect(visitMinutes).toBe(50);
});
