import { defineConfig } from 'vitest/config';

const common = {
  testTimeout: 120_000,
  hookTimeout: 120_000,
  setupFiles: ['core/test/repeatable.ts', 'core/test/setup.ts'],
};

/** Tests that put storage, clocks or modules in place of others, or look at what the whole page keeps. */
const OWN_WORLD = [
  ...[
    'autosave',
    'computed-once',
    'open',
    'prefs',
    'recordings',
    'rig-session',
    'rig-sources',
    'shop-store',
    'tabs',
    'vault',
  ],
].map((name) => `web/test/${name}.test.ts`);

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
          include: [
            'core/test/**/*.test.ts',
            'server/test/**/*.test.ts',
            'cli/test/**/*.test.ts',
            'torture/*.test.ts',
            'scripts/**/*.test.ts',
          ],
          isolate: false,
        },
      },
      {
        test: {
          ...common,
          name: 'web',
          include: ['web/test/**/*.test.ts'],
          exclude: OWN_WORLD,
          isolate: false,
        },
      },
      { test: { ...common, name: 'web-storage', include: OWN_WORLD } },
    ],
  },
});
