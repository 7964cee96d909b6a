import { Directive, ElementRef, inject, type OnDestroy } from '@angular/core';

/**
 * Of a tap that comes twice, only the first counts: where choices close up or change after each, the second would
 * hit another one. `detail` of a click counts the taps that follow one another at the same place.
 */
@Directive()
export class SingleTaps implements OnDestroy {
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly #onlyFirst = (click: MouseEvent): void => {
    const button = (click.target as HTMLElement).closest('button');
    if (click.detail > 1 && button) click.stopPropagation();
  };

  constructor() {
    this.#host.addEventListener('click', this.#onlyFirst, true);
  }

  ngOnDestroy(): void {
    this.#host.removeEventListener('click', this.#onlyFirst, true);
  }
}
