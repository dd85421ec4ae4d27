import { describe, expect, it } from 'vitest';
import { readParams, stageKind, type StageNumbers } from '../src/index.ts';
import { holdTorque } from '../src/stage/belt/strength.ts';
import { cold } from './helpers.ts';
import { ANCHORED } from './worked-stages.ts';

// Wheels on the shafts that turn them and that they turn. The worked stage of each kind, its wheels changed by hand.

const load = (kind: string, over: Readonly<Record<string, unknown>>): StageNumbers => {
  const { params, duty } = ANCHORED.find((a) => a.kind === kind && !a.further)!;
  const read = readParams(kind, { ...params, ...over });
  if (!read.ok) throw new Error(read.problem.what);
  const opened = stageKind(kind)!.open(read.value, cold);
  if (!opened.ok) throw new Error(opened.problem.what);
  return opened.value.load(duty);
};
const springOf = (n: StageNumbers, name: string): number => n.springs.find((s) => s.name === name)!.stiffness;

describe('a stage driven from its other end', () => {
  const alike = { shape1: 'round', shape2: 'round' };
  for (const [kind, one, other] of [
    [
      'spur',
      {
        ...alike,
        setBy: 'shifts',
        x1: 0,
        x2: 0,
        z1: 20,
        z2: 60,
        bore1: 0.005,
        bore2: 0.008,
        material1: 'c45',
        material2: 'pa-cf',
      },
      {
        ...alike,
        setBy: 'shifts',
        x1: 0,
        x2: 0,
        z1: 60,
        z2: 20,
        bore1: 0.008,
        bore2: 0.005,
        material1: 'pa-cf',
        material2: 'c45',
      },
    ],
    [
      'chain',
      { ...alike, z1: 12, z2: 36, bore1: 0.006, bore2: 0.008, material1: 'c45', material2: 'pa-cf' },
      { ...alike, z1: 36, z2: 12, bore1: 0.008, bore2: 0.006, material1: 'pa-cf', material2: 'c45' },
    ],
    [
      'belt',
      { z1: 22, z2: 66, bore1: 0.005, bore2: 0.008, made1: 'bought', made2: 'printed', hold1: 'key', hold2: 'screws' },
      { z1: 66, z2: 22, bore1: 0.008, bore2: 0.005, made1: 'printed', made2: 'bought', hold1: 'screws', hold2: 'key' },
    ],
  ] as const)
    it(`gives as much, seen from there: ${kind}`, () => {
      const [there, back] = [load(kind, one), load(kind, other)];
      expect(back.ratio).toBeCloseTo(1 / there.ratio, 12);
      // A sprocket's pitch circle is a little more than its teeth's share of the ratio: a polygon's corners.
      expect((back.stiffness * there.ratio ** 2) / there.stiffness).toBeCloseTo(1, kind === 'chain' ? 2 : 9);
      // What is turned is the same part as what turned it.
      const hubs = (n: StageNumbers) =>
        n.springs.filter((s) => s.name.endsWith('on its shaft')).map((s) => s.stiffness);
      const [driving, driven] = hubs(there);
      const [driving2, driven2] = hubs(back);
      expect((driven2! * there.ratio ** 2) / driving!).toBeCloseTo(1, 9);
      expect((driving2! * there.ratio ** 2) / driven!).toBeCloseTo(1, 9);
    });
});

describe('a driven wheel on screws', () => {
  // Six holes as seats of 4 kN/mm² at 3 GPa, in PA-CF of 4.5 GPa, 15 mm out: 6·6e9·225e-6 for a metre of length.
  const perMetre = 6 * 6e9 * 225e-6;
  it.each([
    ['spur', 'driven wheel', 0.01, 'pa-cf'],
    ['chain', 'driven sprocket', 2.883e-3, 'pa-cf'],
    ['worm', 'wheel', 0.021, 'pa-cf'],
    ['cable', 'driven drum', 5.65e-3, 'pa-cf'],
    ['bevel', 'wheel', 0.013, 'pa-cf'],
  ])('%s: gives as its screws’ holes do', (kind, name, length, material2) => {
    const n = load(kind, { bolts2: 6, boltCircle2: 0.03, material2 });
    expect(springOf(n, `${name} on its screws`)).toBeCloseTo(perMetre * length, 3);
    expect(n.springs.some((s) => s.name === `${name} on its shaft`)).toBe(false);
  });

  it('a ring has no hub at all', () => {
    const names = load('spur', { form: 'ring' }).springs.map((s) => s.name);
    expect(names.filter((x) => / on its (shaft|screws)$/.test(x))).toEqual(['driving wheel on its shaft']);
  });
});

describe('what holds a pulley', () => {
  it('has the whole of its bore: flanges of 2 mm, and a hub of 6 where it is bought', () => {
    const holds = (hold: 'screws' | 'glue' | 'key' | 'bolted', made: 'bought' | 'printed') =>
      holdTorque({ hold, made, bore: 0.008, outside: 0.02, width: 0.006 }, cold);
    // A fifth of 8 mm at 3.6 mm: 30 MPa in plastic, 100 in metal.
    expect(holds('key', 'printed')).toBeCloseTo(30 * 1.6 * 8 * 3.6e-3, 12);
    expect(holds('key', 'bought')).toBeCloseTo(100 * 1.6 * 14 * 3.6e-3, 12);
    // 8 MPa on the bore's wall at 4 mm.
    expect(holds('glue', 'printed')).toBeCloseTo(8 * Math.PI * 8 * 8 * 4e-3, 12);
    expect(holds('glue', 'bought')).toBeCloseTo(8 * Math.PI * 8 * 14 * 4e-3, 12);
    // Two set screws of 200 N at 4 mm, four screws of 350 N at six tenths of 20 mm.
    expect(holds('screws', 'printed')).toBeCloseTo(1.6, 12);
    expect(holds('bolted', 'bought')).toBeCloseTo(16.8, 12);
  });

  it('does not give where it is bonded, and gives as a hub of its modulus else', () => {
    const n = load('belt', { hold1: 'glue', hold2: 'key' });
    expect(springOf(n, 'driving pulley on its shaft')).toBe(Infinity);
    expect(springOf(n, 'driven pulley on its shaft')).toBeCloseTo(0.5 * 2.3e9 * 64e-6 * 8e-3, 6);
  });
});

describe('a stage that speeds up', () => {
  it.each([
    ['spur', { setBy: 'shifts', x1: 0, x2: 0, z1: 60, z2: 20, bore1: 0.008, bore2: 0.005 }, { z1: 20, z2: 60 }],
    ['bevel', { z1: 40, z2: 20 }, { z1: 20, z2: 40 }],
    ['planetary', { arrangement: 'carrier-sun' }, { arrangement: 'sun-carrier' }],
  ])('%s: what its grease drags on the fast shaft is felt at the slow one by its ratio', (kind, up, down) => {
    const [fast, slow] = [load(kind, up), load(kind, down)];
    expect(Math.abs(fast.ratio)).toBeLessThan(1);
    expect(fast.drag * Math.abs(fast.ratio)).toBeCloseTo(slow.drag, 12);
  });
});

describe('a bore', () => {
  const round = { shape1: 'round', shape2: 'round' };
  // Of 0.85 of each disc that lightening holes leave, and of a worm, which has none; steel 6 a kilogram, printed 75, aluminium 12.
  it.each([
    ['spur', 'bore1', 10e-3, 7850, 6, 0.85],
    ['spur', 'bore2', 10e-3, 1150, 75, 0.85],
    ['chain', 'bore1', 2.883e-3, 7850, 6, 0.85],
    ['chain', 'bore2', 2.883e-3, 1150, 75, 0.85],
    ['cable', 'bore1', 9.945238095e-3, 2700, 12, 0.85],
    ['cable', 'bore2', 5.65e-3, 1150, 75, 0.85],
    ['worm', 'bore1', 35e-3, 7850, 6, 1],
    ['worm', 'bore2', 21e-3, 1150, 75, 0.85],
  ])('of a %s, %s, leaves out what it is wide and long', (kind, path, length, density, price, solid) => {
    const [narrow, wide] = [0.006, 0.008].map((d) => load(kind, { ...round, [path]: d }));
    const less = (Math.PI / 4) * (64e-6 - 36e-6) * length * density * solid;
    expect((narrow!.mass - wide!.mass) / less).toBeCloseTo(1, 8);
    expect((narrow!.money - wide!.money) / (less * price)).toBeCloseTo(1, 6);
  });

  it.each([
    ['hub1', 5e-3],
    ['hub2', 8e-3],
  ])('of a bevel pair is in a hub of two and a half millimetres of wall: %s', (path, bore) => {
    const [short, long] = [0.006, 0.01].map((h) => load('bevel', { [path]: h }));
    const more = Math.PI * ((bore / 2 + 2.5e-3) ** 2 - (bore / 2) ** 2) * 4e-3 * 7850 * 0.85;
    expect((long!.mass - short!.mass) / more).toBeCloseTo(1, 8);
    // Steel by mass; its teeth cost what they do.
    expect((long!.money - short!.money) / (more * 6)).toBeCloseTo(1, 6);
  });
});
