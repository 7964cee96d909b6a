import { Absence, type AbsenceDraft } from '@needlecase/core/model/planned';
import { checkAbsence } from '@needlecase/core/plan/planned-rules';
import Type from 'typebox';
import { mustBeRight } from '../http/problem.js';
import { route, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf } from '../work/household.js';
import { currentOf } from '../work/records.js';

/** Days on which nobody is at home. */
export const absenceRoutes = (store: Store): Route[] => {
  const told = () => store.changed({ topic: 'plan' });
  const find = (id: string) => store.absences.get(id);
  const right = (draft: AbsenceDraft, id?: string): AbsenceDraft => {
    householdOf(store);
    mustBeRight(
      checkAbsence(
        draft,
        store.absences.list().filter((one) => one.id !== id),
      ),
    );
    return draft;
  };
  return [
    route({
      method: 'get',
      path: '/api/v1/absences',
      summary: 'When nobody is at home',
      answers: Type.Array(Absence),
      handle: () => ({ body: store.absences.list() }),
    }),
    route({
      method: 'post',
      path: '/api/v1/absences',
      summary: 'Say when nobody is at home',
      body: 'AbsenceDraft',
      answers: Absence,
      handle: ({ body }) => {
        mustHaveRoom(store.absences.list().length, MOST.absences, 'spans of days away');
        const absence = store.absences.create(right(body));
        told();
        return { status: 201, body: absence, version: absence.version };
      },
    }),
    route({
      method: 'put',
      path: '/api/v1/absences/{id}',
      summary: 'Change days away',
      body: 'AbsenceDraft',
      guarded: true,
      answers: Absence,
      handle: (ask) => {
        const { id, version } = currentOf('span of days away', find, ask);
        const absence = store.absences.replace(id, version, right(ask.body, id));
        told();
        return { body: absence, version: absence.version };
      },
    }),
    route({
      method: 'delete',
      path: '/api/v1/absences/{id}',
      summary: 'Take days away back; they are answered with',
      guarded: true,
      answers: Absence,
      handle: (ask) => {
        const absence = currentOf('span of days away', find, ask);
        store.absences.remove(absence.id);
        told();
        return { body: absence };
      },
    }),
  ];
};
