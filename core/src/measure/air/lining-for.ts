import { ventRun, type VentRun } from './vent-run.js';

/** Share of the duct's width that a lining may take at most: it leaves a tenth open. Judgement. */
const MOST = 0.45;
const STEPS = 50;

/**
 * The lint all round that would explain an air flow measured at the hood, m; found by halving, since more
 * lining never gives more air.
 * @param measured m³/s
 * @returns nothing where the run as it is laid out gives no more than that, or no lining would explain it
 */
export function liningFor(run: VentRun, measured: number): number | undefined {
  const flowWith = (lining: number): number => ventRun({ ...run, lining }).flow;
  let [less, more] = [run.lining, run.diameter * MOST];
  if (flowWith(less) <= measured || flowWith(more) >= measured) return undefined;
  for (let i = 0; i < STEPS; i++) {
    const middle = (less + more) / 2;
    if (flowWith(middle) > measured) less = middle;
    else more = middle;
  }
  return (less + more) / 2;
}
