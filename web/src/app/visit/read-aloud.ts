import { Injectable, signal } from '@angular/core';
import type { VisitStep } from '@needlecase/core';
import { readLocal, writeLocal } from '../data/local';

const KEY = 'read-aloud';

/** Reads steps aloud with the browser's own speech, for whoever has wet hands. */
@Injectable({ providedIn: 'root' })
export class ReadAloud {
  /** Whether this browser can speak at all. */
  readonly able = typeof speechSynthesis !== 'undefined';
  readonly on = signal(this.able && readLocal<boolean>(KEY) === true);

  turn(): void {
    this.on.update((on) => !on);
    writeLocal(KEY, this.on());
    if (!this.on()) this.quiet();
  }

  /** Says a step, and nothing else any more. */
  say(step: VisitStep): void {
    if (!this.on()) return;
    this.quiet();
    for (const text of spoken(step)) {
      const words = new SpeechSynthesisUtterance(text);
      words.lang = 'en';
      speechSynthesis.speak(words);
    }
  }

  quiet(): void {
    if (this.able) speechSynthesis.cancel();
  }
}

/** What is said of a step: the cautions first. */
export const spoken = ({ cautions, step }: VisitStep): string[] => [
  ...cautions.map((caution) => `Caution. ${caution}`),
  step.do,
  ...(step.look ? [`Look: ${step.look}`] : []),
];
