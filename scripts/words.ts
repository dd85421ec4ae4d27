// Writes docs/words.md from the glossary.
import { writeFileSync } from 'node:fs';
import { glossaryText } from '../core/src/words/glossary.ts';

writeFileSync(new URL('../docs/words.md', import.meta.url), glossaryText());
