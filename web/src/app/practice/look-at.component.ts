import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { actionsOf, lookView } from '@needlecase/core';
import { narrow } from '../shared/narrow';
import { LookComponent } from '../trouble/look.component';
import { PracticeKeeper } from './practice-keeper';
import { injectPrice } from './price';
import { stageOf } from './stage-view';
import { StageComponent } from './stage.component';

/** A look of a practice case on Trouble's own screen; the practice machine answers it. */
@Component({
  selector: 'nc-practice-look',
  imports: [LookComponent, RouterLink, StageComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="back">
      <a class="btn btn-plain" routerLink="/practice/play">Back to the case</a>
      <span class="soft small">Practice: the machine answers you.</span>
    </p>
    @if (view(); as check) {
      <h1 class="visually-hidden">A look, in practice</h1>
      <div class="look-at">
        <nc-look [check]="check" [of]="0">
          @if (found(); as said) {
            <p class="found" role="status"><b>You find:</b> {{ said }}</p>
          } @else if (action(); as one) {
            @if (one.notYet) {
              <p class="soft">It cannot be looked at yet: {{ one.notYet }}.</p>
            } @else {
              <button type="button" class="btn btn-thread look" (click)="look(one.id)">
                Look now: {{ price(one) }}
              </button>
            }
          }
        </nc-look>
        @if (!narrow()) {
          <nc-practice-stage [view]="stage()!" />
        }
      </div>
    } @else {
      <h1>There is no such look in this case</h1>
    }
  `,
  styles: `
    .back {
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0.8rem;
      margin: 0.4rem 0 1rem;
    }

    .look-at {
      display: grid;
      gap: 1.5rem;
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    }

    @media (max-width: 719px) {
      .look-at {
        display: block;
      }
    }

    .look {
      min-height: 56px;
    }

    .found {
      font-size: 1.15rem;
    }
  `,
})
export class LookAtComponent {
  readonly #keeper = inject(PracticeKeeper);
  readonly #router = inject(Router);
  protected readonly price = injectPrice();

  /** From the address: which look. */
  readonly check = input.required<string>();

  readonly #on = computed(() => {
    const [game, state] = [this.#keeper.drawn(), this.#keeper.state()];
    return game && state && !state.end ? { game, state } : undefined;
  });
  protected readonly view = computed(() => {
    const on = this.#on();
    return on && lookView(on.game.trouble, on.state.answers, on.state.failed, this.check());
  });
  protected readonly narrow = narrow;
  protected readonly stage = computed(() => {
    const on = this.#on();
    return on && stageOf(on.game, on.state);
  });
  protected readonly action = computed(() => {
    const on = this.#on();
    return on && actionsOf(on.game, on.state).find(({ id }) => id === `look:${this.check()}`);
  });
  /** What was found, where it was looked at. */
  protected readonly found = computed(() => {
    const found = this.#on()?.state.happened.findLast(
      ({ act, is }) => is === 'found' && act === `look:${this.check()}`,
    );
    return found?.say;
  });

  /** What stops the hand, or floods, is told where the machine stands. */
  protected look(id: string): void {
    this.#keeper.act(id);
    if (!this.found()) void this.#router.navigate(['/practice/play']);
  }
}
