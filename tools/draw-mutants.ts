/*
 * npx tsx tools/draw-mutants.ts SEED COUNT: changed visits to be judged by hand before the laws are asked.
 * Prints each with its order, and as JSON for core/src/laws/mutants.json, with `judged` and `reason` open.
 */
import { randomLcg } from 'd3-random';
import { nameOf, type Mutant } from '../core/src/laws/mutants.js';
import { has, tasksOfKind } from '../core/src/laws/variants.js';
import { planVisit } from '../core/src/care/visit/plan.js';
import { FEATURES, MACHINE_KINDS, type FeatureId } from '../core/src/model/vocabulary.js';

const [seed = 1, count = 60] = process.argv.slice(2).map(Number);
const random = randomLcg(seed);
const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;

function draw(): {
  mutant: Pick<Mutant, 'kind' | 'features' | 'tasks' | 'change'>;
  order: string[];
} {
  const kind = pick(MACHINE_KINDS);
  const features = Object.fromEntries(
    (Object.keys(FEATURES) as FeatureId[]).map((id) => [id, pick<string>(FEATURES[id])]),
  );
  const machine = { id: 'm', kind, features };
  const possible = tasksOfKind(kind).filter((task) => has(machine, task));
  const size = Math.min(possible.length, 1 + Math.floor(random() * 3));
  const tasks = new Set<string>();
  while (tasks.size < size) tasks.add(pick(possible).id);
  const { steps } = planVisit(
    [...tasks].map((task) => ({ machineId: 'm', task })),
    [machine],
  );
  const order = steps.filter(({ step }) => !step.later).map(nameOf);
  const [a, b] = [pick(order), pick(order)];
  if (a === b) return draw();
  const change = pick<Mutant['change']>([{ drop: a }, { swap: [a, b] }, { double: a, after: b }]);
  return { mutant: { kind, features, tasks: [...tasks], change }, order };
}

const drawn = Array.from({ length: count }, draw);
drawn.forEach(({ mutant, order }, i) => {
  const { kind, features, change } = mutant;
  const { filterAccess, stacked, drainDownHose } = features;
  console.log(`${i} ${kind} ${filterAccess} stacked:${stacked} thin:${drainDownHose}`);
  console.log(`   ${JSON.stringify(change)}`);
  console.log(`   ${order.join(' ')}`);
});
console.log(JSON.stringify(drawn.map(({ mutant }) => mutant)));
