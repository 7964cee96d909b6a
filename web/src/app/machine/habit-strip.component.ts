import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { HabitRow } from '@needlecase/core';
import { LoadsService } from '../data/loads.service';

/**
 * What is done with each load, as a light strip of seven days. Empty days are only empty: nothing is
 * counted against anybody.
 */
@Component({
  selector: 'nc-habit-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (part of parts(); track part.when) {
      <div class="part">
        <h3>{{ part.when === 'before' ? 'Before each load' : 'After each load' }}</h3>
        <ul>
          @for (row of part.rows; track row.habit) {
            <li>
              <button
                type="button"
                class="habit"
                [class.kept]="row.days[6]"
                [attr.aria-pressed]="row.days[6]"
                [attr.aria-label]="
                  row.name + (row.days[6] ? ', noted today' : ', note it for today')
                "
                [disabled]="row.days[6]"
                (click)="keep(row)"
              >
                <svg viewBox="0 0 18 18" aria-hidden="true">
                  <circle cx="9" cy="9" r="7.500" />
                  @if (row.days[6]) {
                    <path d="M5 9.500L8 12.500L13 6" />
                  }
                </svg>
                {{ row.name }}
              </button>
              <svg class="week" viewBox="0 0 84 14" role="img" [attr.aria-label]="said(row)">
                <path class="thread" d="M4 7H80" />
                @for (day of row.days; track $index) {
                  <circle [class.kept]="day" [attr.cx]="6 + $index * 12" cy="7" r="4" />
                }
              </svg>
              <span class="why soft small">{{ row.why }}</span>
            </li>
          }
        </ul>
      </div>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(19rem, 1fr));
      gap: 0.4rem 2rem;
    }

    h3 {
      font-size: 1.05rem;
      margin: 0 0 0.2rem;
    }

    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }

    li {
      display: grid;
      grid-template-columns: 1fr 5.6rem;
      align-items: center;
      gap: 0 0.6rem;
      padding: 0.2rem 0;
    }

    .habit {
      display: flex;
      align-items: center;
      gap: 0.55rem;
      min-height: 2.6rem;
      padding: 0.2rem 0.6rem 0.2rem 0;
      border: 0;
      background: none;
      color: var(--ink);
      font-weight: 600;
      text-align: left;
    }

    .habit svg {
      width: 1.35rem;
      flex: none;
      fill: var(--face);
      stroke: var(--ink);
      stroke-width: 1.8;
    }

    .habit:hover:not(:disabled) circle {
      fill: var(--linen-deep);
    }

    .habit.kept circle {
      fill: var(--water);
      stroke: var(--water);
    }

    .habit.kept path {
      fill: none;
      stroke: var(--linen);
      stroke-width: 2.2;
      stroke-linecap: round;
    }

    .week {
      width: 5.6rem;
    }

    .week .thread {
      stroke: var(--seam);
      stroke-width: 1.5;
    }

    .week circle {
      fill: var(--linen);
      stroke: var(--seam);
      stroke-width: 1.5;
    }

    .week circle.kept {
      fill: var(--water);
      stroke: var(--water);
    }

    .why {
      grid-column: 1 / -1;
      padding-left: 1.9rem;
      margin-top: -0.3rem;
    }
  `,
})
export class HabitStripComponent {
  readonly #loads = inject(LoadsService);
  readonly rows = input.required<readonly HabitRow[]>();

  protected readonly parts = computed(() =>
    (['before', 'after'] as const)
      .map((when) => ({ when, rows: this.rows().filter((row) => row.when === when) }))
      .filter(({ rows }) => rows.length),
  );

  protected said({ days }: HabitRow): string {
    return `Noted on ${days.filter(Boolean).length} of the last seven days`;
  }

  protected keep(row: HabitRow): void {
    void this.#loads.keep(row);
  }
}
