import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  // Every test has a server and a data file of its own.
  fullyParallel: true,
  workers: 2,
  // On a desk what fails once has failed; in CI it is tried again, and named at the end.
  retries: process.env['CI'] ? 1 : 0,
  timeout: 60_000,
  expect: { timeout: 8_000 },
  reporter: [
    ['list'],
    ['json', { outputFile: process.env['PLAYWRIGHT_JSON'] || '../.cache/reports/browser.json' }],
  ],
  outputDir: '../test-results',
  use: {
    // Each test has an origin of its own; only those on life without a connection want the worker.
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    // A trace slows every action down: asked for when something fails (TRACE=1).
    trace: process.env['TRACE'] ? 'retain-on-failure' : 'off',
    screenshot: 'only-on-failure',
    launchOptions: {
      executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium-headless-shell',
      args: [
        '--headless',
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        // A name on the home network, without a secure context.
        '--host-resolver-rules=MAP house.test 127.0.0.1, MAP *.local 127.0.0.1',
      ],
    },
  },
});
