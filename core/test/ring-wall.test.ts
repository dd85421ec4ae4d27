import { describe, expect, it } from 'vitest';
import { ofKind } from './reducer-bench.ts';
import { checkOf, stageBench } from './stage-bench.ts';
import { shelf } from './helpers.ts';

/** A kind with a ring as it starts at some ratio, with the parameter that thickens its wall. */
const RINGS = [
  ['planetary', 'wall', 'rim', 5, { arrangement: 'sun-ring' }],
  ['compound-planetary', 'rim-ring1', 'rim', 20, {}],
  ['compound-planetary', 'rim-ring2', 'rim', 20, {}],
  ['cycloidal', 'rim', 'rim', 20, { held: 'disc' }],
  ['roller-wave', 'rim', 'rim', 20, { held: 'cage' }],
  ['strain-wave', 'rim', 'ringWall', 50, { held: 'spline' }],
] as const;

const bench = (kind: string, ratio: number, torque = 3) =>
  stageBench(kind, { ...(ofKind(kind, ratio).stages[0]!.params as object) }, { torque, torqueRms: 1, speed: 2 }, shelf);

describe('the wall of a ring', () => {
  it.each(RINGS)(
    'of a %s (%s) is bent less the thicker it is, and more the harder it is pushed',
    (kind, id, path, ratio) => {
      const of = (wall: number, torque = 3) => checkOf(bench(kind, ratio, torque).report({ [path]: wall }), id).figure;
      const told = [5e-3, 6e-3, 8e-3, 12e-3, 20e-3].map((wall) => of(wall));
      expect(told.every((x, i) => x > 0 && (i === 0 || x < told[i - 1]!))).toBe(true);
      expect(of(6e-3, 6)).toBeGreaterThan(1.7 * of(6e-3, 3));
    },
  );

  it.each(RINGS)('of a %s (%s) is mended where it bends too far', (kind, id, path, ratio) => {
    const { report } = bench(kind, ratio, 20);
    const thin = kind === 'cycloidal' ? 4e-3 : 1e-3;
    const told = checkOf(report({ [path]: thin }), id);
    expect(told.state).toBe('fails');
    expect(told.mend).toMatchObject({ path });
    expect(checkOf(report({ [path]: told.mend!.value }), id).state).not.toBe('fails');
  });

  it('is a note where the ring stands still, since its seat keeps it round, and a warning where it turns', () => {
    for (const [kind, id, path, ratio, turning] of RINGS) {
      if (kind === 'compound-planetary') continue;
      const { report } = bench(kind, ratio, 20);
      const thin = kind === 'cycloidal' ? 4e-3 : 1e-3;
      expect(checkOf(report({ [path]: thin }), id), kind).toMatchObject({ severity: 'note' });
      expect(checkOf(report({ [path]: thin, ...turning }), id), kind).toMatchObject({ severity: 'warn' });
    }
    const shared = bench('compound-planetary', 20, 20).report({ rim: 1e-3 });
    expect(checkOf(shared, 'rim-ring1').severity).toBe('note');
    expect(checkOf(shared, 'rim-ring2').severity).toBe('warn');
  });
});

describe('the housing behind a cycloidal’s pins', () => {
  const { report, analyse } = bench('cycloidal', 20);
  const { pin } = ofKind('cycloidal', 20).stages[0]!.params as { pin: number };

  it('keeps a millimetre, and is thickened until it does', () => {
    const told = checkOf(report({ rim: pin / 2 + 4e-4 }), 'behind');
    expect(told).toMatchObject({ state: 'fails', severity: 'stop', limit: 1e-3 });
    expect(told.figure).toBeCloseTo(4e-4, 12);
    expect(checkOf(report({ rim: told.mend!.value }), 'behind').state).toBe('holds');
  });

  it('is refused where the pins would stand out of it, with a wall that holds them', () => {
    const refused = analyse({ rim: pin / 2 });
    expect(refused).toMatchObject({ ok: false, problem: { place: 'rim', fix: { path: 'rim' } } });
    if (refused.ok) return;
    const { value } = (refused.problem as unknown as { fix: { value: number } }).fix;
    expect(checkOf(report({ rim: value }), 'behind').state).toBe('holds');
  });
});

describe('teeth of two hands on shared planets', () => {
  it('go together without a sun, and of one hand with it', () => {
    const { report } = bench('compound-planetary', 20);
    const told = (more: object) => checkOf(report({ helix: 0.3, ...more }), 'hands');
    expect(told({})).toMatchObject({ state: 'holds', figure: 1, limit: 1 });
    expect(told({ double: 'yes', drive: 'carrier' })).toMatchObject({ state: 'holds', figure: 2, limit: 2 });
    const both = told({ double: 'yes' });
    expect(both).toMatchObject({ state: 'fails', severity: 'stop', mend: { path: 'double', value: 'no' } });
    expect(told({ [both.mend!.path]: both.mend!.value }).state).toBe('holds');
  });
});
