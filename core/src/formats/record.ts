import Type, { type TSchema } from 'typebox';
import { instant } from '../model/instants.js';
import { BACKUP_KINDS, isFiled, type BackupKind, type FiledKind } from './backup.js';

/*
 * A household's record in one file of JSON, to be read without the program and taken in again: each thing as the API
 * tells it, by kinds; what the household is made of in the order in which it can be put back. Times are UTC instants.
 */

export const RECORD_FORMAT = 'needlecase-record';
/** Grows when an older program could not read it. */
export const RECORD_VERSION = 1;
/** Where the schema of the file is told. */
export const RECORD_SCHEMA = '/api/v1/record.schema.json';

/** What was answered to phones that try again is of the server, not of the record. */
const STAYS_OUT = ['answers'] as const;
export type RecordKind = Exclude<BackupKind, (typeof STAYS_OUT)[number]>;
export const RECORD_KINDS = (Object.keys(BACKUP_KINDS) as BackupKind[]).filter(
  (kind): kind is RecordKind => !STAYS_OUT.some((out) => out === kind),
);

/** By which name the file of a thing stands in it, in base64. */
export const FILE_NAMES = { photos: 'picture', documents: 'file' } as const satisfies Record<
  FiledKind,
  string
>;
const inBase64 = () => Type.String({ contentEncoding: 'base64' });
/** A photo with its picture, a JPEG. */
const RecordPhoto = Type.Object(
  { ...BACKUP_KINDS.photos.properties, picture: inBase64() },
  { additionalProperties: false, title: 'RecordPhoto' },
);
/** A paper of a machine with its file. */
const RecordDocument = Type.Object(
  { ...BACKUP_KINDS.documents.properties, file: inBase64() },
  { additionalProperties: false, title: 'RecordDocument' },
);
const FILED: Record<FiledKind, TSchema> = { photos: RecordPhoto, documents: RecordDocument };

/** Things that have a file are in it with that, or not at all. */
const listOf = (kind: RecordKind): TSchema =>
  Type.Array(isFiled(kind) ? FILED[kind] : (BACKUP_KINDS[kind] as TSchema));

/** The whole file. */
export const RecordFile = Type.Object(
  {
    $schema: Type.Optional(Type.String()),
    format: Type.Literal(RECORD_FORMAT),
    version: Type.Integer({ minimum: 1 }),
    /** Of the program that wrote it. */
    program: Type.String(),
    made: instant(),
    ...(Object.fromEntries(
      RECORD_KINDS.map((kind) => [
        kind,
        kind === 'household' ? (BACKUP_KINDS.household as TSchema) : listOf(kind),
      ]),
    ) as Record<RecordKind, TSchema>),
  },
  { additionalProperties: false, title: 'NeedlecaseRecord' },
);

/** The published schema of the file (JSON Schema 2020-12). */
export const recordSchema = (): object => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  ...RecordFile,
});
