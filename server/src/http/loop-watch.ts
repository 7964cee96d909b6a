import { performance } from 'node:perf_hooks';

/** Nobody's request waits longer than this for another's, ms. */
export const LONGEST_HOLD_MS = 50;
const BEAT_MS = 20;
/** So many of the last stretches of work are known by name. */
const KNOWN = 64;

/** A stretch of the loop in which nobody else was answered. */
export interface Hold {
  /** ms */
  ms: number;
  /** What was done in it, the longest first; nothing where nobody said. */
  by: string[];
}

/**
 * Watches that no stretch of the loop lasts too long, and knows what held it: whoever does work that may take its
 * time says so with `during`.
 */
export class LoopWatch {
  readonly #done: { what: string; from: number; to: number }[] = [];
  #beat: NodeJS.Timeout | undefined;
  #last = 0;
  /** The longest stretch since the start, ms. */
  longest = 0;
  /** How many were too long. */
  count = 0;

  /** @param told is told of each that is too long */
  constructor(private readonly told: (hold: Hold) => void) {}

  start(): void {
    this.#last = performance.now();
    this.#beat = setInterval(() => this.#look(), BEAT_MS);
    this.#beat.unref();
  }

  stop(): void {
    clearInterval(this.#beat);
  }

  /** Does work, and knows it by name where it was too long. */
  during<T>(what: string, work: () => T): T {
    const from = performance.now();
    try {
      return work();
    } finally {
      const to = performance.now();
      if (to - from > LONGEST_HOLD_MS / 10) {
        this.#done.push({ what, from, to });
        if (this.#done.length > KNOWN) this.#done.shift();
      }
    }
  }

  #look(): void {
    const now = performance.now();
    const since = this.#last;
    this.#last = now;
    const ms = now - since - BEAT_MS;
    this.longest = Math.max(this.longest, ms);
    if (ms <= LONGEST_HOLD_MS) return;
    this.count++;
    const by = this.#done
      .filter(({ to }) => to > since)
      .toSorted((a, b) => b.to - b.from - (a.to - a.from))
      .map(({ what, from, to }) => `${what} ${Math.round(to - from)} ms`);
    this.told({ ms: Math.round(ms), by });
  }
}
