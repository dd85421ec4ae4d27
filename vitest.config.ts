import { defineConfig } from 'vitest/config';

const common = { testTimeout: 120_000, setupFiles: ['core/test/repeatable.ts', 'core/test/setup.ts'] };

export default defineConfig({
  test: {
    // Both cores: nothing here is timed.
    maxWorkers: 2,
    projects: [
      // Nothing of these is put in place of anything else, so that a worker reads each source once.
      {
        test: {
          ...common,
          name: 'core',
          include: ['core/test/**/*.test.ts', 'server/test/**/*.test.ts', 'cli/test/**/*.test.ts', 'torture/*.test.ts'],
          isolate: false,
        },
      },
      { test: { ...common, name: 'web', include: ['web/test/**/*.test.ts'] } },
    ],
  },
});
