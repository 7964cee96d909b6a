import { afterEach, describe, expect, it, vi } from 'vitest';
import { askToNotify, holdScreen, isSecure, locked, lockedIfFree, newId, notify } from './platform';

/** A browser that has no secure context has none of it. */
const plainHttp = () => {
  vi.stubGlobal('isSecureContext', false);
  vi.stubGlobal('crypto', { getRandomValues: crypto.getRandomValues.bind(crypto) });
  vi.stubGlobal('navigator', { userAgent: 'a phone' });
  vi.stubGlobal('Notification', undefined);
};

afterEach(() => vi.unstubAllGlobals());

describe('over plain http', () => {
  it('ids are made, each another', () => {
    plainHttp();
    const ids = new Set(Array.from({ length: 100 }, newId));
    expect(ids.size).toBe(100);
    for (const id of ids) {
      expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    }
  });

  it('work under a lock is done, a screen is not held, nothing is asked or told', async () => {
    plainHttp();
    expect(isSecure()).toBe(false);
    expect(await locked('a', () => Promise.resolve(7))).toBe(7);
    const work = vi.fn(() => Promise.resolve());
    await lockedIfFree('a', work);
    expect(work).toHaveBeenCalledOnce();
    expect(await holdScreen()).toBeUndefined();
    askToNotify();
    await notify('The time is up.');
  });
});

describe('in a secure context', () => {
  it('a lock that another tab has is left', async () => {
    const work = vi.fn(() => Promise.resolve());
    const request = (_name: string, _how: object, then: (lock: unknown) => Promise<unknown>) =>
      then(null);
    vi.stubGlobal('navigator', { locks: { request } });
    expect(await lockedIfFree('a', work)).toBe(false);
    expect(work).not.toHaveBeenCalled();
  });

  it('a screen that is refused is no fault', async () => {
    const request = () => Promise.reject(new Error('not now'));
    vi.stubGlobal('navigator', { wakeLock: { request } });
    expect(await holdScreen()).toBeUndefined();
  });

  it('a notice goes through the worker where there is one', async () => {
    const showNotification = vi.fn(() => Promise.resolve());
    const getRegistration = () => Promise.resolve({ active: {}, showNotification });
    vi.stubGlobal('Notification', { permission: 'granted' });
    vi.stubGlobal('navigator', { serviceWorker: { getRegistration } });
    await notify('Soaking: the time is up.');
    expect(showNotification).toHaveBeenCalledWith('Needlecase', {
      body: 'Soaking: the time is up.',
      icon: 'icon-180.png',
    });
  });
});
