import { sayEntry } from '../care/record/entry-words.js';
import { takenWith } from '../care/record/history.js';
import type { Usage } from '../care/record/load-counts.js';
import { tasksOf } from '../care/catalogue/lookup.js';
import { isQuantity, quantityOf, type QuantityId } from '../model/quantities.js';
import type { CaseRecord, Entry, Machine } from '../model/schemas.js';
import type { UnitSystem } from '../model/vocabulary.js';
import { caseState, caseTitle } from '../trouble/cases/state.js';
import { presentAmount } from '../units/present-unit.js';

/** A figure at a time. UTC milliseconds. */
export interface ChartPoint {
  at: number;
  /** Loads counted up to then. */
  loads: number;
  value: number;
}

/** Figures of one kind along time, in the household's units. */
export interface ChartSeries {
  /** Of the quantity, with what it was taken with where that matters, or `load-minutes`, `load-energy`, `loads`. */
  id: string;
  /** What it was taken with, where figures of another are not to be held against it. */
  taken?: string;
  say: string;
  unit: string;
  better?: 'less' | 'more';
  points: ChartPoint[];
  /** Where it comes from: what was done elsewhere does not change it; everywhere where nothing is told. */
  stations?: string[];
  /** What it is when clean: the middle of what was read soon after a clean. */
  clean?: number;
  /** Eight in ten of the figures lie within. */
  low: number;
  high: number;
  /** How much it changes in thirty days, since so many milliseconds (UTC), and what it was then. */
  trend?: { monthly: number; from: number; start: number };
}

/** Something that happened at the machine. */
export interface ChartMark {
  at: number;
  loads: number;
  kind: 'cleaned' | 'looked' | 'replaced' | 'case';
  say: string;
  /** The station that it is of; none of a case. */
  station?: string;
}

/** A machine's figures along time, with what happened to it. */
export interface ChartsView {
  series: ChartSeries[];
  marks: ChartMark[];
}

const DAY = 86_400_000;
const MONTH = 30 * DAY;
/** What was read so soon after a clean is of the clean machine, ms. Judgement. */
const SOON = 21 * DAY;
/** Fewer figures have no trend, nor have those of a shorter time, ms: a few odd loads would be one. Judgement. */
const LEAST_FOR_TREND = 4;
const LEAST_TIME = 45 * DAY;
/** Of more figures than this each week's middle one is shown. */
const MOST_POINTS = 400;
/** A trend is told by so many of the figures at most, evenly taken. */
const MOST_FOR_TREND = 200;

/** What charts of a machine are made from. */
export interface ChartGround {
  machine: Machine;
  /** Readings, work, parts and loads that a meter told, in the order of time; others are passed over. */
  entries: Iterable<Entry>;
  cases: readonly CaseRecord[];
  usage: Usage;
  units: UnitSystem;
}

/** What a machine's record shows along time. */
export function chartsView({ machine, entries, cases, usage, units }: ChartGround): ChartsView {
  const readings = new Map<
    string,
    { quantity: QuantityId; taken?: string; points: ChartPoint[] }
  >();
  const [minutes, energy]: [ChartPoint[], ChartPoint[]] = [[], []];
  const marks: ChartMark[] = [];
  // What is done with each load is no mark: it would hide the others.
  const everyLoad = new Set(tasksOf(machine).flatMap(({ id, habit }) => (habit ? id : [])));
  const loadsAt = (at: number): number => usage.between(-Infinity, at).counted;
  for (const entry of entries) {
    const at = Date.parse(entry.at);
    const base = { at, loads: loadsAt(at) };
    const { quantity, value, cycle, station } = entry;
    if (entry.kind === 'reading' && isQuantity(quantity) && value !== undefined) {
      const taken = takenWith(entry);
      const id = taken === undefined ? quantity : `${quantity} ${taken}`;
      const list = readings.get(id) ?? {
        ...{ quantity, points: [] },
        ...(taken === undefined ? {} : { taken }),
      };
      readings.set(id, list);
      list.points.push({ ...base, value });
    } else if (entry.kind === 'load' && cycle) {
      minutes.push({ ...base, value: (Date.parse(cycle.to) - at) / 60_000 });
      energy.push({ ...base, value: cycle.wattHours / 1000 });
    } else if (MARKED[entry.kind] && !(entry.task && everyLoad.has(entry.task))) {
      const of = station === undefined ? {} : { station };
      marks.push({ ...base, kind: MARKED[entry.kind]!, say: sayEntry(entry, machine), ...of });
    }
  }
  for (const record of cases) {
    const state = caseState(record);
    const at = state.openedAt;
    marks.push({ at, loads: loadsAt(at), kind: 'case', say: caseTitle(state) });
  }
  marks.sort((a, b) => a.at - b.at);
  const stations = new Map<string, Set<string>>();
  for (const { station, measures } of tasksOf(machine)) {
    for (const measure of measures ?? []) {
      stations.set(measure.quantity, (stations.get(measure.quantity) ?? new Set()).add(station));
    }
  }
  const told = [...readings].map(([id, { quantity, taken, points }]): ChartSeries => {
    const row = quantityOf(quantity)!;
    const shown = points.map((point) => {
      const own = presentAmount({ value: point.value, unit: row.unit }, row.dimension, units);
      return { ...point, value: own.value };
    });
    const { unit } = presentAmount({ value: 1, unit: row.unit }, row.dimension, units);
    const at = row.station ? new Set([row.station]) : stations.get(quantity);
    const cleans = marks.filter(
      (mark) => mark.kind === 'cleaned' && (!at || (mark.station && at.has(mark.station))),
    );
    return {
      ...{ id, say: taken === undefined ? row.asked : `${row.asked} (${taken})`, unit },
      ...(taken === undefined ? {} : { taken }),
      ...(row.better ? { better: row.better } : {}),
      ...(at?.size ? { stations: [...at] } : {}),
      ...figuresOf(shown, cleans),
    };
  });
  const cleans = marks.filter(({ kind }) => kind === 'cleaned');
  const metered: ChartSeries[] = [
    { id: 'load-minutes', say: 'Minutes of a load', unit: 'min', points: minutes },
    { id: 'load-energy', say: 'Energy of a load', unit: 'kWh', points: energy },
  ].map((one) => ({ ...one, ...figuresOf(one.points, cleans) }));
  return {
    series: [...told, ...metered, loadsByMonth(usage)].filter(({ points }) => points.length > 0),
    marks,
  };
}

const MARKED: Partial<Record<Entry['kind'], ChartMark['kind']>> = {
  done: 'cleaned',
  opened: 'looked',
  replaced: 'replaced',
};

type Figures = Pick<ChartSeries, 'points' | 'clean' | 'low' | 'high' | 'trend'>;

function figuresOf(points: readonly ChartPoint[], cleans: readonly ChartMark[]): Figures {
  const values = points.map(({ value }) => value).sort((a, b) => a - b);
  const soon = points
    .filter(({ at }) => cleans.some((clean) => at >= clean.at && at - clean.at <= SOON))
    .map(({ value }) => value)
    .sort((a, b) => a - b);
  const since = Math.max(-Infinity, ...cleans.map(({ at }) => at));
  const lately = points.filter(({ at }) => at > since);
  const trend = trendOf(lately) ?? trendOf(points);
  return {
    points: thinned(points),
    low: quantile(values, 0.1),
    high: quantile(values, 0.9),
    ...(soon.length >= 2 ? { clean: quantile(soon, 0.5) } : {}),
    ...(trend ? { trend } : {}),
  };
}

/**
 * The middle of rising values at a share of them, between two of them in a straight line (Hyndman and Fan 1996, type 7).
 * @param values rising @param share 0 to 1
 */
export function quantile(values: readonly number[], share: number): number {
  if (!values.length) return NaN;
  const place = share * (values.length - 1);
  const [low, high] = [Math.floor(place), Math.ceil(place)];
  return values[low]! + (place - low) * (values[high]! - values[low]!);
}

/**
 * How fast figures change: the middle of the slopes between each two of them (Theil 1950, Sen 1968), which a single odd
 * one does not move.
 * @returns change in thirty days; nothing where there are too few, or of too short a time
 */
export function trendOf(points: readonly ChartPoint[]): ChartSeries['trend'] {
  if (points.length < LEAST_FOR_TREND) return undefined;
  if (points.at(-1)!.at - points[0]!.at < LEAST_TIME) return undefined;
  const step = Math.max(1, points.length / MOST_FOR_TREND);
  const taken = Array.from(
    { length: Math.floor(points.length / step) },
    (_, i) => points[Math.floor(i * step)]!,
  );
  const slopes = taken.flatMap((a, i) =>
    taken.slice(i + 1).flatMap((b) => (b.at > a.at ? (b.value - a.value) / (b.at - a.at) : [])),
  );
  if (!slopes.length) return undefined;
  const slope = quantile(
    slopes.sort((a, b) => a - b),
    0.5,
  );
  const from = points[0]!.at;
  const starts = points.map(({ at, value }) => value - slope * (at - from)).sort((a, b) => a - b);
  return { monthly: slope * MONTH, from, start: quantile(starts, 0.5) };
}

/** Of many figures each week's middle one. */
function thinned(points: readonly ChartPoint[]): ChartPoint[] {
  if (points.length <= MOST_POINTS) return [...points];
  const weeks = new Map<number, ChartPoint[]>();
  for (const point of points) {
    const week = Math.floor(point.at / (7 * DAY));
    const list = weeks.get(week);
    if (list) list.push(point);
    else weeks.set(week, [point]);
  }
  return [...weeks.values()].map((week) => {
    const middle = week[week.length >> 1]!;
    const value = quantile(
      week.map((point) => point.value).sort((a, b) => a - b),
      0.5,
    );
    return { ...middle, value };
  });
}

/** Loads counted, by thirty days. */
function loadsByMonth(usage: Usage): ChartSeries {
  const times = usage.taps.map(({ at }) => at).sort((a, b) => a - b);
  const [first, last] = [times[0], times.at(-1)];
  const points: ChartPoint[] = [];
  if (first !== undefined && last !== undefined) {
    for (let from = first; from <= last; from += MONTH) {
      const value = usage.between(from, from + MONTH).counted;
      points.push({ at: from, loads: usage.between(-Infinity, from).counted, value });
    }
  }
  const values = points.map(({ value }) => value).sort((a, b) => a - b);
  return {
    ...{ id: 'loads', say: 'Loads in thirty days', unit: 'loads', points },
    ...{ low: quantile(values, 0.1), high: quantile(values, 0.9) },
  };
}
