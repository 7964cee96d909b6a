import { DestroyRef, ElementRef, inject } from '@angular/core';

const FAR = 70;
const STEEP = 2;

/**
 * Tells of swipes of one finger across a component, not of those that begin in a field or that scroll.
 * Called while the component is made.
 */
export function onSwipe(done: { left: () => void; right: () => void }): void {
  const element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  let from: Touch | undefined;
  const start = (event: TouchEvent) => {
    const target = event.target as HTMLElement;
    const free = event.touches.length === 1 && !target.closest('input, textarea, select, label');
    from = free ? event.touches[0] : undefined;
  };
  const end = (event: TouchEvent) => {
    const to = event.changedTouches[0];
    if (!from || !to) return;
    const direction = swipeOf(to.clientX - from.clientX, to.clientY - from.clientY);
    from = undefined;
    if (direction) done[direction]();
  };
  element.addEventListener('touchstart', start, { passive: true });
  element.addEventListener('touchend', end, { passive: true });
  inject(DestroyRef).onDestroy(() => {
    element.removeEventListener('touchstart', start);
    element.removeEventListener('touchend', end);
  });
}

/** Which way a movement (CSS pixels) was a swipe; nothing where it was short or went up or down. */
export function swipeOf(across: number, down: number): 'left' | 'right' | undefined {
  if (Math.abs(across) < FAR || Math.abs(across) < STEEP * Math.abs(down)) return undefined;
  return across < 0 ? 'left' : 'right';
}
