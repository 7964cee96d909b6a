import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../input/fields.js';
import { CM, figure } from '../../units/wording.js';

export const STANDPIPE_FIELDS = {
  /** Top of the standpipe over the trap's weir. */
  overWeir: {
    label: 'Top of the pipe over the trap’s weir',
    dimension: 'length',
    least: 0,
    most: 4,
    metric: 'cm',
    us: 'in',
  },
  /** Top of the standpipe over the floor: not the same as over its weir. */
  pipeTop: {
    label: 'Top of the pipe over the floor',
    dimension: 'length',
    least: 0,
    most: 4,
    metric: 'cm',
    us: 'in',
    optional: true,
    seldom: true,
  },
  /** Where the hose goes over its highest point, over the floor. */
  hoseTop: {
    label: 'Highest point of the hose over the floor',
    dimension: 'length',
    least: 0,
    most: 4,
    metric: 'cm',
    us: 'in',
  },
  inserted: {
    label: 'Hose inside the pipe',
    dimension: 'length',
    least: 0,
    most: 2,
    metric: 'cm',
    us: 'in',
  },
  inside: {
    label: 'Inside width of the pipe',
    dimension: 'length',
    least: 0.02,
    most: 0.2,
    metric: 'mm',
    us: 'in',
    optional: true,
    seldom: true,
  },
} as const satisfies Fields;

export const PLUMBING_CODES = ['IPC', 'UPC', 'EN'] as const;
export type PlumbingCode = (typeof PLUMBING_CODES)[number];
const INCH = 0.0254;

interface Plumbing {
  name: string;
  /** Standpipe over the trap weir, m. */
  weir: { least: number; most: number };
  /** Highest point of the hose over the floor, m. Common practice; the manual overrides. */
  hoseTop: { least: number; most: number };
  /** Narrowest inside of a pipe, m, and how it is said. */
  inside: number;
  narrow: string;
}

const TWO_INCHES = 'Narrower than 2 in (50 mm): it backs up with a strong pump.';
/**
 * IPC 802.4 (18 to 42 in) and UPC 804.1 (18 to 30 in), both with 2 in pipe, from memory. EN: the 40 mm pipe
 * of Approved Document H (UK) and its like, hose tops of up to 100 cm as European makers allow them (common
 * practice); no code there names the height over the weir.
 */
const PLUMBING: Record<PlumbingCode, Plumbing> = {
  IPC: {
    name: 'IPC',
    weir: { least: 18 * INCH, most: 42 * INCH },
    hoseTop: { least: 0.6, most: 0.9 },
    inside: 2 * INCH,
    narrow: TWO_INCHES,
  },
  UPC: {
    name: 'UPC',
    weir: { least: 18 * INCH, most: 30 * INCH },
    hoseTop: { least: 0.6, most: 0.9 },
    inside: 2 * INCH,
    narrow: TWO_INCHES,
  },
  EN: {
    name: 'European practice',
    weir: { least: 0.4, most: 1 },
    hoseTop: { least: 0.6, most: 1 },
    inside: 0.04,
    narrow: 'Narrower than 40 mm (1 1/2 in): it backs up with a strong pump.',
  },
};
/** Hose inside the pipe, m. Common practice; the manual overrides. */
const INSERTED = { least: 0.15, most: 0.3 } as const;

export interface Standpipe {
  warnings: {
    id: HoseFault | 'overflow' | 'narrow';
    say: string;
  }[];
  right: boolean;
  working: Working[];
}

export type HoseFault = 'siphon' | 'too-high' | 'slips-out' | 'too-deep';
const HOSE_WARNINGS: Record<HoseFault, string> = {
  siphon:
    'The hose stays below the water in the drum: it can siphon empty while it fills. Hook it up to 60 to 90 cm (24 to 36 in), or as your manual says.',
  'too-high': 'The pump lifts higher than is usual: it drains slower. Your manual names the most.',
  'slips-out': 'It can jump out when the pump starts: 15 to 30 cm (6 to 12 in) inside, and tied.',
  'too-deep':
    'It can siphon, and foul water can reach it: pull it back to 15 to 30 cm (6 to 12 in).',
};

/** Between which a hose's highest point over the floor, what is in the pipe, and the pipe over its weir are as they should, m. */
export const hoseRanges = (code: PlumbingCode = 'IPC') => ({
  hoseTop: PLUMBING[code].hoseTop,
  overWeir: PLUMBING[code].weir,
  inserted: INSERTED,
});

/** How a hose sits, m; what was not measured is not there. */
export interface HoseSeat {
  hoseTop: number | undefined;
  inserted: number | undefined;
}

/** What is wrong with how a hose sits. */
export function hoseFaults(
  { hoseTop: top, inserted }: HoseSeat,
  code: PlumbingCode = 'IPC',
): HoseFault[] {
  const { hoseTop } = PLUMBING[code];
  return [
    ...(top !== undefined && top < hoseTop.least ? ['siphon' as const] : []),
    ...(top !== undefined && top > hoseTop.most ? ['too-high' as const] : []),
    ...(inserted !== undefined && inserted < INSERTED.least ? ['slips-out' as const] : []),
    ...(inserted !== undefined && inserted > INSERTED.most ? ['too-deep' as const] : []),
  ];
}

/** Whether a hose in its standpipe can siphon, slip out or overflow. @throws MeasureProblem */
export function standpipe(
  given: Given<typeof STANDPIPE_FIELDS>,
  code: PlumbingCode = 'IPC',
): Standpipe {
  const { overWeir, hoseTop, inserted, inside, pipeTop } = readFields(given, STANDPIPE_FIELDS);
  if (pipeTop !== undefined && hoseTop < pipeTop) {
    throw new MeasureProblem([
      {
        field: 'hoseTop',
        message: `Give at least ${figure(pipeTop, 'length', CM)}: the hose goes over the top of its pipe. Both are over the floor; the weir is the bend of the trap below.`,
      },
    ]);
  }
  if (inserted > overWeir + 0.5) {
    throw new MeasureProblem([
      {
        field: 'inserted',
        message: 'Give less than the pipe is deep: the hose would be in the trap.',
      },
    ]);
  }
  const { name, weir: range, hoseTop: tops, inside: narrowest, narrow } = PLUMBING[code];
  const warnings: Standpipe['warnings'] = [];
  const warn = (id: Standpipe['warnings'][number]['id'], words: string) =>
    warnings.push({ id, say: words });
  for (const id of hoseFaults({ hoseTop, inserted }, code)) {
    warn(id, HOSE_WARNINGS[id]);
  }
  if (overWeir < range.least)
    warn('overflow', 'The pipe is short: it overflows when the pump starts.');
  if (overWeir > range.most)
    warn('overflow', `Longer over the trap than the ${name} allows: the trap can be sucked dry.`);
  if (inside !== undefined && inside < narrowest - 1e-4) warn('narrow', narrow);
  const cm = (value: number) => figure(value, 'length', CM);
  return {
    warnings,
    right: warnings.length === 0,
    working: [
      {
        what: 'Pipe over the weir',
        how: `${cm(overWeir)}; ${name}: ${cm(range.least)} to ${cm(range.most)}`,
      },
      {
        what: 'Hose inside',
        how: `${cm(inserted)}; ${cm(INSERTED.least)} to ${cm(INSERTED.most)} (common practice)`,
      },
      {
        what: 'Highest point',
        how: `${cm(hoseTop)}; ${cm(tops.least)} to ${cm(tops.most)} (common practice, your manual counts)`,
      },
    ],
  };
}
