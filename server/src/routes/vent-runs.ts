import { inUnits, MeasureProblem, ventRun, ventRunOf, type VentRunDraft } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { invalid } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf } from '../work/household.js';
import { currentOf } from '../work/records.js';

/** Vent runs that are kept, to be compared and gone on with. */
export const ventRunRoutes = (store: Store): Route[] => {
  const told = () => store.changed({ topic: 'vent-runs' });
  const find = (id: string) => store.ventRuns.get(id);
  const right = (draft: VentRunDraft): VentRunDraft => {
    const { units } = householdOf(store);
    if (draft.machineId !== undefined && !store.machines.get(draft.machineId)) {
      throw invalid([{ field: 'machineId', message: 'There is no such machine.' }]);
    }
    try {
      ventRun(ventRunOf(draft.run));
    } catch (problem) {
      if (!(problem instanceof MeasureProblem)) throw problem;
      throw invalid(
        inUnits(problem.problems, units).map(({ field, message }) => ({
          field: `run.${field}`,
          message,
        })),
      );
    }
    return draft;
  };
  return [
    route({
      method: 'get',
      path: '/api/v1/vent-runs',
      summary: 'Every vent run that is kept',
      answers: Type.Array(schemas.KeptVentRun),
      handle: () => ({ body: store.ventRuns.list() }),
    }),
    route({
      method: 'post',
      path: '/api/v1/vent-runs',
      summary: 'Keep a vent run',
      body: 'VentRunDraft',
      answers: schemas.KeptVentRun,
      handle: ({ body }) => {
        mustHaveRoom(store.ventRuns.list().length, MOST.ventRuns, 'vent runs');
        const run = store.ventRuns.create(right(body));
        told();
        return { status: 201, body: run, version: run.version };
      },
    }),
    route({
      method: 'put',
      path: '/api/v1/vent-runs/{id}',
      summary: 'Change a vent run',
      body: 'VentRunDraft',
      guarded: true,
      answers: schemas.KeptVentRun,
      handle: (ask) => {
        const { id, version } = currentOf('vent run', find, ask);
        const run = store.ventRuns.replace(id, version, right(ask.body));
        told();
        return { body: run, version: run.version };
      },
    }),
    route({
      method: 'delete',
      path: '/api/v1/vent-runs/{id}',
      summary: 'Take a vent run away; it is answered with, so that it can be kept again',
      guarded: true,
      answers: schemas.KeptVentRun,
      handle: (ask) => {
        const run = currentOf('vent run', find, ask);
        store.ventRuns.remove(run.id);
        told();
        return { body: run };
      },
    }),
  ];
};
