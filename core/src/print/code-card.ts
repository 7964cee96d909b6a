import { stationById } from '../care/catalogue/lookup.js';
import type { CodeSheetDraft, Household, Machine } from '../model/schemas.js';
import { sayLamps, sheetFits } from '../trouble/codes/read.js';
import { sayDay, type Day } from '../units/calendar.js';
import { sayAlarm } from './wall-sheet.js';

/** A sheet of codes for the wall: short enough to be read standing. What it looks like is not its business. */
export interface CodeCard {
  title: string;
  lead: string;
  rows: { shows: string; says: string; where: string; clears: string }[];
  /** What comes before any code. */
  first: string;
  /** Where its code leads. */
  address: string;
}

/**
 * A sheet of display codes as it hangs beside the machine.
 * @param machines of the house @param address where what a code means is worked out further
 */
export function codeCard(
  sheet: CodeSheetDraft,
  machines: readonly Machine[],
  household: Household,
  today: Day,
  address: string,
): CodeCard {
  const names = machines
    .filter((machine) => !machine.retired && sheetFits(sheet, machine))
    .map(({ name }) => name);
  return {
    title: names.length ? names.join(', ') : sheet.maker,
    lead: `${sheet.maker} ${sheet.family}. Printed on ${sayDay(today)}.`,
    rows: sheet.rows.map(({ code, pattern, says, stations = [], clears = '' }) => ({
      shows: code ?? (pattern ? sayLamps(pattern) : ''),
      says,
      where: stations.map((id) => stationById(id).name.toLowerCase()).join(', '),
      clears,
    })),
    first: `${sayAlarm(household)} A smell of gas: touch no switch, out, call from outside.`,
    address,
  };
}
