import { describe, expect, it } from 'vitest';
import { readParams, stageKind, stageKinds, type Duty } from '../src/index.ts';
import { formHolds } from '../src/gear/hub.ts';
import { bevel } from './anchors/bevel.ts';
import { cable } from './anchors/cable.ts';
import { chain } from './anchors/chain.ts';
import { twoSets } from './anchors/planetary-two-sets.ts';
import { planetary } from './anchors/planetary.ts';
import { rack } from './anchors/rack.ts';
import { spur } from './anchors/spur.ts';
import { worm } from './anchors/worm.ts';
import type { Anchored } from './anchors/anchor.ts';
import { cold } from './helpers.ts';

// A wheel of plastic on a flat works loose long before its teeth break: 30 MPa over a fifth of the bore.

const report = (a: Pick<Anchored, 'kind' | 'params'>, over: Record<string, unknown>, duty: Duty) => {
  const read = readParams(a.kind, { ...a.params, ...over });
  if (!read.ok) throw new Error(read.problem.what);
  const opened = stageKind(a.kind)!.open(read.value, cold);
  if (!opened.ok) throw new Error(opened.problem.what);
  return opened.value.report(duty);
};
const limit = (a: Anchored, id: string, over: Record<string, unknown>) =>
  report(a, over, a.duty).figures.find((f) => f.id === id)?.value;

describe('what a bore of plastic stands', () => {
  it('of a wheel at the output: by hand; none of metal, of a round one, or of one that is screwed on', () => {
    const over = { shape2: 'flat' };
    // 30 MPa·(0.2·8·b)·(0.9·4 mm), b = 10 mm.
    const held = 30e6 * 1.6e-3 * (spur.params['width'] as number) * 3.6e-3;
    expect(limit(spur, 'form-bore2', over)).toBeCloseTo(held, 9);
    expect(limit(spur, 'form-bore2', { shape2: 'keyway' })).toBeCloseTo(held, 9);
    expect(limit(spur, 'form-bore2', { shape2: 'round' })).toBeUndefined();
    expect(limit(spur, 'form-bore2', { ...over, material2: 'c45' })).toBeUndefined();
    expect(limit(spur, 'form-bore2', { ...over, bolts2: 4, boltCircle2: 0.02 })).toBeUndefined();
  });

  it('of a wheel at the input by the ratio, less what rubs on the way; of several sets the first has the shaft', () => {
    const at = (a: Anchored, over: Record<string, unknown>) => {
      const { numbers, figures } = report(a, over, a.duty);
      const found = figures.find((f) => /^form-bore(1|S)?$/.test(f.id));
      return { held: found!.value, gain: Math.abs(numbers.ratio) * numbers.etaForward };
    };
    const p = (a: Anchored, id: string) => a.params[id] as number;
    for (const [a, over, bore, width] of [
      [spur, { material1: 'pa-cf', shape1: 'flat' }, p(spur, 'bore1'), p(spur, 'width')],
      // A bevel pinion holds along its teeth and its hub.
      [bevel, { material1: 'pa-cf', shape1: 'flat' }, 0.005, 0.007 + 0.006],
      [cable, { material1: 'pa-cf', shape1: 'flat' }, p(cable, 'bore1'), cable.worked['width']![0]],
      [chain, { material1: 'pa-cf', shape1: 'flat' }, p(chain, 'bore1'), 0.93 * 3.1e-3],
      [worm, { material1: 'pa-cf', shape1: 'flat' }, p(worm, 'bore1'), p(worm, 'length')],
      [rack, { material1: 'pa-cf', shape: 'flat' }, p(rack, 'bore'), p(rack, 'width')],
      [planetary, { materialS: 'pa-cf', boreS: 0.005, shapeS: 'flat' }, 0.005, p(planetary, 'width')],
    ] as const) {
      const { held, gain } = at(a, over);
      expect(held / (formHolds(bore, width, 30e6) * gain), a.kind).toBeCloseTo(1, 9);
    }
    // The first of two sets is four fifths as wide.
    const two = at(twoSets, { materialS: 'pa-cf', boreS: 0.005, shapeS: 'flat' });
    const narrow = 0.8 * p(twoSets, 'width');
    expect(two.held / (formHolds(0.005, narrow, 30e6) * two.gain)).toBeCloseTo(1, 9);
  });

  it('is a limit of the stage, and where it is passed a larger bore is the mend, while the wheel has room', () => {
    const over = { shape2: 'flat' };
    const duty = { ...spur.duty, torque: 4 };
    const { numbers, checks } = report(spur, over, duty);
    const failed = checks.find((c) => c.id === 'form-bore2')!;
    expect(numbers.limits.find((l) => l.mode === 'flat of the driven wheel gives way')!.torque).toBe(failed.limit);
    expect(failed).toMatchObject({ state: 'fails', severity: 'stop', figure: 4, mend: { path: 'bore2' } });
    const mended = report(spur, { ...over, bore2: failed.mend!.value }, duty);
    expect(mended.checks.find((c) => c.id === 'form-bore2')!.state).not.toBe('fails');
    // What a shaft before drives has that shaft's bore: it is made longer, up to twice, or of metal.
    const driven = { shape1: 'flat', material1: 'pa-cf' };
    const weak = report(spur, driven, duty).checks.find((c) => c.id === 'form-bore1')!.limit;
    const short = report(spur, driven, { ...duty, torque: 1.5 * weak }).checks.find((c) => c.id === 'form-bore1')!;
    expect(short).toMatchObject({ state: 'fails', mend: { path: 'width' } });
    const longer = report(spur, { ...driven, width: short.mend!.value }, { ...duty, torque: 1.5 * weak });
    expect(longer.checks.find((c) => c.id === 'form-bore1')!.state).not.toBe('fails');
    const far = report(spur, driven, { ...duty, torque: 3 * weak }).checks.find((c) => c.id === 'form-bore1')!;
    expect(far.mend).toBeUndefined();
    const hub = { material1: 'pa-cf', shape1: 'flat' };
    const pinion = report(bevel, hub, bevel.duty).checks.find((c) => c.id === 'form-bore1')!.limit;
    const at = { ...bevel.duty, torque: 1.4 * pinion };
    const hubbed = report(bevel, hub, at).checks.find((c) => c.id === 'form-bore1')!;
    expect(hubbed.mend).toMatchObject({ path: 'hub1' });
    const held = report(bevel, { ...hub, hub1: hubbed.mend!.value }, at).checks.find((c) => c.id === 'form-bore1')!;
    expect(held.state).not.toBe('fails');
    const hopeless = report(spur, over, { ...duty, torque: 400 }).checks.find((c) => c.id === 'form-bore2')!;
    expect(hopeless.mend).toBeUndefined();
    expect(hopeless.advice).toMatch(/screw it to a flange/);
  });

  it('is known of every kind whose wheels have bores with a flat', () => {
    for (const kind of stageKinds()) {
      const flats = kind.fields.filter((f) => /^shape(1|2|S)?$/.test(f.path) && /bore/i.test(f.label));
      if (flats.length === 0) continue;
      const soft = kind.fields.filter((f) => /^material(1|2|S)$/.test(f.path));
      const over = Object.fromEntries([...flats.map((f) => [f.path, 'flat']), ...soft.map((f) => [f.path, 'pa-cf'])]);
      const duty = { torque: 1, torqueRms: 1, speed: 1 };
      const plain = kind.starts as Record<string, unknown>;
      const { numbers } = report(
        { kind: kind.id, params: { ...plain, ...over, ...(plain['boreS'] === 0 && { boreS: 0.004 }) } },
        {},
        duty,
      );
      const found = numbers.limits.filter((l) => /^flat of the .* gives way$/.test(l.mode));
      expect(found.length, kind.id).toBeGreaterThan(0);
      for (const l of found) expect(l.torque, `${kind.id}: ${l.mode}`).toBeGreaterThan(0);
    }
  });
});
