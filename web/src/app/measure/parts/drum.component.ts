import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { COMMON_DRUM, type Drum } from '@needlecase/core';
import { SlideDirective, type Slide } from './slide.directive';

const CENTRE = 125;
const ROUND = 104;

/** A drum from the front, or a top loader's from the side, whose water is slid to where it stands. */
@Component({
  selector: 'g[nc-drum]',
  imports: [SlideDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg:g class="slides" [ncSlide]="slide()" (slid)="slid.emit($event)">
      @if (lying()) {
        <svg:clipPath id="drum"><svg:circle cx="125" cy="125" r="104" /></svg:clipPath>
        <svg:circle class="inside" cx="125" cy="125" r="104" />
        <svg:g clip-path="url(#drum)">
          <svg:rect
            class="water-fill"
            x="20"
            [attr.y]="top()"
            width="210"
            [attr.height]="229 - top()"
          />
        </svg:g>
        <svg:circle cx="125" cy="125" r="104" />
        <svg:circle class="wall" cx="125" cy="125" r="116" />
      } @else {
        <svg:rect class="inside" x="35" y="20" width="180" height="209" />
        <svg:rect
          class="water-fill"
          x="35"
          [attr.y]="top()"
          width="180"
          [attr.height]="229 - top()"
        />
        <svg:path d="M35 20V229H215V20" />
      }
      <svg:g class="hold" [attr.transform]="'translate(125 ' + top() + ')'">
        <svg:path class="surface" d="M-46 0H46" />
        <svg:circle class="button" r="15" />
        <svg:path class="arrow" d="M-5 -3l5 -5l5 5M-5 3l5 5l5 -5" />
      </svg:g>
    </svg:g>
  `,
  styles: `
    .slides {
      cursor: ns-resize;
    }
    .slides:focus {
      outline: none;
    }
    .inside {
      fill: transparent;
      pointer-events: all;
      stroke: none;
    }
    circle,
    path {
      fill: none;
      stroke: var(--ink);
      stroke-width: 2.5;
    }
    .wall {
      stroke: var(--seam);
      stroke-dasharray: 7 6;
    }
    .water-fill {
      fill: var(--water);
      fill-opacity: 0.35;
    }
    .surface {
      stroke: var(--water);
      stroke-linecap: round;
      stroke-width: 4;
    }
    .button {
      fill: var(--face);
      stroke: var(--edge);
    }
    .arrow {
      stroke-linecap: round;
      stroke-linejoin: round;
    }
    .slides:focus-visible .button {
      stroke: var(--ink);
      stroke-width: 4.5;
    }
  `,
})
export class DrumComponent {
  readonly drum = input<Drum>(COMMON_DRUM);
  readonly lying = input(true);
  /** Of the water, m over the drum's lowest point. */
  readonly height = input.required<number>();
  readonly label = input.required<string>();
  readonly said = input.required<string>();
  /** To which height it was slid, m. */
  readonly slid = output<number>();

  readonly #most = computed(() => (this.lying() ? 2 * this.drum().radius : this.drum().depth));
  protected readonly top = computed(() => {
    const share = this.#most() > 0 ? this.height() / this.#most() : 0;
    return CENTRE + ROUND - 2 * ROUND * Math.min(1, Math.max(0, share));
  });
  protected readonly slide = computed<Slide>(() => ({
    label: this.label(),
    said: this.said(),
    least: 0,
    most: this.#most(),
    step: 0.005,
    at: this.height(),
    grows: 'up',
    valueAt: ({ y }) => ((CENTRE + ROUND - y) / (2 * ROUND)) * this.#most(),
  }));
}
