import { describe, expect, it } from 'vitest';
import { analyseLine, mended, reducerChecks, stageKind, type Check, type Reducer, type Variant } from '../src/index.ts';
import { mostTorque } from '../src/lobed/index.ts';
import { axleBent } from '../src/reducer/axle-loads.ts';
import { sweptBy } from '../src/reducer/body.ts';
import { undone } from '../src/reducer/frame.ts';
import { bodyIn, reachAlong } from '../src/reducer/layout.ts';
import { housingChecks } from '../src/line/housing-checks.ts';
import { openLine } from '../src/line/open.ts';
import { factor } from '../src/shop/shelf.ts';
import type { AxleLoad } from '../src/stage/push.ts';
import { shelf } from './helpers.ts';
import { active, body, DEMOS, fitted, made, ofKind, twoOf } from './reducer-bench.ts';
import { partsOf, screenOf, stageOf } from './stage-bench.ts';

const mm = 1e-3;
const duty = { torque: 1.5, torqueRms: 0.7, speed: 2, equivalent: 0.6, meanSpeed: 1, swing: 1 };

/** A variant of one stage with some of its parameters changed. */
function changed(v: Variant, more: object): Variant {
  const [stage] = v.stages;
  return { ...v, stages: [{ ...stage!, params: { ...(stage!.params as object), ...more } }] };
}
/** Where a body lies along the way that power goes in, m. */
function sweptAlong(r: Reducer, id: string): { from: number; to: number } {
  const home = undone(r.layout.stages.find((x) => x.ports.input.along === 'x')!.frame);
  const b = bodyIn(home, body(r, id));
  const ends = [-1, 1].map((sign) => sign * reachAlong(b, [1, 0, 0], sign as 1 | -1));
  return { from: ends[0]!, to: ends[1]! };
}

const ringPlate = (more: object = {}): Variant => changed(ofKind('ring-plate', 20), more);
const found = (v: Variant, id: string): Check | undefined => reducerChecks(made(v), v).find((c) => c.id === id);
/** A check of the whole housing, with a mend that was tried. */
function tried(v: Variant, id: string): Check {
  const { all } = openLine(v.stages, shelf);
  if (!all.ok) throw new Error(all.problem.what);
  return housingChecks(made(v), v, all.value, shelf).find((c) => c.id === id)!;
}

describe('cranks of a ring plate in a housing', () => {
  it('run in the plate on either side, but the one that sits on the motor’s shaft', () => {
    const r = made(fitted(ringPlate()));
    const { distance } = ringPlate().stages[0]!.params as { distance: number };
    const [first, cover] = r.housing!.plates;
    // A ball bearing of 5 mm bore is 5 mm wide in the shop: flush with the inner faces of both plates.
    const frames = body(r, 'case/bearing-685').places(0);
    expect(frames).toHaveLength(2);
    const [x] = r.run.stages[0]!.ports.input.at;
    expect(Math.abs(x)).toBeCloseTo(distance, 12);
    for (const f of frames) expect([f.at[0], f.at[1]]).toEqual([-x, 0]);
    expect(frames.map((f) => f.at[2]).sort((a, b) => a - b)).toEqual([
      expect.closeTo(first!.to - 5 * mm, 9),
      expect.closeTo(cover!.from, 9),
    ]);
    // Its rod goes as far as they do, and there is one of them: the motor's shaft is the other crank's.
    const rod = sweptBy(body(r, 'stage1/crank-rod'));
    expect([rod.from, rod.to]).toEqual([
      expect.closeTo(first!.to - 5 * mm, 9),
      expect.closeTo(cover!.from + 5 * mm, 9),
    ]);
    expect(body(r, 'stage1/crank-rod').places(0)).toHaveLength(1);
    // That goes through all of its eccentrics: nothing is in its way but the cover, which has a hole for its end.
    const { reach } = made(ringPlate()).face;
    expect(found(ringPlate(), 'motor-room')).toMatchObject({ state: 'holds', figure: reach });
    expect(sweptBy(body(r, 'motor/shaft')).to - first!.from).toBeCloseTo(reach, 9);
    // A bearing of 5 mm and a lip of 1 mm behind it.
    expect(cover!.to - cover!.from).toBeCloseTo(6 * mm, 9);
  });

  it('run in four where no shaft goes through them, over the motor’s pilot', () => {
    const v = ringPlate({ shaft: 0 });
    const r = made(v);
    expect(body(r, 'case/bearing-685').places(0)).toHaveLength(4);
    const [first] = r.housing!.plates;
    // Bearing, lip, pilot and what it has to spare.
    expect(first!.to - first!.from).toBeCloseTo(5 * mm + 1 * mm + 2.2 * mm, 9);
    const [motor, rod] = [sweptBy(body(r, 'motor/shaft')), sweptBy(body(r, 'stage1/crank-rod'))];
    expect(rod.from - motor.to).toBeCloseTo(0.5 * mm, 9);
    expect(found(v, 'motor-joins')).toMatchObject({ state: 'fails', severity: 'warn' });
    const mend = tried(v, 'motor-joins').mend!;
    expect(mend).toMatchObject({ path: 'stages.0.shaft', value: 5 * mm });
    expect(found(mended(v, mend, shelf), 'motor-joins')!.state).toBe('holds');
  });

  it('has ends of its own where it is in one piece', () => {
    const r = made(ringPlate({ plates: 2, layout: 'both', shaft: 0 }));
    const [a, b] = ['stage1/crank-1', 'stage1/crank-2'].map((id) => body(r, id).solid().prisms);
    // Eccentrics of 8 mm leave 8 − 2·(0.3 + 1) = 5.4 mm: 5 mm in steps of a half.
    for (const prisms of [a!, b!]) expect(prisms.slice(-2).map((p) => p.holes.length)).toEqual([0, 0]);
    expect(body(r, 'case/bearing-685').places(0)).toHaveLength(4);
  });

  it('tells where no bearing has its bore, and runs in the plates themselves', () => {
    // 8 − 2·(0.55 + 1) = 4.9: no ball bearing has a bore of 4.5 mm.
    const v = ringPlate({ throw: 0.55 * mm, shaft: 0 });
    expect(found(v, 'axle-1')).toMatchObject({ state: 'fails', figure: 0, severity: 'warn' });
    expect(found(ringPlate(), 'axle-1')!.state).toBe('holds');
    const r = made(v);
    expect(r.bodies.some((b) => b.id.startsWith('case/bearing-68') && b.id !== 'case/bearing-688')).toBe(false);
    const [first, cover] = r.housing!.plates;
    const rod = sweptBy(body(r, 'stage1/crank-rod'));
    expect([rod.from, rod.to]).toEqual([expect.closeTo(first!.from, 9), expect.closeTo(cover!.to, 9)]);
  });

  it('are told to be driven in step where both are to drive; one of them idle needs nothing', () => {
    const v = ringPlate({ layout: 'both' });
    const c = tried(v, 'axle-driven-1');
    expect(c).toMatchObject({ state: 'fails', severity: 'warn', mend: { path: 'stages.0.layout', value: 'idle' } });
    expect([c.figure, c.limit]).toEqual([1, 2]);
    expect(found(mended(v, c.mend!, shelf), 'axle-driven-1')).toMatchObject({ state: 'holds', figure: 1, limit: 1 });
    expect(found(ringPlate({ layout: 'one' }), 'axle-1')).toBeUndefined();
  });

  it('end in the plates of their own stage where two stand one behind the other', () => {
    const two = twoOf('ring-plate', 'ring-plate');
    const r = made(two);
    const { plates } = r.housing!;
    for (const k of [0, 1]) {
      const rod = sweptBy(body(r, `stage${k + 1}/crank-rod`));
      expect(rod.from).toBeCloseTo(plates[k]!.to - 5 * mm, 9);
      expect(rod.to).toBeCloseTo(plates[k + 1]!.from + 5 * mm, 9);
    }
  });

  it('is stopped where another shaft wants the place of a crank, and a stage turned about its axis frees it', () => {
    const two = twoOf('ring-plate', 'spur');
    const at = (turn: number | undefined): Variant => ({
      ...two,
      stages: two.stages.map((s, i) => (i === 1 ? { ...s, ...(turn !== undefined && { turn }) } : s)),
    });
    expect(found(at(undefined), 'seats-apart')).toMatchObject({ state: 'fails', severity: 'stop', figure: 0 });
    const free = found(at(Math.PI / 2), 'seats-apart')!;
    expect(free.state).toBe('holds');
    // The crank 24.5 mm aside of the wheel, the spur's output at a right angle to that: bearings of 11 and 16 mm.
    const r = made(at(Math.PI / 2));
    const [[ax, ay], [bx, by]] = ['case/bearing-685', 'case/bearing-688'].map((id) => {
      const all = body(r, id).places(0);
      return all.find(
        (f) => Math.abs(f.at[2] - r.housing!.plates[1]!.from) < 8 * mm && Math.hypot(f.at[0], f.at[1]) > 1e-6,
      )!.at;
    }) as unknown as [[number, number], [number, number]];
    expect(free.figure).toBeLessThanOrEqual(Math.hypot(ax - bx, ay - by) - 13.5 * mm + 1e-9);
    expect(found(ofKind('spur'), 'seats-apart')?.state ?? 'holds').toBe('holds');
  });

  it('counts a rod for each crank that no shaft goes through', () => {
    const kind = stageKind('ring-plate')!;
    const rods = (more: object) => {
      const parts = partsOf(kind, ringPlate(more).stages[0]!.params);
      if (!parts.ok) throw new Error(parts.problem.what);
      return parts.value.find((p) => p.id === 'crank-rod')?.quantity ?? 0;
    };
    expect(rods({ shaft: 0 })).toBe(2);
    expect(rods({})).toBe(1);
    expect(rods({ layout: 'one' })).toBe(0);
    expect(rods({ plates: 2, layout: 'both' })).toBe(1);
    expect(rods({ plates: 2, layout: 'both', shaft: 0 })).toBe(0);
  });

  it('is refused where the shaft breaks through an eccentric', () => {
    const refused = screenOf(stageKind('ring-plate')!, ringPlate({ shaft: 7 * mm }).stages[0]!.params, duty);
    expect(refused.ok ? '' : `${refused.problem.what} ${refused.problem.place}`).toBe(
      'The motor’s shaft breaks through the eccentric. shaft',
    );
  });
});

describe('what an eccentric pulls the shaft across with that drives it', () => {
  const pullOf = (id: string, ratio: number, more: object, at = duty) => {
    const numbers = stageOf(stageKind(id)!, changed(ofKind(id, ratio), more).stages[0]!.params).load(at);
    const { pull, pullPeak, tilt, tiltPeak } = numbers;
    return { pull, pullPeak, tilt, tiltPeak };
  };

  it('is all of the bearing’s load for one disc, nought for two half a turn apart, little for three', () => {
    const one = pullOf('cycloidal', 15, { discs: 1, shaft: 3 * mm });
    // Power: what is tangential of it times the eccentricity is the torque that goes in.
    const { throw: e } = ofKind('cycloidal', 15).stages[0]!.params as { throw: number };
    expect(one.pullPeak).toBeGreaterThan(duty.torque / 15 / e);
    expect(one.pullPeak).toBeLessThan((2.5 * duty.torque) / 15 / e);
    const report = stageOf(
      stageKind('cycloidal')!,
      changed(ofKind('cycloidal', 15), { discs: 1, shaft: 3 * mm }).stages[0]!.params,
    ).report(duty);
    expect(one.pullPeak).toBeCloseTo(report.figures.find((f) => f.id === 'bearing')!.value, 6);
    expect(pullOf('cycloidal', 15, { discs: 2, shaft: 3 * mm }).pullPeak).toBeLessThan(1e-6);
    const three = pullOf('cycloidal', 15, { discs: 3, shaft: 3 * mm });
    expect(three.pullPeak).toBeLessThan(0.2 * one.pullPeak!);
    // On a rod of its own it is borne by what that runs in.
    expect(Object.values(pullOf('cycloidal', 15, { shaft: 0 })).filter((x) => x !== undefined)).toEqual([]);
  });

  it('wears by the torque that lasts: 0.6 of 1.5 N·m, by the mean of cubes', () => {
    const at = { ...duty, equivalent: 0.3 };
    const [a, b] = [duty, at].map((x) => pullOf('roller-wave', 15, { rows: 1 }, x));
    expect(b!.pull! / a!.pull!).toBeCloseTo(0.5, 9);
    expect(b!.pullPeak).toBe(a!.pullPeak);
    expect(a!.pull! / a!.pullPeak!).toBeGreaterThan(0.35);
    expect(a!.pull! / a!.pullPeak!).toBeLessThan(0.4);
    // Rollers of two rows stand alike where their waves do not: they do not quite cancel.
    expect(pullOf('roller-wave', 15, { rows: 2 }).pull! / a!.pull!).toBeLessThan(0.1);
  });

  it('tilts that shaft by what lies between eccentrics that hold each other', () => {
    const bearingOf = (id: string, more: object) =>
      stageOf(stageKind(id)!, changed(ofKind(id, 15), more).stages[0]!.params)
        .report(duty)
        .figures.find((f) => f.id === 'bearing')!.value;
    expect(pullOf('cycloidal', 15, { discs: 1, shaft: 3 * mm })).toMatchObject({ tilt: 0, tiltPeak: 0 });
    // Two alike and against each other are a couple: the force of one times how far their middles are apart.
    const two = { discs: 2, shaft: 3 * mm, width: 6 * mm };
    const { tiltPeak, tilt } = pullOf('cycloidal', 15, two);
    expect(tiltPeak! / (bearingOf('cycloidal', two) * 6 * mm)).toBeCloseTo(1, 3);
    // 0.6 of 1.5 N·m lasts, and the mean over a turn is no more than its worst.
    expect(tilt! / tiltPeak!).toBeLessThan(0.4);
    expect(tilt! / tiltPeak!).toBeGreaterThan(0.3);
    // Rows of 8 mm stand 0.5 mm apart.
    const rows = { rows: 2, width: 8 * mm };
    const pieces = partsOf(stageKind('roller-wave')!, changed(ofKind('roller-wave', 15), rows).stages[0]!.params);
    if (!pieces.ok) throw new Error(pieces.problem.what);
    const [z1, z2] = pieces.value.find((x) => x.id === 'bearing')!.places!(0).map((f) => f.at[2]);
    const rollers = pullOf('roller-wave', 15, rows).tiltPeak! / bearingOf('roller-wave', rows);
    expect(rollers / Math.abs(z2! - z1!)).toBeGreaterThan(0.9);
    expect(rollers / Math.abs(z2! - z1!)).toBeLessThan(1.0001);
  });

  it.each(['one', 'idle', 'both'] as const)(
    'is what all plates of a ring plate press their crank with: %s',
    (layout) => {
      const p = ringPlate({ layout }).stages[0]!.params as Record<string, number>;
      const drive = {
        ...{ pins: p['pins']!, throw: p['throw']!, distance: p['distance']!, layout },
        phases: [0, (2 * Math.PI) / 3, (4 * Math.PI) / 3],
      };
      let [worst, cubes, tilts, n] = [0, 0, 0, 0];
      for (let deg = 0; deg < 360; deg += 10) {
        const { torque, plates } = mostTorque(drive, (deg * Math.PI) / 180);
        const x = plates.reduce((s, f) => s + f.first[0], 0);
        const y = plates.reduce((s, f) => s + f.first[1], 0);
        worst = Math.max(worst, Math.hypot(x, y) / torque);
        cubes += (Math.hypot(x, y) / torque) ** 3;
        // The first and the third have the second's middle for a lever's end.
        const [a, , c] = plates.map((f) => f.first);
        tilts = Math.max(tilts, Math.hypot(c![0] - a![0], c![1] - a![1]) / torque);
        n++;
      }
      const { pull, pullPeak, tiltPeak } = pullOf('ring-plate', 20, { layout });
      expect(pullPeak! / (1.5 * worst)).toBeCloseTo(1, 6);
      expect(pull! / (0.6 * Math.cbrt(cubes / n))).toBeCloseTo(1, 6);
      expect(tiltPeak! / (1.5 * tilts * (p['width']! + 0.2 * mm))).toBeCloseTo(1, 6);
      expect(pullOf('ring-plate', 20, { layout, shaft: 0 }).pull).toBeUndefined();
    },
  );

  it('shortens the life of the motor’s bearings, and two discs mend it', () => {
    const line = (discs: number) => {
      const v = changed(ofKind('cycloidal', 15), { discs, shaft: 3 * mm });
      return analyseLine(DEMOS[0]!, v, shelf).checks.find((c) => c.id === 'pull');
    };
    expect(line(1)!.state).toBe('fails');
    // What has three already is not told to take them.
    const three = analyseLine(DEMOS[0]!, ringPlate(), shelf).checks.find((c) => c.id === 'pull')!;
    expect(line(1)!.advice).toContain('eccentrics hold each other');
    expect(three.advice).not.toContain('eccentrics');
    expect(line(2)?.state ?? 'holds').toBe('holds');
  });
});

describe('what axles and the motor’s shaft bear', () => {
  /** Numbers of a line's stages as it is analysed, and its checks. */
  const analysed = (v: Variant) => {
    const line = analyseLine(DEMOS[0]!, v, shelf);
    const check = (id: string) => line.checks.find((c) => c.id === id)!;
    return { numbers: line.stages.map((s) => s.report!.numbers), check, demand: line.demand };
  };

  it('is half of the push and a couple by how far the bearings are apart; a rod bends between them', () => {
    const v = ringPlate();
    const { numbers, check, demand } = analysed(v);
    const bearing = shelf.bearings.find((b) => b.id === '685')!;
    const [low, high] = body(made(v), 'case/bearing-685')
      .places(0)
      .map((f) => f.at[2] + bearing.width / 2);
    const span = Math.abs(high! - low!);
    const [{ peak, lasting, stands, slim }] = numbers[0]!.axles! as [AxleLoad];
    const carried = (x: { across: number; moment: number }) => x.across / 2 + x.moment / span;
    expect(check('axle-bears-1').figure / (bearing.static / carried(peak))).toBeCloseTo(1, 6);
    const turns = ((bearing.dynamic / carried(lasting)) ** 3 * 1e6 * 2 * Math.PI) / (demand.meanSpeed * 20);
    expect(check('axle-life-1').figure / turns).toBeCloseTo(1, 6);
    expect(slim).toBe(true);
    const bent = (peak.across * span) / 4 + peak.moment / 2;
    const { figure, limit } = check('axle-bent-1');
    expect(figure / ((32 * bent) / (Math.PI * (5 * mm) ** 3))).toBeCloseTo(1, 9);
    expect(limit).toBe(stands);
    // 350 MPa of plain steel, of which the shop counts on all.
    expect(stands).toBe(350e6);
  });

  it('is a bearing’s force by its lever where a crank of its own ends', () => {
    const v = ringPlate({ plates: 2, layout: 'both', shaft: 0, materialH: 'pa-cf' });
    const { numbers, check } = analysed(v);
    const { width } = shelf.bearings.find((b) => b.id === '685')!;
    const r = made(v);
    const [stage] = r.run.stages;
    const low = r.housing!.plates[0]!.to - width / 2;
    const [first, second] = numbers[0]!.axles! as [AxleLoad, AxleLoad];
    expect([first.slim, second.slim]).toEqual([false, false]);
    const span = r.housing!.plates[1]!.from - r.housing!.plates[0]!.to + width;
    const bent =
      (first.peak.across / 2 + first.peak.moment / span) * (stage!.ports.axles![0]!.at[2] + stage!.frame.at[2] - low);
    expect(check('axle-bent-1').figure / ((32 * bent) / (Math.PI * (5 * mm) ** 3))).toBeCloseTo(1, 6);
    const material = shelf.materials.find((m) => m.id === 'pa-cf')!;
    expect(first.stands).toBe(material.across! * factor(shelf, 'strength.printed'));
    expect(check('axle-bent-2').state).toBe('fails');
    // Both carry alike.
    expect(second.peak.across / first.peak.across).toBeCloseTo(1, 6);
    expect(axleBent({ across: 100, along: 0, moment: 1 }, [4 * mm, 3 * mm], 20 * mm, false)).toBeCloseTo(0.4, 12);
  });

  it('is a wheel’s pull by its lever off the motor’s face, and the twist: 5 mm of steel stand 4.8 N·m', () => {
    const v = active(DEMOS[0]!);
    const { numbers, check, demand } = analysed(v);
    const r = made(v);
    const wheel = sweptBy(body(r, 'stage1/driver'));
    const lever = (wheel.from + wheel.to) / 2 - body(r, 'motor/shaft').places(0)[0]!.at[2];
    const [one, two] = numbers;
    const bent = one!.pullPeak! * lever;
    const twisted = demand.peak / (one!.ratio * one!.etaForward * two!.ratio * two!.etaForward);
    const { figure, limit, state } = check('motor-bent');
    expect(figure / Math.sqrt(twisted ** 2 + (4 / 3) * bent ** 2)).toBeCloseTo(1, 2);
    expect(limit).toBeCloseTo((((450e6 * 0.75) / Math.sqrt(3)) * Math.PI * (5 * mm) ** 3) / 16, 6);
    expect(state).toBe('holds');
  });

  it('is a couple of two rows where they hardly pull: a motor’s shaft too thin for it', () => {
    const v = ofKind('roller-wave', 20);
    const { numbers, check } = analysed(v);
    const { figure, state, why } = check('motor-bent');
    expect(figure).toBeGreaterThan((2 / Math.sqrt(3)) * numbers[0]!.tiltPeak!);
    expect(figure).toBeLessThan(1.4 * numbers[0]!.tiltPeak!);
    expect(state).toBe('fails');
    expect(why).toContain('off the motor’s face');
    // On a rod of its own nothing hangs on the motor.
    expect(analysed(changed(ofKind('cycloidal', 15), { shaft: 0 })).check('motor-bent')).toBeUndefined();
  });
});

describe('bores that do not fit', () => {
  it('are made as wide as the motor’s shaft, where the wheel takes it', () => {
    const v = changed(ofKind('spur'), { bore1: 4 * mm });
    const c = tried(v, 'motor-bore');
    expect(c).toMatchObject({ state: 'fails', mend: { path: 'stages.0.bore1', value: 5 * mm } });
    expect(c.mend!.label).toContain('Stage 1: driving bore');
    expect(found(mended(v, c.mend!, shelf), 'motor-bore')!.state).toBe('holds');
    // A sun of 12 teeth cannot be bored for a shaft of 14 mm: no mend is offered that stops the stage.
    const small = ofKind('planetary');
    const thick: Variant = {
      ...small,
      housing: { ...small.housing!, face: { ...made(small).face, shaft: 14 * mm } },
    };
    const report = analyseLine(DEMOS[0]!, thick, shelf);
    expect(report.checks.find((x) => x.id === 'motor-bore')).toMatchObject({ state: 'fails' });
    expect(report.checks.find((x) => x.id === 'motor-bore')!.mend).toBeUndefined();
  });

  it('are made alike from one stage to the next, and for the output’s shaft', () => {
    const two = twoOf('spur', 'spur');
    const narrow: Variant = {
      ...two,
      stages: [two.stages[0]!, { ...two.stages[1]!, params: { ...(two.stages[1]!.params as object), bore1: 5 * mm } }],
    };
    // Thinner is a note that a step answers; the mend makes a plain rod of it.
    const c = found(narrow, 'bores-1')!;
    const { bore2 } = two.stages[0]!.params as { bore2: number };
    expect(c.mend).toMatchObject({ path: 'stages.1.bore1', value: bore2 });
    expect(found(mended(narrow, c.mend!, shelf), 'bores-1')!.state).toBe('holds');
    const output = active(DEMOS[2]!).output!;
    const out = { ...ofKind('spur'), output: { ...output, shaftDiameter: 10 * mm } };
    const o = found(out, 'output-bore')!;
    expect(o.mend).toMatchObject({ path: 'stages.0.bore2', value: 10 * mm });
    expect(found(mended(out, o.mend!, shelf), 'output-bore')!.state).toBe('holds');
  });
});

describe('a coupling', () => {
  it('takes the motor’s shaft as thick as it can be bored for', () => {
    const v = ofKind('worm');
    const face = made(v).face;
    const at = (shaft: number) =>
      found({ ...v, housing: { ...v.housing!, face: { ...face, shaft } } }, 'motor-coupled')!;
    // The worm's own 4 mm take one that is bored up to 7 mm.
    expect([at(7 * mm).state, at(8 * mm).state, at(8 * mm).limit]).toEqual(['holds', 'fails', 7 * mm]);
    expect(found(ofKind('spur'), 'motor-coupled')).toBeUndefined();
  });

  it('takes the shaft of the stage before, which ends in it', () => {
    const two = twoOf('planetary', 'worm');
    const own = { ...(two.stages[1]!.params as object), bore1: 0 };
    const v = { ...two, stages: [two.stages[0]!, { ...two.stages[1]!, params: own }] };
    const c = found(v, 'coupled-1')!;
    expect([c.state, c.figure, c.limit]).toEqual(['holds', 8 * mm, 10 * mm]);
    const r = made(v);
    const [shaft, coupling] = [sweptAlong(r, 'case/hub-1'), sweptAlong(r, 'stage2/coupling')];
    // Half of it, less half of what is between the ends.
    expect(coupling.to - shaft.to).toBeCloseTo(15 * mm + 0.5 * mm, 9);
  });

  it('stands between motor and stage, the motor clear of it', () => {
    const r = made(ofKind('worm'));
    const [motor, shaft, coupling] = ['motor/body', 'motor/shaft', 'stage1/coupling'].map((id) => sweptAlong(r, id));
    expect(coupling!.from - motor!.to).toBeGreaterThan(0.9 * mm);
    expect(shaft!.to).toBeGreaterThan(coupling!.from + 5 * mm);
    expect(shaft!.to).toBeLessThan(coupling!.to - 10 * mm);
  });

  it('is drawn with the ends of a screw, as long as its bearings and it ask', () => {
    const r = made(ofKind('screw'));
    const [screw, coupling] = [sweptBy(body(r, 'stage1/screw')), sweptBy(body(r, 'stage1/coupling'))];
    const bearings = body(r, 'stage1/bearing')
      .places(0)
      .map((f) => f.at[2]);
    expect(coupling.to).toBeLessThan(Math.min(...bearings));
    expect(screw.from).toBeCloseTo((coupling.from + coupling.to) / 2 + 0.5 * mm, 9);
  });
});
