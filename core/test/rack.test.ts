import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { flatten, playOut, readParams, stageKind, taperMove, type Duty } from '../src/index.ts';
import { distanceTo, shelf } from './helpers.ts';
import { analyseOf, drawingOf, partsOf } from './stage-bench.ts';

interface RackCase {
  module_mm: number;
  teeth: number;
  shift: number;
  pressure_angle_deg: number;
  helix_deg: number;
  travel_per_turn_mm: number;
  axis_to_rack_pitch_line_mm: number;
  contact_ratio: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/rack.json', import.meta.url), 'utf8')) as RackCase[];
const kind = stageKind('rack')!;
const deg = Math.PI / 180;
/** Newtons and metres: its output runs straight. */
const duty: Duty = { torque: 150, torqueRms: 60, speed: 0.3, meanSpeed: 0.1, equivalent: 80, swing: 0.25 };
const params = (over: Record<string, unknown>): Record<string, unknown> => {
  const r = readParams('rack', { ...(kind.starts as object), ...over });
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const report = (over: Record<string, unknown>, at: Duty = duty) => {
  const r = analyseOf(kind, params(over), at, shelf);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
const figure = (r: ReturnType<typeof report>, id: string) => r.figures.find((f) => f.id === id)!;
const value = (r: ReturnType<typeof report>, id: string): number => figure(r, id).value;
const rollers = { form: 'rollers', z: 12, module: 2e-3, roller: 3e-3, width: 0.02, back: 0.012, bore: 8e-3 };

describe('racks against an independent calculation', () => {
  for (const c of cases)
    it(`${c.teeth} teeth of ${c.module_mm} mm, ${c.helix_deg}°`, () => {
      const r = report({
        module: c.module_mm * 1e-3,
        z: c.teeth,
        shift: c.shift,
        pressure: c.pressure_angle_deg * deg,
        helix: c.helix_deg * deg,
        bore: 4e-3,
        trim: 'no',
      });
      expect(value(r, 'travel')).toBeCloseTo(c.travel_per_turn_mm * 1e-3, 9);
      expect(value(r, 'axis')).toBeCloseTo(c.axis_to_rack_pitch_line_mm * 1e-3, 9);
      expect(value(r, 'contact')).toBeCloseTo(c.contact_ratio, 6);
    });
});

describe('a rack’s teeth', () => {
  it('leave the play that is taken off both, as a pinion tooth stands in a space', () => {
    // A tooth of the pinion on its pitch circle and a space of the rack on its line, each by half its thickness.
    const r = report({ allowance1: 3e-5, allowance2: 5e-5 });
    const tilt = 1.5e-5;
    expect(value(r, 'play')).toBeCloseTo(8e-5 + tilt / 2, 12);
  });

  it('are the same mesh as a large wheel’s, whose teeth a rack’s are in the limit', () => {
    const spur = stageKind('spur')!;
    const wide = { module: 1e-3, width: 0.012, z1: 20, z2: 600, material1: 'c45', material2: 'c45', bore1: 6e-3 };
    const made = analyseOf(
      spur,
      { ...(spur.starts as object), ...wide, allowance1: 2e-5, allowance2: 2e-5 },
      { torque: 150 * 0.3, torqueRms: 60 * 0.3, speed: 1, meanSpeed: 1 / 3, equivalent: 80 * 0.3 },
      shelf,
    );
    if (!made.ok) throw new Error(made.problem.what);
    const rack = report({}, { ...duty, meanSpeed: 0.1 });
    const limit = (n: typeof rack, mode: string) => n.numbers.limits.find((l) => l.mode === mode)!.torque;
    expect(
      limit(rack, 'root of the pinion breaks') / (limit(made.value, 'root of the driving wheel breaks') / 0.3),
    ).toBeCloseTo(1, 2);
    expect(rack.numbers.etaForward).toBeCloseTo(made.value.numbers.etaForward, 3);
  });

  it('meet the pinion without cutting into it, at any crank', () => {
    for (const over of [{ trim: 'no' }, { shift: 0.4, z: 14, bore: 4e-3, trim: 'no' }]) {
      for (const crank of [0, 0.11, 0.2]) {
        const drawn = drawingOf(kind, params({ ...over, allowance1: 1e-5, allowance2: 1e-5 }), crank, { shelf, duty });
        if (!drawn.ok) throw new Error(drawn.problem.what);
        const items = drawn.value.flatMap((l) => l.items).flatMap((i) => (i.kind === 'curve' ? [i] : []));
        const [pinion, rack] = ['pinion', 'rack'].map((k) => items.find((i) => i.key === k)!);
        const own = flatten(rack!.outline, 1e-7);
        const points = flatten(pinion!.outline, 1e-7);
        const [c, s] = [Math.cos(pinion!.at.turn), Math.sin(pinion!.at.turn)];
        let nearest = Infinity;
        for (let i = 0; i < points.length; i += 2) {
          const x = c * points[i]! - s * points[i + 1]! - rack!.at.x;
          const y = s * points[i]! + c * points[i + 1]! - rack!.at.y;
          if (y > 1e-3 || Math.abs(x) > 5e-3) continue;
          const inside = windsRound(own, x, y);
          const gap = (inside ? -1 : 1) * distanceTo(own, x, y);
          nearest = Math.min(nearest, gap);
        }
        // Half of the normal play on one side, drawn coarsely; nothing cuts in by more than that.
        expect(nearest, JSON.stringify(over)).toBeGreaterThan(-6e-6);
        expect(nearest).toBeLessThan(2e-5);
      }
    }
  });
});

/** Whether a point lies inside a closed polygon. */
function windsRound(p: ArrayLike<number>, x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = p.length - 2; i < p.length; j = i, i += 2) {
    const [xi, yi, xj, yj] = [p[i]!, p[i + 1]!, p[j]!, p[j + 1]!];
    if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) inside = !inside;
  }
  return inside;
}

describe('rollers on a rack of cycloids', () => {
  it('touch a flank with each roller that is in it, and cut none, at any crank', () => {
    for (const crank of [0, 0.07, 0.31]) {
      const drawn = drawingOf(kind, params(rollers), crank, { shelf, duty });
      if (!drawn.ok) throw new Error(drawn.problem.what);
      const items = drawn.value.flatMap((l) => l.items).flatMap((i) => (i.kind === 'curve' ? [i] : []));
      const rack = items.find((i) => i.key === 'rack')!;
      const own = flatten(rack.outline, 1e-8);
      const turn = items.find((i) => i.key === 'roller0')!.at.turn;
      let touching = 0;
      for (let k = 0; k < 12; k++) {
        const a = turn + (2 * Math.PI * k) / 12;
        const [x, y] = [0.012 * Math.cos(a) - rack.at.x, 0.012 * Math.sin(a) - rack.at.y];
        if (y > 3e-3) continue;
        const gap = distanceTo(own, x, y) - 1.5e-3;
        // Chords of the drawn flank cut in by less than two micrometres.
        expect(gap, `roller ${k}`).toBeGreaterThan(-2e-6);
        if (gap < 2e-6) touching++;
      }
      expect(touching).toBeGreaterThanOrEqual(2);
    }
  });

  it('have no play while they are set in by more than they are made wrong', () => {
    const [loose, tight] = [report({ ...rollers, interference: 0 }), report({ ...rollers, interference: 4e-5 })];
    expect(value(loose, 'play')).toBe(0);
    // 30 µm off on either flank, and the rack 30 µm off: flanks of two rollers a pitch apart lean by 15° together.
    expect(figure(loose, 'play').high).toBeCloseTo(6e-5 + 3e-5 * Math.tan(15 * deg), 9);
    expect(figure(tight, 'play').high).toBe(0);
    // Both flanks carry, and both rub.
    expect(tight.numbers.stiffness).toBeGreaterThan(loose.numbers.stiffness);
    expect(tight.numbers.drag).toBeGreaterThan(loose.numbers.drag);
  });

  it('set in too far are set in by less, and bend pins that are too long by being shorter or thicker', () => {
    const over = { ...rollers, roller: 3.2e-3, width: 0.01, interference: 1e-5 };
    const failing = (o: Record<string, unknown>, force: number, id: string) =>
      report(o, { ...duty, torque: force, torqueRms: force / 3, equivalent: force / 3 }).checks.find(
        (c) => c.id === id,
      )!;
    // 171.4 N a side, of which 2·10.6 N/µm·10 µm behind leave 2·171.4 − 211.8.
    const crushed = failing(over, 140, 'crush');
    expect(crushed.limit).toBeCloseTo(130.9, 0);
    expect(crushed.mend).toMatchObject({ path: 'interference', value: 8.5e-6 });
    expect(failing({ ...over, interference: crushed.mend!.value }, 140, 'crush').state).not.toBe('fails');
    const long = failing({ ...over, width: 0.03, interference: 0 }, 100, 'pin');
    expect(long.state).toBe('fails');
    expect(long.mend).toMatchObject({ path: 'width' });
    expect(failing({ ...over, interference: 0, width: long.mend!.value }, 100, 'pin').state).not.toBe('fails');
  });

  it('that crush their flanks before any load are set in by less as well', () => {
    const c = report(
      { ...rollers, roller: 3.2e-3, width: 0.006, interference: 2e-5 },
      { ...duty, torque: 60 },
    ).checks.find((x) => x.id === 'crush')!;
    expect(c.limit).toBe(0);
    expect(c.mend).toMatchObject({ path: 'interference' });
  });

  it('are refused in words where they leave no teeth', () => {
    for (const roller of [6e-3, 5.4e-3]) {
      const r = analyseOf(kind, params({ ...rollers, roller }), duty, shelf);
      expect(r.ok).toBe(false);
      if (!r.ok) expect(r.problem).toMatchObject({ place: 'roller', fix: { path: 'roller' } });
    }
  });
});

describe('a rack’s teeth', () => {
  it('are met once a stroke where nothing says how far the axis goes', () => {
    const { swing: _, ...anywhere } = { ...duty, torqueRms: 800, equivalent: 800 };
    const lives = (at: Duty) => report({ stroke: 0.3 }, at).numbers.limits.map((l) => l.life);
    expect(lives(anywhere)).toEqual(lives({ ...anywhere, swing: 0.3 }));
    expect(Math.min(...lives(anywhere))).toBeLessThan(Infinity);
  });
});

describe('play taken out of a mesh', () => {
  it('comes back where the load overcomes the springs, and costs friction until then', () => {
    const split = report({ takenOut: 'split', preload: 40 });
    expect(value(split, 'play')).toBe(0);
    expect(value(split, 'opens')).toBe(40);
    expect(split.checks.find((c) => c.id === 'opens')!.state).toBe('fails');
    const sprung = report({ takenOut: 'spring', preload: 40 });
    expect(value(sprung, 'opens')).toBeCloseTo(40 / Math.tan(20 * deg), 9);
    // Springs of 40 N on two flanks whose mesh loses a share of what passes.
    expect(value(split, 'braking')).toBeCloseTo(80 * (1 - split.numbers.etaForward), 9);
    expect(value(sprung, 'braking')).toBeCloseTo((40 / Math.tan(20 * deg)) * (1 - sprung.numbers.etaForward), 9);
    expect(split.numbers.drag).toBeGreaterThan(report({}).numbers.drag);
  });

  it('leaves half of the teeth to carry load and spring together', () => {
    const limit = (r: ReturnType<typeof report>) =>
      r.numbers.limits.find((l) => l.mode === 'root of the pinion breaks')!.torque;
    expect(limit(report({ takenOut: 'split', preload: 40 }))).toBeCloseTo(limit(report({})) / 2 - 40, 6);
  });

  it('by hand leaves one to three hundredths, and tapered teeth move as far as their taper asks', () => {
    for (const takenOut of ['eccentric', 'taper'])
      expect(report({ takenOut }).numbers.play).toEqual([2e-5, 1e-5, 3e-5]);
    expect(value(report({ takenOut: 'taper', taper: 3 * deg }), 'move')).toBeCloseTo(
      4.75e-5 / (2 * Math.tan(3 * deg) * Math.tan(20 * deg)),
      12,
    );
    // Moved by s, the shift grows by s·tan θ, and the teeth by twice that times tan α.
    fc.assert(
      fc.property(
        fc.double({ min: 1e-6, max: 1e-3, noNaN: true }),
        fc.double({ min: 0.01, max: 0.2, noNaN: true }),
        (play, taper) => {
          const s = taperMove(play, taper, Math.tan(20 * deg));
          expect(2 * s * Math.tan(taper) * Math.tan(20 * deg)).toBeCloseTo(play, 12);
        },
      ),
    );
    expect(playOut('none', [1, 2, 3], 10, 0.3, 0.9)).toEqual({ left: [1, 2, 3], opens: 0, drag: 0 });
  });
});

describe('a rack as a part of an axis', () => {
  it('is as long as stroke and contact ask, in pieces that can be had', () => {
    const r = report({ stroke: 1.2, piece: 0.5 });
    expect(value(r, 'length')).toBeGreaterThan(1.2);
    expect(value(r, 'length')).toBeLessThan(1.2 + 6 * Math.PI * 1e-3);
    const made = partsOf(kind, params({ stroke: 1.2, piece: 0.5 }), shelf);
    if (!made.ok) throw new Error(made.problem.what);
    const pieces = made.value.filter((p) => p.id.startsWith('rack'));
    expect(pieces.reduce((n, p) => n + p.quantity, 0)).toBe(3);
    // Laid end to end without a gap.
    const spans = pieces
      .flatMap((p) => {
        const xs = flatten(p.curves[0]!.outline, 1e-6).filter((_, i) => i % 2 === 0);
        const half = Math.max(...xs);
        return p.places!(0).map((q) => [q.at[0] - half, q.at[0] + half] as const);
      })
      .sort((a, b) => a[0] - b[0]);
    for (let i = 1; i < spans.length; i++) expect(spans[i]![0]).toBeCloseTo(spans[i - 1]![1], 9);
    expect(spans.at(-1)![1] - spans[0]![0]).toBeCloseTo(value(r, 'length'), 9);
  });

  it('is softest where its shaft overhangs: three times as far, twenty-seven times as soft', () => {
    const soft = (overhang: number) =>
      report({ overhang }).numbers.springs.find((s) => s.name.startsWith('shaft bends'))!.stiffness;
    expect(soft(0.012) / soft(0.036)).toBeCloseTo(27, 9);
    // 3·E·I/L³ of 6 mm steel over 12 mm, bent off the rack as well by tan 20° of the force.
    const along = (3 * 210e9 * Math.PI * 0.006 ** 4) / 64 / 0.012 ** 3;
    expect(soft(0.012)).toBeCloseTo(along / (1 + Math.tan(Math.PI / 9) ** 2), 3);
  });

  it('with a shaft that yields takes a thicker one while the pinion has room, else one nearer to its bearing', () => {
    const steel = {
      z: 20,
      module: 1e-3,
      width: 0.012,
      material1: 'c45',
      material2: 'c45',
      bore: 6e-3,
      overhang: 0.012,
    };
    const shaft = (over: Record<string, unknown>, force: number) =>
      report({ ...steel, ...over }, { ...duty, torque: force }).checks.find((c) => c.id === 'shaft')!;
    const thin = shaft({}, 600);
    expect(thin).toMatchObject({ state: 'fails', severity: 'stop', mend: { path: 'bore' } });
    expect(shaft({ bore: thin.mend!.value }, 600).state).not.toBe('fails');
    // Fourteen teeth leave no wall round more than ten; it stands 36 mm from its bearing.
    const far = { z: 14, shift: 0.2, overhang: 0.036, bore: 0.01 };
    const lone = shaft(far, 1000);
    expect(lone).toMatchObject({ state: 'fails', mend: { path: 'overhang' } });
    expect(shaft({ ...far, overhang: lone.mend!.value }, 1000).state).not.toBe('fails');
    expect(shaft({ z: 14, shift: 0.2, bore: 0.01 }, 4000).mend).toBeUndefined();
    // A helix pushes along the shaft at the pitch circle, unless the other half pushes back.
    const [plain, one, both] = [{}, { helix: 20 * deg }, { helix: 20 * deg, double: 'yes' }].map(
      (o) => shaft({ ...o, width: 0.02 }, 200).limit,
    );
    const [L, r, t] = [0.012, 0.01 / Math.cos(20 * deg), Math.tan(20 * deg) / Math.cos(20 * deg)];
    const twisted = 0.75 * r * r;
    expect(one! / both!).toBeCloseTo(
      Math.sqrt((L ** 2 + (L * t) ** 2 + twisted) / (L ** 2 + (L * t + r * Math.tan(20 * deg)) ** 2 + twisted)),
      9,
    );
    expect(both!).toBeLessThan(plain!);
  });

  it('stops where the stroke is longer than the rack, with the mend', () => {
    const c = report({ stroke: 0.2 }).checks.find((x) => x.id === 'stroke')!;
    expect(c).toMatchObject({ state: 'fails', severity: 'stop', mend: { path: 'stroke', value: 0.25 } });
  });
});
