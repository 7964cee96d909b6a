import { TIME_KINDS, type TimeKind } from './file-time.js';

/** What a column of figures tells: power, or a counter that runs on. */
export const FIGURE_UNITS = ['W', 'kW', 'Wh', 'kWh'] as const;
export type FigureUnit = (typeof FIGURE_UNITS)[number];

/** How a meter's file is written. */
export interface FileShape {
  delimiter: ',' | ';' | '\t' | '|' | ' ';
  header: boolean;
  /** Columns of the date and time: one, or a date's and a time's. */
  time: readonly number[];
  timeKind: TimeKind;
  figure: number;
  unit: FigureUnit;
  decimal: '.' | ',';
  /** Fields stand in quotation marks. */
  quoted: boolean;
}

/** What was made of a file's beginning, and what could not be told and is to be asked. */
export interface GuessedShape {
  shape: FileShape;
  /** The header's words, or none. */
  names: readonly string[];
  /** Usual time between two lines, ms. */
  interval: number;
  /** Times fall from line to line. */
  newestFirst: boolean;
  /** Days and months might be the other way round. */
  unsure: boolean;
  /** By which a file of the same make is known again. */
  key: string;
}

const DELIMITERS = [';', '\t', '|', ',', ' '] as const;
const LOOKED_AT = 200;
const EPOCH_S = { least: 9e8, most: 4.2e9 };

const POWER = /power|watt|leistung|load|^w$|\bw\b|\[w\]|\(w\)/i;
const ENERGY = /energy|kwh|\bwh\b|total|zähler|counter|consum/i;

/**
 * How a meter's file is written, by its first lines.
 * @returns nothing where no column is a time, or none a figure
 */
export function guessShape(head: string): GuessedShape | undefined {
  const text = head.replace(/^\uFEFF/, '');
  const lines = text.split(/\r\n|\n|\r/).filter((line) => line.trim() !== '');
  // The last one may be cut off.
  const whole = lines.slice(0, Math.min(LOOKED_AT, Math.max(1, lines.length - 1)));
  for (const delimiter of DELIMITERS) {
    const rows = whole.map((line) => fieldsOf(line, delimiter));
    const width = modeOf(rows.map(({ length }) => length));
    if (width < 2) continue;
    const guessed = shapeOf(rows, width, delimiter, /"/.test(whole.join('')));
    if (guessed) return guessed;
  }
  return undefined;
}

/** The fields of a line; a delimiter within quotation marks does not part them. */
export function fieldsOf(line: string, delimiter: string): string[] {
  if (!line.includes('"')) return line.split(delimiter).map((field) => field.trim());
  const fields: string[] = [];
  let [field, inside] = ['', false];
  for (const letter of line) {
    if (letter === '"') inside = !inside;
    else if (letter === delimiter && !inside) {
      fields.push(field.trim());
      field = '';
    } else field += letter;
  }
  return [...fields, field.trim()];
}

function shapeOf(
  rows: readonly (readonly string[])[],
  width: number,
  delimiter: FileShape['delimiter'],
  quoted: boolean,
): GuessedShape | undefined {
  const header = !rows[0]!.some(
    (field) => timeKindsOf(field).length || /^\d{1,2}:\d\d/.test(field),
  );
  const body = rows.slice(header ? 1 : 0).filter(({ length }) => length === width);
  if (!body.length) return undefined;
  const names = header ? rows[0]! : [];
  const time = timeOf(body, width);
  if (!time) return undefined;
  const columns = Array.from({ length: width }, (_, i) => i).filter(
    (i) => !time.columns.includes(i),
  );
  const decimal = delimiter !== ',' || quoted ? decimalOf(body, columns) : '.';
  const read = (i: number): number[] => body.map((row) => figureOf(row[i] ?? '', decimal));
  const figures = columns.filter((i) => mostly(read(i), Number.isFinite));
  const figure =
    figures.find((i) => POWER.test(names[i] ?? '')) ??
    figures.find((i) => ENERGY.test(names[i] ?? '')) ??
    figures[0];
  if (figure === undefined) return undefined;
  const shape: FileShape = {
    ...{ delimiter, header, decimal, quoted, figure },
    time: time.columns,
    timeKind: time.kind,
    unit: unitOf(names[figure] ?? '', read(figure)),
  };
  return {
    shape,
    names,
    ...pace(body, shape),
    unsure: time.unsure,
    key: [delimiter, width, time.columns.join('+'), ...names].join('·'),
  };
}

/** Kinds of time that a field may be written in; none where it is no time. */
export function timeKindsOf(field: string): TimeKind[] {
  const plain = field.replaceAll('"', '');
  if (/^\d{9,10}(\.\d+)?$/.test(plain)) {
    const value = Number(plain);
    return value >= EPOCH_S.least && value <= EPOCH_S.most ? ['epoch-s'] : [];
  }
  if (/^\d{12,13}$/.test(plain)) {
    const value = Number(plain) / 1000;
    return value >= EPOCH_S.least && value <= EPOCH_S.most ? ['epoch-ms'] : [];
  }
  if (/^\d{4}[-/.]\d{1,2}[-/.]\d{1,2}/.test(plain)) return ['year-first'];
  const parts = /^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4}|\d{2})(?!\d)/.exec(plain);
  if (!parts) return [];
  const [first, second] = [Number(parts[1]), Number(parts[2])];
  return [
    ...(first >= 1 && first <= 31 && second >= 1 && second <= 12 ? (['day-first'] as const) : []),
    ...(first >= 1 && first <= 12 && second >= 1 && second <= 31 ? (['month-first'] as const) : []),
  ];
}

function timeOf(body: readonly (readonly string[])[], width: number) {
  for (let i = 0; i < width; i++) {
    const kinds = body.map((row) => timeKindsOf(row[i] ?? ''));
    const fits = TIME_KINDS.filter((kind) => mostly(kinds, (some) => some.includes(kind)));
    // The kind that fits the most lines: a day past the twelfth tells days from months.
    const count = (kind: TimeKind) => kinds.filter((some) => some.includes(kind)).length;
    const [kind, other] = [...fits].sort((a, b) => count(b) - count(a));
    if (!kind) continue;
    const clock = (at: number) => mostly(body, (row) => /^\d{1,2}:\d\d/.test(row[at] ?? ''));
    const alone = mostly(body, (row) => !/\d[ T]+\d{1,2}:\d\d/.test(row[i] ?? ''));
    const apart = alone && kind !== 'epoch-s' && kind !== 'epoch-ms';
    const beside = apart
      ? Array.from({ length: width }, (_, k) => k).find((k) => k !== i && clock(k))
      : undefined;
    const unsure = other !== undefined && count(kind) === count(other);
    return { kind, columns: beside === undefined ? [i] : [i, beside], unsure };
  }
  return undefined;
}

/** A number as it is written, with a point or a comma; NaN where it is none. @param field as it is written, its unit with it or not */
export function figureOf(field: string, decimal: '.' | ','): number {
  const plain = field.replaceAll('"', '').trim();
  const pointed = decimal === ',' ? plain.replaceAll('.', '').replace(',', '.') : plain;
  const found = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?\s*(w|kw|wh|kwh)?$/i.exec(pointed);
  return found ? parseFloat(pointed) : NaN;
}

const decimalOf = (body: readonly (readonly string[])[], columns: readonly number[]): '.' | ',' =>
  body.some((row) => columns.some((i) => /^"?[+-]?\d+,\d+"?$/.test(row[i] ?? ''))) ? ',' : '.';

function unitOf(name: string, values: readonly number[]): FigureUnit {
  if (/kwh/i.test(name)) return 'kWh';
  if (/\bwh\b|_wh$/i.test(name)) return 'Wh';
  if (/kw|kilowatt/i.test(name)) return 'kW';
  if (POWER.test(name)) return 'W';
  const numbers = values.filter(Number.isFinite);
  const rises = numbers.every((value, i) => i === 0 || value >= numbers[i - 1]!);
  const grown = (numbers.at(-1) ?? 0) - (numbers[0] ?? 0);
  // What only ever rises, and is more than nothing to begin with, counts on.
  if (rises && grown > 0 && numbers[0]! > 0) return numbers[0]! >= 10_000 ? 'Wh' : 'kWh';
  return 'W';
}

function pace(
  body: readonly (readonly string[])[],
  shape: FileShape,
): Pick<GuessedShape, 'interval' | 'newestFirst'> {
  const at = body.map((row) => wallOf(row, shape)).filter(Number.isFinite);
  const between = at.slice(1).flatMap((t, i) => (t === at[i] ? [] : [Math.abs(t - at[i]!)]));
  const falls = at.filter((t, i) => i > 0 && t < at[i - 1]!);
  return {
    interval: between.sort((a, b) => a - b)[between.length >> 1] ?? 60_000,
    newestFirst: falls.length > 0.5 * (at.length - 1),
  };
}

const CLOCK = /(\d{1,2}):(\d\d)(?::(\d\d(?:[.,]\d+)?))?\s*([ap]m)?/i;

/** A written time as milliseconds since 1970, as if it were UTC; NaN where it is none. A zone in it is left aside. @param row fields of a line */
export function wallOf(row: readonly string[], { time, timeKind }: FileShape): number {
  const date = (row[time[0]!] ?? '').replaceAll('"', '');
  if (timeKind === 'epoch-s') return date === '' ? NaN : Math.round(1000 * Number(date));
  if (timeKind === 'epoch-ms') return date === '' ? NaN : Number(date);
  const parts = /^(\d{1,4})[-/.](\d{1,2})[-/.](\d{1,4})/.exec(date);
  const clock = CLOCK.exec(
    time[1] === undefined ? date.slice(parts?.[0].length ?? 0) : (row[time[1]] ?? ''),
  );
  if (!parts) return NaN;
  const [a, b, c] = [Number(parts[1]), Number(parts[2]), Number(parts[3])];
  const [year, month, day] =
    timeKind === 'year-first' ? [a, b, c] : timeKind === 'day-first' ? [c, b, a] : [c, a, b];
  const full = year < 100 ? 2000 + year : year;
  let hour = Number(clock?.[1] ?? 0);
  const half = clock?.[4]?.toLowerCase();
  if (half) hour = (hour % 12) + (half === 'pm' ? 12 : 0);
  const [minute, seconds] = [
    Number(clock?.[2] ?? 0),
    Number((clock?.[3] ?? '0').replace(',', '.')),
  ];
  if (month < 1 || month > 12 || day < 1 || day > 31 || hour > 24 || minute > 59 || seconds > 60) {
    return NaN;
  }
  return Date.UTC(full, month - 1, day, hour, minute) + Math.round(1000 * seconds);
}

const ZONED = /\d\d:?\d\d(?::\d\d(?:[.,]\d+)?)?\s*(Z|[+-]\d\d:?\d\d)$/i;

/** The offset from UTC that a written time names, in milliseconds; nothing where it names none. @param row fields of a line */
export function offsetIn(
  row: readonly string[],
  { time, timeKind }: FileShape,
): number | undefined {
  if (timeKind === 'epoch-s' || timeKind === 'epoch-ms') return 0;
  const zone = ZONED.exec((row[time.at(-1)!] ?? '').replaceAll('"', ''))?.[1];
  if (!zone) return undefined;
  if (/z/i.test(zone)) return 0;
  const [hours, minutes] = [Number(zone.slice(1, 3)), Number(zone.slice(-2))];
  return (zone.startsWith('-') ? -1 : 1) * (hours * 60 + minutes) * 60_000;
}

const mostly = <T>(all: readonly T[], holds: (one: T) => boolean): boolean =>
  all.filter(holds).length >= 0.8 * all.length && all.length > 0;

const modeOf = (values: readonly number[]): number => {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
};
