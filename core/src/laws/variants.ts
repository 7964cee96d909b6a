import { TASKS } from '../care/catalogue/data/tasks.js';
import { featuresIn, procedureOf, setUpById, tasksOf } from '../care/catalogue/lookup.js';
import type { Task, When } from '../care/catalogue/types.js';
import type { VisitMachine } from '../care/visit/plan.js';
import type { Features } from '../model/schemas.js';
import { FEATURES, type FeatureId, type MachineKind } from '../model/vocabulary.js';

const ID = 'm';

/** The features on which the steps, set-ups and presence of some tasks of a kind depend. */
export function featuresRead(kind: MachineKind, tasks: readonly Task[]): FeatureId[] {
  const machine = { kind, features: {} };
  const conditions: (When | undefined)[] = tasks.flatMap((task) => {
    const { fetch, steps, putBack, proof } = procedureOf(machine, task.id);
    const uses = task.setups.map((use) => (typeof use === 'string' ? { id: use } : use));
    return [
      task.when,
      ...uses.map((use) => ('when' in use ? use.when : undefined)),
      ...[...fetch, ...steps, ...putBack, ...proof].map(({ when }) => when),
      ...uses.flatMap(({ id }) =>
        [...setUpById(id).steps, ...setUpById(id).undo].map(({ when }) => when),
      ),
    ];
  });
  const read = conditions.flatMap((when) => featuresIn(when, kind));
  return [...new Set(read)].sort();
}

/** Every machine of a kind, over the values of some features. */
export const variantsOver = (kind: MachineKind, features: readonly FeatureId[]): VisitMachine[] =>
  features
    .reduce<Features[]>(
      (all, id) => all.flatMap((one) => FEATURES[id].map((value) => ({ ...one, [id]: value }))),
      [{}],
    )
    .map((built) => ({ id: ID, kind, features: built }));

/** Machines of a kind in which each pair of values of two of its features occurs. */
export function coveringVariants(
  kind: MachineKind,
  features: readonly FeatureId[],
): VisitMachine[] {
  const open = new Set<string>();
  const pairsOf = (built: Record<string, string>) =>
    features.flatMap((a, i) =>
      features
        .slice(i + 1)
        .flatMap((b) =>
          built[a] !== undefined && built[b] !== undefined
            ? [`${a}=${built[a]};${b}=${built[b]}`]
            : [],
        ),
    );
  features.forEach((a, i) =>
    features.slice(i + 1).forEach((b) => {
      for (const x of FEATURES[a]) for (const y of FEATURES[b]) open.add(`${a}=${x};${b}=${y}`);
    }),
  );
  const found: VisitMachine[] = [];
  const gain = (built: Record<string, string>) =>
    pairsOf(built).filter((one) => open.has(one)).length;
  while (open.size > 0) {
    const [first] = open;
    const built: Record<string, string> = Object.fromEntries(
      first!.split(';').map((one) => one.split('=') as [string, string]),
    );
    for (const id of features) {
      if (built[id] !== undefined) continue;
      const best = [...FEATURES[id]]
        .map((value) => ({ value, gain: gain({ ...built, [id]: value }) }))
        .sort((p, q) => q.gain - p.gain)[0]!;
      built[id] = best.value;
    }
    for (const pair of pairsOf(built)) open.delete(pair);
    found.push({ id: ID, kind, features: built });
  }
  return found.length > 0 ? found : variantsOver(kind, features);
}

/** The tasks that a kind can have in any variant, without what is done with every load. */
export const tasksOfKind = (kind: MachineKind): Task[] =>
  TASKS.filter(({ kinds, habit }) => kinds.includes(kind) && !habit);

/** Whether a machine has a task. */
export const has = (machine: VisitMachine, task: Task): boolean =>
  tasksOf(machine).some(({ id }) => id === task.id);
