import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { many, sayDay, type BenchView } from '@needlecase/core';
import { ReadableDirective } from '../charts/readable.directive';

const [LEFT, BREAK, RIGHT] = [6, 190, 394];

/** Something that a meter's figures tell: in words first, then both levels of it, and what can be done. */
@Component({
  selector: 'nc-signal',
  imports: [ReadableDirective, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let one = signal();
    <h3>{{ name() }}: drying takes {{ one.percent }}&nbsp;% longer since {{ since() }}</h3>
    <svg
      ncReadable
      viewBox="0 0 400 78"
      role="img"
      [attr.aria-label]="
        'A usual load took ' + one.usual + ' minutes before, and takes ' + one.now + ' now'
      "
    >
      <path class="seam" d="M190 4V74" />
      <path class="thread" [attr.d]="'M' + left + ' ' + low + 'H' + cut" />
      <path class="thread" [attr.d]="'M' + cut + ' ' + high + 'H' + right" />
      <path class="ply" [attr.d]="'M' + left + ' ' + low + 'H' + cut" />
      <path class="ply" [attr.d]="'M' + cut + ' ' + high + 'H' + right" />
      <text [attr.x]="left" [attr.y]="low - 10">{{ one.usual }} min</text>
      <text [attr.x]="right" [attr.y]="high + 26" text-anchor="end">{{ one.now }} min</text>
    </svg>
    <p>
      {{ one.low }} to {{ one.high }}&nbsp;%, for the same energy, by {{ loads() }} since then.
      @if (one.hours >= 0.5) {
        Waiting costs about {{ one.hours }} h of drying a month.
      }
      <a routerLink="/trouble" [queryParams]="{ machine: one.machineId, finding: one.finding }"
        >Look for the cause</a
      >
    </p>
  `,
  styles: `
    :host {
      display: block;
      max-width: 26rem;
    }
    h3 {
      font-size: 1.15rem;
      margin: 0.2rem 0;
    }
    svg {
      display: block;
      height: auto;
      width: 100%;
    }
    .seam {
      stroke: var(--edge);
      stroke-dasharray: 1 5;
      stroke-linecap: round;
      stroke-width: 2.5;
    }
    .thread {
      stroke: var(--air);
      stroke-linecap: round;
      stroke-width: 8;
    }
    .ply {
      stroke: var(--strand);
      stroke-dasharray: 9 2.2;
      stroke-width: 2.4;
    }
    text {
      fill: var(--ink);
      font-family: var(--serif);
      font-size: calc(16px * var(--px, 1));
    }
    p {
      font-size: 0.95rem;
      line-height: 1.35;
      margin: 0.2rem 0 0.4rem;
    }
    a {
      display: inline-block;
      min-height: 24px;
    }
  `,
})
export class SignalComponent {
  readonly signal = input.required<NonNullable<BenchView['signals']>[number]>();
  readonly name = input.required<string>();
  readonly today = input.required<string>();

  protected readonly left = LEFT;
  protected readonly cut = BREAK;
  protected readonly right = RIGHT;
  protected readonly low = 58;
  protected readonly high = 26;
  protected readonly since = computed(() => sayDay(this.signal().day, this.today()));
  protected readonly loads = computed(() => many(this.signal().loads, 'load'));
}
