import { knowsTask, taskOf } from '../care/catalogue/lookup.js';
import type { Entry, Household, Machine, Money, Supply } from '../model/schemas.js';
import { dayOf, plusDays, startOf, type Day } from '../units/calendar.js';
import { sumOf } from './life.js';
import { savedByCare, type SavedByClean } from './saved.js';

/** Work of a week, by who did it. */
export interface WeekOfWork {
  /** Its first day, seven days each, the last one ends today. */
  from: Day;
  minutes: number;
  who: { author: string; minutes: number }[];
}

/** What a month asked and cost. */
export interface MonthOfCare {
  /** "2026-03". */
  month: string;
  minutes: number;
  tasks: number;
  /** Money of supplies that were bought, where they have a price. */
  supplies: number;
  /** Money of parts that were replaced, and of calls. */
  parts: number;
  calls: number;
  /** Energy that meters told, kWh, of so many loads, and its money where a kWh has a price. */
  kWh: number;
  metered: number;
  energy: number;
  loads: number;
}

/** A year of care as it was: when, who, how long, and what it cost. */
export interface YearView {
  from: Day;
  to: Day;
  weeks: WeekOfWork[];
  people: { author: string; minutes: number; tasks: number }[];
  months: MonthOfCare[];
  currency?: string;
  /** Supplies that were bought and have no price: their money is not in it. */
  unpriced: string[];
  /** Whether a kWh has a price, and which. */
  priced: boolean;
  energyPrice?: number;
  /** Parts and calls in other money than the house's: it is not in the months. */
  otherMoney: Money[];
  /** What the cleans of a dryer's way of air saved, where a meter tells. */
  saved: SavedByClean[];
}

const WEEKS = 53;

/** What a year is made from. */
export interface YearGround {
  household: Household;
  machines: readonly Machine[];
  supplies: readonly Supply[];
  /** Work, purchases, parts, calls and loads in the order of time; others are passed over. */
  entries: Iterable<Entry>;
  /** UTC instant, milliseconds. */
  now: number;
}

/** The last fifty-three weeks. Minutes of a task are those that the catalogue has for it, at work. */
export function yearView({ household, machines, supplies, entries, now }: YearGround): YearView {
  const { zone, energyPrice, currency } = household;
  const to = dayOf(now, zone);
  const from = plusDays(to, 1 - 7 * WEEKS);
  const weeks = Array.from({ length: WEEKS }, (_, i): WeekOfWork => {
    return { from: plusDays(from, 7 * i), minutes: 0, who: [] };
  });
  const months = new Map<string, MonthOfCare>();
  const people = new Map<string, { author: string; minutes: number; tasks: number }>();
  const unpriced = new Set<string>();
  const [dated, otherMoney]: [Entry[], Money[]] = [[], []];
  for (const entry of entries) {
    if (entry.kind === 'done' || entry.cycle) dated.push(entry);
    const day = dayOf(Date.parse(entry.at), zone);
    if (day < from || day > to) continue;
    const month = monthOf(months, day.slice(0, 7));
    if (entry.kind === 'load') {
      const { count = 1, cycle } = entry;
      month.loads += count;
      if (!cycle) continue;
      month.metered++;
      month.kWh += cycle.wattHours / 1000;
      month.energy += (cycle.wattHours / 1000) * (energyPrice ?? 0);
    } else if (entry.kind === 'bought') {
      const supply = supplies.find(({ item, id }) => item === entry.supply || id === entry.supply);
      if (supply?.price === undefined) {
        if (supply) unpriced.add(supply.name);
        continue;
      }
      month.supplies += ((entry.value ?? 0) / supply.pack) * supply.price;
    } else if (entry.kind === 'replaced' || entry.kind === 'called') {
      const { cost } = entry;
      if (!cost) continue;
      if (cost.currency !== (currency ?? cost.currency)) otherMoney.push(cost);
      else month[entry.kind === 'replaced' ? 'parts' : 'calls'] += cost.amount;
    } else if (entry.kind === 'done' || entry.kind === 'opened') {
      const minutes = minutesOf(entry, machines);
      const { author } = entry;
      const week = weeks[Math.floor(daysBetween(from, day) / 7)]!;
      week.minutes += minutes;
      add(week.who, author, minutes);
      month.minutes += minutes;
      month.tasks++;
      const person = people.get(author) ?? { author, minutes: 0, tasks: 0 };
      person.minutes += minutes;
      person.tasks++;
      people.set(author, person);
    }
  }
  return {
    ...{ from, to, weeks, unpriced: [...unpriced].sort(), priced: energyPrice !== undefined },
    people: [...people.values()].sort((a, b) => b.minutes - a.minutes),
    months: [...months.values()].sort((a, b) => a.month.localeCompare(b.month)),
    otherMoney: sumOf(otherMoney),
    saved: savedByCare(machines, dated, startOf(from, zone), zone),
    ...(currency === undefined ? {} : { currency }),
    ...(energyPrice === undefined ? {} : { energyPrice }),
  };
}

function monthOf(months: Map<string, MonthOfCare>, month: string): MonthOfCare {
  const there = months.get(month);
  if (there) return there;
  const made: MonthOfCare = {
    ...{
      month,
      minutes: 0,
      tasks: 0,
      supplies: 0,
      parts: 0,
      calls: 0,
      kWh: 0,
      metered: 0,
      energy: 0,
      loads: 0,
    },
  };
  months.set(month, made);
  return made;
}

function minutesOf({ task, machineId }: Entry, machines: readonly Machine[]): number {
  const machine = machines.find(({ id }) => id === machineId);
  if (!machine || task === undefined || !knowsTask(machine, task)) return 0;
  return taskOf(machine, task).minutes.hands;
}

function add(who: WeekOfWork['who'], author: string, minutes: number): void {
  const there = who.find((one) => one.author === author);
  if (there) there.minutes += minutes;
  else who.push({ author, minutes });
}

const daysBetween = (from: Day, to: Day): number =>
  Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
