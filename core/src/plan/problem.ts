/*
 * The planning problem: which work in which week, so that a year costs the fewest minutes. Weeks are counted from
 * this one, 0. What is not in weeks (days, dates, people) comes before and after.
 */

/** Weeks from the first to the last, both counted. */
export interface Span {
  from: number;
  to: number;
}

/** One task of one machine that comes again and again. */
export interface Chore {
  id: string;
  /** By its index. */
  place: number;
  /** At work, without set-ups. */
  minutes: number;
  /** By their indexes. */
  setups: readonly number[];
  /** Neglected, it can hurt somebody: never late. */
  safety: boolean;
  /** When it is done first; where that is after the last week, it need not be done at all. */
  first: Span;
  /** Weeks from one time to the next. */
  gap: Span;
  /**
   * What being late costs, minutes, by weeks: late by one, two and so on. More weeks than these it is not
   * late without a rule giving way.
   */
  late: readonly number[];
  /** What it is due by is loads: weeks in which nobody is there do not count. */
  byLoads: boolean;
  /** By their indexes: whenever one of these is done, this is done after it in the same visit. */
  follows?: readonly number[];
  /** What doing it in a week costs besides, minutes: out of its season. */
  season?: readonly number[];
  /** What a week too soon costs, minutes, where that is not the usual. */
  early?: number;
  /** What leaving it alone costs besides, minutes: what it risks, with a price. Never falling. */
  wear?: {
    /** By the weeks from one time to the next, or to the end. */
    after: readonly number[];
    /** By the week of the first time, or of the end. */
    first: readonly number[];
  };
}

/** Something that several chores need made: once in a week serves all. */
export interface Shared {
  id: string;
  minutes: number;
}

export interface Problem {
  weeks: number;
  chores: readonly Chore[];
  setups: readonly Shared[];
  places: readonly Shared[];
  /** Weeks in which nobody is there. */
  away: readonly boolean[];
  /** At work in one visit, at most. */
  limit?: number;
}

/** The weeks in which each chore is done, in the chores' order. */
export type Plan = readonly (readonly number[])[];

/**
 * What it costs, in minutes, that a rule gives way: the dearer, the later it does. Safety's date, being away, the minutes of
 * a visit; and before those its own rhythm.
 */
export const PRICES = {
  /** A week that a safety task is late. */
  unsafe: 10_000_000,
  /** Work in a week in which nobody is there. */
  away: 200_000,
  /** What has to follow does not. */
  after: 20_000,
  /** A week later than may be. */
  late: 20_000,
  /** A minute over the limit of a visit that holds more than one task. */
  over: 60,
  /** A week sooner than 0.6 of the interval. */
  early: 120,
} as const;
