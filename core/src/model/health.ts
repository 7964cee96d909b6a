import Type, { type Static } from 'typebox';
import { instant } from './instants.js';

/* How the server itself is: what an owner should know of before it costs anything. */

/** What can be wrong with the house's own computer, its file or what it talks to. */
export const HOUSE_TROUBLES = {
  // Every screen is told of it by itself.
  'data-file': { bench: false, leads: '/house/backup' },
  disk: { bench: true, leads: '/house/backup' },
  backup: { bench: true, leads: '/house/backup' },
  'backup-ahead': { bench: false, leads: '/house/backup' },
  clock: { bench: true, leads: '/house/about' },
  thread: { bench: false, leads: '/house/about' },
  certificate: { bench: true, leads: '/house/phones' },
  broker: { bench: false, leads: '/measure' },
  calendar: { bench: false, leads: '/plan' },
} as const;
export type HouseTroubleName = keyof typeof HOUSE_TROUBLES;

const closed = <P extends Parameters<typeof Type.Object>[0]>(properties: P, title: string) =>
  Type.Object(properties, { additionalProperties: false, title });

export const HouseTrouble = closed(
  {
    what: Type.Unsafe<HouseTroubleName>({ type: 'string', enum: Object.keys(HOUSE_TROUBLES) }),
    /** In a sentence. */
    title: Type.String(),
    /** What was kept, and what to do. */
    detail: Type.String(),
    since: instant(),
    /** It is shown on the Bench, too. */
    bench: Type.Boolean(),
    /** The page where something can be done about it. */
    leads: Type.String(),
  },
  'HouseTrouble',
);
export type HouseTrouble = Static<typeof HouseTrouble>;

export const Health = closed(
  {
    at: instant(),
    /** Nothing is wrong that an owner should know of. */
    ok: Type.Boolean(),
    /** For owners alone. */
    troubles: Type.Optional(Type.Array(HouseTrouble)),
  },
  'Health',
);
export type Health = Static<typeof Health>;
