import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['core/test/**/*.test.ts', 'web/test/**/*.test.ts', 'server/test/**/*.test.ts', 'cli/test/**/*.test.ts'],
    testTimeout: 120_000,
    // Both cores: nothing here is timed.
    maxWorkers: 2,
    setupFiles: ['core/test/repeatable.ts', 'core/test/setup.ts'],
  },
});
