import type { Stretch } from '../log/power-series.js';
import { heaterDuty } from './duty.js';
import { onAndOff, type OnOff } from './threshold.js';
import { washFigures, type WashFigures } from './wash.js';

/*
 * Loads in a meter's log.
 *
 *   W        ┌─heat─┐                     ┌spin┐
 *            │      │┌┐┌┐┌┐ soak ┌┐┌┐┌┐┌┐ │    │   tail  tail
 *   ── rest ─┘      └┘└┘└┘└──────┘└┘└┘└┘└─┘    └───┴┴────┴┴──── rest
 *            └──────────── one load ───────────┘└ belongs to it
 *
 * Runs over the threshold are joined over pauses that are no longer than the machine's own longest. A pause before
 * which the programme had come to its end, and after which one begins anew, parts two loads all the same.
 */

/** A load as the watts have it. UTC milliseconds. */
export interface Cycle {
  from: number;
  /** Of the programme; what tumbles on afterwards against creases not counted. */
  to: number;
  /** With all of it. */
  until: number;
  wattHours: number;
  /** The most of a bin, W. */
  peak: number;
  /** Minutes with the heater on, with the motor alone, and with neither. */
  heating: number;
  motor: number;
  idle: number;
  /** Minutes of it that were never read. */
  unread: number;
  /** Of a machine that heats all along: share of the time that its heater was on while the load was wet, and its W. */
  duty?: number;
  heater?: number;
  /** Of a machine that does not heat all along. */
  wash?: WashFigures;
}

/** What of a machine's own ways the detector has learned. */
export interface Ways {
  /** Its longest pause within a load, ms. */
  pause: number;
}
export const USUAL_WAYS: Ways = { pause: 12 * 60_000 };

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** What is shorter, or takes less, is no load. Common practice. */
const LEAST_MINUTES = 5;
const LEAST_WATT_HOURS = 12;
/** A gap in the log within a load, ms: what was read of such a pause is a pause by itself. */
const LONGEST_GAP = 1.5 * HOUR;
/** From here on a heater is on, W. Common practice. */
const HEATER = 900;
/** A heater is in the machine where it is on for so much of its work. */
const HEATER_SHARE = 0.01;
/** A compressor works evenly: the middle of all work is so much of its most; it is on from such a share of that. */
const EVEN = 0.5;
const COMPRESSOR = 0.65;
/** A tail's tumbles: each so short, ms, and at most so far apart. */
const TUMBLE = 2.5 * MINUTE;
const TUMBLES_APART = 16 * MINUTE;
const TAIL_PAUSE = 2 * MINUTE;
/** A pause in which a load can be changed for the next, ms. */
const LEAST_CHANGE = 45_000;
/** A pause that is longer than any filling, ms; and what a shorter one takes over rest where it is one, W. */
const SURE_CHANGE = 2.3 * MINUTE;
const GOES_ON = 2.5;
/** A spin takes so much at least, W. Common practice. */
const SPINS = 125;
/** A programme that does not heat is told from the rinses of another by its pause and length, ms. */
const COLD_CHANGE = 2.3 * MINUTE;
const COLD_LENGTH = 28 * MINUTE;
/** What is longer over the threshold is no noise, ms. */
const NOISE_RUN = 40_000;
/** How far before its first motor or heat a load may have begun, with valves and electronics alone. */
const FILLS_FOR = 6 * MINUTE;
/** What valves and electronics take over rest, W. */
const VALVES = 4;
/**
 * What noise alone adds up to once in a hundred times: a walk that falls by half of the valves' watts a step comes to
 * ln(100) times its variance over twice that (Siegmund 1985, from memory).
 */
const SURE = Math.log(100) / VALVES;

/** A run over the threshold, by its bins. */
interface Run {
  from: number;
  /** Exclusive. */
  to: number;
}

/** Finds the loads in a log. @param ways what was learned of this machine */
export function findCycles(
  stretches: readonly Stretch[],
  bin: number,
  ways: Ways = USUAL_WAYS,
  level: OnOff = onAndOff(stretches),
): Cycle[] {
  const heats = heatsFrom(stretches, level);
  return stretches.flatMap((stretch) => new Finder(stretch, bin, ways, level, heats).cycles());
}

/** From how many watts on this machine heats: by a heater, by a compressor, or not at all. */
function heatsFrom(stretches: readonly Stretch[], { on }: OnOff): number {
  const work = stretches.flatMap(({ watts }) => [...watts.filter((value) => value >= on)]);
  if (!work.length) return Infinity;
  work.sort((a, b) => a - b);
  const [middle, most] = [0.5, 0.98].map((share) => work[Math.floor(share * (work.length - 1))]!);
  if (work[Math.floor((1 - HEATER_SHARE) * (work.length - 1))]! >= HEATER) return HEATER;
  return middle! >= EVEN * most! ? COMPRESSOR * middle! : Infinity;
}

class Finder {
  readonly #watts: Float32Array;
  readonly #start: number;

  constructor(
    { from, watts }: Stretch,
    readonly bin: number,
    readonly ways: Ways,
    readonly level: OnOff,
    readonly heats: number,
  ) {
    this.#watts = watts;
    this.#start = from;
  }

  cycles(): Cycle[] {
    const groups = this.#joined(this.#runs()).flatMap((runs) => this.#parted(runs));
    return groups.flatMap((runs, i) => this.#cycleOf(runs, groups[i - 1]?.at(-1)?.to ?? 0) ?? []);
  }

  #bins(ms: number): number {
    return Math.max(1, Math.round(ms / this.bin));
  }

  /** Runs over the threshold, with hysteresis; a gap within one is bridged where it goes on after it. */
  #runs(): Run[] {
    const { on, off } = this.level;
    const runs: Run[] = [];
    let run: Run | undefined;
    for (let i = 0; i < this.#watts.length; i++) {
      const watts = this.#watts[i]!;
      if (Number.isNaN(watts)) {
        if (run) runs.push(run);
        run = undefined;
      } else if (run) {
        if (watts < off) {
          runs.push(run);
          run = undefined;
        } else run.to = i + 1;
      } else if (watts >= on) run = { from: i, to: i + 1 };
    }
    if (run) runs.push(run);
    return runs;
  }

  /** Runs that are of one load by their pauses alone. */
  #joined(runs: readonly Run[]): Run[][] {
    const groups: Run[][] = [];
    for (const run of runs) {
      const last = groups.at(-1)?.at(-1);
      if (last && this.#goesOn(last, run)) groups.at(-1)!.push(run);
      else groups.push([run]);
    }
    return groups;
  }

  #goesOn(last: Run, next: Run): boolean {
    const pause = (next.from - last.to) * this.bin;
    if (pause <= this.ways.pause) return true;
    if (this.#isTumble(next) && pause <= TUMBLES_APART) return true;
    const unread = this.#unread(last.to, next.from) * this.bin;
    return unread > 0 && pause <= LONGEST_GAP && pause - unread <= this.ways.pause;
  }

  #unread(from: number, to: number): number {
    let unread = 0;
    for (let i = from; i < to; i++) if (Number.isNaN(this.#watts[i]!)) unread++;
    return unread;
  }

  #isTumble({ from, to }: Run): boolean {
    if ((to - from) * this.bin > TUMBLE) return false;
    for (let i = from; i < to; i++) if (this.#watts[i]! >= this.heats) return false;
    return true;
  }

  /** Two loads with a short change between are two. */
  #parted(runs: readonly Run[]): Run[][] {
    const groups: Run[][] = [[]];
    runs.forEach((run, i) => {
      const before = groups.at(-1)!;
      const last = before.at(-1);
      if (last && this.#changes(last.to, run.from, before, runs.slice(i))) groups.push([]);
      groups.at(-1)!.push(run);
    });
    return groups;
  }

  /** Whether the laundry was changed in a pause: a programme had come to its end, and one begins. */
  #changes(from: number, to: number, before: readonly Run[], after: readonly Run[]): boolean {
    const pause = (to - from) * this.bin;
    if (pause < LEAST_CHANGE || !this.#isWhole(before)) return false;
    // Valves and electronics that go on in it tell that the programme does, too.
    if (pause < SURE_CHANGE && !(this.#over(from, to) <= GOES_ON)) return false;
    return this.#begins(after, pause, from);
  }

  /** How far a pause lies over rest in the middle, W; NaN where it has no middle. */
  #over(from: number, to: number): number {
    let [sum, n] = [0, 0];
    for (let i = from + 1; i < to - 1; i++) {
      if (!Number.isNaN(this.#watts[i]!)) {
        sum += this.#watts[i]!;
        n++;
      }
    }
    return sum / n - this.level.standby;
  }

  /** Whether a programme has come to its end: it heated, and was done with heating a while before; or it span last. */
  #isWhole(runs: readonly Run[]): boolean {
    const [from, to] = [runs[0]!.from, runs.at(-1)!.to];
    if ((to - from) * this.bin < 12 * MINUTE) return false;
    const heat = this.#heatIn(from, to);
    const dryer = heat && heat.bins * 2 > to - from;
    return dryer ? (to - heat.last) * this.bin >= 2.5 * MINUTE : this.#spinsLast(runs);
  }

  /** Whether a programme begins: heat soon; or, where none comes, tumbling that goes on and comes to a spin. */
  #begins(runs: readonly Run[], pause: number, before: number): boolean {
    const from = runs[0]!.from;
    const to = runs.at(-1)!.to;
    const length = (to - from) * this.bin;
    if (length < LEAST_MINUTES * MINUTE) return false;
    const soon = this.#heatIn(from, Math.min(to, from + this.#bins(20 * MINUTE)));
    if (soon) return soon.bins * this.bin >= MINUTE;
    // Where nothing was read, what goes on without heat is rather the same load.
    if (this.#unread(before, from) * this.bin > pause / 2) return false;
    return pause >= COLD_CHANGE && length >= COLD_LENGTH && this.#spinsLast(runs);
  }

  #heatIn(from: number, to: number): { bins: number; last: number } | undefined {
    let [bins, last] = [0, 0];
    for (let i = from; i < to; i++) {
      if (this.#watts[i]! >= this.heats) {
        bins++;
        last = i + 1;
      }
    }
    return bins ? { bins, last } : undefined;
  }

  /** Whether the last minutes are the strongest of all that does not heat: a spin, and a long one. */
  #spinsLast(runs: readonly Run[]): boolean {
    const to = runs.at(-1)!.to;
    const from = runs[0]!.from;
    const span = this.#bins(2 * MINUTE);
    const mean = (a: number, b: number): number => {
      let [sum, n] = [0, 0];
      for (let i = Math.max(from, a); i < b; i++) {
        if (this.#watts[i]! >= this.level.off && this.#watts[i]! < this.heats) {
          sum += this.#watts[i]!;
          n++;
        }
      }
      return n ? sum / n : 0;
    };
    const last = mean(to - 2 * span, to);
    return last >= SPINS && last > 1.6 * mean(from, to - 3 * span);
  }

  /** @param after the first bin that is of no load before */
  #cycleOf(runs: readonly Run[], after: number): Cycle | undefined {
    const { work, tail } = this.#withoutTail(this.#withoutNoise(runs));
    const [first, last] = [work[0]!, work.at(-1)!];
    const begin = this.#begun(first.from, after);
    const until = tail.at(-1)?.to ?? last.to;
    let [energy, peak, heating, motor, idle, unread] = [0, 0, 0, 0, 0, 0];
    for (let i = begin; i < until; i++) {
      const watts = this.#watts[i]!;
      const known = !Number.isNaN(watts);
      if (known) energy += watts;
      if (i >= last.to) continue;
      peak = Math.max(peak, known ? watts : 0);
      if (!known) unread++;
      else if (watts >= this.heats) heating++;
      else if (watts >= this.level.off) motor++;
      else idle++;
    }
    const hours = this.bin / HOUR;
    const minutes = this.bin / MINUTE;
    const wattHours = energy * hours;
    if ((last.to - begin) * minutes < LEAST_MINUTES || wattHours < LEAST_WATT_HOURS)
      return undefined;
    const at = (index: number) => this.#start + index * this.bin;
    return {
      ...{ from: at(begin), to: at(last.to), until: at(until), wattHours, peak },
      heating: heating * minutes,
      motor: motor * minutes,
      idle: idle * minutes,
      unread: unread * minutes,
      ...this.#ofItsKind(begin, last.to),
    };
  }

  /** Single bins just over the threshold, with nothing between them and the load, are the meter's noise. */
  #withoutNoise(runs: readonly Run[]): readonly Run[] {
    const [first, next] = runs;
    if (!first || !next || first.to - first.from > this.#bins(NOISE_RUN)) return runs;
    if (this.#watts[first.from]! > 2 * this.level.on) return runs;
    if (!(this.#over(first.to, next.from) <= GOES_ON)) return runs;
    return this.#withoutNoise(runs.slice(1));
  }

  /** A dryer heats in both halves of its time, for a fifth of each at least; the figures of anything else are a wash's. */
  #ofItsKind(from: number, to: number): Pick<Cycle, 'duty' | 'heater' | 'wash'> {
    const middle = Math.floor((from + to) / 2);
    const heats = (a: number, b: number) => 5 * (this.#heatIn(a, b)?.bins ?? 0) > b - a;
    const watts = this.#watts.subarray(from, to);
    if (!heats(from, middle) || !heats(middle, to))
      return { wash: washFigures(watts, this.bin, this.heats, this.level.off) };
    const found = heaterDuty(watts, this.bin);
    return found ? { duty: found.duty, heater: found.heater } : {};
  }

  /** Short tumbles at the end that come one by one belong to the load, and are not its programme. */
  #withoutTail(runs: readonly Run[]): { work: readonly Run[]; tail: readonly Run[] } {
    let end = runs.length;
    while (end > 1) {
      const run = runs[end - 1]!;
      const pause = (run.from - runs[end - 2]!.to) * this.bin;
      if (!this.#isTumble(run) || pause < TAIL_PAUSE) break;
      end--;
    }
    return { work: runs.slice(0, end), tail: runs.slice(end) };
  }

  /** The first bin of a load whose valves and electronics came before its motor: where the watts leave rest. */
  #begun(from: number, after: number): number {
    const { standby, spread } = this.level;
    const back = Math.max(after, from - this.#bins(FILLS_FOR));
    let [sum, most, begun] = [0, Math.max(VALVES, SURE * spread ** 2), from];
    for (let i = from - 1; i >= back; i--) {
      const watts = this.#watts[i]!;
      if (Number.isNaN(watts) || watts >= this.level.on) break;
      sum += watts - standby - VALVES / 2;
      if (sum > most) [most, begun] = [sum, i];
    }
    return begun;
  }
}
