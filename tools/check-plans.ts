/*
 * npm run check:all: five hundred made-up houses, each plan against every rule; and a house of fifty machines, within
 * the time and the bound that it may take.
 */
import { execFileSync } from 'node:child_process';
import { houseProblem } from '../core/src/plan/house-problem.js';
import { solve, type Progress } from '../core/src/plan/solve.js';
import { manyMachines } from '../core/src/plan/testing-house.js';

execFileSync('npx', ['vitest', 'run', 'core/src/plan/plan.spec.ts'], {
  stdio: 'inherit',
  env: { ...process.env, PLANS: '500' },
});

const SECONDS = 20;
const NEAR = 0.06;
const problem = houseProblem(manyMachines(50), { weekdays: [6, 7] });
const begun = performance.now();
const passed = () => (performance.now() - begun) / 1000;
let first: number | undefined;
let last: Progress | undefined;
for (const progress of solve(problem, { rounds: 10_000 })) {
  first ??= passed();
  last = progress;
  if (passed() > SECONDS) break;
}
const within = last!.cost / last!.bound - 1;
console.log(
  `50 machines, ${problem.chores.length} tasks: first plan after ${first!.toFixed(2)} s, within ${(100 * within).toFixed(1)} % of the bound after ${passed().toFixed(0)} s`,
);
if (within > NEAR) {
  console.error(`It should be within ${100 * NEAR} %.`);
  process.exitCode = 1;
}
