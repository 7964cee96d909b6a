import { readFields, type Fields, type Given, type Working } from '../input/fields.js';
import { figure, PER_MINUTE } from '../../units/wording.js';

export const FILL_FIELDS = {
  volume: { label: 'Water in the bucket', dimension: 'volume', least: 0.0002, most: 0.05 },
  seconds: { label: 'Time that it ran', dimension: 'time', least: 1, most: 600 },
  /** The least that the manual asks for. */
  manual: {
    label: 'Your manual’s least',
    dimension: 'flow',
    least: 1 / 60_000,
    most: 40 / 60_000,
    metric: 'L/min',
    us: 'gal/min',
    optional: true,
  },
} as const satisfies Fields;

/** Below this suspect screen or tap, m³/s: 8 L/min (common practice). */
export const SLOW_FILL = 8 / 60_000;

export interface FillFlow {
  /** m³/s. */
  flow: number;
  slow: boolean;
  advice: string;
  working: Working[];
}

/** Water from the fill hose into a bucket. @throws MeasureProblem */
export function fillFlow(given: Given<typeof FILL_FIELDS>): FillFlow {
  const { volume, seconds, manual } = readFields(given, FILL_FIELDS);
  const flow = volume / seconds;
  const least = manual ?? SLOW_FILL;
  const slow = flow < least;
  const said = (value: number) => figure(value, 'flow', PER_MINUTE);
  return {
    flow,
    slow,
    advice: slow
      ? 'Little water: open the tap fully, look for a kink, then clean the inlet screen. If the hose itself gives little, it is the tap or the house.'
      : 'Enough water comes. If it still fills slowly, the screen inside the machine’s inlet is next.',
    working: [
      {
        what: 'Flow',
        how: `${figure(volume, 'volume')} in ${figure(seconds, 'time')}: ${said(flow)}`,
      },
      {
        what: 'Against',
        how:
          manual === undefined
            ? `${said(SLOW_FILL)} (common practice); your manual’s pressure range counts for more`
            : `your manual’s ${said(manual)}`,
      },
    ],
  };
}
