import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['core/src/**/*.spec.ts', 'server/src/**/*.spec.ts', 'demo/**/*.spec.ts'],
    environment: 'node',
    testTimeout: 60_000,
  },
});
