import type { Entry, EntryDraft, Machine, Run } from '../model/schemas.js';
import type { FieldProblem } from '../model/check.js';
import { sayProduct } from '../measure/mix/products.js';
import type { Programme, ProofResult } from '../model/vocabulary.js';
import { dayOf, many, sayDay } from '../units/calendar.js';
import {
  isTask,
  knowsTask,
  procedureFor,
  stationById,
  stationsOf,
  taskOf,
  tasksOf,
  type Build,
} from './catalogue.js';
import { LOAD_HABITS } from './data/habits.js';
import { isProof, outcomeOf, planRun, type RunMachine } from './run.js';

/*
 * What may be recorded, and what a finished run records.
 */

/** Phones' clocks are off by some; more than this ahead is a mistake. */
const CLOCK_SLACK_MS = 10 * 60_000;
const EARLIEST = Date.parse('1990-01-01T00:00:00Z');

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
  if (at > now + CLOCK_SLACK_MS) wrong('at', 'This is in the future. Give a time up to now.');
  if (at < EARLIEST) wrong('at', 'This is before 1990. Give a later date.');
  const since = machine?.inUseSince;
  if (since !== undefined && dayOf(at, zone) < since) {
    wrong(
      'at',
      `The machine came into use on ${sayDay(since)}. Give a later time, or change that date under House.`,
    );
  }
  if (draft.machineId !== undefined && !machine) wrong('machineId', 'There is no such machine.');

  const needs: Partial<Record<EntryDraft['kind'], (keyof EntryDraft)[]>> = {
    load: ['machineId'],
    opened: ['machineId', 'task'],
    done: ['machineId', 'task'],
    reading: ['machineId', 'quantity', 'value', 'unit'],
    code: ['machineId', 'code'],
    replaced: ['machineId', 'station'],
    note: ['note'],
    habit: ['machineId', 'habit'],
    stock: ['supply', 'value'],
    bought: ['supply', 'value'],
    chemical: ['machineId', 'product', 'actives'],
    rinse: ['machineId'],
    proof: ['machineId', 'task', 'step', 'result'],
    case: ['machineId', 'caseId', 'note'],
  };
  if (draft.kind === 'undone') wrong('kind', 'An entry is undone at its own address.');
  for (const field of needs[draft.kind] ?? []) {
    const value = draft[field];
    if (value === undefined || value === '') wrong(field, 'This is needed here.');
  }
  if (draft.kind !== 'load' && draft.count !== undefined) {
    wrong('count', 'Only loads are counted.');
  }
  if (draft.kind !== 'load' && draft.programme !== undefined) {
    wrong('programme', 'Only loads have a programme.');
  }
  if (draft.habit !== undefined && !LOAD_HABITS.some(({ id }) => id === draft.habit)) {
    wrong('habit', 'There is no such habit.');
  }
  if (draft.kind !== 'chemical' && (draft.actives ?? draft.product) !== undefined) {
    wrong('product', 'Only a cleaning product used has this.');
  }
  if (draft.kind !== 'proof' && (draft.step ?? draft.result) !== undefined) {
    wrong('step', 'Only a proof has this.');
  }
  if (
    draft.kind === 'proof' &&
    machine &&
    draft.task !== undefined &&
    knowsTask(machine, draft.task) &&
    !procedureFor(machine, draft.task).proof.some(({ id }) => id === draft.step)
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
  return problems;
}

/** Fills in what follows from the rest: a task's station, one load where no number is given. */
export function completed(draft: EntryDraft, machine?: Build): EntryDraft {
  return {
    ...draft,
    ...(draft.kind === 'load' && draft.count === undefined ? { count: 1 } : {}),
    ...(draft.task !== undefined && draft.station === undefined && knowsTask(machine, draft.task)
      ? { station: taskOf(machine ?? NO_MACHINE, draft.task).station }
      : {}),
  };
}

/**
 * The entries that a run leaves: one for each task cleaned or looked at, one for each figure.
 * @param now UTC instant, milliseconds, for tasks without a time of their own
 */
export function entriesOf(run: Run, machines: readonly RunMachine[], now: number): EntryDraft[] {
  const plan = planRun(run.tasks, machines);
  const { progress } = run;
  const machineOf = (id: string) => machines.find((machine) => machine.id === id)!;
  const work = run.tasks.flatMap((task): EntryDraft[] => {
    const { outcome, record, doneAt } = outcomeOf(task, plan, progress);
    if (outcome === 'skipped') return [];
    const { grade, found, trays, note, photos, used } = record;
    return [
      {
        machineId: task.machineId,
        kind: outcome === 'cleaned' ? 'done' : 'opened',
        task: task.task,
        station: taskOf(machineOf(task.machineId), task.task).station,
        at: doneAt ?? new Date(now).toISOString(),
        source: 'run',
        ...(grade === undefined ? {} : { grade }),
        ...(found?.length ? { found } : {}),
        ...(trays === undefined ? {} : { trays }),
        ...(note?.trim() ? { note } : {}),
        ...(photos?.length ? { photos } : {}),
        ...(used ? { used } : {}),
      },
    ];
  });
  const readings = plan.steps.flatMap(({ key, machineId, task, step }): EntryDraft[] => {
    const reading = progress.readings[key];
    if (!reading || !step.reading || !task) return [];
    return [
      {
        machineId,
        kind: 'reading',
        station: taskOf(machineOf(machineId), task).station,
        at: progress.ticked[key] ?? new Date(now).toISOString(),
        source: 'run',
        quantity: step.reading.quantity,
        value: reading.value,
        unit: step.reading.unit,
      },
    ];
  });
  const cleaned = new Set(
    run.tasks
      .filter((task) => outcomeOf(task, plan, progress).outcome === 'cleaned')
      .map(({ machineId, task }) => `${machineId}/${task}`),
  );
  const proofs = plan.steps.flatMap((runStep): EntryDraft[] => {
    const { key, machineId, task, step } = runStep;
    if (!isProof(runStep) || !task || !cleaned.has(`${machineId}/${task}`)) return [];
    const result = progress.proofs?.[key] ?? (step.later ? 'planned' : undefined);
    if (!result) return [];
    return [
      {
        machineId,
        kind: 'proof',
        task,
        station: taskOf(machineOf(machineId), task).station,
        step: step.id,
        result,
        at: progress.ticked[key] ?? new Date(now).toISOString(),
        source: 'run',
      },
    ];
  });
  return [...work, ...readings, ...proofs];
}

const QUANTITY_NAMES: Record<string, string> = {
  'drain-time': 'Drained empty in',
  'bag-fill-time': 'Bag at the hood full in',
  'drying-minutes': 'A load dried in',
  'pump-out-time': 'Half a litre pumped out in',
  'fill-litres': 'In ten seconds the tap gave',
  'exhaust-water': 'The air at the hood carried out',
  'standing-water': 'Water standing in the tub:',
  'pipe-over-weir': 'Top of the standpipe over its trap:',
  'hose-top': 'Highest point of the drain hose:',
  'hose-inserted': 'Drain hose inside its pipe:',
};

const PROOF_WORDS: Record<ProofResult, string> = {
  good: 'Proved right',
  bad: 'Did not hold',
  planned: 'To be looked at after the next load',
};

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

const PROGRAMME_NAMES: Record<Programme, string> = {
  cool: 'cool',
  hot: 'hot',
  heavy: 'heavily soiled',
};

/**
 * An entry in a few words, for the log.
 * @param machine the machine it is of, for tasks that the household added
 */
export function sayEntry(entry: Entry | EntryDraft, machine?: Build): string {
  switch (entry.kind) {
    case 'load':
      return `${many(entry.count ?? 1, 'load')} counted${entry.programme ? ` (${PROGRAMME_NAMES[entry.programme]})` : ''}`;
    case 'done':
      return entry.task && knowsTask(machine, entry.task)
        ? taskOf(machine ?? NO_MACHINE, entry.task).name
        : 'Work done';
    case 'opened':
      return `Looked at, left alone: ${entry.station ? stationById(entry.station).name.toLowerCase() : 'a station'}`;
    case 'reading':
      return `${QUANTITY_NAMES[entry.quantity ?? ''] ?? entry.quantity ?? 'Reading'} ${entry.value} ${entry.unit}`;
    case 'code':
      return `Code on the display: ${entry.code}`;
    case 'replaced':
      return `Replaced: ${entry.station ? stationById(entry.station).name.toLowerCase() : 'a part'}`;
    case 'note':
      return 'Note';
    case 'habit':
      return LOAD_HABITS.find(({ id }) => id === entry.habit)?.name ?? 'A habit kept';
    case 'stock':
      return `Supply counted: ${entry.value} ${entry.unit ?? ''}`.trim();
    case 'bought':
      return `Supply bought: ${entry.value} ${entry.unit ?? ''}`.trim();
    case 'chemical':
      return `Used: ${sayProduct(entry.product)}`;
    case 'rinse':
      return entry.station
        ? `Rinsed: ${stationById(entry.station).name.toLowerCase()}`
        : 'A full rinse has run';
    case 'proof':
      return `${PROOF_WORDS[entry.result ?? 'good']}: ${entry.task && knowsTask(machine, entry.task) ? lowerFirst(taskOf(machine ?? NO_MACHINE, entry.task).name) : 'the work'}`;
    case 'case':
      return 'Case of trouble closed';
    case 'undone':
      return 'Undone';
  }
}

const NO_MACHINE: Build = { kind: 'front-load-washer', features: {} };
