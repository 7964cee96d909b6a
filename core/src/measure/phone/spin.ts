import { evenly, peaksOf, powerOfTwo, spectrumOf, type Spectrum } from './spectrum.js';

/** What a phone on the lid feels at an instant: milliseconds, m/s². */
export interface Felt {
  at: number;
  x: number;
  y: number;
  z: number;
}

/** A stretch of a spin. */
export interface SpinMoment {
  /** Milliseconds since the first sample. */
  at: number;
  /** m/s², all ways together. */
  rms: number;
  /** Turns a minute, where they can be told. */
  rpm?: number;
}

/** A spin as a phone on the machine feels it. */
export interface Spin {
  /** Samples a second that the device gave, Hz. */
  rate: number;
  /** m/s² by axis, and all ways together; the hardest knock. */
  rms: { x: number; y: number; z: number; all: number };
  peak: number;
  /** m/s² in the steady spin: what is held against other spins, however long the way up was felt. */
  steady?: number;
  /** Turns a minute while it is steady, and what that is good for; nothing where no speed stands out. */
  speed?: { rpm: number; give: number };
  /** Harder there than before and after: where the tub swings by itself on the way up. */
  resonance?: SpinMoment;
  course: readonly SpinMoment[];
}

export type NoSpin = 'too short' | 'too slow' | 'fell' | 'still';

/** A drum spins between these, Hz: 240 to 1,800 turns a minute. Common practice. */
const SPINS = { from: 4, to: 30 } as const;
/** Samples a second below which a fast spin cannot be told from a slower one, Hz. */
const LEAST_RATE = 20;
/** Of the way up, Hz: a tub swings by itself from two times a second on. Common practice. */
const SLOWEST = 1.5;
/** At its speed within this share, for so many stretches. Judgement. */
const SAME_SPEED = 0.1;
const LEAST_STEADY = 2;
const LEAST_SECONDS = 4;
/** A gap longer than this parts a recording, ms; so long is a stretch of its course, s. */
const GAP = 400;
const STRETCH = 2;
const STANDS_OUT = 8;
/** m/s²: a machine that bangs knocks a phone with half of it, a floor with more. Judgement. */
const FALL = 40;
/** m/s²: a sensor that rounds to 0.1 tells this of a machine that runs; below it nothing moves. Judgement. */
const STILL = 0.005;
/** The tub is driven through its own swing below this, Hz: 120 to 360 turns a minute lie below. Common practice. */
const RESONANCE_BELOW = 8;
const HARDER = 1.5;
const AXES = ['x', 'y', 'z'] as const;

/**
 * What a recording tells of a spin.
 * @param felt by the phone, in their order
 */
export function spinOf(felt: readonly Felt[]): Spin | NoSpin {
  const real = felt.filter(({ at, x, y, z }) => [at, x, y, z].every(Number.isFinite));
  const [first, last] = [real[0]?.at ?? 0, real.at(-1)?.at ?? 0];
  if (last - first < 1000 * LEAST_SECONDS) return 'too short';
  const rate = medianRate(real);
  if (rate < LEAST_RATE) return 'too slow';
  const even = AXES.map((axis) =>
    evenly(
      real.map((one) => ({ at: one.at, value: one[axis] })),
      rate,
      GAP,
    ),
  );
  const longest = even[0]!.reduce(
    (most, part, i, all) => (part.length > all[most]!.length ? i : most),
    0,
  );
  const parts = even.map((axis) => withoutMean(axis[longest] ?? new Float64Array(0)));
  if (parts[0]!.length < rate * LEAST_SECONDS) return 'too short';
  const peak = peakOf(parts);
  if (peak > FALL) return 'fell';
  const [x, y, z] = parts.map(rmsOf) as [number, number, number];
  const course = courseOf(parts, rate);
  const top = Math.min(SPINS.to, 0.48 * rate);
  const speed = speedOf(parts, rate, powerOfTwo(parts[0]!.length), top);
  const resonance = resonanceOf(course);
  const steady = speed && steadyOf(course, speed.rpm);
  if (Math.hypot(x, y, z) < STILL) return 'still';
  return {
    rate,
    rms: { x, y, z, all: Math.hypot(x, y, z) },
    peak,
    ...(speed ? { speed } : {}),
    ...(steady === undefined ? {} : { steady }),
    ...(resonance ? { resonance } : {}),
    course,
  };
}

const withoutMean = (all: Float64Array): Float64Array => {
  const mean = all.reduce((sum, one) => sum + one, 0) / Math.max(1, all.length);
  return all.map((one) => one - mean);
};

/** Root of the mean square; a number in the unit of what is given. */
export const rmsOf = (all: Float64Array): number =>
  Math.sqrt(all.reduce((sum, one) => sum + one * one, 0) / Math.max(1, all.length));

function medianRate(felt: readonly Felt[]): number {
  const steps = felt.slice(1).map(({ at }, i) => at - felt[i]!.at);
  const sorted = steps.filter((one) => one > 0).sort((a, b) => a - b);
  return 1000 / (sorted[sorted.length >> 1] ?? Infinity);
}

function peakOf([x, y, z]: readonly Float64Array[]): number {
  let most = 0;
  for (let i = 0; i < x!.length; i++) most = Math.max(most, Math.hypot(x![i]!, y![i]!, z![i]!));
  return most;
}

/** All three ways together. */
function together(parts: readonly Float64Array[], rate: number, segment: number): Spectrum {
  const all = parts.map((part) => spectrumOf(part, rate, segment));
  const density = all[0]!.density.map((_, k) => all.reduce((sum, one) => sum + one.density[k]!, 0));
  return { step: all[0]!.step, density };
}

/** The drum's turns: the strongest frequency of a spin, unless half of it stands out as well. */
function speedOf(
  parts: readonly Float64Array[],
  rate: number,
  segment: number,
  top: number,
  from: number = SPINS.from,
): { rpm: number; give: number } | undefined {
  const spectrum = together(parts, rate, segment);
  const peaks = peaksOf(spectrum, STANDS_OUT, from, top);
  const [strongest] = peaks;
  if (!strongest) return undefined;
  // What shakes twice a turn shakes once a turn as well.
  const half = peaks.find(
    ({ hz, power }) =>
      Math.abs(hz - strongest.hz / 2) < 1.5 * spectrum.step && power > 0.04 * strongest.power,
  );
  const { hz } = half ?? strongest;
  return { rpm: 60 * hz, give: 60 * Math.max(0.25 * spectrum.step, 0.01 * hz) };
}

function courseOf(parts: readonly Float64Array[], rate: number): SpinMoment[] {
  const segment = powerOfTwo(STRETCH * rate);
  const course: SpinMoment[] = [];
  for (let from = 0; from + segment <= parts[0]!.length; from += segment) {
    const now = parts.map((part) => withoutMean(part.slice(from, from + segment)));
    const speed = speedOf(now, rate, segment, Math.min(SPINS.to, 0.48 * rate), SLOWEST);
    course.push({
      at: (1000 * from) / rate,
      rms: Math.hypot(...now.map(rmsOf)),
      ...(speed ? { rpm: speed.rpm } : {}),
    });
  }
  return course;
}

/** The middle of how hard it shakes at its speed; nothing of a spin that hardly came to it. */
function steadyOf(course: readonly SpinMoment[], rpm: number): number | undefined {
  const at = course.filter((one) => one.rpm && Math.abs(one.rpm / rpm - 1) < SAME_SPEED);
  const sorted = at.map(({ rms }) => rms).sort((a, b) => a - b);
  return sorted.length >= LEAST_STEADY ? sorted[sorted.length >> 1] : undefined;
}

/** A stretch of the way up in which it shakes harder than before it and after it. */
function resonanceOf(course: readonly SpinMoment[]): SpinMoment | undefined {
  const slow = course.filter(({ rpm }) => rpm !== undefined && rpm < 60 * RESONANCE_BELOW);
  const hardest = slow.reduce<SpinMoment | undefined>(
    (most, one) => (most === undefined || one.rms > most.rms ? one : most),
    undefined,
  );
  if (!hardest) return undefined;
  const after = course.slice(course.indexOf(hardest) + 1).map(({ rms }) => rms);
  const calm = after.sort((a, b) => a - b)[after.length >> 1];
  return calm !== undefined && hardest.rms > HARDER * calm ? hardest : undefined;
}
