import { afterNextRender, ElementRef, inject, Injector } from '@angular/core';

/**
 * For the construction of a component: brings what was found into sight once it is drawn, for whoever stands there with
 * a phone and sees the button that they pressed.
 */
export function showFound(): () => void {
  const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  const injector = inject(Injector);
  return () =>
    afterNextRender(() => host.querySelector('.numbers')?.scrollIntoView?.({ block: 'center' }), {
      injector,
    });
}
