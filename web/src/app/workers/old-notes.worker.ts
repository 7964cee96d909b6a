import type { Machine } from '@needlecase/core';
import {
  MOST_LINES,
  readNotes,
  type NoteChoices,
  type UnderstoodNotes,
} from '@needlecase/core/care/old-notes/read-notes';
import Papa from 'papaparse';

/** What is asked of the worker, and what it answers. */
export interface OldNotesAsked {
  text: string | Blob;
  machines: readonly Machine[];
  zone: string;
  now: number;
  choices: NoteChoices;
}
export interface OldNotesAnswered {
  notes?: UnderstoodNotes;
  /** There was more than is looked at. */
  cut?: boolean;
  problem?: string;
}

/** Of a file only so much is looked at, bytes: more lines than anybody has notes. */
const MOST_BYTES = 8_000_000;
/** A cell is no longer, or something is wrong with the quotes. */
const LONGEST = 100_000;

/** A file's text: its mark tells how its letters are written, UTF-8 otherwise. */
async function textOf(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.slice(0, MOST_BYTES).arrayBuffer());
  const [a, b] = bytes;
  const wide = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : '';
  const text = new TextDecoder(wide || 'utf-8').decode(bytes);
  if (text.slice(0, 1000).includes('\0')) throw new Error('This is no text: save it as CSV first.');
  return text;
}

addEventListener('message', ({ data }: MessageEvent<OldNotesAsked>) => {
  const { text, machines, zone, now, choices } = data;
  void (async (): Promise<OldNotesAnswered> => {
    try {
      const whole = typeof text === 'string' ? text.slice(0, MOST_BYTES) : await textOf(text);
      const { data: rows } = Papa.parse<string[]>(whole, { preview: MOST_LINES + 2 });
      if (rows.some((cells) => cells.some((cell) => cell.length > LONGEST))) {
        throw new Error('A quotation mark is opened and never closed: most of it became one cell.');
      }
      const size = typeof text === 'string' ? text.length : text.size;
      const cut = rows.length > MOST_LINES + 1 || size > MOST_BYTES;
      return { notes: readNotes(rows, { machines, zone, now }, choices), cut };
    } catch (problem) {
      return { problem: problem instanceof Error ? problem.message : String(problem) };
    }
  })().then((answer) => postMessage(answer));
});
