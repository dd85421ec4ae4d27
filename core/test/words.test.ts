import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { findWords, GLOSSARY, glossaryText } from '../src/index.ts';

describe('words', () => {
  it('are found by the field’s terms, those named first', () => {
    // What the field calls them, and what is to be found for it.
    for (const [term, id] of [
      ['backlash', 'play'],
      ['back-driving torque', 'turn-back'],
      ['back-driving efficiency', 'turned-back'],
      ['torque–speed envelope', 'reach'],
      ['torsional stiffness', 'stiffness'],
      ['lost motion', 'play'],
      ['tooth-thickness allowance', 'allowance'],
      ['equidistant', 'gap'],
      ['Pin-Circle modification', 'circle-smaller'],
      ['flank angle', 'lean'],
      ['tooth-root fatigue', 'tires'],
      ['pitting', 'pits'],
      ['tooth skipping', 'skips'],
      ['flexible spline', 'spline'],
      ['circular spline', 'ring-spline'],
      ['efficiency per stage', 'passes-on'],
      ['irreversible', 'self-locking'],
    ])
      expect(findWords(term!)[0]?.id, term).toBe(id);
    expect(findWords('worn thin by a zebra')).toEqual([]);
    expect(findWords('  ')).toHaveLength(GLOSSARY.length);
  });

  it('each stand once, and in the document as they are', () => {
    expect(new Set(GLOSSARY.map((w) => w.id)).size).toBe(GLOSSARY.length);
    expect(readFileSync(new URL('../../docs/words.md', import.meta.url), 'utf8')).toBe(glossaryText());
  });
});
