import { PROCEDURES } from '../care/catalogue/data/procedures/index.js';
import type { Fetch, Task } from '../care/catalogue/types.js';
import { planVisit, type VisitMachine } from '../care/visit/plan.js';
import { FEATURES, MACHINE_KINDS, type FeatureId, type MachineKind } from '../model/vocabulary.js';
import { brokenInVisit, type Broken, type Start } from './check-visit.js';
import { coveringVariants, featuresRead, has, tasksOfKind, variantsOver } from './variants.js';

/** A visit that breaks a law. */
export interface Found extends Broken {
  machine: VisitMachine;
  tasks: readonly string[];
  start: Start;
}

/** What is fetched that holds an acid, or may hold chlorine. */
const holding = (kind: Fetch['holds']): Set<string> =>
  new Set(
    PROCEDURES.flatMap(({ fetch }) => fetch.flatMap((one) => (one.holds === kind ? one.what : []))),
  );

/** What a sweep went over. */
export interface Sweep {
  visits: number;
  /** Plans that are not equal to one before. */
  plans: number;
  found: Found[];
}

/** Goes over visits, and checks equal plans once. */
export class Sweeper {
  readonly #seen = new Set<string>();
  readonly result: Sweep = { visits: 0, plans: 0, found: [] };

  check(machine: VisitMachine, tasks: readonly Task[]): void {
    const { steps, fetch } = planVisit(
      tasks.map(({ id }) => ({ machineId: machine.id, task: id })),
      [machine],
    );
    this.result.visits++;
    const plan = [machine.kind, machine.features.filterAccess, ...steps.map(({ key }) => key)].join(
      ' ',
    );
    if (this.#seen.has(plan)) return;
    this.#seen.add(plan);
    this.result.plans++;
    const carried = (kind: Fetch['holds']) => fetch.some(({ what }) => holding(kind).has(what));
    if (carried('acid') && carried('chlorine')) {
      const broken = { law: 'products meet', at: 'fetch', what: 'acid and chlorine' } as const;
      this.result.found.push({
        ...broken,
        machine,
        tasks: tasks.map(({ id }) => id),
        start: 'usual',
      });
    }
    for (const broken of brokenInVisit({ steps }, [machine])) {
      this.result.found.push({ ...broken, machine, tasks: tasks.map(({ id }) => id) });
    }
  }
}

/** Every task alone, in every variant of its machine that its steps and set-ups tell apart. */
export function sweepSingles(
  sweeper: Sweeper,
  kinds: readonly MachineKind[] = MACHINE_KINDS,
): void {
  for (const kind of kinds) {
    for (const task of tasksOfKind(kind)) {
      for (const machine of variantsOver(kind, featuresRead(kind, [task]))) {
        if (has(machine, task)) sweeper.check(machine, [task]);
      }
    }
  }
}

/**
 * Every mixture of so many tasks; their number is `size`.
 * @param size 2 or more
 * @param all in every variant; else on machines in which each pair of feature values occurs
 */
export function sweepMixtures(
  sweeper: Sweeper,
  size: number,
  all = false,
  kinds: readonly MachineKind[] = MACHINE_KINDS,
): void {
  for (const kind of kinds) {
    for (const tasks of subsets(tasksOfKind(kind), size)) {
      const features = featuresRead(kind, tasks);
      for (const machine of (all ? variantsOver : coveringVariants)(kind, features)) {
        if (tasks.every((task) => has(machine, task))) sweeper.check(machine, tasks);
      }
    }
  }
}

function subsets<T>(all: readonly T[], size: number): T[][] {
  if (size === 0) return [[]];
  return all.flatMap((one, i) => subsets(all.slice(i + 1), size - 1).map((rest) => [one, ...rest]));
}

/**
 * Visits drawn at random: three to eight tasks of any machine.
 * @param random from 0 to 1
 * @param count how many
 */
export function sweepRandom(
  sweeper: Sweeper,
  random: () => number,
  count: number,
  kinds: readonly MachineKind[] = MACHINE_KINDS,
): void {
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
  for (let i = 0; i < count; i++) {
    const kind = pick(kinds);
    const features = Object.fromEntries(
      (Object.keys(FEATURES) as FeatureId[]).map((id) => [id, pick<string>(FEATURES[id])]),
    );
    const machine = { id: 'm', kind, features };
    const tasks = tasksOfKind(kind).filter((task) => has(machine, task));
    const size = Math.min(tasks.length, 3 + Math.floor(random() * 6));
    const chosen = new Set<Task>();
    while (chosen.size < size) chosen.add(pick(tasks));
    sweeper.check(machine, [...chosen]);
  }
}

/** A report to read: each fault once, with how often and the smallest visit that shows it. */
export function report({ visits, plans, found }: Sweep): string {
  const kinds = new Map<string, { times: number; example: Found }>();
  for (const one of found) {
    const name = `${one.law}: ${one.at}: ${one.what.replaceAll(/[\d.]+/g, '#')}`;
    const known = kinds.get(name);
    if (!known) kinds.set(name, { times: 1, example: one });
    else {
      known.times++;
      if (one.tasks.length < known.example.tasks.length) known.example = one;
    }
  }
  const lines = [...kinds].map(
    ([
      name,
      {
        times,
        example: { machine, tasks, start },
      },
    ]) => {
      const built = Object.entries(machine.features)
        .map(([id, value]) => `${id} ${String(value)}`)
        .join(', ');
      return `${String(times).padStart(6)}  ${name}\n        ${tasks.join(' + ')} on a ${machine.kind} (${built}), met ${start}`;
    },
  );
  return [
    `${visits} visits, ${plans} different plans, ${kinds.size} kinds of fault`,
    ...lines,
  ].join('\n');
}
