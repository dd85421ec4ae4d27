import { describe, expect, it } from 'vitest';
import { analyseLine, mended, type Check, type Variant } from '../src/index.ts';
import { keeps } from '../src/reducer/keepers.ts';
import { grooveCarries, RETAINING_RINGS, ringFor } from '../src/shop/retaining-rings.ts';
import { shelf } from './helpers.ts';
import { active, body, DEMOS, made, ofKind } from './reducer-bench.ts';

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
    const short = { ...wing, output: { ...wing.output!, shaftLength: wing.output!.shaftLength - 0.03 } } as Variant;
    const check = checksOf(short, 'Wing root').get('kept-output')!;
    if (check.state === 'fails') expect(check.mend).toBeUndefined();
    expect(made(short).housing!.keepers.filter(keeps).length).toBe(check.state === 'fails' ? 1 : 2);
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

  it('bears in its grooves what helical teeth push along it', () => {
    const spur = ofKind('spur');
    const params = { ...spur.stages[0]!.params, helix: 0.35, z1: 20, z2: 40, module: 1e-3, width: 0.012, bore2: 8e-3 };
    const v = within(
      { ...spur, stages: ['x', 'y'].map((id) => ({ id, kind: 'spur', params: { ...params, bore1: 8e-3 } })) },
      {},
    );
    const check = checksOf(v).get('groove-1')!;
    expect(check.limit / ((450e6 * Math.PI * (8e-3 ** 2 - 7.6e-3 ** 2)) / 4 / 1.2)).toBeCloseTo(1, 12);
    // Tangential force on the driven wheel's pitch circle by the tangent of the helix; the pull across is told by the stage.
    const told = checksOf(v);
    const torque = told.get('shaft-1')!;
    expect(check.figure).toBeGreaterThan(0);
    // What the shaft carries as a torque alone is no less than the torque itself.
    const r2 = (40 * 1e-3) / Math.cos(0.35) / 2;
    expect(check.figure).toBeLessThanOrEqual((torque.figure / r2) * Math.tan(0.35));
    expect(check.figure).toBeGreaterThan((0.5 * torque.figure * Math.tan(0.35)) / r2);
  });
});
