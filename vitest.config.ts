import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

const setupFiles = ['core/testing/seed.ts'];
/** What keeps state between calls (the browser's database, a server, a clock) is tested each file in a world of its own. */
const STATEFUL = [
  'app/src/store/**/*.test.ts',
  'app/src/kit/**/*.test.ts',
  'app/src/commission/**/*.test.ts',
  'server/**/*.test.ts',
  'scripts/**/*.test.ts',
];

/** Components are mounted in a page of their own. */
const MOUNTED = ['app/src/**/*.mount.test.ts'];

export default defineConfig({
  plugins: [vue()],
  test: {
    testTimeout: 60_000,
    projects: [
      {
        extends: true,
        test: {
          name: 'pure',
          include: ['core/**/*.test.ts', 'app/src/**/*.test.ts'],
          exclude: [...STATEFUL, ...MOUNTED],
          isolate: false,
          setupFiles,
        },
      },
      { extends: true, test: { name: 'stateful', include: STATEFUL, exclude: MOUNTED, setupFiles } },
      { extends: true, test: { name: 'mounted', include: MOUNTED, environment: 'happy-dom', setupFiles } },
    ],
  },
});
