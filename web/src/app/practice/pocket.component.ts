import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import type { PracticeAction } from '@needlecase/core';
import { injectPrice } from './price';

/** One pocket of the case: what can be done now, each with its price, what is done and what cannot be yet. */
@Component({
  selector: 'nc-pocket',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (one of shown(); track one.id) {
        <li [class.asked]="one.pocket === 'look'">
          <button
            type="button"
            [class.done]="one.done"
            [class.now]="one.id === guided()"
            [attr.aria-disabled]="one.notYet ? true : null"
            [attr.data-act]="one.id"
            (click)="press(one)"
            (focus)="aim.emit(one)"
            (mouseenter)="aim.emit(one)"
            (keydown)="onKey($event)"
          >
            <span class="say">
              @if (one.done) {
                <svg viewBox="0 0 16 12" width="16" height="12" aria-hidden="true">
                  <path d="M2,10L8,2M8,10L14,2" />
                </svg>
                <span class="visually-hidden">Done: </span>
              }
              {{ one.say }}
            </span>
            <span class="price">{{ one.notYet || price(one) }}</span>
          </button>
          @if (one.task && !one.done) {
            <button type="button" class="steps" (click)="steps.emit(one)">step by step</button>
          } @else if (one.pocket === 'look') {
            <button
              type="button"
              class="ask"
              [attr.aria-label]="'How: ' + one.say"
              (click)="steps.emit(one)"
            >
              ?
            </button>
          }
        </li>
      }
    </ul>
    @if (!actions().length) {
      <p class="soft small">
        Nothing here has a figure that is taken by hand. A meter’s plug tells its loads.
      </p>
    }
    @if (far().length) {
      <button type="button" class="more" [attr.aria-expanded]="all()" (click)="all.set(!all())">
        {{ all() ? 'Fewer' : far().length + ' more' }}
      </button>
    }
  `,
  styleUrl: './pocket.component.scss',
})
export class PocketComponent {
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  readonly actions = input.required<readonly PracticeAction[]>();
  /** The one that is to be done now, in a guided case. */
  readonly guided = input<string>();
  readonly act = output<PracticeAction>();
  /** How it is done is asked for. */
  readonly steps = output<PracticeAction>();
  /** One is pointed at, or has the focus: it may be told how it is done. */
  readonly aim = output<PracticeAction>();

  protected readonly all = signal(false);
  readonly far = computed(() => this.actions().filter(({ far, done }) => far && !done));
  protected readonly shown = computed(() =>
    this.all() ? this.actions() : this.actions().filter(({ far, done }) => !far || done),
  );

  protected readonly price = injectPrice();

  constructor() {
    // What is to be done now is in sight.
    effect(() => {
      const now = this.guided();
      if (!now || !this.actions().some(({ id }) => id === now)) return;
      setTimeout(() => {
        const button = this.#host.querySelector(`[data-act="${now}"]`);
        button?.scrollIntoView({ block: 'nearest' });
      });
    });
  }

  protected press(one: PracticeAction): void {
    if (one.notYet) return;
    this.act.emit(one);
  }

  /** Arrows go from one to the next. */
  protected onKey(event: KeyboardEvent): void {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const all = [...this.#host.querySelectorAll<HTMLElement>('[data-act]')];
    const at = all.indexOf(event.currentTarget as HTMLElement);
    all[(at + by + all.length) % all.length]?.focus();
  }
}
