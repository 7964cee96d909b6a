import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** How a figure stands, as the button of a station tells it: holes well, one stitch near, a cross bad. */
@Component({
  selector: 'nc-mark',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="-13 -13 26 26" width="26" height="26" role="img" [attr.aria-label]="words[is()]">
      <circle [class]="is()" r="11.500" />
      @if (is() === 'well') {
        <path class="holes" d="M-4-4h.01M4-4h.01M-4 4h.01M4 4h.01" />
      } @else {
        <path class="stitch" [class.bad]="is() === 'bad'" d="M-4.500 4.500L4.500-4.500" />
      }
      @if (is() === 'near') {
        <path class="holes" d="M-4-4h.01M4 4h.01" />
      }
      @if (is() === 'bad') {
        <path class="stitch bad" d="M-4.500-4.500L4.500 4.500" />
      }
    </svg>
  `,
  styles: `
    :host {
      display: inline-block;
      line-height: 0;
    }
    circle {
      fill: var(--linen-deep);
      stroke: var(--edge);
      stroke-width: 1.4;
    }
    circle.near {
      fill: var(--soon-fill);
    }
    circle.bad {
      fill: var(--due-fill);
    }
    .holes {
      stroke: var(--ink);
      stroke-linecap: round;
      stroke-width: 3.2;
    }
    .stitch {
      stroke: var(--ink);
      stroke-linecap: round;
      stroke-width: 3;
    }
    .stitch.bad {
      stroke: var(--on-due);
    }
  `,
})
export class MarkComponent {
  readonly is = input.required<'well' | 'near' | 'bad'>();
  protected readonly words = { well: 'well', near: 'near its limit', bad: 'past its limit' };
}
