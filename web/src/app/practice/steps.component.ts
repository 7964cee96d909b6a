import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { stepsOfFix, type Visit } from '@needlecase/core';
import { DryVisitComponent } from './dry-visit.component';
import { PracticeKeeper } from './practice-keeper';
import { PRACTICE, practiceMachine } from './practice-machine';

/** A repair of a practice case, step by step on the screens of a real visit; then back to the case. */
@Component({
  selector: 'nc-practice-steps',
  imports: [DryVisitComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (task()) {
      <nc-dry-visit
        [tasks]="tasks()"
        [machine]="machine()"
        (over)="done($event)"
        (left)="leave()"
      />
    } @else {
      <h1>There is no such work in this case</h1>
      <p><a routerLink="/practice/play">Back to the case</a></p>
    }
  `,
})
export class StepsComponent {
  readonly #keeper = inject(PracticeKeeper);
  readonly #router = inject(Router);

  /** From the address: what is put right. */
  readonly cause = input.required<string>();

  protected readonly task = computed(() => {
    const fix = this.#keeper.drawn()?.trouble.causes.find(({ id }) => id === this.cause())?.fix;
    return fix?.who === 'you' && !this.#keeper.state()?.end ? fix.task : undefined;
  });
  protected readonly tasks = computed(() => {
    const task = this.task();
    return task ? [{ machineId: PRACTICE, task }] : [];
  });
  protected readonly machine = computed(() => practiceMachine(this.#keeper.drawn()!.machine));

  /** What was not ticked was left out. */
  protected done(visit: Visit): void {
    const drawn = this.#keeper.drawn();
    const task = this.task();
    if (!drawn || !task) return;
    const { ticked } = visit.progress;
    const out = stepsOfFix(drawn, task)
      .filter(({ key, step }) => !step.later && ticked[key] === undefined)
      .map(({ step }) => step.id);
    this.#keeper.act(`work:${this.cause()}:${out.join(',')}`);
    this.leave();
  }

  protected leave(): void {
    void this.#router.navigate(['/practice/play']);
  }
}
