/* npm run fuzz [-- TIMES [SEED]]: asks every route askew, twenty thousand times; the same seed asks the same. */
import { bin, build, install, run } from './steps.mjs';

const [times = '20000', seed = '0.1626'] = process.argv.slice(2);
install();
build();
run(bin('vitest'), ['run', 'server/src/fuzz.spec.ts'], { FUZZ: times, SEED: seed });
