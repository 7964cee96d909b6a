import type { MachineKind, SignalFigure } from '../../model/vocabulary.js';
import { dayOf, type Day } from '../../units/calendar.js';
import { programmesOf } from '../cycles/programmes.js';
import { findShifts, LEAST_LOADS, type DriftFigure, type Shift } from './drift.js';
import { withoutSeason } from './season.js';
import { DRAIN, WATCHED, type MeteredLoad, type Watched } from './watched.js';

/** How much a figure is another since: per cent, with its eight-in-ten range. */
export interface Change {
  percent: number;
  low: number;
  high: number;
}

/** Something that the figures of a machine's meter tell, while it holds. */
export interface Signal {
  machineId: string;
  figure: SignalFigure;
  /** The load at which it was seen: a signal of a figure is the same as long as that is. */
  seen: string;
  day: Day;
  /** With the figure of a usual load, before and now, in what it is shown in; none where it is there or not. */
  change?: Change & { usual: number; now: number };
  /** How many loads it rests on, since it began; of a drain, those that ended so. */
  loads: number;
  /** Hours of drying that it costs in thirty days, at the loads of the last thirty. */
  hours?: number;
  /** What is told of it in a case of trouble. */
  finding: string;
}

/** A signal that was, or is. */
export interface PastSignal {
  figure: SignalFigure;
  seen: string;
  /** Since when, and until when: not there while it holds. */
  day: Day;
  until?: Day;
  change?: Change;
}

/** What the meter of a machine tells. */
export interface Signals {
  /** What holds now. */
  now: Signal[];
  /** All that was signalled, in the order of time. */
  all: PastSignal[];
  /** How many loads are missing until anything can be told. */
  short: number;
}

/** What of a load was not read by more tells nothing. */
const MOST_UNREAD = 0.1;
const MINUTE = 60_000;
const MONTH = 30 * 86_400_000;
/** Of so many of the first loads of a programme the middle one is what it is compared with. */
const FIRST = 8;

/**
 * What of the figures of a machine's loads changed to the worse: drying for the same energy, a compressor's power, how
 * long a washer heats for its energy and fills, how often it spins, whether it ended with the pump running.
 * @param loads of one machine, in their order
 * @param anew of each figure, UTC milliseconds from which on what is usual is another: a clean of what it tells of was
 *   proved, or somebody knew the reason
 * @param zone IANA name, for the days
 */
export function signalsOf(
  { id, kind }: { id: string; kind: MachineKind },
  loads: readonly MeteredLoad[],
  anew: (figure: SignalFigure) => readonly number[],
  zone: string,
): Signals {
  const whole = loads.filter(
    ({ from, to, cycle }) => cycle.unread <= MOST_UNREAD * ((to - from) / MINUTE),
  );
  const own = WATCHED.filter(({ kinds }) => kinds.includes(kind)).map((watched) =>
    shiftsOf(id, kind, watched, whole, anew(watched.figure), zone),
  );
  const parts = [
    ...own,
    ...(DRAIN.kinds.some((one) => one === kind) ? [drained(id, whole, anew('drain'), zone)] : []),
  ];
  const now = parts.flatMap((part) => part.now ?? []);
  const drying = now.some(({ figure }) => figure === 'drying');
  return {
    // A compressor that works harder while drying is slower says the same once more.
    now: now.filter(({ figure }) => !(figure === 'power' && drying)),
    all: parts.flatMap((part) => part.all).sort((a, b) => a.day.localeCompare(b.day)),
    short: Math.min(...own.map(({ short }) => short)),
  };
}

interface Part {
  now?: Signal;
  all: PastSignal[];
}

/** A figure of a load, and what of it is shown. */
interface Shown extends DriftFigure {
  shown: number;
}

function shiftsOf(
  machineId: string,
  kind: MachineKind,
  watched: Watched,
  loads: readonly MeteredLoad[],
  anew: readonly number[],
  zone: string,
): Part & { short: number } {
  const told = loads.flatMap((load): Shown[] => {
    const own = watched.of(load, kind);
    return own ? [{ id: load.id, at: load.from, ...own }] : [];
  });
  const compared = watched.byProgramme ? againstProgramme(told, loads) : told;
  const figures = watched.seasonal ? withoutSeason(compared, anew) : compared;
  const shifts = findShifts(figures, anew, watched.prior, watched.limits).filter(
    ({ factor }) => percentOf(factor) >= watched.least,
  );
  const ends = shifts.map(({ from, back }) => endOf(from.at, back?.at, anew));
  const last = shifts.at(-1);
  const begun = Math.max(-Infinity, ...anew);
  return {
    short: Math.max(0, LEAST_LOADS - figures.filter(({ at }) => at > begun).length),
    all: shifts.map((shift, i) => ({
      figure: watched.figure,
      ...{ seen: shift.seen.id, day: dayOf(shift.from.at, zone) },
      ...(ends[i] === undefined ? {} : { until: dayOf(ends[i], zone) }),
      change: changeOf(shift),
    })),
    ...(last && ends.at(-1) === undefined
      ? { now: nowOf(machineId, watched, last, told, zone) }
      : {}),
  };
}

/** Proved or explained since, though no load has come to show it yet. */
function endOf(
  from: number,
  back: number | undefined,
  anew: readonly number[],
): number | undefined {
  const since = Math.min(...anew.filter((at) => at >= from));
  if (back !== undefined) return Math.min(back, since);
  return since < Infinity ? since : undefined;
}

/**
 * Each figure as a share of what its programme began with: that stays, so that what rises slowly is not taken for
 * usual. The first load of a programme has nothing to be compared with.
 */
function againstProgramme(told: readonly Shown[], loads: readonly MeteredLoad[]): Shown[] {
  const programme = new Map(
    programmesOf(loads).flatMap(({ ids }, i) => ids.map((id) => [id, i] as const)),
  );
  const first = new Map<number, number[]>();
  return told.flatMap((figure) => {
    const which = programme.get(figure.id)!;
    const before = first.get(which) ?? [];
    const usual = before.toSorted((a, b) => a - b)[before.length >> 1];
    if (before.length < FIRST) first.set(which, [...before, figure.value]);
    return usual === undefined ? [] : [{ ...figure, value: figure.value / usual }];
  });
}

const percentOf = (factor: number): number => Math.round(100 * (factor - 1));
const changeOf = ({ factor, low, high }: Shift): Change => ({
  percent: percentOf(factor),
  low: percentOf(low),
  high: percentOf(high),
});

function nowOf(
  machineId: string,
  { figure, finding }: Watched,
  shift: Shift,
  told: readonly Shown[],
  zone: string,
): Signal {
  const since = told.filter(({ at }) => at >= shift.from.at);
  const now = since.reduce((sum, { shown }) => sum + shown, 0) / since.length;
  const last = told.at(-1)!.at;
  const lately = told.filter(({ at }) => at > last - MONTH).length;
  const usual = now / shift.factor;
  return {
    ...{ machineId, figure, finding },
    seen: shift.seen.id,
    day: dayOf(shift.from.at, zone),
    change: { ...changeOf(shift), usual: rounded(usual), now: rounded(now) },
    loads: since.length,
    ...(figure === 'drying' ? { hours: rounded((lately * (now - usual)) / 60) } : {}),
  };
}

/** To a tenth where that is more than the figure's third digit. */
const rounded = (value: number): number =>
  value >= 20 ? Math.round(value) : Math.round(10 * value) / 10;

/** Of so many loads that come one after the other so many ended so: it is told; and again, how many until it is over. */
const [OF, ENDED_SO] = [3, 2];

function drained(
  machineId: string,
  loads: readonly MeteredLoad[],
  anew: readonly number[],
  zone: string,
): Part {
  const all: PastSignal[] = [];
  let [since, lately]: [MeteredLoad[], MeteredLoad[]] = [[], []];
  let open: PastSignal | undefined;
  let last = -Infinity;
  for (const load of loads) {
    const ended = anew.find((at) => at > last && at <= load.from);
    last = load.from;
    if (ended !== undefined) {
      if (open) open.until = dayOf(ended, zone);
      [since, lately, open] = [[], [], undefined];
    }
    lately = [...lately, load].slice(-OF);
    const so = lately.filter(({ cycle }) => cycle.wash?.pumped !== undefined);
    if (open) {
      since.push(load);
      if (so.length || lately.length < OF) continue;
      open.until = dayOf(lately[0]!.from, zone);
      [since, lately, open] = [[], [], undefined];
    } else if (so.length >= ENDED_SO) {
      since = lately.slice(lately.indexOf(so[0]!));
      open = { figure: 'drain', seen: load.id, day: dayOf(so[0]!.from, zone) };
      all.push(open);
    }
  }
  const now = open;
  const known = Math.min(...anew.filter((at) => at > last));
  if (now && known < Infinity) now.until = dayOf(known, zone);
  if (!now || now.until !== undefined) return { all };
  const { seen, day } = now;
  const { figure, finding } = DRAIN;
  const ended = since.filter(({ cycle }) => cycle.wash?.pumped !== undefined).length;
  return { all, now: { ...{ machineId, figure, finding, seen, day }, loads: ended } };
}
