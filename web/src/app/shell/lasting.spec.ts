import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { lasting } from './lasting';

describe('a count that lasts', () => {
  beforeEach(() => vi.useFakeTimers());
  afterEach(() => vi.useRealTimers());

  function show() {
    const count = signal(0);
    const shown = TestBed.runInInjectionContext(() => lasting(count, 1000));
    const after = (ms: number, next?: number) => {
      if (next !== undefined) count.set(next);
      TestBed.tick();
      vi.advanceTimersByTime(ms);
      return shown();
    };
    return after;
  }

  it('is not shown while it comes and goes', () => {
    const after = show();
    expect(after(900, 1)).toBe(0);
    expect(after(900, 0)).toBe(0);
    expect(after(900, 2)).toBe(0);
    expect(after(5000, 0)).toBe(0);
  });

  it('is shown once it lasts, and follows from then on', () => {
    const after = show();
    expect(after(600, 1)).toBe(0);
    expect(after(600, 2)).toBe(2);
    expect(after(0, 3)).toBe(3);
    expect(after(0, 0)).toBe(0);
  });
});
