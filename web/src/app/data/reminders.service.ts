import { inject, Injectable, signal } from '@angular/core';
import { dayOf, many, type BenchView } from '@needlecase/core';
import { BenchService } from './bench.service';
import { allowNotices, canNotify, mayNotify, notify } from './platform';
import { readLocal, removeLocal, writeLocal } from './local';

/** When a device speaks up. */
export interface ReminderSetting {
  on: boolean;
  /** Quiet from and to, `HH:MM`. */
  from: string;
  to: string;
}

const USUAL: ReminderSetting = { on: false, from: '21:00', to: '08:00' };

/** Whether a time of day lies in the quiet hours, which may go over midnight. */
export function isQuiet(now: string, { from, to }: Pick<ReminderSetting, 'from' | 'to'>): boolean {
  return from <= to ? from <= now && now < to : now >= from || now < to;
}

/** What there is to say: how much is due, and whether some of it keeps people safe. */
export function dueIn({ states }: Pick<BenchView, 'states'>): { due: number; safety: number } {
  const due = states.flatMap(({ dues }) => dues.filter(({ status }) => status === 'due'));
  return { due: due.length, safety: due.filter(({ safety }) => safety).length };
}

/** One message a day where something is due, while the program is open or comes to the front. Nothing is sent from outside. */
@Injectable({ providedIn: 'root' })
export class RemindersService {
  readonly possible = canNotify();
  readonly setting = signal<ReminderSetting>({
    ...USUAL,
    ...readLocal<ReminderSetting>('reminders'),
  });
  readonly quietUntil = signal<string | undefined>(readLocal<string>('quiet-until'));
  readonly refused = signal(false);
  readonly #bench = inject(BenchService);
  #started = false;

  /** Looks at the bench each time it is read, from now on. */
  start(): void {
    if (this.#started) return;
    this.#started = true;
    this.#bench.bench$.subscribe(({ value }) => {
      if (value) this.look(value);
    });
  }

  async turnOn(): Promise<void> {
    const allowed = await allowNotices();
    this.refused.set(!allowed);
    if (allowed) this.keep({ on: true });
  }

  turnOff(): void {
    this.keep({ on: false });
  }

  keep(change: Partial<ReminderSetting>): void {
    this.setting.update((setting) => ({ ...setting, ...change }));
    writeLocal('reminders', this.setting());
    this.start();
  }

  /** Nothing is said before a day; again at once where none is named. */
  snooze(day: string): void {
    this.quietUntil.set(day || undefined);
    if (day) writeLocal('quiet-until', day);
    else removeLocal('quiet-until');
  }

  /** Says once a day what is due, unless it is quiet. @param now instant, milliseconds */
  look(bench: BenchView, now = Date.now()): boolean {
    const { on } = this.setting();
    if (!on || !mayNotify()) return false;
    const { zone, name } = bench.household;
    const today = dayOf(now, zone);
    const time = new Intl.DateTimeFormat('en-GB', {
      timeZone: zone,
      hour: '2-digit',
      minute: '2-digit',
    }).format(now);
    const until = this.quietUntil();
    if (isQuiet(time, this.setting()) || (until !== undefined && today < until)) return false;
    if (readLocal<string>('reminded-on') === today) return false;
    const { due, safety } = dueIn(bench);
    if (due === 0) return false;
    writeLocal('reminded-on', today);
    const safe = safety === 1 ? 'one of them keeps' : `${safety} of them keep`;
    void notify(`${name}: ${many(due, 'task')} due${safety ? `; ${safe} people safe` : ''}.`);
    return true;
  }
}
