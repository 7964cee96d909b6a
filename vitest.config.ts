import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core/src,server/src,demo,tools}/**/*.spec.ts'],
    environment: 'node',
    testTimeout: 60_000,
    hookTimeout: 60_000,
    isolate: false,
    setupFiles: ['core/src/regions/testing.ts'],
  },
});
