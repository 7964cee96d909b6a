import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { SlideDirective, type Slide } from './slide.directive';

/** mm/m to the end of the vial, and from line to line: a household level's. Judgement. */
const END = 10.5;
const LINES = [-9, -6, -3, 3, 6, 9] as const;
const HALF = 88;
const SCALE = HALF / END;
/** Half of the bubble is a line's distance: level, it stands between the two inner lines. */
const BUBBLE = 3 * SCALE;

/** A spirit level's vial, lying along its group's x, whose bubble is slid to where the person's own stands. */
@Component({
  selector: 'g[nc-vial]',
  imports: [SlideDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg:rect
      class="glass"
      [attr.x]="-half - 8"
      y="-17"
      [attr.width]="2 * half + 16"
      height="34"
      rx="17"
    />
    @for (line of lines; track line) {
      <svg:path class="line" [attr.d]="'M' + line * scale + ' -17v34'" />
    }
    <svg:g
      class="bubble"
      [class.told]="at() !== undefined"
      [ncSlide]="slide()"
      (slid)="slid.emit($event)"
    >
      <svg:rect
        class="reach"
        [attr.x]="-half - 8"
        y="-24"
        [attr.width]="2 * half + 16"
        height="48"
      />
      <svg:rect
        class="air"
        [attr.x]="x() - bubble"
        y="-11"
        [attr.width]="2 * bubble"
        height="22"
        rx="11"
      />
    </svg:g>
  `,
  styles: `
    .glass {
      fill: color-mix(in srgb, var(--water) 14%, var(--face));
      stroke: var(--edge);
      stroke-width: 2;
    }
    .line {
      stroke: var(--ink-soft);
      stroke-width: 1.5;
    }
    .reach {
      fill: transparent;
      pointer-events: all;
      stroke: none;
    }
    .bubble {
      cursor: grab;
    }
    .bubble:focus {
      outline: none;
    }
    .bubble .air {
      fill: none;
      stroke: var(--water);
      stroke-dasharray: 5 4;
      stroke-width: 2.5;
    }
    .bubble.told .air {
      fill: var(--water);
      stroke: none;
    }
    .bubble:focus-visible .air {
      stroke: var(--ink);
      stroke-dasharray: none;
      stroke-width: 3.5;
    }
  `,
})
export class VialComponent {
  /** mm/m, where the group's x goes to the higher side; none while nobody told. */
  readonly at = input.required<number | undefined>();
  readonly label = input.required<string>();
  readonly said = input.required<string>();
  /** Where the group's x points on the screen. */
  readonly grows = input<'right' | 'down'>('right');
  readonly slid = output<number>();

  protected readonly half = HALF;
  protected readonly lines = LINES;
  protected readonly scale = SCALE;
  protected readonly bubble = BUBBLE;
  protected readonly x = computed(
    () => SCALE * Math.max(BUBBLE / SCALE - END, Math.min(END - BUBBLE / SCALE, this.at() ?? 0)),
  );
  protected readonly slide = computed<Slide>(() => ({
    label: this.label(),
    said: this.said(),
    least: BUBBLE / SCALE - END,
    most: END - BUBBLE / SCALE,
    step: 0.5,
    at: this.at(),
    grows: this.grows(),
    valueAt: ({ x }) => x / SCALE,
  }));
}
