import { Counter, MOST_WATTS } from './counter.js';
import { WallClock } from './file-time.js';
import { PowerSeries } from './power-series.js';
import { fieldsOf, figureOf, offsetIn, wallOf, type FileShape } from './shape.js';

/*
 * Reads a meter's file as it streams by, byte by byte where it is plain: a time and a figure a line. What a line does
 * not tell in the plain way is read the slow way; what cannot be read either way is told with its line, and left out.
 */

/** A line that was not taken, counted from 1. */
export interface LineProblem {
  line: number;
  says: string;
}

export interface ReaderOptions {
  shape: FileShape;
  /** Usual time between two lines, ms. */
  interval: number;
  /** Times fall from line to line. */
  newestFirst?: boolean;
  /** IANA name of the zone whose clock the file shows, where it names none. */
  zone: string;
  /** The instant of now, ms: nothing is read of what comes later. */
  now: number;
}

/** Problems that are told one by one. */
export const TOLD_PROBLEMS = 20;
/** Before this year no such meter was. */
export const EARLIEST = Date.UTC(2000, 0, 1);
/** What is ahead of the clock by more is in the future, ms. */
export const AHEAD = 10 * 60_000;
const TO_WATTS = { W: 1, kW: 1000 } as const;
const TO_WATT_HOURS = { Wh: 1, kWh: 1000 } as const;

const [NEWLINE, RETURN, POINT, COMMA, ZERO, NINE] = [10, 13, 46, 44, 48, 57];

export class MeterReader {
  readonly series: PowerSeries;
  readonly problems: LineProblem[] = [];
  /** Lines with something in them, those that were taken, and those that were not. */
  lines = 0;
  taken = 0;
  left = 0;
  first = Infinity;
  last = -Infinity;

  readonly #clock: WallClock;
  readonly #figure: number;
  readonly #when: number;
  readonly #delimiter: number;
  readonly #decimal: number;
  /** Read byte by byte: one column of time, in seconds, milliseconds, or from the year on. */
  readonly #plain: boolean;
  readonly #watts: number | undefined;
  readonly #wattHours: number | undefined;
  /** What of a line came with the last piece. */
  #rest = new Uint8Array(0);
  #skip: boolean;

  readonly #counter: Counter;

  /** Minute that was read last, by its sixteen letters, and what instant it is. */
  readonly #minute = new Uint8Array(16);
  #minuteIs = NaN;

  constructor(readonly options: ReaderOptions) {
    const { shape, interval, zone } = options;
    this.series = new PowerSeries(interval);
    this.#counter = new Counter(this.series);
    this.#clock = new WallClock(zone, options.newestFirst);
    this.#figure = shape.figure;
    this.#when = shape.time[0]!;
    this.#delimiter = shape.delimiter.charCodeAt(0);
    this.#decimal = shape.decimal === ',' ? COMMA : POINT;
    this.#skip = shape.header;
    const { timeKind, time, unit, quoted } = shape;
    const byNumber = timeKind === 'epoch-s' || timeKind === 'epoch-ms' || timeKind === 'year-first';
    this.#plain = !quoted && time.length === 1 && byNumber && shape.delimiter !== ' ';
    this.#watts = unit === 'W' || unit === 'kW' ? TO_WATTS[unit] : undefined;
    this.#wattHours = unit === 'Wh' || unit === 'kWh' ? TO_WATT_HOURS[unit] : undefined;
  }

  /** Takes in a piece of the file. */
  push(piece: Uint8Array): void {
    let bytes = piece;
    if (this.#rest.length) {
      bytes = new Uint8Array(this.#rest.length + piece.length);
      bytes.set(this.#rest);
      bytes.set(piece, this.#rest.length);
    }
    let begin = 0;
    for (;;) {
      const end = bytes.indexOf(NEWLINE, begin);
      if (end < 0) break;
      this.#line(bytes, begin, end);
      begin = end + 1;
    }
    this.#rest = bytes.slice(begin);
  }

  /** The file is over; a last line without an end counts. */
  end(): void {
    if (this.#rest.length) this.#line(this.#rest, 0, this.#rest.length);
    this.#rest = new Uint8Array(0);
    this.series.end();
  }

  #line(bytes: Uint8Array, from: number, end: number): void {
    const to = end > from && bytes[end - 1] === RETURN ? end - 1 : end;
    if (to === from) {
      this.lines++;
      return;
    }
    if (this.#skip) {
      this.#skip = false;
      this.lines++;
      return;
    }
    if (this.#plain && this.#plainLine(bytes, from, to)) return;
    this.row(fieldsOf(textOf(bytes, from, to), this.options.shape.delimiter));
  }

  /** Reads a line from its bytes. @returns whether it could */
  #plainLine(bytes: Uint8Array, from: number, to: number): boolean {
    const delimiter = this.#delimiter;
    let [column, at, time, figure] = [0, from, NaN, NaN];
    const last = Math.max(this.#when, this.#figure);
    while (column <= last) {
      let end = at;
      while (end < to && bytes[end] !== delimiter) end++;
      if (column === this.#when) time = this.#timeOf(bytes, at, end);
      else if (column === this.#figure) figure = this.#numberOf(bytes, at, end);
      if (end >= to && column < last) return false;
      column++;
      at = end + 1;
    }
    if (!(figure >= 0) || Number.isNaN(time)) return false;
    this.lines++;
    this.#take(time, figure);
    return true;
  }

  #numberOf(bytes: Uint8Array, from: number, to: number): number {
    let [whole, places, seen, at] = [0, 0, 0, from];
    for (; at < to; at++) {
      const byte = bytes[at]!;
      if (byte >= ZERO && byte <= NINE) {
        whole = whole * 10 + (byte - ZERO);
        places += seen;
      } else if (byte === this.#decimal && !seen) seen = 1;
      else return NaN;
    }
    if (to === from || to - from > 15) return NaN;
    return places ? whole / TENS[places]! : whole;
  }

  /** An instant, ms; NaN where it has to be read the slow way. */
  #timeOf(bytes: Uint8Array, from: number, to: number): number {
    const { timeKind } = this.options.shape;
    if (timeKind !== 'year-first') {
      const value = this.#numberOf(bytes, from, to);
      return timeKind === 'epoch-s' ? Math.round(1000 * value) : value;
    }
    // 2026-03-01T12:34:56: the minute is nearly always that of the line before.
    if (to - from < 19 || bytes[from + 16] !== 58) return NaN;
    const seconds = this.#numberOf(bytes, from + 17, from + 19);
    const zone = from + 19;
    if (to > zone) return NaN;
    let same = !Number.isNaN(this.#minuteIs);
    for (let i = 0; same && i < 16; i++) same = this.#minute[i] === bytes[from + i];
    if (!same) {
      this.#minute.set(bytes.subarray(from, from + 16));
      const text = textOf(this.#minute, 0, 16);
      const wall = wallOf([text], { ...this.options.shape, time: [0] });
      this.#minuteIs = Number.isNaN(wall) ? NaN : this.#clock.instant(wall);
    }
    return this.#minuteIs + 1000 * seconds;
  }

  /** Takes a row whose fields were parted already. */
  row(fields: readonly string[]): void {
    const { shape } = this.options;
    this.lines++;
    if (fields.length === 1 && fields[0] === '') return;
    const wall = wallOf(fields, shape);
    if (Number.isNaN(wall)) return this.#leave('there is no time in it');
    const figure = figureOf(fields[shape.figure] ?? '', shape.decimal);
    if (Number.isNaN(figure)) return this.#leave('there is no figure in it');
    if (figure < 0) return this.#leave('its figure is below nothing');
    const offset = offsetIn(fields, shape);
    this.#take(offset === undefined ? this.#clock.instant(wall) : wall - offset, figure);
  }

  #take(at: number, figure: number): void {
    if (at > this.options.now + AHEAD) return this.#leave('it is in the future');
    if (at < EARLIEST) return this.#leave('it is from before there were such meters');
    if (this.#watts !== undefined) {
      const watts = figure * this.#watts;
      if (watts > MOST_WATTS) return this.#leave('no socket gives so much');
      this.series.add(at, watts);
    } else this.#counter.read(at, figure * this.#wattHours!);
    this.taken++;
    if (at < this.first) this.first = at;
    if (at > this.last) this.last = at;
  }

  #leave(says: string): void {
    this.left++;
    if (this.problems.length < TOLD_PROBLEMS) this.problems.push({ line: this.lines, says });
  }
}

/** A line as text; what is not ASCII stands in names alone. */
function textOf(bytes: Uint8Array, from: number, to: number): string {
  let text = '';
  for (let i = from; i < to; i++) text += String.fromCharCode(bytes[i]!);
  return text;
}

const TENS = Array.from({ length: 16 }, (_, i) => 10 ** i);
