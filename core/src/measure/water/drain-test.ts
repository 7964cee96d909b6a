import {
  MeasureProblem,
  readFields,
  type Fields,
  type Given,
  type Working,
} from '../input/fields.js';
import { CM, figure, PER_MINUTE } from '../../units/wording.js';

export const DRAIN_FIELDS = {
  litres: { label: 'Water in the drum', dimension: 'volume', least: 0.0005, most: 0.12 },
  seconds: { label: 'Time until it is empty', dimension: 'time', least: 2, most: 3600 },
  bucketLitres: {
    label: 'Into a bucket: water',
    dimension: 'volume',
    least: 0.0005,
    most: 0.12,
    optional: true,
    seldom: true,
  },
  bucketSeconds: {
    label: 'Into a bucket: time',
    dimension: 'time',
    least: 1,
    most: 3600,
    optional: true,
    seldom: true,
  },
  pipeAt: {
    label: 'The hose’s top over the floor',
    dimension: 'length',
    least: 0.2,
    most: 1.7,
    metric: 'cm',
    us: 'in',
    optional: true,
    seldom: true,
  },
  bucketAt: {
    label: 'Into a bucket: the hose’s end over the floor',
    dimension: 'length',
    least: 0,
    most: 1.7,
    metric: 'cm',
    us: 'in',
    optional: true,
    seldom: true,
  },
  clean: {
    label: 'This machine’s own when clean',
    dimension: 'flow',
    least: 1 / 60_000,
    most: 60 / 60_000,
    metric: 'L/min',
    us: 'gal/min',
    optional: true,
  },
} as const satisfies Fields;

/** Usual for a healthy machine, m³/s: 12 to 20 L/min (common practice). */
export const USUAL_DRAIN = { least: 12 / 60_000, most: 20 / 60_000 } as const;
/** Shares of the machine's own clean flow below which to look, and to clean now. Common practice. */
const LOOK_BELOW = 0.7;
const CLEAN_BELOW = 0.5;
/** Into a bucket it runs so much better: the pipe holds it back. Judgement. */
const PIPE_HOLDS = 1.25;
/** m: how high a washer's pump lifts at most, how high the hose usually goes, a bucket's rim. Common practice. */
const SHUT_OFF_HEAD = 1.8;
const USUAL_TOP = 0.8;
const BUCKET_RIM = 0.3;
/** What is left of a pump's flow where it lifts so high, m: its head falls as the square of the flow. */
const liftLeaves = (height: number): number => Math.sqrt(1 - height / SHUT_OFF_HEAD);

export interface DrainTest {
  /** m³/s. */
  flow: number;
  /** Of the clean machine, or of 12 L/min where that is not known. */
  share: number;
  verdict: 'good' | 'look' | 'clean-now';
  /** m³/s into a bucket, as it would be with the hose's end at the height of its pipe. */
  bucket?: number;
  where?: 'machine' | 'pipe' | 'both' | 'none';
  advice: string;
  working: Working[];
}

/** How fast the drum empties, and, in two pieces, where it is held back. @throws MeasureProblem */
export function drainTest(given: Given<typeof DRAIN_FIELDS>): DrainTest {
  const { litres, seconds, bucketLitres, bucketSeconds, clean, ...at } = readFields(
    given,
    DRAIN_FIELDS,
  );
  const { pipeAt = USUAL_TOP, bucketAt = BUCKET_RIM } = at;
  if ((bucketLitres === undefined) !== (bucketSeconds === undefined)) {
    throw new MeasureProblem([
      {
        field: bucketLitres === undefined ? 'bucketLitres' : 'bucketSeconds',
        message: 'Into a bucket, both the water and the time are needed.',
      },
    ]);
  }
  const flow = litres / seconds;
  const reference = clean ?? USUAL_DRAIN.least;
  const share = flow / reference;
  const verdictOf = (part: number) =>
    part < CLEAN_BELOW ? 'clean-now' : part < LOOK_BELOW ? 'look' : 'good';
  const verdict = verdictOf(share);
  const lift = liftLeaves(pipeAt) / liftLeaves(bucketAt);
  const poured =
    bucketLitres === undefined || bucketSeconds === undefined
      ? undefined
      : bucketLitres / bucketSeconds;
  const bucket = poured === undefined ? undefined : poured * lift;
  // What drains as it should is held back nowhere.
  const slow = verdict !== 'good';
  const slowMachine = slow && bucket !== undefined && bucket / reference < LOOK_BELOW;
  const slowPipe = slow && bucket !== undefined && bucket > PIPE_HOLDS * flow;
  const where =
    bucket === undefined
      ? undefined
      : slowMachine && slowPipe
        ? 'both'
        : slowPipe
          ? 'pipe'
          : slowMachine
            ? 'machine'
            : 'none';
  const cm = (value: number) => figure(value, 'length', CM);
  const perMinute = (value: number) => figure(value, 'flow', PER_MINUTE);
  return {
    flow,
    share,
    verdict,
    ...(bucket === undefined ? {} : { bucket }),
    ...(where ? { where } : {}),
    advice: ADVICE[where && where !== 'none' ? where : verdict],
    working: [
      {
        what: 'Flow',
        how: `${figure(litres, 'volume')} in ${figure(seconds, 'time')}: ${perMinute(flow)}`,
      },
      {
        what: 'Against',
        how:
          clean === undefined
            ? `${perMinute(USUAL_DRAIN.least)}, the lower end of what is usual (up to ${perMinute(USUAL_DRAIN.most)}, common practice); your own clean figure counts for more`
            : `this machine when clean, ${perMinute(clean)}: ${Math.round(100 * share)} %; below 70 % look, below 50 % clean now`,
      },
      ...(bucket === undefined
        ? []
        : [
            {
              what: 'Into a bucket',
              how: `${perMinute(poured!)} at ${cm(bucketAt)}; lifted to the pipe’s ${cm(pipeAt)} it would be ${perMinute(bucket)} (a pump that lifts ${cm(SHUT_OFF_HEAD)} at most), ${(bucket / flow).toFixed(2)} times as fast: ${slowPipe ? 'the pipe holds it back' : 'the pipe is not what holds it back'}`,
            },
          ]),
    ],
  };
}

const ADVICE: Record<DrainTest['verdict'] | 'machine' | 'pipe' | 'both', string> = {
  good: 'It drains as it should.',
  look: 'Slower than it should be: look at the pump filter at the next visit.',
  'clean-now': 'Half of what it should be, or less: clean the pump filter now.',
  machine: 'The machine itself is slow: pump filter, impeller, or the hose.',
  pipe: 'The machine is well; the standpipe or its trap holds the water back.',
  both: 'Both are slow: the pump filter first, then the standpipe.',
};
