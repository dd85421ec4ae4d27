import { describe, expect, it } from 'vitest';
import { makeShelf, readParams, stageKind, type StageKindId } from '../src/index.ts';
import { planetsLeft, PLANETS_OUT, type PlanetsOut } from '../src/gear/index.ts';
import { analyseOf, partsOf } from './stage-bench.ts';

// What springs between planets do is worked out a second way: the play and the load that opens it come from where rigid
// wheels stand when springs and load pull on them, found by trying every corner of the room that their teeth leave.

/** Two-sided limit on a sum of ways: |c·x| ≤ room. */
interface Limit {
  readonly of: readonly number[];
  readonly room: number;
}

/** Solves a small square system by elimination; undefined where it is singular. */
function solved(rows: readonly (readonly number[])[], right: readonly number[]): number[] | undefined {
  const m = rows.map((r, i) => [...r, right[i]!]);
  const n = m.length;
  for (let c = 0; c < n; c++) {
    const best = m.slice(c).reduce((b, r, i) => (Math.abs(r[c]!) > Math.abs(m[b]![c]!) ? c + i : b), c);
    if (Math.abs(m[best]![c]!) < 1e-12) return undefined;
    [m[c], m[best]] = [m[best]!, m[c]!];
    for (let r = 0; r < n; r++)
      if (r !== c) {
        const f = m[r]![c]! / m[c]![c]!;
        for (let k = c; k <= n; k++) m[r]![k]! -= f * m[c]![k]!;
      }
  }
  return m.map((r, i) => r[n]! / r[i]!);
}

/** Where the first way stands when `pull` is greatest within the limits. */
function standsAt(pull: readonly number[], limits: readonly Limit[]): number {
  const n = pull.length;
  let [best, at] = [-Infinity, NaN];
  const choose = (from: number, rows: number[][], right: number[]): void => {
    if (rows.length === n) {
      const x = solved(rows, right);
      if (!x || limits.some((l) => Math.abs(l.of.reduce((s, c, i) => s + c * x[i]!, 0)) > l.room + 1e-9)) return;
      const reached = pull.reduce((s, c, i) => s + c * x[i]!, 0);
      if (reached > best + 1e-9) [best, at] = [reached, x[0]!];
      return;
    }
    for (let i = from; i < limits.length; i++)
      for (const side of [-1, 1]) choose(i + 1, [...rows, [...limits[i]!.of]], [...right, side * limits[i]!.room]);
  };
  choose(0, [], []);
  return at;
}

// Ways: of the planets' centres (the carrier's turn times the centre distance), of each wheel's circle. The sun and the
// ring stand still; a planet that turns by α and moves by u runs past the sun by u − α and past the ring by u + α.
const force = 30;
const [jS, jR] = [0.08, 0.2];
type Scene = { readonly pull: (load: number) => number[]; readonly limits: Limit[]; readonly meshes: number };
const scenes: Record<Exclude<PlanetsOut, 'none'>, Scene> = {
  // u, α, and the sprung half of the sun; the load on the carrier is two tooth forces.
  sun: {
    pull: (f) => [2 * f, 0, force],
    limits: [
      { of: [1, -1, 0], room: jS / 2 },
      { of: [1, -1, -1], room: jS / 2 },
      { of: [1, 1, 0], room: jR / 2 },
    ],
    meshes: 1,
  },
  ring: {
    pull: (f) => [2 * f, 0, force],
    limits: [
      { of: [1, -1, 0], room: jS / 2 },
      { of: [1, 1, 0], room: jR / 2 },
      { of: [1, 1, -1], room: jR / 2 },
    ],
    meshes: 1,
  },
  // u, and a planet's two halves.
  planets: {
    pull: (f) => [2 * f, force, -force],
    limits: [
      { of: [1, -1, 0], room: jS / 2 },
      { of: [1, 0, -1], room: jS / 2 },
      { of: [1, 1, 0], room: jR / 2 },
      { of: [1, 0, 1], room: jR / 2 },
    ],
    meshes: 1,
  },
  // u, the planet on the fixed pin, the other's pin against the carrier and that planet; two planets share the load.
  pairs: {
    pull: (f) => [4 * f, 0, 2 * force, 0],
    limits: [
      { of: [1, -1, 0, 0], room: jS / 2 },
      { of: [1, 1, 0, 0], room: jR / 2 },
      { of: [1, 0, 1, -1], room: jS / 2 },
      { of: [1, 0, 1, 1], room: jR / 2 },
    ],
    meshes: 2,
  },
};
/** A shop in which nothing comes out otherwise than drawn. */
const exact = makeShelf({
  factors: Object.fromEntries(
    ['gear.thickness', 'gear.runout', 'gear.tilt', 'planet.place'].map((id) => [id, { value: 0, low: 0, high: 0 }]),
  ),
});

describe('springs that take out the play of planets', () => {
  it.each(Object.keys(scenes) as (keyof typeof scenes)[])('%s: as rigid wheels stand under springs and load', (way) => {
    const { pull, limits } = scenes[way];
    const between = (load: number) => standsAt(pull(load), limits) - standsAt(pull(-load), limits);
    const opens = PLANETS_OUT[way].opens * force;
    // The planet's centre moves by half of what its meshes have together: one metre along each mesh is half a metre of it.
    const mesh = (play: number) => ({ angle: 0.5, pair: { play, working: 0.35 } as never });
    const [left] = planetsLeft(way, mesh(jS), mesh(jR), 2, exact);
    expect(between(0.01 * opens)).toBeCloseTo(left, 9);
    expect(between(0.99 * opens)).toBeCloseTo(left, 9);
    expect(between(1.01 * opens)).toBeGreaterThan(left + 0.9 * Math.min(jS, jR) * 0.5);
    // Beyond, all of it is there; where pins are pushed, only the fixed ones' way.
    expect(between(100 * opens)).toBeCloseTo((jS + jR) / 2, 9);
  });
});

const shelf = makeShelf();
const duty = { torque: 4, torqueRms: 2, speed: 1 };
const stage = (id: StageKindId, over: Record<string, unknown>) => {
  const kind = stageKind(id)!;
  const start = kind.defaults({ ratio: 5, torque: 2, size: Infinity, shelf }) as Record<string, unknown>;
  const p = readParams(id, { ...start, meshBy: 'given', ...over });
  if (!p.ok) throw new Error(p.problem.what);
  const [made, parts] = [analyseOf(kind, p.value, duty, shelf), partsOf(kind, p.value, shelf)];
  if (!made.ok || !parts.ok) throw new Error(made.ok ? 'no parts' : made.problem.what);
  const figure = (name: string) => made.value.figures.find((f) => f.id === name)!.value;
  const limit = (mode: string) => made.value.numbers.limits.find((l) => l.mode.startsWith(mode))!.torque;
  const figures = made.value.figures.map((f) => f.id);
  return {
    numbers: made.value.numbers,
    checks: made.value.checks,
    figures,
    figure,
    limit,
    parts: parts.value,
    p: p.value,
  };
};
const four = { zs: 18, zp: 27, zr: 72, planets: 6, pins: 'plain', pin: 6e-3, etaS: 0.98, etaR: 0.99, materialS: 'c45' };

describe('a planetary stage without play', () => {
  const bare = stage('planetary', four);
  const module = bare.figure('centre') / 22.5;
  // Sun in, carrier out: a newton metre at the carrier is what balances a planet in the carrier's frame, where 27/18 of the
  // sun's torque by its η is 27/72 of the ring's over its own, on six planets and the sun's circle.
  const [bySun, byRing] = [(27 / 18) * 0.98, 27 / 72 / 0.99];
  const per = byRing / (bySun + byRing) / 6 / (9 * module);
  const F = 12;

  it('by a split sun: the ring’s play stays; half the width carries the load and the spring', () => {
    const r = stage('planetary', { ...four, takenOut: 'sun', preload: F });
    expect(r.numbers.play[0]).toBeGreaterThan(0);
    expect(r.numbers.play[0]).toBeLessThan(0.7 * bare.numbers.play[0]);
    expect(r.figure('opens')).toBeCloseTo(F / per, 9);
    const was = bare.limit('root of the sun breaks');
    expect(r.limit('root of the sun breaks')).toBeCloseTo(was / 2 - F / (per * bare.figure('share')), 6);
    expect(r.limit('root of the ring breaks')).toBeCloseTo(bare.limit('root of the ring breaks'), 9);
    // Two flanks of six planets lose 2 % of 12 N each; a planet turns 90/18·18/27·(1 − 1/5) = 8/3 times on its pin.
    const turns = (5 - 1) * (18 / 27);
    expect(r.figure('braking')).toBeCloseTo(6 * 2 * F * 0.02 * 13.5 * module * turns, 9);
    expect(r.numbers.drag - bare.numbers.drag).toBeCloseTo(r.figure('braking') / 5, 9);
  });

  it('by split planets: what both meshes’ plays differ by', () => {
    const r = stage('planetary', { ...four, takenOut: 'planets', preload: F });
    expect(r.numbers.play[1]).toBe(0);
    expect(r.numbers.play[0]).toBeLessThan(0.5 * bare.numbers.play[0]);
    expect(r.figure('opens')).toBeCloseTo(F / per, 9);
    expect(r.limit('root of the sun breaks')).toBeCloseTo(
      bare.limit('root of the sun breaks') - F / (per * bare.figure('share')),
      6,
    );
  });

  it('by pairs pushed apart: none; half of the planets carry all, and each pin its mate’s push', () => {
    const r = stage('planetary', { ...four, takenOut: 'pairs', preload: F });
    expect(r.numbers.play).toEqual([0, 0, 0]);
    // Nobody is told to look for a slip where the design takes it out.
    expect(r.checks.some((c) => c.id === 'usual-play')).toBe(false);
    expect(r.figure('opens')).toBeCloseTo(F / 2 / per, 9);
    expect(r.figure('pinForce')).toBeCloseTo(2 * bare.figure('pinForce') + 2 * F, 6);
    expect(r.checks.some((c) => c.id === 'pairs' && c.state === 'holds')).toBe(true);
    const three = stage('planetary', { ...four, planets: 3, takenOut: 'pairs', preload: F });
    expect(three.checks.find((c) => c.id === 'pairs')).toMatchObject({ state: 'fails', mend: { path: 'planets' } });
  });

  it('costs more the stronger the springs are, and is refused where a tube cannot be split', () => {
    const [weak, strong] = [10, 20].map((preload) => stage('planetary', { ...four, takenOut: 'ring', preload }));
    expect(strong!.numbers.drag - bare.numbers.drag).toBeCloseTo(2 * (weak!.numbers.drag - bare.numbers.drag), 12);
    expect(strong!.figure('opens')).toBeCloseTo(2 * weak!.figure('opens'), 9);
    expect(() => stage('planetary', { ...four, sets: 2, takenOut: 'ring' })).toThrow('cannot be split');
  });

  it('offers springs that hold the peak', () => {
    const strong = { ...four, width: 0.03, materialP: 'c45', materialR: 'c45' };
    const r = stage('planetary', { ...strong, takenOut: 'sun', preload: 1 });
    const failed = r.checks.find((c) => c.id === 'opens')!;
    expect(failed.state).toBe('fails');
    const mended = stage('planetary', { ...strong, takenOut: 'sun', preload: failed.mend!.value });
    expect(mended.checks.find((c) => c.id === 'opens')!.state).toBe('holds');
  });
});

describe('a shared-planet stage without play', () => {
  const steel = { materialS: 'c45', materialP: 'c45', materialR: 'c45' };
  it('by both rings split: what the sun’s mesh leaves; each ring bears half, less its spring', () => {
    const [bare, driven, rings] = (['none', 'driven', 'rings'] as const).map((takenOut) =>
      stage('compound-planetary', { ...steel, takenOut, preload: 5 }),
    );
    expect(driven!.numbers.play[0]).toBeLessThan(bare!.numbers.play[0]);
    expect(rings!.numbers.play[0]).toBeLessThan(0.3 * driven!.numbers.play[0]);
    expect(rings!.figure('braking')).toBeGreaterThan(driven!.figure('braking'));
    // One more newton lowers the driven ring's limit by what a newton at its teeth is at the output.
    const more = stage('compound-planetary', { ...steel, takenOut: 'rings', preload: 6 });
    const root = 'root of the driven ring breaks';
    expect(rings!.limit(root) - more.limit(root)).toBeCloseTo((bare!.limit(root) / 2 - rings!.limit(root)) / 5, 6);
  });
});

describe('wave tension', () => {
  const [bare, r, more] = [0, 30, 60].map((tension) => stage('strain-wave', { tension }));
  const [R, lean] = [((bare!.p['module'] as number) * (bare!.p['teeth'] as number)) / 2, bare!.p['angle'] as number];

  it('takes the play out until the load pushes a lobe back', () => {
    expect(bare!.numbers.play[0]).toBeGreaterThan(0);
    expect(r!.numbers.play).toEqual([0, 0, 0]);
    // Two lobes of 30 N, on a wedge of the teeth's lean, at the radius of the cup's teeth.
    expect(bare!.p['form']).toBe('straight');
    expect(r!.figure('opens')).toBeCloseTo((2 * 30 * R) / Math.tan(lean), 6);
    expect(bare!.figures).not.toContain('opens');
  });

  it('costs what the springs rub, on the input all the time, and strains the wall a little more', () => {
    const ratio = Math.abs(r!.numbers.ratio);
    // From no springs to some the wall is also bent further; from some to twice as many only they are more.
    expect(more!.numbers.drag - r!.numbers.drag).toBeCloseTo(r!.figure('braking') / ratio, 9);
    expect(r!.numbers.drag - bare!.numbers.drag).toBeGreaterThan(r!.figure('braking') / ratio);
    expect(more!.figure('braking')).toBeCloseTo(2 * r!.figure('braking'), 9);
    // Force through the wedge is work put in by the springs: what is lost of it is a share, as of a load of that torque.
    const lost = r!.figure('braking') / r!.figure('opens');
    expect(lost).toBeGreaterThan(0.01);
    expect(lost).toBeCloseTo(1 / bare!.numbers.etaForward - 1, 9);
    expect(r!.figure('strain')).toBeGreaterThan(bare!.figure('strain'));
    expect(r!.numbers.mass - bare!.numbers.mass).toBeCloseTo(2e-3, 9);
  });
});

describe('parts of what springs press', () => {
  it.each([
    ['spur', { takenOut: 'split' }],
    ['spur', { takenOut: 'spring' }],
    ['rack', { form: 'involute', takenOut: 'split' }],
    ['planetary', { ...four, takenOut: 'sun' }],
    ['planetary', { ...four, takenOut: 'ring' }],
    ['planetary', { ...four, takenOut: 'planets' }],
    ['planetary', { ...four, takenOut: 'pairs' }],
    ['compound-planetary', { takenOut: 'rings' }],
    ['strain-wave', { tension: 30, takenOut: 'pairs' }],
  ] as const)('%s %o: weigh and cost what the stage does, halves stand beside one another', (id, over) => {
    const r = stage(id, over);
    const { takenOut } = over;
    const sum = (of: 'mass' | 'money') => r.parts.reduce((s, x) => s + x.quantity * x[of], 0);
    const pins = r.parts.find((x) => x.id === 'pin' && x.material === 'ground rod');
    expect(sum('mass')).toBeCloseTo(r.numbers.mass, 9);
    expect(sum('money')).toBeCloseTo(r.numbers.money + (pins && id !== 'compound-planetary' ? pins.money : 0), 9);
    expect(r.parts.some((x) => x.id === 'springs' && x.quantity > 0)).toBe(true);
    const halves = r.parts.filter((x) => x.id.endsWith('-sprung'));
    expect(halves.length > 0).toBe(takenOut !== 'spring' && takenOut !== 'pairs');
    for (const half of halves) {
      const held = r.parts.find((x) => `${x.id}-sprung` === half.id)!;
      const [a, b] = [held.places!(0.3), half.places!(0.3)];
      expect(b).toHaveLength(held.quantity);
      const tops = held.solid!().prisms.map((x) => x.to);
      expect(b[0]!.at[2] - a[0]!.at[2]).toBeCloseTo(Math.max(...tops), 12);
    }
  });
});
