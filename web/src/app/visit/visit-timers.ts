import { computed, DestroyRef, effect, inject, Injectable, signal } from '@angular/core';
import { isTask, taskById, type Timer, type VisitPlan } from '@needlecase/core';
import { askToNotify, notify, readySound, sound } from '../data/platform';
import { ToastsService } from '../data/toasts.service';
import { VisitKeeper } from './visit-keeper';
import { secondsLeft } from './timer.component';
import { instantNow, timeNow } from '../data/clock';

/** A timer that is running, or is up and was not put away. */
export interface Running {
  key: string;
  label: string;
  timer: Timer;
}

/**
 * The timers of a visit, whatever step is on screen. Each runs from a stored instant, so that neither a
 * reload nor a shut screen stops it; when one is up it is told by a toast, a buzz, two tones and, where the person
 * allowed it, a notification.
 */
@Injectable()
export class VisitTimers {
  readonly #keeper = inject(VisitKeeper);
  readonly #toasts = inject(ToastsService);
  readonly #waits = new Map<string, ReturnType<typeof setTimeout>>();
  readonly plan = signal<VisitPlan | undefined>(undefined);

  readonly running = computed<Running[]>(() => {
    const timers = this.#keeper.progress()?.timers ?? {};
    return (this.plan()?.steps ?? []).flatMap(({ key, step, task }) => {
      const timer = timers[key];
      const name = step.timer?.label ?? 'Timer';
      // Two may soak at once: each is told by the work that it is for.
      const label = task && isTask(task) ? `${taskById(task).name}: ${name.toLowerCase()}` : name;
      return timer ? [{ key, label, timer }] : [];
    });
  });

  constructor() {
    effect(() => this.#watch(this.running()));
    inject(DestroyRef).onDestroy(() => {
      for (const wait of this.#waits.values()) clearTimeout(wait);
    });
  }

  start(key: string, seconds: number): void {
    // When a timer is set it is plain what a notice is for.
    askToNotify();
    readySound();
    const startedAt = instantNow();
    this.#keeper.change((progress) => ({
      ...progress,
      timers: { ...progress.timers, [key]: { startedAt, seconds } },
    }));
  }

  stop(key: string): void {
    this.#keeper.change((progress) => {
      const { [key]: _stopped, ...timers } = progress.timers;
      return { ...progress, timers };
    });
  }

  /** A rinse ends what worked in the machine: its timers, at the steps where something was brought in. */
  endWith(machineId: string): void {
    const { brought = {}, timers = {} } = this.#keeper.progress() ?? {};
    const over = Object.keys(timers).filter(
      (key) => key.startsWith(`${machineId}/`) && brought[key] !== undefined,
    );
    for (const key of over) this.stop(key);
  }

  #watch(running: readonly Running[]): void {
    const wanted = new Map(running.map((one) => [idOf(one), one]));
    for (const [id, wait] of this.#waits) {
      if (wanted.has(id)) continue;
      clearTimeout(wait);
      this.#waits.delete(id);
    }
    for (const [id, one] of wanted) {
      const left = secondsLeft(one.timer, timeNow());
      if (left === 0 || this.#waits.has(id)) continue;
      this.#waits.set(
        id,
        setTimeout(() => this.#tell(one), left * 1000),
      );
    }
  }

  #tell({ label }: Running): void {
    const text = `${label}: the time is up.`;
    this.#toasts.show(text);
    navigator.vibrate?.([200, 100, 200]);
    sound();
    void notify(text);
  }
}

const idOf = ({ key, timer }: Running): string => `${key} ${timer.startedAt}`;
