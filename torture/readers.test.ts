import { describe, expect, it } from 'vitest';
import { tortureImports, tortureJoints, tortureRigLines, tortureShops, tortureUnits } from './readers.ts';

// A slice of `npm run torture`: enough to catch a reader that was broken, with a seed of its own each day on a desk and
// one seed where it decides what lands.
const seed = process.env['CI'] ? 20261127 : Math.floor(Date.now() / 86_400_000);

describe(`readers, tortured with seed ${seed}`, () => {
  it('joint files: refused in words, or whole for good', () => {
    const t = tortureJoints(350, seed);
    expect(t.read).toBeGreaterThan(25);
    expect(t.refused).toBeGreaterThan(125);
    expect(t.repaired).toBeGreaterThan(0);
    // Files that speak of __proto__ have changed nothing that all objects share.
    expect(Object.keys(Object.prototype)).toEqual([]);
    expect(({} as Record<string, unknown>)['id']).toBeUndefined();
  });

  it('imports of every kind of test: what is taken can be kept, read again and analysed', () => {
    const t = tortureImports(18, seed);
    expect(t.taken).toBeGreaterThan(50);
    expect(t.analysed).toBeGreaterThan(7);
  });

  it('shop files, units and lines of rigs', () => {
    expect(tortureShops(200, seed).refused).toBeGreaterThan(50);
    expect(tortureUnits(3000, seed).read).toBeGreaterThan(250);
    expect(tortureRigLines(3000, seed).samples).toBeGreaterThan(250);
  });
});
