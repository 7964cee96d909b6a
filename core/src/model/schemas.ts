import Type, { type Static, type TProperties } from 'typebox';
import {
  CIRCUMSTANCES,
  ENTRY_KINDS,
  ENTRY_SOURCES,
  FEATURES,
  GRADES,
  HABITS,
  MACHINE_KINDS,
  OUTCOMES,
  PROGRAMMES,
  RUN_STATES,
  SCHOOLS,
  SUPPLY_UNITS,
  UNIT_SYSTEMS,
  type Circumstance,
} from './vocabulary.js';

/*
 * One schema for each thing that crosses a border. From it come the TypeScript type, the Ajv
 * validator (generated into validators.generated.js) and the OpenAPI document.
 */

const closed = <P extends TProperties>(properties: P, title?: string) =>
  Type.Object(properties, { additionalProperties: false, ...(title ? { title } : {}) });
const oneOf = <const T extends readonly string[]>(values: T) =>
  Type.Unsafe<T[number]>({ type: 'string', enum: [...values] });
const text = (most: number, least = 0) =>
  Type.String({ minLength: least, maxLength: most, ...(least > 0 ? { pattern: '\\S' } : {}) });
const id = () => Type.String({ format: 'uuid' });
const instant = () => Type.String({ format: 'date-time' });
const optionalMultiplier = () => Type.Optional(Type.Number({ minimum: 1, maximum: 5 }));
const calendarDate = () => Type.String({ format: 'date' });

export const Feature = closed({
  filterAccess: Type.Optional(oneOf(FEATURES.filterAccess)),
  drainDownHose: Type.Optional(oneOf(FEATURES.drainDownHose)),
  dispenser: Type.Optional(oneOf(FEATURES.dispenser)),
  drainsTo: Type.Optional(oneOf(FEATURES.drainsTo)),
  energy: Type.Optional(oneOf(FEATURES.energy)),
  ventPath: Type.Optional(oneOf(FEATURES.ventPath)),
  riser: Type.Optional(oneOf(FEATURES.riser)),
  elbows: Type.Optional(Type.Integer({ minimum: 0, maximum: 20 })),
  condensateTo: Type.Optional(oneOf(FEATURES.condensateTo)),
  screenWell: Type.Optional(oneOf(FEATURES.screenWell)),
  blowerAccess: Type.Optional(oneOf(FEATURES.blowerAccess)),
  sensor: Type.Optional(oneOf(FEATURES.sensor)),
  stacked: Type.Optional(oneOf(FEATURES.stacked)),
  room: Type.Optional(oneOf(FEATURES.room)),
});
export type Features = Static<typeof Feature>;

/** How often, in the household's own words: a whole number of loads, days or months. */
const OwnInterval = {
  every: Type.Integer({ minimum: 1, maximum: 5000 }),
  unit: oneOf(['loads', 'days', 'months'] as const),
};

/** A task that the household added to a machine, with steps of its own. */
export const OwnTask = closed({
  id: Type.String({ pattern: '^own-[0-9a-z-]{1,36}$', maxLength: 40 }),
  name: text(80, 1),
  station: text(40, 1),
  ...OwnInterval,
  /** Minutes at work. */
  minutes: Type.Integer({ minimum: 1, maximum: 600 }),
  unplugged: Type.Boolean(),
  reason: Type.Optional(text(300)),
  steps: Type.Array(text(400, 1), { minItems: 1, maxItems: 30 }),
});
export type OwnTask = Static<typeof OwnTask>;

/** What a household lays down for one task of one machine, over its school. */
export const TaskRule = closed({
  school: Type.Optional(oneOf(SCHOOLS)),
  /** "My manual says": it takes the school's place, and nothing lengthens past it. */
  own: Type.Optional(
    closed({
      ...OwnInterval,
      /** Where it stands, such as a page. */
      source: Type.Optional(text(120)),
    }),
  ),
  off: Type.Optional(Type.Boolean()),
  /** A safety task is switched off or stretched only by somebody who was asked twice. */
  acknowledged: Type.Optional(Type.Boolean()),
});
export type TaskRule = Static<typeof TaskRule>;

export const MachineDraft = closed(
  {
    name: text(60, 1),
    kind: oneOf(MACHINE_KINDS),
    maker: Type.Optional(text(60)),
    place: text(60, 1),
    features: Feature,
    habits: Type.Array(oneOf(HABITS), { uniqueItems: true, maxItems: HABITS.length }),
    loadsPerWeek: Type.Number({ minimum: 0, maximum: 70 }),
    /** The school of this machine, where it is not the household's. */
    school: Type.Optional(oneOf(SCHOOLS)),
    /** By task. */
    rules: Type.Optional(Type.Record(Type.String(), TaskRule)),
    ownTasks: Type.Optional(Type.Array(OwnTask, { maxItems: 30 })),
    inUseSince: Type.Optional(calendarDate()),
  },
  'MachineDraft',
);
export type MachineDraft = Static<typeof MachineDraft>;

export const HouseholdDraft = closed(
  {
    name: text(80, 1),
    zone: Type.String({ minLength: 1, maxLength: 64, pattern: '^[A-Za-z0-9_+\\-/]+$' }),
    units: oneOf(UNIT_SYSTEMS),
    /** Water hardness, mg/L CaCO3. */
    hardness: Type.Optional(Type.Number({ minimum: 0, maximum: 2000 })),
    school: oneOf(SCHOOLS),
    /** Accepted chance that a station passes its limit before it is cleaned, 0 to 1. */
    risk: Type.Number({ minimum: 0.02, maximum: 0.3 }),
    /** Minutes at work that a proposed visit may take; 60 where nothing is said. */
    visitMinutes: Type.Optional(Type.Integer({ minimum: 10, maximum: 600 })),
    /** Own multipliers on the rate of fouling, in place of the catalogue's. */
    multipliers: Type.Optional(
      closed(
        Object.fromEntries(CIRCUMSTANCES.map((id) => [id, optionalMultiplier()])) as Record<
          Circumstance,
          ReturnType<typeof optionalMultiplier>
        >,
      ),
    ),
    /** ISO 4217 code of the money that prices are in. */
    currency: Type.Optional(Type.String({ pattern: '^[A-Z]{3}$' })),
  },
  'HouseholdDraft',
);
export type HouseholdDraft = Static<typeof HouseholdDraft>;

export const SetupDraft = closed(
  { household: HouseholdDraft, machines: Type.Array(MachineDraft, { minItems: 1, maxItems: 50 }) },
  'SetupDraft',
);
export type SetupDraft = Static<typeof SetupDraft>;

const kept = { id: id(), version: Type.Integer({ minimum: 1 }) };
export const Household = closed({ ...kept, ...HouseholdDraft.properties }, 'Household');
export type Household = Static<typeof Household>;
export const Machine = closed({ ...kept, ...MachineDraft.properties }, 'Machine');
export type Machine = Static<typeof Machine>;

const grade = () => Type.Unsafe<(typeof GRADES)[number]>({ type: 'integer', enum: [...GRADES] });
export const Found = closed({
  what: text(60, 1),
  count: Type.Integer({ minimum: 1, maximum: 999 }),
});

/** Something used up, in the supply's unit. */
export const Used = closed({
  supply: text(40, 1),
  amount: Type.Number({ exclusiveMinimum: 0, maximum: 100000 }),
});
export type Used = Static<typeof Used>;

export const EntryDraft = closed(
  {
    /** Given by the client so that a retry names the same entry; made by the server otherwise. */
    id: Type.Optional(id()),
    machineId: Type.Optional(id()),
    kind: oneOf(ENTRY_KINDS),
    at: instant(),
    author: Type.Optional(text(60)),
    source: Type.Optional(oneOf(ENTRY_SOURCES)),
    station: Type.Optional(text(40, 1)),
    task: Type.Optional(text(40, 1)),
    grade: Type.Optional(grade()),
    /** Loads counted in one go. */
    count: Type.Optional(Type.Integer({ minimum: 1, maximum: 50 })),
    found: Type.Optional(Type.Array(Found, { maxItems: 30 })),
    trays: Type.Optional(Type.Integer({ minimum: 0, maximum: 200 })),
    quantity: Type.Optional(text(40, 1)),
    value: Type.Optional(Type.Number()),
    unit: Type.Optional(text(20, 1)),
    code: Type.Optional(text(40, 1)),
    note: Type.Optional(text(2000)),
    /** What the loads were, where that is not the usual. */
    programme: Type.Optional(oneOf(PROGRAMMES)),
    /** A habit kept, by its id. */
    habit: Type.Optional(text(40, 1)),
    /** The supply counted or bought. */
    supply: Type.Optional(text(40, 1)),
    /** What the work used up; the usual amounts where nothing is said. */
    used: Type.Optional(Type.Array(Used, { maxItems: 30 })),
  },
  'EntryDraft',
);
export type EntryDraft = Static<typeof EntryDraft>;

export const Entry = closed(
  {
    ...EntryDraft.properties,
    id: id(),
    author: text(60),
    source: oneOf(ENTRY_SOURCES),
    zone: Type.String(),
    recordedAt: instant(),
    runId: Type.Optional(id()),
    /** The entry this one corrects, undoes or restores. */
    revises: Type.Optional(id()),
    /** The entry that took this one's place, if any. */
    revisedBy: Type.Optional(id()),
  },
  'Entry',
);
export type Entry = Static<typeof Entry>;

export const RunTask = closed({ machineId: id(), task: text(40, 1) });
export type RunTask = Static<typeof RunTask>;

export const TaskRecord = closed({
  outcome: Type.Optional(oneOf(OUTCOMES)),
  grade: Type.Optional(grade()),
  found: Type.Optional(Type.Array(Found, { maxItems: 30 })),
  trays: Type.Optional(Type.Integer({ minimum: 0, maximum: 200 })),
  note: Type.Optional(text(2000)),
  used: Type.Optional(Type.Array(Used, { maxItems: 30 })),
  /** When the work on this task was finished. */
  doneAt: Type.Optional(instant()),
});
export type TaskRecord = Static<typeof TaskRecord>;

export const StepReading = closed({
  value: Type.Number({ minimum: 0, maximum: 100000 }),
});

export const Timer = closed({
  startedAt: instant(),
  seconds: Type.Integer({ minimum: 1, maximum: 86400 }),
});
export type Timer = Static<typeof Timer>;

export const RunProgress = closed(
  {
    /** The step on screen; absent on the opening page. */
    at: Type.Optional(text(160, 1)),
    /** Steps ticked, each with the instant. */
    ticked: Type.Record(Type.String(), instant()),
    /** What was found and done, by `machineId/task`. */
    tasks: Type.Record(Type.String(), TaskRecord),
    /** Figures measured in proof steps, by step. */
    readings: Type.Record(Type.String(), StepReading),
    timers: Type.Record(Type.String(), Timer),
    /** What has been fetched. */
    fetched: Type.Array(text(80, 1), { maxItems: 100 }),
  },
  'RunProgress',
);
export type RunProgress = Static<typeof RunProgress>;

export const RunDraft = closed(
  { tasks: Type.Array(RunTask, { minItems: 1, maxItems: 100 }) },
  'RunDraft',
);
export type RunDraft = Static<typeof RunDraft>;

export const RunChange = closed(
  {
    state: Type.Optional(oneOf(['active', 'paused', 'abandoned'] as const)),
    progress: Type.Optional(RunProgress),
  },
  'RunChange',
);
export type RunChange = Static<typeof RunChange>;

export const Run = closed(
  {
    ...kept,
    state: oneOf(RUN_STATES),
    tasks: RunDraft.properties.tasks,
    progress: RunProgress,
    startedAt: instant(),
    changedAt: instant(),
    finishedAt: Type.Optional(instant()),
  },
  'Run',
);
export type Run = Static<typeof Run>;

const count = (least: number, most: number, byDefault: number) =>
  Type.Integer({ minimum: least, maximum: most, default: byDefault });

/** A supply that the household keeps: one of the catalogue's, or its own. */
export const SupplyDraft = closed(
  {
    /** The catalogue's id, or `own-…`. */
    item: text(40, 1),
    name: text(60, 1),
    /** What amounts are in: ml, g, or pieces. */
    unit: oneOf(SUPPLY_UNITS),
    /** Content of a pack, in the unit. */
    pack: Type.Number({ exclusiveMinimum: 0, maximum: 100000 }),
    /** Price of a pack, in the household's money. */
    price: Type.Optional(Type.Number({ minimum: 0, maximum: 100000 })),
    /** No longer kept; its history stays. */
    putAway: Type.Optional(Type.Boolean()),
  },
  'SupplyDraft',
);
export type SupplyDraft = Static<typeof SupplyDraft>;
export const Supply = closed({ ...kept, ...SupplyDraft.properties }, 'Supply');
export type Supply = Static<typeof Supply>;

export const EntryQuery = closed(
  {
    machine: Type.Optional(id()),
    station: Type.Optional(text(40, 1)),
    kind: Type.Optional(oneOf(ENTRY_KINDS)),
    /** Also entries that were corrected or undone. */
    all: Type.Optional(Type.Boolean()),
    /** Page on from here: the `next` of the page before. */
    before: Type.Optional(Type.String({ maxLength: 80, pattern: '^-?\\d+~[0-9a-f-]{36}$' })),
    limit: Type.Optional(count(1, 200, 50)),
  },
  'EntryQuery',
);
export type EntryQuery = Static<typeof EntryQuery>;

export const IdParams = closed({ id: id() }, 'IdParams');

export const Problem = Type.Object(
  {
    type: Type.String(),
    title: Type.String(),
    status: Type.Integer(),
    detail: Type.Optional(Type.String()),
    errors: Type.Optional(
      Type.Array(Type.Object({ field: Type.String(), message: Type.String() })),
    ),
    /** On a stale edit: what is stored now. */
    current: Type.Optional(Type.Unknown()),
    /** On a stale edit: what was sent. */
    yours: Type.Optional(Type.Unknown()),
  },
  { title: 'Problem' },
);
export type Problem = Static<typeof Problem>;

/** Schemas that need a validator, by the name the validator goes by. */
export const VALIDATED = {
  SetupDraft,
  HouseholdDraft,
  MachineDraft,
  EntryDraft,
  EntryQuery,
  IdParams,
  RunDraft,
  RunChange,
  SupplyDraft,
} as const;
export type ValidatedName = keyof typeof VALIDATED;
