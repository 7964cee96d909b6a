import type { Me, PairingCode, Person } from '@needlecase/core/model/access';
import { expect, machineCalled, pair, ready, test } from './house.js';

/* More than one person, more than one device. */

test('a second person: the page asks who you are, and from then on the log says who did what', async ({
  page,
  demo,
}) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  await page.goto(`${demo.address}house/phones`);
  await expect(page.getByText('Nothing but this computer reaches it')).toBeVisible();
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByLabel('And what are you called?').fill('Ilse');
  await page.getByLabel('Name', { exact: true }).fill(' ');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('A name is needed.')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Jon');
  await page.getByRole('radio', { name: /^Guest/ }).check();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Jon is stored.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Change Ilse' })).toBeVisible();

  await page.goto(demo.address);
  await page.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
  await expect(page.getByText('1 load counted: Cellar washer')).toBeVisible();
  await page.goto(`${demo.address}log?machine=${machineId}`);
  await expect(page.getByRole('listitem').filter({ hasText: 'Ilse' }).first()).toBeVisible();

  // The last keeper stays.
  await page.goto(`${demo.address}house/phones`);
  await page.getByRole('button', { name: 'Take out: Ilse' }).click();
  await expect(page.getByText(/Somebody has to keep this house/)).toBeVisible();
});

test('a guest’s phone counts loads, sees no settings, and is shut out at once when it is taken out', async ({
  page,
  context,
  browser,
  open: { house, plain },
}) => {
  await pair(page, plain, house.code);
  const asked = page.waitForResponse('**/api/v1/persons');
  await page.goto(`${plain}house/phones`);
  await asked;
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Mika');
  await page.getByRole('radio', { name: /^Guest/ }).check();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('button', { name: 'Make a code for Mika' }).click();
  const code = await page.locator('.letters').textContent();
  expect(code).toMatch(/^\w{4}-\w{4}$/);
  await expect(page.getByRole('img', { name: /QR code of http:\/\/house\.test/ })).toBeVisible();

  const phone = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const other = await phone.newPage();
  await pair(other, plain, code!);
  await ready(other);
  await expect(other.getByRole('link', { name: 'House' })).toHaveCount(0);
  await other.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
  await expect(other.getByText('1 load counted: Cellar washer')).toBeVisible();

  await page.goto(`${plain}house/phones`);
  const row = page
    .getByRole('listitem')
    .filter({ hasText: 'My computer' })
    .filter({ hasText: 'Mika' });
  await expect(row.getByText('Mika')).toBeVisible();
  await row.getByRole('button', { name: /^Take out/ }).click();
  await expect(page.getByText(/is shut out/)).toBeVisible();
  await other.getByRole('button', { name: /^Count a load of the Cellar washer/ }).click();
  await expect(other.getByText('1 not sent yet')).toBeVisible();
  await other.goto(plain);
  await expect(other.getByText('This device was taken out of the list.')).toBeVisible();
  await phone.close();
  // What it sent all the same waits for somebody's yes.
  await page.goto(`${plain}house/phones`);
  await expect(page.getByText('Sent by devices that were taken out')).toBeVisible();
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('It is in the log.')).toBeVisible();
  await expect(page.getByText('Sent by devices that were taken out')).toHaveCount(0);
  expect((await context.cookies()).map(({ name }) => name)).toEqual(['needlecase-weak']);
});

test('a link for the landlord shows one machine’s record, and can be taken back', async ({
  page,
  demo,
  browser,
}) => {
  await page.goto(`${demo.address}house/phones`);
  await page.getByRole('button', { name: 'Make a link' }).click();
  await expect(page.getByText('Say who it is for.')).toBeVisible();
  await page.getByLabel('Who it is for').fill('The landlord');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const address = await page.locator('.code .words').textContent();
  const other = await (await browser.newContext()).newPage();
  await other.goto(address!.trim());
  await expect(other.getByRole('heading', { name: 'Cellar washer' })).toBeVisible();
  const sheet = other.waitForEvent('download');
  await other.getByRole('link', { name: 'Open the sheet (PDF)' }).click();
  expect((await sheet).suggestedFilename()).toMatch(/\.pdf$/);
  await page.getByRole('button', { name: 'Take back the link for The landlord' }).click();
  await expect(page.getByText('not opened yet')).toHaveCount(0);
  await other.reload();
  await expect(other.getByText('This link was taken back')).toBeVisible();
});

test('a shared computer is signed in by a pass phrase', async ({ page, demo, browser }) => {
  const { code } = await demo.api<PairingCode>('codes', {});
  const me = await demo.api<Me>('pair', { code, device: 'A phone' });
  const put = (path: string, body: object) =>
    demo.api<Person>(`persons/${me.person!.id}${path}`, body, { 'If-Match': '"1"' }, 'PUT');
  await put('', { name: 'Ilse', thread: 'moss', role: 'keeper' });
  await put('/passphrase', { passphrase: 'four words of a house' });
  await demo.api('persons', { name: 'Jon', thread: 'rust', role: 'helper' });
  const other = await (await browser.newContext()).newPage();
  await other.goto(demo.address);
  await expect(other.getByRole('heading', { name: 'Let this device in' })).toBeVisible();
  await other.getByRole('button', { name: 'I have a pass phrase' }).click();
  await other.getByLabel('Your name').fill('ilse');
  await other.getByLabel('Your pass phrase').fill('four words of a horse');
  await other.getByRole('button', { name: 'Let it in' }).click();
  await expect(other.getByText('Name and pass phrase do not go together.')).toBeVisible();
  await other.getByLabel('Your pass phrase').fill('four words of a house');
  await other.getByRole('button', { name: 'Let it in' }).click();
  await expect(other.getByRole('button', { name: /^Count a load/ }).first()).toBeVisible();
  await other.goto(`${demo.address}pair`);
  await other.getByRole('button', { name: 'Sign this device out' }).click();
  await expect(other.getByRole('button', { name: 'Let it in' })).toBeVisible();
  await other.goto(demo.address);
  await expect(other.getByRole('heading', { name: 'Let this device in' })).toBeVisible();
  await page.goto(demo.address);
  await expect(page.getByRole('heading', { name: 'Let this device in' })).toBeVisible();
});
