/*
 * npm run check:procedures [-- --all]: every visit against the laws of the machine's world, with a report
 * to read. With --all: every pair in every variant, threes and fours on covering sets, and 20,000 at random.
 */
import { randomLcg } from 'd3-random';
import { MUTANTS } from '../core/src/laws/data/mutants.js';
import { brokenInVisit } from '../core/src/laws/check-visit.js';
import { mutated } from '../core/src/laws/mutants.js';
import {
  report,
  Sweeper,
  sweepMixtures,
  sweepRandom,
  sweepSingles,
} from '../core/src/laws/sweep.js';
import { planVisit } from '../core/src/care/visit/plan.js';
import { MACHINE_KINDS } from '../core/src/model/vocabulary.js';

const all = process.argv.includes('--all');
const begun = Date.now();
const seconds = () => Math.round((Date.now() - begun) / 1000);
const sweeper = new Sweeper();

/** A tower has all the work of a washer and of a dryer: its mixtures are sampled. */
const APART = MACHINE_KINDS.filter((kind) => kind !== 'tower');

const parts: [string, () => void][] = [
  ['every task alone, in every variant', () => sweepSingles(sweeper)],
  ['every pair', () => sweepMixtures(sweeper, 2, all, all ? APART : undefined)],
  ['visits at random', () => sweepRandom(sweeper, randomLcg(2026), all ? 20_000 : 2000)],
];
if (all) {
  parts.push(['every pair of a tower', () => sweepMixtures(sweeper, 2, false, ['tower'])]);
  parts.push(['towers at random', () => sweepRandom(sweeper, randomLcg(7), 10_000, ['tower'])]);
  parts.push(['every three', () => sweepMixtures(sweeper, 3, false, APART)]);
  parts.push(['every four', () => sweepMixtures(sweeper, 4, false, APART)]);
}
for (const [name, run] of parts) {
  run();
  const { visits, plans, found } = sweeper.result;
  console.log(
    `${name}: ${visits} visits so far, ${plans} plans, ${found.length} faults, ${seconds()} s`,
  );
}
console.log(`\n${report(sweeper.result)}\n`);

const judged = MUTANTS.map((mutant) => {
  const machine = { id: 'm', kind: mutant.kind, features: mutant.features };
  const tasks = mutant.tasks.map((task) => ({ machineId: 'm', task }));
  const steps = mutated(planVisit(tasks, [machine]).steps, mutant.change);
  return { ...mutant, caught: brokenInVisit({ steps }, [machine]).length > 0 };
});
const wrong = judged.filter(({ judged: how }) => how === 'wrong');
const harmless = judged.filter(({ judged: how }) => how === 'harmless');
const missed = wrong.filter(({ caught }) => !caught);
const alarms = harmless.filter(({ caught }) => caught);
console.log(
  `Of ${wrong.length} visits made wrong ${wrong.length - missed.length} are caught; ${alarms.length} false alarms at ${harmless.length} harmless ones.`,
);
for (const [name, some] of [
  ['missed', missed],
  ['false alarm', alarms],
] as const) {
  for (const { change, reason } of some)
    console.log(`${name}: ${JSON.stringify(change)}: ${reason}`);
}
process.exit(sweeper.result.found.length > 0 || missed.length > wrong.length / 20 ? 1 : 0);
