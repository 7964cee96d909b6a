import Type, { type Static, type TProperties } from 'typebox';

/* Papers of a machine: its manual, its receipt. The file itself comes and goes beside what is told of it. */

const closed = <P extends TProperties>(properties: P, title: string) =>
  Type.Object(properties, { additionalProperties: false, title });
const oneOf = <const T extends readonly string[]>(values: T) =>
  Type.Unsafe<T[number]>({ type: 'string', enum: [...values] });

export const DOCUMENT_KINDS = ['manual', 'receipt', 'warranty', 'service', 'other'] as const;
export type DocumentKind = (typeof DOCUMENT_KINDS)[number];
export const DOCUMENT_WORDS: Readonly<Record<DocumentKind, string>> = {
  manual: 'manual',
  receipt: 'receipt',
  warranty: 'warranty card',
  service: 'service report',
  other: 'another paper',
};

/** What a file can be, by what is in it. */
export const DOCUMENT_TYPES = ['application/pdf', 'image/jpeg', 'image/png', 'image/webp'] as const;
export type DocumentType = (typeof DOCUMENT_TYPES)[number];

/** The end of a file's name, by its type. */
export const DOCUMENT_ENDS: Readonly<Record<DocumentType, string>> = {
  'application/pdf': 'pdf',
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
};

/** The largest file that is kept, bytes. */
export const MOST_DOCUMENT = 20_000_000;

export const DocumentDraft = closed(
  {
    machineId: Type.String({ format: 'uuid' }),
    kind: oneOf(DOCUMENT_KINDS),
    /** What it is called here; the finder looks for it. */
    name: Type.String({
      minLength: 1,
      maxLength: 120,
      pattern: '^[^\\u0000-\\u001f\\u007f]*\\S[^\\u0000-\\u001f\\u007f]*$',
    }),
  },
  'DocumentDraft',
);
export type DocumentDraft = Static<typeof DocumentDraft>;

export const Document = closed(
  {
    id: Type.String({ format: 'uuid' }),
    version: Type.Integer({ minimum: 1 }),
    ...DocumentDraft.properties,
    type: oneOf(DOCUMENT_TYPES),
    bytes: Type.Integer({ minimum: 0 }),
  },
  'Document',
);
export type Document = Static<typeof Document>;

/** A page of a machine's manual, where it tells of a task or of one of its steps. */
export const ManualPage = Type.Object(
  {
    document: Type.String({ format: 'uuid' }),
    /** As the file counts them, the first is 1. */
    page: Type.Integer({ minimum: 1, maximum: 5000 }),
    task: Type.String({ minLength: 1, maxLength: 40 }),
    /** One step of the task's procedure; its interval where none is told. */
    step: Type.Optional(Type.String({ minLength: 1, maxLength: 60 })),
  },
  { additionalProperties: false },
);
export type ManualPage = Static<typeof ManualPage>;
