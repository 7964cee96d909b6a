import type { Step } from '../care/catalogue/types.js';
import type { Entry, Household, Machine, Visit } from '../model/schemas.js';
import { KIND_NAMES } from '../model/vocabulary.js';
import { taskOf } from '../care/catalogue/lookup.js';
import { outcomeOf } from '../care/visit/progress.js';
import { planVisit } from '../care/visit/plan.js';
import { PHASE_NAMES } from '../care/visit/visit-step.js';
import { taskKey } from '../care/catalogue/set-ups.js';
import { dayOf, sayDay } from '../units/calendar.js';
import { detailOf, entryRow, type Sheet } from './sheet.js';

const MOST_PHOTOS = 6;

/** This machine's own way of a step, where it is kept. */
const wayOf = ({ way }: Step, { ways = {} }: Machine): string[] =>
  way && ways[way] ? [`This machine’s way: ${ways[way]}`] : [];

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
              rows: entries.map((entry) =>
                entryRow(entry, nameOf(entry.machineId!), household.units, today),
              ),
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
      .flatMap((task) =>
        (visit.progress.tasks[taskKey(task)]?.photos ?? []).map((id) => ({
          id,
          said: taskOf(nameOf(task.machineId), task.task).name,
        })),
      )
      .slice(0, MOST_PHOTOS),
  };
}
