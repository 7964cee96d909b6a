import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { weekdayOf, type Day } from '@needlecase/core';

const STEP = 18;
const LENGTH = 7;
const BASE = 30;
/** So many are drawn one over the other; more are told by their number. */
const MOST = 3;
const LETTERS = 'MTWTFSS';

/** Loads of seven days as stitches over their days, today on an inked base. */
@Component({
  selector: 'nc-tally',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 126 46" width="126" height="46" aria-hidden="true">
      @for (one of drawn(); track $index) {
        <g [attr.transform]="'translate(' + one.x + ',0)'">
          <path [class.today]="one.today" class="base" d="M-6 30H6" />
          @for (y of one.stitches; track y) {
            <path [attr.class]="'stitch ' + line()" [attr.d]="'M-2 ' + y + 'l4 -7'" />
          }
          @if (one.many) {
            <text class="many" y="26" text-anchor="middle">{{ one.many }}</text>
          }
          <text class="day" y="44" text-anchor="middle" [class.today]="one.today">
            {{ one.letter }}
          </text>
        </g>
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }
    .base {
      stroke: var(--edge);
      stroke-width: 1.6;
    }
    .base.today {
      stroke: var(--ink);
      stroke-width: 2.6;
    }
    .stitch {
      stroke-linecap: round;
      stroke-width: 4.4;
    }
    .water {
      stroke: var(--water);
    }
    .air {
      stroke: var(--air);
    }
    .day {
      fill: var(--ink-soft);
      font-size: 13px;
    }
    .many {
      fill: var(--ink);
      font-size: 14px;
      font-weight: 650;
    }
    .day.today {
      fill: var(--ink);
      font-weight: 700;
    }
  `,
})
export class TallyComponent {
  /** Loads of each day, today last. */
  readonly days = input.required<readonly number[]>();
  readonly today = input.required<Day>();
  readonly line = input.required<'water' | 'air'>();

  protected readonly drawn = computed(() => {
    const days = this.days();
    const weekday = weekdayOf(this.today());
    return days.map((count, i) => {
      const ago = days.length - 1 - i;
      return {
        x: 9 + i * STEP,
        letter: LETTERS[(((weekday - 1 - ago) % 7) + 7) % 7],
        today: ago === 0,
        many: count > MOST ? String(count) : '',
        stitches:
          count > MOST ? [] : Array.from({ length: count }, (_, n) => BASE - 2 - n * (LENGTH + 2)),
      };
    });
  });
}
