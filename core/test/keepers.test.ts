import { describe, expect, it } from 'vitest';
import { analyseLine, mended, type Check, type Variant } from '../src/index.ts';
import { keeperChecks, keeps } from '../src/reducer/keepers.ts';
import type { Working } from '../src/reducer/link-loads.ts';
import { grooveCarries, RETAINING_RINGS, ringFor } from '../src/shop/retaining-rings.ts';
import { shelf } from './helpers.ts';
import { active, body, DEMOS, made } from './reducer-bench.ts';

const yaw = active(DEMOS[0]!);
const wing = DEMOS[2]!.variants.find((v) => v.id === 'b')!;

const checksOf = (v: Variant, name = 'Body yaw'): Map<string, Check> => {
  const joint = DEMOS.find((j) => j.name === name)!;
  return new Map(analyseLine(joint, v, shelf, { bands: false }).checks.map((c) => [c.id, c]));
};
const within = (v: Variant, change: Partial<NonNullable<Variant['housing']>>): Variant => ({
  ...v,
  housing: { ...v.housing!, ...change },
});

describe('retaining rings', () => {
  // What the standard's own table says of grooves in steel of 200 MPa, kN.
  it.each([
    [3, 0.15],
    [5, 0.26],
    [6, 0.46],
    [8, 0.81],
    [10, 1.01],
    [12, 1.53],
    [15, 2.66],
    [20, 5.06],
    [25, 7.05],
    [30, 10.7],
  ])('in a groove of a %d mm shaft carry what the standard tells', (d, told) =>
    expect(grooveCarries(ringFor(d * 1e-3)!, 200e6) / 1e3 / told).toBeCloseTo(1, 1),
  );

  it('are thinner than their grooves are wide, deeper in a thicker shaft, and none is of a size between', () => {
    RETAINING_RINGS.forEach((r, i) => {
      expect(r.wide - r.thick).toBeCloseTo(1e-4, 9);
      expect(r.groove).toBeLessThan(r.shaft);
      expect(r.lug).toBeGreaterThan(r.back);
      if (i > 0)
        expect(r.shaft - r.groove).toBeGreaterThanOrEqual(
          RETAINING_RINGS[i - 1]!.shaft - RETAINING_RINGS[i - 1]!.groove - 1e-12,
        );
    });
    expect(ringFor(8.04e-3)).toBe(ringFor(8e-3));
    expect(ringFor(8.5e-3)).toBeUndefined();
  });
});

describe('a plain shaft of a housing', () => {
  it('lies between two rings, each on the face of a bearing, inside of them', () => {
    const r = made(yaw);
    const { plates } = r.housing!;
    const ring = ringFor(8e-3)!;
    const [lower, upper] = ['lower', 'upper'].map((s) => body(r, `case/keeper-1-${s}`));
    expect(lower!.places(0)[0]!.at[2]).toBeCloseTo(plates[0]!.to, 12);
    expect(upper!.places(0)[0]!.at[2] + ring.thick).toBeCloseTo(plates[1]!.from, 12);
    // They turn with their shaft and stand on its axis.
    const shaft = body(r, 'case/shaft-1');
    for (const x of [lower!, upper!]) {
      expect(x.speed).toBe(shaft.speed);
      expect(x.places(1)[0]!.at.slice(0, 2)).toEqual(shaft.places(1)[0]!.at.slice(0, 2));
      expect(x.part.name).toBe('Retaining ring DIN 471 8×0.8');
    }
  });

  it('of the output lies between rings round both of its rows, the outer one on what stands out of the cover', () => {
    const r = made(wing);
    const [lower, upper] = ['lower', 'upper'].map((s) => body(r, `case/keeper-end-${s}`));
    const cover = r.housing!.plates.at(-1)!;
    const { span, bearing } = wing.output!;
    expect(lower!.places(0)[0]!.at[2] + 1e-3).toBeCloseTo(cover.from, 12);
    expect(upper!.places(0)[0]!.at[2]).toBeCloseTo(cover.from + span + bearing!.width, 12);
    expect(checksOf(wing, 'Wing root').get('kept-output')!.state).toBe('holds');
    // From the wheel through both rows it takes some seventy millimetres: a shorter one leaves the outer ring no place.
    const long = r.housing!.shaft;
    const less = long.to - (cover.from + span + bearing!.width) - 1e-3;
    const short = { ...wing, output: { ...wing.output!, shaftLength: wing.output!.shaftLength - less } } as Variant;
    const check = checksOf(short, 'Wing root').get('kept-output')!;
    expect([check.state, check.mend]).toEqual(['fails', undefined]);
    // A millimetre is left, of which the ring wants eight tenths behind it.
    expect(check.figure).toBeCloseTo(1e-3 - 8e-4, 9);
    expect(made(short).housing!.keepers.filter(keeps)).toHaveLength(1);
  });

  it('is told to wander where there is no room for rings, and the mend makes it', () => {
    const tight = within(yaw, { gap: 6e-4 });
    const check = checksOf(tight).get('kept-1')!;
    expect(check.state).toBe('fails');
    expect(check.figure).toBeCloseTo(6e-4, 9);
    expect(check.limit).toBe(8e-4);
    // Beside the pulley's hub there is none; on the other side its flange leaves more.
    expect(made(tight).bodies.filter((b) => b.id.startsWith('case/keeper-1')).length).toBe(1);
    const next = mended(tight, check.mend!, shelf);
    expect(next.housing!.gap).toBe(8e-4);
    expect(checksOf(next).get('kept-1')!.state).toBe('holds');
    // The output's shaft is thicker, and asks for a millimetre.
    expect(checksOf(next).get('kept-2')!.state).toBe('fails');
  });

  it('of no usual diameter, or in a bearing too narrow for lugs, has none', () => {
    const bored = (bore: number): Variant => ({
      ...yaw,
      stages: yaw.stages.map((s, i) => ({ ...s, params: { ...s.params, [i ? 'bore1' : 'bore2']: bore } })),
    });
    // 685: five millimetres in eleven, whose outer ring begins at 9.5; the lugs reach 9.8.
    const narrow = checksOf(bored(5e-3)).get('kept-1')!;
    expect([narrow.state, narrow.mend]).toEqual(['fails', undefined]);
    expect([narrow.figure, narrow.limit].map((x) => Number(x.toPrecision(4)))).toEqual([9.8e-3, 9.5e-3]);
    // No bearing of that bore either: then there is nothing a ring could lie on.
    expect(checksOf(bored(6.5e-3)).get('kept-1')).toBeUndefined();
  });

  it('bears in its grooves what teeth push along it, by hand', () => {
    const { keepers } = made(yaw).housing!;
    const working = (along: number) =>
      yaw.stages.map(() => ({ numbers: { pushes: { peak: { across: 0, along, moment: 0 } } } }) as unknown as Working);
    const of = (along: number) =>
      keeperChecks(keepers, { first: 0, last: 1 }, working(along)).filter((c) => c.id.startsWith('groove'));
    expect(of(0)).toEqual([]);
    const [first, second] = of(1800);
    expect([first!.figure, first!.state, second!.state]).toEqual([1800, 'near', 'holds']);
    // 450 MPa on the ring between 8 and 7.6 mm, and between 12 and 11.5 mm, over 1.2.
    expect(first!.limit).toBeCloseTo((450e6 * (Math.PI / 4) * (64e-6 - 57.76e-6)) / 1.2, 6);
    expect(second!.limit).toBeCloseTo((450e6 * (Math.PI / 4) * (144e-6 - 132.25e-6)) / 1.2, 6);
    expect(of(1900)[0]!.state).toBe('fails');
  });
});
