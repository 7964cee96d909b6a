import { peaksOf, powerBetween, spectrumOf, type Peak } from './spectrum.js';

/** What ten seconds by a phone's microphone tell; nothing of the recording is in it. */
export interface Heard {
  /** dB on the device's own scale, 100 the loudest that it can tell: good against this device's own alone. */
  level: number;
  /** Narrow tones, the strongest first. */
  tones: readonly Tone[];
  /** Share of the power without any tone between 300 Hz and 4 kHz, 0 to 1. */
  roar: number;
  /** Thumps a second, where they come evenly. */
  thumps?: number;
}

/** A tone, and of which other it is a multiple. */
export interface Tone {
  hz: number;
  /** dB over what is usual beside it. */
  over: number;
  /** So many times another tone of the same sound. */
  multiple?: number;
}

export type NothingHeard = 'too short' | 'silent' | 'too loud';

/** Samples a stretch of the spectrum: some tenth of a second at 48 kHz, 12 Hz a bin. */
const SEGMENT = 4096;
const LEAST_SECONDS = 2;
/** Below this a device that is shut gives nothing but its own noise; a share of clipped samples is too loud. Judgement. */
const SILENT = 1e-5;
const CLIPPED = 0.01;
/** dB of the loudest: a scale without signs. */
export const LOUDEST = 100;
const TONE_OVER = 10;
const MOST_TONES = 8;
const TONES = { from: 20, to: 8000 } as const;
const ROAR = { from: 300, to: 4000 } as const;
/** A multiple is met within so much of a bin. */
const NEAR = 0.6;
/** Thumps are looked for by an envelope of so many values a second, between these, Hz: a dryer's drum turns 45 to 60 times a minute. Common practice. */
const ENVELOPE = 50;
const THUMPS = { from: 0.4, to: 4 } as const;
/** How alike an envelope is to itself a thump later, 0 to 1, where thumps come evenly. Judgement. */
const EVEN = 0.5;

/** dB of a share of the largest amplitude. @param share above 0 */
export const decibels = (share: number): number => 20 * Math.log10(share);

/**
 * What a sound tells.
 * @param samples -1 to 1 @param rate of them, Hz: a number a second
 */
export function heardIn(samples: Float32Array, rate: number): Heard | NothingHeard {
  if (samples.length < LEAST_SECONDS * rate || samples.length < SEGMENT) return 'too short';
  let [squares, clipped] = [0, 0];
  for (const one of samples) {
    squares += one * one;
    if (Math.abs(one) >= 0.999) clipped++;
  }
  const rms = Math.sqrt(squares / samples.length);
  if (!(rms > SILENT)) return 'silent';
  if (clipped > CLIPPED * samples.length) return 'too loud';
  const spectrum = spectrumOf(samples, rate, SEGMENT);
  const peaks = peaksOf(
    spectrum,
    10 ** (TONE_OVER / 10),
    TONES.from,
    Math.min(TONES.to, 0.48 * rate),
  );
  const tones = tonesOf(peaks.slice(0, MOST_TONES), spectrum.step);
  const whole = powerBetween(spectrum, TONES.from, 0.5 * rate);
  const inTones = peaks
    .filter(({ hz }) => hz >= ROAR.from && hz <= ROAR.to)
    .reduce((sum, { power }) => sum + power, 0);
  const roar = Math.max(0, powerBetween(spectrum, ROAR.from, ROAR.to) - inTones) / whole;
  const thumps = thumpsOf(samples, rate);
  return {
    level: Math.max(0, LOUDEST + decibels(rms)),
    tones,
    roar,
    ...(thumps ? { thumps } : {}),
  };
}

function tonesOf(peaks: readonly Peak[], step: number): Tone[] {
  const lowest = [...peaks].sort((a, b) => a.hz - b.hz);
  return peaks.map(({ hz, over }): Tone => {
    const base = lowest.find((one) => {
      const times = Math.round(hz / one.hz);
      return times >= 2 && Math.abs(hz - times * one.hz) < NEAR * step;
    });
    return {
      hz,
      over: 10 * Math.log10(over),
      ...(base ? { multiple: Math.round(hz / base.hz) } : {}),
    };
  });
}

/** Thumps a second by how alike the loudness is to itself a while later. */
function thumpsOf(samples: Float32Array, rate: number): number | undefined {
  const size = Math.floor(rate / ENVELOPE);
  const count = Math.floor(samples.length / size);
  const envelope = Float64Array.from({ length: count }, (_, i) => {
    let sum = 0;
    for (let k = i * size; k < (i + 1) * size; k++) sum += samples[k]! ** 2;
    return Math.sqrt(sum / size);
  });
  const mean = envelope.reduce((sum, one) => sum + one, 0) / count;
  const off = envelope.map((one) => one - mean);
  const own = off.reduce((sum, one) => sum + one * one, 0);
  // An even hum is like itself at any time.
  if (own / count < (0.05 * mean) ** 2) return undefined;
  const alike = (lag: number): number => {
    let sum = 0;
    for (let i = 0; i + lag < count; i++) sum += off[i]! * off[i + lag]!;
    return (sum / own) * (count / (count - lag));
  };
  let [best, at] = [EVEN, 0];
  const most = Math.min(count - 2, Math.floor(ENVELOPE / THUMPS.from));
  for (let lag = Math.ceil(ENVELOPE / THUMPS.to); lag <= most; lag++) {
    const here = alike(lag);
    // A later one that is no more alike is the same thump twice.
    if (here > best * 1.02 && here >= alike(lag - 1) && here >= alike(lag + 1))
      [best, at] = [here, lag];
  }
  if (at === 0) return undefined;
  const [a, b, c] = [alike(at - 1), alike(at), alike(at + 1)];
  const bend = a - 2 * b + c;
  return ENVELOPE / (at + (bend < 0 ? (0.5 * (a - c)) / bend : 0));
}
