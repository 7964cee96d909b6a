import type { Step } from '../care/catalogue/types.js';
import { WAY_NAMES } from '../care/catalogue/data/ways.js';
import { kindOfEntry } from '../model/entry-kinds.js';
import type { Entry, Household, Machine, Visit } from '../model/schemas.js';
import { GRADE_NAMES, KIND_NAMES, WAYS } from '../model/vocabulary.js';
import { taskOf, tasksOf } from '../care/catalogue/lookup.js';
import type { MachineState } from '../care/house/machine-state.js';
import { FEATURE_QUESTIONS } from '../care/catalogue/data/features.js';
import { sayEntry } from '../care/record/entry-words.js';
import { outcomeOf } from '../care/visit/progress.js';
import { planVisit } from '../care/visit/plan.js';
import { PHASE_NAMES } from '../care/visit/visit-step.js';
import { taskKey } from '../care/catalogue/set-ups.js';
import { sayProduct } from '../chemistry/products.js';
import { dayOf, sayDay } from '../units/calendar.js';
import { many } from '../units/many.js';
import { rulesOf } from '../regions/rules.js';
import {
  NUMBER_NAMES,
  PLACE_NAMES,
  type HouseNumber,
  type HousePlace,
} from '../trouble/data/types.js';

/** A sheet to hand to somebody: a machine's record, or a visit. What it looks like is not its business. */
export interface Sheet {
  title: string;
  lead: string;
  facts: { name: string; value: string }[];
  sections: SheetSection[];
  /** Photos to print, by their ids. */
  photos: string[];
}

export interface SheetSection {
  heading: string;
  columns: string[];
  rows: string[][];
  /** What to print where there are no rows. */
  none: string;
}

/** Older entries are in the log. */
const MOST_ROWS = 120;
const UNANSWERED = 'not known';

/** How a machine is built, as far as it was told. */
export function machineFacts(machine: Machine, household: Household): Sheet['facts'] {
  const built = FEATURE_QUESTIONS.filter(({ kinds }) => kinds.includes(machine.kind)).map(
    ({ id, name, answers }) => {
      const told = machine.features[id];
      const value =
        told === undefined || told === 'unknown'
          ? UNANSWERED
          : (answers.find((answer) => answer.value === told)?.label ?? String(told));
      return { name, value };
    },
  );
  return [
    { name: 'Kind', value: KIND_NAMES[machine.kind] },
    { name: 'Maker and model', value: machine.maker ?? UNANSWERED },
    { name: 'Place', value: machine.place },
    ...identityFacts(machine, household),
    ...(machine.inUseSince ? [{ name: 'In use since', value: sayDay(machine.inUseSince) }] : []),
    { name: 'Loads a week', value: String(machine.loadsPerWeek) },
    ...(household.hardness === undefined
      ? []
      : [{ name: 'Water hardness', value: `${Math.round(household.hardness)} mg/L as CaCO3` }]),
    ...built,
    ...emergencyFacts(household),
  ];
}

/** Where what shuts things off is, and whom to call. */
const emergencyFacts = ({ places = {}, numbers = {}, ...household }: Household): Sheet['facts'] => [
  ...Object.entries(places).map(([place, where]) => ({
    name: PLACE_NAMES[place as HousePlace],
    value: where,
  })),
  ...Object.entries({ emergency: rulesOf(household).emergency, ...numbers }).map(
    ([id, number]) => ({
      name: NUMBER_NAMES[id as HouseNumber],
      value: number,
    }),
  ),
];

/** What its papers say, as far as they were entered; and the ways that are its own. */
function identityFacts(
  { identity = {}, ways = {} }: Machine,
  { currency }: Household,
): Sheet['facts'] {
  const { model, serial, boughtOn, warrantyUntil, price, hosesSince, gasketSince } = identity;
  const row = (name: string, value: string | undefined) => (value ? [{ name, value }] : []);
  const day = (on: string | undefined) => on && sayDay(on);
  return [
    ...row('Model', model),
    ...row('Serial number', serial),
    ...row('Bought', day(boughtOn)),
    ...row('Warranty until', day(warrantyUntil)),
    ...row('Price', price === undefined ? undefined : `${price} ${currency ?? ''}`.trim()),
    ...row('Hoses since', day(hosesSince)),
    ...row('Gasket since', day(gasketSince)),
    ...WAYS.flatMap((id) => row(WAY_NAMES[id], ways[id])),
  ];
}

/** This machine's own way of a step, where it is kept. */
const wayOf = ({ way }: Step, { ways = {} }: Machine): string[] =>
  way && ways[way] ? [`This machine’s way: ${ways[way]}`] : [];

const detailOf = ({ grade, found, trays, note }: Entry): string =>
  [
    grade === undefined ? '' : GRADE_NAMES[grade],
    ...(found ?? []).map(({ what, count }) => `${count} × ${what}`),
    trays ? `${many(trays, 'tray')} of water` : '',
    note ?? '',
  ]
    .filter((text) => text.trim() !== '')
    .join('; ');

const entryRow = (entry: Entry, machine: Machine, today: string): string[] => [
  sayDay(dayOf(Date.parse(entry.at), entry.zone), today),
  sayEntry(entry, machine),
  detailOf(entry),
];

/**
 * A machine's record for somebody who comes to look at it.
 * @param entries of this machine, newest first
 * @param now UTC instant, milliseconds
 */
export function machineSheet(
  machine: Machine,
  household: Household,
  state: MachineState,
  entries: readonly Entry[],
  now: number,
): Sheet {
  const today = dayOf(now, household.zone);
  const everyLoad = new Set(tasksOf(machine).flatMap(({ id, habit }) => (habit ? id : [])));
  const telling = entries
    .filter(({ kind, task }) => kindOfEntry(kind).telling && !(task && everyLoad.has(task)))
    .slice(0, MOST_ROWS);
  const open = [
    ...state.proofs.map(({ name, do: what, state: how }) => [
      how === 'bad' ? 'Did not hold' : 'To be looked at',
      `${name}: ${what}`,
    ]),
    ...state.chemicals.events.map(({ product, at }) => [
      'Not rinsed out',
      `${sayProduct(product)}, used ${sayDay(dayOf(at, household.zone), today)}`,
    ]),
  ];
  return {
    title: machine.name,
    lead: `Record of ${household.name}, as of ${sayDay(today)}.`,
    facts: machineFacts(machine, household),
    sections: [
      {
        heading: 'Open',
        columns: ['What', 'Which'],
        rows: open,
        none: 'Nothing is open.',
      },
      {
        heading: 'Care',
        columns: ['Task', 'State', 'Why'],
        rows: state.dues.map(({ name, said, why }) => [name, said, why]),
        none: 'No tasks.',
      },
      {
        heading: 'What was done, found and read',
        columns: ['When', 'What', 'Found'],
        rows: telling.map((entry) => entryRow(entry, machine, today)),
        none: 'Nothing was noted yet.',
      },
    ],
    photos: telling.flatMap(({ photos }) => photos ?? []).slice(0, 6),
  };
}

/**
 * A visit: what came of it, or while it is open, the steps to tick by hand.
 * @param entries those that it left
 * @param now UTC instant, milliseconds
 */
export function visitSheet(
  visit: Visit,
  machines: readonly Machine[],
  household: Household,
  entries: readonly Entry[],
  now: number,
): Sheet {
  const today = dayOf(now, household.zone);
  const plan = planVisit(visit.tasks, machines);
  const nameOf = (id: string) => machines.find((machine) => machine.id === id)!;
  const ids = [...new Set(visit.tasks.map(({ machineId }) => machineId))];
  const done = visit.state === 'finished';
  const records = visit.tasks.map((task) => {
    const machine = nameOf(task.machineId);
    const { outcome, record } = outcomeOf(task, plan, visit.progress);
    const found = detailOf({ ...record, kind: 'done' } as Entry);
    return [machine.name, taskOf(machine, task.task).name, outcome, found];
  });
  return {
    title: `Visit of ${sayDay(dayOf(Date.parse(visit.startedAt), household.zone))}`,
    lead: `${household.name}: ${ids.map((id) => nameOf(id).name).join(', ')}. ${done ? 'Finished.' : 'Not finished.'}`,
    facts: ids.map((id) => ({
      name: nameOf(id).name,
      value: `${KIND_NAMES[nameOf(id).kind]}, ${nameOf(id).maker ?? 'maker not known'}, ${nameOf(id).place}`,
    })),
    sections: [
      {
        heading: 'Tasks',
        columns: ['Machine', 'Task', 'Outcome', 'Found'],
        rows: records,
        none: 'No tasks.',
      },
      ...(done
        ? [
            {
              heading: 'Recorded',
              columns: ['When', 'What', 'Found'],
              rows: entries.map((entry) => entryRow(entry, nameOf(entry.machineId!), today)),
              none: 'Nothing was recorded.',
            },
          ]
        : [
            {
              heading: 'Fetch',
              columns: ['', 'What'],
              rows: plan.fetch.map(({ what }) => [
                visit.progress.fetched.includes(what) ? 'x' : '',
                what,
              ]),
              none: 'Nothing.',
            },
            {
              heading: 'Steps',
              columns: ['', 'Machine', 'Part', 'Step'],
              rows: plan.steps.map(({ key, machineId, phase, step, cautions }) => [
                visit.progress.ticked[key] ? 'x' : '',
                nameOf(machineId).name,
                PHASE_NAMES[phase],
                [
                  ...cautions.map((caution) => `CAUTION: ${caution}`),
                  step.do,
                  ...wayOf(step, nameOf(machineId)),
                ].join('\n'),
              ]),
              none: 'No steps.',
            },
          ]),
    ],
    photos: visit.tasks
      .flatMap((task) => visit.progress.tasks[taskKey(task)]?.photos ?? [])
      .slice(0, 6),
  };
}
