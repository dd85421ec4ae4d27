import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { strainWaveGeometry, toothState } from '../src/stage/strain-wave/geometry.ts';
import { area, flatten, SECTIONS, stageKind, type DrawItem, workingOf } from '../src/index.ts';
import { examples, cold } from './helpers.ts';
import {
  analyseOf,
  assemblyOf,
  checkOf,
  coursesOf,
  drawingOf,
  figureOf,
  kinematicsOf,
  mapOf,
  partsOf,
  stageBench,
} from './stage-bench.ts';

// Values by hand hold for 20 °C.
const shelf = cold;
const kind = stageKind('strain-wave')!;
const duty = { torque: 4, torqueRms: 2, speed: 1, equivalent: 2, meanSpeed: 0.5, swing: 1 };
const plain = kind.defaults({ ratio: 45, torque: 4, size: Infinity, shelf }) as Record<string, unknown>;
const rolled = {
  shape: 'four',
  bearing: '623',
  shaft: 0,
  radius: 35e-3,
  module: 0.8e-3,
  wall: 1e-3,
  teeth: 90,
  width: 8e-3,
  cup: 34e-3,
  addendum: 0.4,
  dedendum: 0.55,
  thin: 4e-5,
};
/** Modulus of a printed material of the shop at 20 °C. */
const elasticOf = (id: string) => shelf.materials.find((m) => m.id === id)!.modulus;
const { params, analyse, report } = stageBench('strain-wave', { ...plain, ...rolled }, duty, shelf);

interface Case {
  z_spline: number;
  z_ring: number;
  ratio_ring_held: number;
  ratio_spline_held: number;
  module_mm: number;
  wall_mm: number;
  mid_radius_mm: number;
  throw_mm: number;
  wall_strain: number;
}
const cases = JSON.parse(readFileSync(new URL('./cases/strain-wave.json', import.meta.url), 'utf8')) as Case[];

describe('a strain-wave stage', () => {
  it.each(cases)('is as worked out: $z_spline teeth, module $module_mm', (c) => {
    const over = {
      shape: 'cosine',
      run: 'plain',
      teeth: c.z_spline,
      module: c.module_mm * 1e-3,
      wall: c.wall_mm * 1e-3,
      radius: c.mid_radius_mm * 1e-3,
      depth: 1,
      addendum: 0.4,
      dedendum: 0.4,
      slack: 0,
    };
    const [ring, spline] = [report({ ...over, held: 'ring' }), report({ ...over, held: 'spline' })];
    expect(ring.numbers.ratio).toBeCloseTo(c.ratio_ring_held, 9);
    expect(spline.numbers.ratio).toBeCloseTo(c.ratio_spline_held, 9);
    expect(figureOf(ring, 'throw') * 1e3).toBeCloseTo(c.throw_mm, 9);
    // Printed to nine places.
    expect(Math.abs(figureOf(ring, 'strain') - c.wall_strain)).toBeLessThan(5.1e-10);
  });

  it('tells both ratios, and taking the other changes it', () => {
    const t = kind.tables!(params({}), shelf)[0]!;
    expect(t.rows.map((r) => r.cells[2])).toEqual([-45, 46]);
    const other = t.rows.find((r) => !r.current)!;
    expect(kinematicsOf(kind, params({ [other.take!.path]: other.take!.value })).ratio).toBe(46);
  });

  it('teeth that clash are told with where, and the mend clears them', () => {
    for (const over of [
      { depth: 1.2, dedendum: 0.5, thin: 0 },
      { angle: 0.2618, addendum: 0.55, thin: 0 },
      { form: 'involute', angle: 0.349, addendum: 0.6, radius: 33e-3, thin: 0 },
    ]) {
      const c = checkOf(report(over), 'clash');
      expect(c.state, JSON.stringify(over)).toBe('fails');
      expect(c.why).toMatch(/overlaps its space by .* from a lobe’s top/);
      const after = checkOf(report({ ...over, [c.mend!.path]: c.mend!.value }), 'clash');
      expect(after.figure).toBeGreaterThanOrEqual(0);
    }
  });

  it('mends take: strain, usable width, bearing, gap', () => {
    for (const [over, id] of [
      [
        { wall: 3e-3, shape: 'cosine', run: 'plain', module: 1.6e-3, teeth: 44, radius: 32.8e-3, dedendum: 0.5 },
        'strain',
      ],
      [{ cup: 10e-3, width: 9e-3, radius: 34.7e-3, addendum: 0.65, dedendum: 0.75 }, 'usable'],
      [{ slack: 2e-4 }, 'gap'],
    ] as const) {
      const c = checkOf(report(over), id);
      expect(c.state, id).toBe('fails');
      expect(checkOf(report({ ...over, [c.mend!.path]: c.mend!.value }), id).state, id).not.toBe('fails');
    }
    const own = {
      ...plain,
      shape: 'ellipse',
      run: 'bearing',
      bearing: '61808',
      wall: 0.9e-3,
      radius: 26.45e-3,
      teeth: 80,
    };
    Object.assign(own, { module: 0.69e-3, dedendum: 0.55, addendum: 0.4 });
    const thin = { ...own, wall: 0.7e-3 };
    const loose = checkOf(report(thin), 'fits');
    expect(loose.state).toBe('fails');
    expect(checkOf(report({ ...thin, [loose.mend!.path]: loose.mend!.value }), 'fits').state).toBe('holds');
  });

  it('costs torque unloaded, with the cube of the wall and with the throw; elastomers warm', () => {
    const flex = (over: Record<string, unknown>) =>
      workingOf(report(over).figures.find((f) => f.id === 'drag')!)!.terms.find((t) => t.symbol === 'T_f')!.value;
    expect(flex({ wall: 0.5e-3 }) / flex({ wall: 1e-3 })).toBeCloseTo(1 / 8, 6);
    const [soft, hard] = [report({ materialS: 'tpu' }), report({})];
    expect(figureOf(soft, 'strainLimit')).toBeGreaterThan(8 * figureOf(hard, 'strainLimit'));
    // Steel: 0.45·900 MPa over 210 GPa, over the notch of 1.5.
    expect(figureOf(report({ materialS: '42crmo4' }), 'strainLimit')).toBeCloseTo((0.45 * 900e6) / 210e9 / 1.5, 9);
    expect(figureOf(report({ materialS: 'tpu' }, { ...duty, speed: 10 }), 'rise')).toBeGreaterThan(
      figureOf(soft, 'rise') * 9.9,
    );
    // A low ratio is stalled by flexing: what the load asks of the motor falls, what flexing takes does not.
    const light = { ...duty, torque: 0.02, torqueRms: 0.01 };
    expect(checkOf(report({}, light), 'stall').state).toBe('fails');
  });

  it('plain generators hold, rolling ones turn back', () => {
    expect(report({ shape: 'cosine', run: 'plain' }).numbers.etaBackward).toBeLessThan(0);
    expect(report({}).numbers.etaBackward).toBeGreaterThan(0.4);
  });

  it('stiffness grows over three stretches as clearances close; play grows with the allowance', () => {
    const r = report({ thin: 1.2e-4 });
    expect(figureOf(r, 'k1')).toBeLessThanOrEqual(figureOf(r, 'k2') * 1.0001);
    expect(figureOf(r, 'k2')).toBeLessThanOrEqual(figureOf(r, 'k3') * 1.0001);
    expect(r.numbers.stiffness).toBeLessThanOrEqual(r.numbers.stiffnessBeyond * 1.0001);
    const wide = report({ thin: 2e-4 }).numbers.play[0] - r.numbers.play[0];
    // Both sides gain half the allowance across the tooth: 2·Δ/2 on the ring's pitch circle.
    expect((wide * 36.8e-3) / 8e-5).toBeCloseTo(1, 1);
  });

  it('steeper sides skip later, a stiffer ring too; a bolted spline and ring carry alike', () => {
    const skip = (over: Record<string, unknown>) => figureOf(report(over), 'skip');
    expect(skip({ angle: 0.44 })).toBeGreaterThan(skip({}));
    expect(skip({ ringWall: 12e-3 })).toBeGreaterThan(skip({}));
  });

  it('refuses what cannot be, with the field that decides', () => {
    for (const [over, at] of [
      [{ radius: 36.5e-3 }, 'radius'],
      [{ shape: 'ellipse', lobes: 3 }, 'shape'],
      [{ shape: 'many', rollers: 13 }, 'rollers'],
      [{ shape: 'many', rollers: 4 }, 'rollers'],
      [{ slack: 0.9e-3 }, 'slack'],
      [{ bearing: '61810' }, 'bearing'],
      [{ bearing: 'none' }, 'bearing'],
      [{ shape: 'four', lobes: 3, spread: 0.6 }, 'spread'],
      [{ form: 'belt', section: 'X9' }, 'section'],
      [{ shaft: 0.1 }, 'shaft'],
      [{ depth: 0.5, slack: 0.3e-3, addendum: 0.1 }, 'depth'],
      [{ materialS: 'x' }, 'materialS'],
    ] as const) {
      const r = analyse(over);
      expect(r.ok, JSON.stringify(over)).toBe(false);
      if (!r.ok) expect(r.problem.place, JSON.stringify(over)).toBe(at);
    }
  });

  it('a belt as the spline is cords along and rubber across: what the section says, not a material of the shop', () => {
    const of = { form: 'belt', body: 'belt', section: 'HTD3', teeth: 100, shape: 'two', bearing: '6000', depth: 0.9 };
    const belt = { ...of, section: SECTIONS.find((x) => x.pitch === 3e-3)!.id };
    const r = report(belt);
    expect(report({ ...belt, materialS: '42crmo4' }).numbers.stiffness).toBe(r.numbers.stiffness);
    const section = SECTIONS.find((x) => x.id === belt.section)!;
    const value = (id: string) => shelf.factors[id]!.value;
    const limit = (mode: RegExp) => r.numbers.limits.find((l) => mode.test(l.mode))!.torque;
    // Two lobes push 100·3/2π mm from the middle, since the belt drives out; cords stand the tension that the section is rated for.
    const R = (100 * 3e-3) / (2 * Math.PI);
    expect(limit(/cords stretch/)).toBeCloseTo(2 * R * value(section.ids.tension) * 8e-3, 9);
    // G·t·arc/b·r² from the body alone: 40 MPa, ν = 0.48, over the wall and half the teeth, along the teeth in mesh.
    const shear = value('belt.body') / (2 * 1.48);
    const thick = section.height - section.toothHeight / 2;
    const across = (shear * thick * figureOf(r, 'inMesh') * 3e-3 * (0.15 / Math.PI) ** 2) / 8e-3;
    const spring = r.numbers.springs.find((x) => /across its cords/.test(x.name))!;
    expect(spring.stiffness).toBeLessThan(across);
    const tooth = 1 / (1 / spring.stiffness - 1 / across);
    // The ring's teeth are as stiff along their own line of action, which leans as what pushes them outwards says.
    const lean = Math.atan((figureOf(r, 'radial') * 2 * R) / duty.torque);
    const ring =
      Math.cos(lean) ** 2 * shelf.factors['gear.stiffness']!.value * 8e-3 * ((2 * elasticOf('pa-cf')) / 206e9);
    const one = 1 / (1 / (value('belt.tooth') * 8e-3) + 1 / ring);
    expect(tooth / (one * R * R * 0.25 * figureOf(r, 'inMesh'))).toBeCloseTo(1, 6);
    expect(limit(/teeth shear/) * figureOf(r, 'toothForce')).toBeCloseTo(4 * value(section.ids.shear) * 8e-3, 6);
    for (const id of ['belt.body', 'belt.tooth', section.ids.shear, section.ids.tension])
      expect(r.reads.factors, id).toContain(id);
  });

  it('runs belts turned inside out against a ring, and a second ring of as many teeth', () => {
    for (const section of ['R3', 'R5', 'T5', 'XL']) {
      const r = report({ form: 'belt', body: 'belt', section, teeth: 100, shape: 'two', bearing: '6000', depth: 0.9 });
      expect(r.numbers.ratio).toBe(-50);
      const made = partsOf(
        kind,
        params({ form: 'belt', body: 'belt', section, teeth: 100, shape: 'two', bearing: '6000', depth: 0.9 }),
        shelf,
      );
      if (!made.ok) throw new Error(made.problem.what);
      expect(made.value.map((p) => p.id)).toEqual(['spline', 'ring', 'ring-2', 'generator', 'roller']);
      expect(made.value[2]!.note).toContain('wider');
    }
  });

  it('has figures and checks that are numbers, or refuses in words, for anything its schema takes', () => {
    const d = (min: number, max: number) => fc.double({ min, max, noNaN: true });
    const free = fc.record({
      held: fc.constantFrom('ring', 'spline'),
      body: fc.constantFrom('cup', 'belt'),
      lobes: fc.constantFrom(2, 3),
      teeth: fc.integer({ min: 16, max: 160 }),
      form: fc.constantFrom('straight', 'involute', 'belt'),
      section: fc.constantFrom('R3', 'T5', 'AT5'),
      module: d(2e-4, 2e-3),
      angle: d(0.18, 0.75),
      shift: d(-1, 4),
      depth: d(0.5, 1.5),
      addendum: d(0.1, 1.2),
      dedendum: d(0.2, 1.6),
      thin: d(-1e-4, 3e-4),
      in: d(0.5, 2.5),
      wall: d(2e-4, 3e-3),
      width: d(1e-3, 0.03),
      cup: d(4e-3, 0.1),
      shape: fc.constantFrom('ellipse', 'cosine', 'two', 'four', 'many'),
      spread: d(0.1, 0.75),
      rollers: fc.integer({ min: 4, max: 30 }),
      run: fc.constantFrom('bearing', 'plain'),
      bearing: fc.constantFrom('623', '608', '61804', '61808'),
      slack: fc.constantFrom(0, 5e-5, 4e-4),
      ringWall: d(1e-3, 0.02),
      materialS: fc.constantFrom('pla', 'tpu', '42crmo4'),
      shaft: fc.constantFrom(0, 5e-3),
      torque: fc.constantFrom(0, 1, 1e4),
    });
    let made = 0;
    fc.assert(
      fc.property(free, ({ in: below, torque, ...q }) => {
        const p = { ...plain, ...q, radius: Math.max(2e-3, (q.module * q.teeth) / 2 - below * q.module - q.wall / 2) };
        const r = analyseOf(kind, p, { ...duty, torque }, shelf);
        if (!r.ok) return void expect(r.problem.mend.length).toBeGreaterThan(5);
        made++;
        for (const f of r.value.figures)
          if (!(
            Number.isFinite(f.value) &&
            f.low <= f.value + 1e-9 * Math.abs(f.value) &&
            f.high >= f.value - 1e-9 * Math.abs(f.value)
          ))
            throw new Error(`${f.id} ${f.low} ${f.value} ${f.high}`);
        for (const c of r.value.checks) expect(Number.isNaN(c.figure) || Number.isNaN(c.limit), c.id).toBe(false);
        const drawn = drawingOf(kind, p, 1, { shelf, duty });
        if (drawn.ok)
          for (const l of drawn.value)
            for (const i of l.items)
              if (i.kind === 'curve')
                for (const v of i.outline.points) if (!Number.isFinite(v)) throw new Error(`${i.key} is not drawn`);
      }),
      { numRuns: examples(240, 40) },
    );
    expect(made).toBeGreaterThan(0);
  });

  it('is drawn with the ring at rest and the spline turned back by two teeth a turn of the generator', () => {
    const spline = (crank: number) => {
      const made = drawingOf(kind, params({}), crank, { shelf, duty });
      if (!made.ok) throw new Error(made.problem.what);
      return made.value.flatMap((l) => l.items).find((i): i is DrawItem & { kind: 'curve' } => i.key === 'spline')!
        .outline.points;
    };
    // After a whole turn the wave stands as before and tooth 2 is where tooth 0 was.
    const [a, b] = [spline(0), spline(2 * Math.PI)];
    const per = a.length / 90;
    for (let i = 0; i < per; i++) expect(Math.abs(b[i + 2 * per]! - a[i]!)).toBeLessThan(1e-9);
  });

  it('courses show the passage, and its map agrees with the figure', () => {
    const r = coursesOf(kind, params({}), duty, shelf);
    if (!r.ok) throw new Error(r.problem.what);
    const depth = r.value.find((c) => c.id === 'depth')!.values;
    expect(Math.max(...depth)).toBeCloseTo(figureOf(report({}), 'engaged'), 9);
    const m = mapOf(kind, params({}), duty, shelf);
    if (!m.ok) throw new Error(m.problem.what);
    expect([m.value.rows, m.value.columns]).toEqual([90, 180]);
    expect(Math.abs(Math.min(...m.value.values) - figureOf(report({}), 'clearance'))).toBeLessThan(2e-6);
  });

  it('parts: spline and ring have their teeth, the contour carries the throw', () => {
    const made = partsOf(kind, params({ shape: 'cosine', run: 'plain' }), shelf);
    if (!made.ok) throw new Error(made.problem.what);
    const part = (id: string) => made.value.find((p) => p.id === id)!;
    const reach = (o: Float64Array) => {
      let [low, high] = [Infinity, 0];
      for (let i = 0; i < o.length; i += 2)
        [low, high] = [Math.min(low, Math.hypot(o[i]!, o[i + 1]!)), Math.max(high, Math.hypot(o[i]!, o[i + 1]!))];
      return [low, high];
    };
    const [, tip] = reach(flatten(part('spline').curves[0]!.outline, 1e-7));
    expect(tip).toBeGreaterThan(36.32e-3 - 1e-9);
    const contour = part('generator').curves[0]!.outline;
    const [low, high] = reach(flatten(contour, 1e-7));
    expect(high).toBeCloseTo(34.5e-3 + 0.8e-3, 8);
    expect(low).toBeLessThan(34.5e-3 - 0.75e-3);
    // As long as the inside of the spline, but for what offsets of a curve differ: 2π times the distance.
    expect(area(contour)).toBeGreaterThan(0.99 * Math.PI * 34.5e-3 ** 2);
    expect(part('ring').note).toContain('92 spaces');
  });

  it('defaults stand what was wished, over usual ratios', () => {
    for (const [ratio, torque] of [
      [30, 2],
      [50, 4],
      [80, 6],
    ] as const) {
      const p = kind.defaults({ ratio, torque, size: Infinity, shelf });
      expect(kinematicsOf(kind, p).ratio).toBe(-ratio);
      const r = analyseOf(kind, p, { ...duty, torque, torqueRms: torque / 2 }, shelf);
      expect(
        r.ok && r.value.checks.filter((c) => c.state === 'fails' && c.severity === 'stop').map((c) => c.id),
      ).toEqual([]);
    }
  });
});

describe('a tooth of the spline', () => {
  it('stands as the first does when the generator has come as far round to it, and as the one opposite', () => {
    const made = strainWaveGeometry(params({}) as never);
    if (!made.ok) throw new Error(made.problem.what);
    const g = made.value;
    const stands = (index: number, crank: number) => {
      const s = toothState(g, index, crank);
      return [s.depth, s.ahead, s.behind];
    };
    for (const crank of [0.1, 1.3, -0.4])
      for (const [i, other, at] of [
        [0, 45, crank],
        [1, 0, crank - (2 * Math.PI) / 90],
        [37, 0, crank - (2 * Math.PI * 37) / 90],
      ] as const)
        stands(i, crank).forEach((x, k) => expect(x).toBeCloseTo(stands(other, at)[k]!, 9));
  });
});

describe('a strain wave as it is drawn', () => {
  /**
   * Points of the drawn spline and ring at a crank angle, and how far any tooth's corner lies inside the ring's
   * material, m.
   */
  const deepest = (over: Record<string, unknown>, crank: number): number => {
    const p = params(over);
    const made = drawingOf(kind, p, crank, { shelf, duty });
    if (!made.ok) throw new Error(made.problem.what);
    const items = new Map(
      made.value[0]!.items.filter((i): i is DrawItem & { kind: 'curve' } => i.kind === 'curve').map((i) => [i.key, i]),
    );
    const ring = items.get('inside')!;
    const spline = items.get('spline')!.outline.points;
    const o = ring.outline.points;
    const polygon: [number, number][] = [];
    const [c, s] = [Math.cos(ring.at.turn), Math.sin(ring.at.turn)];
    for (let i = 0; i < o.length; i += 3) polygon.push([c * o[i]! - s * o[i + 1]!, s * o[i]! + c * o[i + 1]!]);
    let worst = 0;
    for (let i = 0; i < spline.length; i += 3) {
      const [x, y] = [spline[i]!, spline[i + 1]!];
      // Outside the ring's inside is in its material.
      let inside = false;
      let near = Infinity;
      for (let k = 0, j = polygon.length - 1; k < polygon.length; j = k++) {
        const [a, b] = [polygon[k]!, polygon[j]!];
        if (a[1] > y !== b[1] > y && x < ((b[0] - a[0]) * (y - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside;
        const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
        const u = Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy || 1)));
        const [ex, ey] = [x - a[0] - u * dx, y - a[1] - u * dy];
        near = Math.min(near, ex * ex + ey * ey);
      }
      if (!inside) worst = Math.max(worst, Math.sqrt(near));
    }
    return worst;
  };

  it('no tooth stands in the ring where the figures say it clears, with either member bolted and two shapes', () => {
    for (const over of [
      {},
      { held: 'spline' },
      { shape: 'two' },
      { form: 'involute', angle: 0.4363, radius: 33.5e-3, addendum: 0.35, depth: 0.9, thin: 8e-5 },
      { difference: 2, addendum: 0.35, depth: 0.9 },
    ]) {
      const clear = figureOf(report(over), 'clearance');
      expect(clear, JSON.stringify(over)).toBeGreaterThan(-2e-6);
      // Lands are arcs that corners join by chords here: a few micrometres.
      for (const crank of [0, 0.7, 2.9, 14.2])
        expect(deepest(over, crank), `${JSON.stringify(over)} ${crank}`).toBeLessThan(1.2e-5);
    }
  });

  it('four teeth more on two lobes: half the ratio, twice the throw, and the wall strained as much more', () => {
    const over = { addendum: 0.35, depth: 0.9 };
    const [two, four] = [report(over), report({ ...over, difference: 2 })];
    expect([two.numbers.ratio, four.numbers.ratio]).toEqual([-45, -22.5]);
    expect(report({ ...over, difference: 2, held: 'spline' }).numbers.ratio).toBe(23.5);
    expect(figureOf(four, 'throw') / figureOf(two, 'throw')).toBeCloseTo(2, 9);
    expect(figureOf(four, 'strain') / figureOf(two, 'strain')).toBeCloseTo(2, 1);
    expect(figureOf(four, 'inMesh')).toBeLessThan(figureOf(two, 'inMesh'));
    expect(partsOf(kind, params({ ...over, difference: 2 }), shelf)).toMatchObject({ ok: true });
  });

  it('teeth stand in it where they are told to clash', () => {
    expect(figureOf(report({ depth: 1.25, dedendum: 0.5, thin: 0 }), 'clearance')).toBeLessThan(-5e-5);
    expect(
      Math.max(...[0, 0.02, 0.04, 0.06].map((c) => deepest({ depth: 1.25, dedendum: 0.5, thin: 0 }, c))),
    ).toBeGreaterThan(2e-5);
  });

  it('an open band’s second ring is wider by what teeth sway, and its outline has as many spaces', () => {
    const over = { body: 'belt', shape: 'cosine', run: 'plain' };
    const made = partsOf(kind, params(over), shelf);
    if (!made.ok) throw new Error(made.problem.what);
    const [ring, second] = [made.value.find((p) => p.id === 'ring')!, made.value.find((p) => p.id === 'ring-2')!];
    expect(ring.note).toContain('92 spaces');
    expect(second.note).toContain('90 spaces');
    expect(Math.abs(area(second.curves[1]!.outline)) / 90).toBeGreaterThan(
      (Math.abs(area(ring.curves[1]!.outline)) / 92) * 1.0,
    );
    for (const p of made.value) for (const c of p.curves) expect(c.outline.points.every(Number.isFinite)).toBe(true);
  });

  it('rollers that are too large are refused with the largest that go in, whatever their number', () => {
    for (const over of [{ shape: 'two' }, { shape: 'four' }, { shape: 'many', rollers: 8 }]) {
      const r = analyse({ ...over, bearing: '61808' });
      if (r.ok) throw new Error('They cannot go in.');
      const { fix } = r.problem as { fix?: { path: string; value: string; also?: object } };
      expect(fix, JSON.stringify(over)).toMatchObject({ path: 'bearing' });
      const mended = analyse({ ...over, bearing: fix!.value, ...fix!.also });
      expect(mended.ok).toBe(true);
      // No larger one of the shelf does.
      const { outside } = shelf.bearings.find((b) => b.id === fix!.value)!;
      for (const b of shelf.bearings.filter((x) => /^6/.test(x.id) && x.outside > outside))
        expect(analyse({ ...over, bearing: b.id, shaft: 0 }).ok, b.id).toBe(false);
    }
  });

  it('many rollers stand nearer together, and leave less bore, between the lobes', () => {
    const over = { shape: 'many', rollers: 12, bearing: '623' };
    const made = partsOf(kind, params(over), shelf);
    if (!made.ok) throw new Error(made.problem.what);
    const far = made.value.find((p) => p.id === 'roller')!.places!(0).map((f) => Math.hypot(f.at[0], f.at[1]));
    // 34.5 mm inside, a throw of 0.8 and rollers of ⌀ 10; what lifts off stands where the bent wall is, not on cos 2θ.
    expect(Math.max(...far)).toBeCloseTo(34.5e-3 + 0.8e-3 - 5e-3, 6);
    expect(Math.min(...far)).toBeLessThan(34.5e-3 - 0.6e-3 - 5e-3);
    expect(figureOf(report(over), 'bore')).toBeCloseTo(2 * (Math.min(...far) - 5e-3 - 1e-3), 9);
  });

  it('a gap is taken off the generator once: its lobes end where the spline’s throw says', () => {
    const slack = 1e-4;
    for (const over of [{ shape: 'two' }, { shape: 'cosine', run: 'plain' }]) {
      const made = partsOf(kind, params({ ...over, slack }), shelf);
      if (!made.ok) throw new Error(made.problem.what);
      const top =
        over.shape === 'two'
          ? made.value.find((p) => p.id === 'roller')!.places!(0)[0]!.at[0] + 5e-3
          : Math.max(...made.value.find((p) => p.id === 'generator')!.curves[0]!.outline.points);
      // 34.5 mm inside, and the throw less the gap.
      expect(top).toBeCloseTo(34.5e-3 + 0.8e-3 - slack, 6);
      expect(figureOf(report({ ...over, slack }), 'throw')).toBeCloseTo(0.8e-3 - slack, 9);
    }
  });

  it('assembly says which member is bolted and how the generator goes in', () => {
    for (const [over, word] of [
      [{ held: 'ring' }, 'Bolt the ring'],
      [{ held: 'spline' }, 'Bolt the spline'],
      [{ shape: 'two' }, 'rollers'],
      [{ shape: 'cosine', run: 'plain' }, 'Polish'],
    ] as const)
      expect(
        assemblyOf(kind, params(over))
          .map((s) => s.do)
          .join(' '),
      ).toContain(word);
    expect(assemblyOf(kind, params({})).some((s) => s.caution)).toBe(true);
  });
});
