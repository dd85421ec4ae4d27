import base from '../playwright.config.ts';

/** `npm run shots`: renews docs/screenshots from the demo data. The app must be built. */
export default { ...base, testDir: '.', testMatch: 'shots.ts' };
