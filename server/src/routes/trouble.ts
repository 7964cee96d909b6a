import {
  checkTroubleQuestion,
  lastFigures,
  likelyTrouble,
  proofsGiven,
  readCode,
  seenOf,
  troubleStart,
  troubleView,
  type LikelyTrouble,
  type Situation,
} from '@needlecase/core';
import { mustBeRight } from '../http/problem.js';
import { route, workedRoute, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { knownOf } from '../work/cases.js';
import { inHouse, machineOf } from '../work/household.js';
import { Answered, inSteps } from '../work/steps.js';

/** How likely each symptom of each machine is, a machine a step. */
function* likelyOf(store: Store): Generator<undefined, LikelyTrouble[]> {
  const all: LikelyTrouble[] = [];
  for (const machine of inHouse(store)) {
    all.push(likelyTrouble(machine.id, knownOf(store, machine).situation));
    yield;
  }
  return all;
}

/** What is likely wrong. Nothing is stored. */
export const troubleRoutes = (
  store: Store,
  likely = new Answered(store, async () => inSteps(likelyOf(store))),
): Route[] => [
  route({
    method: 'post',
    path: '/api/v1/trouble/suspects',
    summary:
      'What is likely wrong with a machine, why, and what to look at next; nothing is stored',
    body: 'TroubleQuestion',
    reckons: true,
    answers: 'Trouble',
    handle: ({ body: question }) => {
      const { machineId, kind, features = {}, fouling, circumstances, answers, stops } = question;
      const machine = machineId === undefined ? undefined : store.machines.get(machineId);
      mustBeRight(checkTroubleQuestion(question, machine));
      const { situation, said } = machine
        ? knownOf(store, machine)
        : { situation: { kind: kind!, features } satisfies Situation, said: {} };
      const reading =
        question.code !== undefined && machine
          ? readCode(question.code, store.codeSheets.list(), machine)
          : undefined;
      const seen = [
        ...(question.codes ?? []),
        ...(reading?.is === 'found' ? [seenOf(reading.match.row)] : []),
      ];
      const whole: Situation = {
        ...situation,
        ...(fouling ? { fouling: { ...situation.fouling, ...fouling } } : {}),
        ...(circumstances ? { circumstances } : {}),
        ...(seen.length ? { codes: seen } : {}),
      };
      const view = troubleView(whole, answers, stops, said);
      return { status: 200, body: { ...view, ...(reading ? { code: reading } : {}) } };
    },
  }),
  workedRoute({
    path: '/api/v1/trouble/likely',
    summary: 'How likely each symptom of each machine is to be told, by its state now',
    answers: 'LikelyTrouble',
    handle: () => likely.get(),
  }),
  route({
    method: 'get',
    path: '/api/v1/machines/{id}/trouble',
    summary: 'What a person can tell of a machine in trouble, and what to ask first',
    answers: 'TroubleStart',
    handle: ({ params }) => {
      const machine = machineOf(store, params.id);
      const [history] = store.entries.histories([machine]);
      return {
        body: {
          ...troubleStart(machine.kind),
          ...knownOf(store, machine),
          figures: lastFigures(history!),
          proofs: proofsGiven(machine, history!),
        },
      };
    },
  }),
];
