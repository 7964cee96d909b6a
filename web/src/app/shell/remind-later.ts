import type { Injector } from '@angular/core';
import { readLocal } from '../data/local';

/** After what the first page needs, ms. */
const LATER_MS = 4000;

/** Where somebody wants to be told, what is due is looked at after a while. */
export function remindLater(injector: Injector): void {
  if (!readLocal<{ on: boolean }>('reminders')?.on) return;
  setTimeout(() => {
    import('../data/reminders.service').then(
      ({ RemindersService }) => injector.get(RemindersService).start(),
      () => undefined,
    );
  }, LATER_MS);
}
