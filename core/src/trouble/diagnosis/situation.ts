import { setUpIdsOf, tasksOf } from '../../care/catalogue/lookup.js';
import type { Build } from '../../care/catalogue/types.js';
import { dueSummary, type DueSummary } from '../../care/schedule/summary.js';
import { duesOf } from '../../care/schedule/dues.js';
import type { History, Measured } from '../../care/record/history.js';
import { ventRunOf } from '../../measure/air/vent-input.js';
import { ventRun } from '../../measure/air/vent-run.js';
import { againstOwn } from '../../measure/phone/against-own.js';
import { TURNS_FROM } from '../../measure/phone/tilt.js';
import { HOSE_READINGS, metresOfReading } from '../../measure/input/readings.js';
import { VERY_HARD_FROM } from '../../measure/water/scale.js';
import { hoseFaults, type HoseFault } from '../../measure/water/standpipe.js';
import type { VentRunInput } from '../../model/vent-runs.js';
import type { QuantityId } from '../../model/quantities.js';
import type { Household, Machine } from '../../model/schemas.js';
import type { TroubleCircumstance } from '../../model/vocabulary.js';
import { dayOf, daysBetween, MS_PER_DAY } from '../../units/calendar.js';
import type { Situation } from './priors.js';

/** Days after work at the filter in which a drip is likelier to come of it. */
const FILTER_WORK_DAYS = 3;
/** Days after the machine was moved in which kinks and feet are likelier. */
const MOVED_DAYS = 14;
const OLD_DAYS = 10 * 365;
const FILTER_TASKS = ['pump-filter', 'drain-stale'];
/** Tasks for which a machine is pulled out. */
const movingTasks = (machine: Build): string[] =>
  tasksOf(machine)
    .filter((task) => setUpIdsOf(task, machine).includes('pulled-out'))
    .map(({ id }) => id);

/** What is wrong with the seat of the hose, by what was measured since the machine was last moved. */
function hoseSeat(machine: Build, { latest, openings }: History): HoseFault[] {
  const moved = Math.max(
    ...movingTasks(machine).map((task) => openings.get(task)?.lastCleaned?.at ?? -Infinity),
  );
  const metres = (name: keyof typeof HOSE_READINGS): number | undefined => {
    const measured = latest.get(HOSE_READINGS[name]);
    return measured && measured.at > moved ? metresOfReading(measured.value) : undefined;
  };
  return hoseFaults({ hoseTop: metres('hoseTop'), inserted: metres('inserted') });
}

/** Days for which a phone’s figure of how a machine stands is believed. Judgement. */
const TILT_DAYS = 180;

/** Whether a phone found a machine off level since its feet were last set and it was last moved. */
function isTilted(machine: Build, { latest, openings }: History, now: number): boolean {
  const set = [...movingTasks(machine), 'level'].map(
    (task) => openings.get(task)?.lastCleaned?.at ?? -Infinity,
  );
  const tilt = latest.get('phone-tilt');
  return (
    tilt !== undefined &&
    tilt.at > Math.max(...set) &&
    now - tilt.at <= TILT_DAYS * MS_PER_DAY &&
    tilt.value > TURNS_FROM
  );
}

/** Whether its latest spin shook a phone clearly harder than that phone’s spins before it. */
function shakesMore({ readings }: History): boolean {
  const shakes = figuresOf(readings, 'spin-shake').sort((a, b) => a.at - b.at);
  const last = shakes.at(-1);
  const before = shakes.slice(0, -1).filter(({ taken }) => taken === last?.taken);
  const against = last && againstOwn('spin-shake', last.value, before);
  return against?.is === 'worse';
}

const figuresOf = (readings: History['readings'], quantity: QuantityId): Measured[] =>
  [...readings.values()].flat().filter((one) => one.quantity === quantity);

/** Whether every vent run laid out for a machine is longer than it may be. */
const isTooLong = (runs: readonly VentRunInput[]): boolean =>
  runs.length > 0 && runs.every((run) => !ventRun(ventRunOf(run)).code.passes);

/** What a household's own records say of a machine before anybody tells a symptom. */
export function situationOf(
  machine: Machine,
  household: Household,
  history: History,
  now: number,
  runs: readonly VentRunInput[] = [],
): { situation: Situation; said: Record<string, string> } {
  const today = dayOf(now, household.zone);
  const dues = duesOf(machine, history, household, now);
  const fouling: Record<string, number> = {};
  const said: Record<string, string> = {};
  for (const one of dues) {
    if (!one.fouling) continue;
    fouling[one.task] = one.fouling.median;
    const { name, why }: DueSummary = dueSummary(machine, one, today);
    said[one.task] = `${name}: ${why.replace(/\.$/, '')}`;
  }
  const doneWithin = (tasks: readonly string[], days: number): boolean =>
    tasks.some((task) => {
      const last = history.openings.get(task)?.lastCleaned;
      return last !== undefined && now - last.at <= days * MS_PER_DAY;
    });
  const seat = hoseSeat(machine, history);
  const { features, habits, inUseSince } = machine;
  const holding: [TroubleCircumstance, boolean][] = [
    ['filter-work', doneWithin(FILTER_TASKS, FILTER_WORK_DAYS)],
    ['moved', doneWithin(movingTasks(machine), MOVED_DAYS)],
    ['sheets', habits.includes('softener')],
    ['overdose', habits.includes('overdose')],
    ['hard-water', (household.hardness ?? 0) > VERY_HARD_FROM],
    ['riser', features.riser === 'yes'],
    ['cold-room', features.room === 'unheated'],
    ['long-run', isTooLong(runs)],
    ['hose-siphons', seat.includes('siphon') || seat.includes('too-deep')],
    ['hose-loose', seat.includes('slips-out')],
    ['tilted', isTilted(machine, history, now)],
    ['shakes-more', shakesMore(history)],
    ['old', inUseSince !== undefined && daysBetween(inUseSince, today) > OLD_DAYS],
  ];
  const circumstances = holding.flatMap(([circumstance, holds]) => (holds ? circumstance : []));
  return {
    situation: { kind: machine.kind, features, fouling, circumstances },
    said,
  };
}
