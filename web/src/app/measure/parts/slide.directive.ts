import { computed, Directive, ElementRef, inject, input, output } from '@angular/core';

/** What is slid in a drawing, and how far. */
export interface Slide {
  label: string;
  /** Where it stands, in words. */
  said: string;
  least: number;
  most: number;
  step: number;
  /** Where it stands; none while nobody told. */
  at: number | undefined;
  /** To which side of the screen it grows, for the arrow keys. */
  grows: 'right' | 'up' | 'down';
  /** The value at a point, in the units of the group that the part lies in. */
  valueAt: (point: { x: number; y: number }) => number;
}

/** Pages move by so many steps. */
const PAGE = 5;

/**
 * A part of a drawing that is slid along its own direction: by a finger, by a mouse, or by the arrow keys as any
 * slider is. Enter tells that it is as it stands.
 * @example <g [ncSlide]="bubble()" (slid)="tell($event)">
 */
@Directive({
  selector: '[ncSlide]',
  host: {
    role: 'slider',
    tabindex: '0',
    style: 'touch-action: none',
    '[attr.aria-label]': 'ncSlide().label',
    '[attr.aria-orientation]': "ncSlide().grows === 'right' ? 'horizontal' : 'vertical'",
    '[attr.aria-valuemin]': 'ncSlide().least',
    '[attr.aria-valuemax]': 'ncSlide().most',
    '[attr.aria-valuenow]': 'now()',
    '[attr.aria-valuetext]': 'ncSlide().said',
    '(keydown)': 'onKey($event)',
    '(pointerdown)': 'grasp($event)',
    '(pointermove)': 'follow($event)',
  },
})
export class SlideDirective {
  readonly ncSlide = input.required<Slide>();
  readonly slid = output<number>();

  readonly #part = inject<ElementRef<SVGGraphicsElement>>(ElementRef).nativeElement;
  protected readonly now = computed(() => {
    const { at, least, most } = this.ncSlide();
    return Math.min(most, Math.max(least, at ?? Math.max(0, least)));
  });

  protected grasp(event: PointerEvent): void {
    if (event.button !== 0) return;
    event.preventDefault();
    this.#part.focus({ preventScroll: true });
    this.#part.setPointerCapture(event.pointerId);
    this.follow(event);
  }

  protected follow(event: PointerEvent): void {
    if (!this.#part.hasPointerCapture(event.pointerId)) return;
    const onto = (this.#part.parentElement as unknown as SVGGraphicsElement).getScreenCTM();
    if (!onto) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(onto.inverse());
    this.#tell(this.ncSlide().valueAt(at));
  }

  protected onKey(event: KeyboardEvent): void {
    const { least, most, step, grows } = this.ncSlide();
    const up = grows === 'down' ? -1 : 1;
    const to: Record<string, number> = {
      ArrowRight: this.now() + step,
      ArrowLeft: this.now() - step,
      ArrowUp: this.now() + up * step,
      ArrowDown: this.now() - up * step,
      PageUp: this.now() + up * PAGE * step,
      PageDown: this.now() - up * PAGE * step,
      Home: least,
      End: most,
      Enter: this.now(),
      ' ': this.now(),
    };
    const value = to[event.key];
    if (value === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    this.#tell(value);
  }

  #tell(value: number): void {
    const { least, most, step } = this.ncSlide();
    const stepped = Math.round(value / step) * step;
    this.slid.emit(Number(Math.min(most, Math.max(least, stepped)).toFixed(6)));
  }
}
