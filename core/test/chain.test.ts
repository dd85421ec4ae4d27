import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CHAINS, chainWords, flatten, readParams, stageKind, type Duty } from '../src/index.ts';
import { distanceTo, shelf } from './helpers.ts';
import { analyseOf, drawingOf, kinematicsOf, partsOf } from './stage-bench.ts';

interface ChainCase {
  pitch_mm: number;
  z1: number;
  z2: number;
  links: number;
  pitch_diameter_1_mm: number;
  pitch_diameter_2_mm: number;
  centre_mm: number;
  free_span_mm: number;
  teeth_in_mesh_small: number;
  speed_ripple: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/chain.json', import.meta.url), 'utf8')) as ChainCase[];
const kind = stageKind('chain')!;
const duty: Duty = { torque: 3, torqueRms: 1.5, speed: 4, meanSpeed: 2, equivalent: 2 };
const params = (over: Record<string, unknown>): Record<string, unknown> => {
  const r = readParams('chain', { ...(kind.starts as object), ...over });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const report = (over: Record<string, unknown>, at: Duty = duty) => {
  const r = analyseOf(kind, params(over), at, shelf);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const value = (r: ReturnType<typeof report>, id: string): number => r.figures.find((f) => f.id === id)!.value;

describe('chains against an independent calculation', () => {
  for (const c of cases)
    it(`${c.z1} and ${c.z2} teeth of ${c.pitch_mm} mm with ${c.links} links`, () => {
      const size = CHAINS.find((x) => Math.abs(x.pitch - c.pitch_mm * 1e-3) < 1e-9)!.id;
      const r = report({ size, z1: c.z1, z2: c.z2, links: c.links, bore1: 3e-3 });
      expect(value(r, 'pitch1')).toBeCloseTo(c.pitch_diameter_1_mm * 1e-3, 9);
      expect(value(r, 'pitch2')).toBeCloseTo(c.pitch_diameter_2_mm * 1e-3, 9);
      expect(value(r, 'centre')).toBeCloseTo(c.centre_mm * 1e-3, 9);
      expect(value(r, 'mesh')).toBeCloseTo(c.teeth_in_mesh_small, 4);
      expect(value(r, 'ripple')).toBeCloseTo(c.speed_ripple, 8);
      const opened = kind.open(params({ size, z1: c.z1, z2: c.z2, links: c.links, bore1: 3e-3 }), shelf);
      if (!opened.ok) throw new Error(opened.problem.what);
      const straight = opened.value
        .drawing(0, { duty })
        .flatMap((l) => l.items)
        .find((i) => i.key === 'tight0');
      if (straight?.kind !== 'curve') throw new Error('no tight run');
      const [x1, y1, , x2, y2] = straight.outline.points as unknown as number[];
      expect(Math.hypot(x2! - x1!, y2! - y1!)).toBeCloseTo(c.free_span_mm * 1e-3, 9);
    });
});

describe('numbers of chains', () => {
  it('are told in words', () => {
    expect(CHAINS.map((c) => chainWords(c))).toEqual([
      '04: 1/4 in pitch, C: inch series of bushes; 25: 2 eighths of an inch, 5: bushes without rollers',
      '06: 3/8 in pitch, C: inch series of bushes; 35: 3 eighths of an inch, 5: bushes without rollers',
      '05B: metric pitch, B: European series of rollers',
      '06: 3/8 in pitch, B: European series of rollers',
      '085: 1/2 in pitch, light, narrow; 41: 4 eighths of an inch, 1: rollers, light',
      '08: 1/2 in pitch, A: inch series of rollers; 40: 4 eighths of an inch, 0: rollers',
      '08: 1/2 in pitch, B: European series of rollers',
    ]);
  });
});

describe('a sprocket', () => {
  const profile = (over: Record<string, unknown>, id = 'driver') => {
    const made = partsOf(kind, params(over), shelf);
    if (!made.ok) throw new Error(made.problem.what);
    return made.value.find((p) => p.id === id)!.curves.find((c) => c.layer === 'profile')!.outline;
  };

  it('lets a roller sit in each gap: on the pitch circle it touches the seat and cuts nothing', () => {
    for (const form of ['least', 'mean', 'most'])
      for (const z1 of [9, 15, 31]) {
        const points = flatten(profile({ size: '06B', z1, z2: 31, links: 80, form, bore1: 3e-3 }), 1e-7);
        const r = 9.525e-3 / 2 / Math.sin(Math.PI / z1);
        // Seats are larger than rollers by a hundredth and less than a fifth.
        const room = distanceTo(points, r, 0) / (6.35e-3 / 2);
        expect(room, `${form} ${z1}`).toBeGreaterThan(1.005);
        expect(room, `${form} ${z1}`).toBeLessThan(1.06);
      }
  });

  it('has its roots and tips where ISO 606 has them', () => {
    const at = flatten(profile({ size: '06B', z1: 17, z2: 31, links: 80, form: 'least', bore1: 3e-3 }), 1e-7);
    const radii = Array.from({ length: at.length / 2 }, (_, i) => Math.hypot(at[2 * i]!, at[2 * i + 1]!));
    const d = 9.525e-3 / Math.sin(Math.PI / 17);
    expect(Math.min(...radii)).toBeCloseTo(d / 2 - 0.505 * 6.35e-3, 6);
    const least = d + 9.525e-3 * (1 - 1.6 / 17) - 6.35e-3;
    const most = d + 1.25 * 9.525e-3 - 6.35e-3;
    expect(2 * Math.max(...radii)).toBeCloseTo((least + most) / 2, 6);
  });

  const led = {
    idler: 'outside',
    idlerTeeth: 11,
    idlerPush: 2e-3,
    branch: 'inside',
    branchTeeth: 12,
    branchPush: 4e-3,
  };
  const further = {
    idler2: 'inside',
    idler2Along: 0.75,
    idler2Teeth: 9,
    idler2Push: 3e-3,
    branch2: 'outside',
    branch2Teeth: 10,
  };
  it.each([
    [70, led, [13, 11, 29, 12]],
    // The chain meets the idlers from the driver on, and the branches on its way back, the far one first.
    [110, { ...led, ...further, idlerAlong: 0.3, branch2Push: 4e-3 }, [13, 11, 9, 29, 12, 10]],
  ])('keeps a gap under every joint at any crank: %i links', (links, over, teeth) => {
    const p = params({ z1: 13, z2: 29, links, ...over });
    for (const crank of [0, 0.37, 2.1]) {
      const drawn = drawingOf(kind, p, crank, { shelf, duty });
      if (!drawn.ok) throw new Error(drawn.problem.what);
      const items = drawn.value.flatMap((l) => l.items).flatMap((i) => (i.kind === 'curve' ? [i] : []));
      const rollers = items.filter((i) => i.key.startsWith('roller')).map((i) => i.at);
      expect(rollers.length).toBe(links);
      const sprockets = items.filter((i) => /^sprocket\d/.test(i.key));
      expect(sprockets.length).toBe(teeth.length);
      let sitting = 0;
      for (const s of sprockets) {
        const z = teeth[Number(s.key.slice('sprocket'.length))]!;
        const r = 6.35e-3 / 2 / Math.sin(Math.PI / z);
        for (const a of rollers) {
          const [dx, dy] = [a.x - s.at.x, a.y - s.at.y];
          if (Math.abs(Math.hypot(dx, dy) - r) > 1e-7) continue;
          const gaps = ((Math.atan2(dy, dx) - s.at.turn) * z) / (2 * Math.PI);
          expect(Math.abs(gaps - Math.round(gaps)), `${s.key}`).toBeLessThan(1e-6);
          sitting++;
        }
      }
      expect(sitting).toBeGreaterThanOrEqual(20);
    }
  });
});

describe('a chain stage', () => {
  it('turns a branch on its outside the other way, by its own ratio', () => {
    const inside = report({ links: 90, branch: 'inside', branchTeeth: 20 });
    expect(value(inside, 'branch')).toBeCloseTo(20 / 15, 12);
    const outside = report({ links: 90, branch: 'outside', branchTeeth: 20, branchPush: 6e-3 });
    expect(value(outside, 'branch')).toBeCloseTo(-20 / 15, 12);
    expect(
      kinematicsOf(kind, params({ links: 90, branch: 'outside', branchTeeth: 20, branchPush: 6e-3 })).members.map(
        (m) => m.name,
      ),
    ).toContain('branch');
    // Two of them: each its own way, and the tight run carries all.
    const two = { branch: 'inside', branchTeeth: 12, branch2: 'outside', branch2Teeth: 10, branch2Push: 4e-3 };
    const both = report({ links: 110, ...two, branchPush: 4e-3, branch2Load: 0.5 });
    expect(value(both, 'branch')).toBeCloseTo(12 / 15, 12);
    expect(value(both, 'branch2')).toBeCloseTo(-10 / 15, 12);
    expect(value(both, 'tight') / value(report({ links: 110 }), 'tight')).toBeCloseTo(1.8, 1);
    // The tight run carries both.
    expect(value(inside, 'tight') / value(report({ links: 90 }), 'tight')).toBeCloseTo(1.3, 1);
  });

  it('takes the next even number of links for wanted centres', () => {
    const r = report({ setBy: 'centre', centre: 0.2 });
    expect(value(r, 'links') % 2).toBe(0);
    expect(value(r, 'centre')).toBeGreaterThanOrEqual(0.2);
    expect(value(r, 'centre')).toBeLessThan(0.2 + 6.35e-3);
  });

  it('weakens by a fifth and warns with an offset link', () => {
    const [even, odd] = [report({ links: 70 }), report({ links: 71 })];
    expect(value(odd, 'yield') / value(even, 'yield')).toBeCloseTo(0.8, 9);
    const check = odd.checks.find((c) => c.id === 'even')!;
    expect(check.state).toBe('fails');
    expect(check.mend).toMatchObject({ path: 'links', value: 72 });
  });

  it('has all of its wear as play where nobody takes it up', () => {
    const [kept, never] = [report({ takeUp: 'centre' }), report({ takeUp: 'never', worn: 0.01 })];
    const r2 = 6.35e-3 / 2 / Math.sin(Math.PI / 45);
    // Sixty links of a quarter inch, longer by a hundredth, over the driven pitch radius.
    expect(value(never, 'play') - value(kept, 'play')).toBeCloseTo((0.01 * 60 * 6.35e-3) / r2, 9);
  });

  it('says in words what cannot be', () => {
    for (const [over, place] of [
      [{ links: 20 }, 'links'],
      [{ size: '99Z' }, 'size'],
      [{ bore1: 0.03 }, 'bore1'],
      [{ idler: 'inside', idlerPush: 0, idlerTeeth: 30 }, 'idlerPush'],
      [{ idler: 'outside', idlerPush: 0, idlerAlong: 0.05 }, 'idlerPush'],
    ] as const) {
      const r = analyseOf(kind, params(over), duty, shelf);
      expect(r.ok, JSON.stringify(over)).toBe(false);
      if (!r.ok) {
        expect(r.problem.place, JSON.stringify(over)).toBe(place);
        expect(r.problem.what + r.problem.mend).not.toMatch(/NaN|undefined/);
      }
    }
  });

  it('never gives out more than goes in, wears longer the larger it is, and stays finite', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 11, max: 40 }),
        fc.integer({ min: 11, max: 100 }),
        fc.integer({ min: 0, max: 60 }),
        (z1, z2, more) => {
          const links = 2 * Math.ceil((z1 + z2) / 2) + 40 + 2 * more;
          const r = analyseOf(kind, params({ z1, z2, links, bore1: 3e-3 }), duty, shelf);
          if (!r.ok) return;
          const n = r.value.numbers;
          expect(n.etaForward).toBeLessThan(1);
          expect(n.etaForward).toBeGreaterThan(0.9);
          expect(n.stiffness).toBeGreaterThan(0);
          // A longer chain turns its joints less often.
          const longer = analyseOf(kind, params({ z1, z2, links: links + 20, bore1: 3e-3 }), duty, shelf);
          const wear = (x: typeof n) => x.limits.find((l) => l.mode === 'chain is worn out')!.life;
          if (longer.ok) expect(wear(longer.value.numbers)).toBeGreaterThan(wear(n));
        },
      ),
      { numRuns: 30 },
    );
  });
});
