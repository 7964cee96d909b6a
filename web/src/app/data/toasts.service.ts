import { Injectable, signal } from '@angular/core';

export interface Toast {
  id: number;
  text: string;
  problem?: boolean;
  action?: { label: string; do: () => void };
}

const SHOWN_MS = 9000;

/** Short words at the edge of the screen, with a way back where there is one. */
@Injectable({ providedIn: 'root' })
export class ToastsService {
  #next = 1;
  readonly shown = signal<Toast[]>([]);

  show(text: string, more: Pick<Toast, 'problem' | 'action'> = {}): void {
    const toast = { id: this.#next++, text, ...more };
    this.shown.update((all) => [...all.slice(-2), toast]);
    setTimeout(() => this.close(toast.id), SHOWN_MS);
  }

  close(id: number): void {
    this.shown.update((all) => all.filter((toast) => toast.id !== id));
  }
}
