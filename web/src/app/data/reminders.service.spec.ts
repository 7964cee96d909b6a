import { TestBed } from '@angular/core/testing';
import type { BenchView } from '@needlecase/core';
import { NEVER } from 'rxjs';
import { BenchService } from './bench.service';
import * as local from './local';
import { isQuiet, RemindersService } from './reminders.service';

const bench = (due: number): BenchView =>
  ({
    household: { zone: 'Europe/Vienna', name: 'Loom House' },
    states: [{ dues: Array.from({ length: due }, () => ({ status: 'due' })) }],
  }) as unknown as BenchView;
/** Ten in the morning in Vienna, so many days on. */
const morning = (days: number) => Date.UTC(2026, 10, 27 + days, 9);

describe('what a device says by itself', () => {
  let service: RemindersService;
  const shown: string[] = [];

  beforeEach(() => {
    localStorage.clear();
    shown.length = 0;
    class Notice {
      static permission = 'granted';
      static requestPermission = () => Promise.resolve('granted');
      constructor(_title: string, { body }: { body: string }) {
        shown.push(body);
      }
    }
    vi.stubGlobal('Notification', Notice);
    vi.stubGlobal('isSecureContext', true);
    TestBed.configureTestingModule({
      providers: [{ provide: BenchService, useValue: { bench$: NEVER } }],
    });
    service = TestBed.inject(RemindersService);
  });
  afterEach(() => vi.unstubAllGlobals());

  it('is nothing until somebody wants it, then once a day', async () => {
    expect(service.look(bench(3), morning(0))).toBe(false);
    await service.turnOn();
    expect(service.look(bench(0), morning(0))).toBe(false);
    expect(service.look(bench(3), morning(0))).toBe(true);
    expect(service.look(bench(4), morning(0) + 3_600_000)).toBe(false);
    expect(service.look(bench(4), morning(1))).toBe(true);
    await new Promise((done) => setTimeout(done));
    expect(shown).toEqual(['Loom House: 3 tasks due.', 'Loom House: 4 tasks due.']);
    service.turnOff();
    expect(service.look(bench(4), morning(2))).toBe(false);
  });

  it('is nothing in the quiet hours, which go over midnight', async () => {
    await service.turnOn();
    service.keep({ from: '21:00', to: '10:30' });
    expect(service.look(bench(1), morning(0))).toBe(false);
    expect(service.look(bench(1), morning(0) + 3_600_000)).toBe(true);
    expect(isQuiet('23:00', { from: '21:00', to: '08:00' })).toBe(true);
    expect(isQuiet('07:59', { from: '21:00', to: '08:00' })).toBe(true);
    expect(isQuiet('08:00', { from: '21:00', to: '08:00' })).toBe(false);
    expect(isQuiet('13:00', { from: '12:00', to: '14:00' })).toBe(true);
    expect(isQuiet('15:00', { from: '12:00', to: '14:00' })).toBe(false);
  });

  it('waits until the day that was named, also after the page was loaded anew', async () => {
    await service.turnOn();
    service.snooze('2026-11-29');
    expect(service.look(bench(1), morning(1))).toBe(false);
    expect(local.readLocal('quiet-until')).toBe('2026-11-29');
    expect(service.look(bench(1), morning(2))).toBe(true);
    service.snooze('');
    expect(local.readLocal('quiet-until')).toBeUndefined();
  });

  it('is nothing where the browser was told not to', async () => {
    vi.stubGlobal('Notification', {
      permission: 'denied',
      requestPermission: () => Promise.resolve('denied'),
    });
    await service.turnOn();
    expect(service.refused()).toBe(true);
    expect(service.look(bench(3), morning(0))).toBe(false);
  });
});
