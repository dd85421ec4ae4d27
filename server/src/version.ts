import { readFileSync } from 'node:fs';

/** Put in place of the name when the server is packed into one file, where there is no package beside it. */
declare const GRISTMILL_VERSION: string | undefined;

/** The version of this Gristmill. */
export const VERSION: string =
  typeof GRISTMILL_VERSION === 'string'
    ? GRISTMILL_VERSION
    : (JSON.parse(readFileSync(new URL('../../package.json', import.meta.url), 'utf8')) as { version: string }).version;
