import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  isBall,
  makeShelf,
  ratedLife,
  readParams,
  stageKind,
  stageKinds,
  withFactor,
  type AnyStageKind,
  type Duty,
  type Spring,
} from '../src/index.ts';
import {
  bearingTorque,
  hubTurning,
  ovalStiffness,
  pinBetween,
  pinStanding,
  plateTwist,
  toothMaterial,
} from '../src/gear/index.ts';
import { Rim } from '../src/gear/rim.ts';
import { wrap } from '../src/math/wrap.ts';
import { creptMore, heldTogether, spring, springShares, together } from '../src/stage/springs.ts';
import { contourPush, flexEnergy, wallStrain } from '../src/stage/strain-wave/wall.ts';
import { withDrag } from '../src/stage/part-load.ts';
import { anyStages } from './any-stage.ts';
import { examples, cold as chilled, demo } from './helpers.ts';
import physics from './cases/physics.json' with { type: 'json' };

const shelf = makeShelf();
const duty: Duty = { torque: 2.4, torqueRms: 1.1, speed: 3, equivalent: 1.3, meanSpeed: 1.2 };

describe('springs one after the other', () => {
  const all: Spring[] = [spring('teeth', 100, 0.5), spring('pins', 300), spring('rock', Infinity)];
  it('add up by what they give; each has its share; what does not give is not told', () => {
    expect(together(all)).toBeCloseTo(75, 12);
    expect(springShares(all)).toEqual([
      { name: 'teeth', share: expect.closeTo(0.75, 12) as number },
      { name: 'pins', share: expect.closeTo(0.25, 12) as number },
    ]);
    // The softest first, however they are told.
    expect(springShares([...all].reverse()).map((x) => x.name)).toEqual(['teeth', 'pins']);
    // Teeth crept to half: 1/50 + 1/300.
    expect(heldTogether(all)).toBeCloseTo(300 / 7, 12);
  });
});

describe('by an independent calculation', () => {
  it('a ring under even pushes', () => {
    for (const c of physics.ring_ovalising) {
      const k = ovalStiffness(c.E_GPa * 1e9 * c.I_mm4 * 1e-12, c.radius_mm * 1e-3, c.loads);
      expect((c.force_N / k) * 1e6).toBeCloseTo(c.at_load_um, 5);
    }
  });

  it('a thin ring bent to a wave: energy, force of two points, stress', () => {
    for (const c of physics.thin_ring_in_wave) {
      const [t, r, w0] = [c.thickness_mm * 1e-3, c.radius_mm * 1e-3, c.throw_mm * 1e-3];
      const bending = (c.E_GPa * 1e9 * c.width_mm * 1e-3 * t ** 3) / 12;
      expect(flexEnergy(2, bending, w0, r, 1, 1) / c.energy_J).toBeCloseTo(1, 6);
      // The case takes 0.0744 for π/8·2 − 2/π over four.
      expect((ovalStiffness(bending, r, 2) * w0) / c.force_at_two_points_N).toBeCloseTo(1, 3);
      expect((c.E_GPa * 1e3 * wallStrain(2, t, w0, r, 1)) / c.stress_MPa).toBeCloseTo(1, 6);
      // A contour all round presses less than two points do.
      expect(contourPush(2, bending, w0, r)).toBeLessThan(c.force_at_two_points_N);
    }
  });

  it('a bearing’s drag without load', () => {
    for (const c of physics.bearing_drag) {
      const half = (c.mean_diameter_mm * 1e-3) / 2;
      const b = { bore: 2 * half - 1e-3, outside: 2 * half + 1e-3 };
      const speed = (c.rpm * Math.PI) / 30;
      expect(bearingTorque(b, speed, c.f0, c.viscosity_mm2_s) / c.torque_Nm).toBeCloseTo(1, 6);
      expect(bearingTorque(b, -speed, c.f0, c.viscosity_mm2_s)).toBe(bearingTorque(b, speed, c.f0, c.viscosity_mm2_s));
    }
  });
});

describe('a pin in its seats', () => {
  const pin = { diameter: 6e-3, modulus: 206e9, seat: 4e9, depth: 5e-3 };
  it('clamped hard is a beam with square ends, and in soft ones a beam on two supports', () => {
    const bending = (206e9 * Math.PI * 6e-3 ** 4) / 64;
    const L = 20e-3;
    const [hard, soft] = [
      { ...pin, seat: 1e18 },
      { ...pin, seat: 1 },
    ];
    expect(pinBetween(hard, L, 'middle').bends / (L ** 3 / 192 / bending)).toBeCloseTo(1, 4);
    expect(pinBetween(soft, L, 'middle').bends / (L ** 3 / 48 / bending)).toBeCloseTo(1, 4);
    expect(pinBetween(hard, L, 'spread').bends / (L ** 3 / 384 / bending)).toBeCloseTo(1, 4);
    expect(pinBetween(soft, L, 'spread').bends / ((5 * L ** 3) / 384 / bending)).toBeCloseTo(1, 4);
  });

  it('standing in one plate leans with it: a stub on a bed of ten thousand springs', () => {
    const n = 10_000;
    const out = 7e-3;
    let [a, b, c] = [0, 0, 0];
    for (let i = 0; i < n; i++) {
      const u = ((i + 0.5) / n) * pin.depth;
      const k = (pin.seat * pin.depth) / n;
      a += k;
      b += k * u;
      c += k * u * u;
    }
    // Forces and moments about the face: a·y + b·φ = 1, b·y + c·φ = −out.
    const det = a * c - b * b;
    const [y, lean] = [(c + b * out) / det, (-a * out - b) / det];
    expect(pinStanding(pin, out).seats / (y - lean * out)).toBeCloseTo(1, 6);
  });
});

it('a plate in shear is as stiff as its rings one inside the other', () => {
  let gives = 0;
  const n = 200_000;
  for (let i = 0; i < n; i++) {
    const r = 5e-3 + (15e-3 * (i + 0.5)) / n;
    gives += 15e-3 / n / (2 * Math.PI * r ** 3 * 1e9 * 3e-3);
  }
  expect(plateTwist(1e9, 3e-3, 5e-3, 20e-3) * gives).toBeCloseTo(1, 6);
  expect(plateTwist(1e9, 3e-3, 5e-3, 5e-3)).toBe(Infinity);
});

it('a hub is as stiff as is usual: thousands of newton metres a radian in plastic, a hundred thousand in steel', () => {
  const of = (id: string) => {
    const m = toothMaterial(id, shelf, 'material');
    if (!m.ok) throw new Error(m.problem.what);
    return hubTurning(m.value, 8e-3, 12e-3, shelf);
  };
  expect(of('pla')).toBeCloseTo(0.5 * 2.8e9 * 64e-6 * 12e-3, 6);
  expect(of('pla')).toBeGreaterThan(1e3);
  expect(of('c45')).toBeLessThan(1e5);
});

describe('drag', () => {
  it('takes the more of what goes in the less is asked, and never gives', () => {
    const n = { etaForward: 0.8, drag: 0.01, ratio: -20 };
    const etas = [0.1, 0.5, 2, 50, 1e6].map((t) => withDrag(n, t));
    expect(etas).toEqual([...etas].sort((a, b) => a - b));
    expect(etas[4]).toBeCloseTo(0.8, 6);
    // 2 N·m out at 1 rad/s, 2/0.8 + 0.01·20 W in.
    expect(etas[2]).toBeCloseTo(2 / 2.7, 12);
  });
});

const each = (name: string, hold: (kind: AnyStageKind) => void): void => {
  for (const kind of stageKinds()) it(`${kind.id} ${name}`, () => hold(kind));
};

describe('every kind', () => {
  each('lists the springs that its stiffness is made of, creeping or not', (kind) => {
    for (const { params, duty: at } of anyStages(kind, examples(45), 41)) {
      const opened = kind.open(params, shelf);
      if (!opened.ok) continue;
      const n = opened.value.load(at);
      expect(n.springs.length).toBeGreaterThan(0);
      expect(together(n.springs) / n.stiffness).toBeCloseTo(1, 9);
      for (const s of n.springs) {
        expect(s.stiffness, s.name).toBeGreaterThan(0);
        expect(s.held, s.name).toBeGreaterThan(0);
        expect(s.held, s.name).toBeLessThanOrEqual(1);
      }
      const shares = springShares(n.springs);
      expect(shares.reduce((sum, s) => sum + s.share, 0)).toBeCloseTo(1, 9);
      expect(new Set(shares.map((s) => s.name)).size).toBe(shares.length);
    }
  });

  each('refuses rubber for what has to be stiff, and takes the mend', (kind) => {
    const start = kind.starts as Record<string, unknown>;
    for (const field of kind.fields.filter((f) => f.path.startsWith('material'))) {
      const soft = kind.open({ ...start, [field.path]: 'tpu' }, shelf);
      if (!soft.ok) continue;
      const check = soft.value.report(duty).checks.find((c) => c.id === `rubber-${field.path}`);
      // A spline may be of rubber: it is there to flex.
      if (kind.id === 'strain-wave' && field.path === 'materialS') {
        expect(check).toBeUndefined();
        continue;
      }
      expect(check, field.path).toMatchObject({ state: 'fails', severity: 'stop' });
      const mended = kind.open({ ...start, [field.path]: check!.mend!.value }, shelf);
      if (!mended.ok) throw new Error(mended.problem.what);
      expect(mended.value.report(duty).checks.some((c) => c.id.startsWith('rubber-'))).toBe(false);
    }
  });

  it('of a rim whose wall varies is the same however the whole is turned', () => {
    const energyAt = (turn: number) => {
      const rim = new Rim(0.02, (a) => 2e-3 * (1 + 0.4 * Math.cos(a - turn - 0.7) + 0.2 * Math.sin(3 * (a - turn))));
      // Three forces that meet in the middle and balance, and a pair that only turns.
      for (const [angle, fx, fy] of [
        [0.2, 5, 1],
        [2.1, -8, 3],
        [4, 3, -4],
      ] as const) {
        const c = Math.cos(turn);
        const s = Math.sin(turn);
        rim.add(wrap(angle + turn), c * fx - s * fy, s * fx + c * fy, 0);
      }
      rim.add(wrap(0.5 + turn), 0, 0, 0.04);
      rim.add(wrap(3 + turn), 0, 0, -0.04);
      return rim.energy;
    };
    const still = energyAt(0);
    expect(still).toBeGreaterThan(0);
    for (let k = 1; k < 72; k += 5) expect(energyAt((2 * Math.PI * k) / 72) / still, `${k}`).toBeCloseTo(1, 9);
  });

  it('a rim of even wall gives under opposite and evenly spaced pushes as a thin ring does', () => {
    const rim = new Rim(0.02, () => 2e-3);
    for (const loads of [2, 3, 5]) {
      rim.clear();
      for (let i = 0; i < loads; i++) {
        const a = (2 * Math.PI * i) / loads + 0.3;
        rim.add(a, 40 * Math.cos(a), 40 * Math.sin(a), 0);
      }
      // Half of force times way at each push; E·b/12 = 1, so E·I = t³.
      const way = 40 / ovalStiffness(2e-3 ** 3, 0.02, loads);
      expect(Math.abs(rim.energy / ((loads * 40 * way) / 2) - 1)).toBeLessThan(0.015);
    }
    // What moves or turns it as a whole, taken up where it comes in, bends nothing.
    rim.clear();
    rim.add(1, 30, -20, 0.7);
    rim.add(1, -30, 20, -0.7);
    expect(rim.energy).toBeLessThan(1e-12);
    // An eighth of the energy with a wall twice as thick.
    const [thin, thick] = [1e-3, 2e-3].map((t) => {
      const r = new Rim(0.02, () => t);
      r.add(0, 40, 0, 0);
      r.add(Math.PI, -40, 0, 0);
      return r.energy;
    });
    expect(thin! / thick!).toBeCloseTo(8, 6);
  });

  it('what is held creeps: wind-up under the holding torque is that of each spring as it is after a thousand hours', () => {
    expect(creptMore([spring('a', 100, 0.5), spring('b', 100)])).toBeCloseTo(1.5, 12);
    expect(creptMore([])).toBe(1);
    expect(creptMore([spring('rock', Infinity, 0.5)])).toBe(1);
    const joint = demo();
    const kind = stageKind('cycloidal')!;
    const params = kind.defaults({ ratio: 20, torque: 8, size: Infinity, shelf: chilled }) as Record<string, never>;
    joint.variants[0]!.stages = [{ id: 'c', kind: 'cycloidal', params }];
    const report = analyseLine(joint, joint.variants[0]!, chilled);
    const value = (id: string) => report.figures.find((f) => f.id === id)!.value;
    const { springs } = report.stages[0]!.report!.numbers;
    expect(value('windUp')).toBeCloseTo(report.demand.hold / heldTogether(springs), 12);
    expect(value('windUpPeak')).toBeCloseTo(report.demand.peak / value('stiffness'), 12);
  });

  it('a larger bearing never lives shorter', () => {
    const bearings = [...shelf.bearings].filter(isBall).sort((a, b) => a.dynamic - b.dynamic);
    for (let i = 1; i < bearings.length; i++)
      expect(ratedLife(bearings[i]!, 200, 30)).toBeGreaterThanOrEqual(ratedLife(bearings[i - 1]!, 200, 30));
    // In its place as well: of one bore and larger, on the eccentric or the cranks.
    for (const id of ['cycloidal', 'ring-plate']) {
      const kind = stageKind(id)!;
      const p = kind.defaults({ ratio: 12, torque: 2, size: Infinity, shelf }) as Record<string, unknown>;
      const own = shelf.bearings.find((b) => b.id === p['bearing'])!;
      const life = (bearing: string) => {
        const made = kind.open({ ...p, bearing } as never, chilled);
        return made.ok ? made.value.report(duty).figures.find((f) => f.id === 'life')?.value : undefined;
      };
      for (const b of bearings.filter((x) => x.bore === own.bore && x.dynamic > own.dynamic)) {
        const now = life(b.id);
        if (now !== undefined) expect(now, `${id} ${b.name}`).toBeGreaterThanOrEqual(life(own.id)!);
      }
    }
  });

  it('pins printed lying stand what they do along their layers, in either kind', () => {
    const pla = shelf.materials.find((m) => m.id === 'pla')!;
    for (const [id, field, mode] of [
      ['planetary', 'materialPins', /pin/],
      ['cycloidal', 'materialP', /output pins bend/],
    ] as const) {
      const kind = stageKind(id)!;
      const start = {
        ...kind.defaults({ ratio: 5, torque: 1, size: Infinity, shelf }),
        [field]: 'pla',
        ...(id === 'planetary' && { pin: 0.0015 }),
      };
      const limit = (how: string, material = 'pla') => {
        const read = readParams(id, { ...start, pinsLie: how, [field]: material });
        const made = read.ok ? kind.open(read.value, chilled) : read;
        if (!made.ok) throw new Error(made.problem.what);
        return made.value.load(duty).limits.find((l) => mode.test(l.mode))!.torque;
      };
      expect(limit('lying') / limit('upright'), id).toBeCloseTo(pla.strength / pla.across!, 9);
      expect(limit('lying', 'silver-steel'), id).toBe(limit('upright', 'silver-steel'));
    }
  });

  it('thicker walls, pins and plates are never weaker: they skip no sooner and give no more', () => {
    const thicker: Readonly<Record<string, readonly string[]>> = {
      planetary: ['rim', 'plate', 'pin'],
      'compound-planetary': ['rim', 'pin'],
      cycloidal: ['outPin'],
      'strain-wave': ['ringWall'],
      'ring-plate': ['wall'],
      spur: ['rim'],
      worm: [],
    };
    // A thicker pin rubs more, which is paid for at the input: what it holds is looked at without that.
    const smooth = withFactor(chilled, 'pin.friction', 0);
    for (const [id, fields] of Object.entries(thicker)) {
      const kind = stageKind(id)!;
      for (const { params, duty: at } of anyStages(kind, examples(36), 7)) {
        const p = params as Record<string, number>;
        for (const field of fields) {
          const more = readParams(id, { ...p, [field]: p[field]! * 1.1 });
          const [thin, thick] = [kind.open(p, smooth), more.ok ? kind.open(more.value, smooth) : undefined];
          if (!thin.ok || !thick?.ok) continue;
          const [a, b] = [thin.value.load(at), thick.value.load(at)];
          const skips = (n: typeof a) => n.limits.filter((l) => /skip/.test(l.mode)).map((l) => l.torque);
          skips(a).forEach((t, i) => expect(skips(b)[i]!, `${id} ${field}`).toBeGreaterThanOrEqual(t * (1 - 1e-9)));
          // Plates and pins apart leave longer pins; all else gives less.
          if (field !== 'plate') expect(b.stiffness, `${id} ${field}`).toBeGreaterThanOrEqual(a.stiffness * (1 - 1e-6));
        }
      }
    }
  });

  it('hotter is never stiffer nor stronger', () => {
    const [cold, hot] = [283.15, 308.15].map((value) => {
      const f = shelf.factors['ambient']!;
      return makeShelf({ factors: { ambient: { value, low: value, high: value, source: f.source } } });
    });
    for (const kind of stageKinds()) {
      for (const { params, duty: at } of anyStages(kind, examples(18), 19)) {
        const [a, b] = [kind.open(params, cold!), kind.open(params, hot!)];
        if (!a.ok || !b.ok) continue;
        const [c, h] = [a.value.load(at), b.value.load(at)];
        expect(h.stiffness, kind.id).toBeLessThanOrEqual(c.stiffness * (1 + 1e-9));
      }
    }
  });
});

describe('what is plausible', () => {
  const start = stageKind('cycloidal')!.starts as Record<string, unknown>;
  const notes = (over: Record<string, unknown>) => {
    const opened = stageKind('cycloidal')!.open({ ...start, ...over }, shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    const report = opened.value.report(duty);
    return { report, notes: report.checks.filter((c) => c.id.startsWith('usual-')) };
  };

  it('is told by no note while figures are as benches find them', () => {
    expect(notes({}).notes).toEqual([]);
  });

  it('is a note with the range, by material and size, and what makes a figure lie outside', () => {
    const [loose] = notes({ offset: 9e-4, throw: 1e-3 }).notes;
    expect(loose).toMatchObject({ id: 'usual-play', severity: 'note', state: 'fails', sense: 'max' });
    expect(loose!.why).toMatch(/with plastic in it .*small eccentricity/);
    // Steel throughout is expected stiffer: a printed figure would be odd.
    const steel = { materialD: 'c45', materialP: 'silver-steel', materialH: 'c45' };
    expect(notes(steel).report.numbers.stiffness).toBeGreaterThan(3 * notes({}).report.numbers.stiffness);
    expect(notes(steel).notes.filter((c) => c.id === 'usual-stiffness')).toEqual([]);
  });

  each('starts within what is usual of it', (kind) => {
    const opened = kind.open(kind.defaults({ ratio: 20, torque: 2.4, size: 0.2, shelf }), shelf);
    if (!opened.ok) throw new Error(opened.problem.what);
    expect(opened.value.report(duty).checks.filter((c) => c.id.startsWith('usual-stiffness'))).toEqual([]);
  });
});

it('a ring that one wheel pushes outwards gives way as a thin ring does, summed as a Fourier series, behind its housing', () => {
  const kind = stageKind('spur')!;
  const params = { ...(kind.starts as object), form: 'ring', z1: 20, z2: 60, module: 1e-3, width: 0.01, rim: 4e-3 };
  const opened = kind.open({ ...params, x1: 0, x2: 0, helix: 0, material2: 'pa-cf' }, shelf);
  if (!opened.ok) throw new Error(opened.problem.what);
  // Roots of sixty teeth at 30 + 1.25 mm, 4 mm of wall, printed PA with fibre of 4.5 GPa; two opposite loads.
  const [root, wall] = [31.25e-3, 4e-3];
  let sum = 0;
  for (let j = 1; j < 4000; j++) sum += 2 / Math.PI / ((2 * j) ** 2 - 1) ** 2;
  const ring = (4.5e9 * 0.01 * wall ** 3) / 12 / ((root + wall / 2) ** 3 * sum);
  const hold = 1 / (1 / 2e6 + 1 / ring);
  const gives = opened.value.load(duty).springs.find((s) => s.name === 'axes give way')!;
  expect(gives.stiffness / (hold * (30e-3 / Math.tan(Math.PI / 9)) ** 2)).toBeCloseTo(1, 6);
});
