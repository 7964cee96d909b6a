import { signal, type Signal } from '@angular/core';

/** Absent where no page is drawn. */
const ask = globalThis.matchMedia as typeof matchMedia | undefined;
const page = ask?.call(globalThis, '(max-width: 719px)');
const isNarrow = signal(page?.matches ?? false);
page?.addEventListener('change', () => isNarrow.set(page.matches));

/** Whether the page is as narrow as a phone. */
export const narrow: Signal<boolean> = isNarrow.asReadonly();
