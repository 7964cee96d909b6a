import type { FieldProblem } from '../../model/check.js';
import type { UnitSystem } from '../../model/vocabulary.js';
import {
  convert,
  ownUnit,
  sayAmount,
  shownUnit,
  unitsOf,
  type Amount,
  type DimensionId,
} from '../../units/quantity.js';

/** A figure that an instrument takes in: what it is, and what is accepted. */
export interface Field {
  label: string;
  dimension: DimensionId;
  /** In the dimension's own unit. */
  least: number;
  most: number;
  /** Shown in these, where that is not what the system shows anyhow. */
  metric?: string;
  us?: string;
  optional?: true;
  /** What most leave as it stands; a screen folds it. */
  seldom?: true;
}

export type Fields = Readonly<Record<string, Field>>;
/** What was given, each with its unit. */
export type Given<F extends Fields> = { [K in keyof F]?: Amount | undefined };
/** In the dimensions' own units; those that are optional may be missing. */
export type Read<F extends Fields> = {
  [K in keyof F as F[K] extends { optional: true } ? never : K]: number;
} & { [K in keyof F as F[K] extends { optional: true } ? K : never]?: number };

/** What was given cannot be reckoned with; nothing was. */
export class MeasureProblem extends Error {
  constructor(readonly problems: FieldProblem[]) {
    super(problems.map(({ field, message }) => `${field}: ${message}`).join(' '));
  }
}

/** The unit that a field is shown in. */
export const fieldUnit = (field: Field, system: UnitSystem): string =>
  field[system] ?? shownUnit(field.dimension, system);

/** "With its unit: one of m, cm, ft." */
const unitsSaid = ({ dimension }: Field): string =>
  `With its unit, one of: ${unitsOf(dimension).join(', ')}.`;

/** "Give 0.02 to 1 m." in the unit that the person used. */
function rangeSaid({ dimension, least, most }: Field, unit: string): string {
  const [from, to] = [least, most].map((limit) =>
    Number(convert(limit, dimension, ownUnit(dimension), unit).toPrecision(3)),
  );
  return `Give a number from ${from} to ${to} ${unit}.`;
}

/**
 * Reads what was given into the core's own units.
 * @param at prefix of the fields' names in problems
 * @throws MeasureProblem naming every field that is missing, no number, or out of its range
 */
export function readFields<F extends Fields>(given: Given<F>, fields: F, at = ''): Read<F> {
  const problems: FieldProblem[] = [];
  const read: Record<string, number> = {};
  for (const [name, field] of Object.entries(fields)) {
    const amount = given[name];
    const wrong = (message: string) => problems.push({ field: `${at}${name}`, message });
    if (amount === undefined) {
      if (!field.optional)
        wrong(`${rangeSaid(field, fieldUnit(field, 'metric'))} ${unitsSaid(field)}`);
      continue;
    }
    const { value, unit } = amount;
    if (!unitsOf(field.dimension).includes(unit)) {
      wrong(`Give it in one of: ${unitsOf(field.dimension).join(', ')}.`);
    } else if (!Number.isFinite(value)) {
      wrong(rangeSaid(field, unit));
    } else {
      const own = convert(value, field.dimension, unit, ownUnit(field.dimension));
      const slack = 1e-9 * Math.max(1, Math.abs(field.least), Math.abs(field.most));
      const fits = own >= field.least - slack && own <= field.most + slack;
      if (!fits) wrong(rangeSaid(field, unit));
      else read[name] = own;
    }
  }
  if (problems.length) throw new MeasureProblem(problems);
  return read as Read<F>;
}

/**
 * Examples for a system: in its own units, and rounded to two figures where they were thought of in the
 * other's. What was measured is never rounded.
 */
export function exampleIn<F extends Fields>(
  amounts: Readonly<Record<string, Amount>>,
  fields: F,
  system: UnitSystem,
): Record<string, Amount> {
  if (system === 'metric') return { ...amounts };
  return Object.fromEntries(
    Object.entries(amounts).map(([name, amount]) => {
      const field = fields[name];
      if (!field) return [name, amount];
      const unit = fieldUnit(field, system);
      const value = convert(amount.value, field.dimension, amount.unit, unit);
      return [name, { value: Number(value.toPrecision(2)), unit }];
    }),
  );
}

/** One line of how a result was worked out. */
export interface Working {
  what: string;
  /** The formula with its figures, or the rule. */
  how: string;
}

/** A figure of the core's as a system shows it. */
export const say = (
  value: number,
  dimension: DimensionId,
  system: UnitSystem = 'metric',
  unit = shownUnit(dimension, system),
): string => sayAmount(convert(value, dimension, ownUnit(dimension), unit), unit);

/** A figure taken by hand, with a watch or a bag: standard deviation as a share of it. Judgement. */
export const BY_HAND = 0.1;

/** "38 L/s, give or take 4": told no finer than it is known. @param value in the dimension's own unit, above 0 */
export function sayByHand(
  value: number,
  dimension: DimensionId,
  system: UnitSystem = 'metric',
  unit = shownUnit(dimension, system),
): string {
  const shown = convert(value, dimension, ownUnit(dimension), unit);
  const error = Number((BY_HAND * shown).toPrecision(1));
  const decimals = Math.max(0, -Math.floor(Math.log10(error)));
  return `${shown.toFixed(decimals)} ${unit}, give or take ${error.toFixed(decimals)}`;
}
