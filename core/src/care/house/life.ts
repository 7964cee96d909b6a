import type { Machine } from '../../model/schemas.js';
import { daysBetween, plusDays, plusMonths, sayDay, type Day } from '../../units/calendar.js';
import { partsOf } from '../catalogue/lookup.js';
import type { Part } from '../catalogue/data/parts.js';
import type { Replaced } from '../record/history.js';

/** How a part stands: by its age, where that counts; by its signs alone otherwise. */
export type PartState = 'fine' | 'soon' | 'due' | 'look' | 'unknown' | 'by-sign';

/** A part of a machine along its life. */
export interface PartLife {
  part: string;
  name: string;
  station: string;
  /** Since when it is in the machine, and what says so. */
  since?: Day;
  from: 'replaced' | 'entered' | 'machine' | 'unknown';
  /** When it is due by its age, or from when on it is looked at more closely. */
  on?: Day;
  state: PartState;
  /** Its state in a few words. */
  said: string;
  /** Days on which it was replaced. */
  replaced: Day[];
}

/** Something of a machine's age that is told without being asked for. */
export interface AgeNotice {
  machineId: string;
  /** The part, or its warranty where none is named. */
  part?: string;
  /** "Fill hose", "Warranty". */
  name: string;
  said: string;
  due: boolean;
}

/** So long before, it is told. */
const AHEAD_DAYS = 60;

type Aged = Pick<Machine, 'id' | 'kind' | 'features' | 'identity' | 'inUseSince' | 'retired'>;

/** Since when a machine runs, as far as its papers say. */
export const runsSince = ({
  identity,
  inUseSince,
}: Pick<Machine, 'identity' | 'inUseSince'>): Day | undefined => identity?.boughtOn ?? inUseSince;

/**
 * The parts of a machine that wear, each with its age and what follows from it.
 * @param replaced what the record says, in the order of time
 */
export function partLives(machine: Aged, replaced: readonly Replaced[], today: Day): PartLife[] {
  const parts = partsOf(machine);
  return parts.map((part): PartLife => {
    const { id, name, station } = part;
    // Where a station has one part alone, that is what was replaced there.
    const alone = parts.filter((other) => other.station === station).length === 1;
    const days = replaced
      .filter(
        (one) => one.part === id || (one.part === undefined && alone && one.station === station),
      )
      .map(({ day }) => day);
    const since = sinceOf(part, days.at(-1), machine);
    return {
      ...{ part: id, name, station, replaced: days },
      ...since,
      ...stateOf(part, since.since, today),
    };
  });
}

function sinceOf(
  { id }: Part,
  replaced: Day | undefined,
  machine: Aged,
): Pick<PartLife, 'since' | 'from'> {
  const { hosesSince, gasketSince } = machine.identity ?? {};
  const entered =
    id === 'fill-hose' || id === 'drain-hose'
      ? hosesSince
      : id === 'door-gasket'
        ? gasketSince
        : undefined;
  if (replaced !== undefined && !(entered !== undefined && entered > replaced)) {
    return { since: replaced, from: 'replaced' };
  }
  if (entered !== undefined) return { since: entered, from: 'entered' };
  const built = runsSince(machine);
  return built === undefined ? { from: 'unknown' } : { since: built, from: 'machine' };
}

function stateOf(
  { dueAfter, lookFrom }: Part,
  since: Day | undefined,
  today: Day,
): Pick<PartLife, 'on' | 'state' | 'said'> {
  const years = dueAfter ?? lookFrom;
  if (years === undefined) return { state: 'by-sign', said: 'by its signs alone' };
  if (since === undefined) return { state: 'unknown', said: 'its age is not known' };
  const on = plusMonths(since, 12 * years);
  if (dueAfter === undefined) {
    return on <= today
      ? { on, state: 'look', said: `over ${years} years: look at each visit` }
      : { on, state: 'fine', said: `look closer from ${sayDay(on, today)}` };
  }
  const state = on <= today ? 'due' : on <= plusDays(today, AHEAD_DAYS) ? 'soon' : 'fine';
  return { on, state, said: `${state === 'due' ? 'due since' : 'due'} ${sayDay(on, today)}` };
}

/** What is told of a machine's age: parts that are due by it, a warranty that ends. None of a machine that is gone. */
export function ageNotices(machine: Aged, replaced: readonly Replaced[], today: Day): AgeNotice[] {
  if (machine.retired) return [];
  const { id: machineId } = machine;
  const until = machine.identity?.warrantyUntil;
  const ends = until !== undefined && until >= today && until <= plusDays(today, AHEAD_DAYS);
  return [
    ...partLives(machine, replaced, today)
      .filter(({ state }) => state === 'due' || state === 'soon')
      .map(({ part, name, said, state }) => ({
        machineId,
        part,
        name,
        said,
        due: state === 'due',
      })),
    ...(ends ? [{ machineId, name: 'Warranty', said: sayWarranty(until, today), due: false }] : []),
  ];
}

/** "ends on 3 January, in 36 days", "ended on 3 January 2024". */
export function sayWarranty(until: Day, today: Day): string {
  if (until < today) return `ended on ${sayDay(until, today)}`;
  const days = daysBetween(today, until);
  const left = days === 0 ? 'today' : days === 1 ? 'tomorrow' : `in ${days} days`;
  return days > AHEAD_DAYS
    ? `until ${sayDay(until, today)}`
    : `ends on ${sayDay(until, today)}, ${left}`;
}
