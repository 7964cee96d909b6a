import { knowsTask, taskOf } from '@needlecase/core';
import * as schemas from '@needlecase/core/model/schemas';
import { PlannedVisit, type PlannedChange } from '@needlecase/core/model/planned';
import { checkPlanned } from '@needlecase/core/plan/planned-rules';
import Type from 'typebox';
import { invalid, mustBeRight } from '../http/problem.js';
import { route, workedRoute, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { householdOf, machineOf } from '../work/household.js';
import type { PlanAnswer } from '../work/plan-answer.js';
import type { Planner } from '../work/planner.js';
import { currentOf } from '../work/records.js';

/** The year ahead: as it is planned, as it could be, and what is laid down by hand. */
export const planRoutes = (store: Store, planner: Planner, plan: PlanAnswer): Route[] => {
  const told = () => store.changed({ topic: 'plan' });
  return [
    workedRoute({
      path: '/api/v1/plan',
      summary: 'The year ahead: visits on days, what they ask and save, and what is left at risk',
      query: 'SectionQuery',
      answers: 'Plan',
      handle: ({ query: { section } }) => plan.answer(section),
    }),
    workedRoute({
      path: '/api/v1/plan/ahead',
      summary: 'The visits of the next nine weeks, and when nobody is there',
      query: 'SectionQuery',
      answers: 'PlanAhead',
      handle: async ({ query: { section } }) => ({ body: await plan.ahead(section) }),
    }),
    workedRoute({
      path: '/api/v1/plan/problem',
      summary: 'What there is to plan, as it could be with another rhythm, other days or minutes',
      query: 'PlanQuery',
      answers: 'PlanProblem',
      handle: async ({ query }) => ({ body: await planner.problem(query) }),
    }),
    route({
      method: 'put',
      path: '/api/v1/plan/visits/{id}',
      summary:
        'Move a planned visit or some of its work, pin it, give it to somebody, leave it out',
      body: 'PlannedChange',
      guarded: true,
      answers: PlannedVisit,
      handle: (ask) => {
        householdOf(store);
        const visit = currentOf('planned visit', (id) => store.planned.get(id), ask);
        const others = store.planned.list().filter(({ id, done }) => id !== visit.id && !done);
        mustBeRight(checkPlanned(ask.body, visit, planner.problemAround(visit), others));
        const changed = change(store, visit, ask.body);
        told();
        return { body: changed, version: changed.version };
      },
    }),
    route({
      method: 'put',
      path: '/api/v1/plan/rhythms',
      summary: 'Take a plan: how often each task is done by it; with none, the rhythms hold again',
      body: 'PlanTaken',
      answers: Type.Array(schemas.Machine),
      handle: ({ body: { rhythms } }) => {
        householdOf(store);
        const byMachine = new Map<
          string,
          Record<string, { every: number; unit: 'loads' | 'days' }>
        >();
        rhythms.forEach(({ machineId, task, every, unit }, i) => {
          const machine = machineOf(store, machineId);
          if (!knowsTask(machine, task)) {
            throw invalid([
              { field: `rhythms.${i}.task`, message: 'This machine has no such task.' },
            ]);
          }
          if (taskOf(machine, task).safety) {
            throw invalid([
              {
                field: `rhythms.${i}.task`,
                message: 'This task keeps people safe: no plan changes how often it is done.',
              },
            ]);
          }
          byMachine.set(machineId, { ...byMachine.get(machineId), [task]: { every, unit } });
        });
        const changed = store.machines.list().flatMap((machine) => {
          const { id, version, ...draft } = machine;
          const planned = byMachine.get(id) ?? {};
          const rules = rulesWith(draft.rules ?? {}, planned);
          if (JSON.stringify(rules) === JSON.stringify(draft.rules ?? {})) return [];
          return [store.machines.replace(id, version, { ...draft, rules })];
        });
        const { id, version, ...draft } = householdOf(store);
        if (!draft.plan?.asked) {
          store.household.replace(id, version, { ...draft, plan: { ...draft.plan, asked: true } });
          store.changed({ topic: 'household' });
        }
        for (const { id } of changed) store.changed({ topic: 'machines', id });
        told();
        return { body: changed };
      },
    }),
  ];
};

type Rules = NonNullable<schemas.Machine['rules']>;

/** Rules of a machine with what a plan gives its tasks; what an earlier plan gave goes. */
function rulesWith(
  rules: Rules,
  planned: Record<string, NonNullable<Rules[string]['planned']>>,
): Rules {
  const tasks = new Set([...Object.keys(rules), ...Object.keys(planned)]);
  return Object.fromEntries(
    [...tasks].flatMap((task) => {
      const { planned: _before, ...rule } = rules[task] ?? {};
      const now = planned[task] ? { ...rule, planned: planned[task] } : rule;
      return Object.keys(now).length ? [[task, now]] : [];
    }),
  );
}

/** Lays a change down: of part of its work it makes a visit of its own. */
function change(store: Store, visit: PlannedVisit, asked: PlannedChange): PlannedVisit {
  const now = Date.now();
  const { id, version, changedAt: _at, ...before } = visit;
  const { day = before.day, tasks = before.tasks, who, held, skipped } = asked;
  const whole = tasks.length >= before.tasks.length;
  const { who: _who, held: _held, skipped: _skipped, ...rest } = before;
  const byHand = { ...rest, day, tasks };
  const laid = {
    ...byHand,
    ...nonEmpty('who', who ?? before.who),
    ...((held ?? (asked.day !== undefined || !whole ? true : before.held)) ? { held: true } : {}),
    ...nonEmpty('skipped', skipped ?? before.skipped),
  };
  if (whole) return store.planned.replace(id, version, laid, now);
  const left = before.tasks.filter(
    (one) => !tasks.some(({ machineId, task }) => machineId === one.machineId && task === one.task),
  );
  store.planned.replace(id, version, { ...before, tasks: left, held: true }, now);
  return store.planned.add(laid, now);
}

const nonEmpty = <K extends string>(name: K, value: string | undefined) =>
  (value ? { [name]: value } : {}) as Partial<Record<K, string>>;
