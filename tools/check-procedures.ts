/*
 * npm run check:procedures [-- --all]: every visit against the laws of the machine's world, with a report
 * to read. With --all: every pair in every variant, threes and fours on covering sets, and 20,000 at random.
 */
import { randomLcg } from 'd3-random';
import MUTANT_SETS from '../core/src/laws/mutants.json' with { type: 'json' };
import { rate, type MutantSet } from '../core/src/laws/mutants.js';
import {
  report,
  Sweeper,
  sweepMixtures,
  sweepRandom,
  sweepSingles,
} from '../core/src/laws/sweep.js';
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

let holds = sweeper.result.found.length === 0;
for (const { seed, firstRun, mutants } of MUTANT_SETS as unknown as readonly MutantSet[]) {
  const { wrong, harmless, missed, falseAlarms } = rate(mutants);
  console.log(
    `Seed ${seed}: of ${wrong} visits made wrong ${wrong - missed.length} are caught (the first time ${firstRun.caught}); ${falseAlarms.length} false alarms at ${harmless} harmless ones (${firstRun.falseAlarms}).`,
  );
  for (const one of missed) console.log(`  missed: ${JSON.stringify(one.change)}: ${one.reason}`);
  for (const one of falseAlarms) {
    console.log(`  false alarm: ${JSON.stringify(one.change)}: ${one.reason}`);
  }
  holds &&= missed.length <= wrong / 20;
}
process.exit(holds ? 0 : 1);
