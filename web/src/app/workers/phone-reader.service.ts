import { DestroyRef, inject, Injectable } from '@angular/core';
import type { PhoneAnswered, PhoneAsked, PhoneRead } from './phone.worker';

/** Reads what a phone's sensors gave, in a worker of its own: nothing of it leaves the device. */
@Injectable()
export class PhoneReader {
  #worker: Worker | undefined;
  #next = 1;
  readonly #waiting = new Map<number, (answer: PhoneAnswered) => void>();

  constructor() {
    inject(DestroyRef).onDestroy(() => this.#worker?.terminate());
  }

  /** @throws Error where the worker did not load, or fell */
  read<A extends PhoneAsked>(asked: A): Promise<PhoneRead[A['what']]> {
    const worker = (this.#worker ??= this.#begin());
    const id = this.#next++;
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, ({ read, problem }) => {
        if (problem !== undefined) reject(new Error(problem));
        else resolve(read as PhoneRead[A['what']]);
      });
      worker.postMessage({ id, asked });
    });
  }

  #begin(): Worker {
    const worker = new Worker(new URL('./phone.worker', import.meta.url), { type: 'module' });
    worker.addEventListener('message', ({ data }: MessageEvent<PhoneAnswered>) => {
      this.#waiting.get(data.id)?.(data);
      this.#waiting.delete(data.id);
    });
    worker.addEventListener('error', () => {
      const problem = 'What reads it did not load. Try again with the connection.';
      for (const [id, answer] of this.#waiting) answer({ id, problem });
      this.#waiting.clear();
      this.#worker = undefined;
    });
    return worker;
  }
}
