import { defineConfig } from '@playwright/test';
import { browserUse, PORT } from './e2e/browser.ts';

export default defineConfig({
  testDir: './e2e',
  testMatch: '**/*.spec.ts',
  fullyParallel: true,
  workers: 2,
  timeout: 60_000,
  expect: { timeout: 10_000 },
  // Where it decides what lands, one busy moment of the machine should not; a test that needed the second try is listed
  // as flaky.
  retries: process.env['CI'] ? 1 : 0,
  reporter: [['list']],
  use: browserUse,
  webServer: {
    command: 'npx --no-install tsx server/src/main.ts',
    env: { PORT: String(PORT) },
    url: `http://127.0.0.1:${PORT}/health`,
    reuseExistingServer: false,
    timeout: 60_000,
  },
});
