import { inject, Injectable, signal } from '@angular/core';
import type { VisitStep } from '@needlecase/core';
import { readLocal, writeLocal } from '../data/local';
import { Speaker } from '../shared/speaker';

const KEY = 'read-aloud';

/** Reads steps aloud with the browser's own speech, for whoever has wet hands. */
@Injectable({ providedIn: 'root' })
export class ReadAloud {
  readonly #speaker = inject(Speaker);
  /** Whether this browser can speak at all. */
  readonly able = this.#speaker.able;
  readonly on = signal(this.able && readLocal<boolean>(KEY) === true);

  turn(): void {
    this.on.update((on) => !on);
    writeLocal(KEY, this.on());
    if (!this.on()) this.quiet();
  }

  /** Says a step, and nothing else any more. */
  say(step: VisitStep): void {
    if (!this.on()) return;
    this.#speaker.say(...spoken(step));
  }

  quiet(): void {
    this.#speaker.quiet();
  }
}

/** What is said of a step: the cautions first. */
export const spoken = ({ cautions, step }: VisitStep): string[] => [
  ...cautions.map((caution) => `Caution. ${caution}`),
  step.do,
  ...(step.look ? [`Look: ${step.look}`] : []),
];
