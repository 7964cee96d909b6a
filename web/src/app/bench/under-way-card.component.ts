import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { many, type UnderWay } from '@needlecase/core';
import { sayWhen } from '../shared/say-when';

/** So many stitches are drawn for the steps of a visit, whatever their number. */
const STITCHES = 20;

/** A visit under way: how far it is, what is done now, what still runs or stands open. */
@Component({
  selector: 'nc-under-way-card',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let v = visit();
    <p class="when">
      Since {{ clock(v.startedAt) }}{{ v.state === 'paused' ? ', paused' : '' }};
      {{ many(v.tasks.length, 'task') }}, about {{ v.left }} min to go.
    </p>
    <svg viewBox="0 0 404 34" aria-hidden="true">
      @for (one of stitches(); track one.x) {
        <path [class.done]="one.done" [attr.d]="'M' + (one.x - 3) + ' 27L' + (one.x + 3) + ' 7'" />
      }
      <path class="needle" [attr.d]="'M' + (at() - 6) + ' 33L' + (at() + 8) + ' 1'" />
    </svg>
    <p class="now">
      @if (v.step) {
        Step {{ v.step }} of {{ v.steps }}: {{ v.say }}
      } @else {
        {{ many(v.steps, 'step') }}, none of them done yet.
      }
    </p>
    @for (timer of running(); track timer.label) {
      <p class="soft">{{ timer.label }} until {{ clock(timer.until) }}.</p>
    }
    <div class="go">
      <a class="btn btn-thread" [routerLink]="['/visit', v.id]">Go on</a>
    </div>
    @if (v.open) {
      <p class="open">
        <b>{{ many(v.open, 'step') }} of putting back</b> to do before you leave it.
      </p>
    }
  `,
  styles: `
    p {
      margin: 0.15rem 0 0.4rem;
    }
    svg {
      display: block;
      overflow: visible;
      width: 100%;
    }
    path {
      stroke: var(--edge);
      stroke-dasharray: 2 3;
      stroke-linecap: round;
      stroke-width: 2;
    }
    .done {
      stroke: var(--air);
      stroke-dasharray: none;
      stroke-width: 5.4;
    }
    .needle {
      stroke: var(--ink);
      stroke-dasharray: none;
      stroke-width: 3;
    }
    .now {
      font: 560 1.2rem/1.3 var(--serif);
    }
    .btn {
      display: inline-grid;
      min-height: 3rem;
      padding-inline: 1.6rem;
      place-items: center;
    }
    .open {
      border-left: 4px solid var(--soon);
      padding-left: 0.7rem;
    }
  `,
})
export class UnderWayCardComponent {
  readonly visit = input.required<UnderWay>();

  protected readonly share = computed(() => {
    const { step, steps } = this.visit();
    return steps ? Math.max(0, step - 1) / steps : 0;
  });
  protected readonly stitches = computed(() =>
    Array.from({ length: STITCHES }, (_, i) => ({
      x: 12 + i * 20,
      done: i < Math.round(this.share() * STITCHES),
    })),
  );
  protected readonly at = computed(() => 2 + Math.round(this.share() * STITCHES) * 20);
  protected readonly running = computed(() =>
    this.visit().timers.filter(({ until }) => until > Date.now()),
  );
  protected readonly many = many;

  protected clock(at: string | number): string {
    const time = new Date(at);
    const today = time.toDateString() === new Date().toDateString();
    const two = (n: number) => String(n).padStart(2, '0');
    const hour = `${two(time.getHours())}:${two(time.getMinutes())}`;
    return today ? hour : sayWhen(time.getTime());
  }
}
