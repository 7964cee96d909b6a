import { inject, Injectable } from '@angular/core';
import type { VisitProgress, VisitStep, TaskRecord } from '@needlecase/core';
import { VisitKeeper } from './visit-keeper';
import { END, VisitPlace } from './visit-place';
import { instantNow } from '../data/clock';

/** What changes where a visit stands: steps ticked, left out and gone back to, and what is noted on the way. */
@Injectable()
export class VisitMoves {
  readonly #keeper = inject(VisitKeeper);
  readonly #place = inject(VisitPlace);

  /** Ticks a step and goes to the next. */
  tick({ key }: VisitStep, also: (progress: VisitProgress) => VisitProgress = (one) => one): void {
    const following = this.#place.plan()!.steps[this.#place.index() + 1]?.key ?? END;
    const now = instantNow();
    this.#keeper.change(
      (progress) => ({
        ...also(progress),
        at: following,
        ticked: { ...progress.ticked, [key]: progress.ticked[key] ?? now },
      }),
      'active',
    );
    this.settleFocus();
  }

  /** Leaves the step undone and goes on; the end asks about what matters. */
  skip(): void {
    const step = this.#place.step();
    if (!step) return;
    const following = this.#place.plan()!.steps[this.#place.index() + 1]?.key ?? END;
    this.#keeper.change((progress) => {
      const { [step.key]: _dropped, ...ticked } = progress.ticked;
      return { ...progress, at: following, ticked };
    }, 'active');
    this.settleFocus();
  }

  back(): void {
    const steps = this.#place.plan()!.steps;
    if (this.#place.atEnd()) return this.go(steps.at(-1)?.key);
    this.go(steps[this.#place.index() - 1]?.key);
  }

  /** Goes to a step, or to the opening where none is named. */
  go(key: string | undefined): void {
    this.#keeper.change((progress) => {
      const { at: _at, ...rest } = progress;
      return key === undefined ? rest : { ...rest, at: key };
    }, 'active');
    this.settleFocus();
  }

  settleFocus(): void {
    setTimeout(() => document.querySelector<HTMLElement>('[data-step-title]')?.focus());
  }

  /** Ticks something on the fetch list, or takes the tick off. */
  turnFetched(what: string): void {
    this.#keeper.change((progress) => ({
      ...progress,
      fetched: progress.fetched.includes(what)
        ? progress.fetched.filter((one) => one !== what)
        : [...progress.fetched, what],
    }));
  }

  /** Changes what is noted of the task on screen, or of another one. */
  note(change: Partial<TaskRecord>, key = this.#place.taskKey()): void {
    if (!key) return;
    this.#keeper.change((progress) => ({
      ...progress,
      tasks: { ...progress.tasks, [key]: { ...progress.tasks[key], ...change } },
    }));
  }

  /** Notes the figure that the step on screen asks for. */
  read(value: number | undefined): void {
    const key = this.#place.step()!.key;
    this.#keeper.change((progress) => {
      const { [key]: _old, ...readings } = progress.readings;
      return {
        ...progress,
        readings: value === undefined ? readings : { ...readings, [key]: { value } },
      };
    });
  }
}
