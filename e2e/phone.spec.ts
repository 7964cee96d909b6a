import { writeFileSync, mkdirSync } from 'node:fs';
import { deflateSync } from 'node:zlib';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import type { CDPSession, Page, Route } from '@playwright/test';
import { expect, machineCalled, pair, ready, test, type House } from './house.js';
import { faultsIn, LOOKS } from './looks.js';
import config from './playwright.config.js';

/* The phone as an instrument, driven through the browser's own stand-ins for its sensors. */

const RATE = 48_000;
const HERE = join(tmpdir(), 'needlecase-sounds');
const SOUND = join(HERE, 'pump.wav');

/** A pump, over and over: twelve seconds of an even hum at 100 Hz, then four of slurping. */
function pumpFile(): void {
  const [flows, slurps] = [12, 4];
  const count = (flows + slurps) * RATE;
  const file = Buffer.alloc(44 + 2 * count);
  file.write('RIFF', 0);
  file.writeUInt32LE(36 + 2 * count, 4);
  file.write('WAVEfmt ', 8);
  for (const [at, value] of [
    [16, 16],
    [24, RATE],
    [28, 2 * RATE],
    [40, 2 * count],
  ] as const) {
    file.writeUInt32LE(value, at);
  }
  for (const [at, value] of [
    [20, 1],
    [22, 1],
    [32, 2],
    [34, 16],
  ] as const) {
    file.writeUInt16LE(value, at);
  }
  file.write('data', 36);
  for (let i = 0; i < count; i++) {
    const t = i / RATE;
    const gate = t < flows || Math.floor(t * 8) % 2 === 0 ? 1 : 0.1;
    file.writeInt16LE(Math.round(6000 * gate * Math.sin(2 * Math.PI * 100 * t)), 44 + 2 * i);
  }
  mkdirSync(HERE, { recursive: true });
  writeFileSync(SOUND, file);
}
pumpFile();

const launch = config.use!.launchOptions!;
test.use({
  launchOptions: {
    ...launch,
    args: [
      ...launch.args!,
      '--use-fake-device-for-media-stream',
      '--use-fake-ui-for-media-stream',
      `--use-file-for-fake-audio-capture=${SOUND}`,
      '--autoplay-policy=no-user-gesture-required',
    ],
  },
});

/** Everything that a page sends to the server but reading. */
function sent(page: Page): { path: string; body: string }[] {
  const all: { path: string; body: string }[] = [];
  page.on('request', (request) => {
    const { pathname } = new URL(request.url());
    if (request.method() !== 'GET') all.push({ path: pathname, body: request.postData() ?? '' });
  });
  return all;
}

/** A picture as a file: PNG, 8 bits, red, green and blue (ISO/IEC 15948). */
function png(width: number, height: number, at: (x: number, y: number) => number): Buffer {
  const rows = Buffer.alloc(height * (1 + 3 * width));
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++)
      rows.fill(at(x, y), y * (1 + 3 * width) + 1 + 3 * x, y * (1 + 3 * width) + 4 + 3 * x);
  }
  const chunk = (name: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(name, 'ascii'), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc(body));
    return Buffer.concat([length, body, sum]);
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', head),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}
function crc(data: Buffer): number {
  let sum = 0xffffffff;
  for (const byte of data) {
    sum ^= byte;
    for (let k = 0; k < 8; k++) sum = sum & 1 ? (sum >>> 1) ^ 0xedb88320 : sum >>> 1;
  }
  return (sum ^ 0xffffffff) >>> 0;
}

const lies = (session: CDPSession, beta: number, gamma: number): Promise<unknown> =>
  session.send('DeviceOrientation.setDeviceOrientationOverride', { alpha: 0, beta, gamma });

/** The phone lies so until it is told otherwise: its sensor goes on sending. */
function goesOn(session: CDPSession, beta: number, gamma: number): () => void {
  let on = true;
  const again = async (): Promise<void> => {
    for (let i = 0; on; i++) {
      await lies(session, beta + (i % 2 ? 0.02 : -0.02), gamma).catch(() => (on = false));
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
  };
  void again();
  return () => (on = false);
}

test('level: live, half round, into the feet, the bubble and the record', async ({
  page,
  demo,
  context,
}) => {
  test.setTimeout(90_000);
  await page.setViewportSize({ width: 390, height: 844 });
  const { id } = await machineCalled(demo, 'Cellar washer');
  await context.grantPermissions(['accelerometer', 'gyroscope', 'magnetometer']);
  const session = await context.newCDPSession(page);
  await page.goto(`${demo.address}measure/level?machine=${id}`);
  await ready(page);
  await page.getByRole('button', { name: 'Measure it with this phone' }).click();
  await page.getByLabel('This phone is called').fill('Odo’s phone');
  // The machine: its left 10 mm/m higher; the phone's own error: 5 mm/m to the other side.
  let still = goesOn(session, 0, 0.2865);
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByText('left higher')).toBeVisible();
  // Readable from two metres: 40 px of figure are some 7 mm, 12 minutes of arc there.
  const size = await page
    .locator('.figure b')
    .first()
    .evaluate((one) => parseFloat(getComputedStyle(one).fontSize));
  expect(size).toBeGreaterThan(64);
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.getByRole('button', { name: 'Measure for a minute' }).click();
  await page.getByRole('button', { name: 'That is enough' }).click({ timeout: 15_000 });
  await expect(page.getByText('turn the phone half round')).toBeVisible();
  still();
  still = goesOn(session, 0, -0.8594);
  await page.getByRole('button', { name: 'Turned half round: measure' }).click();
  await page.getByRole('button', { name: 'That is enough' }).click({ timeout: 15_000 });
  still();
  await expect(page.getByText(/^10 mm a metre, left higher/)).toBeVisible();
  await expect(page.getByText(/out, clockwise seen from above/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Keep it as a look at the feet' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Kept.' })).toBeVisible();
  const entries = await demo.api<{
    entries: { quantity?: string; value?: number; device?: string }[];
  }>(`entries?machine=${id}&kind=reading&limit=50`);
  const kept = entries.entries.find(({ quantity }) => quantity === 'phone-tilt');
  expect(kept).toMatchObject({ device: 'Odo’s phone', placement: 'on top' });
  // Browsers round to a tenth of a degree.
  expect(Math.abs(kept!.value! - 10)).toBeLessThan(1);
});

test('a sensor that sends nothing, or is refused, says so, and the bubbles stay', async ({
  page,
  demo,
}) => {
  await page.addInitScript(() => {
    Object.assign(DeviceOrientationEvent, { requestPermission: () => Promise.resolve('denied') });
  });
  await page.goto(`${demo.address}measure/level`);
  await ready(page);
  await page.getByRole('button', { name: 'Measure it with this phone' }).click();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'said no' })).toBeVisible();
  await page.evaluate(() => {
    Object.assign(DeviceOrientationEvent, { requestPermission: () => Promise.resolve('granted') });
  });
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'sends nothing' })).toBeVisible();
  await expect(page.getByRole('slider', { name: 'Bubble, left to right' })).toBeVisible();
});

/** Shakes the phone as a spin does, by events of the page, as often as a device sends them. */
const shakes = (page: Page, seconds: number, rate: number, hz: number): Promise<void> =>
  page.evaluate(
    ([lasts, perSecond, turns]) => {
      for (let i = 0; i < lasts * perSecond; i++) {
        const t = i / perSecond;
        const of = (shift: number) =>
          Math.round(10 * 2 * Math.sin(2 * Math.PI * turns * t + shift)) / 10;
        const event = new DeviceMotionEvent('devicemotion', {
          acceleration: { x: of(0), y: of(1), z: of(2) },
          interval: 1000 / perSecond,
        });
        Object.defineProperty(event, 'timeStamp', { value: 1000 + 1000 * t });
        dispatchEvent(event);
      }
    },
    [seconds, rate, hz] as const,
  );

/** The screen of an instrument, of one of the demo's machines. */
async function instrument(page: Page, house: House, name: string, machine: string): Promise<void> {
  const { id } = await machineCalled(house, machine);
  await page.goto(`${house.address}measure/${name}?machine=${id}`);
  await ready(page);
}

test('spin: by the browser’s own motion sensor, 60 times a second, rounded', async ({
  page,
  demo,
  context,
}) => {
  await context.grantPermissions(['accelerometer', 'gyroscope', 'magnetometer']);
  const session = await context.newCDPSession(page);
  await page.goto(`${demo.address}measure/spin`);
  await ready(page);
  const type = 'linear-acceleration';
  await session.send('Emulation.setSensorOverrideEnabled', { enabled: true, type });
  for (const other of ['accelerometer', 'gyroscope'] as const) {
    await session.send('Emulation.setSensorOverrideEnabled', { enabled: true, type: other });
    await session.send('Emulation.setSensorOverrideReadings', {
      type: other,
      reading: { xyz: { x: 0, y: 0, z: 9.8 } },
    });
  }
  let on = true;
  const spins = async (): Promise<void> => {
    // Five turns a second: what the browser samples, and what this loop sends, is late by some ms.
    while (on) {
      const x = 3 * Math.sin(2 * Math.PI * 5 * (performance.now() / 1000));
      await session
        .send('Emulation.setSensorOverrideReadings', { type, reading: { xyz: { x, y: 0, z: 0 } } })
        .catch(() => (on = false));
      await new Promise((resolve) => setTimeout(resolve, 6));
    }
  };
  const over = spins();
  await page.getByRole('button', { name: 'Feel the spin' }).click();
  await expect(page.getByText('Feeling, 10 s')).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'End it' }).click();
  on = false;
  await over;
  await expect(page.getByText(/^(29|30)\d rpm$/)).toBeVisible();
});

test('spin: its speed and shaking, against its own; 10 Hz is refused; a call in the middle', async ({
  page,
  demo,
}) => {
  test.setTimeout(90_000);
  await page.setViewportSize({ width: 390, height: 844 });
  const wrote = sent(page);
  await instrument(page, demo, 'spin', 'Cellar washer');
  await page.getByRole('button', { name: 'Feel the spin' }).click();
  await expect(page.getByText('Feeling, 0 s')).toBeVisible();
  await shakes(page, 20, 60, 20);
  await page.getByRole('button', { name: 'End it' }).click();
  await expect(page.getByText(/^1(19|20)\d rpm$/)).toBeVisible();
  await expect(page.getByText('The first of this phone in this place.')).toBeVisible();
  // On a phone too, what was found stands before the eyes of who pressed the button.
  await expect(page.locator('.numbers').first()).toBeInViewport();
  await page.getByRole('button', { name: 'Keep this spin' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Kept.' })).toBeVisible();
  // Nothing went out but the figures.
  const bodies = wrote.map(({ body }) => body).join('');
  expect(bodies).toContain('spin-shake');
  expect(bodies.length).toBeLessThan(2500);
  await page.getByRole('button', { name: 'Feel it once more' }).click();
  await expect(page.getByText('Feeling, 0 s')).toBeVisible();
  await shakes(page, 20, 60, 20);
  // A call hides the page: what was felt up to then counts.
  await page.evaluate(() => {
    Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true });
    document.dispatchEvent(new Event('visibilitychange'));
    Object.defineProperty(document, 'visibilityState', { value: 'visible', configurable: true });
  });
  await expect(page.getByText('As usual: 100 % of the one before.')).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  await page.getByRole('button', { name: 'Feel it once more' }).click();
  await expect(page.getByText('Feeling, 0 s')).toBeVisible();
  await shakes(page, 20, 10, 4);
  await page.getByRole('button', { name: 'End it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'fewer than 20 times' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep this spin' })).toBeDisabled();
});

test('sound: ten seconds, a recording that is seen, the hum’s tone, and only figures sent', async ({
  page,
  demo,
}) => {
  test.setTimeout(90_000);
  const wrote = sent(page);
  await instrument(page, demo, 'sound', 'Cellar washer');
  await page.getByRole('button', { name: 'Listen for ten seconds' }).click();
  await expect(page.getByText(/Recording, \d+ s left/)).toBeVisible();
  await expect(page.getByText(/Tones:/)).toContainText(/(99|100|101) Hz/, { timeout: 20_000 });
  await expect(page.getByText(/Recording,/)).toHaveCount(0);
  await expect(page.getByRole('link', { name: 'Keep the recording as a file' })).toBeVisible();
  await expect(page.getByText(/A hum at (99|100|101) Hz/)).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  expect(wrote).toEqual([]);
  await page.getByRole('button', { name: 'Keep this sound’s figures' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Kept.' })).toBeVisible();
  expect(wrote.map(({ body }) => body).join('').length).toBeLessThan(1500);
});

test('sound: a microphone that is refused says so', async ({ page, demo }) => {
  await page.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = () =>
      Promise.reject(new DOMException('no', 'NotAllowedError'));
  });
  await page.goto(`${demo.address}measure/sound`);
  await ready(page);
  await page.getByRole('button', { name: 'Listen for ten seconds' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'said no' })).toBeVisible();
});

test('a stopwatch that listens: the slurp is heard, and taken when the person says so', async ({
  page,
  demo,
}) => {
  test.setTimeout(90_000);
  await page.goto(`${demo.address}measure/drain-test`);
  await ready(page);
  await page.getByRole('button', { name: 'Let the phone listen for the end' }).click();
  await page.getByRole('button', { name: 'Switch the microphone on' }).click();
  await expect(page.getByText('The microphone is on.')).toBeVisible();
  await page.getByRole('button', { name: 'Start the watch' }).click();
  await expect(page.getByText('It began to slurp at')).toBeVisible({ timeout: 40_000 });
  await page.getByRole('button', { name: 'Yes, take it' }).click();
  const seconds = Number(await page.getByLabel('Time until it is empty').first().inputValue());
  expect(seconds).toBeGreaterThan(3);
  expect(seconds).toBeLessThan(32);
  await expect(page.getByText('The microphone is on.')).toHaveCount(0);
});

test('over plain http the sensors are out of reach: it says so, and what to do', async ({
  page,
  open: { house, plain },
}) => {
  await pair(page, plain, house.code);
  for (const [path, ...names] of [
    ['spin', 'Feel the spin'],
    ['sound', 'Listen for ten seconds'],
    ['level', 'Measure it with this phone', 'Begin'],
    ['drain-test', 'Let the phone listen for the end', 'Switch the microphone on'],
  ] as const) {
    await page.goto(`${plain}measure/${path}`);
    await ready(page);
    for (const name of names) await page.getByRole('button', { name, exact: true }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'safe address' })).toBeVisible();
    await expect(page.getByText(/Recording|Feeling/)).toHaveCount(0);
  }
});

test('what cannot be read of the record is not taken for the first figure', async ({
  page,
  demo,
}) => {
  for (const answer of [
    (route: Route) => route.fulfill({ contentType: 'text/html', body: '<h1>Sign in</h1>' }),
    (route: Route) => route.abort(),
  ]) {
    await page.route('**/charts', answer);
    await instrument(page, demo, 'spin', 'Cellar washer');
    await page.getByRole('button', { name: 'Feel the spin' }).click();
    await expect(page.getByText('Feeling, 0 s')).toBeVisible();
    await shakes(page, 20, 60, 20);
    await page.getByRole('button', { name: 'End it' }).click();
    await expect(page.getByText('cannot be read just now')).toBeVisible();
    await page.unroute('**/charts');
  }
});

/** A screen before a lamp: half of its pixels wire, and its right half shut where it is told. */
const screen = (shut: boolean): Buffer =>
  png(400, 300, (x, y) => {
    const inside = x >= 100 && x < 300 && y >= 75 && y < 225;
    if (!inside) return 230;
    return x % 4 < 2 || (shut && x >= 200) ? 8 : 230;
  });

test('light: a picture of a screen, its share, where it is shut, and what cannot be read', async ({
  page,
  demo,
}) => {
  test.setTimeout(90_000);
  const wrote = sent(page);
  await instrument(page, demo, 'light', 'Cellar dryer');
  const take = (buffer: Buffer) =>
    page
      .locator('input[type=file]')
      .setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer });
  await take(screen(false));
  const share = page.locator('.numbers b').first();
  await expect(share).toHaveText(/^(49|50|51) %$/);
  await page.getByRole('button', { name: 'Keep this light' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Kept.' })).toBeVisible();
  await take(screen(true));
  await expect(share).toHaveText(/^(24|25|26) %$/);
  await expect(page.getByText(/^Clearly off: 5[01] % of its best/)).toBeVisible();
  await page.getByRole('button', { name: 'runs through' }).click();
  await expect(page.getByText('light does not: lint or hair')).toBeVisible();
  await page.getByRole('button', { name: 'stands on it' }).click();
  await expect(page.getByText('lint and a film')).toBeVisible();
  expect(await faultsIn(page, LOOKS)).toEqual([]);
  // By the keyboard a corner is moved over the others: they cross, and nothing is told.
  const corner = page.getByRole('button', { name: /^Corner top left/ });
  await corner.focus();
  for (let i = 0; i < 16; i++) await page.keyboard.press('Shift+ArrowRight');
  for (let i = 0; i < 9; i++) await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByRole('alert').filter({ hasText: 'corners cross' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep this light' })).toBeDisabled();
  // A plate, or a screen that is wholly shut.
  await take(png(400, 300, (x, y) => (x >= 90 && x < 310 && y >= 65 && y < 235 ? 3 : 230)));
  await expect(page.getByRole('alert').filter({ hasText: 'No light passes' })).toBeVisible();
  await take(png(400, 300, () => 4));
  await expect(page.getByRole('alert').filter({ hasText: 'it is dark' })).toBeVisible();
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await expect(page.getByRole('alert').filter({ hasText: 'no picture' })).toBeVisible();
  // The pictures stayed here.
  expect(wrote.every(({ body }) => body.length < 1500)).toBe(true);
});
