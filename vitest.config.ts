import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['core/**/*.test.ts', 'app/src/**/*.test.ts', 'server/**/*.test.ts'],
    setupFiles: ['core/testing/seed.ts'],
    testTimeout: 20_000,
  },
});
