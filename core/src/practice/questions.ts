import {
  cautionsFor,
  holds,
  procedureOf,
  setUpById,
  setUpIdsOf,
  taskById,
  tasksOf,
} from '../care/catalogue/lookup.js';
import { planVisit } from '../care/visit/plan.js';
import type { VisitStep } from '../care/visit/visit-step.js';
import { spoken } from '../regions/spoken.js';
import type { PracticeMachine } from './case.js';
import { chancesFor } from './chance.js';

/** What is asked of a visit. */
export const ABOUTS = ['fetch', 'first', 'stop', 'look', 'proof'] as const;
export type About = (typeof ABOUTS)[number];

/** A question with what may be answered. */
export interface PracticeQuestion {
  /** The same question of the same kind of machine has the same: it is remembered by it. */
  id: string;
  about: About;
  ask: string;
  options: readonly string[];
  /** Index of the right one. */
  right: number;
  /** Why it is so. */
  because: string;
}

const WRONG = 3;

/** The id of a question. */
export const questionId = (
  { kind }: Pick<PracticeMachine, 'kind'>,
  task: string,
  about: About,
): string => `${kind}/${task}/${about}`;

/** What a question is about, by its id; nothing where it is of no task that there is. */
export function questionOf(
  id: string,
  machine: PracticeMachine,
): { task: string; about: About } | undefined {
  const [kind, task = '', about] = id.split('/');
  const known = tasksOf(machine).some((one) => one.id === task);
  const asked = ABOUTS.find((one) => one === about);
  return kind === machine.kind && known && asked ? { task, about: asked } : undefined;
}

const ASKS: Record<About, (name: string) => string> = {
  fetch: (name) => `${name}: what do you fetch for it?`,
  first: (name) => `${name}: what comes first?`,
  stop: (name) => `${name}: which caution stands at one of its steps?`,
  look: (name) => `${name}: what do you look at?`,
  proof: (name) => `${name}: how do you know that it is right?`,
};
const BECAUSE: Record<'fetch' | 'stop', string> = spoken({
  fetch: 'Whoever has to go and look for it leaves a machine open, or a floor wet.',
  stop: 'It stands where somebody is hurt, or the floor flooded, without it.',
});

/**
 * Five questions made of the visit that does a task on a machine built so; fewer where the task has less to ask.
 * @param seed of their order and of what stands beside the right answer, a number
 * @throws RangeError for an unknown task
 */
export function visitQuestions(
  machine: PracticeMachine,
  task: string,
  seed: number,
): PracticeQuestion[] {
  return ABOUTS.flatMap((about) => questionAbout(machine, task, about, seed) ?? []);
}

/** One of them; nothing where the task has nothing to ask of it. @param seed as of all of them, a number */
export function questionAbout(
  machine: PracticeMachine,
  task: string,
  about: About,
  seed: number,
): PracticeQuestion | undefined {
  const random = chancesFor(seed, `question ${task} ${about}`);
  const answers = answersOf(machine, task, about);
  const right = drawn(answers.right, 1, random)[0];
  if (!right) return undefined;
  const taken = new Set(answers.right.map(({ say }) => say));
  const wrong = drawn(
    answers.wrong.filter((say) => !taken.has(say)),
    WRONG,
    random,
  );
  if (wrong.length === 0) return undefined;
  const options = drawn([right.say, ...wrong], WRONG + 1, random);
  return {
    id: questionId(machine, task, about),
    about,
    ask: ASKS[about](taskById(task).name),
    options,
    right: options.indexOf(right.say),
    because: right.because,
  };
}

/** Some of all, in some order, each once. */
function drawn<T>(all: readonly T[], most: number, random: () => number): T[] {
  const left = [...new Set(all)];
  const some: T[] = [];
  while (some.length < most && left.length > 0) {
    some.push(...left.splice(Math.floor(random() * left.length), 1));
  }
  return some;
}

interface Answers {
  right: { say: string; because: string }[];
  wrong: string[];
}

const stepsFor = (machine: PracticeMachine, task: string): VisitStep[] =>
  planVisit([{ machineId: 'practice', task }], [{ ...machine, id: 'practice' }]).steps;

function answersOf(machine: PracticeMachine, task: string, about: About): Answers {
  const steps = stepsFor(machine, task);
  const own = procedureOf(machine, task);
  const others = tasksOf(machine)
    .map(({ id }) => id)
    .filter((id) => id !== task && !taskById(task).covers?.includes(id));
  switch (about) {
    case 'fetch': {
      const of = (id: string): string[] => [
        ...setUpIdsOf(taskById(id), machine).flatMap((setUp) => setUpById(setUp).fetch),
        ...procedureOf(machine, id)
          .fetch.filter(({ when }) => holds(when, machine))
          .map(({ what }) => what),
      ];
      return {
        right: of(task).map((say) => ({ say, because: BECAUSE.fetch })),
        wrong: others.flatMap(of),
      };
    }
    case 'first': {
      const [first, ...later] = steps.filter(({ step }) => !step.later);
      return {
        right: first ? [{ say: first.step.do, because: first.step.why }] : [],
        wrong: later.map(({ step }) => step.do),
      };
    }
    case 'stop': {
      const here = [...new Set(steps.flatMap(({ cautions }) => cautions))];
      const there = others.flatMap((id) =>
        procedureOf(machine, id).steps.flatMap(({ hazards }) => cautionsFor(machine, hazards)),
      );
      return { right: here.map((say) => ({ say, because: BECAUSE.stop })), wrong: there };
    }
    case 'look': {
      const looks = [...own.steps, ...own.putBack].filter(
        ({ when, look }) => look && holds(when, machine),
      );
      return {
        right: looks.map(({ look, do: what }) => ({ say: look!, because: what })),
        wrong: others.flatMap((id) =>
          procedureOf(machine, id).steps.flatMap(({ look }) => look ?? []),
        ),
      };
    }
    case 'proof': {
      const proofs = own.proof.filter(({ when }) => holds(when, machine));
      return {
        right: proofs.map(({ do: say, why }) => ({ say, because: why })),
        wrong: others.flatMap((id) =>
          procedureOf(machine, id)
            .proof.filter(({ when }) => holds(when, machine))
            .map(({ do: say }) => say),
        ),
      };
    }
  }
}
