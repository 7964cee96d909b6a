import { Injectable, signal } from '@angular/core';

export interface Toast {
  id: number;
  text: string;
  problem?: boolean;
  /** Stays until it is closed. */
  stays?: boolean;
  action?: { label: string; do: () => void };
}

/** At least so long, and longer where there is more to read: some 200 words a minute, and time to look there. */
const LEAST_MS = 9000;
const A_LETTER_MS = 60;
const LOOKING_MS = 4000;
/** Left once somebody has read, with the pointer or the focus on it, it goes soon. */
const AFTER_MS = 4000;

/** Short words at the edge of the screen, with a way back where there is one. */
@Injectable({ providedIn: 'root' })
export class ToastsService {
  #next = 1;
  readonly #going = new Map<number, ReturnType<typeof setTimeout>>();
  readonly shown = signal<Toast[]>([]);

  /** What stays is shown once, however often it is said. */
  show(text: string, more: Pick<Toast, 'problem' | 'stays' | 'action'> = {}): void {
    const toast: Toast = { id: this.#next++, text, ...more };
    this.shown.update((all) => [
      ...room(all.filter((one) => !(one.stays && more.stays && one.text === text))),
      toast,
    ]);
    this.#go(toast, Math.max(LEAST_MS, LOOKING_MS + A_LETTER_MS * text.length));
  }

  close(id: number): void {
    this.hold(id);
    this.shown.update((all) => all.filter((toast) => toast.id !== id));
  }

  /** Somebody is reading it, or is about to press its button. */
  hold(id: number): void {
    clearTimeout(this.#going.get(id));
    this.#going.delete(id);
  }

  /** It was left. */
  leave(id: number): void {
    const toast = this.shown().find((one) => one.id === id);
    if (toast && !this.#going.has(id)) this.#go(toast, AFTER_MS);
  }

  #go({ id, stays }: Toast, after: number): void {
    if (!stays)
      this.#going.set(
        id,
        setTimeout(() => this.close(id), after),
      );
  }
}

/** The last two, and what stays. */
const room = (all: readonly Toast[]): Toast[] =>
  all.filter(({ stays }, at) => stays ?? at >= all.length - 2);
