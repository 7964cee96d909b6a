import { Baseline, type PriorSpread } from './baseline.js';
import { Cusum, type CusumLimits } from './cusum.js';

/** A figure of a load that tells how a machine does; larger is worse. */
export interface DriftFigure {
  /** The entry that it is of. */
  id: string;
  /** UTC milliseconds. */
  at: number;
  value: number;
}

/** A change that the figures tell. */
export interface Shift {
  /** The load with which it began, most likely, and the one at which it was seen. */
  from: DriftFigure;
  seen: DriftFigure;
  /** The usual before, and since, as factors of each other: 1.2 is a fifth more; with its eight-in-ten range. */
  factor: number;
  low: number;
  high: number;
  /** Usual figure before it. */
  usual: number;
  /** The first load at which the figure was back; none while it holds. */
  back?: DriftFigure;
}

/**
 * Set by simulation so that at most one house in ten gets a false signal in a hundred loads (`drift.spec.ts`): one side,
 * figures of a law that is not quite normal, winsorised.
 */
export const DRIFT_LIMITS: CusumLimits = { k: 0.5, h: 5.6 };
/** A single odd load counts no more than this, in standard deviations. */
const WINSOR = 2.5;
/** So few loads tell nothing yet. */
export const LEAST_LOADS = 5;
/** It is back when so many in a row lie nearer to the usual than to the shifted. */
const BACK = 4;
/** Eight in ten of a normal law lie within so many standard deviations. */
const EIGHT_IN_TEN = 1.2816;

/**
 * Shifts of a figure to the worse, in the order of the loads. What is usual is learned from load to load, and anew after
 * each clean that was proved; of what comes with a shift nothing is learned.
 * @param figures of loads, in their order; positive
 * @param cleans UTC milliseconds at which a clean was proved
 * @param prior spread of the figure's natural logarithm between loads, a number
 */
export function findShifts(
  figures: readonly DriftFigure[],
  cleans: readonly number[],
  prior: PriorSpread,
  limits: CusumLimits = DRIFT_LIMITS,
): Shift[] {
  const shifts: Shift[] = [];
  let usual: number[] = [];
  let baseline = new Baseline(prior);
  let chart = new Cusum(limits);
  let open: Shift | undefined;
  let since: DriftFigure[] = [];
  let near = 0;
  let last = -Infinity;
  const learn = (x: number): void => {
    const z = winsorised(baseline.place(x));
    const spread = baseline.sigma * Math.sqrt(1 + 1 / Math.max(1, baseline.count));
    baseline.add(baseline.count ? baseline.mean + z * spread : x);
    usual.push(x);
  };
  const begin = (from: readonly number[]): void => {
    [baseline, chart, open, near, usual] = [
      new Baseline(prior),
      new Cusum(limits),
      undefined,
      0,
      [],
    ];
    from.forEach(learn);
  };
  figures.forEach((figure, i) => {
    const anew = cleans.some((at) => at > last && at <= figure.at);
    last = figure.at;
    if (anew) {
      // A proved clean ends what was told.
      if (open) open.back = figure;
      begin([]);
    }
    const x = Math.log(figure.value);
    if (open) {
      since.push(figure);
      measure(open, since, baseline);
      near = x < baseline.mean + Math.log(open.factor) / 2 ? near + 1 : 0;
      if (near < BACK) return;
      open.back = figures[i - BACK + 1]!;
      begin(usual);
      return;
    }
    const enough = baseline.count >= LEAST_LOADS;
    if (!enough || chart.add(winsorised(baseline.place(x))) !== 'up') return learn(x);
    const first = i - chart.upSince + 1;
    since = figures.slice(first, i + 1);
    const before = usual.slice(0, usual.length - (since.length - 1));
    begin(before);
    open = { from: figures[first]!, seen: figure, factor: 1, low: 1, high: 1, usual: 1 };
    measure(open, since, baseline);
    shifts.push(open);
  });
  return shifts;
}

const winsorised = (z: number): number => Math.max(-WINSOR, Math.min(WINSOR, z));

/**
 * When a shift most likely began, and how large it is.
 * @param window loads from where the CUSUM left nothing, which is rather too early
 */
function measure(shift: Shift, window: readonly DriftFigure[], baseline: Baseline): void {
  const over = window.map(({ value }) => Math.log(value) - baseline.mean);
  const half = over.slice(over.length >> 1);
  const size = half.reduce((sum, x) => sum + x, 0) / half.length;
  // The likeliest first load of a shift of that size: of the sums to the end the greatest.
  let [sum, most, first] = [0, -Infinity, 0];
  for (let i = over.length - 1; i >= 0; i--) {
    sum += over[i]! - size / 2;
    if (window[i]!.at <= shift.seen.at && sum > most) [most, first] = [sum, i];
  }
  const since = over.slice(first);
  const change = since.reduce((all, x) => all + x, 0) / since.length;
  const error = baseline.sigma * Math.sqrt(1 / since.length + 1 / Math.max(1, baseline.count));
  shift.from = window[first]!;
  shift.usual = Math.exp(baseline.mean);
  shift.factor = Math.exp(change);
  shift.low = Math.exp(change - EIGHT_IN_TEN * error);
  shift.high = Math.exp(change + EIGHT_IN_TEN * error);
}
