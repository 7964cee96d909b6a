import { isFiled } from '@needlecase/core/formats/backup';
import {
  FILE_NAMES,
  RECORD_FORMAT,
  RECORD_KINDS,
  RECORD_SCHEMA,
  RECORD_VERSION,
  type RecordKind,
} from '@needlecase/core/formats/record';
import { fileOf, linesOf } from '../backup/parts.js';
import type { Db } from '../db/open.js';
import { PROGRAM } from '../program.js';

/** Things are gathered into pieces of about this size, characters. */
const PIECE = 64_000;

/**
 * A household's record as one text of JSON, in pieces; a thing a line, so that it can be read and compared by hand.
 * @param now instant, milliseconds @param pictures whether photos and papers are in it
 */
export function* recordOf(db: Db, now: number, pictures: boolean): Generator<string> {
  const head = {
    $schema: RECORD_SCHEMA,
    ...{ format: RECORD_FORMAT, version: RECORD_VERSION, program: PROGRAM },
    made: new Date(now).toISOString(),
  };
  let piece = JSON.stringify(head).slice(0, -1);
  for (const kind of RECORD_KINDS) {
    let number = 0;
    piece += `,\n"${kind}":${kind === 'household' ? '' : '['}`;
    for (const thing of thingsOf(db, kind, pictures)) {
      piece += `${number++ && kind !== 'household' ? ',' : ''}\n${JSON.stringify(thing)}`;
      if (piece.length < PIECE) continue;
      yield piece;
      piece = '';
    }
    if (kind !== 'household') piece += ']';
  }
  yield `${piece}}\n`;
}

function* thingsOf(db: Db, kind: RecordKind, pictures: boolean): Generator<object> {
  for (const thing of linesOf(db, kind)) {
    if (!isFiled(kind)) yield thing;
    else if (pictures) {
      const { id } = thing as { id: string };
      yield { ...thing, [FILE_NAMES[kind]]: fileOf(db, kind, id).toString('base64') };
    }
  }
}
