import {
  isFinding,
  lastFigures,
  readCode,
  seenOf,
  situationOf,
  troubleStart,
  troubleView,
  type CodeReading,
  type FieldProblem,
  type Machine,
  type MachineKind,
  type Situation,
  type TroubleQuestion,
} from '@needlecase/core';
import Type from 'typebox';
import { invalid, notFound } from '../http/problem.js';
import type { Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import { householdOf } from './household.js';

/** What is likely wrong. Nothing is stored. */
export const troubleRoutes = (store: Store): Route[] => {
  const read = (code: string, machine: Machine | undefined): CodeReading | undefined =>
    machine && readCode(code, store.codeSheets.list(), machine);
  return [
    {
      method: 'post',
      path: '/api/v1/trouble/suspects',
      summary:
        'What is likely wrong with a machine, why, and what to look at next; nothing is stored',
      body: 'TroubleQuestion',
      reckons: true,
      answers: Type.Object({}, { title: 'TroubleView' }),
      handle: ({ body }) => {
        const question = body as TroubleQuestion;
        const { machineId, kind, features = {}, fouling, circumstances, answers, stops } = question;
        const machine = machineId === undefined ? undefined : store.machines.get(machineId);
        const problems = wrongIn(question, machine);
        if (problems.length) throw invalid(problems);
        const { situation, said } = machine
          ? knownOf(store, machine)
          : { situation: { kind: kind!, features } as Situation, said: {} };
        const reading = question.code === undefined ? undefined : read(question.code, machine);
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
    },
    {
      method: 'get',
      path: '/api/v1/machines/{id}/trouble',
      summary: 'What a person can tell of a machine in trouble, and what to ask first',
      answers: Type.Object({}, { title: 'TroubleStart' }),
      handle: ({ params }) => {
        const machine = store.machines.get(params.id);
        if (!machine) throw notFound('machine');
        const [history] = store.entries.histories([machine]);
        return {
          body: {
            ...troubleStart(machine.kind),
            ...knownOf(store, machine),
            figures: lastFigures(history!),
          },
        };
      },
    },
  ];
};

function wrongIn(question: TroubleQuestion, machine: Machine | undefined): FieldProblem[] {
  const { machineId, kind, answers, stops = [] } = question;
  if (machineId !== undefined && !machine) {
    return [{ field: 'machineId', message: 'There is no such machine.' }];
  }
  const known: MachineKind | undefined = machine?.kind ?? kind;
  if (!known) return [{ field: 'kind', message: 'Name a machine, or a kind of machine.' }];
  const rules = troubleStart(known).stops.map(({ id }) => id);
  return [
    ...(question.code !== undefined && !machine
      ? [{ field: 'code', message: 'A code is looked up for a machine: name it with machineId.' }]
      : []),
    ...Object.keys(answers)
      .filter((finding) => !isFinding(finding, known))
      .map((finding) => ({
        field: `answers.${finding}`,
        message: 'This kind of machine has no such symptom or check.',
      })),
    ...stops
      .filter((stop) => !rules.includes(stop))
      .map((stop) => ({ field: 'stops', message: `There is no stop rule "${stop}".` })),
  ];
}

/** What the household's records say of a machine in trouble, its vent runs among them. */
export function knownOf(store: Store, machine: Machine): ReturnType<typeof situationOf> {
  const [history] = store.entries.histories([machine]);
  const runs = store.ventRuns.list().filter(({ machineId }) => machineId === machine.id);
  return situationOf(
    machine,
    householdOf(store),
    history!,
    Date.now(),
    runs.map(({ run }) => run),
  );
}
