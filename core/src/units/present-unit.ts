import type { UnitSystem } from '../model/vocabulary.js';
import { convert, DIMENSIONS, type Amount, type DimensionId } from './quantity.js';

/** What people of the other system read instead of a unit of the log. */
const US: Readonly<Record<string, string>> = {
  m: 'ft',
  cm: 'in',
  mm: 'in',
  g: 'oz',
  kg: 'lb',
  L: 'gal',
  ml: 'fl oz',
  'm²': 'in²',
  'cm²': 'in²',
  '°C': '°F',
  'L/s': 'ft³/min',
  'L/min': 'gal/min',
  'm/s': 'ft/min',
  Pa: 'inH2O',
  'mm/m': 'in/ft',
  'g/min': 'oz/min',
  'kg/h': 'lb/h',
};

/** An amount in the unit that a household reads; one that both read alike stays. */
export function presentAmount(
  { value, unit }: Amount,
  dimension: DimensionId,
  system: UnitSystem,
): Amount {
  const own = system === 'us' ? (US[unit] ?? unit) : unit;
  if (own === unit || !(own in DIMENSIONS[dimension].units)) return { value, unit };
  return { value: Number(convert(value, dimension, unit, own).toPrecision(6)), unit: own };
}
