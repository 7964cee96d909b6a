import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { FixView } from '@needlecase/core';
import { percent } from './percent';

/** The work that mends it: begun as a visit, done by hand, or given to somebody trained. */
@Component({
  selector: 'nc-fix',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft small">
      @if (fix().who === 'professional') {
        Work for somebody trained
      } @else if (seen()) {
        You looked: this is it
      } @else {
        Quicker to try this than to check more: about {{ fix().minutes }} min
      }
    </p>
    <h2>{{ fix().say }}</h2>
    <p>
      @if (seen()) {
        You saw that {{ fix().name }}.
      } @else {
        {{ percent(fix().chance) }} that {{ fix().name }}.
        @if (fix().who !== 'professional') {
          Trying this now costs fewer minutes, on the whole, than looking further.
        }
      }
    </p>
    <div class="answers">
      @if (fix().who === 'professional') {
        <a class="btn btn-thread" [href]="summary()">Print the summary for them</a>
        <button type="button" class="btn btn-plain" (click)="called.emit()">
          Somebody is called: close the case
        </button>
        <button type="button" class="btn btn-plain" (click)="done.emit()">They have done it</button>
      } @else {
        @if (fix().task; as task) {
          <button type="button" class="btn btn-thread" (click)="begin.emit(task)">
            Begin this work
          </button>
        }
        <button
          type="button"
          class="btn"
          [class.btn-thread]="!fix().task"
          [class.btn-plain]="fix().task"
          (click)="done.emit()"
        >
          I have done it
        </button>
      }
      @if (seen()) {
        <button type="button" class="btn btn-plain" (click)="notIt.emit()">It is not that</button>
      }
    </div>
  `,
  styleUrl: './card.scss',
})
export class FixComponent {
  readonly fix = input.required<FixView>();
  /** The person looked and said that this is it. */
  readonly seen = input(false);
  /** Address of the case's summary to print. */
  readonly summary = input.required<string>();
  readonly begin = output<string>();
  readonly done = output();
  readonly called = output();
  readonly notIt = output();
  protected readonly percent = percent;
}
