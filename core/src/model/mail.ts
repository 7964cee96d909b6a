import Type, { type Static, type TProperties } from 'typebox';
import { instant } from './instants.js';

/* Letters of the household’s own server: through which post office, to whom, and how often. */

const closed = <P extends TProperties>(properties: P, title?: string) =>
  Type.Object(properties, { additionalProperties: false, ...(title ? { title } : {}) });
const id = () => Type.String({ format: 'uuid' });
const address = () => Type.String({ maxLength: 254, pattern: '^[^\\s@<>",;]+@[^\\s@<>",;]+$' });

/** How a mail server is reached. */
const server = {
  host: Type.String({ minLength: 1, maxLength: 200, pattern: '^[A-Za-z0-9.\\-:\\[\\]]+$' }),
  port: Type.Integer({ minimum: 1, maximum: 65535 }),
  /** Encrypted from the first byte on (port 465); else it is asked for once they talk. */
  secure: Type.Boolean(),
  user: Type.Optional(Type.String({ maxLength: 200 })),
  /** Whose letters they are. */
  from: address(),
};

export const MailServerDraft = closed(
  {
    ...server,
    /** The one before stays where none is given. */
    password: Type.Optional(Type.String({ maxLength: 500, writeOnly: true })),
  },
  'MailServerDraft',
);
export type MailServerDraft = Static<typeof MailServerDraft>;

export const MailRecipientDraft = closed(
  {
    address: address(),
    /** On which day of the week: 1 Monday to 7 Sunday. What keeps people safe is told on any. */
    weekday: Type.Integer({ minimum: 1, maximum: 7 }),
  },
  'MailRecipientDraft',
);
export type MailRecipientDraft = Static<typeof MailRecipientDraft>;

export const MailRecipient = closed(
  {
    id: id(),
    ...MailRecipientDraft.properties,
    /** The day of the last letter. */
    sentOn: Type.Optional(Type.String({ format: 'date' })),
    /** What went wrong at the last try. */
    problem: Type.Optional(Type.String()),
    /** When it is tried again. */
    triedAgainAt: Type.Optional(instant()),
  },
  'MailRecipient',
);
export type MailRecipient = Static<typeof MailRecipient>;

/** How letters stand. */
export const MailState = closed(
  {
    /** Without what lets it in. */
    server: Type.Optional(closed({ ...server, password: Type.Boolean() })),
    /** It was said where the server was started, and is not changed here. */
    fixed: Type.Boolean(),
    recipients: Type.Array(MailRecipient),
    /** What came to the post office that stands in for a real one; nothing where there is none. */
    letters: Type.Optional(
      Type.Array(
        closed({ to: Type.String(), subject: Type.String(), text: Type.String(), at: instant() }),
      ),
    ),
  },
  'MailState',
);
export type MailState = Static<typeof MailState>;
