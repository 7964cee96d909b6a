import { Injectable } from '@angular/core';

/** Says something with the browser's own speech, for whoever cannot see the screen. */
@Injectable({ providedIn: 'root' })
export class Speaker {
  readonly able = typeof speechSynthesis !== 'undefined';

  /** Says it now, one after the other, and nothing that was to be said before. */
  say(...sentences: string[]): void {
    if (!this.able) return;
    this.quiet();
    for (const words of sentences) {
      const told = new SpeechSynthesisUtterance(words);
      told.lang = 'en';
      speechSynthesis.speak(told);
    }
  }

  quiet(): void {
    if (this.able) speechSynthesis.cancel();
  }
}
