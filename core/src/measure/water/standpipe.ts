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
  },
} as const satisfies Fields;

export const PLUMBING_CODES = ['IPC', 'UPC'] as const;
export type PlumbingCode = (typeof PLUMBING_CODES)[number];
const INCH = 0.0254;

/** Standpipe over the trap weir, m. IPC 802.4 (18 to 42 in), UPC 804.1 (18 to 30 in), from memory. */
const WEIR_RANGE: Record<PlumbingCode, { least: number; most: number }> = {
  IPC: { least: 18 * INCH, most: 42 * INCH },
  UPC: { least: 18 * INCH, most: 30 * INCH },
};
/** Hose inside the pipe, and its highest point over the floor, m. Common practice; the manual overrides. */
const INSERTED = { least: 0.15, most: 0.3 } as const;
const HOSE_TOP = { least: 0.6, most: 0.9 } as const;

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

/** How a hose sits, m; what was not measured is not there. */
export interface HoseSeat {
  hoseTop: number | undefined;
  inserted: number | undefined;
}

/** What is wrong with how a hose sits. */
export function hoseFaults({ hoseTop: top, inserted }: HoseSeat): HoseFault[] {
  return [
    ...(top !== undefined && top < HOSE_TOP.least ? ['siphon' as const] : []),
    ...(top !== undefined && top > HOSE_TOP.most ? ['too-high' as const] : []),
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
  const range = WEIR_RANGE[code];
  const warnings: Standpipe['warnings'] = [];
  const warn = (id: Standpipe['warnings'][number]['id'], words: string) =>
    warnings.push({ id, say: words });
  for (const id of hoseFaults({ hoseTop, inserted })) {
    warn(id, HOSE_WARNINGS[id]);
  }
  if (overWeir < range.least)
    warn('overflow', 'The pipe is short: it overflows when the pump starts.');
  if (overWeir > range.most)
    warn('overflow', `Longer over the trap than the ${code} allows: the trap can be sucked dry.`);
  if (inside !== undefined && inside < 2 * INCH - 1e-4)
    warn('narrow', 'Narrower than 2 in (50 mm): it backs up with a strong pump.');
  const cm = (value: number) => figure(value, 'length', CM);
  return {
    warnings,
    right: warnings.length === 0,
    working: [
      {
        what: 'Pipe over the weir',
        how: `${cm(overWeir)}; ${code}: ${cm(range.least)} to ${cm(range.most)}`,
      },
      {
        what: 'Hose inside',
        how: `${cm(inserted)}; ${cm(INSERTED.least)} to ${cm(INSERTED.most)} (common practice)`,
      },
      {
        what: 'Highest point',
        how: `${cm(hoseTop)}; ${cm(HOSE_TOP.least)} to ${cm(HOSE_TOP.most)} (common practice, your manual counts)`,
      },
    ],
  };
}
