/* npm run chaos [-- TIMES [SEED]]: two pages behind a bad network, two thousand things; the same seed is as bad. */
import { bin, browser, build, install, run } from './steps.mjs';

const [times = '2000', seed = '0.1626'] = process.argv.slice(2);
install();
build();
run(bin('playwright'), ['test', '--config', 'e2e/playwright.config.ts', 'chaos'], {
  CHROMIUM: browser(),
  CHAOS: times,
  SEED: seed,
});
