import { DestroyRef, effect, inject } from '@angular/core';
import { holdScreen, type Held } from '../data/platform';

/**
 * Keeps the screen awake while a condition holds, where the browser can. Called while a component
 * is made; let go when it goes. A lock is lost when the page is hidden, so it is asked for again.
 */
export function keepAwake(wanted: () => boolean): void {
  let held: Held | undefined;
  let asked = false;
  const ask = async () => {
    if (asked && document.visibilityState === 'visible') held = await holdScreen();
  };
  const letGo = () => {
    held?.letGo();
    held = undefined;
  };
  effect(() => {
    asked = wanted();
    if (asked) void ask();
    else letGo();
  });
  const seen = () => void ask();
  document.addEventListener('visibilitychange', seen);
  inject(DestroyRef).onDestroy(() => {
    document.removeEventListener('visibilitychange', seen);
    asked = false;
    letGo();
  });
}
