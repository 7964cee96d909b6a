import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { beliefOf, troubleView, type PracticeCase, type PracticeState } from '@needlecase/core';
import { percent } from '../trouble/percent';
import { SuspectsComponent } from '../trouble/suspects.component';
import { practiceMachine } from './practice-machine';

const SUSPECTS = 3;
const HARDLY = 0.01;

/** What is known of a case adds up to: the likeliest, and what speaks for and against each, as Trouble has it. */
@Component({
  selector: 'nc-practice-adds-up',
  imports: [SuspectsComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>
      What it adds up to
      <button
        type="button"
        class="btn-text"
        [attr.aria-expanded]="weighed()"
        (click)="weighed.set(!weighed())"
      >
        for and against
      </button>
    </h2>
    <ul class="suspects">
      @for (one of suspects(); track one.id) {
        <li>
          <span>{{ one.name }}</span>
          <svg viewBox="0 0 160 12" preserveAspectRatio="none" aria-hidden="true">
            <path class="track" d="M0,6H160" />
            <path class="spent" [attr.d]="'M0,6H' + 160 * one.chance" />
            <path class="ply" [attr.d]="'M0,6H' + 160 * one.chance" />
          </svg>
          <span class="num">{{ percent(one.chance) }}</span>
        </li>
      }
    </ul>
    @if (weighed()) {
      <nc-suspects
        class="weighed"
        [machine]="machine()"
        [stations]="[]"
        [view]="view()"
        [strip]="false"
      />
    }
  `,
  styleUrl: './adds-up.component.scss',
})
export class AddsUpComponent {
  readonly game = input.required<PracticeCase>();
  readonly state = input.required<PracticeState>();

  protected readonly percent = percent;
  protected readonly weighed = signal(false);
  protected readonly suspects = computed(() => {
    const [game, state] = [this.game(), this.state()];
    const belief = beliefOf(game, state);
    const explains = game.trouble.explaining(game.hidden.reported);
    return game.trouble.causes
      .map(({ id, name }, i) => ({ id, name, chance: belief.causes[i]!, is: explains[i] }))
      .filter(({ is, chance }) => is && chance >= HARDLY)
      .sort((a, b) => b.chance - a.chance)
      .slice(0, SUSPECTS);
  });
  protected readonly machine = computed(() => practiceMachine(this.game().machine));
  protected readonly view = computed(() => {
    const { trouble } = this.game();
    const ruledOut = this.state().failed.map((i) => trouble.causes[i]!.id);
    return troubleView({ ...trouble.situation, ruledOut }, this.state().answers, []);
  });
}
