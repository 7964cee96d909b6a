import type { Me, PairingCode, Person } from '@needlecase/core/model/access';
import { expect, machineCalled, pair, ready, test } from './house.js';
import { faultsIn, LOOKS, plainFaults } from './looks.js';
import { snapshot } from './whole.js';

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
  await expect(page.getByText('Waits for your yes')).toBeVisible();
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('It is in the log.')).toBeVisible();
  await expect(page.getByText('Waits for your yes')).toHaveCount(0);
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

test('a technician leaves a note with a photo by a link, and it waits for a yes', async ({
  page,
  demo,
  browser,
}) => {
  const { id: machineId } = await machineCalled(demo, 'Cellar washer');
  await page.goto(`${demo.address}house/phones`);
  await page.getByLabel('Who it is for').fill('Mr Blau');
  await page.getByLabel(/May leave notes/).check();
  await page.getByRole('button', { name: 'Make a link' }).click();
  const address = (await page.locator('.code .words').textContent())!.trim();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  const theirs = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const other = await theirs.newPage();
  await other.goto(address);
  const leave = other.getByRole('button', { name: 'Leave it here' });
  await leave.click();
  await expect(other.getByText('Write a note, or choose a photo.')).toBeVisible();
  await other.getByLabel('Note').fill('The pump was changed.');
  await other.getByLabel('Photo').setInputFiles({
    name: 'IMG_2.jpg',
    mimeType: 'image/jpeg',
    buffer: await snapshot(other),
  });
  // A sign-in page of the network in between is no answer.
  await other.route('**/shared/*', (route) =>
    route.request().method() === 'POST'
      ? route.fulfill({ contentType: 'text/html', body: '<h1>Welcome</h1>' })
      : route.fallback(),
  );
  await leave.click();
  await expect(other.getByText('That was no answer of this house.')).toBeVisible();
  await other.unroute('**/shared/*');
  await leave.dblclick();
  await expect(other.getByText('It is left here, and waits')).toBeVisible();
  await expect(other.getByLabel('Note')).toHaveValue('');
  expect(await plainFaults(other)).toEqual([]);
  await theirs.close();

  await expect(page.getByRole('heading', { name: 'Waits for your yes' })).toBeVisible();
  const row = page.getByRole('listitem').filter({ hasText: 'Mr Blau: The pump was changed.' });
  await expect(row).toHaveCount(1);
  const photo = row.getByRole('img', { name: 'Photo from Mr Blau' });
  await expect.poll(() => photo.evaluate((it) => (it as HTMLImageElement).naturalWidth)).toBe(900);
  await row.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('It is in the log.')).toBeVisible();
  await page.goto(`${demo.address}log?machine=${machineId}`);
  const entry = page.getByRole('listitem').filter({ hasText: 'Mr Blau: The pump was changed.' });
  await expect(entry.getByRole('img', { name: 'Photo 1' })).toBeVisible();
});

test('a passkey lets its person in again, without a name or a phrase', async ({ page, demo }) => {
  const named = demo.address.replace('127.0.0.1', 'localhost');
  const lock = await page.context().newCDPSession(page);
  await lock.send('WebAuthn.enable');
  await lock.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  const { code } = await demo.api<PairingCode>('codes', {});
  await demo.api('persons', { name: 'Jon', thread: 'rust', role: 'helper' });
  await pair(page, named, code);
  await page.goto(`${named}house/phones`);
  await page.getByRole('button', { name: 'Make a passkey on this device' }).click();
  await expect(page.getByText(/^Passkey on /)).toBeVisible();
  await page.getByRole('button', { name: 'Make a passkey on this device' }).click();
  await expect(page.getByText('This device has a passkey of yours already.')).toBeVisible();
  await page.getByRole('link', { name: 'Sign this device out' }).click();
  await page.getByRole('button', { name: 'Sign this device out' }).click();
  await page.getByRole('button', { name: 'I have a passkey' }).click();
  await page.waitForURL(named);
  await expect(page.getByRole('button', { name: /^Count a load/ }).first()).toBeVisible();
  await page.goto(`${named}house/phones`);
  await expect(page.getByText(/, used /)).toBeVisible();
  await page.getByRole('button', { name: /^Take away the passkey/ }).click();
  await expect(page.getByText(/^Passkey on /)).toHaveCount(0);
  await page.getByRole('link', { name: 'Sign this device out' }).click();
  await page.getByRole('button', { name: 'Sign this device out' }).click();
  await page.getByRole('button', { name: 'I have a passkey' }).click();
  await expect(page.getByText('This passkey lets nobody in here.')).toBeVisible();
});

test('a helper is shown nothing that is refused, and what is their own', async ({
  page,
  browser,
  demo,
}) => {
  const { code } = await demo.api<PairingCode>('codes', {});
  const jon = await demo.api<Person>('persons', { name: 'Jon', thread: 'rust', role: 'helper' });
  await pair(page, demo.address, code);
  const made = await page.request.post(`${demo.address}api/v1/codes`, {
    data: { personId: jon.id },
  });
  const theirs = await (await browser.newContext()).newPage();
  const refused: string[] = [];
  const asked = new Set<object>();
  theirs.on('request', (one) => /\/api\/(?!v1\/changes)/.test(one.url()) && asked.add(one));
  theirs.on('requestfailed', (one) => asked.delete(one));
  theirs.on('requestfinished', (one) => asked.delete(one));
  theirs.on('response', (answer) => {
    if ([401, 403].includes(answer.status())) refused.push(new URL(answer.url()).pathname);
  });
  await pair(theirs, demo.address, ((await made.json()) as PairingCode).code);
  refused.length = 0;
  const parts = ['', '/supplies', '/codes', '/schools', '/backup', '/phones', '/about'];
  const all = ['', 'visit', 'trouble', 'measure', 'log', ...parts.map((part) => `house${part}`)];
  const settings =
    /^(Add a |Change|Keep to|Begin a sheet|Begin one|Make |Put away|Take away|Look at it)/;
  for (const path of all) {
    await theirs.goto(`${demo.address}${path}`);
    await ready(theirs);
    await expect.poll(() => asked.size).toBe(0);
    const shown = await theirs.getByRole('button', { name: settings }).allTextContents();
    if (path.startsWith('house'))
      expect(
        shown.map((one) => one.trim()),
        path,
      ).toEqual([]);
  }
  expect(refused).toEqual([]);
  await theirs.goto(`${demo.address}house/phones`);
  await expect(theirs.getByRole('heading', { name: 'Yours' })).toBeVisible();
  await expect(theirs.getByText('needs the https address with a name')).toBeVisible();
  await theirs.getByRole('button', { name: 'Set a pass phrase' }).click();
  await theirs.getByLabel('Pass phrase for a computer').fill('four words of a house');
  await theirs.getByRole('button', { name: 'Store it' }).click();
  await expect(theirs.getByText('Jon can sign in with it from now on.')).toBeVisible();
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
