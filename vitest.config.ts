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

/**
 * Tests of whole things: bodies by the kernel, all files of a line, searches, processes. The rest is the unit suite, which
 * is for while one works.
 */
const WHOLE = [
  ...[
    'add-stage',
    'assembled',
    'assembly',
    'clashes',
    'drawer',
    'going-together',
    'hysteresis',
    'line-mends',
    'mends',
    'search',
    'solid',
    'step',
  ].map((name) => `core/test/${name}.test.ts`),
  'cli/test/**/*.test.ts',
  'server/test/**/*.test.ts',
  'torture/*.test.ts',
  'web/test/bundle.test.ts',
  'web/test/demo-found.test.ts',
];

const LEFT = process.env.UNIT ? WHOLE : [];

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
          exclude: LEFT,
          isolate: false,
          // Node reads the sources itself, which takes half of the time.
          experimental: { viteModuleRunner: false, nodeLoader: false },
          execArgv: ['--import', 'tsx'],
        },
      },
      {
        test: {
          ...common,
          name: 'web',
          include: ['web/test/**/*.test.ts'],
          exclude: [...OWN_WORLD, ...LEFT],
          isolate: false,
        },
      },
      { test: { ...common, name: 'web-storage', include: OWN_WORLD } },
    ],
  },
});
