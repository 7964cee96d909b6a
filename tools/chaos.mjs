/*
 * npm run chaos [-- TIMES [SEED]]: two pages behind a bad network, two thousand things; then a server in an unruly
 * world, an act for every ten of them. The same seed is as bad.
 */
import { bin, browser, build, install, outsideTools, run } from './steps.mjs';

const [times = '2000', seed = '0.1626'] = process.argv.slice(2);
install();
build();
outsideTools();
run(bin('vitest'), ['run', 'server/src/chaos.spec.ts'], {
  CHAOS_ACTS: String(Math.ceil(Number(times) / 10)),
  SEED: seed,
});
run(bin('playwright'), ['test', '--config', 'e2e/playwright.config.ts', 'chaos'], {
  CHROMIUM: browser(),
  CHAOS: times,
  SEED: seed,
});
