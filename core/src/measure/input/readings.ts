/*
 * The forms in which the log keeps what instruments measure, so that a figure taken by watch in a visit
 * and one from an instrument are the same quantity. Flows are in m³/s.
 */

/** The bin bag of the hood test, m³: 30 US gallons. Common practice, as are the two below. */
const BAG = 0.113;
/** The water of a usual drain programme, m³. */
const DRAINED = 0.015;
/** Seconds that the fill hose runs. */
const FILLING = 10;

const rounded = (value: number, digits: number): number => Number(value.toFixed(digits));

/** `bag-fill-time`, s, of an air flow, and back. */
export const bagSeconds = (flow: number): number => rounded(BAG / flow, 2);
/** An air flow, m³/s, of a `bag-fill-time`, s. */
export const airOfBag = (seconds: number): number => BAG / seconds;

/** `drain-time`, s, of a water flow, and back. */
export const drainSeconds = (flow: number): number => rounded(DRAINED / flow, 1);
/** A water flow, m³/s, of a `drain-time`, s. */
export const flowOfDrain = (seconds: number): number => DRAINED / seconds;

/** `fill-litres`: litres in ten seconds. */
export const fillLitres = (flow: number): number => rounded(flow * FILLING * 1000, 2);

/** The best flow among some times that are the better the shorter they are. */
export const bestOf = (
  figures: readonly { value: number }[] | undefined,
  flowOf: (seconds: number) => number,
): number | undefined =>
  figures?.length ? flowOf(Math.min(...figures.map(({ value }) => value))) : undefined;

/** Readings of the drain hose and its pipe, by the field of the instrument; they are kept in cm. */
export const HOSE_READINGS = {
  overWeir: 'pipe-over-weir',
  hoseTop: 'hose-top',
  inserted: 'hose-inserted',
} as const;
/** Metres of a height that the log keeps in centimetres. */
export const metresOfReading = (centimetres: number): number => centimetres / 100;
