import type { MeterDay } from '@needlecase/core';
import { findCycles, type Cycle, type Ways } from '@needlecase/core/loads/cycles/cycles';
import {
  MeterReader,
  type LineProblem,
  type ReaderOptions,
} from '@needlecase/core/loads/log/meter-reader';
import { guessShape, type GuessedShape } from '@needlecase/core/loads/log/shape';

/** What is asked of the worker: how a file is written, or what is in it. Whoever wants it no more ends the worker. */
export type MeterLogAsked =
  { do: 'look'; file: Blob } | ({ do: 'read'; file: Blob } & ReaderOptions & Ways);

/** A file's beginning as it was understood; nothing where it is no meter's. */
export interface MeterLogLook {
  guessed: GuessedShape | undefined;
  /** The first lines with something in them, as they are written. */
  lines: string[];
}

/** What was found in a file. */
export interface MeterLogFound {
  cycles: Cycle[];
  days: MeterDay[];
  lines: number;
  taken: number;
  left: number;
  problems: LineProblem[];
  /** UTC instants of the first and the last line, ms. */
  first: number;
  last: number;
}

export interface MeterLogAnswered {
  look?: MeterLogLook;
  /** Bytes that were read so far. */
  progress?: number;
  found?: MeterLogFound;
  problem?: string;
}

const HEAD = 65_536;
const ROWS = 11;
/** Bytes between two tellings of how far it is. */
const TOLD = 4_000_000;

const answer = (told: MeterLogAnswered): void => postMessage(told);

addEventListener('message', ({ data }: MessageEvent<MeterLogAsked>) => {
  const work = data.do === 'look' ? look(data.file) : read(data);
  work.catch((problem: unknown) =>
    answer({ problem: problem instanceof Error ? problem.message : String(problem) }),
  );
});

/** Two bytes a letter, as some programs write: told by its first bytes. */
async function encodingOf(file: Blob): Promise<'utf-8' | 'utf-16le' | 'utf-16be'> {
  const [a, b] = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  return a === 0xfe && b === 0xff ? 'utf-16be' : 'utf-8';
}

async function look(file: Blob): Promise<void> {
  const decoder = new TextDecoder(await encodingOf(file));
  const head = decoder.decode(await file.slice(0, HEAD).arrayBuffer());
  const lines = head.split(/\r\n|\n|\r/).filter((line) => line.trim() !== '');
  answer({ look: { guessed: guessShape(head), lines: lines.slice(0, ROWS) } });
}

async function read({
  file,
  pause,
  ...options
}: Extract<MeterLogAsked, { do: 'read' }>): Promise<void> {
  const reader = new MeterReader(options);
  const encoding = await encodingOf(file);
  const wide = encoding === 'utf-8' ? undefined : new TextDecoder(encoding);
  const stream = file.stream().getReader();
  let [bytes, told] = [0, 0];
  for (;;) {
    const { done, value } = await stream.read();
    if (done) break;
    bytes += value.length;
    reader.push(wide ? new TextEncoder().encode(wide.decode(value, { stream: true })) : value);
    if (bytes - told >= TOLD) {
      told = bytes;
      answer({ progress: bytes });
    }
  }
  reader.end();
  const { series, lines, taken, left, problems, first, last } = reader;
  const days: MeterDay[] = [];
  for (const day of series.days) {
    days.push({
      day: new Date(day * 86_400_000).toISOString().slice(0, 10),
      minutes: await packed(series.minutesOf(day)),
    });
  }
  const cycles = findCycles(series.stretches(), series.bin, { pause });
  answer({ found: { cycles, days, lines, taken, left, problems, first, last } });
}

/** A day's minutes as the server takes them: 16 bits each, the lower first, deflated, in base64. */
async function packed(minutes: Uint16Array): Promise<string> {
  const bytes = new Uint8Array(2 * minutes.length);
  minutes.forEach((watts, i) => {
    bytes[2 * i] = watts & 255;
    bytes[2 * i + 1] = watts >> 8;
  });
  const deflated = new Blob([bytes]).stream().pipeThrough(new CompressionStream('deflate-raw'));
  const out = new Uint8Array(await new Response(deflated).arrayBuffer());
  let letters = '';
  for (const byte of out) letters += String.fromCharCode(byte);
  return btoa(letters);
}
