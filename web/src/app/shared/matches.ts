import { DestroyRef, inject, signal, type Signal } from '@angular/core';

/** Whether the page matches a media query, as it changes. To be called where things are injected. */
export function matches(query: string): Signal<boolean> {
  const asked = matchMedia(query);
  const now = signal(asked.matches);
  const changed = ({ matches: is }: MediaQueryListEvent) => now.set(is);
  asked.addEventListener('change', changed);
  inject(DestroyRef).onDestroy(() => asked.removeEventListener('change', changed));
  return now;
}
