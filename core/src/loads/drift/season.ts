import type { DriftFigure } from './drift.js';

/*
 * What of a figure goes with the year: a room that is colder in winter makes drying longer. It is told from a change
 * only once a year of loads is there; until then nothing is taken off.
 */

const DAY = 86_400_000;
const YEAR = 365.25 * DAY;
/** It is worked out anew so often, from what was a while before: what began lately is no season. */
const ANEW = 30 * DAY;
const AWAY = 45 * DAY;
/** Loads that a fit needs, and rounds until it stands. */
const LEAST = 60;
const ROUNDS = 25;
const STANDS = 1e-4;
/** How much a wave is shrunk, in its own error's square: judgement, checked by houses without any season. */
const SHRUNK = 6;
/** No room changes a figure by more, up and down, of its natural logarithm. Judgement. */
const MOST = 0.2;

/** A wave of the year, by its two parts, of the figure's natural logarithm. */
interface Wave {
  cos: number;
  sin: number;
}

/**
 * Figures without what goes with the year.
 * @param figures of loads, in their order @param anew UTC milliseconds from which on what is usual is another
 */
export function withoutSeason(
  figures: readonly DriftFigure[],
  anew: readonly number[],
): DriftFigure[] {
  const first = figures[0]?.at ?? 0;
  let [wave, next, all]: [Wave | undefined, number, DriftFigure[]] = [
    undefined,
    first + YEAR + AWAY,
    [],
  ];
  const without = (figure: DriftFigure, { cos, sin }: Wave): DriftFigure => {
    const angle = (2 * Math.PI * figure.at) / YEAR;
    const season = cos * Math.cos(angle) + sin * Math.sin(angle);
    return { ...figure, value: figure.value * Math.exp(-season) };
  };
  figures.forEach((figure, i) => {
    if (figure.at >= next) {
      const known = figures.slice(0, i).filter(({ at }) => at < figure.at - AWAY);
      if (known.length >= LEAST) {
        const fitted = waveOf(known, anew);
        // The year that taught it is looked at anew as well.
        if (!wave) all = all.map((one) => without(one, fitted));
        wave = fitted;
      }
      next = figure.at + ANEW;
    }
    all.push(wave ? without(figure, wave) : figure);
  });
  return all;
}

/**
 * The wave that fits best beside a level and a straight rise in each stretch between two cleans: each part in turn
 * against what the others leave over, until nothing changes.
 */
function waveOf(figures: readonly DriftFigure[], anew: readonly number[]): Wave {
  const y = figures.map(({ value }) => Math.log(value));
  const angles = figures.map(({ at }) => (2 * Math.PI * at) / YEAR);
  const [cosines, sines] = [angles.map(Math.cos), angles.map(Math.sin)];
  const stretch = figures.map(({ at }) => anew.filter((one) => one <= at).length);
  const wave: Wave = { cos: 0, sin: 0 };
  const part = (column: readonly number[], rest: readonly number[]): number => {
    const square = column.reduce((sum, x) => sum + x * x, 0);
    return square ? column.reduce((sum, x, i) => sum + x * rest[i]!, 0) / square : 0;
  };
  for (let round = 0, moved = Infinity; round < ROUNDS && moved > STANDS; round++) {
    const { cos, sin } = wave;
    const flat = lines(
      figures.map(({ at }) => at / YEAR),
      y.map((value, i) => value - wave.cos * cosines[i]! - wave.sin * sines[i]!),
      stretch,
    );
    wave.cos = part(
      cosines,
      y.map((value, i) => value - flat[i]! - wave.sin * sines[i]!),
    );
    wave.sin = part(
      sines,
      y.map((value, i) => value - flat[i]! - wave.cos * cosines[i]!),
    );
    moved = Math.hypot(wave.cos - cos, wave.sin - sin);
  }
  const size = Math.hypot(wave.cos, wave.sin);
  if (!size) return wave;
  const flat = lines(
    figures.map(({ at }) => at / YEAR),
    y.map((value, i) => value - wave.cos * cosines[i]! - wave.sin * sines[i]!),
    stretch,
  );
  const left = y.map(
    (value, i) => value - flat[i]! - wave.cos * cosines[i]! - wave.sin * sines[i]!,
  );
  const variance = left.reduce((sum, x) => sum + x * x, 0) / Math.max(1, y.length - SHRUNK);
  // Of a wave that is no larger than its own error nothing is left (James and Stein 1961, the positive part).
  const sure = Math.max(0, 1 - (SHRUNK * 2 * variance) / y.length / size ** 2);
  const share = sure * Math.min(1, MOST / size);
  return { cos: share * wave.cos, sin: share * wave.sin };
}

/** Straight lines of least squares through each stretch, at each of its points. */
function lines(x: readonly number[], y: readonly number[], stretch: readonly number[]): number[] {
  const sums = new Map<number, { n: number; x: number; y: number; xx: number; xy: number }>();
  x.forEach((at, i) => {
    const one = sums.get(stretch[i]!) ?? { n: 0, x: 0, y: 0, xx: 0, xy: 0 };
    sums.set(stretch[i]!, {
      n: one.n + 1,
      x: one.x + at,
      y: one.y + y[i]!,
      xx: one.xx + at * at,
      xy: one.xy + at * y[i]!,
    });
  });
  return x.map((at, i) => {
    const { n, x: sx, y: sy, xx, xy } = sums.get(stretch[i]!)!;
    const spread = xx - (sx * sx) / n;
    const rise = spread > 1e-6 ? (xy - (sx * sy) / n) / spread : 0;
    return sy / n + rise * (at - sx / n);
  });
}
