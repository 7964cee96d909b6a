import {
  entriesOf,
  tasksOf,
  type FieldProblem,
  type Machine,
  type Visit,
  type VisitChange,
  type VisitDraft,
} from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid, notFound, ProblemError, stale } from '../http/problem.js';
import type { Ask, Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { undoing } from './entries.js';
import { householdOf } from './household.js';

const FinishedVisit = Type.Object({ run: schemas.Visit, entries: Type.Array(schemas.Entry) });

export const visitRoutes = (store: Store): Route[] => {
  const known = ({ params }: Ask): Visit => {
    const run = store.runs.get(params.id);
    if (!run) throw notFound('run');
    return run;
  };
  const told = (run: Visit) => store.changed({ topic: 'runs', id: run.id });

  return [
    {
      method: 'get',
      path: '/api/v1/runs',
      summary: 'Runs begun and not ended',
      answers: Type.Array(schemas.Visit),
      handle: () => ({ body: store.runs.open() }),
    },
    {
      method: 'post',
      path: '/api/v1/runs',
      summary: 'Begin a run of some tasks',
      body: 'VisitDraft',
      answers: schemas.Visit,
      handle: ({ body }) => {
        const draft = body as VisitDraft;
        const problems = wrongTasks(draft, store.machines.list());
        if (problems.length) throw invalid(problems);
        const run = store.runs.create(draft);
        told(run);
        return { status: 201, body: run, version: run.version };
      },
    },
    {
      method: 'get',
      path: '/api/v1/runs/{id}',
      summary: 'One run',
      answers: schemas.Visit,
      handle: (ask) => {
        const run = known(ask);
        return { body: run, version: run.version };
      },
    },
    {
      method: 'patch',
      path: '/api/v1/runs/{id}',
      summary: 'Keep the progress of a run; pause it, go on, or give it up',
      body: 'VisitChange',
      guarded: true,
      answers: schemas.Visit,
      handle: (ask) => {
        const run = known(ask);
        if (run.version !== ask.version) throw stale(run, ask.body);
        if (run.state === 'finished') {
          throw new ProblemError(409, 'This run is finished.', { current: run, yours: ask.body });
        }
        const changed = store.runs.change(run, ask.body as VisitChange);
        told(changed);
        return { body: changed, version: changed.version };
      },
    },
    {
      method: 'post',
      path: '/api/v1/runs/{id}/finish',
      summary: 'Finish a run: what was done and measured is recorded',
      answers: FinishedVisit,
      handle: (ask) => {
        const run = known(ask);
        if (run.state === 'finished') {
          return { body: { run, entries: store.entries.ofVisit(run.id) }, version: run.version };
        }
        const { zone } = householdOf(store);
        const machines = store.machines.list();
        const origin = { zone, author: 'household', runId: run.id };
        const entries = entriesOf(run, machines, Date.now()).map((draft) =>
          store.entries.add(draft, origin),
        );
        const finished = store.runs.change(run, { state: 'finished' });
        told(finished);
        store.changed({ topic: 'entries' });
        return { body: { run: finished, entries }, version: finished.version };
      },
    },
    {
      method: 'post',
      path: '/api/v1/runs/{id}/undo',
      summary: 'Take a finished run back: its entries are undone, and it can go on',
      answers: schemas.Visit,
      handle: (ask) => {
        const run = known(ask);
        if (run.state !== 'finished') {
          throw new ProblemError(409, 'This run is not finished.', { current: run });
        }
        const { zone } = householdOf(store);
        for (const entry of store.entries.ofVisit(run.id)) {
          store.entries.add(undoing(entry), { zone, author: 'household', revises: entry.id });
        }
        const open = store.runs.change(run, { state: 'paused' });
        told(open);
        store.changed({ topic: 'entries' });
        return { body: open, version: open.version };
      },
    },
  ];
};

function wrongTasks({ tasks }: VisitDraft, machines: readonly Machine[]): FieldProblem[] {
  return tasks.flatMap(({ machineId, task }, index): FieldProblem[] => {
    const machine = machines.find(({ id }) => id === machineId);
    if (!machine) {
      return [{ field: `tasks.${index}.machineId`, message: 'There is no such machine.' }];
    }
    return tasksOf(machine).some(({ id }) => id === task)
      ? []
      : [{ field: `tasks.${index}.task`, message: 'This machine has no such task.' }];
  });
}
