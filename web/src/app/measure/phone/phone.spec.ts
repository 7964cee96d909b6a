import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Observable } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { growthOf, sayAgainst } from './own-figures';
import { motions, orientations, SENSOR_WORDS, sounds, type NoSensor } from './sensors';
import { ThisPhone } from './this-phone';
import { wavOf } from './wav';
import { WhichPhoneComponent } from './which-phone.component';

const phone = (): ThisPhone => TestBed.inject(ThisPhone);

beforeEach(() => {
  localStorage.clear();
  TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
});

describe('this phone', () => {
  it('is called what its owner says, and keeps it on the device', () => {
    expect(phone().name()).toMatch(/^Phone [0-9a-z]{3}$/);
    phone().call('  Odo’s phone ');
    phone().call('   ');
    expect(phone().name()).toBe('Odo’s phone');
    TestBed.resetTestingModule();
    expect(phone().name()).toBe('Odo’s phone');
  });

  it('is not taken for another that nobody named either, and keeps its name', () => {
    const first = phone().name();
    TestBed.resetTestingModule();
    expect(phone().name()).toBe(first);
    localStorage.clear();
    TestBed.resetTestingModule();
    expect(phone().name()).not.toBe(first);
  });

  it.each(['{', '7', '{"across":"x"}', 'null', '{"across":null,"along":2}'])(
    'has no error of its own where the device kept %s',
    (kept) => {
      localStorage.setItem('needlecase.phone.own-tilt', kept);
      expect(phone().ownTilt()).toBeUndefined();
    },
  );

  it('keeps its own error', () => {
    phone().calibrated({ across: -5, along: 2 });
    TestBed.resetTestingModule();
    expect(phone().ownTilt()).toEqual({ across: -5, along: 2 });
  });

  it('is asked for with its place, where there are several', async () => {
    const fixture = TestBed.createComponent(WhichPhoneComponent);
    fixture.componentRef.setInput('places', ['on the lid', 'at the side']);
    fixture.componentRef.setInput('place', 'on the lid');
    await fixture.whenStable();
    const host = fixture.nativeElement as HTMLElement;
    const [first, second] = host.querySelectorAll('button');
    expect(first!.getAttribute('aria-pressed')).toBe('true');
    second!.click();
    await fixture.whenStable();
    expect(fixture.componentInstance.place()).toBe('at the side');
    const field = host.querySelector('input')!;
    field.value = ' ';
    field.dispatchEvent(new Event('change'));
    expect(field.value).toBe(phone().name());
  });
});

describe('a sensor', () => {
  const told = (stream: Observable<unknown>) => {
    const all: unknown[] = [];
    let why: NoSensor | undefined;
    const listening = stream.subscribe({
      next: (one: unknown) => all.push(one),
      error: (problem: { why: NoSensor }) => (why = problem.why),
    });
    return { all, why: () => why, stop: () => listening.unsubscribe() };
  };
  const secure = (is: boolean) => vi.stubGlobal('isSecureContext', is);
  /** Until what asks for permission has been answered. */
  const asked = () => vi.advanceTimersByTimeAsync(0);

  beforeEach(() => {
    vi.useFakeTimers();
    vi.stubGlobal('DeviceOrientationEvent', class {});
    vi.stubGlobal('DeviceMotionEvent', class {});
  });
  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });
  const sends = (type: string, told: object) => dispatchEvent(Object.assign(new Event(type), told));

  it('is not to be had over plain http, and says what is', async () => {
    secure(false);
    for (const stream of [orientations(), motions(), sounds()]) {
      const heard = told(stream);
      await asked();
      expect(heard.why()).toBe('insecure');
    }
    expect(SENSOR_WORDS.insecure).toContain('https');
  });

  it('that is missing, or refused, says so', async () => {
    secure(true);
    vi.stubGlobal('DeviceOrientationEvent', undefined);
    const missing = told(orientations());
    await asked();
    expect(missing.why()).toBe('missing');
    vi.stubGlobal(
      'DeviceMotionEvent',
      class {
        static requestPermission = () => Promise.resolve('denied');
      },
    );
    const refused = told(motions());
    await asked();
    expect(refused.why()).toBe('refused');
  });

  it('that sends nothing, or nothing but blanks, is silent after three seconds', async () => {
    secure(true);
    const heard = told(orientations());
    await asked();
    sends('deviceorientation', { beta: null, gamma: null });
    await vi.advanceTimersByTimeAsync(2900);
    expect(heard.why()).toBeUndefined();
    await vi.advanceTimersByTimeAsync(200);
    expect(heard.why()).toBe('silent');
    expect(heard.all).toEqual([]);
  });

  it('is heard until nobody listens any more', async () => {
    secure(true);
    const heard = told(motions());
    await asked();
    const event = { acceleration: { x: 1, y: 2, z: 3 }, timeStamp: 5 };
    dispatchEvent(
      Object.defineProperties(
        new Event('devicemotion'),
        Object.fromEntries(Object.entries(event).map(([name, value]) => [name, { value }])),
      ),
    );
    expect(heard.all).toEqual([{ at: 5, x: 1, y: 2, z: 3 }]);
    heard.stop();
    sends('devicemotion', { acceleration: { x: 1, y: 1, z: 1 } });
    expect(heard.all.length).toBe(1);
  });

  it('without linear acceleration gives what it has, gravity with it', async () => {
    secure(true);
    const heard = told(motions());
    await asked();
    sends('devicemotion', {
      acceleration: { x: null, y: null, z: null },
      accelerationIncludingGravity: { x: 0, y: 0, z: 9.8 },
    });
    expect(heard.all).toMatchObject([{ x: 0, y: 0, z: 9.8 }]);
    heard.stop();
  });
});

describe('a recording as a file', () => {
  it('has the head that players read, and its samples', async () => {
    const file = await wavOf(Float32Array.from([0, 0.5, -2]), 8000).arrayBuffer();
    const view = new DataView(file);
    const text = (at: number) =>
      String.fromCharCode(...Array.from({ length: 4 }, (_, i) => view.getUint8(at + i)));
    expect([text(0), text(8), text(12), text(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data']);
    expect([view.getUint32(4, true), view.getUint32(24, true), view.getUint32(40, true)]).toEqual([
      42, 8000, 6,
    ]);
    expect([44, 46, 48].map((at) => view.getInt16(at, true))).toEqual([0, 16384, -32767]);
  });
});

describe('how a figure grows', () => {
  const year = 365.25 * 86_400_000;
  const over = (...values: number[]) =>
    values.map((value, i) => ({ at: (i * year) / (values.length - 1), loads: i, value }));

  it('is its share of itself in a year, by hand', () => {
    expect(growthOf(over(2, 2.1, 2.2, 2.3, 2.4))).toBeCloseTo(0.2, 2);
    // A single odd one moves nothing.
    expect(growthOf(over(2, 2, 9, 2, 2))).toBeCloseTo(0, 9);
  });

  it('is not told of a few, or of nothing', () => {
    expect(growthOf(over(2, 3))).toBeUndefined();
    expect(growthOf([])).toBeUndefined();
    expect(growthOf(over(0, 0, 0, 0, 0))).toBeUndefined();
  });
});

describe('a figure against its own, in words', () => {
  it.each([
    [undefined, 'The first of this phone in this place.'],
    [{ is: 'worse', own: 50, of: 3, change: 9.4 }, 'Clearly off: 9 dB above the middle of the 3'],
    [{ is: 'better', own: 50, of: 1, change: -9 }, 'Better: 9 dB below the one before.'],
  ] as const)('%j', (one, said) => {
    expect(sayAgainst('sound-level', one)).toContain(said);
  });
});
