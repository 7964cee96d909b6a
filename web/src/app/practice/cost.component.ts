import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { STOPPED, type PracticeState } from '@needlecase/core';
import { injectAbout } from './price';

/** What a case has cost so far: minutes beside those of a practised hand, mess, stops, money. */
@Component({
  selector: 'nc-practice-cost',
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cost.component.html',
  styleUrl: './cost.component.scss',
})
export class CostComponent {
  readonly state = input.required<PracticeState>();
  /** What a practised hand needs, minutes. */
  readonly par = input.required<number>();
  /** In a line, without bars. */
  readonly bare = input(false);

  protected readonly about = injectAbout();
  protected readonly lastStop = computed(() => {
    const law = this.state().stopped.at(-1);
    return law && STOPPED[law]?.short;
  });
  /** Along the bar of minutes, 0 to 1: what was spent, and the notch of a practised hand. */
  protected readonly bar = computed(() => {
    const [spent, par] = [this.state().minutes, this.par()];
    const whole = Math.max(par * 1.3, spent * 1.05, 10);
    return { spent: spent / whole, par: par / whole };
  });
}
