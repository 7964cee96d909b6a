import { MOST_WATTS } from '../log/counter.js';
import { AHEAD, EARLIEST } from '../log/meter-reader.js';

/** What a meter told at an instant: its watts, or how its counter stands. */
export interface Sample {
  /** UTC milliseconds. */
  at: number;
  watts?: number;
  wattHours?: number;
}

/** What a sample is in, and what it is in our own units. */
export const SAMPLE_UNITS = ['W', 'kW', 'Wh', 'kWh'] as const;
export type SampleUnit = (typeof SAMPLE_UNITS)[number];

/** A counter of a house does not stand higher, Wh. */
const MOST_WATT_HOURS = 1e9;
/** Instants that are smaller are seconds. */
const SECONDS = 1e11;

/** What is wrong with a sample, and with which part of it. */
export interface SampleProblem {
  field: 'at' | 'watts' | 'wattHours';
  message: string;
}

/**
 * Reads a sample as it is sent: `at` as an instant with its zone, or as seconds or milliseconds since 1970; and one of
 * `watts` and `wattHours`, a counter that runs on.
 * @param now UTC milliseconds
 */
export function readSample(
  given: unknown,
  now: number,
): { sample: Sample } | { problem: SampleProblem } {
  const { at, watts, wattHours } = (given ?? {}) as Partial<Record<string, unknown>>;
  const instant = instantOf(at);
  if (instant === undefined) {
    return wrong('at', 'Give an instant with its zone, or seconds or milliseconds since 1970.');
  }
  if (instant > now + AHEAD) return wrong('at', 'This is in the future.');
  if (instant < EARLIEST) return wrong('at', 'This is from before there were such meters.');
  if ((watts === undefined) === (wattHours === undefined)) {
    return wrong('watts', 'Give watts, or wattHours of a counter that runs on.');
  }
  return watts === undefined
    ? read(instant, 'wattHours', wattHours, MOST_WATT_HOURS)
    : read(instant, 'watts', watts, MOST_WATTS);
}

/** The sample of a figure in a unit. @param at UTC milliseconds */
export function sampleOf(
  figure: number,
  unit: SampleUnit,
  at: number,
  now: number,
): ReturnType<typeof readSample> {
  const thousands = unit.startsWith('k') ? 1000 : 1;
  const is = unit.endsWith('h') ? 'wattHours' : 'watts';
  return readSample({ at, [is]: figure * thousands }, now);
}

const wrong = (field: SampleProblem['field'], message: string) => ({ problem: { field, message } });

function read(at: number, field: 'watts' | 'wattHours', figure: unknown, most: number) {
  if (typeof figure !== 'number' || !Number.isFinite(figure)) return wrong(field, 'Give a number.');
  if (figure < 0) return wrong(field, 'This is below nothing.');
  if (figure > most) {
    return wrong(
      field,
      field === 'watts' ? 'No socket gives so much.' : 'No counter stands so high.',
    );
  }
  return { sample: { at, [field]: figure } };
}

/** UTC milliseconds of an instant as it is sent; nothing where it is none. */
export function instantOf(given: unknown): number | undefined {
  if (typeof given === 'number' && Number.isFinite(given)) {
    return Math.round(given < SECONDS ? given * 1000 : given);
  }
  if (typeof given !== 'string' || !ZONED.test(given)) return undefined;
  const at = Date.parse(given);
  return Number.isNaN(at) ? undefined : at;
}
const ZONED = /^\d{4}-\d\d-\d\d[T ]\d\d:\d\d(:\d\d(\.\d{1,9})?)?\s?(Z|[+-]\d\d:?\d\d)$/i;
