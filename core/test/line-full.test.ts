import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  analyseLine,
  BEARINGS,
  builtAsNow,
  blankCase,
  blankLimit,
  clearBore,
  compareLines,
  editsFor,
  factorReaders,
  fillLine,
  findFigure,
  isBall,
  keepReads,
  lineInputs,
  makeShelf,
  marginOf,
  MATERIALS,
  mergeEdits,
  outputNumbers,
  twoRows,
  playAfter,
  playSpread,
  limitingOf,
  ratioDesk,
  readShopFile,
  scaleCase,
  shopMoved,
  splits,
  stageKind,
  takeShop,
  trainInertia,
  waysOut,
  whereUsed,
  wrongInput,
  writeShopFile,
  type Joint,
  type StageRecord,
  type Variant,
  driverFor,
  mended,
  mostLoadedBall,
  racePressure,
} from '../src/index.ts';
import physics from './cases/physics.json' with { type: 'json' };
import cases from './cases/line.json' with { type: 'json' };
import { motorTorque } from '../src/motor/available.ts';
import { cold, demo, shelf } from './helpers.ts';
import { ANCHORED } from './worked-stages.ts';

const a = (j: Joint): Variant => j.variants[0]!;
const figure = (j: Joint, id: string, v = a(j), s = shelf) =>
  findFigure(analyseLine(j, v, s), { stageId: undefined, figureId: id })!.value;
/** A table of 0.02 kg·m² that rubs with a torque, N·m, and turns at a speed, rad/s. */
const turning = (friction: number, speed: number): Joint['brief']['cases'] =>
  [
    {
      ...{ id: 'c', name: 'Turning', pattern: 'turning', inertia: 0.02, friction, unbalance: 0, radius: 0.1 },
      ...{ angle: 1, given: 'limits', speed, acceleration: 1, moveTime: 1, rampShare: 0.3, rest: 1 },
      ...{ profile: 'trapezoid', jerk: 100, dynamicFactor: 1 },
    },
  ] as unknown as Joint['brief']['cases'];

const unit = (over: Record<string, unknown>, id = 'u'): StageRecord => ({
  id,
  kind: 'unit',
  params: { ...stageKind('unit')!.defaults({ ratio: 5, torque: 3, size: Infinity, shelf }), drag: 0, ...over },
});

describe('worked line cases through bought units', () => {
  it.each(cases.map((c) => [c.ratio, c] as const))('total ratio %s', (_ratio, c) => {
    const j = demo();
    a(j).stages = c.stages.map((s, i) =>
      unit(
        {
          ratio: s.ratio,
          play: s.backlash,
          playMost: s.backlash,
          stiffness: s.stiffness,
          efficiency: s.efficiency,
          peakTorque: 1e4,
          ratedTorque: 1e3,
        },
        `u${i}`,
      ),
    );
    const report = analyseLine(j, a(j), shelf);
    const value = (id: string) => report.figures.find((f) => f.id === id)!.value;
    expect(value('ratio')).toBeCloseTo(c.ratio, 9);
    expect(value('efficiency')).toBeCloseTo(c.efficiency, 9);
    expect(value('play')).toBeCloseTo(c.play_rad, 12);
    expect(value('playWorst')).toBeCloseTo(c.play_rad, 12);
    expect(value('stiffness') / c.stiffness_Nm_per_rad).toBeCloseTo(1, 9);
    expect(report.load!.efficiency.every((e) => Math.abs(e - c.efficiency) < 1e-9)).toBe(true);
  });
});

describe('several load cases', () => {
  it('are carried when every point is, each at its own speed', () => {
    const j = demo();
    const alone = figure(j, 'torque');
    // Fast and light: it must not be judged at the heavy case's torque.
    j.brief.cases.push({
      ...blankCase('t', 'turning'),
      name: 'Fast',
      inertia: 0.001,
      friction: 0.05,
      unbalance: 0,
      speed: 4,
      acceleration: 5,
      angle: 6,
    });
    expect(figure(j, 'torque')).toBeCloseTo(alone, 9);
    j.brief.cases[1] = {
      ...blankCase('t', 'turning'),
      name: 'Fast',
      inertia: 0.5,
      friction: 1,
      unbalance: 0,
      speed: 4.5,
      acceleration: 12,
      angle: 6,
    };
    const report = analyseLine(j, a(j), shelf);
    const point = report.motor.points.find((p) => p.name === 'peak, Fast')!;
    expect(findFigure(report, { stageId: undefined, figureId: 'reach' })!.value / report.demand.peak).toBeCloseTo(
      Math.min(...report.map!.points.filter((p) => p.time === 'peak').map((p) => p.margin)),
      9,
    );
    expect(point.torque).toBeGreaterThan(0);
  });

  it('say so where a curve ends before the speed a point needs', () => {
    const j = demo();
    a(j).motor = { ...a(j).motor, curve: { speed: [0, 10], torque: [0.5, 0.4] } } as Variant['motor'];
    const report = analyseLine(j, a(j), shelf);
    expect(report.problem?.what).toMatch(/curve ends at/);
    expect(report.problem?.mend).toMatch(/less ratio/i);
    expect(report.figures).toEqual([]);
  });
});

describe('resolution', () => {
  const with_ = (change: Partial<Variant['sensor']>, stages?: StageRecord[]) => {
    const j = demo();
    Object.assign(a(j).sensor, change);
    if (stages) a(j).stages = stages;
    return j;
  };

  it('commanded is a microstep over the ratio, sensed a count at its shaft', () => {
    const j = with_({ place: 'both', counts: 1000, outputCounts: 5000 });
    expect(figure(j, 'commanded')).toBeCloseTo((2 * Math.PI) / (200 * 16 * 14), 12);
    expect(figure(j, 'sensedMotor')).toBeCloseTo((2 * Math.PI) / (1000 * 14), 12);
    expect(figure(j, 'sensedOutput')).toBeCloseTo((2 * Math.PI) / 5000, 12);
  });

  it('kept adds play on a motor-side sensor and not on an output-side one', () => {
    const j = with_({ place: 'both' });
    expect(figure(j, 'keptMotor') - figure(j, 'play')).toBeGreaterThan(0);
    expect(figure(j, 'keptOutput')).toBeLessThan(figure(j, 'keptMotor'));
    expect(figure(j, 'resolution')).toBe(figure(j, 'keptOutput'));
    expect(figure(with_({ place: 'motor' }), 'resolution')).toBeGreaterThan(figure(j, 'resolution'));
    expect(
      figure(with_({ place: 'output', error: 1e-3, noise: 1e-4 }), 'keptOutput') -
        figure(with_({ place: 'output' }), 'keptOutput'),
    ).toBeCloseTo(1.1e-3, 9);
  });

  it('is sped up by what the motor brings, or by no more than what a stage carries', () => {
    const own = 4e-6;
    const j = with_({}, [unit({ ratio: 10, efficiency: 0.9, drag: 0.01, inertia: own, peakTorque: 50 })]);
    const n = analyseLine(j, a(j), shelf);
    const at = (id: string) => n.figures.find((f) => f.id === id)!.value;
    const { hold, inertia } = n.demand;
    // Solved on the motor's shaft: 0.495 − drag − T/(10·0.9) = 10·α·(rotor + unit), T = hold + J·α.
    const motor = (0.495 - 0.01 - hold / 9) / (10 * (a(j).motor.rotorInertia + own) + inertia / 9);
    expect(at('acceleration') / motor).toBeCloseTo(1, 9);
    // A unit that carries a little more than the load weighs lets less: only the load lies behind it.
    const weak = with_({}, [unit({ ratio: 10, efficiency: 0.9, drag: 0.01, inertia: own, peakTorque: hold + 0.1 })]);
    const carried = analyseLine(weak, a(weak), shelf).figures.find((f) => f.id === 'acceleration')!;
    expect(carried.value).toBeCloseTo(0.1 / inertia, 9);
  });

  it('is sped up against what rubs at the load', () => {
    const j = with_({}, [unit({ ratio: 10, efficiency: 0.9, drag: 0, inertia: 0, peakTorque: 50 })]);
    j.brief.cases = turning(1, 0.1);
    const at = analyseLine(j, a(j), shelf).figures.find((f) => f.id === 'acceleration')!.value;
    expect(at / ((0.495 - 1 / 9) / (10 * a(j).motor.rotorInertia + 0.02 / 9))).toBeCloseTo(1, 9);
  });

  it('a stepper starts without a ramp at the speed that the torque left over reaches within a full step', () => {
    const j = with_({}, [unit({ ratio: 20, efficiency: 1, drag: 0, inertia: 0 })]);
    const n = analyseLine(j, a(j), shelf);
    const at = (id: string) => n.figures.find((f) => f.id === id)!.value;
    // ½·J·ω² = (0.9·0.55 − T)·1.8°, J of rotor and load at the motor, ω at the output a twentieth of the motor's.
    const all = a(j).motor.rotorInertia + n.demand.inertia / 400;
    // The load is lifted all the while; what speeds it up is not asked twice.
    const lifted = at('motorNeeded') - 20 * 6 * all;
    expect(lifted).toBeCloseTo((n.demand.peak - 6 * n.demand.inertia) / 20, 9);
    const motor = Math.sqrt((2 * (0.9 * 0.55 - lifted) * (Math.PI / 100)) / all);
    expect(0.495 - lifted).toBeGreaterThan(0);
    expect(at('startStop') / (motor / 20)).toBeCloseTo(1, 9);
  });

  it('microsteps gather until they beat the drag', () => {
    const loose = with_({}, [unit({ ratio: 10, drag: 0.0001 })]);
    const stiff = with_({}, [unit({ ratio: 10, drag: 0.2 })]);
    expect(figure(loose, 'moved')).toBeCloseTo(figure(loose, 'commanded'), 15);
    // 0.55·sin(π·m/32) ≥ 0.2: m = 3.79, so four.
    expect(figure(stiff, 'moved')).toBeCloseTo(4 * figure(stiff, 'commanded'), 15);
  });
});

describe('output shaft and bearings', () => {
  const output = {
    shaftDiameter: 0.01,
    shaftBore: 0,
    shaftLength: 0.1,
    shaftMaterial: MATERIALS.find((m) => m.id === 'c45')!,
    bearing: BEARINGS.find((b) => b.id === '6000')!,
    span: 0.03,
    overhang: 0.06,
    load: 100,
  };

  it('twist by G·I_p/L, load the nearer bearing by the lever, and live by (C/P)³', () => {
    const o = outputNumbers(output, 2 * Math.PI, shelf);
    expect(o.stiffness).toBeCloseTo(((210e9 / 2.6) * Math.PI * 0.01 ** 4) / 32 / 0.1, 3);
    expect(o.load).toBeCloseTo(300, 9);
    expect(o.safety).toBeCloseTo(1960 / 300, 9);
    expect(o.life).toBeCloseTo((4750 / 300) ** 3 * 1e6, 0);
    // Shaft of 10 mm over 100 mm and the span between bearings, and two of those.
    const kilos = 7850 * Math.PI * 0.005 ** 2 * 0.13;
    expect(o.mass).toBeCloseTo(kilos + 2 * output.bearing.mass, 9);
    expect(o.money).toBeCloseTo(kilos * output.shaftMaterial.price + 2 * output.bearing.price, 9);
    const tube = outputNumbers({ ...output, shaftBore: 0.006 }, 1, shelf);
    expect(tube.mass).toBeCloseTo(kilos * 0.64 + 2 * output.bearing.mass, 9);
    expect(tube.stiffness / o.stiffness).toBeCloseTo(1 - 0.6 ** 4, 9);
    expect(outputNumbers(undefined, 1, shelf)).toMatchObject({ stiffness: Infinity, life: Infinity, mass: 0 });
  });

  it('bear a tilting moment and a force along the shaft: two rows as an independent calculation has them', () => {
    for (const c of physics.two_rows) {
      const rows = twoRows(c.radial_N, c.moment_Nm, c.overhang_mm * 1e-3, c.spacing_mm * 1e-3);
      expect(rows[0]).toBeCloseTo(c.outer_row_N, 6);
      expect(rows[1]).toBeCloseTo(c.inner_row_N, 6);
    }
    const o = outputNumbers({ ...output, moment: 3, axial: 400 }, 2 * Math.PI, shelf);
    // 300 N and 3 N·m over 30 mm; 13·400/1960 = 2.65: e = 0.38, Y = 1.15 of the row at 3.45.
    expect(o.load).toBeCloseTo(0.56 * 400 + 1.15 * 400, 6);
    expect(o.safety).toBeCloseTo(1960 / (0.6 * 400 + 0.5 * 400), 9);
    expect(o.life).toBeCloseTo((4750 / 684) ** 3 * 1e6, 0);
    const needle = { ...output, bearing: BEARINGS.find((b) => b.id === 'hk1010')!, axial: 5 };
    expect(outputNumbers(needle, 1, shelf).safety).toBe(0);
    expect(outputNumbers({ ...needle, axial: 0 }, 1, shelf).safety).toBeGreaterThan(1);
  });

  const k = 1 / (1 / 5e7 + 1 / 1e7);

  it('give: two rows at a distance tilt and sag as a rigid shaft on two springs does', () => {
    const o = outputNumbers({ ...output, moment: 3 }, 1, shelf);
    // Two springs and a lever, solved as two equations: forces and moments about the far one.
    const y = (x: number) => {
      const [s11, s12, s22] = [2 * k, k * 0.03, k * 0.03 ** 2];
      const [f, m] = [100, 100 * 0.09 + 3];
      const det = s11 * s22 - s12 * s12;
      return (f * s22 - m * s12) / det + ((m * s11 - f * s12) / det) * x;
    };
    expect(o.sag).toBeCloseTo(y(0.09), 12);
    expect(o.tilt).toBeCloseTo((y(1) - y(0)) / 1, 12);
    expect(o.tiltStiffness).toBeCloseTo((k * 0.03 ** 2) / 2, 6);
  });

  it('bear what the last stage’s wheel puts on them: half of its pull a row, its moment as a pair, all of it on one row', () => {
    const by = (across: number, along = 0, moment = 0) => ({
      peak: { across: 2 * across, along: 2 * along, moment: 2 * moment },
      lasting: { across, along, moment },
    });
    const pair = outputNumbers(output, 2 * Math.PI, shelf, by(80, 0, 0.6));
    // 300 N of the load, 40 of 80 and 20 of 0.6 N·m over 30 mm; twice that at the peak.
    expect(pair.load).toBeCloseTo(360, 9);
    expect(pair.safety).toBeCloseTo(1960 / 420, 9);
    expect(pair.life).toBeCloseTo((4750 / 360) ** 3 * 1e6, 0);
    const alone = outputNumbers(output, 1, shelf);
    expect([pair.tilt, pair.sag]).toEqual([alone.tilt, alone.sag]);
    const xr = BEARINGS.find((b) => b.id === 'xr30')!;
    const one = { ...output, arrangement: 'single' as const, bearing: xr, axial: 20 };
    const crossed = outputNumbers(one, 1, shelf, by(50, 10, 0.5));
    // 6 N·m and 0.5 over a circle of 42.5 mm; P = F_r + 2M/d + 0.45·F_a, P0 with 0.44.
    expect(crossed.load).toBeCloseTo(150 + 13 / 0.0425 + 0.45 * 30, 6);
    expect(crossed.safety).toBeCloseTo(8300 / (200 + 14 / 0.0425 + 0.44 * 40), 9);
    const race = { diameter: 0.08, ball: 0.006, balls: 40, material: MATERIALS.find((m) => m.id === 'petg')! };
    const balls = outputNumbers({ ...output, arrangement: 'race', race }, 1, shelf, by(50, 10, 0.5));
    expect(balls.load).toBeCloseTo(mostLoadedBall(race, 150, 10, 6.5), 9);
  });

  it('are pushed by the wheel as teeth and runs do: worked stages, by hand', () => {
    const pushes = (kind: string, change: Record<string, unknown> = {}, helix = 0) => {
      const { params, duty } = ANCHORED.find(
        (x) => x.kind === kind && (helix > 0 ? x.params['helix'] === helix : !x.further),
      )!;
      const opened = stageKind(kind)!.open({ ...params, ...change } as never, cold);
      if (!opened.ok) throw new Error(opened.problem.what);
      return opened.value.load(duty).pushes;
    };
    const near = (told: ReturnType<typeof pushes>, across: number, along: number, moment: number, share = 2.5 / 4) => {
      const { peak, lasting } = told!;
      expect([peak.across / across, lasting.across / (share * across)]).toEqual([
        expect.closeTo(1, 6),
        expect.closeTo(1, 6),
      ]);
      expect([peak.along, peak.moment]).toEqual([expect.closeTo(along, 4), expect.closeTo(moment, 6)]);
      expect([lasting.along, lasting.moment]).toEqual([
        expect.closeTo(share * along, 4),
        expect.closeTo(share * moment, 6),
      ]);
    };
    // 4 N·m at 30 mm along a line of action of 20°.
    near(pushes('spur'), 4 / 0.03 / Math.cos(Math.PI / 9), 0, 0);
    // A helix of 15° pushes along, at 40 teeth of 1.5 mm over 2·cos 15°; two against one another do not.
    const radius = (40 * 1.5e-3) / 2 / Math.cos(Math.PI / 12);
    const helical = pushes('spur', {}, Math.PI / 12)!.peak;
    expect([helical.along, helical.moment]).toEqual([
      expect.closeTo(34.509206, 4),
      expect.closeTo(34.509206 * radius, 6),
    ]);
    expect(pushes('spur', { double: 'yes' }, Math.PI / 12)!.peak.along).toBe(0);
    // Of the tangential 237.11 N: radial tan 20°·sin 26.6°, axial tan 20°·cos 26.6°, at mid-face.
    near(
      pushes('bevel'),
      Math.hypot(237.11425083034038, 38.59566448381026),
      77.1913289676205,
      77.1913289676205 * 16.8695048315e-3,
    );
    near(pushes('worm'), Math.hypot(106.6666667, 39.133498), 16.984442, 16.984442 * 37.5e-3);
    // Two runs of a cable keep twice the preload between them.
    near(pushes('cable'), 120, 0, 0, 1);
    // The tight side alone.
    near(pushes('belt'), 126.93304, 0, 0);
    for (const kind of ['planetary', 'cycloidal', 'unit']) expect(pushes(kind)).toBeUndefined();
  });

  it('one row of crossed rollers carries a moment as a pair of forces at its circle', () => {
    const xr = BEARINGS.find((b) => b.id === 'xr30')!;
    const one = { ...output, arrangement: 'single' as const, bearing: xr, moment: 3, axial: 20 };
    const o = outputNumbers(one, 2 * Math.PI, shelf);
    // 9 N·m over a circle of 42.5 mm: 423.53 N beside 100 N.
    expect(o.load).toBeCloseTo(100 + 18 / 0.0425 + 0.45 * 20, 6);
    expect(o.safety).toBeCloseTo(8300 / (100 + 18 / 0.0425 + 0.44 * 20), 9);
    expect(o.life / ((7300 / o.load) ** (10 / 3) * 1e6)).toBeCloseTo(1, 12);
    // Mostly along the axis: 0.67 of both.
    expect(outputNumbers({ ...one, axial: 4000 }, 1, shelf).load).toBeCloseTo(0.67 * (100 + 18 / 0.0425 + 4000), 6);
    // A bed of springs summed round the circle.
    let bed = 0;
    for (let i = 0; i < 3600; i++) bed += (k / 3600) * ((0.0425 / 2) * Math.cos((2 * Math.PI * i) / 3600)) ** 2;
    expect(o.tiltStiffness / bed).toBeCloseTo(1, 9);
    expect(o.tilt).toBeCloseTo(9 / bed, 12);
    expect(o.sag).toBeCloseTo(100 / k + (9 / bed) * 0.06, 12);
    expect(o.mass - outputNumbers({ ...one, bearing: null }, 1, shelf).mass).toBeCloseTo(xr.mass, 12);
  });

  it('one row of balls carries a moment as a force along its axis, needles none at all', () => {
    const one = { ...output, arrangement: 'single' as const };
    const o = outputNumbers(one, 1, shelf);
    // 6 N·m over 18 mm: 666.67 N along; 13·667/1960 = 4.42, so e = 0.42 and Y = 1.04.
    expect(o.load).toBeCloseTo(56 + 1.04 * (12 / 0.018), 6);
    expect(o.safety).toBeCloseTo(1960 / (60 + 0.5 * (12 / 0.018)), 9);
    const needle = { ...one, bearing: BEARINGS.find((b) => b.id === 'hk1010')! };
    expect(outputNumbers(needle, 1, shelf).safety).toBe(0);
  });

  it('a printed race: the ball that carries most, and how it presses', () => {
    const race = { diameter: 0.08, ball: 0.006, balls: 40, material: MATERIALS.find((m) => m.id === 'petg')! };
    // Balls summed one by one: each carries as its pinch^1.5, as do two rings that approach under force and moment.
    const share = (power: number) => {
      let sum = 0;
      for (let i = 0; i < 36000; i++) sum += Math.abs(Math.cos((2 * Math.PI * i) / 36000)) ** power / 36000;
      return sum;
    };
    const moment = 1 / (40 * 0.04 * Math.SQRT1_2 * share(2.5));
    expect(mostLoadedBall(race, 0, 0, 1) / moment).toBeCloseTo(1, 3);
    expect(mostLoadedBall(race, 0, 100, 0)).toBeCloseTo(100 / (40 * Math.SQRT1_2), 9);
    expect(mostLoadedBall(race, 1, 0, 0) / (1 / (40 * Math.SQRT1_2 * (share(2.5) / 2)))).toBeCloseTo(1, 3);
    // An ellipse of the right curvatures: pressure 1.5·Q/(π·a·b), and eight times the force presses twice as much.
    const p = racePressure(race, 20);
    expect(racePressure(race, 160) / p).toBeCloseTo(2, 9);
    // Elliptic integrals by midpoints: half axes 1.199 and 0.1425 mm, 1.5·Q/(π·a·b).
    expect(p / 55.949985e6).toBeCloseTo(1, 4);
    // A ball on a flat of the same stuff presses more, a ball in a groove all round it less.
    const reduced = 1 / ((1 - 0.09) / 208e9 + (1 - 0.38 ** 2) / race.material.modulus);
    const flat = Math.cbrt((6 * 20 * reduced ** 2) / (Math.PI ** 3 * 0.003 ** 2));
    expect(p).toBeLessThan(flat);
    expect(p).toBeGreaterThan(flat * Math.cbrt(0.04));
    const o = outputNumbers({ ...output, arrangement: 'race', race, moment: 3 }, 1, shelf);
    const q = mostLoadedBall(race, 100, 0, 9);
    const stands = race.material.strength * shelf.factors['gear.crush']!.value;
    expect(o.safety).toBeCloseTo((stands / racePressure(race, q)) ** 3, 9);
    expect(o.life).toBe(Infinity);
    // Forty balls of 6 mm steel, and two rings of 12 × 6 mm round 80 mm.
    const balls = (40 * Math.PI * 0.006 ** 3 * 7800) / 6;
    const rings = 2 * 0.012 * 0.006 * Math.PI * 0.08 * race.material.density;
    expect(
      o.mass - outputNumbers({ ...output, arrangement: 'race', race: { ...race, balls: 0 } }, 1, shelf).mass,
    ).toBeCloseTo(balls, 3);
    const bare = outputNumbers(
      { ...output, arrangement: 'race', race: { ...race, balls: 0, diameter: 0.16 } },
      1,
      shelf,
    );
    expect(
      bare.mass - outputNumbers({ ...output, arrangement: 'race', race: { ...race, balls: 0 } }, 1, shelf).mass,
    ).toBeCloseTo(rings, 12);
    expect(outputNumbers({ ...output, arrangement: 'race' }, 1, shelf).safety).toBeNaN();
  });

  it('more of a bearing never bears less: rows further apart, a larger circle, more balls', () => {
    const race = { diameter: 0.06, ball: 0.006, balls: 24, material: MATERIALS.find((m) => m.id === 'petg')! };
    const of = (o: object) => outputNumbers({ ...output, moment: 2, axial: 5, ...o }, 1, shelf);
    const raced = (r: object) => of({ arrangement: 'race', race: { ...race, ...r } });
    for (const [less, more] of [
      [of({}), of({ span: 0.06 })],
      [raced({}), raced({ balls: 30 })],
      [raced({}), raced({ diameter: 0.08 })],
      [raced({}), raced({ ball: 0.007 })],
    ] as const) {
      expect(more.safety).toBeGreaterThan(less.safety);
      expect(more.tilt).toBeLessThanOrEqual(less.tilt);
    }
  });

  it('sag and tilt come to the tip, and a race too weak is filled', () => {
    const j = demo();
    // What stands round the stages would move with the shaft.
    delete a(j).housing;
    const tip = figure(j, 'tip');
    a(j).output = { ...output, shaftLength: 0 };
    expect(figure(j, 'tip') - tip).toBeCloseTo(figure(j, 'sag'), 12);
    expect(figure(j, 'tiltTip')).toBeCloseTo(outputNumbers(a(j).output!, 1, shelf).tilt * 0.32, 12);
    const race = { diameter: 0.08, ball: 0.006, balls: 5, material: MATERIALS.find((m) => m.id === 'petg')! };
    a(j).output = { ...output, arrangement: 'race', race, load: 120 };
    const c = analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'bearing')!;
    expect(c).toMatchObject({ state: 'fails', mend: { path: 'output.balls', value: 41 } });
    const after = analyseLine(j, mended(a(j), c.mend!, shelf), shelf);
    expect(after.checks.find((x) => x.id === 'bearing')!.state).not.toBe('fails');
  });

  it('soften the line, and a bearing too weak is mended by the next that does', () => {
    const j = demo();
    delete a(j).housing;
    const stiff = figure(j, 'stiffness');
    a(j).output = { ...output, bearing: { ...output.bearing, static: 50 } };
    const report = analyseLine(j, a(j), shelf);
    expect(1 / findFigure(report, { stageId: undefined, figureId: 'stiffness' })!.value).toBeCloseTo(
      1 / stiff + 1 / outputNumbers(output, 1, shelf).stiffness,
      12,
    );
    const c = report.checks.find((x) => x.id === 'bearing')!;
    expect(c.state).toBe('fails');
    const better = BEARINGS.find((b) => b.id === c.mend!.value)!;
    a(j).output = { ...output, bearing: better };
    expect(analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'bearing')!.state).not.toBe('fails');
  });

  it('a passage is clear to where the line turns aside, and a motor in line blocks it', () => {
    expect(
      clearBore([
        { bore: 0, beside: true },
        { bore: 0.01, beside: false },
        { bore: 0.02, beside: false },
      ]),
    ).toBe(0);
    expect(
      clearBore([
        { bore: 0, beside: false },
        { bore: 0.01, beside: true },
        { bore: 0.02, beside: false },
      ]),
    ).toBe(0.01);
    expect(clearBore([{ bore: 0.01, beside: false }])).toBe(0);
  });
});

describe('checks of the line', () => {
  it('name what the mount softens at, and mend with the mildest material that stands it', () => {
    const j = demo();
    a(j).mount = { ...MATERIALS.find((m) => m.id === 'pla')! };
    const c = analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'mount')!;
    expect(c.state).toBe('fails');
    a(j).mount = { ...MATERIALS.find((m) => m.id === c.mend!.value)! };
    expect(analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'mount')!.state).not.toBe('fails');
  });

  it('never mend a mount with something softer: no motor on rubber', () => {
    for (const now of MATERIALS) {
      const j = demo();
      a(j).mount = { ...now };
      const mend = analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'mount')!.mend;
      if (mend) expect(MATERIALS.find((m) => m.id === mend.value)!.modulus, now.id).toBeGreaterThanOrEqual(now.modulus);
    }
    const j = demo();
    a(j).mount = { ...MATERIALS.find((m) => m.id === 'petg')! };
    expect(analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'mount')!.mend!.value).toBe('abs');
  });

  it('ask how long the motor’s own bearings last under the belt on its shaft, by what it states or by its shaft', () => {
    const j = demo();
    const pull = analyseLine(j, a(j), shelf).stages[0]!.report!.numbers.pull!;
    const check = (v = a(j)) => analyseLine(j, v, shelf).checks.find((x) => x.id === 'pull');
    // A frame of 42 mm has a shaft of 5 mm: 1.2 N/mm² of its square, for twenty thousand hours; by the cube.
    expect(check()!.figure / (20000 * 3600 * (30 / pull) ** 3)).toBeCloseTo(1, 9);
    expect(check()!.limit).toBe(500 * 3600);
    a(j).motor = { ...a(j).motor, pull: pull / 2 };
    expect(check()!.figure / (20000 * 450)).toBeCloseTo(1, 9);
    a(j).motor = { ...a(j).motor, pull: 0 };
    expect(check()!.figure / (20000 * 3600 * (30 / pull) ** 3)).toBeCloseTo(1, 9);
    // Planets pull all round.
    a(j).stages = [
      {
        id: 's',
        kind: 'planetary',
        params: stageKind('planetary')!.defaults({ ratio: 5, torque: 3, size: Infinity, shelf }),
      },
    ] as never;
    expect(check()).toBeUndefined();
  });

  it('raise the driver’s current only as far as holding for ever needs', () => {
    const j = demo();
    a(j).driver.currentLimit = 0.5;
    const c = analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'ever')!;
    expect(c.state).toBe('fails');
    a(j).driver.currentLimit = Number(c.mend!.value);
    expect(analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'ever')!.state).not.toBe('fails');
    a(j).driver.currentLimit -= 0.1;
    expect(analyseLine(j, a(j), shelf).checks.find((x) => x.id === 'ever')!.state).toBe('fails');
  });

  it('a stage that holds spares the motor, and turn-back is judged must, must not or either', () => {
    const j = demo();
    a(j).stages = [unit({ ratio: 14, backEfficiency: -0.1 })];
    j.brief.limits = [{ ...blankLimit('turnBack'), sense: 'max', value: 1, need: 'must' }];
    expect(analyseLine(j, a(j), shelf).verdicts[0]).toMatchObject({
      state: 'fails',
      says: expect.stringMatching(/self-locking: stage 1/),
    });
    expect(analyseLine(j, a(j), shelf).checks.some((c) => c.id === 'back' && c.state === 'fails')).toBe(true);
    const { points } = analyseLine(j, a(j), shelf).motor;
    expect(points.find((p) => p.speed === 0)!.torque).toBe(0);
    expect(points.find((p) => p.speed > 0)!.torque).toBeGreaterThan(0);
    j.brief.limits = [{ ...blankLimit('turnBack'), sense: 'min', value: 1 }];
    expect(analyseLine(j, a(j), shelf).verdicts[0]!.state).toBe('holds');
    a(j).stages = [unit({ ratio: 14, backEfficiency: 0.9 })];
    expect(analyseLine(j, a(j), shelf).verdicts[0]!.state).toBe('fails');
    j.brief.limits = [{ ...blankLimit('turnBack'), sense: 'either', value: 1 }];
    expect(analyseLine(j, a(j), shelf).verdicts[0]!.state).toBe('holds');
  });

  it('life is rated life by the exponent 10/3 and the speed', () => {
    const j = demo();
    a(j).stages = [unit({ ratio: 14, ratedTorque: 5, peakTorque: 20, ratedSpeed: 100, ratedLife: 3.6e7 })];
    const { demand } = analyseLine(j, a(j), shelf);
    expect(figure(j, 'life')).toBeCloseTo(
      3.6e7 * (5 / demand.equivalent) ** (10 / 3) * (100 / (demand.meanSpeed * 14)),
      0,
    );
  });
});

describe('play by sampling', () => {
  it('lies under the worst case, is repeatable, and counts every sample', () => {
    const links = [{ ratio: 4 }, { ratio: 3 }];
    const play = [
      [1e-3, 0, 2e-3],
      [5e-4, 2e-4, 9e-4],
    ] as const;
    const s = playSpread(links, play, 20000);
    expect(s.counts.reduce((m, x) => m + x, 0)).toBe(20000);
    expect(s.high).toBeLessThan(s.worst);
    expect(s.worst).toBeCloseTo(2e-3 / 3 + 9e-4, 12);
    expect(playSpread(links, play, 20000)).toEqual(s);
    // Mean of a triangle is the mean of its corners; the median of a sum lies near the sum of means.
    expect(s.likely).toBeCloseTo(1e-3 / 3 + 1.6e-3 / 3, 4);
    expect(playAfter(1.2e-3, -3, 1e-4)).toBeCloseTo(5e-4, 12);
  });
});

/** A variant with a motor of the shelf and what suits it. */
const taken = (v: Variant, id: string): Pick<Variant, 'motor' | 'driver'> => {
  const motor = shelf.motors.find((m) => m.id === id)!;
  return { motor, driver: driverFor(motor, v.motor, v.driver, shelf) } as Pick<Variant, 'motor' | 'driver'>;
};

describe('the ratio desk', () => {
  it('needs more ratio the more stages there are, and its windows hold at their ends', () => {
    const j = demo();
    const rows = ratioDesk(j, a(j), shelf, 0.94);
    for (let i = 1; i < rows.length; i++) expect(rows[i]!.both![0]).toBeGreaterThan(rows[i - 1]!.both![0]);
    const one = rows[0]!;
    const window = one.windows.find((w) => w.id === 'torque')!;
    // At the low end nine tenths of the stepper's flat torque are just enough for load and rotor.
    const { demand } = analyseLine(j, a(j), shelf);
    const { acceleration } = demand.points.find((p) => p.time === 'peak')!;
    expect(acceleration).toBeGreaterThan(0);
    expect(demand.peak / (0.94 * window.low) + window.low * acceleration! * a(j).motor.rotorInertia).toBeCloseTo(
      0.9 * 0.55,
      7,
    );
    // Load over the reflected rotor between a tenth and ten.
    const { low, high } = one.windows.find((w) => w.id === 'match')!;
    const match = (i: number) => analyseLine(j, a(j), shelf).demand.inertia / (a(j).motor.rotorInertia * i * i);
    expect(match(low)).toBeCloseTo(10, 9);
    expect(match(high)).toBeCloseTo(0.1, 9);
    // Quickest where the torque left over what is held, over load and rotor, is largest: tried one by one.
    const v = a(j);
    // On the motor's shaft: τ = J_r·i·α + (T_h + J·α)/(i·η).
    const quick = (i: number) =>
      (motorTorque(v.motor, v.driver, shelf, demand.speed * i, 'peak').torque - demand.hold / (i * 0.94)) /
      (v.motor.rotorInertia * i + demand.inertia / (i * 0.94));
    let best = 1;
    for (let i = 1; i < 300; i += 0.01) if (quick(i) > quick(best)) best = i;
    expect(one.quickest / best).toBeCloseTo(1, 1);
    expect(quick(one.quickest) / quick(best)).toBeGreaterThan(0.998);
    expect(one.suggested).toBeGreaterThanOrEqual(one.both![0]);
    expect(one.suggested).toBeLessThanOrEqual(one.both![1]);
    expect(one.margin).toBeGreaterThanOrEqual(1.19);
  });

  it('speeds the rotor up through what arrives and against friction: the quickest ratio in closed form', () => {
    const j = demo();
    const v = a(j);
    const [inertia, friction] = [0.02, 1];
    // So slow that the stepper has all of its torque at any ratio.
    j.brief.cases = turning(friction, 0.01);
    // d/di of (τ·i·η − T_f)/(J + J_r·i²·η) = 0.
    const best = (arrives: number) => {
      const [f, b] = [0.9 * 0.55 * arrives, v.motor.rotorInertia * arrives];
      return (b * friction + Math.sqrt((b * friction) ** 2 + f * f * b * inertia)) / (f * b);
    };
    for (const arrives of [0.94, 0.47]) {
      const { quickest } = ratioDesk(j, v, shelf, arrives)[0]!;
      expect(Math.abs(quickest / best(arrives) - 1)).toBeLessThan(0.025);
    }
    // Without friction, and with the rotor beside the efficiency, they would be a twentieth and more off.
    expect(best(0.47) / Math.sqrt(inertia / v.motor.rotorInertia)).toBeGreaterThan(1.3);
  });

  it('names the demand that sets either end, and both where they contradict one another', () => {
    const j = demo();
    for (const row of ratioDesk(j, a(j), shelf, 0.94)) {
      const { low, high } = limitingOf(row);
      expect(low?.low ?? 1).toBe(row.both![0]);
      expect(high?.high).toBe(row.both![1]);
    }
    const w = (id: 'torque' | 'speed' | 'match', least: number, most: number, soft = false) => ({
      id,
      name: id,
      why: '',
      low: least,
      high: most,
      empty: false,
      soft,
    });
    const windows = [w('torque', 40, Infinity), w('speed', 1, 25), w('match', 90, 91, true)];
    expect(limitingOf({ windows })).toMatchObject({ low: { id: 'torque' }, high: { id: 'speed' } });
    expect(limitingOf({ windows: [w('match', 90, 91, true)] })).toEqual({ low: undefined, high: undefined });
  });

  it('splits multiply to the total; the least inertia is the least; strongest last ends small', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.5, max: 300, noNaN: true }), fc.integer({ min: 1, max: 4 }), (total, n) => {
        const list = splits(total, n);
        for (const s of list) {
          expect(s.ratios).toHaveLength(n);
          expect(s.ratios.reduce((p, x) => p * x, 1)).toBeCloseTo(total, 4);
        }
        expect(list[0]!.inertia).toBeLessThanOrEqual(Math.min(...list.map((s) => s.inertia)) * (1 + 1e-9));
        if (n > 1) expect(list[2]!.ratios[n - 1]!).toBeLessThanOrEqual(list[1]!.ratios[n - 1]! + 1e-9);
      }),
    );
    // Two stages: x³ − x − 2·i² = 0 for x = i₁².
    const i1 = splits(20, 2)[0]!.ratios[0]!;
    expect(i1 ** 6 - i1 ** 2 - 2 * 400).toBeCloseTo(0, 4);
    expect(trainInertia([3])).toBe(10);
  });

  it('fills a line that lifts the brief, by price or by play, and says where nothing fits', () => {
    const j = demo();
    const row = ratioDesk(j, a(j), shelf, 0.94)[1]!;
    for (const prefer of ['money', 'play', 'mass'] as const) {
      const made = fillLine(j, a(j), shelf, splits(row.suggested, 2)[1]!.ratios, prefer, (i) => `n${i}`);
      if (!made.ok) throw new Error(made.problem.what);
      const report = analyseLine(j, { ...a(j), stages: made.value }, shelf);
      expect(report.problem).toBeUndefined();
      expect(report.verdicts.find((v) => v.id === 'torque')!.state, prefer).not.toBe('fails');
      if (prefer === 'play') expect(made.value.every((s) => ['belt', 'cable'].includes(s.kind))).toBe(true);
    }
    const none = fillLine(j, a(j), shelf, [400], 'money', () => 'x', 'belt');
    expect(none).toMatchObject({
      ok: false,
      problem: { what: expect.stringMatching(/No belt fits as stage 1, ratio 400/) },
    });
  });

  it('explains a demand no ratio meets with two ways out that work', () => {
    const j = demo();
    const arm = (change: object) =>
      (j.brief.cases[0] = { ...blankCase('a'), ...j.brief.cases[0], ...change } as ReturnType<typeof blankCase>);
    arm({ load: 9, speed: 9 });
    const reach = waysOut(j, a(j), shelf, 0.94 ** 2);
    expect(reach.margin).toBeLessThan(1);
    expect(reach.ways).toHaveLength(2);
    expect(reach.ways[0]!.size).toBeLessThanOrEqual(reach.ways[1]!.size);
    for (const w of reach.ways) {
      // How much is asked for less, up or down alike: half of it counts as twice of something else.
      const by = 'speedBy' in w.apply ? w.apply.speedBy : 'torqueBy' in w.apply ? w.apply.torqueBy : undefined;
      if (by !== undefined) expect(Math.exp(-w.size)).toBeCloseTo(by, 9);
      const v = structuredClone(a(j));
      const k = structuredClone(j);
      if ('motor' in w.apply) Object.assign(v, taken(v, (w.apply as { motor: string }).motor));
      else if ('driver' in w.apply) v.driver[w.apply.driver.key] = w.apply.driver.value;
      else if ('supply' in w.apply)
        Object.assign(v, mended(v, { path: 'driver.supply', value: w.apply.supply }, shelf));
      else k.brief.cases[0] = scaleCase(k.brief.cases[0]!, w.apply, 9.80665);
      expect(waysOut(k, v, shelf, 0.94 ** 2).margin, w.id).toBeGreaterThanOrEqual(0.97);
    }
    arm({ load: 900, speed: 90 });
    expect(waysOut(j, a(j), shelf, 0.9)).toMatchObject({ shelf: false });
    arm({ load: 0.5, speed: 1 });
    expect(waysOut(j, a(j), shelf, 0.9).ways).toEqual([]);
  });
});

describe('what if, and variants compared', () => {
  it('every input changes what it says and nothing else', () => {
    const j = demo();
    const inputs = lineInputs({ joint: j, variant: a(j), shelf }, analyseLine(j, a(j), shelf).reads.factors);
    expect(new Set(inputs.map((x) => x.id)).size).toBe(inputs.length);
    const volts = inputs.find((x) => x.id === 'driver/supplyVoltage')!.with(36);
    expect(volts.variant.driver).toEqual({ ...a(j).driver, supplyVoltage: 36 });
    expect(volts.joint).toBe(j);
    const load = inputs.find((x) => x.id === 'case/0/load')!.with(2);
    expect((load.joint.brief.cases[0] as { load: number }).load).toBe(2);
    expect((j.brief.cases[0] as { load: number }).load).toBe(1.1);
    const wrong = (id: string, value: number) => wrongInput(inputs.find((x) => x.id === id)!.with(value), id);
    for (const [id, bad, good] of [
      ['case/0/load', -1, 3],
      ['motor/holdTorque', 0, 1],
      ['driver/supplyVoltage', -12, 12],
      ['stage/1/z2', 3, 40],
      ['stage/0/width', 9, 0.009],
    ] as const) {
      expect(wrong(id, bad)?.mend.length, id).toBeGreaterThan(0);
      expect(wrong(id, good), id).toBeUndefined();
    }
    expect(inputs.find((x) => x.id === 'stage/1/width')!.with(0.02).variant.stages[1]!.params['width']).toBe(0.02);
  });

  it('a difference matters when it decides a limit, less when bands touch', () => {
    const j = demo();
    const [x, y] = j.variants.map((v) => analyseLine(j, v, shelf));
    const list = compareLines(x!, y!);
    expect(list.find((d) => d.id === 'play')!.matters).toBe('verdict');
    expect(list.find((d) => d.id === 'size')!.matters).toBe('apart');
    expect(list.find((d) => d.id === 'stiffness')!.matters).not.toBe('verdict');
    // What decides stands first.
    const order = ['verdict', 'apart', 'within', 'none'];
    const ranks = list.map((d) => order.indexOf(d.matters));
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
    expect(compareLines(x!, x!).every((d) => d.matters === 'none')).toBe(true);
    expect(marginOf(4, 'max', 3)).toBeCloseTo(0.25, 12);
    expect(marginOf(4, 'min', 3)).toBeCloseTo(-0.25, 12);
    expect(marginOf(4, 'either', 3)).toBeNaN();
  });
});

describe('what a joint keeps of the shop', () => {
  it('stays with the factors it was computed with, says where the shop moved on, and takes them when asked', () => {
    const { reads } = analyseLine(demo(), a(demo()), shelf);
    const j = keepReads(demo(), reads, shelf);
    expect(reads.factors.every((id) => j.factors![id])).toBe(true);
    expect(keepReads(j, reads, shelf)).toBe(j);
    expect(editsFor(j, {})).toEqual({});
    expect(shopMoved(j, shelf)).toEqual([]);
    const edits = {
      factors: { 'belt.efficiency': { value: 0.9, low: 0.88, high: 0.92 } },
      motors: [{ ...shelf.motors.find((m) => m.id === 'st42-48')!, mass: 0.5 }],
    };
    const shop = makeShelf(edits);
    expect(shopMoved(j, shop).map((m) => [m.kind, m.id])).toEqual([
      ['factor', 'belt.efficiency'],
      ['motor', 'st42-48'],
    ]);
    expect(figure(j, 'efficiency', a(j), makeShelf(editsFor(j, edits)))).toBeCloseTo(figure(j, 'efficiency'), 12);
    const taken = takeShop(j, shop);
    expect(shopMoved(taken, shop)).toEqual([]);
    expect(taken.variants[0]!.motor.mass).toBe(0.5);
    // What stands on the bench is what it was, whatever its motor is said to weigh.
    const asNow = (x: Joint) =>
      x.builds.map((b) =>
        builtAsNow(
          b,
          x.variants.find((v) => v.id === b.variantId)!,
        ),
      );
    expect(asNow(taken)).toEqual(asNow(j));
    expect(asNow(j)).toContain(true);
    expect(figure(taken, 'efficiency', taken.variants[0]!, makeShelf(editsFor(taken, edits)))).toBeLessThan(
      figure(j, 'efficiency'),
    );
  });

  it('knows where factors are used', () => {
    const readers = factorReaders(shelf);
    expect(whereUsed('belt.AT5.stiffness', readers).split(', ')).toContain('belt');
    expect(whereUsed('unit.drag', readers)).toBe('bought unit');
    expect(whereUsed('belt.backBend', readers).split(', ')).toContain('belt');
    expect(Object.keys(shelf.factors).filter((id) => whereUsed(id, readers) === 'nothing yet')).toEqual([]);
    expect(whereUsed('motor.spread', readers)).toBe('motors');
    const stages = analyseLine(demo(), a(demo()), shelf).stages.map((s, i) => ({
      name: `A${i + 1}`,
      reads: s.report!.reads,
    }));
    expect(whereUsed('belt.AT5.stiffness', readers, stages)).toMatch(/here: stage A2/);
  });

  it('goes out and comes in as a file; a damaged one brings nothing', () => {
    const edits = {
      materials: [{ ...MATERIALS[0]!, softening: 333 }],
      motors: [shelf.motors[0]!],
      factors: { gravity: { value: 9.81, low: 9.81, high: 9.81, source: 'own' } },
    };
    const read = readShopFile(writeShopFile(edits));
    expect(read).toEqual({ ok: true, value: edits });
    for (const text of [
      '',
      '{}',
      '[1]',
      '{"format":"gristmill-shop","version":9}',
      writeShopFile(edits).replace('"softening": 333', '"softening": "warm"'),
      writeShopFile(edits).slice(0, 200),
    ])
      expect(readShopFile(text).ok, text.slice(0, 40)).toBe(false);
    const merged = mergeEdits(
      { motors: [shelf.motors[1]!], factors: { ambient: { value: 300, low: 300, high: 300 } } },
      edits,
    );
    expect(merged.motors!.map((m) => m.id)).toEqual([shelf.motors[0]!.id, shelf.motors[1]!.id]);
    expect(Object.keys(merged.factors!)).toEqual(['ambient', 'gravity']);
  });

  it('has bearings by ISO 15 whose figures are in order, and materials of every make', () => {
    for (const b of BEARINGS) {
      expect(b.bore).toBeLessThan(b.outside);
      // A ball bearing stands less at rest than it is rated for turning; full rows of needles and rollers may stand more.
      if (isBall(b)) expect(b.static).toBeLessThan(b.dynamic);
    }
    expect(new Set(MATERIALS.map((m) => m.made))).toEqual(new Set(['printed', 'milled', 'bought']));
  });
});
