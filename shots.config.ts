import base from './playwright.config.ts';

/** `npm run shots`: renews docs/screenshots from the demo data. The app must be built. */
export default { ...base, testDir: './e2e', testMatch: '**/shots.ts' };
