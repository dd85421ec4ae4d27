import { describe, expect, it } from 'vitest';
import { analyseLine, type Variant } from '../src/index.ts';
import { Extent, motorRoom, roomOf } from '../src/line/extent.ts';
import { sweptBy } from '../src/reducer/body.ts';
import { shelf } from './helpers.ts';
import { active, DEMOS, joint, made, ofKind, twoOf } from './reducer-bench.ts';

const mm = 1e-3;
const motor = { frame: 42 * mm, length: 48 * mm, reach: 24 * mm };
const plain = (outside: number, length: number) => ({ outside: outside * mm, length: length * mm });

/** A line without a housing, and what its bodies take up across the output's axis one way and the other, m. */
function free({ housing: _, ...rest }: Variant): { v: Variant; across: readonly [number, number] } {
  const v: Variant = rest;
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const b of made(v).bodies)
    for (const c of sweptBy(b).rounds) {
      [x0, x1] = [Math.min(x0, c.x - c.r), Math.max(x1, c.x + c.r)];
      [y0, y1] = [Math.min(y0, c.y - c.r), Math.max(y1, c.y + c.r)];
    }
  return { v, across: [x1 - x0, y1 - y0] };
}
const figure = (v: Variant, id: string, j = DEMOS[0]!) =>
  analyseLine(j, v, shelf).figures.find((f) => f.id === id)!.value;

describe('room that a line takes up without a housing', () => {
  it('is the largest of motor and stages where all stand on one axis', () => {
    const room = roomOf([plain(50, 20), plain(36, 30)]);
    expect(room.size(motor)).toBeCloseTo(50 * mm, 12);
    expect(room.length(motor)).toBeCloseTo(98 * mm, 12);
    expect(roomOf([]).size(motor)).toBe(motor.frame);
    expect(room.crosses).toBe(false);
  });

  it('counts half of a motor, or of a wider stage before, beyond the axis of what it stands beside', () => {
    const belt = { ...plain(80, 12), before: { beside: 70 * mm } };
    expect(roomOf([belt]).size(motor)).toBeCloseTo((70 + 21) * mm, 12);
    // A set of 60 mm before it, on the motor's axis.
    expect(roomOf([plain(60, 25), belt]).size(motor)).toBeCloseTo((70 + 30) * mm, 12);
    // A set of 75 mm between two of them stands about the first one's output and the second one's input.
    expect(roomOf([belt, plain(75, 25), belt]).size(motor)).toBeCloseTo((70 + 37.5) * mm, 12);
    // What comes behind is about another axis.
    expect(roomOf([belt, plain(75, 25)]).size(motor)).toBeCloseTo(91 * mm, 12);
    expect(roomOf([belt]).length(motor)).toBeCloseTo(60 * mm, 12);
    // Of two, the one that the motor stands beside.
    expect(roomOf([belt, { ...plain(60, 10), before: { beside: 55 * mm } }]).widthBeside(motor)).toBeCloseTo(
      91 * mm,
      12,
    );
  });

  it('lays what comes before a stage that turns power aside across its output', () => {
    const worm = { ...plain(45, 20), before: { beside: 40 * mm, across: { far: 60 * mm, high: 10 * mm, lean: 0 } } };
    const room = roomOf([plain(50, 30), worm, plain(40, 15)]);
    expect(room.crosses).toBe(true);
    // 60 mm, the set of 30 and the motor of 48.
    expect(room.size(motor)).toBeCloseTo(138 * mm, 12);
    // The set of 50 stands 15 mm below a stage of 20, and the stage behind ends at 35, as high as the set.
    expect(room.length(motor)).toBeCloseTo(50 * mm, 12);
    expect(roomOf([worm, plain(40, 30)]).length(motor)).toBeCloseTo((50 + 11) * mm, 12);
    expect(roomOf([worm]).length(motor)).toBeCloseTo(42 * mm, 12);
    // Of two that cross the one at the output decides which way it lies.
    expect(roomOf([{ ...worm, length: 25 * mm }, worm]).size(motor)).toBeCloseTo((60 + 25 + 48) * mm, 12);
  });

  it('goes up or down with what leans: 60° from the output', () => {
    const at = (lean: number) =>
      roomOf([{ ...plain(45, 20), before: { across: { far: 60 * mm, high: 10 * mm, lean } } }]);
    const sin = Math.sqrt(3) / 2;
    for (const lean of [0.5, -0.5]) expect(at(lean).size(motor)).toBeCloseTo((60 + 48 * sin + 10.5) * mm, 12);
    // Its end reaches 24 mm up from 10, and half of its 42 mm by the sine; below, the other half.
    expect(at(0.5).length(motor)).toBeCloseTo((10 + 24 + 21 * sin - (10 - 21 * sin)) * mm, 12);
    expect(at(-0.5).length(motor)).toBeCloseTo((10 + 21 * sin - (10 - 24 - 21 * sin)) * mm, 12);
  });

  it('keeps a coupling’s length, or the motor’s shaft where that is longer', () => {
    const screw = (off: number) => ({ ...plain(24, 300), before: { off: off * mm } });
    expect(roomOf([screw(16)]).length(motor)).toBeCloseTo((300 + 24 + 48) * mm, 12);
    expect(roomOf([screw(30)]).length(motor)).toBeCloseTo((300 + 30 + 48) * mm, 12);
    expect(roomOf([plain(30, 20), screw(16)]).length(motor)).toBeCloseTo((300 + 16 + 20 + 48) * mm, 12);
    const worm = { ...plain(45, 20), before: { across: { far: 60 * mm, high: 10 * mm, lean: 0 }, off: 16 * mm } };
    expect(roomOf([worm]).size(motor)).toBeCloseTo((60 + 24 + 48) * mm, 12);
    expect(roomOf([plain(30, 20), worm]).size(motor)).toBeCloseTo((60 + 16 + 20 + 48) * mm, 12);
  });

  it('is never more for the best of some than for any of them, where its height is not told', () => {
    const best = new Extent();
    best.put({ ...plain(40, 18), before: { beside: 30 * mm, across: { far: 50 * mm, high: NaN, lean: 0.5 } } }, best);
    for (const lean of [0.5, 0, -0.3])
      for (const high of [0, 9 * mm, 20 * mm]) {
        const one = roomOf([{ ...plain(45, 20), before: { beside: 40 * mm, across: { far: 60 * mm, high, lean } } }]);
        expect(best.size(motor)).toBeLessThanOrEqual(one.size(motor));
        expect(best.length(motor)).toBeLessThanOrEqual(one.length(motor));
      }
    expect(best.length(motor)).toBeGreaterThan(0);
  });

  const alone = [
    'belt',
    'chain',
    'cable',
    'spur',
    'bevel',
    'worm',
    'ring-plate',
    'planetary',
    'cycloidal',
    'strain-wave',
  ];
  it.each(alone)('is what motor and bodies of one stage take up: %s', (id) => {
    const { v, across } = free(ofKind(id, ['belt', 'chain', 'cable', 'spur', 'bevel'].includes(id) ? 4 : 20));
    // Pilot, play and flanges of pulleys are left out: up to 3 mm.
    expect(figure(v, 'size')).toBeLessThan(Math.max(...across) + 1e-9);
    expect(figure(v, 'size')).toBeGreaterThan(Math.max(...across) - 3.1 * mm);
  });

  it.each([
    ['spur', 'worm'],
    ['belt', 'worm'],
    ['planetary', 'worm'],
    ['planetary', 'belt'],
    ['belt', 'bevel'],
    ['planetary', 'bevel'],
    ['cycloidal', 'belt'],
  ] as const)('is what motor and bodies of two take up: %s, then %s', (first, second) => {
    const { v, across } = free(twoOf(first, second));
    // A motor beside a belt that lies across stands up, which is told by the length.
    const wide = first === 'belt' && second === 'bevel' ? across[0] : Math.max(...across);
    expect(figure(v, 'size')).toBeLessThan(wide + 1e-9);
    expect(figure(v, 'size')).toBeGreaterThan(wide - 4 * mm);
  });

  it('tells what is beside or across in its working, and none of the motor’s length along a worm’s wheel', () => {
    const { v } = free(ofKind('worm', 20));
    const line = analyseLine(DEMOS[0]!, v, shelf);
    const of = (id: string) => line.figures.find((f) => f.id === id)!;
    // A motor of 48 mm across the wheel's axis; along it, its frame of 42 is wider than worm and wheel.
    expect(of('length').value).toBeCloseTo(v.motor.frame, 12);
    expect(of('size').value).toBeGreaterThan(100 * mm);
    const own = free({
      ...ofKind('worm', 20),
      stages: ofKind('worm', 20).stages.map((s) => ({ ...s, params: { ...(s.params as object), bore1: 0 } })),
    });
    expect(figure(own.v, 'size') / Math.max(...own.across)).toBeCloseTo(1, 2);
    const reed = joint('reed-lift');
    const screw = free(reed.variants.find((x) => x.stages[0]!.kind === 'screw')!);
    const ends = made(screw.v).bodies.map(sweptBy);
    const long = Math.max(...ends.map((e) => e.to)) - Math.min(...ends.map((e) => e.from));
    expect(figure(screw.v, 'length', reed) / long).toBeCloseTo(1, 2);
    expect(motorRoom(active(DEMOS[0]!).motor)).toEqual({ frame: 42 * mm, length: 48 * mm, reach: 24 * mm });
  });
});
