/*
 * When a pump runs dry. While water flows its sound is even; once air comes in between it slurps: louder and softer by
 * turns, several times a second, and with more hiss. Common practice, from memory.
 */

/** A pump's sound, listened to as it goes on. */
export interface PumpHeard {
  /** Seconds from the first sample at which it began to slurp; nothing until it did. */
  slurps?: number;
  /** Whether the pump is heard at all, over what was there before it. */
  runs: boolean;
}

/** Values of loudness a second; s in which the even flow is learned, and in which a slurp has to last. */
const PER_SECOND = 20;
const LEARNS = 4;
const LASTS = 1.6;
/** So many times as uneven as the flow, and at least so uneven, as a share of its loudness. Judgement. */
const TIMES = 2.5;
const LEAST = 0.18;
/** Stretch over which unevenness is told, s. */
const STRETCH = 1.2;
const LEAST_LOUD = 1e-4;

/** Listens for the end of a flow: give it the samples as they come. */
export class PumpListener {
  readonly #size: number;
  readonly #loud: number[] = [];
  #sum = 0;
  #count = 0;
  #slurps: number | undefined;

  /** @param rate samples a second, Hz: a number */
  constructor(rate: number) {
    this.#size = Math.max(1, Math.round(rate / PER_SECOND));
  }

  /** Takes more samples, -1 to 1, and tells what is heard by now. */
  hear(samples: ArrayLike<number>): PumpHeard {
    for (let i = 0; i < samples.length; i++) {
      this.#sum += samples[i]! ** 2;
      if (++this.#count < this.#size) continue;
      this.#loud.push(Math.sqrt(this.#sum / this.#count));
      [this.#sum, this.#count] = [0, 0];
      this.#look();
    }
    const last = this.#loud.at(-1) ?? 0;
    return {
      runs: last > LEAST_LOUD,
      ...(this.#slurps === undefined ? {} : { slurps: this.#slurps }),
    };
  }

  /** Whether it has been uneven for long enough, against the flow before. */
  #look(): void {
    const n = this.#loud.length;
    const lasts = Math.round(LASTS * PER_SECOND);
    const learned = Math.round(LEARNS * PER_SECOND);
    if (this.#slurps !== undefined || n < learned + lasts) return;
    // The flow is what went before what is looked at: a pump gets louder as the drum empties.
    const flow = this.#loud.slice(Math.max(0, n - lasts - 3 * learned), n - lasts);
    if (mean(flow) < LEAST_LOUD) return;
    const even = Math.max(usual(flow), 1e-6);
    const bar = Math.max(LEAST, TIMES * even);
    for (let at = n - lasts; at + stretch() <= n; at += 2) {
      if (unevenness(this.#loud.slice(at, at + stretch())) < bar) return;
    }
    // It begins where the loudness first jumps.
    const level = mean(flow);
    const jump = this.#loud
      .slice(n - lasts)
      .findIndex((one, i) => Math.abs(one - this.#loud[n - lasts + i - 1]!) > bar * level);
    this.#slurps = (n - lasts + Math.max(0, jump)) / PER_SECOND;
  }
}

const stretch = (): number => Math.round(STRETCH * PER_SECOND);
const mean = (all: readonly number[]): number =>
  all.reduce((sum, one) => sum + one, 0) / Math.max(1, all.length);

/** Standard deviation from one value to the next, as a share of the loudness: a slow change is no slurp. */
function unevenness(all: readonly number[]): number {
  let squares = 0;
  for (let i = 1; i < all.length; i++) squares += (all[i]! - all[i - 1]!) ** 2;
  return Math.sqrt(squares / Math.max(1, all.length - 1)) / Math.max(1e-9, mean(all));
}

/** The middle of its unevenness, stretch by stretch. */
function usual(flow: readonly number[]): number {
  const parts: number[] = [];
  for (let at = 0; at + stretch() <= flow.length; at += stretch()) {
    parts.push(unevenness(flow.slice(at, at + stretch())));
  }
  parts.sort((a, b) => a - b);
  return parts[parts.length >> 1] ?? 0;
}
