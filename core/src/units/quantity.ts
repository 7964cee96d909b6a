import Qty from 'js-quantities';
import type { UnitSystem } from '../model/vocabulary.js';

/*
 * Quantities with their units at the borders: inside the core everything is in the dimension's own unit,
 * the first in its table. Conversion is js-quantities'; hardness is a matter of definition.
 */

interface Dimension {
  /** What people read, to what js-quantities calls it; the first is what the core reckons in. */
  units: Readonly<Record<string, string>>;
  /** What each system shows unless a field says otherwise. */
  shown: Readonly<Record<UnitSystem, string>>;
}

export const DIMENSIONS = {
  length: {
    units: { m: 'm', cm: 'cm', mm: 'mm', ft: 'ft', in: 'in' },
    shown: { metric: 'm', us: 'ft' },
  },
  pressure: {
    units: { Pa: 'Pa', hPa: 'hPa', kPa: 'kPa', inH2O: 'inH2O' },
    shown: { metric: 'Pa', us: 'inH2O' },
  },
  flow: {
    units: {
      'm³/s': 'm^3/s',
      'L/s': 'l/s',
      'm³/h': 'm^3/h',
      'L/min': 'l/min',
      'ft³/min': 'ft^3/min',
      'gal/min': 'gal/min',
    },
    shown: { metric: 'L/s', us: 'ft³/min' },
  },
  speed: {
    units: { 'm/s': 'm/s', 'km/h': 'km/h', 'ft/min': 'ft/min' },
    shown: { metric: 'm/s', us: 'ft/min' },
  },
  volume: {
    units: {
      'm³': 'm^3',
      L: 'l',
      ml: 'ml',
      gal: 'gal',
      cup: 'cup',
      'fl oz': 'floz',
      'ft³': 'ft^3',
    },
    shown: { metric: 'L', us: 'gal' },
  },
  mass: {
    units: { kg: 'kg', g: 'g', lb: 'lbs', oz: 'oz' },
    shown: { metric: 'kg', us: 'lb' },
  },
  area: {
    units: { 'm²': 'm^2', 'cm²': 'cm^2', 'in²': 'in^2' },
    shown: { metric: 'cm²', us: 'in²' },
  },
  temperature: {
    units: { '°C': 'tempC', '°F': 'tempF' },
    shown: { metric: '°C', us: '°F' },
  },
  time: {
    units: { s: 's', min: 'min', h: 'h' },
    shown: { metric: 's', us: 's' },
  },
  power: { units: { W: 'W', kW: 'kW' }, shown: { metric: 'kW', us: 'kW' } },
  energy: { units: { kWh: 'kWh', Wh: 'Wh', MJ: 'MJ' }, shown: { metric: 'kWh', us: 'kWh' } },
  ratio: { units: { '1': '', '%': '%' }, shown: { metric: '%', us: '%' } },
  slope: { units: { 'mm/m': '', 'in/ft': '', marks: '' }, shown: { metric: 'mm/m', us: 'in/ft' } },
  shaking: { units: { 'm/s²': 'm/s^2' }, shown: { metric: 'm/s²', us: 'm/s²' } },
  turning: { units: { rpm: 'rpm' }, shown: { metric: 'rpm', us: 'rpm' } },
  /** On a device’s own scale: 100 is the loudest that it can tell. */
  loudness: { units: { dB: '' }, shown: { metric: 'dB', us: 'dB' } },
  evaporation: {
    units: { 'g/min': 'g/min', 'kg/h': 'kg/h', 'oz/min': 'oz/min', 'lb/h': 'lbs/h' },
    shown: { metric: 'g/min', us: 'oz/min' },
  },
  hardness: {
    units: { 'mg/L': '', ppm: '', '°dH': '', gpg: '', '°f': '', '°e': '' },
    shown: { metric: '°dH', us: 'gpg' },
  },
} as const satisfies Record<string, Dimension>;
export type DimensionId = keyof typeof DIMENSIONS;

/** Factors to the dimension's own unit that are definitions: hardness as mg/L of CaCO3, and slope. */
const DEFINED: Partial<Record<DimensionId, Readonly<Record<string, number>>>> = {
  hardness: { 'mg/L': 1, ppm: 1, '°dH': 17.848, gpg: 17.118, '°f': 10, '°e': 14.254 },
  // How many lines of its vial a household level's bubble stands off: some 3 mm/m each. Judgement.
  slope: { 'mm/m': 1, 'in/ft': 1000 / 12, marks: 3 },
  ratio: { '1': 1, '%': 0.01 },
  loudness: { dB: 1 },
};

export interface Amount {
  value: number;
  unit: string;
}

/** The units that a dimension is given in; the core’s own is the first. */
export const unitsOf = (dimension: DimensionId): string[] =>
  Object.keys(DIMENSIONS[dimension].units);

/** The unit that the core reckons in. */
export const ownUnit = (dimension: DimensionId): string => unitsOf(dimension)[0]!;

/** The unit that a system shows. */
export const shownUnit = (dimension: DimensionId, system: UnitSystem): string =>
  DIMENSIONS[dimension].shown[system];

/** What is smaller is nothing; js-quantities does not read it. */
const LEAST = 1e-60;

/**
 * Converts between two units of a dimension; what is no number, or cannot be, is none.
 * @throws RangeError for a unit that the dimension does not have
 */
export function convert(value: number, dimension: DimensionId, from: string, to: string): number {
  const units: Readonly<Record<string, string>> = DIMENSIONS[dimension].units;
  for (const unit of [from, to]) {
    if (!(unit in units)) throw new RangeError(`A ${dimension} is not given in "${unit}".`);
  }
  if (from === to) return value;
  if (!Number.isFinite(value)) return NaN;
  const defined = DEFINED[dimension];
  if (defined) return (value * defined[from]!) / defined[to]!;
  try {
    return Qty(Math.abs(value) < LEAST ? 0 : value, units[from]!).to(units[to]!).scalar;
  } catch {
    // Colder than can be.
    return NaN;
  }
}

/** In the core's own unit. */
export const toOwn = ({ value, unit }: Amount, dimension: DimensionId): number =>
  convert(value, dimension, unit, ownUnit(dimension));

/** From the core's own unit. */
export const fromOwn = (value: number, dimension: DimensionId, unit: string): number =>
  convert(value, dimension, ownUnit(dimension), unit);

/** "3.4 L/s": three figures, or the digits asked for, without trailing noughts. */
export function sayAmount(value: number, unit: string, figures = 3): string {
  const rounded = Number(value.toPrecision(figures));
  return `${rounded} ${unit}`.trim();
}
