import Type, { type Static, type TObject, type TProperties } from 'typebox';
import { ENTRY_KINDS } from './entry-kinds.js';
import { DocumentDraft, ManualPage } from './documents.js';
import { MeterDraft, StandInDraft } from './meters.js';
import { VentRunInput } from './vent-runs.js';
import {
  ACTIVES,
  ANSWERS,
  CASE_ENDINGS,
  CASE_EVENTS,
  CIRCUMSTANCES,
  DOSE_UNITS,
  CODE_CLASSES,
  CODE_STRENGTHS,
  ENTRY_SOURCES,
  FEATURES,
  GRADES,
  HABITS,
  MACHINE_KINDS,
  OUTCOMES,
  PROGRAMMES,
  PROOF_RESULTS,
  RETIRED_WHY,
  VISIT_STATES,
  SCHOOLS,
  SIGNAL_FIGURES,
  SUPPLY_UNITS,
  TROUBLE_CIRCUMSTANCES,
  UNIT_SYSTEMS,
  type CaseEventKind,
  type Circumstance,
  WAYS,
  type WayId,
} from './vocabulary.js';
import { instant } from './instants.js';
import {
  AbsenceDraft,
  BusyAddress,
  FeedDraft,
  PlannedChange,
  PlanPrefs,
  PlanQuery,
  SectionQuery,
  PlanTaken,
  PrintQuery,
  SheetQuery,
} from './planned.js';
import { MailRecipientDraft, MailServerDraft } from './mail.js';
import { REGIONS } from '../regions/region.js';

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
const optionalMultiplier = () => Type.Optional(Type.Number({ minimum: 1, maximum: 5 }));
const calendarDate = () => Type.String({ format: 'date' });

const Feature = closed({
  filterAccess: Type.Optional(oneOf(FEATURES.filterAccess)),
  drainDownHose: Type.Optional(oneOf(FEATURES.drainDownHose)),
  dispenser: Type.Optional(oneOf(FEATURES.dispenser)),
  drainsTo: Type.Optional(oneOf(FEATURES.drainsTo)),
  energy: Type.Optional(oneOf(FEATURES.energy)),
  ventPath: Type.Optional(oneOf(FEATURES.ventPath)),
  riser: Type.Optional(oneOf(FEATURES.riser)),
  elbows: Type.Optional(Type.Integer({ minimum: 0, maximum: 20 })),
  /** W, by the type plate. */
  heater: Type.Optional(Type.Integer({ minimum: 500, maximum: 8000 })),
  condensateTo: Type.Optional(oneOf(FEATURES.condensateTo)),
  coil: Type.Optional(oneOf(FEATURES.coil)),
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
  /** What the plan of the year that was taken gives it, in the school's place. */
  planned: Type.Optional(closed(OwnInterval)),
  off: Type.Optional(Type.Boolean()),
  /** Something of what fouls it is different since then: finds from before no longer hold its dates. */
  changed: Type.Optional(closed({ on: calendarDate(), what: text(120, 1) })),
  /** A safety task is switched off or stretched only by somebody who was asked twice. */
  acknowledged: Type.Optional(Type.Boolean()),
});
export type TaskRule = Static<typeof TaskRule>;

const optionalWay = () => Type.Optional(text(500, 1));

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
    /** This machine's own way of something, as its manual has it. */
    ways: Type.Optional(
      closed(
        Object.fromEntries(WAYS.map((id) => [id, optionalWay()])) as Record<
          WayId,
          ReturnType<typeof optionalWay>
        >,
      ),
    ),
    /** Where its manual tells of a task or a step. */
    pages: Type.Optional(Type.Array(ManualPage, { maxItems: 300 })),
    /** What its papers say. */
    identity: Type.Optional(
      closed({
        model: Type.Optional(text(60, 1)),
        serial: Type.Optional(text(60, 1)),
        boughtOn: Type.Optional(calendarDate()),
        warrantyUntil: Type.Optional(calendarDate()),
        /** In the household's money. */
        price: Type.Optional(Type.Number({ minimum: 0, maximum: 1_000_000 })),
        /** Since when its hoses and its gasket are in it. */
        hosesSince: Type.Optional(calendarDate()),
        gasketSince: Type.Optional(calendarDate()),
      }),
    ),
    /** It is no longer in the house: since when, why, and which machine took its place. Its record stays. */
    retired: Type.Optional(
      closed({
        on: calendarDate(),
        why: oneOf(RETIRED_WHY),
        by: Type.Optional(id()),
      }),
    ),
  },
  'MachineDraft',
);
export type MachineDraft = Static<typeof MachineDraft>;

/** A detergent as its label tells it: dose for a normal load by the water's band. */
export const Detergent = closed({
  name: text(60, 1),
  /** What its doses and its pack are in. */
  unit: oneOf(DOSE_UNITS),
  soft: Type.Number({ exclusiveMinimum: 0, maximum: 500 }),
  medium: Type.Number({ exclusiveMinimum: 0, maximum: 500 }),
  hard: Type.Number({ exclusiveMinimum: 0, maximum: 500 }),
  /** kg that the dose is for. */
  labelLoad: Type.Number({ minimum: 1, maximum: 12 }),
  /** g/ml. */
  density: Type.Optional(Type.Number({ minimum: 0.2, maximum: 2 })),
  /** What acts in it besides soap, as far as it matters for what must not meet. */
  actives: Type.Optional(
    Type.Array(oneOf(ACTIVES), { maxItems: ACTIVES.length, uniqueItems: true }),
  ),
  pack: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 100000 })),
  price: Type.Optional(Type.Number({ minimum: 0, maximum: 100000 })),
});
export type Detergent = Static<typeof Detergent>;

/** A telephone number as people write it. */
const phone = () =>
  Type.String({ minLength: 2, maxLength: 30, pattern: '^[0-9+() /.-]*[0-9][0-9+() /.-]*$' });

export const HouseholdDraft = closed(
  {
    name: text(80, 1),
    zone: Type.String({ minLength: 1, maxLength: 64, pattern: '^[A-Za-z0-9_+\\-/]+$' }),
    units: oneOf(UNIT_SYSTEMS),
    /** Follows from the units where nothing is said. */
    region: Type.Optional(oneOf(REGIONS)),
    /** Water hardness, mg/L CaCO3. */
    hardness: Type.Optional(Type.Number({ minimum: 0, maximum: 2000 })),
    school: oneOf(SCHOOLS),
    /** Accepted chance that a station passes its limit before it is cleaned, 0 to 1. */
    risk: Type.Number({ minimum: 0.02, maximum: 0.3 }),
    /** How many times wider ranges are than they would be elsewhere, as the record showed; 1 where nothing is said. */
    widened: Type.Optional(Type.Number({ minimum: 1, maximum: 4 })),
    /** Minutes at work that a proposed visit may take; 60 where nothing is said. */
    visitMinutes: Type.Optional(Type.Integer({ minimum: 10, maximum: 600 })),
    /** How the year ahead is planned. */
    plan: Type.Optional(PlanPrefs),
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
    /** Price of a kWh, in that money. */
    energyPrice: Type.Optional(Type.Number({ minimum: 0, maximum: 10 })),
    /** Where what shuts things off is to be found in the house. */
    places: Type.Optional(
      closed({
        stopValve: Type.Optional(text(200, 1)),
        breaker: Type.Optional(text(200, 1)),
        gasValve: Type.Optional(text(200, 1)),
      }),
    ),
    /** Whom to call, as dialled; told where something is wrong. */
    numbers: Type.Optional(
      closed({
        emergency: Type.Optional(phone()),
        gas: Type.Optional(phone()),
        poison: Type.Optional(phone()),
      }),
    ),
    /** The detergents in the house, by their labels. */
    detergents: Type.Optional(Type.Array(Detergent, { maxItems: 12 })),
  },
  'HouseholdDraft',
);
export type HouseholdDraft = Static<typeof HouseholdDraft>;

export const SetupDraft = closed(
  {
    household: HouseholdDraft,
    machines: Type.Array(MachineDraft, { minItems: 1, maxItems: 50 }),
    /** When work was done last, as far as somebody remembers: by the machine’s place in the list. */
    lastDone: Type.Optional(
      Type.Array(
        closed({
          machine: Type.Integer({ minimum: 0, maximum: 49 }),
          task: text(40, 1),
          when: oneOf(['month', 'year', 'longer'] as const),
        }),
        { maxItems: 400 },
      ),
    ),
  },
  'SetupDraft',
);
export type SetupDraft = Static<typeof SetupDraft>;

const kept = { id: id(), version: Type.Integer({ minimum: 1 }) };
export const Household = closed({ ...kept, ...HouseholdDraft.properties }, 'Household');
export type Household = Static<typeof Household>;
export const Machine = closed({ ...kept, ...MachineDraft.properties }, 'Machine');
export type Machine = Static<typeof Machine>;

/** Photos by their ids. */
const photos = () => Type.Optional(Type.Array(id(), { maxItems: 6, uniqueItems: true }));

const grade = () => Type.Unsafe<(typeof GRADES)[number]>({ type: 'integer', enum: [...GRADES] });
export const Found = closed({
  what: text(60, 1),
  count: Type.Integer({ minimum: 1, maximum: 999 }),
});

/** Money, and whose. */
export const Money = closed({
  amount: Type.Number({ minimum: 0, maximum: 1_000_000 }),
  /** ISO 4217 code. */
  currency: Type.String({ pattern: '^[A-Z]{3}$' }),
});
export type Money = Static<typeof Money>;

/** Something used up, in the supply's unit. */
export const Used = closed({
  supply: text(40, 1),
  amount: Type.Number({ exclusiveMinimum: 0, maximum: 100000 }),
});
export type Used = Static<typeof Used>;

/** A load as a meter told it. Minutes are those with the heater on, with the motor alone, with neither, and unread. */
export const LoadCycle = closed({
  /** When its programme was over. */
  to: instant(),
  wattHours: Type.Number({ minimum: 0, maximum: 100_000 }),
  /** The most of a bin, W. */
  peak: Type.Number({ minimum: 0, maximum: 25_000 }),
  heating: Type.Number({ minimum: 0, maximum: 1440 }),
  motor: Type.Number({ minimum: 0, maximum: 1440 }),
  idle: Type.Number({ minimum: 0, maximum: 1440 }),
  unread: Type.Number({ minimum: 0, maximum: 1440 }),
  /** Of a dryer: share of the time that its heater was on while the load was wet, and its W. */
  duty: Type.Optional(Type.Number({ minimum: 0, maximum: 1 })),
  heater: Type.Optional(Type.Number({ minimum: 0, maximum: 25_000 })),
  /** Of a wash, as far as its meter shows it: see `WashFigures`. Minutes; minutes for each kWh; how often. */
  wash: Type.Optional(
    closed({
      toHeat: Type.Optional(Type.Number({ minimum: 0, maximum: 1440 })),
      perKwh: Type.Optional(Type.Number({ minimum: 0, maximum: 1000 })),
      spins: Type.Optional(Type.Integer({ minimum: 0, maximum: 1000 })),
      pumped: Type.Optional(Type.Number({ minimum: 0, maximum: 1440 })),
    }),
  ),
  /** Somebody tapped it, too. */
  tapped: Type.Optional(Type.Literal(true)),
  /** What somebody calls its programme. */
  name: Type.Optional(text(40, 1)),
  /** Said by hand: it was one load over a pause of so many minutes; it began after one of so many, as another load. */
  joined: Type.Optional(Type.Number({ minimum: 0, maximum: 90 })),
  parted: Type.Optional(Type.Number({ minimum: 0, maximum: 1440 })),
});
export type LoadCycle = Static<typeof LoadCycle>;

export const EntryDraft = closed(
  {
    /** Given by the client so that a retry names the same entry; made by the server otherwise. */
    id: Type.Optional(id()),
    machineId: Type.Optional(id()),
    kind: oneOf(ENTRY_KINDS),
    at: instant(),
    /** What the clock of the device said, where that is off. */
    deviceAt: Type.Optional(instant()),
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
    /** Nothing in a laundry is more. */
    value: Type.Optional(Type.Number({ minimum: -1e9, maximum: 1e9 })),
    unit: Type.Optional(text(20, 1)),
    code: Type.Optional(text(40, 1)),
    note: Type.Optional(text(2000)),
    photos: photos(),
    /** What the loads were, where that is not the usual. */
    programme: Type.Optional(oneOf(PROGRAMMES)),
    /** What a meter told of the load. */
    cycle: Type.Optional(LoadCycle),
    /** A habit kept, by its id. */
    habit: Type.Optional(text(40, 1)),
    /** The supply counted or bought. */
    supply: Type.Optional(text(40, 1)),
    /** What the work used up; the usual amounts where nothing is said. */
    used: Type.Optional(Type.Array(Used, { maxItems: 30 })),
    /** A cleaning product put into the machine: which, and what acts in it. */
    product: Type.Optional(text(60, 1)),
    /** The step of a task's procedure that proves it, and what was said of it. */
    step: Type.Optional(text(60, 1)),
    result: Type.Optional(oneOf(PROOF_RESULTS)),
    /** The part that was replaced, by its id in the list of parts. */
    part: Type.Optional(text(40, 1)),
    /** What it cost, the work with it. */
    cost: Type.Optional(Money),
    /** The phone that measured, as its owner calls it, and where it lay: another phone is another instrument. */
    device: Type.Optional(text(60, 1)),
    placement: Type.Optional(text(60, 1)),
    /** The case of trouble that it belongs to. */
    caseId: Type.Optional(id()),
    actives: Type.Optional(
      Type.Array(oneOf(ACTIVES), { uniqueItems: true, maxItems: ACTIVES.length }),
    ),
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

export const VisitTask = closed({ machineId: id(), task: text(40, 1) });
export type VisitTask = Static<typeof VisitTask>;

export const TaskRecord = closed({
  outcome: Type.Optional(oneOf(OUTCOMES)),
  grade: Type.Optional(grade()),
  found: Type.Optional(Type.Array(Found, { maxItems: 30 })),
  trays: Type.Optional(Type.Integer({ minimum: 0, maximum: 200 })),
  note: Type.Optional(text(2000)),
  photos: photos(),
  used: Type.Optional(Type.Array(Used, { maxItems: 30 })),
  /** When the work on this task was finished. */
  doneAt: Type.Optional(instant()),
});
export type TaskRecord = Static<typeof TaskRecord>;

const StepReading = closed({
  value: Type.Number({ minimum: 0, maximum: 100000 }),
});

export const Timer = closed({
  startedAt: instant(),
  seconds: Type.Integer({ minimum: 1, maximum: 86400 }),
});
export type Timer = Static<typeof Timer>;

/** What was put into a machine at a step; without an entry where it was nothing. */
export const Brought = closed({
  product: text(60, 1),
  at: instant(),
  entryId: Type.Optional(id()),
});
export type Brought = Static<typeof Brought>;

export const Rinsed = closed({ entryId: id(), at: instant() });
export type Rinsed = Static<typeof Rinsed>;

export const VisitProgress = closed(
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
    /** Cleaning products used, by step. */
    brought: Type.Optional(Type.Record(Type.String(), Brought)),
    /** Rinses that have run, by the step at which they were told. */
    rinsed: Type.Optional(Type.Record(Type.String(), Rinsed)),
    /** What was said of proofs, by step. */
    proofs: Type.Optional(Type.Record(Type.String(), oneOf(PROOF_RESULTS))),
  },
  'VisitProgress',
);
export type VisitProgress = Static<typeof VisitProgress>;

export const VisitDraft = closed(
  {
    tasks: Type.Array(VisitTask, { minItems: 1, maxItems: 100 }),
    onlyIfNew: Type.Optional(
      Type.Boolean({
        description:
          'Refused (409, with it as `current`) where an open visit has one of the tasks.',
      }),
    ),
  },
  'VisitDraft',
);
export type VisitDraft = Static<typeof VisitDraft>;

export const VisitChange = closed(
  {
    state: Type.Optional(oneOf(['active', 'paused', 'abandoned'] as const)),
    progress: Type.Optional(VisitProgress),
  },
  'VisitChange',
);
export type VisitChange = Static<typeof VisitChange>;

export const Visit = closed(
  {
    ...kept,
    state: oneOf(VISIT_STATES),
    tasks: VisitDraft.properties.tasks,
    progress: VisitProgress,
    startedAt: instant(),
    changedAt: instant(),
    finishedAt: Type.Optional(instant()),
  },
  'Visit',
);
export type Visit = Static<typeof Visit>;

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

/** A photo as it was stored; its picture is at the same address. */
export const Photo = closed(
  { id: id(), width: Type.Integer(), height: Type.Integer(), bytes: Type.Integer() },
  'Photo',
);
export type Photo = Static<typeof Photo>;

/** Lamps that stand for a code: which ones, and how often they flash before a pause. */
export const LampPattern = closed({
  lamps: Type.Array(text(40, 1), { minItems: 1, maxItems: 8, uniqueItems: true }),
  /** 0: they are simply on. */
  flashes: Type.Integer({ minimum: 0, maximum: 30 }),
});
export type LampPattern = Static<typeof LampPattern>;

/** One display code, as a manual has it. */
export const CodeRow = closed({
  /** What the display shows; absent where it is lamps. */
  code: Type.Optional(text(12, 1)),
  pattern: Type.Optional(LampPattern),
  /** The manual's words, in short. */
  says: text(160, 1),
  class: oneOf(CODE_CLASSES),
  /** Stations it points at. */
  stations: Type.Optional(Type.Array(text(40, 1), { maxItems: 8, uniqueItems: true })),
  /** What clears it. */
  clears: Type.Optional(text(200)),
  strength: Type.Optional(oneOf(CODE_STRENGTHS)),
});
export type CodeRow = Static<typeof CodeRow>;

/** The display codes of one maker and family. */
export const CodeSheetDraft = closed(
  {
    format: Type.Literal('needlecase-code-sheet-1'),
    maker: text(60, 1),
    family: text(80, 1),
    kinds: Type.Array(oneOf(MACHINE_KINDS), {
      minItems: 1,
      maxItems: MACHINE_KINDS.length,
      uniqueItems: true,
    }),
    /** Lamps of the panel, in order, where codes are shown by them. */
    lamps: Type.Optional(Type.Array(text(40, 1), { maxItems: 12, uniqueItems: true })),
    rows: Type.Array(CodeRow, { maxItems: 300 }),
  },
  'CodeSheetDraft',
);
export type CodeSheetDraft = Static<typeof CodeSheetDraft>;
export const CodeSheet = closed({ ...kept, ...CodeSheetDraft.properties }, 'CodeSheet');
export type CodeSheet = Static<typeof CodeSheet>;

/** A code that was seen on a machine, with what is known of it. */
export const CodeSeen = closed({
  /** As it was typed, or the lamps in words; absent where only what it is about was said. */
  code: Type.Optional(text(120, 1)),
  /** The sheet's words. */
  says: Type.Optional(text(160, 1)),
  class: oneOf(CODE_CLASSES),
  stations: Type.Optional(Type.Array(text(40, 1), { maxItems: 8, uniqueItems: true })),
  strength: Type.Optional(oneOf(CODE_STRENGTHS)),
  /** On a sheet; a class picked by a person is weaker evidence. */
  listed: Type.Boolean(),
});
export type CodeSeen = Static<typeof CodeSeen>;

const finding = () => text(60, 1);
const cause = () => text(60, 1);

/** What each kind of event in a case tells, beside its id and when it happened. */
const CASE_EVENT_FIELDS = {
  /** A symptom told, or a check done. */
  answer: { finding: finding(), answer: oneOf(ANSWERS) },
  'take-back': { finding: finding() },
  /** A stop rule that holds. */
  stop: { stop: text(40, 1) },
  /** None of the stop rules `asked` holds; of all of them where none is named. */
  'no-stop': { asked: Type.Optional(Type.Array(text(40, 1), { maxItems: 40 })) },
  code: { code: CodeSeen },
  /** `of`: the event that is taken back. */
  'code-back': { of: id() },
  looked: { cause: cause() },
  'looked-back': {},
  fix: { cause: cause(), task: Type.Optional(text(60, 1)), runId: Type.Optional(id()) },
  'fix-back': {},
  measure: { quantity: text(40, 1), value: Type.Number(), unit: text(20, 1) },
  /** Whether a symptom is gone. */
  gone: { finding: finding(), gone: Type.Boolean() },
  'not-held': {},
  /** `until`: when it is to be looked at again. */
  rest: { until: Type.Optional(calendarDate()) },
  wake: {},
  close: {
    ending: oneOf(CASE_ENDINGS),
    /** Days within which the same symptom opens the case again. */
    returnDays: Type.Optional(Type.Integer({ minimum: 0, maximum: 365 })),
  },
  reopen: {},
  note: { note: text(2000) },
} satisfies Record<CaseEventKind, TProperties>;

const caseEventOf = <K extends CaseEventKind>(kind: K) =>
  closed({
    /** Given by the client, so that a retry adds nothing. */
    id: id(),
    at: instant(),
    kind: Type.Literal(kind),
    ...CASE_EVENT_FIELDS[kind],
  });

/** One thing that happened in a case. They are only ever added to; what holds now follows from them. */
export const CaseEvent = Type.Unsafe<
  {
    [K in CaseEventKind]: { id: string; at: string; kind: K } & Static<
      TObject<(typeof CASE_EVENT_FIELDS)[K]>
    >;
  }[CaseEventKind]
>({
  type: 'object',
  title: 'CaseEvent',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: CASE_EVENTS.map((kind) => caseEventOf(kind)),
});
export type CaseEvent = Static<typeof CaseEvent>;

/** What happened in a case, before it has an id and a time. */
export type Happening = WithoutStamp<CaseEvent>;
type WithoutStamp<E> = E extends CaseEvent ? Omit<E, 'id' | 'at'> : never;

/** A case opened, or what happened in one since. */
export const CaseNews = closed(
  {
    id: id(),
    machineId: id(),
    events: Type.Array(CaseEvent, { minItems: 1, maxItems: 200 }),
  },
  'CaseNews',
);
export type CaseNews = Static<typeof CaseNews>;

/** One trouble of one machine, from the first symptom to its proof, with everything that happened. */
export const CaseRecord = closed(
  { id: id(), machineId: id(), events: Type.Array(CaseEvent) },
  'CaseRecord',
);
export type CaseRecord = Static<typeof CaseRecord>;

/** A vent run that was laid out and kept, to be compared with others. */
export const VentRunDraft = closed(
  {
    name: text(80, 1),
    machineId: Type.Optional(id()),
    run: VentRunInput,
  },
  'VentRunDraft',
);
export type VentRunDraft = Static<typeof VentRunDraft>;
export const KeptVentRun = closed({ ...kept, ...VentRunDraft.properties }, 'KeptVentRun');
export type KeptVentRun = Static<typeof KeptVentRun>;

/** A machine in trouble: one of the household's, or any of a kind. */
export const TroubleQuestion = closed(
  {
    /** One of the household's machines; its records are taken in. */
    machineId: Type.Optional(id()),
    kind: Type.Optional(oneOf(MACHINE_KINDS)),
    features: Type.Optional(Feature),
    /** Fouling expected now by care task; 1 is where trouble begins. */
    fouling: Type.Optional(Type.Record(Type.String(), Type.Number({ minimum: 0, maximum: 10 }))),
    circumstances: Type.Optional(
      Type.Array(oneOf(TROUBLE_CIRCUMSTANCES), { uniqueItems: true, maxItems: 20 }),
    ),
    /** By symptom or check. */
    answers: Type.Record(Type.String(), oneOf(ANSWERS)),
    /** Stop rules that hold. */
    stops: Type.Optional(Type.Array(text(40, 1), { maxItems: 20 })),
    /** A code as the display shows it, looked up on the sheets of the machine's maker. */
    code: Type.Optional(text(40, 1)),
    /** Codes whose meaning is known. */
    codes: Type.Optional(Type.Array(CodeSeen, { maxItems: 10 })),
  },
  'TroubleQuestion',
);
export type TroubleQuestion = Static<typeof TroubleQuestion>;

export const EntryQuery = closed(
  {
    machine: Type.Optional(id()),
    station: Type.Optional(text(40, 1)),
    kind: Type.Optional(oneOf(ENTRY_KINDS)),
    /** Each of these words is in its note, its finds, its code or its product. */
    words: Type.Optional(
      Type.String({
        maxLength: 100,
        pattern: '^[^\\u0000-\\u001f]*[^\\s\\u0000-\\u001f][^\\u0000-\\u001f]*$',
      }),
    ),
    /** Only entries with photos. */
    photos: Type.Optional(Type.Literal(true)),
    /** Also entries that were corrected or undone. */
    all: Type.Optional(Type.Boolean()),
    /** Page on from here: the `next` of the page before. */
    before: Type.Optional(Type.String({ maxLength: 80, pattern: '^-?\\d+~[0-9a-f-]{36}$' })),
    limit: Type.Optional(count(1, 200, 50)),
  },
  'EntryQuery',
);
export type EntryQuery = Static<typeof EntryQuery>;

/** What of the record is taken along: days by the clock of the house, both included. */
export const RecordQuery = closed(
  {
    machine: Type.Optional(id()),
    kind: Type.Optional(oneOf(ENTRY_KINDS)),
    from: Type.Optional(calendarDate()),
    to: Type.Optional(calendarDate()),
    /** Also entries that were corrected or undone. */
    all: Type.Optional(Type.Boolean()),
    /** Whether pictures are in it. */
    pictures: Type.Optional(Type.Boolean()),
  },
  'RecordQuery',
);
export type RecordQuery = Static<typeof RecordQuery>;

/** In which units the sentences of an answer are to be read; metric where nothing is said. */
export const ReadIn = closed({ units: Type.Optional(oneOf(UNIT_SYSTEMS)) }, 'ReadIn');
export type ReadIn = Static<typeof ReadIn>;

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

/** What comes in with a body, by the name its validator goes by: checked by the page and the server. */
/** A day of a meter: whole watts of each minute of a day of UTC, 16 bits each, the lower first, packed and in base64. */
export const MeterDay = closed({
  day: calendarDate(),
  minutes: Type.String({ minLength: 4, maxLength: 8000, pattern: '^[A-Za-z0-9+/]+={0,2}$' }),
});
export type MeterDay = Static<typeof MeterDay>;

/** What was found in a meter's log: its loads, and its days. */
export const MeterImport = closed(
  {
    loads: Type.Array(closed({ from: instant(), ...LoadCycle.properties }), { maxItems: 5000 }),
    days: Type.Array(MeterDay, { maxItems: 1500 }),
  },
  'MeterImport',
);
export type MeterImport = Static<typeof MeterImport>;

/** What became of it. */
export const MeterKept = closed(
  {
    /** Loads that nobody had tapped, those that somebody had, and those that were known from the meter before. */
    added: Type.Integer(),
    matched: Type.Integer(),
    known: Type.Integer(),
    days: Type.Integer(),
    /** The loads that came in, to be taken back together. */
    ids: Type.Array(id()),
  },
  'MeterKept',
);
export type MeterKept = Static<typeof MeterKept>;

/** Loads that came in from a meter together, to be taken back: what was tapped stands as it did. */
export const MeterUndo = closed(
  { ids: Type.Array(id(), { minItems: 1, maxItems: 5000 }) },
  'MeterUndo',
);
export type MeterUndo = Static<typeof MeterUndo>;

/** Notes from before, as somebody looked at them: how each was written, and what it is as an entry. */
export const OldNotes = closed(
  {
    notes: Type.Array(closed({ written: text(2000, 1), entry: EntryDraft }), {
      minItems: 1,
      maxItems: 5000,
    }),
  },
  'OldNotes',
);
export type OldNotes = Static<typeof OldNotes>;

/** What became of them. */
export const NotesKept = closed(
  {
    added: Type.Integer(),
    /** Notes that were taken in before. */
    known: Type.Integer(),
    /** The entries that came in, to be taken back together. */
    ids: Type.Array(id()),
  },
  'NotesKept',
);
export type NotesKept = Static<typeof NotesKept>;

/** Notes that came in together, to be taken back. */
export const NotesUndo = closed(
  { ids: Type.Array(id(), { minItems: 1, maxItems: 5000 }) },
  'NotesUndo',
);
export type NotesUndo = Static<typeof NotesUndo>;

/** Two loads that were one. */
export const MeterJoin = closed(
  { ids: Type.Array(id(), { minItems: 2, maxItems: 2, uniqueItems: true }) },
  'MeterJoin',
);
export type MeterJoin = Static<typeof MeterJoin>;
/** A load that was two. */
export const MeterPart = closed({ id: id() }, 'MeterPart');
export type MeterPart = Static<typeof MeterPart>;
/** What a load's programme is called; nothing takes its name away. */
export const MeterName = closed({ id: id(), name: text(40) }, 'MeterName');
export type MeterName = Static<typeof MeterName>;

export const MeterQuery = closed({ day: Type.Optional(calendarDate()) }, 'MeterQuery');
export type MeterQuery = Static<typeof MeterQuery>;

/** A machine's meter: the days that were read, and one of them. */
export const MeterView = closed(
  {
    /** The first and the last day, by the clock of the house; none where nothing was read. */
    first: Type.Optional(calendarDate()),
    last: Type.Optional(calendarDate()),
    /** The day that is shown, UTC instant of its first minute, and its watts; null where nothing was read. */
    day: Type.Optional(calendarDate()),
    from: Type.Optional(instant()),
    watts: Type.Array(Type.Union([Type.Integer(), Type.Null()])),
    /** Loads that began on that day, by whatever told them. */
    loads: Type.Array(Entry),
    /** Of the thirty days to its end: kWh of the loads that a meter told, and how many. */
    month: closed({ loads: Type.Integer(), kWh: Type.Number() }),
    /** What the programmes of the day’s loads are called, by their entries: as somebody said, or as what is like them. */
    names: Type.Record(Type.String(), Type.String()),
    /** Its longest pause within a load, minutes, as it was learned. */
    pause: Type.Number(),
    /** Loads that are missing until it can be told whether its figures change. */
    short: Type.Integer(),
    /** Loads that are like each other, of the last hundred days, those of the most first. */
    programmes: Type.Array(
      closed({
        name: Type.Optional(Type.String()),
        minutes: Type.Integer(),
        wattHours: Type.Integer(),
        loads: Type.Integer(),
        /** The last one of them: what it is called, they are. */
        last: id(),
      }),
    ),
    /** What its figures told within a year, in the order of time; without an end while it holds. Per cent. */
    signals: Type.Array(
      closed({
        figure: oneOf(SIGNAL_FIGURES),
        seen: id(),
        day: calendarDate(),
        until: Type.Optional(calendarDate()),
        change: Type.Optional(
          closed({ percent: Type.Integer(), low: Type.Integer(), high: Type.Integer() }),
        ),
      }),
    ),
  },
  'MeterView',
);
export type MeterView = Static<typeof MeterView>;

export const DRAFTS = {
  DocumentDraft,
  MeterDraft,
  StandInDraft,
  MeterImport,
  MeterUndo,
  OldNotes,
  NotesUndo,
  MeterJoin,
  MeterPart,
  MeterName,
  SetupDraft,
  HouseholdDraft,
  MachineDraft,
  EntryDraft,
  VisitDraft,
  VisitChange,
  SupplyDraft,
  TroubleQuestion,
  CodeSheetDraft,
  CaseNews,
  VentRunDraft,
  AbsenceDraft,
  BusyAddress,
  FeedDraft,
  MailRecipientDraft,
  MailServerDraft,
  PlannedChange,
  PlanTaken,
} as const;
export type DraftName = keyof typeof DRAFTS;

/** What comes in with an address. It is text there: figures and truth values are read out of it. */
export const QUERIES = {
  DocumentDraft,
  EntryQuery,
  RecordQuery,
  MeterQuery,
  ReadIn,
  IdParams,
  PlanQuery,
  SectionQuery,
  PrintQuery,
  SheetQuery,
} as const;
export type QueryName = keyof typeof QUERIES;
