import { afterRenderEffect, Directive, ElementRef, inject, signal } from '@angular/core';

/**
 * Keeps the words of a scaled drawing as large as all others: `--px` is how many units of the drawing a pixel of the
 * page is, so that `font-size: calc(14px * var(--px, 1))` is 14 pixels on a phone and on a desk.
 * @example <svg ncReadable #scale="ncReadable" viewBox="0 0 560 112">
 */
@Directive({
  selector: 'svg[ncReadable]',
  exportAs: 'ncReadable',
  host: { '[style.--px]': 'px()' },
})
export class ReadableDirective {
  /** Units of the drawing a pixel; 1 until it is drawn. */
  readonly px = signal(1);

  constructor() {
    const { nativeElement: svg } = inject<ElementRef<SVGSVGElement>>(ElementRef);
    afterRenderEffect((stop) => {
      if (typeof ResizeObserver === 'undefined') return;
      const seen = new ResizeObserver(([entry]) => {
        const { width } = entry!.contentRect;
        if (width > 0) this.px.set(Number((svg.viewBox.baseVal.width / width).toFixed(3)));
      });
      seen.observe(svg);
      stop(() => seen.disconnect());
    });
  }
}
