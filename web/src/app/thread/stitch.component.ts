import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** It leans by so much of its length. */
const LEAN = 0.14;
/** A stitch of no minutes, and for each minute more; nobody draws longer ones than the cloth is wide. */
const LEAST = 5;
const A_MINUTE = 0.76;

/** How long a stitch of so many minutes is. */
export const stitchLength = (minutes: number, most: number, aMinute = A_MINUTE): number =>
  Math.min(most, LEAST + aMinute * minutes);

/**
 * One stitch round the origin: its length is minutes; water is a rope, air a double strand, so that nobody has to
 * tell them by colour. Dashed, it may come later; a knot at its head keeps people safe.
 */
@Component({
  selector: 'g[nc-stitch]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let e = ends();
    <svg:ellipse class="hole" [attr.cx]="e.x1" [attr.cy]="e.y1" rx="3.1" ry="2.5" />
    <svg:ellipse class="hole" [attr.cx]="e.x2" [attr.cy]="e.y2" rx="3.1" ry="2.5" />
    <svg:path
      [attr.class]="'thread ' + line()"
      [attr.d]="path()"
      [attr.stroke-width]="width()"
      [class.slips]="slips()"
    />
    <svg:path
      [attr.class]="'ply ' + line()"
      [attr.d]="path()"
      [attr.stroke-width]="line() === 'air' ? width() * 0.3 : width()"
    />
    @if (knot()) {
      <svg:g [attr.transform]="'translate(' + e.x2 + ',' + (e.y2 - 2) + ')'">
        <svg:circle class="knot" r="5.500" />
        <svg:path class="hook" d="M-3 0.550A3 3 0 1 1 1.100 2.750" />
      </svg:g>
    }
  `,
  styles: `
    .hole {
      fill: var(--ink);
      opacity: 0.42;
    }
    .thread {
      fill: none;
      stroke-linecap: round;
    }
    .thread.water {
      stroke: var(--water);
    }
    .thread.air {
      stroke: var(--air);
    }
    .thread.slips {
      stroke-linecap: butt;
      stroke-dasharray: 7 4;
    }
    .ply {
      fill: none;
      stroke: var(--face);
      opacity: 0.75;
      stroke-dasharray: 1.3 3.4;
    }
    .ply.air {
      stroke-dasharray: 9 2.2;
    }
    .knot {
      fill: var(--ink);
    }
    .hook {
      fill: none;
      stroke: var(--linen);
      stroke-width: 1.5;
      stroke-linecap: round;
    }
  `,
})
export class StitchComponent {
  readonly line = input.required<'water' | 'air'>();
  readonly length = input.required<number>();
  readonly knot = input(false);
  readonly slips = input(false);
  readonly width = input(5.4);
  /** Laid across: for a cloth that hangs. */
  readonly across = input(false);

  protected readonly ends = computed(() => {
    const half = this.length() / 2;
    const lean = LEAN * half;
    return this.across()
      ? { x1: -half, y1: -lean, x2: half, y2: lean }
      : { x1: -lean, y1: half, x2: lean, y2: -half };
  });
  protected readonly path = computed(() => {
    const { x1, y1, x2, y2 } = this.ends();
    return `M${x1} ${y1}L${x2} ${y2}`;
  });
}
