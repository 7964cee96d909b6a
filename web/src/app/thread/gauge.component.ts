import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { StationState } from '@needlecase/core';
import { arcPath, FULL, notch, overOf } from './geometry';

/**
 * One station as a button on the thread, drawn round the origin. The ring is its gauge: the arc is
 * the fouling expected now, the faint arc the uncertainty, the notch the limit; an open ring is not
 * known yet. The stitches tell the state without colour: none is fine, one is soon, a cross is due.
 */
@Component({
  selector: 'g[nc-gauge]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let r = radius();
    @let s = state();
    @if (s.status === 'none') {
      <svg:circle class="bead" [attr.r]="r * 0.36" />
    } @else {
      <svg:circle class="rim" [attr.r]="r" />
      @if (s.fouling; as fouling) {
        <svg:path class="track" [attr.d]="track()" />
        <svg:path class="range" [attr.d]="range()" />
        <svg:path class="level" [attr.d]="level()" />
        @if (over()) {
          <svg:path class="over" [attr.d]="over()" />
        }
        <svg:line
          class="notch"
          [attr.x1]="limit()[0].x"
          [attr.y1]="limit()[0].y"
          [attr.x2]="limit()[1].x"
          [attr.y2]="limit()[1].y"
        />
      } @else {
        <svg:circle class="open" [attr.r]="r * 0.83" />
      }
      <svg:circle class="dish" [attr.r]="r * 0.5" />
      @if (s.status === 'off') {
        <svg:line class="bar" [attr.x1]="-r * 0.26" [attr.x2]="r * 0.26" y1="0" y2="0" />
      } @else if (s.status === 'unknown') {
        <svg:text class="ask" text-anchor="middle" [attr.y]="r * 0.26" [attr.font-size]="r * 0.74">
          ?
        </svg:text>
      } @else {
        @for (hole of holes(); track $index) {
          <svg:circle class="hole" [attr.cx]="hole.x" [attr.cy]="hole.y" [attr.r]="r * 0.085" />
        }
        @if (s.status !== 'fine') {
          <svg:line
            class="stitch"
            [attr.stroke-width]="r * 0.13"
            [attr.x1]="-h()"
            [attr.y1]="h()"
            [attr.x2]="h()"
            [attr.y2]="-h()"
          />
        }
        @if (s.status === 'due') {
          <svg:line
            class="stitch"
            [attr.stroke-width]="r * 0.13"
            [attr.x1]="-h()"
            [attr.y1]="-h()"
            [attr.x2]="h()"
            [attr.y2]="h()"
          />
        }
      }
    }
  `,
  host: { '[class]': "'gauge ' + state().line + ' ' + state().status" },
})
export class GaugeComponent {
  readonly state = input.required<StationState>();
  readonly radius = input.required<number>();

  readonly #inner = computed(() => this.radius() * 0.66);
  readonly #outer = computed(() => this.radius() * 0.96);
  protected readonly h = computed(() => this.radius() * 0.19);
  protected readonly holes = computed(() => {
    const h = this.h();
    return [-1, 1].flatMap((x) => [-1, 1].map((y) => ({ x: x * h, y: y * h })));
  });
  protected readonly track = computed(() => arcPath(0, FULL, this.#inner(), this.#outer()));
  protected readonly level = computed(() =>
    arcPath(0, this.state().fouling?.median ?? 0, this.#inner(), this.#outer()),
  );
  /** Past the full ring: one more, outside it, as far as it is fouled past that. */
  protected readonly over = computed(() => {
    const share = overOf(this.state().fouling?.median ?? 0);
    if (share === 0) return '';
    const r = this.radius() * 1.22;
    const angle = Math.min(share, 0.999) * 2 * Math.PI;
    const [x, y] = [r * Math.sin(angle), -r * Math.cos(angle)];
    return `M0,${-r}A${r},${r} 0 ${share > 0.5 ? 1 : 0} 1 ${x.toFixed(1)},${y.toFixed(1)}`;
  });
  protected readonly range = computed(() => {
    const { low = 0, high = 0 } = this.state().fouling ?? {};
    return arcPath(low, high, this.#inner(), this.#outer());
  });
  protected readonly limit = computed(() => notch(1, this.#inner() * 0.94, this.radius() * 1.12));
}
