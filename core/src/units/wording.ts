import type { UnitSystem } from '../model/vocabulary.js';
import { told } from '../regions/spoken.js';
import { fromOwn, sayAmount, shownUnit, type DimensionId } from './quantity.js';

/*
 * Sentences that are made before it is known in which units they will be read: a figure is marked where
 * the sentence is made, and said in the reader's units where it is read.
 *
 *   figure(0.25, 'length', CM)  ──inUnits(…, 'metric')──▶  "25 cm"
 *                               ──inUnits(…, 'us')──────▶  "9.84 in"
 */

/** Units to show a figure in, where they are not those that each system shows anyhow. */
export type Shown = Readonly<Partial<Record<UnitSystem, string>>> & {
  /** Figures that are told; three where nothing is said. */
  readonly digits?: number;
};
export const CM: Shown = { metric: 'cm', us: 'in' };
export const MM: Shown = { metric: 'mm', us: 'in' };
export const PER_MINUTE: Shown = { metric: 'L/min', us: 'gal/min' };

const [OPEN, BETWEEN, CLOSE] = ['\u27e6', '\u2502', '\u27e7'];
const MARKED = new RegExp(`${OPEN}([^${CLOSE}]*)${CLOSE}`, 'g');

/** A figure within a sentence, in the dimension's own unit. */
export function figure(value: number, dimension: DimensionId, shown: Shown = {}): string {
  const {
    metric = shownUnit(dimension, 'metric'),
    us = shownUnit(dimension, 'us'),
    digits = 3,
  } = shown;
  return `${OPEN}${[value, dimension, metric, us, digits].join(BETWEEN)}${CLOSE}`;
}

const read = (sentence: string, system: UnitSystem): string =>
  sentence.replace(MARKED, (_, inside: string) => {
    const [value, dimension, metric, us, digits] = inside.split(BETWEEN) as [
      string,
      DimensionId,
      string,
      string,
      string,
    ];
    const unit = system === 'us' ? us : metric;
    return sayAmount(fromOwn(Number(value), dimension, unit), unit, Number(digits));
  });

/**
 * What was worked out, with every sentence in it read in a system's units and in the words that are spoken.
 * Nothing else is changed.
 */
export function inUnits<T>(said: T, system: UnitSystem): T {
  if (typeof said === 'string') return told(read(said, system)) as T;
  if (Array.isArray(said)) return said.map((one: unknown) => inUnits(one, system)) as T;
  if (said === null || typeof said !== 'object' || ArrayBuffer.isView(said)) return said;
  return Object.fromEntries(
    Object.entries(said).map(([name, value]) => [name, inUnits<unknown>(value, system)]),
  ) as T;
}
