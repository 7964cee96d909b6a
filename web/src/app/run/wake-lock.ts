import { DestroyRef, effect, inject } from '@angular/core';

/**
 * Keeps the screen awake while a condition holds, where the browser can. Called while a component
 * is made; let go when it goes. A lock is lost when the page is hidden, so it is asked for again.
 */
export function keepAwake(wanted: () => boolean): void {
  if (!('wakeLock' in navigator)) return;
  let lock: WakeLockSentinel | undefined;
  let asked = false;
  const ask = async () => {
    if (!asked || document.visibilityState !== 'visible') return;
    lock = await navigator.wakeLock.request('screen').catch(() => undefined);
  };
  const letGo = () => {
    void lock?.release();
    lock = undefined;
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
