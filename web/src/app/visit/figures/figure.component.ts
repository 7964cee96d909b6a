import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { FIGURES, type FigureId } from '@needlecase/core';
import { FIGURE_SHAPES } from './figures';
import { MIRROR } from './shapes';

/** A small drawing of what a step is about. */
@Component({
  selector: 'nc-figure',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 240 160" role="img" [attr.aria-label]="said()">
      <g [attr.transform]="mirrored()">
        @for (one of shapes(); track $index) {
          <path [class]="one.as" [attr.d]="one.d" />
        }
      </g>
    </svg>
  `,
  styles: `
    @use 'mixins' as *;

    svg {
      display: block;
      width: 100%;
      max-width: 20rem;
      @include patch;
      border-radius: 0.9rem;
      background: var(--face);
    }
    path {
      fill: none;
      stroke: var(--ink);
      stroke-width: 3;
      stroke-linecap: round;
      stroke-linejoin: round;
    }
    .soft {
      stroke: var(--seam);
      stroke-width: 2;
    }
    .thick {
      stroke-width: 7;
    }
    .solid {
      fill: var(--ink);
    }
    .water {
      fill: var(--water);
      stroke: none;
    }
    .air {
      stroke: var(--ink-soft);
      stroke-width: 2.5;
    }
    .go {
      stroke: var(--air);
      stroke-width: 4.5;
    }
  `,
})
export class FigureComponent {
  readonly figure = input.required<FigureId>();
  protected readonly said = computed(() => FIGURES[this.figure()]);
  protected readonly shapes = computed(() => FIGURE_SHAPES[this.figure()]);
  protected readonly mirrored = computed(() => (this.figure() === 'flap-right' ? MIRROR : null));
}
