import { tasksOf } from '../care/catalogue/lookup.js';
import type { MachineState } from '../care/house/machine-state.js';
import { sayEntryIn } from '../care/record/entry-words.js';
import { sayProduct } from '../chemistry/products.js';
import type { PastSignal } from '../loads/drift/signal.js';
import { sayWas } from '../loads/drift/words.js';
import { kindOfEntry } from '../model/entry-kinds.js';
import type { CaseRecord, Entry, Household, Machine, Money } from '../model/schemas.js';
import { isWasher } from '../model/vocabulary.js';
import { ENDING_WORDS, sayOutcome } from '../trouble/cases/say.js';
import { caseState, caseTitle } from '../trouble/cases/state.js';
import { dayOf, sayDay, type Day } from '../units/calendar.js';
import { many } from '../units/many.js';
import type { ChartsView } from '../views/charts.js';
import type { LifeView } from '../views/life.js';
import { FOR_WHOM, type ForWhom, type ForWhomId, type RecordSection } from './for-whom.js';
import { entryRow, machineFacts, type Sheet, type SheetChart, type SheetSection } from './sheet.js';

/** What a machine's record is printed from. */
export interface MachineSheetGround {
  machine: Machine;
  household: Household;
  state: MachineState;
  /** Of this machine, newest first. */
  entries: readonly Entry[];
  cases: readonly CaseRecord[];
  life: LifeView;
  charts: ChartsView;
  /** What its meter told, in the order of time. */
  told: readonly PastSignal[];
  /** UTC instant, milliseconds. */
  now: number;
}

/** For whom, and of which days; all of them where nothing is said. */
export interface MachineSheetAsk {
  whom?: ForWhomId;
  from?: Day | undefined;
  to?: Day | undefined;
}

/** More rows are in the log. */
const MOST_ROWS = 400;
const MOST_PHOTOS = 12;
const MOST_CHARTS = 6;
const MOST_MARKS = 40;
/** Fewer figures are no chart. */
const LEAST_POINTS = 3;

/** A machine's record for somebody who comes to look at it. */
export function machineSheet(ground: MachineSheetGround, ask: MachineSheetAsk = {}): Sheet {
  const { machine, household, now } = ground;
  const whom: ForWhom = FOR_WHOM[ask.whom ?? 'house'];
  const today = dayOf(now, household.zone);
  const within = (day: Day): boolean =>
    (ask.from === undefined || day >= ask.from) && (ask.to === undefined || day <= ask.to);
  const everyLoad = new Set(tasksOf(machine).flatMap(({ id, habit }) => (habit ? id : [])));
  const telling = ground.entries.filter(
    ({ kind, task, at, zone }) =>
      kindOfEntry(kind).telling &&
      !(task && everyLoad.has(task)) &&
      within(dayOf(Date.parse(at), zone)),
  );
  const asked: Asked = { ...ground, whom, today, within, telling, to: ask.to };
  const { since, until } = spanOf(ask, today);
  return {
    title: machine.name,
    lead: `Record of ${household.name}${ask.whom === undefined || ask.whom === 'house' ? '' : `, for ${whom.words}`}, as of ${sayDay(today)}${since || until ? `; what happened ${[since, until].filter(Boolean).join(' ')}` : ''}.`,
    facts: [...machineFacts(machine, household, whom), ...lifeFacts(ground.life)],
    sections: whom.sections.flatMap((section) => SECTIONS[section](asked)),
    photos: whom.photos
      ? telling
          .flatMap((entry) =>
            (entry.photos ?? []).map((id) => ({
              id,
              said: `${sayDay(dayOf(Date.parse(entry.at), entry.zone), today)}: ${sayEntryIn(entry, household.units, machine)}`,
            })),
          )
          .slice(0, MOST_PHOTOS)
      : [],
  };
}

interface Asked extends MachineSheetGround {
  whom: ForWhom;
  today: Day;
  within: (day: Day) => boolean;
  /** Its last day, where one was asked for. */
  to: Day | undefined;
  /** Entries of the time that tell something. */
  telling: readonly Entry[];
}

const spanOf = ({ from, to }: MachineSheetAsk, today: Day) => ({
  since: from === undefined ? '' : `from ${sayDay(from, today)}`,
  until: to === undefined ? '' : `to ${sayDay(to, today)}`,
});

/** Its age, loads and hours. */
function lifeFacts({ age, loads, hours }: LifeView): Sheet['facts'] {
  const all = Math.round(loads.counted + loads.estimated);
  return [
    ...(age === undefined ? [] : [{ name: 'Age', value: `${age.toFixed(1)} years` }]),
    {
      name: 'Loads and hours',
      value: `${all}, ${Math.round(loads.counted)} of them counted; about ${Math.round(hours)} hours`,
    },
  ];
}

const SECTIONS: Record<RecordSection, (asked: Asked) => SheetSection[]> = {
  open: ({ state, household: { zone }, today }) => [
    {
      heading: 'Open',
      columns: ['What', 'Which'],
      rows: [
        ...state.proofs.map(({ name, do: what, state: how }) => [
          how === 'bad' ? 'Did not hold' : 'To be looked at',
          `${name}: ${what}`,
        ]),
        ...state.chemicals.events.map(({ product, at }) => [
          'Not rinsed out',
          `${sayProduct(product)}, used ${sayDay(dayOf(at, zone), today)}`,
        ]),
        ...state.age
          .filter(({ part }) => part !== undefined)
          .map(({ name, said }) => ['By its age', `${name}: ${said}`]),
      ],
      none: 'Nothing is open.',
    },
  ],
  care: ({ state }) => [
    {
      heading: 'Care',
      columns: ['Task', 'State', 'Why'],
      rows: state.dues.map(({ name, said, why }) => [name, said, why]),
      none: 'No tasks.',
    },
  ],
  meter: ({ told, today }) =>
    told.length
      ? [
          {
            heading: 'What its meter told',
            columns: ['When', 'What'],
            rows: told.map((one) => signalRow(one, today)),
            none: '',
          },
        ]
      : [],
  parts: ({ life, whom, today, within }) => {
    const cost = (money: Money | undefined): string[] =>
      whom.money && money ? [`${money.amount} ${money.currency}`] : [];
    const words = (...parts: (string | undefined)[]): string =>
      parts.filter((part) => part).join('; ');
    const replaced = life.parts.flatMap(({ name, done }) =>
      done
        .filter(({ day }) => within(day))
        .map((one) => ({
          day: one.day,
          row: [
            sayDay(one.day, today),
            `${name} replaced`,
            words(whom.notes ? one.why : '', ...cost(one.cost)),
          ],
        })),
    );
    const calls = life.calls
      .filter(({ day }) => within(day))
      .map((one) => ({
        day: one.day,
        row: [
          sayDay(one.day, today),
          'Somebody was called in',
          words(whom.notes ? one.what : '', ...cost(one.cost)),
        ],
      }));
    const aged = life.parts.filter(({ state }) => state !== 'by-sign');
    return [
      {
        heading: 'Parts and their age',
        columns: ['Part', 'Since', 'State'],
        rows: aged.map(({ name, since, said }) => [
          name,
          since === undefined ? 'not known' : sayDay(since, today),
          said,
        ]),
        none: 'Nothing of it goes by its age.',
      },
      {
        heading: 'Replaced, and called in',
        columns: ['When', 'What', 'More'],
        rows: [...replaced, ...calls]
          .sort((a, b) => b.day.localeCompare(a.day))
          .map(({ row }) => row),
        none: 'Nothing was replaced and nobody was called in, as far as it was noted.',
      },
    ];
  },
  charts: (asked) => {
    const charts = chartsOf(asked);
    return charts.length
      ? [{ heading: 'Figures along time', columns: [], rows: [], none: '', charts }]
      : [];
  },
  trouble: ({ cases, machine, household: { zone }, today, within }) => [
    {
      heading: 'Trouble',
      columns: ['Since', 'What', 'What came of it'],
      rows: cases
        .map((record) => caseState(record))
        .filter(({ openedAt, ending }) => !ending || within(dayOf(openedAt, zone)))
        .sort((a, b) => b.openedAt - a.openedAt)
        .map((state) => [
          sayDay(dayOf(state.openedAt, zone), today),
          caseTitle(state),
          state.ending
            ? `${ENDING_WORDS[state.ending]}. ${sayOutcome(state, machine.kind)}`
            : 'It is open.',
        ]),
      none: 'None was noted.',
    },
  ],
  done: ({ telling, machine, household: { units }, today, whom }) => [
    {
      heading: 'What was done, found and read',
      columns: ['When', 'What', 'Found'],
      rows: telling
        .slice(0, MOST_ROWS)
        .map((entry) => entryRow(whom.notes ? entry : without(entry), machine, units, today)),
      none: 'Nothing was noted yet.',
    },
    ...(telling.length > MOST_ROWS
      ? [
          {
            heading: '',
            columns: [],
            rows: [],
            none: `${many(telling.length - MOST_ROWS, 'older entry', 'older entries')} of this time ${telling.length - MOST_ROWS === 1 ? 'is' : 'are'} in the log.`,
          },
        ]
      : []),
  ],
};

function without({ note: _note, ...entry }: Entry): Entry {
  return entry;
}

const signalRow = (signal: PastSignal, today: Day): string[] => [
  signal.until
    ? `${sayDay(signal.day, today)} to ${sayDay(signal.until, today)}`
    : `Since ${sayDay(signal.day, today)}`,
  sayWas(signal),
];

/** The figures that were read most often in the time. */
function chartsOf({ charts, machine, household, within, now, to: last }: Asked): SheetChart[] {
  const { zone } = household;
  const seen = charts.series
    .map((series) => ({
      series,
      points: series.points.filter(({ at }) => within(dayOf(at, zone))),
    }))
    .filter(({ points }) => points.length >= LEAST_POINTS)
    // How often it ran says least of how it is.
    .sort(
      (a, b) =>
        Number(a.series.id === 'loads') - Number(b.series.id === 'loads') ||
        b.points.length - a.points.length,
    )
    .slice(0, MOST_CHARTS);
  return seen.map(({ series, points }): SheetChart => {
    const from = points[0]!.at;
    const to = last === undefined ? now : points.at(-1)!.at;
    const today = dayOf(now, zone);
    return {
      title: `${series.say}, ${series.unit}`,
      thread: isWasher(machine.kind) ? 'water' : 'air',
      ...{ from, to, unit: series.unit, points },
      ...(series.clean === undefined ? {} : { clean: series.clean }),
      marks: seenApart(
        charts.marks
          .filter(({ at }) => at >= from && at <= to)
          .filter(
            ({ station }) =>
              !series.stations || station === undefined || series.stations.includes(station),
          )
          .map(({ at, kind }) => ({ at, kind })),
      ),
      ends: [sayDay(dayOf(from, zone), today), sayDay(dayOf(to, zone), today)],
    };
  });
}

/** Of more marks than can be told apart only the rare ones are drawn. */
const seenApart = (marks: SheetChart['marks']): SheetChart['marks'] =>
  marks.length <= MOST_MARKS
    ? marks
    : marks.filter(({ kind }) => kind === 'replaced' || kind === 'case');
