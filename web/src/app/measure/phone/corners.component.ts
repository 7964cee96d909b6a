import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  inject,
  input,
  model,
} from '@angular/core';
import type { Corner } from '@needlecase/core/measure/phone/light';

const STEP = 4;
const NAMES = ['top left', 'top right', 'bottom right', 'bottom left'] as const;

/** Four corners over a picture, each dragged by a finger or moved by the arrow keys; in the picture’s pixels. */
@Component({
  selector: 'svg[nc-corners]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg:polygon [attr.points]="points()" />
    @for (one of corners(); track $index; let i = $index) {
      <svg:g
        role="button"
        tabindex="0"
        [attr.aria-label]="'Corner ' + names[i] + ' of the mesh; arrow keys move it'"
        [attr.transform]="'translate(' + one.x + ' ' + one.y + ')'"
        (pointerdown)="grasp($event)"
        (pointermove)="follow(i, $event)"
        (keydown)="onKey(i, $event)"
      >
        <svg:circle class="reach" [attr.r]="26 * px()" />
        <svg:circle class="dot" [attr.r]="12 * px()" />
      </svg:g>
    }
  `,
  styles: `
    :host {
      inset: 0;
      position: absolute;
      touch-action: none;
    }
    polygon {
      fill: none;
      stroke: var(--due);
      stroke-dasharray: 3% 2%;
      stroke-width: 0.6%;
    }
    g {
      cursor: grab;
      touch-action: none;
    }
    .reach {
      fill: transparent;
    }
    .dot {
      fill: color-mix(in srgb, var(--linen) 55%, transparent);
      stroke: var(--due);
      stroke-width: 0.7%;
    }
    g:focus-visible {
      outline: none;
    }
    g:focus-visible .dot {
      fill: var(--due);
    }
  `,
  host: { '[attr.viewBox]': "'0 0 ' + width() + ' ' + height()" },
})
export class CornersComponent {
  readonly #svg = inject<ElementRef<SVGSVGElement>>(ElementRef).nativeElement;

  /** Of the picture, pixels. */
  readonly width = input.required<number>();
  readonly height = input.required<number>();
  readonly corners = model.required<readonly Corner[]>();

  protected readonly names = NAMES;
  protected readonly points = (): string =>
    this.corners()
      .map(({ x, y }) => `${x},${y}`)
      .join(' ');
  /** Pixels of the picture a pixel of the page. */
  protected readonly px = (): number => this.width() / Math.max(1, this.#svg.clientWidth || 360);

  protected grasp(event: PointerEvent): void {
    event.preventDefault();
    const part = event.currentTarget as SVGGElement;
    part.focus({ preventScroll: true });
    part.setPointerCapture(event.pointerId);
  }

  protected follow(i: number, event: PointerEvent): void {
    if (!(event.currentTarget as SVGGElement).hasPointerCapture(event.pointerId)) return;
    const onto = this.#svg.getScreenCTM();
    if (!onto) return;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(onto.inverse());
    this.#move(i, { x, y });
  }

  protected onKey(i: number, event: KeyboardEvent): void {
    const step = STEP * this.px() * (event.shiftKey ? 5 : 1);
    const by = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    }[event.key];
    if (!by) return;
    event.preventDefault();
    const { x, y } = this.corners()[i]!;
    this.#move(i, { x: x + by[0]!, y: y + by[1]! });
  }

  #move(i: number, { x, y }: Corner): void {
    const within = (value: number, most: number): number =>
      Math.round(Math.min(most - 1, Math.max(0, value)));
    const to = { x: within(x, this.width()), y: within(y, this.height()) };
    this.corners.update((all) => all.map((one, k) => (k === i ? to : one)));
  }
}
