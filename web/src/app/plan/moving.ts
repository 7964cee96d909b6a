import type { Day } from '@needlecase/core';

/** A visit that was taken up, and the day it is held over. */
export interface Moving {
  key: string;
  day: Day;
}

/** What a move does to the year. */
export interface Effect {
  /** Minutes a year at work, more or fewer. */
  minutes: number;
  /** Trouble expected, before and after. */
  before: number;
  after: number;
  /** What keeps people safe would come so many weeks late. */
  late: number;
  /** Nobody is at home, or it is none of the days on which you can. */
  closed?: string;
}
