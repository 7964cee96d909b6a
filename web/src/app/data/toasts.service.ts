import { Injectable, signal } from '@angular/core';

export interface Toast {
  id: number;
  text: string;
  problem?: boolean;
  /** Stays until it is closed. */
  stays?: boolean;
  action?: { label: string; do: () => void };
}

const SHOWN_MS = 9000;

/** Short words at the edge of the screen, with a way back where there is one. */
@Injectable({ providedIn: 'root' })
export class ToastsService {
  #next = 1;
  readonly shown = signal<Toast[]>([]);

  show(text: string, more: Pick<Toast, 'problem' | 'stays' | 'action'> = {}): void {
    const toast: Toast = { id: this.#next++, text, ...more };
    this.shown.update((all) => [...room(all), toast]);
    if (!toast.stays) setTimeout(() => this.close(toast.id), SHOWN_MS);
  }

  close(id: number): void {
    this.shown.update((all) => all.filter((toast) => toast.id !== id));
  }
}

/** The last two, and what stays. */
const room = (all: readonly Toast[]): Toast[] =>
  all.filter(({ stays }, at) => stays ?? at >= all.length - 2);
