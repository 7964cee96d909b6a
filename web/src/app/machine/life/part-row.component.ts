import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { sayDay, type Money } from '@needlecase/core';
import type { PartView } from '@needlecase/core/views/life';
import { stretchesOf, type Scale } from './years';

const WIDE = 1000;

/** A part along the years: its thread, where it was replaced, when it is due; opened, what there is to know of it. */
@Component({
  selector: 'nc-part-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>
        <span class="name">{{ part().name }}</span>
        <svg [class]="thread()" viewBox="0 0 1000 34" preserveAspectRatio="none" aria-hidden="true">
          @for (year of scale().years; track year.say) {
            <path class="year" [attr.d]="'M' + year.at * wide + ' 0V34'" />
          }
          @for (one of stretches(); track $index) {
            <path [class]="'thread ' + one.kind" [attr.d]="d(one)" />
            @if (one.kind === 'good' || one.kind === 'past') {
              <path [class]="'ply ' + one.kind" [attr.d]="d(one)" />
            }
          }
          <path class="today" [attr.d]="'M' + scale().at(today()) * wide + ' 0V34'" />
          @for (at of knots(); track $index) {
            <path class="knot" [attr.d]="'M' + at * wide + ' 9V25'" />
          }
          @if (due(); as at) {
            <path class="due" [attr.d]="'M' + at * wide + ' 6V28'" />
          }
        </svg>
        <span class="said" [class]="part().state">{{ part().said }}</span>
      </summary>
      <div class="more">
        <p><b>Its sign:</b> {{ part().sign }}</p>
        <p class="soft">{{ part().why }} {{ capital(by()) }}.</p>
        @if (part().done.length) {
          <ul>
            @for (one of part().done; track one.entryId) {
              <li>
                {{ told(one) }}
              </li>
            }
          </ul>
        } @else if (part().since; as since) {
          <p class="soft small">
            {{ part().from === 'machine' ? 'In it from the first day' : 'By what was entered' }},
            {{ day(since) }}.
          </p>
        }
        @if (mayEnter()) {
          <button type="button" class="btn btn-plain" (click)="enter.emit()">
            It was replaced
          </button>
        }
      </div>
    </details>
  `,
  styleUrl: './part-row.component.scss',
})
export class PartRowComponent {
  readonly part = input.required<PartView>();
  /** Who puts it in, in words. */
  readonly by = input.required<string>();
  readonly scale = input.required<Scale>();
  readonly today = input.required<string>();
  readonly thread = input.required<'water' | 'air'>();
  readonly mayEnter = input(false);
  readonly money = input.required<(money: Money) => string>();
  readonly enter = output<void>();

  protected readonly wide = WIDE;
  protected readonly stretches = computed(() =>
    stretchesOf(this.part(), this.scale(), this.today()),
  );
  protected readonly knots = computed(() =>
    this.part().replaced.map((day) => this.scale().at(day)),
  );
  protected readonly due = computed(() => {
    const { on } = this.part();
    return on !== undefined && on <= this.scale().to ? this.scale().at(on) : undefined;
  });
  protected readonly d = ({ from, to }: { from: number; to: number }): string =>
    `M${from * WIDE} 17H${to * WIDE}`;
  protected told({ day, cost, why }: PartView['done'][number]): string {
    const what = `Replaced on ${sayDay(day, this.today())}`;
    return [what, cost ? `, ${this.money()(cost)}` : '', why ? `: ${why}` : ''].join('');
  }
  protected readonly day = (day: string): string => sayDay(day, this.today());
  protected readonly capital = (text: string): string =>
    text.charAt(0).toUpperCase() + text.slice(1);
}
