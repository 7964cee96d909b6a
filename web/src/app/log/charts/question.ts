import type { Along } from './record-chart.component';

/** How much is shown at once, days; nothing for all of it. */
export const LENGTHS = { all: undefined, '10y': 3652, '2y': 730, '1y': 365, '3m': 91 } as const;
export type Length = keyof typeof LENGTHS;
export const LENGTH_WORDS: Record<Length, string> = {
  all: 'all of it',
  '10y': 'ten years',
  '2y': 'two years',
  '1y': 'a year',
  '3m': 'three months',
};

/** What a chart is asked for: it stands in the address, and can be saved. */
export interface Question {
  machine: string;
  figure: string;
  length: Length;
  along: Along;
  /** How long before now it ends, days. */
  ago: number;
}

/** Nobody has a record that goes back further, days. */
const LONGEST_AGO = 100 * 366;

const isLength = (text: string | undefined): text is Length =>
  text !== undefined && text in LENGTHS;

/** "MACHINE~drain-time~2y~time~0". */
export const written = ({ machine, figure, length, along, ago }: Question): string =>
  [machine, figure, length, along, Math.round(ago)].join('~');

/** @returns what of it can be read */
export function read(text: string | null | undefined): Partial<Question> {
  const [machine, figure, length, along, ago] = (text ?? '').split('~');
  const days = ago ? Number(ago) : NaN;
  return {
    ...(machine ? { machine } : {}),
    ...(figure ? { figure } : {}),
    ...(isLength(length) ? { length } : {}),
    ...(along === 'time' || along === 'loads' ? { along } : {}),
    ...(days >= 0 && days <= LONGEST_AGO ? { ago: days } : {}),
  };
}
