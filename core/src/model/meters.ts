import Type, { type Static, type TProperties } from 'typebox';
import { instant } from './instants.js';
import { STAND_INS } from './stand-ins.js';

/* Meters that tell what a machine draws as it goes on: by requests with a token of their own, or through a broker. */

const closed = <P extends TProperties>(properties: P, title?: string) =>
  Type.Object(properties, { additionalProperties: false, ...(title ? { title } : {}) });
const id = () => Type.String({ format: 'uuid' });

/** How a message is read: the broker, its topic, and where in a message the figure and its instant are. */
const broker = {
  /** Such as `mqtt://broker.example:1883`. */
  broker: Type.String({
    minLength: 8,
    maxLength: 300,
    pattern: '^(mqtts?|wss?)://[^\\s/@]+(/\\S*)?$',
  }),
  /** Of this meter alone: no wildcards. */
  topic: Type.String({ minLength: 1, maxLength: 250, pattern: '^[^#+\\u0000]+$' }),
  /** JSON pointer (RFC 6901) to the figure; a message is the figure itself where there is none. */
  figure: Type.Optional(Type.String({ maxLength: 200, pattern: '^(/[^/]*)+$' })),
  /** JSON pointer to the instant; when a message came in where there is none. */
  instant: Type.Optional(Type.String({ maxLength: 200, pattern: '^(/[^/]*)+$' })),
  unit: Type.Unsafe<'W' | 'kW' | 'Wh' | 'kWh'>({ type: 'string', enum: ['W', 'kW', 'Wh', 'kWh'] }),
  user: Type.Optional(Type.String({ minLength: 1, maxLength: 200 })),
};

const meter = {
  name: Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' }),
  machineId: id(),
  /** The dryer at the same socket; never on at once with the washer. */
  dryerId: Type.Optional(id()),
};

export const MeterDraft = closed(
  {
    ...meter,
    /** Given by the client so that a retry names the same meter; made by the server otherwise. */
    id: Type.Optional(id()),
    /** Through a broker; by requests with a token where there is none. */
    mqtt: Type.Optional(
      closed({
        ...broker,
        /** The one before stays where none is given. */
        password: Type.Optional(Type.String({ minLength: 1, maxLength: 500, writeOnly: true })),
      }),
    ),
  },
  'MeterDraft',
);
export type MeterDraft = Static<typeof MeterDraft>;

/** How it goes with a broker. */
export const MQTT_STATES = ['calls', 'listens', 'refused', 'away'] as const;

export const Meter = closed(
  {
    ...meter,
    id: id(),
    version: Type.Integer({ minimum: 1 }),
    mqtt: Type.Optional(closed({ ...broker, password: Type.Boolean() })),
    /** What it told last. */
    newest: Type.Optional(
      closed({
        at: instant(),
        watts: Type.Optional(Type.Number()),
        wattHours: Type.Optional(Type.Number()),
      }),
    ),
    /** When something came from it last, whatever it was of. */
    heard: Type.Optional(instant()),
    /** Whole watts of each of the last sixty minutes to what it told last; null where nothing was told. */
    lately: Type.Array(Type.Union([Type.Integer(), Type.Null()])),
    /** The load that runs now: when it began, and its energy so far. */
    running: Type.Optional(closed({ from: instant(), wattHours: Type.Number() })),
    /** How it goes with its broker, since when, and what the broker says. */
    broker: Type.Optional(
      closed({
        state: Type.Unsafe<(typeof MQTT_STATES)[number]>({
          type: 'string',
          enum: [...MQTT_STATES],
        }),
        since: instant(),
        says: Type.Optional(Type.String()),
      }),
    ),
    /** The token that its requests carry, told once, when it is made. */
    token: Type.Optional(Type.String()),
  },
  'Meter',
);
export type Meter = Static<typeof Meter>;

/** Every meter, and whether a plug is at hand that stands in for a real one. */
export const MetersView = closed(
  { meters: Type.Array(Meter), standIn: Type.Boolean() },
  'MetersView',
);
export type MetersView = Static<typeof MetersView>;

/** What became of samples. */
export const SamplesKept = closed(
  { kept: Type.Integer({ minimum: 0 }), known: Type.Integer({ minimum: 0 }) },
  'SamplesKept',
);
export type SamplesKept = Static<typeof SamplesKept>;

/** What a plug that stands in is to run, and how many times faster than the clock. */
export const StandInDraft = closed(
  {
    programme: Type.Unsafe<(typeof STAND_INS)[number]>({ type: 'string', enum: [...STAND_INS] }),
    speed: Type.Integer({ minimum: 1, maximum: 600 }),
  },
  'StandInDraft',
);
export type StandInDraft = Static<typeof StandInDraft>;
