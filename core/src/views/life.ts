import { partLives, runsSince, sayWarranty, type PartLife } from '../care/house/life.js';
import { partsOf } from '../care/catalogue/lookup.js';
import type { PartBy } from '../care/catalogue/data/parts.js';
import type { History } from '../care/record/history.js';
import { total } from '../care/record/load-counts.js';
import { LASTS } from '../measure/repair.js';
import type { Entry, Household, Machine, Money } from '../model/schemas.js';
import type { MachineKind } from '../model/vocabulary.js';
import { dayOf, startOf, yearsBetween, type Day } from '../units/calendar.js';

/** A part with what there is to know of it, and what was done. */
export type PartView = PartLife & {
  by: PartBy;
  sign: string;
  why: string;
  /** Each time that it was replaced, the last first. */
  done: { entryId: string; day: Day; why?: string; cost?: Money }[];
};

/** A machine along its life: its age and hours, its parts, what they cost. */
export interface LifeView {
  machine: Machine;
  today: Day;
  /** Since when it runs, as far as its papers say. */
  since?: Day;
  /** Years. */
  age?: number;
  /** Years that such machines last in a household. */
  lasts: number;
  /** Since it runs, or since the first load that was counted. */
  loads: { counted: number; estimated: number };
  /** Hours that it ran in them. Minutes of a load: by its meter over so many loads, else as usual for its kind. */
  hours: number;
  minutes: { each: number; metered: number };
  warranty?: { until: Day; over: boolean; said: string };
  parts: PartView[];
  /** Replaced at a station without saying which part. */
  others: { entryId: string; day: Day; station: string; why?: string; cost?: Money }[];
  /** When somebody was called in, the last first. */
  calls: { entryId: string; day: Day; what: string; cost?: Money }[];
  /** What parts and calls cost together, by whose money. */
  spent: Money[];
  /** The household's. */
  zone: string;
  currency?: string;
}

/** Minutes of a load where no meter tells. Common practice. */
const USUAL_MINUTES: Readonly<Record<MachineKind, number>> = {
  'front-load-washer': 110,
  'top-load-washer': 60,
  'vented-dryer': 65,
  'condenser-dryer': 95,
  'heat-pump-dryer': 150,
  'washer-dryer': 240,
  tower: 170,
};
/** Fewer metered loads are no measure of the others. Judgement. */
const LEAST_METERED = 5;

/** What a machine's life is told from. */
export interface LifeGround {
  machine: Machine;
  household: Household;
  history: History;
  /** Parts that were replaced and calls, in the order of time; others are passed over. */
  entries: Iterable<Entry>;
  /** Loads that its meter told. */
  metered: Iterable<Entry>;
  /** UTC instant, milliseconds. */
  now: number;
}

/** A machine's age, hours, parts and costs. */
export function lifeView({
  machine,
  household,
  history,
  entries,
  metered,
  now,
}: LifeGround): LifeView {
  const { zone, currency } = household;
  const today = dayOf(now, zone);
  const since = runsSince(machine);
  const from = since === undefined ? (history.usage.taps[0]?.at ?? now) - 1 : startOf(since, zone);
  const loads = history.usage.between(from, now);
  const minutes = minutesOf(metered, machine.kind);
  const [replaced, calls] = [[] as Entry[], [] as Entry[]];
  for (const entry of entries) {
    if (entry.kind === 'replaced') replaced.unshift(entry);
    else if (entry.kind === 'called') calls.unshift(entry);
  }
  const lives = partLives(machine, history.replaced, today);
  const known = new Set(history.replaced.map(({ entryId }) => entryId));
  const told = new Set<string>();
  const parts = partsOf(machine).map(({ id, by, sign, why }, i): PartView => {
    const life = lives[i]!;
    const done = replaced.filter(
      (one) =>
        known.has(one.id) &&
        (one.part === id ||
          (one.part === undefined &&
            one.station === life.station &&
            life.replaced.includes(dayIn(one)))),
    );
    for (const one of done) told.add(one.id);
    return { ...life, by, sign, why, done: done.map(lineOf) };
  });
  const until = machine.identity?.warrantyUntil;
  return {
    ...{ machine, today, zone, lasts: LASTS, loads, minutes, parts },
    ...(since === undefined ? {} : { since }),
    ...(since !== undefined && since <= today ? { age: yearsBetween(since, today) } : {}),
    hours: (total(loads) * minutes.each) / 60,
    ...(until === undefined
      ? {}
      : { warranty: { until, over: until < today, said: sayWarranty(until, today) } }),
    others: replaced
      .filter(({ id }) => !told.has(id))
      .map((one) => ({ ...lineOf(one), station: one.station ?? '' })),
    calls: calls.map((one) => {
      const { why = '', ...rest } = lineOf(one);
      return { ...rest, what: why };
    }),
    spent: sumOf([...replaced, ...calls].flatMap(({ cost }) => cost ?? [])),
    ...(currency === undefined ? {} : { currency }),
  };
}

const dayIn = ({ at, zone }: Entry): Day => dayOf(Date.parse(at), zone);

const lineOf = (entry: Entry) => ({
  entryId: entry.id,
  day: dayIn(entry),
  ...(entry.note === undefined ? {} : { why: entry.note }),
  ...(entry.cost === undefined ? {} : { cost: entry.cost }),
});

/** Amounts of the same money together, in the order in which they came. */
export function sumOf(amounts: readonly Money[]): Money[] {
  const sums = new Map<string, number>();
  for (const { amount, currency } of amounts)
    sums.set(currency, (sums.get(currency) ?? 0) + amount);
  return [...sums].map(([currency, amount]) => ({
    amount: Math.round(100 * amount) / 100,
    currency,
  }));
}

function minutesOf(metered: Iterable<Entry>, kind: MachineKind): LifeView['minutes'] {
  let [sum, count] = [0, 0];
  for (const { at, cycle } of metered) {
    if (!cycle) continue;
    sum += (Date.parse(cycle.to) - Date.parse(at)) / 60_000;
    count++;
  }
  return count >= LEAST_METERED
    ? { each: sum / count, metered: count }
    : { each: USUAL_MINUTES[kind], metered: 0 };
}
