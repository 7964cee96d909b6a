import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { ReadableDirective } from '../../charts/readable.directive';

export interface BandMark {
  at: number;
  say: string;
}

const WIDTH = 560;
const LEFT = 14;
const RIGHT = WIDTH - 14;
/** Size of the figure, and the width of a letter as a share of its size. */
const LARGE = 26;
const EM = 0.52;

/** A figure on its scale: where it stands, where it should, and marks such as this machine's own best. */
@Component({
  selector: 'nc-band',
  imports: [ReadableDirective],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg
      ncReadable
      #scale="ncReadable"
      [attr.viewBox]="'0 0 ' + width + ' ' + (68 + 40 * scale.px())"
      role="img"
      [attr.aria-label]="label()"
    >
      <rect class="track" [attr.x]="left" y="40" [attr.width]="right - left" height="16" rx="8" />
      <rect
        [class]="'good ' + line()"
        [attr.x]="x(good().from)"
        y="40"
        [attr.width]="x(good().to) - x(good().from)"
        height="16"
      />
      <text class="small" [attr.x]="middle()" [attr.y]="62 + 15 * scale.px()" text-anchor="middle">
        {{ good().say }}
      </text>
      @for (mark of marks(); track mark.say) {
        <path class="mark" [attr.d]="'M' + x(mark.at) + ' 34v28'" />
        <text
          class="small"
          [attr.x]="within(x(mark.at), mark.say, 14 * scale.px())"
          [attr.y]="64 + 34 * scale.px()"
          text-anchor="middle"
        >
          {{ mark.say }}
        </text>
      }
      @if (known(); as at) {
        <path class="needle" [attr.d]="'M' + x(at) + ' 66l-9 -38h18z'" />
        <text class="value" [attr.x]="within(x(at), said(), large)" y="20" text-anchor="middle">
          {{ said() }}
        </text>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    svg {
      width: 100%;
      height: auto;
      max-width: 44rem;
    }
    .track {
      fill: var(--track);
    }
    .good.air {
      fill: var(--air);
      opacity: 0.55;
    }
    .good.water {
      fill: var(--water);
      opacity: 0.55;
    }
    .needle {
      fill: var(--ink);
      stroke: var(--linen);
      stroke-width: 2;
    }
    .mark {
      stroke: var(--ink);
      stroke-width: 2.5;
      stroke-dasharray: 4 3;
    }
    text {
      fill: var(--ink);
      font-family: var(--sans);
    }
    .value {
      font-family: var(--serif);
      font-size: 26px;
    }
    text.small {
      font-size: calc(14px * var(--px, 1));
      fill: var(--ink-soft);
    }
  `,
})
export class BandComponent {
  readonly most = input.required<number>();
  readonly good = input.required<{ from: number; to: number; say: string }>();
  readonly value = input<number | null>();
  readonly said = input('');
  readonly marks = input<readonly BandMark[]>([]);
  readonly line = input<'air' | 'water'>('air');
  readonly label = input.required<string>();

  /** A template's safe navigation gives null. */
  protected readonly known = computed(() => this.value() ?? undefined);
  protected readonly width = WIDTH;
  protected readonly large = LARGE;
  protected readonly left = LEFT;
  protected readonly right = RIGHT;
  protected readonly middle = computed(
    () => (this.x(this.good().from) + this.x(this.good().to)) / 2,
  );

  protected x(value: number): number {
    const share = Math.min(1, Math.max(0, value / this.most()));
    return LEFT + share * (RIGHT - LEFT);
  }

  /** Where words stand that belong to a place of the scale, so that they end within the drawing. */
  protected within(x: number, words: string, size: number): number {
    const half = Math.min(WIDTH / 2, (words.length * size * EM) / 2);
    return Math.min(WIDTH - half, Math.max(half, x));
  }
}
