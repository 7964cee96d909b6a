/* Solves made-up houses to the end with HiGHS, and keeps what the best plan of each costs: core's tests hold plans against it. */
import highs, { type Highs } from 'highs';
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { madeUp, zeroOne } from '../core/src/plan/testing.js';

const COUNT = 30;
const LONGEST_S = 60;

const solver = await (highs as unknown as () => Promise<Highs>)();
const optima: { seed: number; cost: number }[] = [];
for (let seed = 1; optima.length < COUNT; seed++) {
  const { Status, ObjectiveValue } = solver.solve(zeroOne(madeUp(seed)), { time_limit: LONGEST_S });
  if (Status === 'Optimal') optima.push({ seed, cost: Math.round(ObjectiveValue * 1000) / 1000 });
}
const file = fileURLToPath(new URL('../core/src/plan/optima.json', import.meta.url));
writeFileSync(file, `${JSON.stringify(optima, null, 2)}\n`);
