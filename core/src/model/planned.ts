import Type, { type Static, type TProperties } from 'typebox';
import { instant } from './instants.js';

/* What is laid down of the year ahead: when nobody is there, and which visits are on which day. */

const closed = <P extends TProperties>(properties: P, title?: string) =>
  Type.Object(properties, { additionalProperties: false, ...(title ? { title } : {}) });
const text = (most: number, least = 1) =>
  Type.String({ minLength: least, maxLength: most, ...(least > 0 ? { pattern: '\\S' } : {}) });
const id = () => Type.String({ format: 'uuid' });
const calendarDate = () => Type.String({ format: 'date' });
const kept = { id: id(), version: Type.Integer({ minimum: 1 }) };
const weekdays = () =>
  Type.Array(Type.Integer({ minimum: 1, maximum: 7 }), {
    minItems: 1,
    maxItems: 7,
    uniqueItems: true,
  });
const TaskOfMachine = closed({ machineId: id(), task: text(40) });

/** How a household wants its year planned. */
export const PlanPrefs = closed({
  /** On which somebody can work, the dearest first: 1 Monday to 7 Sunday. */
  weekdays: Type.Optional(weekdays()),
  /** Minutes that each visit takes besides: fetching, going there, washing hands. */
  way: Type.Optional(Type.Integer({ minimum: 0, maximum: 120 })),
  /** When visits begin, `HH:MM`. */
  at: Type.Optional(Type.String({ pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' })),
  /** Somebody said whether the rhythms hold, or a plan of so many hours. */
  asked: Type.Optional(Type.Boolean()),
  /** Who does visits, and on which days they can. */
  people: Type.Optional(
    Type.Array(closed({ name: text(60), weekdays: Type.Optional(weekdays()) }), { maxItems: 12 }),
  ),
});
export type PlanPrefs = Static<typeof PlanPrefs>;

/** Days on which nobody is at home, both counted. */
export const AbsenceDraft = closed(
  { from: calendarDate(), to: calendarDate(), note: Type.Optional(text(80)) },
  'AbsenceDraft',
);
export type AbsenceDraft = Static<typeof AbsenceDraft>;
export const Absence = closed({ ...kept, ...AbsenceDraft.properties }, 'Absence');
export type Absence = Static<typeof Absence>;

/** A visit of the year ahead, as it is told to calendars: the same one keeps its id. */
export const PlannedVisit = closed(
  {
    ...kept,
    day: calendarDate(),
    place: text(60),
    tasks: Type.Array(TaskOfMachine, { minItems: 1, maxItems: 100 }),
    who: Type.Optional(text(60)),
    /** By hand: it stays on its day. */
    held: Type.Optional(Type.Boolean()),
    /** Why it is left out this once. */
    skipped: Type.Optional(text(200)),
    /** The plan moved it by itself: from which day, when that was, and why. */
    moved: Type.Optional(closed({ from: calendarDate(), on: calendarDate(), why: text(300) })),
    /** Its work is done. */
    done: Type.Optional(Type.Boolean()),
    changedAt: instant(),
  },
  'PlannedVisit',
);
export type PlannedVisit = Static<typeof PlannedVisit>;

/** What is laid down of a planned visit by hand. */
export const PlannedChange = closed(
  {
    /** To another day. */
    day: Type.Optional(calendarDate()),
    /** Only these of its tasks: the rest stays where it is. */
    tasks: Type.Optional(Type.Array(TaskOfMachine, { minItems: 1, maxItems: 100 })),
    /** Who does it; nobody in particular where it is empty. */
    who: Type.Optional(text(60, 0)),
    /** Whether it stays on its day. */
    held: Type.Optional(Type.Boolean()),
    /** Left out this once, and why; done after all where it is empty. */
    skipped: Type.Optional(text(200, 0)),
    /** Of what keeps people safe it was said twice. */
    acknowledged: Type.Optional(Type.Boolean()),
  },
  'PlannedChange',
);
export type PlannedChange = Static<typeof PlannedChange>;

/** How often each task is done by a plan that was taken; with none, the rhythms hold again. */
export const PlanTaken = closed(
  {
    rhythms: Type.Array(
      closed({
        machineId: id(),
        task: text(40),
        every: Type.Integer({ minimum: 1, maximum: 5000 }),
        unit: Type.Unsafe<'loads' | 'days'>({ type: 'string', enum: ['loads', 'days'] }),
      }),
      { maxItems: 2000 },
    ),
  },
  'PlanTaken',
);
export type PlanTaken = Static<typeof PlanTaken>;

/** The section of a large house that is told; in a house of usual size there is only one. */
const section = () => Type.Optional(text(200));

/** What is told of a large house a section at a time. */
export const SectionQuery = closed({ section: section() }, 'SectionQuery');
export type SectionQuery = Static<typeof SectionQuery>;

/** A plan as it could be. */
export const PlanQuery = closed(
  {
    section: section(),
    /** As if this rhythm were chosen for everything. */
    school: Type.Optional(
      Type.Unsafe<'often' | 'steady' | 'stretch' | 'count'>({
        type: 'string',
        enum: ['often', 'steady', 'stretch', 'count'],
      }),
    ),
    /** Weekdays, the dearest first, such as `67`: 1 Monday to 7 Sunday. */
    weekdays: Type.Optional(Type.String({ pattern: '^[1-7]{1,7}$' })),
    /** At work in one visit, at most. */
    minutes: Type.Optional(Type.Integer({ minimum: 10, maximum: 600 })),
    /** How often each task is done is left open, for the curve. */
    free: Type.Optional(Type.Boolean()),
  },
  'PlanQuery',
);
export type PlanQuery = Static<typeof PlanQuery>;

/** An address at which a calendar program reads the visits. */
export const FeedDraft = closed(
  {
    /** What it is for, such as `Odo’s phone`. */
    name: text(60),
    /** Reminders: the evening before, and when it begins. */
    evening: Type.Boolean(),
    begins: Type.Boolean(),
    /** Only the visits that somebody of this name does. */
    who: Type.Optional(text(60)),
  },
  'FeedDraft',
);
export type FeedDraft = Static<typeof FeedDraft>;
export const Feed = closed(
  {
    id: id(),
    ...FeedDraft.properties,
    madeAt: instant(),
    readAt: Type.Optional(instant()),
    revokedAt: Type.Optional(instant()),
    /** Told this once. */
    address: Type.Optional(Type.String()),
  },
  'Feed',
);
export type Feed = Static<typeof Feed>;

/** A calendar that was read in: the days on which nobody can. */
export const BusyCalendar = closed(
  {
    ...kept,
    name: text(80),
    days: Type.Array(calendarDate(), { maxItems: 800 }),
    readOn: calendarDate(),
  },
  'BusyCalendar',
);
export type BusyCalendar = Static<typeof BusyCalendar>;

/** A sheet as it is printed. */
export const PrintQuery = closed(
  {
    paper: Type.Optional(Type.Unsafe<'a4' | 'letter'>({ type: 'string', enum: ['a4', 'letter'] })),
    /** Of the wall sheet, the year and the labels. */
    place: Type.Optional(text(60)),
    /** Of a large house, for the year and the labels. */
    section: section(),
    /** Of the labels. */
    size: Type.Optional(
      Type.Unsafe<'small' | 'medium' | 'large'>({
        type: 'string',
        enum: ['small', 'medium', 'large'],
      }),
    ),
    /** Of the labels: how often each. */
    copies: Type.Optional(Type.Integer({ minimum: 1, maximum: 24 })),
  },
  'PrintQuery',
);
export type PrintQuery = Static<typeof PrintQuery>;

/** A machine's record as it is printed. */
export const SheetQuery = closed(
  {
    for: Type.Optional(
      Type.Unsafe<'house' | 'buyer' | 'landlord' | 'technician'>({
        type: 'string',
        enum: ['house', 'buyer', 'landlord', 'technician'],
      }),
    ),
    /** The first and the last day. */
    from: Type.Optional(Type.String({ format: 'date' })),
    to: Type.Optional(Type.String({ format: 'date' })),
    photos: Type.Optional(Type.Boolean()),
  },
  'SheetQuery',
);
export type SheetQuery = Static<typeof SheetQuery>;

/** Where a calendar is read, each day again. */
export const BusyAddress = closed(
  {
    address: Type.String({ minLength: 8, maxLength: 2000 }),
    /** It leads into the house's own network, or to the server's own computer. */
    atHome: Type.Optional(Type.Boolean()),
  },
  'BusyAddress',
);
export type BusyAddress = Static<typeof BusyAddress>;
