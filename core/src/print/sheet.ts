import { WAY_NAMES } from '../care/catalogue/data/ways.js';
import type { Entry, Household, Machine } from '../model/schemas.js';
import { GRADE_NAMES, KIND_NAMES, WAYS, type UnitSystem } from '../model/vocabulary.js';
import { FEATURE_QUESTIONS } from '../care/catalogue/data/features.js';
import { sayEntryIn } from '../care/record/entry-words.js';
import { dayOf, sayDay } from '../units/calendar.js';
import { many } from '../units/many.js';
import { rulesOf } from '../regions/rules.js';
import {
  NUMBER_NAMES,
  PLACE_NAMES,
  type HouseNumber,
  type HousePlace,
} from '../trouble/data/types.js';

/** A sheet to hand to somebody: a machine's record, or a visit. What it looks like is not its business. */
export interface Sheet {
  title: string;
  lead: string;
  facts: { name: string; value: string }[];
  sections: SheetSection[];
  /** Photos to print, by their ids, each with a few words. */
  photos: SheetPhoto[];
}

/** A figure along time, UTC milliseconds, with what was done as marks. */
export interface SheetChart {
  title: string;
  thread: 'water' | 'air';
  from: number;
  to: number;
  /** Beside its left edge, from the lowest up. */
  unit: string;
  points: { at: number; value: number }[];
  clean?: number;
  marks: { at: number; kind: 'cleaned' | 'looked' | 'replaced' | 'case' }[];
  /** Its ends in words. */
  ends: [string, string];
}

export interface SheetPhoto {
  id: string;
  said: string;
}

export interface SheetSection {
  heading: string;
  columns: string[];
  rows: string[][];
  /** What to print where there are no rows. */
  none: string;
  /** Figures to draw in the place of rows, each with what happened meanwhile. */
  charts?: SheetChart[];
}

const UNANSWERED = 'not known';

/**
 * How a machine is built, as far as it was told.
 * @param told whether prices, and what is only of this house, such as its stop valve, are told, too
 */
export function machineFacts(
  machine: Machine,
  household: Household,
  { money = true, house = true } = {},
): Sheet['facts'] {
  const built = FEATURE_QUESTIONS.filter(({ kinds }) => kinds.includes(machine.kind)).map(
    ({ id, name, answers }) => {
      const told = machine.features[id];
      const value =
        told === undefined || told === 'unknown'
          ? UNANSWERED
          : (answers.find((answer) => answer.value === told)?.label ?? String(told));
      return { name, value };
    },
  );
  return [
    { name: 'Kind', value: KIND_NAMES[machine.kind] },
    { name: 'Maker and model', value: machine.maker ?? UNANSWERED },
    { name: 'Place', value: machine.place },
    ...identityFacts(machine, household, money),
    ...(machine.inUseSince ? [{ name: 'In use since', value: sayDay(machine.inUseSince) }] : []),
    { name: 'Loads a week', value: String(machine.loadsPerWeek) },
    ...(household.hardness === undefined
      ? []
      : [{ name: 'Water hardness', value: `${Math.round(household.hardness)} mg/L as CaCO3` }]),
    ...built,
    ...(house ? emergencyFacts(household) : []),
  ];
}

/** Where what shuts things off is, and whom to call. */
const emergencyFacts = ({ places = {}, numbers = {}, ...household }: Household): Sheet['facts'] => [
  ...Object.entries(places).map(([place, where]) => ({
    name: PLACE_NAMES[place as HousePlace],
    value: where,
  })),
  ...Object.entries({ emergency: rulesOf(household).emergency, ...numbers }).map(
    ([id, number]) => ({
      name: NUMBER_NAMES[id as HouseNumber],
      value: number,
    }),
  ),
];

/** What its papers say, as far as they were entered; and the ways that are its own. */
function identityFacts(
  { identity = {}, ways = {} }: Machine,
  { currency }: Household,
  money: boolean,
): Sheet['facts'] {
  const { model, serial, boughtOn, warrantyUntil, price, hosesSince, gasketSince } = identity;
  const row = (name: string, value: string | undefined) => (value ? [{ name, value }] : []);
  const day = (on: string | undefined) => on && sayDay(on);
  return [
    ...row('Model', model),
    ...row('Serial number', serial),
    ...row('Bought', day(boughtOn)),
    ...row('Warranty until', day(warrantyUntil)),
    ...row(
      'Price',
      price === undefined || !money ? undefined : `${price} ${currency ?? ''}`.trim(),
    ),
    ...row('Hoses since', day(hosesSince)),
    ...row('Gasket since', day(gasketSince)),
    ...WAYS.flatMap((id) => row(WAY_NAMES[id], ways[id])),
  ];
}

/** What was found and noted of an entry, in a line. */
export const detailOf = ({ grade, found, trays, note }: Entry): string =>
  [
    grade === undefined ? '' : GRADE_NAMES[grade],
    ...(found ?? []).map(({ what, count }) => `${count} × ${what}`),
    trays ? `${many(trays, 'tray')} of water` : '',
    note ?? '',
  ]
    .filter((text) => text.trim() !== '')
    .join('; ');

/** An entry as a row: when, what, found. */
export const entryRow = (
  entry: Entry,
  machine: Machine,
  units: UnitSystem,
  today: string,
): string[] => [
  sayDay(dayOf(Date.parse(entry.at), entry.zone), today),
  sayEntryIn(entry, units, machine),
  detailOf(entry),
];
