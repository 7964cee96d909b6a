import { dayAt, MS_PER_DAY, type Day } from '../../units/days.js';

/*
 * Dates as people write them down. What comes first of day and month is told by the column as a whole where one of its
 * dates can only be read one way; where none can, it is asked.
 */

/** What comes first where a date is of three figures. */
export type DateOrder = 'day' | 'month';

export interface ReadDate {
  day: Day;
  /** Minutes after midnight, where a time was written. */
  minutes?: number;
  /** Only the month was written: the day is made up. */
  vague?: true;
}

const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');
const monthOf = (word: string): number => MONTHS.indexOf(word.slice(0, 3).toLowerCase()) + 1;
/** Years that somebody may have notes of. */
const [FIRST_YEAR, LAST_YEAR] = [1950, 2199];
/** Spreadsheets count days from here; a figure within these is such a day, not a year. */
const SERIAL_ZERO = Date.UTC(1899, 11, 30);
const [LEAST_SERIAL, MOST_SERIAL] = [20_000, 90_000];

const TIME =
  /(?:^|[\sT,])(\d{1,2})[:.h](\d{2})(?::\d{2}(?:\.\d+)?)?\s*(am|pm)?\s*(?:Z|[+-]\d{2}:?\d{2})?$/i;

/** A date of three figures, as they stand. */
const FIGURES = /^(\d{1,2})[./\- ](\d{1,2})[./\- ](\d{2}|\d{4})$/;
const ISO = /^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})$/;
const COMPACT = /^(\d{4})(\d{2})(\d{2})$/;
const DAY_MONTH =
  /^(?:\p{L}{2,9},?\s+)?(\d{1,2})(?:st|nd|rd|th)?\.?[\s\-/]+(?:of\s+)?(\p{L}{3,9})\.?,?[\s\-/]+(\d{2}|\d{4})$/u;
const MONTH_DAY = /^(?:\p{L}{2,9},?\s+)?(\p{L}{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})$/u;
const MONTH_YEAR = /^(\p{L}{3,9})\.?,?\s+(\d{4})$/u;
const FIGURE_MONTH = /^(\d{1,2})[./](\d{4})$|^(\d{4})-(\d{1,2})$/;

const yearOf = (text: string): number => {
  const year = Number(text);
  return text.length > 2 ? year : year < 70 ? 2000 + year : 1900 + year;
};

function dayOfParts(year: number, month: number, day: number): Day | undefined {
  if (year < FIRST_YEAR || year > LAST_YEAR || month < 1 || month > 12 || day < 1) return undefined;
  const at = Date.UTC(year, month - 1, day);
  const date = new Date(at);
  return date.getUTCMonth() === month - 1 ? dayAt(Math.floor(at / MS_PER_DAY)) : undefined;
}

/** What was written before a time, and the minutes of the time. */
function withoutTime(text: string): { date: string; minutes?: number } {
  const time = TIME.exec(text);
  if (!time || time.index === 0) return { date: text };
  const [, hour, minute, half] = time;
  const hours = (Number(hour) % (half ? 12 : 24)) + (half?.toLowerCase() === 'pm' ? 12 : 0);
  const minutes = 60 * hours + Number(minute);
  if (Number(hour) > 24 || Number(minute) > 59) return { date: text };
  return { date: text.slice(0, time.index).replace(/[,\s]+$/, ''), minutes };
}

/**
 * A date as it was written.
 * @param order what comes first of three figures
 * @returns nothing where it is none, or cannot be
 */
export function readDate(written: string, order: DateOrder = 'day'): ReadDate | undefined {
  const { date, minutes } = withoutTime(written.trim());
  const found = plainDate(date, order) ?? plainDate(written.trim(), order);
  return found && (minutes === undefined || found.vague ? found : { ...found, minutes });
}

function plainDate(text: string, order: DateOrder): ReadDate | undefined {
  const one = (day: Day | undefined): ReadDate | undefined =>
    day === undefined ? undefined : { day };
  const month = (day: Day | undefined): ReadDate | undefined =>
    day === undefined ? undefined : { day, vague: true };
  const iso = ISO.exec(text) ?? COMPACT.exec(text);
  if (iso) return one(dayOfParts(Number(iso[1]), Number(iso[2]), Number(iso[3])));
  const figures = FIGURES.exec(text);
  if (figures) {
    const [a, b] = [Number(figures[1]), Number(figures[2])];
    const year = yearOf(figures[3]!);
    const [usual, other] =
      order === 'day'
        ? [dayOfParts(year, b, a), dayOfParts(year, a, b)]
        : [dayOfParts(year, a, b), dayOfParts(year, b, a)];
    return one(usual ?? other);
  }
  const first = DAY_MONTH.exec(text);
  if (first && monthOf(first[2]!))
    return one(dayOfParts(yearOf(first[3]!), monthOf(first[2]!), Number(first[1])));
  const second = MONTH_DAY.exec(text);
  if (second && monthOf(second[1]!))
    return one(dayOfParts(Number(second[3]), monthOf(second[1]!), Number(second[2])));
  const vague = MONTH_YEAR.exec(text);
  if (vague && monthOf(vague[1]!))
    return month(dayOfParts(Number(vague[2]), monthOf(vague[1]!), 15));
  const figureMonth = FIGURE_MONTH.exec(text);
  if (figureMonth) {
    const [, m, y, y2, m2] = figureMonth;
    return month(dayOfParts(Number(y ?? y2), Number(m ?? m2), 15));
  }
  const serial = /^\d{5}(?:[.,]\d+)?$/.test(text) ? Number(text.replace(',', '.')) : NaN;
  if (serial >= LEAST_SERIAL && serial <= MOST_SERIAL) {
    return one(dayAt(Math.floor((SERIAL_ZERO + Math.floor(serial) * MS_PER_DAY) / MS_PER_DAY)));
  }
  return undefined;
}

/**
 * What comes first in a column of dates: told by those that can only be read one way. Where some tell the one and some
 * the other, what most tell; each of them is read by itself all the same.
 * @returns `asked` where nothing tells and it would make a difference
 */
export function orderOf(column: readonly string[]): DateOrder | 'asked' | undefined {
  let [day, month, either] = [0, 0, 0];
  for (const written of column) {
    const figures = FIGURES.exec(withoutTime(written.trim()).date);
    if (!figures) continue;
    const [a, b] = [Number(figures[1]), Number(figures[2])];
    if (a > 12 && b <= 12) day++;
    else if (b > 12 && a <= 12) month++;
    else if (a !== b) either++;
  }
  if (day || month) return day >= month ? 'day' : 'month';
  // With points between them the day comes first, wherever that is written.
  const points = column.filter((written) => /^\s*\d{1,2}\.\d{1,2}\.\d/.test(written)).length;
  if (either && points === column.filter((written) => FIGURES.test(written.trim())).length)
    return 'day';
  return either ? 'asked' : undefined;
}
