import type { Signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { distinctUntilChanged, map, of, switchMap, timer } from 'rxjs';

/**
 * A count that is shown only once there has been something to count for a while: what comes and goes at
 * once does not flicker. It needs an injection context.
 */
export function lasting(count: Signal<number>, milliseconds: number): Signal<number> {
  const counts$ = toObservable(count);
  const shown$ = counts$.pipe(
    map((one) => one > 0),
    distinctUntilChanged(),
    switchMap((some) => (some ? timer(milliseconds).pipe(switchMap(() => counts$)) : of(0))),
  );
  return toSignal(shown$, { initialValue: 0 });
}
