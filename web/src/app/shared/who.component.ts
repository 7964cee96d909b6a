import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Person } from '@needlecase/core/model/access';
import { initialOf } from '@needlecase/core/model/people';

/** A person as a spool of their thread with their initial: never by colour alone. */
@Component({
  selector: 'nc-who',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg viewBox="0 0 28 28" aria-hidden="true">
      <path class="rim" d="M5 3H23M5 25H23" />
      <rect class="thread" x="6" y="6" width="16" height="16" rx="3" />
      <text x="14" y="19">{{ initial() }}</text>
    </svg>
    @if (named()) {
      <span>{{ person().name }}</span>
    } @else {
      <span class="visually-hidden">{{ person().name }}</span>
    }
  `,
  styles: `
    :host {
      display: inline-flex;
      align-items: center;
      gap: 0.4rem;
      white-space: nowrap;
    }

    svg {
      width: 28px;
      height: 28px;
      flex: none;
    }

    .rim {
      stroke: var(--ink);
      stroke-width: 3;
      stroke-linecap: round;
    }

    .thread {
      fill: var(--of);
    }

    text {
      fill: #fff;
      font-size: 14px;
      font-weight: 700;
      text-anchor: middle;
    }

    :host {
      --of: #3b4aa0;
    }

    :host([data-thread='rust']) {
      --of: #9a3f12;
    }

    :host([data-thread='moss']) {
      --of: #44691f;
    }

    :host([data-thread='plum']) {
      --of: #7b2f73;
    }

    :host([data-thread='ochre']) {
      --of: #795400;
    }

    :host([data-thread='slate']) {
      --of: #4b5a68;
    }
  `,
  host: { '[attr.data-thread]': 'person().thread' },
})
export class WhoComponent {
  readonly person = input.required<Pick<Person, 'name' | 'thread'>>();
  /** With the name beside it. */
  readonly named = input(true);
  protected readonly initial = computed(() => initialOf(this.person()));
}
