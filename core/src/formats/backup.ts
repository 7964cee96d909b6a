import Type, { type Static, type TObject, type TProperties } from 'typebox';
import { Person, PersonDraft } from '../model/access.js';
import { instant } from '../model/instants.js';
import { Absence, BusyCalendar, PlannedVisit } from '../model/planned.js';
import {
  CaseRecord,
  CodeSheet,
  Entry,
  Household,
  KeptVentRun,
  Machine,
  MeterDay,
  Photo,
  Supply,
  Visit,
} from '../model/schemas.js';
import { Document, DOCUMENT_ENDS, type DocumentType } from '../model/documents.js';

/*
 * What a backup is: a `.zip` that can be read without the program. `manifest.json` says what it is and what
 * is in it; under `data/` is one file of JSON lines a kind, each line as the API tells it; photos are files.
 */

export const BACKUP_FORMAT = 'needlecase-backup';
/** Grows when an older program could not read it. */
export const BACKUP_VERSION = 1;

const closed = <P extends TProperties>(properties: P, title: string): TObject<P> =>
  Type.Object(properties, { additionalProperties: false, title });
const { revisedBy: _worked, ...entryAsKept } = Entry.properties;

/** The kinds of things in a backup, with the schema of a line; in this order they are put back. */
export const BACKUP_KINDS = {
  household: Household,
  /** Without what lets them in: on another computer each device is paired anew. */
  persons: closed(
    { ...PersonDraft.properties, id: Person.properties.id, version: Person.properties.version },
    'KeptPerson',
  ),
  machines: Machine,
  supplies: Supply,
  runs: Visit,
  entries: closed(entryAsKept, 'KeptEntry'),
  cases: closed(
    {
      ...CaseRecord.properties,
      /** When each of the events came in, in their order. */
      recordedAt: Type.Array(instant()),
    },
    'KeptCase',
  ),
  'code-sheets': CodeSheet,
  'vent-runs': KeptVentRun,
  absences: Absence,
  'busy-calendars': BusyCalendar,
  'planned-visits': PlannedVisit,
  /** What meters read; a day’s minutes packed as they come in over the API. */
  'meter-days': closed(
    { machineId: Machine.properties.id, ...MeterDay.properties },
    'KeptMeterDay',
  ),
  photos: closed({ ...Photo.properties, storedAt: instant() }, 'KeptPhoto'),
  documents: closed({ ...Document.properties, storedAt: instant() }, 'KeptDocument'),
  /** What was answered to requests with an Idempotency-Key: a phone that tries again doubles nothing. */
  answers: closed(
    {
      key: Type.String({ minLength: 8, maxLength: 100 }),
      request: Type.String(),
      answer: Type.Unknown(),
      at: instant(),
    },
    'KeptAnswer',
  ),
} as const;
export type BackupKind = keyof typeof BACKUP_KINDS;
export const BACKUP_KIND_NAMES = Object.keys(BACKUP_KINDS) as BackupKind[];
export type BackupLine<K extends BackupKind> = Static<(typeof BACKUP_KINDS)[K]>;

/** Where the lines of a kind are in a backup. */
export const linesPath = (kind: BackupKind): string => `data/${kind}.jsonl`;
/** Kinds whose things each have a file. */
export const FILED_KINDS = ['photos', 'documents'] as const satisfies readonly BackupKind[];
export type FiledKind = (typeof FILED_KINDS)[number];
/** Whether the things of a kind each have a file. */
export const isFiled = (kind: BackupKind): kind is FiledKind =>
  FILED_KINDS.some((filed) => filed === kind);

/** Where the file of a photo or a document is in a backup. */
export const filePath = (
  kind: FiledKind,
  { id, type }: { id: string; type?: DocumentType },
): string => `${kind}/${id}.${DOCUMENT_ENDS[type ?? 'image/jpeg']}`;
const FILE = /^([a-z]+)\/([0-9a-f-]{36})\.(?:jpg|pdf|png|webp)$/;

/** Whose file lies at a path of a backup; nothing where it is another. */
export function fileAt(path: string): { kind: FiledKind; id: string } | undefined {
  const [, name, id] = FILE.exec(path) ?? [];
  const kind = FILED_KINDS.find((filed) => filed === name);
  return kind && id !== undefined ? { kind, id } : undefined;
}

export const BackupManifest = Type.Object(
  {
    format: Type.Literal(BACKUP_FORMAT),
    version: Type.Integer({ minimum: 1 }),
    /** Of the program that made it. */
    program: Type.String(),
    made: instant(),
    household: Type.Object({
      id: Type.String({ format: 'uuid' }),
      name: Type.String(),
      zone: Type.String(),
    }),
    /** Lines of each kind. */
    counts: Type.Record(Type.String(), Type.Integer({ minimum: 0 })),
    /** Every other file in it. */
    parts: Type.Array(
      Type.Object({
        path: Type.String(),
        bytes: Type.Integer({ minimum: 0 }),
        sha256: Type.String({ pattern: '^[0-9a-f]{64}$' }),
      }),
    ),
  },
  { title: 'BackupManifest' },
);
export type BackupManifest = Static<typeof BackupManifest>;

/** What a backup holds, told to a person. */
export const BackupSummary = closed(
  {
    made: instant(),
    household: Type.String(),
    machines: Type.Integer(),
    entries: Type.Integer(),
    visits: Type.Integer(),
    cases: Type.Integer(),
    photos: Type.Integer(),
  },
  'BackupSummary',
);
export type BackupSummary = Static<typeof BackupSummary>;

/** What a backup holds, by what it says of itself. */
export function summaryOf({
  made,
  household,
  counts,
}: Pick<BackupManifest, 'made' | 'counts'> & { household: { name: string } }): BackupSummary {
  const of = (kind: BackupKind): number => counts[kind] ?? 0;
  return {
    made,
    household: household.name,
    machines: of('machines'),
    entries: of('entries'),
    visits: of('runs'),
    cases: of('cases'),
    photos: of('photos'),
  };
}

/** A backup that lies in the folder. */
export const BackupFile = closed(
  { name: Type.String(), made: instant(), bytes: Type.Integer() },
  'BackupFile',
);
export type BackupFile = Static<typeof BackupFile>;

/** How the household's backups stand. */
export const BackupState = closed(
  {
    /** Where they are put every day. */
    folder: Type.String(),
    /** Those that are there, the newest first; each was read again after it was written. */
    files: Type.Array(BackupFile),
    /** So many say that they are of the future: the clock was wrong. They are never the newest. */
    ahead: Type.Integer(),
    /** The newest is too old; or there is none, and none could be made. */
    old: Type.Boolean(),
    /** What went wrong at the last try. */
    problem: Type.Optional(Type.String()),
  },
  'BackupState',
);
export type BackupState = Static<typeof BackupState>;

const SIDES = ['ours', 'theirs'] as const;
export type Side = (typeof SIDES)[number];
const side = () => Type.Unsafe<Side>({ type: 'string', enum: [...SIDES] });

/** A thing that is otherwise in the backup than here. */
export const BackupDifference = closed(
  {
    id: Type.String({ format: 'uuid' }),
    /** In words, such as `Machine “Washer”`. */
    what: Type.String(),
    /** The fields that differ, each in words. */
    fields: Type.Array(
      closed({ name: Type.String(), ours: Type.String(), theirs: Type.String() }, 'Differing'),
    ),
    /** The one that was changed more often; nothing where nobody can tell. */
    proposed: Type.Optional(side()),
  },
  'BackupDifference',
);
export type BackupDifference = Static<typeof BackupDifference>;

/** What a backup that was handed in holds, and what it would mean here. */
export const BackupLook = closed(
  {
    id: Type.String({ format: 'uuid' }),
    backup: BackupSummary,
    /** What is here now; nothing before the first start. */
    here: Type.Optional(BackupSummary),
    /** Whether it is of the household that is here. */
    same: Type.Boolean(),
    /** What would be new here, by kind. */
    added: Type.Record(Type.String(), Type.Integer()),
    differences: Type.Array(BackupDifference),
  },
  'BackupLook',
);
export type BackupLook = Static<typeof BackupLook>;

export const RestoreDraft = closed(
  {
    /** Of the look at the backup. */
    id: Type.String({ format: 'uuid' }),
    /** Put it in the place of what is here, or take in what is missing here. */
    how: Type.Unsafe<'replace' | 'merge'>({ type: 'string', enum: ['replace', 'merge'] }),
    /** Of things that differ: which of the two holds, by id. */
    choices: Type.Optional(Type.Record(Type.String(), side())),
  },
  'RestoreDraft',
);
export type RestoreDraft = Static<typeof RestoreDraft>;

export const Restored = closed(
  {
    /** What is here now. */
    here: BackupSummary,
    /** Where what was here before lies, in the folder of backups. */
    before: Type.Optional(Type.String()),
    /** What was taken in, by kind; of what was put in place of all, everything. */
    added: Type.Record(Type.String(), Type.Integer()),
  },
  'Restored',
);
export type Restored = Static<typeof Restored>;

export const PickDraft = closed({ name: Type.String({ maxLength: 100 }) }, 'PickDraft');
export type PickDraft = Static<typeof PickDraft>;
