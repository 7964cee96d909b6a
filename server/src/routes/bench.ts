import {
  caseSummary,
  caseState,
  dayOf,
  due,
  habitRows,
  costOf,
  nextVisit,
  schoolYears,
  startOf,
  plusDays,
  productsUsed,
  shortFor,
  stateOf,
  questionsOf,
  limitDatesOf,
  total,
  why,
  type Due,
} from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { notFound } from '../http/problem.js';
import type { Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

/** What is derived from the log: the bench, and a machine's line. */
export const benchRoutes = (store: Store): Route[] => {
  return [
    {
      method: 'get',
      path: '/api/v1/bench',
      summary: 'What is due, every machine’s line, and the next visit',
      answers: Type.Object({}, { title: 'Bench' }),
      handle: () => {
        const household = householdOf(store);
        const now = Date.now();
        const today = dayOf(now, household.zone);
        const machines = store.machines.list();
        const histories = store.entries.histories(machines);
        const states = machines.map((machine, i) =>
          stateOf(machine, histories[i]!, household, now),
        );
        const midnight = startOf(today, household.zone);
        const weekAgo = startOf(plusDays(today, -6), household.zone);
        const loads = machines.map(({ id }, i) => {
          const since = (instant: number) => histories[i]!.usage.between(instant, now).counted;
          return { machineId: id, today: since(midnight), week: since(weekAgo) };
        });
        const visit = nextVisit(machines, states, today, household.visitMinutes);
        const supplies = store.supplies.list();
        return {
          body: {
            household,
            today,
            machines,
            states,
            loads,
            runs: store.runs.open(),
            cases: store.cases
              .list()
              .filter((one) => caseState(one).state !== 'closed')
              .map((one) => caseSummary(one, household.zone, today)),
            habits: machines.flatMap((machine, i) => habitRows(machine, histories[i]!, today)),
            products: productsUsed(histories),
            short:
              visit && supplies.length
                ? shortFor(visit, supplies, store.entries.stockEvents(), machines)
                : [],
            ...(visit ? { visit } : {}),
          },
        };
      },
    },
    {
      method: 'get',
      path: '/api/v1/machines/{id}/line',
      summary:
        'A machine’s line with the state of every station, and why each task is due when it is',
      answers: Type.Object({ machine: schemas.Machine }, { title: 'Line' }),
      handle: ({ params }) => {
        const household = householdOf(store);
        const machine = store.machines.get(params.id);
        if (!machine) throw notFound('machine');
        const now = Date.now();
        const today = dayOf(now, household.zone);
        const history = store.entries.histories([machine])[0]!;
        const questions = questionsOf(machine, history, household, now);
        return {
          body: {
            machine,
            today,
            state: stateOf(machine, history, household, now),
            habits: habitRows(machine, history, today),
            tasks: questions.map((question) => {
              const one = due(question);
              return { ...told(one), why: why(question.task, one, today, limitDatesOf(question)) };
            }),
          },
        };
      },
    },
    {
      method: 'get',
      path: '/api/v1/schools',
      summary:
        'What each school asks of this house in a year, and the chance of being late with it',
      answers: Type.Object({}, { title: 'Schools' }),
      handle: () => {
        const household = householdOf(store);
        const machines = store.machines.list();
        const histories = store.entries.histories(machines);
        const years = schoolYears({ household, machines, histories, now: Date.now() });
        const costs = years.map((year) => costOf(year, store.supplies.list()));
        return {
          body: { household, schools: years.map((year, i) => ({ ...year, ...costs[i]! })) },
        };
      },
    },
  ];
};

/** A due date without the engine's inner parts. */
function told(one: Due) {
  const { loads, ...rest } = one;
  return { ...rest, ...(loads ? { loads: total(loads) } : {}) };
}
