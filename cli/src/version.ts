import { readFileSync } from 'node:fs';

/** Put in place of the name where the command is bundled. */
declare const GRISTMILL_VERSION: string | undefined;

/** The version of this Gristmill. */
export const VERSION: string =
  typeof GRISTMILL_VERSION === 'string'
    ? GRISTMILL_VERSION
    : (JSON.parse(readFileSync(new URL('../../package.json', import.meta.url), 'utf8')) as { version: string }).version;
