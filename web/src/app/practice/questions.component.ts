import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import type { PracticeQuestion } from '@needlecase/core';
import { PracticeKeeper } from './practice-keeper';

/** Questions one after the other: answered with a tap, told at once, and remembered. */
@Component({
  selector: 'nc-practice-questions',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (now(); as q) {
      <section [attr.aria-label]="'Question ' + (at() + 1) + ' of ' + questions().length">
        <p class="soft small">{{ at() + 1 }} of {{ questions().length }}</p>
        <h3 tabindex="-1">{{ q.ask }}</h3>
        <ul>
          @for (option of q.options; track $index; let i = $index) {
            <li>
              <button
                type="button"
                class="choice"
                [class.right]="chosen() !== undefined && i === q.right"
                [class.wrong]="chosen() === i && i !== q.right"
                [attr.aria-disabled]="chosen() === undefined ? null : true"
                (click)="choose(q, i)"
              >
                @if (chosen() !== undefined && i === q.right) {
                  <b>Right: </b>
                } @else if (chosen() === i) {
                  <b>Not this: </b>
                }
                {{ option }}
              </button>
            </li>
          }
        </ul>
        <div role="status">
          @if (chosen() !== undefined) {
            <p>{{ q.because }}</p>
          }
        </div>
        @if (chosen() !== undefined) {
          <button type="button" class="btn btn-thread" (click)="next()">
            {{ at() + 1 < questions().length ? 'Next' : 'Done' }}
          </button>
        }
      </section>
    } @else if (questions().length) {
      <p role="status">
        <b>{{ rights() }} of {{ questions().length }} right.</b>
        @if (missed().length) {
          What you missed comes back: next time you practise, and then ever more seldom.
        } @else {
          They come back now and then, ever more seldom.
        }
      </p>
      @if (missed().length) {
        <ul class="missed">
          @for (one of missed(); track one.id) {
            <li>
              {{ one.ask }} <b>{{ one.options[one.right] }}</b>
            </li>
          }
        </ul>
      }
    }
  `,
  styles: `
    @use 'mixins' as *;

    h3 {
      font-size: 1.2rem;
      margin: 0 0 0.4rem;
    }

    h3:focus {
      outline: none;
    }

    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }

    .choice {
      @include choice(1rem);
      margin-bottom: 0.4rem;
      width: 100%;
    }

    .choice[aria-disabled] {
      color: var(--ink-soft);
      cursor: default;
    }

    .choice.right {
      border-color: var(--water);
      border-width: 3px;
      color: var(--ink);
    }

    .choice.wrong {
      border-color: var(--due);
      border-style: dashed;
      color: var(--ink);
    }

    .missed li {
      @include seam(bottom, 1px);
      padding: 0.3rem 0;
    }
  `,
})
export class QuestionsComponent {
  readonly #keeper = inject(PracticeKeeper);
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  readonly questions = input.required<readonly PracticeQuestion[]>();
  readonly over = output<void>();

  protected readonly at = linkedSignal({ source: this.questions, computation: () => 0 });
  protected readonly chosen = linkedSignal<number, number | undefined>({
    source: this.at,
    computation: () => undefined,
  });
  protected readonly missed = linkedSignal<readonly PracticeQuestion[], PracticeQuestion[]>({
    source: this.questions,
    computation: () => [],
  });
  protected readonly now = computed(() => this.questions()[this.at()]);
  protected readonly rights = computed(() => this.questions().length - this.missed().length);

  /** The first answer counts. */
  protected choose(question: PracticeQuestion, option: number): void {
    if (this.chosen() !== undefined) return;
    this.chosen.set(option);
    const right = option === question.right;
    if (!right) this.missed.update((all) => [...all, question]);
    this.#keeper.answered(question.id, right);
  }

  protected next(): void {
    this.at.update((at) => at + 1);
    if (!this.now()) this.over.emit();
    // Whoever answered reads on at the next question.
    else setTimeout(() => this.#host.querySelector<HTMLElement>('h3')?.focus());
  }
}
