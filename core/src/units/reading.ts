import { quantityOf, type Quantity } from '../model/quantities.js';
import { convert, unitsOf, type Amount } from './quantity.js';

/** A reading as it was told: of what, how much, in which unit. */
export interface ToldReading {
  quantity?: string | undefined;
  value?: number | undefined;
  unit?: string | undefined;
}

/** What is wrong with a reading, by its field. */
export interface WrongReading {
  field: keyof ToldReading;
  message: string;
}

/**
 * A reading in the unit that the log keeps its quantity in.
 *
 * @returns the amount, or what is wrong: no such quantity, a unit of something else, a figure that cannot be
 * @example readReading({ quantity: 'drain-time', value: 2, unit: 'min' }) // { value: 120, unit: 's' }
 */
export function readReading({ quantity, value, unit }: ToldReading): Amount | WrongReading {
  const row = quantityOf(quantity);
  if (!row) return { field: 'quantity', message: `There is no quantity “${quantity}”.` };
  if (value === undefined || !Number.isFinite(value)) {
    return { field: 'value', message: rangeOf(row, row.unit) };
  }
  const units = unitsOf(row.dimension);
  if (unit === undefined || !units.includes(unit)) {
    return { field: 'unit', message: `Give it in one of: ${units.join(', ')}.` };
  }
  const own = clean(convert(value, row.dimension, unit, row.unit));
  const slack = 1e-9 * Math.max(1, row.most);
  if (!(own >= row.least - slack && own <= row.most + slack)) {
    return { field: 'value', message: rangeOf(row, unit) };
  }
  return { value: own, unit: row.unit };
}

/** Whether a reading was refused. */
export const isWrong = (reading: Amount | WrongReading): reading is WrongReading =>
  'field' in reading;

/** "Give a number from 1 to 7200 s.", in the unit that was used. */
function rangeOf({ dimension, unit: own, least, most }: Quantity, unit: string): string {
  const [from, to] = [least, most].map((limit) =>
    Number(convert(limit, dimension, own, unit).toPrecision(3)),
  );
  return `Give a number from ${from} to ${to} ${unit}.`;
}

/** Without the dust that a conversion leaves behind the twelfth digit. */
const clean = (value: number): number => Number(value.toPrecision(12));
