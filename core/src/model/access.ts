import Type, { type Static, type TProperties } from 'typebox';
import { instant } from './instants.js';
import { ROLES, THREADS } from './people.js';

export * from './people.js';

/* Who may do what: persons, their devices, and what lets them in. No secret is in any of these but the one given. */

const closed = <P extends TProperties>(properties: P, title?: string) =>
  Type.Object(properties, { additionalProperties: false, ...(title ? { title } : {}) });
const oneOf = <const T extends readonly string[]>(values: T) =>
  Type.Unsafe<T[number]>({ type: 'string', enum: [...values] });
const name = (most: number) => Type.String({ minLength: 1, maxLength: most, pattern: '\\S' });
const id = () => Type.String({ format: 'uuid' });
const secret = () => Type.String({ minLength: 1, maxLength: 200, writeOnly: true });

export const PersonDraft = closed(
  { name: name(40), thread: oneOf(THREADS), role: oneOf(ROLES) },
  'PersonDraft',
);
export type PersonDraft = Static<typeof PersonDraft>;

export const Person = closed(
  {
    ...PersonDraft.properties,
    id: id(),
    version: Type.Integer({ minimum: 1 }),
    /** A pass phrase lets this person in on a shared computer. */
    passphrase: Type.Boolean(),
  },
  'Person',
);
export type Person = Static<typeof Person>;

export const Device = closed(
  {
    id: id(),
    personId: id(),
    name: name(60),
    pairedAt: instant(),
    seenAt: instant(),
    until: instant(),
    /** Paired over plain http: its secret went over the network as it is, and holds for a shorter time. */
    weak: Type.Boolean(),
    revokedAt: Type.Optional(instant()),
    /** The one that asks. */
    here: Type.Boolean(),
  },
  'Device',
);
export type Device = Static<typeof Device>;

/** For whom a code is made; for oneself where nobody is named. */
export const CodeDraft = closed({ personId: Type.Optional(id()) }, 'CodeDraft');
export type CodeDraft = Static<typeof CodeDraft>;

/** A code that pairs one device, once. */
export const PairingCode = closed(
  {
    code: Type.String(),
    personId: id(),
    until: instant(),
    /** The page that a phone opens: over plain http, where the certificate is got; and the one that pairs. */
    phone: Type.String(),
    pair: Type.String(),
    /** The fingerprint of the household's certificate, in words. */
    words: Type.Optional(Type.String()),
  },
  'PairingCode',
);
export type PairingCode = Static<typeof PairingCode>;

export const PairDraft = closed(
  {
    code: secret(),
    /** What the device is called in the list. */
    device: name(60),
  },
  'PairDraft',
);
export type PairDraft = Static<typeof PairDraft>;

export const PassphraseDraft = closed(
  { passphrase: Type.String({ minLength: 15, maxLength: 200, writeOnly: true }) },
  'PassphraseDraft',
);
export type PassphraseDraft = Static<typeof PassphraseDraft>;

export const SignInDraft = closed(
  { name: name(40), passphrase: secret(), device: name(60) },
  'SignInDraft',
);
export type SignInDraft = Static<typeof SignInDraft>;

/** What a passkey says, by the words of Web Authentication: looked at by whoever reads it, and not here. */
const spoken = () => Type.Object({}, { additionalProperties: true });

/** What a device is to answer to, where it makes a passkey or lets somebody in by one. */
export const PasskeyOptions = Type.Object(
  {},
  { additionalProperties: true, title: 'PasskeyOptions' },
);
export type PasskeyOptions = Static<typeof PasskeyOptions>;

export const PasskeyDraft = closed({ name: name(60), answer: spoken() }, 'PasskeyDraft');
export type PasskeyDraft = Static<typeof PasskeyDraft>;

export const PasskeySignIn = closed({ device: name(60), answer: spoken() }, 'PasskeySignIn');
export type PasskeySignIn = Static<typeof PasskeySignIn>;

/** What lets a person in by a device's own lock. */
export const Passkey = closed(
  {
    id: id(),
    personId: id(),
    name: name(60),
    madeAt: instant(),
    usedAt: Type.Optional(instant()),
  },
  'Passkey',
);
export type Passkey = Static<typeof Passkey>;

/** What a token of a meter or script may do. */
export const SCOPES = ['samples:write', 'entries:read', 'calendar:read'] as const;
export type Scope = (typeof SCOPES)[number];

export const TokenDraft = closed(
  {
    name: name(60),
    /** A meter's own token is made with the meter. */
    scopes: Type.Array(oneOf(['entries:read', 'calendar:read'] as const), {
      minItems: 1,
      uniqueItems: true,
    }),
  },
  'TokenDraft',
);
export type TokenDraft = Static<typeof TokenDraft>;

export const Token = closed(
  {
    ...TokenDraft.properties,
    scopes: Type.Array(oneOf(SCOPES)),
    id: id(),
    /** The meter that it is of: what it sends is of that one alone. */
    meterId: Type.Optional(id()),
    madeAt: instant(),
    usedAt: Type.Optional(instant()),
    revokedAt: Type.Optional(instant()),
    /** The token itself, told once, when it is made. */
    token: Type.Optional(Type.String()),
  },
  'Token',
);
export type Token = Static<typeof Token>;

/** What a link shows, and nothing else. */
export const LINK_KINDS = ['machine', 'case'] as const;
export type LinkKind = (typeof LINK_KINDS)[number];

export const LinkDraft = closed(
  {
    shows: oneOf(LINK_KINDS),
    /** Of the machine or the case. */
    target: id(),
    /** Who it is for: a landlord, a technician. */
    forWhom: name(60),
    /** Who has it may leave notes with a photo; they wait for a keeper's yes. */
    notes: Type.Optional(Type.Boolean()),
  },
  'LinkDraft',
);
export type LinkDraft = Static<typeof LinkDraft>;

export const Link = closed(
  {
    ...LinkDraft.properties,
    id: id(),
    madeAt: instant(),
    until: instant(),
    /** How often it was opened, and when last. */
    opened: Type.Integer({ minimum: 0 }),
    openedAt: Type.Optional(instant()),
    revokedAt: Type.Optional(instant()),
    /** The address, told once, when it is made. */
    address: Type.Optional(Type.String()),
  },
  'Link',
);
export type Link = Static<typeof Link>;

/** What somebody with a link leaves: words, a photo, or both. */
export const SharedNoteDraft = closed(
  {
    /** Given by the page, so that a retry adds nothing. */
    id: id(),
    note: Type.String({ maxLength: 1900 }),
    /** A JPEG without metadata, in base64. */
    photo: Type.Optional(Type.String({ minLength: 1, maxLength: 2_000_000 })),
  },
  'SharedNoteDraft',
);
export type SharedNoteDraft = Static<typeof SharedNoteDraft>;

/**
 * What was sent by a device after it was taken out, or left by somebody with a link, until a keeper says whether it
 * holds.
 */
export const Aside = closed(
  {
    id: id(),
    /** The device that sent it, or the one that the link is for. */
    from: Type.String(),
    /** By a link, and by no device. */
    byLink: Type.Boolean(),
    what: oneOf(['entry', 'undo', 'case'] as const),
    /** As it was sent; nobody has looked whether it is right. */
    body: Type.Unknown(),
    /** There is a photo with it. */
    photo: Type.Boolean(),
    at: instant(),
  },
  'Aside',
);
export type Aside = Static<typeof Aside>;

/** Who asks, as the server knows it. */
export const Me = closed(
  {
    /** By what: at the server's own computer, by a paired device, or not at all. */
    by: oneOf(['here', 'device', 'nobody'] as const),
    role: Type.Optional(oneOf(ROLES)),
    person: Type.Optional(Person),
    device: Type.Optional(Device),
    /** How many persons there are: one alone sees nothing of persons. */
    persons: Type.Integer({ minimum: 0 }),
    /** The device was taken out of the list. */
    revoked: Type.Optional(Type.Boolean()),
    /** The server is open to the house's network; the address there that is to be used. */
    origin: Type.Optional(Type.String()),
    /** It was laid down, here or where the server is installed: devices elsewhere go over to it. */
    settled: Type.Optional(Type.Boolean()),
  },
  'Me',
);
export type Me = Static<typeof Me>;

/** An address that the house's network may know the server by. */
export const HouseAddress = closed(
  {
    host: Type.String(),
    origin: Type.String(),
    /** A name, and no number: not every phone can look up each. */
    named: Type.Boolean(),
    /** The one that all is made for. */
    used: Type.Boolean(),
  },
  'HouseAddress',
);
export type HouseAddress = Static<typeof HouseAddress>;

export const AddressDraft = closed(
  { host: Type.String({ minLength: 1, maxLength: 253 }) },
  'AddressDraft',
);
export type AddressDraft = Static<typeof AddressDraft>;

export const AccessEvent = closed(
  {
    at: instant(),
    what: Type.String(),
    personId: Type.Optional(id()),
    device: Type.Optional(Type.String()),
    more: Type.Optional(Type.String()),
  },
  'AccessEvent',
);
export type AccessEvent = Static<typeof AccessEvent>;

/** How the work of the last three months was shared. */
export const Shared = Type.Array(
  closed({
    personId: id(),
    /** At work, by the catalogue; no stopwatch was held. */
    minutes: Type.Number({ minimum: 0 }),
    tasks: Type.Integer({ minimum: 0 }),
  }),
  { title: 'Shared' },
);
export type Shared = Static<typeof Shared>;

/** What runs on the server, and where its data is. */
export const About = closed(
  {
    version: Type.String(),
    /** Paths on the server's computer. */
    file: Type.Optional(Type.String()),
    backups: Type.Optional(Type.String()),
  },
  'About',
);
export type About = Static<typeof About>;

/** Bodies that are checked, by their names. */
export const ACCESS_DRAFTS = {
  PersonDraft,
  CodeDraft,
  PairDraft,
  PassphraseDraft,
  SignInDraft,
  TokenDraft,
  LinkDraft,
  SharedNoteDraft,
  PasskeyDraft,
  PasskeySignIn,
  AddressDraft,
};
export type AccessDraft = keyof typeof ACCESS_DRAFTS;
