import { emptyProgress } from '@needlecase/core';
import { forgetClock, hearClock, instantNow, isClockKnown, notAhead, stamp, timed } from './clock';

const NOW = Date.parse('2026-06-15T10:00:00.000Z');
/** As a server says it whose clock is right, to a device that is off by so many seconds. */
const hear = (off: number) => {
  const here = Date.now();
  hearClock(new Date(here - off * 1000).toUTCString(), here - 40, here + 40);
};

describe('the clock of a device', () => {
  beforeEach(() => {
    vi.useFakeTimers({ now: NOW });
    forgetClock();
  });
  afterEach(() => {
    forgetClock();
    vi.useRealTimers();
  });

  it('is taken as it is until it was held against the server’s, and both are noted', () => {
    expect(isClockKnown()).toBe(false);
    const at = '2026-06-15T10:00:00.000Z';
    expect(stamp()).toEqual({ at, deviceAt: at });
    expect(timed(stamp())).toEqual({ at, deviceAt: at });
  });

  it.each([0, 1, -1, 2])('is right where it is off by %i s', (off) => {
    const before = stamp();
    hear(off);
    expect(stamp()).toEqual({ at: '2026-06-15T10:00:00.000Z' });
    expect(timed(before)).toEqual({ at: '2026-06-15T10:00:00.000Z' });
  });

  it.each([18 * 60, -18 * 60, 86_400, 30])(
    'that is off by %i s is made right, and both are kept',
    (off) => {
      const before = { ...stamp(), kind: 'load' };
      hear(off);
      const right = Date.parse(instantNow());
      expect(Math.abs(right - (NOW - off * 1000))).toBeLessThan(1000);
      const after = timed(before);
      expect(after).toMatchObject({ kind: 'load', deviceAt: before.deviceAt });
      expect(Math.abs(Date.parse(after.at) - right)).toBeLessThan(1000);
      expect(timed(after)).toBe(after);
      expect(stamp().deviceAt).toBe('2026-06-15T10:00:00.000Z');
    },
  );

  it('does not touch a time that somebody typed, nor heed what is no date', () => {
    hear(18 * 60);
    const typed = { at: '2026-06-01T10:00:00.000Z' };
    expect(timed(typed)).toBe(typed);
    forgetClock();
    hearClock(null, NOW, NOW);
    hearClock('soon', NOW, NOW);
    expect(isClockKnown()).toBe(false);
  });

  it('puts nothing of a visit later than now', () => {
    const late = '2026-06-15T10:10:00.000Z';
    const early = '2026-06-15T09:00:00.000Z';
    const progress = {
      ...emptyProgress(),
      ticked: { a: early, b: late },
      tasks: { t: { outcome: 'cleaned' as const, doneAt: late } },
      timers: { a: { startedAt: late, seconds: 60 } },
      brought: { a: { product: 'vinegar', at: late } },
      rinsed: { a: { entryId: 'e', at: late } },
    };
    hear(0);
    const right = notAhead(progress);
    expect(JSON.stringify(right)).not.toContain('10:10');
    expect(right.ticked['a']).toBe(early);
    expect(notAhead(right)).toBe(right);
  });
});
