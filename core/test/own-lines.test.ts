import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  activeVariant,
  AIMS,
  aimsOfReport,
  analyseLine,
  beatenBy,
  dominates,
  inUnits,
  makeShelf,
  ownSays,
  readJointFile,
  type FoundLine,
} from '../src/index.ts';

const read = readJointFile(readFileSync(new URL('../../demo/body-yaw.json', import.meta.url), 'utf8'));
if (!read.ok) throw new Error(read.problem.what);
const joint = read.value;
const shelf = makeShelf();
const minute = Math.PI / 10800;
const line = (name: string, aims: readonly number[]): FoundLine =>
  ({
    id: name,
    stages: [{ id: 's1', kind: 'belt', params: {} }],
    motor: { id: 'm', name },
    aims: Object.fromEntries(AIMS.map((a, i) => [a, aims[i]])),
  }) as unknown as FoundLine;

describe('a variant beside found lines', () => {
  const aims = line('', [100, 1, 5 * minute, 1000, 0.1, 0.8]).aims;

  it('is beaten by what is as good in everything and better in something, by nothing else', () => {
    const beats = line('all', [90, 0.9, 4 * minute, 1100, 0.09, 0.85]);
    const same = line('same', [100, 1, 5 * minute, 1000, 0.1, 0.8]);
    const trades = line('trades', [50, 0.5, 5.2 * minute, 2000, 0.05, 0.9]);
    const more = line('more', [40, 0.9, 4 * minute, 1100, 0.09, 0.85]);
    expect(beatenBy(aims, [same, trades])).toBeUndefined();
    expect(beatenBy(aims, [same, beats, trades])).toBe(beats);
    expect(beatenBy(aims, [beats, more])).toBe(more);
    // At list prices: what lies in the drawer makes no line better than a variant of the same parts.
    const owned = {
      ...same,
      aims: { ...same.aims, money: 60 },
      there: [{ name: 'M', needed: 1, there: 1, saves: 40 }],
    };
    expect(beatenBy(aims, [owned])).toBeUndefined();
    // The same by the comparison that the search itself makes.
    const small = (l: FoundLine['aims']) =>
      AIMS.map((a) => (a === 'stiffness' || a === 'efficiency' ? 1 / l[a] : l[a]));
    for (const l of [beats, same, trades, more])
      expect(beatenBy(aims, [l]) !== undefined, l.id).toBe(dominates(small(l.aims), small(aims)));
  });

  it('is told with the two figures that differ most, by what it misses, or that nothing beats it', () => {
    const own = joint.variants.find((v) => v.name === 'B')!;
    const report = analyseLine(joint, own, shelf);
    const now = aimsOfReport(report)!;
    const than = (share: number) =>
      line(
        'M1',
        AIMS.map((a) => now[a] * (a === 'stiffness' || a === 'efficiency' ? 1 / share : share)),
      );
    expect(inUnits(ownSays('B', report, [than(1.1)]))).toBe('B: none of those found is as good in everything.');
    const better = { ...than(0.95), aims: { ...than(0.95).aims, money: 20, mass: 0.1 } };
    expect(inUnits(ownSays('B', report, [better]))).toMatch(
      /^B: belt with M1 is at least as good in everything \((mass|money) .* beside .*, (mass|money) .* beside .*\)\.$/,
    );
    const misses = analyseLine(joint, activeVariant(joint), shelf);
    expect(inUnits(ownSays('A', misses, [better]))).toMatch(/^A misses play; /);
    const broken = { ...own, stages: [{ id: 's1', kind: 'clockwork', params: {} }] };
    expect(ownSays('X', analyseLine(joint, broken, shelf), [better])).toBe('X cannot be computed as it stands.');
  });
});
