import type { EntryDraft, Machine } from '../../model/schemas.js';
import type { FieldProblem } from '../../model/check.js';
import { ENTRY_KINDS, kindOfEntry, type ToldField } from '../../model/entry-kinds.js';
import { isSignalFigure, SIGNAL_FIGURES } from '../../model/vocabulary.js';
import { dayOf, sayDay } from '../../units/calendar.js';
import { wrongTime } from '../../units/clock.js';
import { isWrong, readReading } from '../../units/reading.js';
import {
  isTask,
  knowsTask,
  partsOf,
  procedureOf,
  stationsOf,
  taskOf,
  tasksOf,
  NO_MACHINE,
} from '../catalogue/lookup.js';
import type { Build } from '../catalogue/types.js';
import { LOAD_HABITS } from '../catalogue/data/habits.js';
import { PARTS } from '../catalogue/data/parts.js';

/** What any entry may name. */
const COMMON: ReadonlySet<string> = new Set(['machineId', 'station', 'task', 'caseId', 'note']);

/**
 * Checks what a schema cannot see: dates that make sense, stations and tasks that the machine has,
 * and the fields that each kind of entry needs.
 * @param machine the machine the entry names; undefined if there is no such machine
 * @param now UTC instant, milliseconds
 * @param zone the household's, for the day the machine came into use
 * @returns what is wrong; empty when the entry may be stored
 */
export function checkEntry(
  draft: EntryDraft,
  machine: Machine | undefined,
  now: number,
  zone = 'UTC',
): FieldProblem[] {
  const problems: FieldProblem[] = [];
  const wrong = (field: keyof EntryDraft, message: string) => problems.push({ field, message });
  const at = Date.parse(draft.at);
  const impossible = wrongTime(at, now);
  if (impossible) wrong('at', impossible);
  const since = machine?.inUseSince;
  if (since !== undefined && dayOf(at, zone) < since) {
    wrong(
      'at',
      `The machine came into use on ${sayDay(since)}. Give a later time, or change that date under House.`,
    );
  }
  if (draft.machineId !== undefined && !machine) wrong('machineId', 'There is no such machine.');

  if (draft.kind === 'undone') wrong('kind', 'An entry is undone at its own address.');
  const { needs, allows, label } = kindOfEntry(draft.kind);
  // A part says where it was.
  const told =
    draft.part === undefined ? draft : { ...atItsStation(draft.part, machine), ...draft };
  for (const field of needs) {
    const value = told[field];
    if (value === undefined || value === '') wrong(field, 'This is needed here.');
  }
  for (const field of TOLD_FIELDS) {
    if (draft[field] === undefined || needs.includes(field) || allows.includes(field)) continue;
    wrong(field, `This does not go with “${label}”.`);
  }
  if (draft.habit !== undefined && !LOAD_HABITS.some(({ id }) => id === draft.habit)) {
    wrong('habit', 'There is no such habit.');
  }
  if (draft.kind === 'reading' && !problems.some(({ field }) => OF_READINGS.has(field))) {
    const reading = readReading(draft);
    if (isWrong(reading)) wrong(reading.field, reading.message);
  }
  if (
    draft.kind === 'explained' &&
    draft.quantity !== undefined &&
    !isSignalFigure(draft.quantity)
  ) {
    wrong('quantity', `Give one of ${SIGNAL_FIGURES.join(', ')}.`);
  }
  if (
    draft.kind === 'proof' &&
    machine &&
    draft.task !== undefined &&
    knowsTask(machine, draft.task) &&
    !procedureOf(machine, draft.task).proof.some(({ id }) => id === draft.step)
  ) {
    wrong('step', 'This task has no such proof.');
  }
  const amount = draft.kind === 'stock' || draft.kind === 'bought';
  if (amount && draft.value !== undefined && !(draft.value >= 0 && draft.value <= 1e6)) {
    wrong('value', 'Give an amount from 0 to 1000000.');
  }
  if (machine && draft.task !== undefined) {
    if (!tasksOf(machine).some(({ id }) => id === draft.task)) {
      wrong('task', 'This machine has no such task.');
    } else if (
      draft.station !== undefined &&
      taskOf(machine, draft.task).station !== draft.station
    ) {
      wrong('station', 'This task belongs to another station.');
    }
  } else if (draft.task !== undefined && !isTask(draft.task)) {
    wrong('task', 'There is no such task.');
  }
  if (
    machine &&
    draft.station !== undefined &&
    !stationsOf(machine).some(({ id }) => id === draft.station)
  ) {
    wrong('station', 'This machine has no such station.');
  }
  const parts = machine ? partsOf(machine) : PARTS;
  const part = parts.find(({ id }) => id === draft.part);
  if (draft.part !== undefined && !part) {
    wrong('part', 'This machine has no such part.');
  } else if (part && draft.station !== undefined && part.station !== draft.station) {
    wrong('station', 'This part belongs to another station.');
  }
  return problems;
}

const TOLD_FIELDS: readonly ToldField[] = [
  ...new Set(ENTRY_KINDS.map(kindOfEntry).flatMap(({ needs, allows }) => [...needs, ...allows])),
].filter((field): field is ToldField => !COMMON.has(field));
const OF_READINGS = new Set(['quantity', 'value', 'unit']);

/**
 * Fills in what follows from the rest: the station of a task or a part, one load where no number is given, a reading in
 * the unit of its quantity.
 */
export function completed(draft: EntryDraft, machine?: Build): EntryDraft {
  return {
    ...draft,
    ...(draft.kind === 'load' && draft.count === undefined ? { count: 1 } : {}),
    ...(draft.kind === 'reading' ? inLogUnit(draft) : {}),
    ...(draft.task !== undefined && draft.station === undefined && knowsTask(machine, draft.task)
      ? { station: taskOf(machine ?? NO_MACHINE, draft.task).station }
      : {}),
    ...(draft.part !== undefined && draft.station === undefined
      ? atItsStation(draft.part, machine)
      : {}),
  };
}

function atItsStation(part: string, machine: Build | undefined): Partial<EntryDraft> {
  const parts = machine ? partsOf(machine) : PARTS;
  const station = parts.find(({ id }) => id === part)?.station;
  return station === undefined ? {} : { station };
}

function inLogUnit(draft: EntryDraft): Partial<EntryDraft> {
  const reading = readReading(draft);
  return isWrong(reading) ? {} : reading;
}
