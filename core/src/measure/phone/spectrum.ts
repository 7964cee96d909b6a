import FFT from 'fft.js';

/** How much of something lies at which frequencies. */
export interface Spectrum {
  /** Hz between two bins; the first is at 0. */
  step: number;
  /** Unit² per Hz, by bin. */
  density: Float64Array;
}

/** A frequency that stands out. */
export interface Peak {
  hz: number;
  /** Unit², all that lies in it. */
  power: number;
  /** How many times it stands over what is usual beside it. */
  over: number;
}

/** The largest power of two that is not larger. @param most a count */
export const powerOfTwo = (most: number): number => 2 ** Math.floor(Math.log2(Math.max(2, most)));

/**
 * Power by frequency: means of overlapping stretches under a Hann window, each less its mean (Welch 1967).
 * @param samples evenly spaced @param rate of them a second, a number, Hz @param segment how many a stretch, a power of two
 * @source Welch, P. D. (1967), "The use of fast Fourier transform for the estimation of power spectra"
 * @throws RangeError where there are fewer than a stretch
 */
export function spectrumOf(samples: ArrayLike<number>, rate: number, segment: number): Spectrum {
  if (samples.length < segment || segment !== powerOfTwo(segment)) {
    throw new RangeError('A spectrum needs a stretch of a power of two, and as many samples.');
  }
  const fft = new FFT(segment);
  const window = Float64Array.from(
    { length: segment },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / segment),
  );
  const weight = window.reduce((sum, one) => sum + one * one, 0);
  const density = new Float64Array(segment / 2 + 1);
  const out = fft.createComplexArray();
  const part = new Array<number>(segment);
  let stretches = 0;
  for (let from = 0; from + segment <= samples.length; from += segment / 2) {
    let mean = 0;
    for (let i = 0; i < segment; i++) mean += samples[from + i]! / segment;
    for (let i = 0; i < segment; i++) part[i] = (samples[from + i]! - mean) * window[i]!;
    fft.realTransform(out, part);
    for (let k = 0; k < density.length; k++) {
      const power = out[2 * k]! ** 2 + out[2 * k + 1]! ** 2;
      const sides = k === 0 || k === segment / 2 ? 1 : 2;
      density[k] = density[k]! + (sides * power) / (rate * weight);
    }
    stretches++;
  }
  for (let k = 0; k < density.length; k++) density[k] = density[k]! / stretches;
  return { step: rate / segment, density };
}

/** Power between two frequencies, Hz; in the unit². */
export function powerBetween({ step, density }: Spectrum, from: number, to: number): number {
  let sum = 0;
  for (let k = Math.ceil(from / step); k < density.length && k * step <= to; k++) {
    sum += density[k]! * step;
  }
  return sum;
}

/** Bins on either side in which what is usual is looked for; those of the peak itself are left out. */
const BESIDE = 24;
const OWN = 3;

/**
 * Frequencies that stand out, the strongest first: a bin over its neighbours, its place told between bins by a parabola
 * through the logarithms.
 * @param over so many times over what is usual beside it @param from and to, Hz
 */
export function peaksOf(spectrum: Spectrum, over: number, from: number, to: number): Peak[] {
  const { step, density } = spectrum;
  const peaks: Peak[] = [];
  const last = Math.min(density.length - 2, Math.floor(to / step));
  for (let k = Math.max(1, Math.ceil(from / step)); k <= last; k++) {
    const [a, b, c] = [density[k - 1]!, density[k]!, density[k + 1]!];
    if (b < a || b <= c || b === 0) continue;
    const usual = usualBeside(density, k);
    if (usual > 0 && b < over * usual) continue;
    const [la, lb, lc] = [a, b, c].map((one) => Math.log(Math.max(one, 1e-300))) as [
      number,
      number,
      number,
    ];
    const bend = la - 2 * lb + lc;
    const shift = bend < 0 ? (0.5 * (la - lc)) / bend : 0;
    peaks.push({
      hz: (k + shift) * step,
      power: powerBetween(spectrum, (k - 2) * step, (k + 2) * step),
      over: usual > 0 ? b / usual : Infinity,
    });
  }
  return peaks.sort((one, other) => other.power - one.power);
}

/** The middle one of the bins beside a peak. */
function usualBeside(density: Float64Array, at: number): number {
  const beside: number[] = [];
  for (let k = Math.max(1, at - BESIDE); k <= Math.min(density.length - 1, at + BESIDE); k++) {
    if (Math.abs(k - at) > OWN) beside.push(density[k]!);
  }
  beside.sort((one, other) => one - other);
  return beside[beside.length >> 1] ?? 0;
}

/** A sample of a sensor that comes when it comes; milliseconds. */
export interface Timed {
  at: number;
  value: number;
}

/**
 * Samples that come unevenly as even ones, by straight lines between them; a gap parts them.
 * @param rate Hz @param gap longest stretch without a sample that is bridged, milliseconds
 * @returns the stretches without gaps, in their order
 */
export function evenly(samples: readonly Timed[], rate: number, gap: number): Float64Array[] {
  const step = 1000 / rate;
  const sorted = samples
    .filter(({ at, value }) => Number.isFinite(at) && Number.isFinite(value))
    .sort((a, b) => a.at - b.at);
  const stretches: Timed[][] = [];
  for (const one of sorted) {
    const open = stretches.at(-1);
    const before = open?.at(-1);
    if (!open || one.at - before!.at > gap) stretches.push([one]);
    else if (one.at > before!.at) open.push(one);
  }
  return stretches
    .filter(({ length }) => length > 1)
    .map((stretch) => {
      const [first, last] = [stretch[0]!.at, stretch.at(-1)!.at];
      let i = 0;
      return Float64Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, k) => {
        const at = first + k * step;
        while (i < stretch.length - 2 && stretch[i + 1]!.at < at) i++;
        const [a, b] = [stretch[i]!, stretch[i + 1]!];
        return a.value + ((b.value - a.value) * (at - a.at)) / (b.at - a.at);
      });
    });
}
