import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import {
  alongAxis,
  analyseLine,
  atOutput,
  blankCase,
  createJoint,
  demandOf,
  findLines,
  fillLine,
  inUnits,
  lackingRatio,
  nameAlong,
  readJointFile,
  rescaleLimits,
  resizedStage,
  stageFor,
  stageKind,
  stated,
  straightQuantity,
  travelOf,
  type FindAsk,
  type Joint,
  type LineReport,
  type StageRecord,
  type Variant,
} from '../src/index.ts';
import { shelf } from './helpers.ts';

// A straight axis from its brief through rack or screw to the tally: whatever radius the brief counts with, what happens
// along the axis is the same.

const RADIUS = 0.012;
const joint = (radius = RADIUS): Joint => {
  const j = createJoint('Slide', { id: 'slide', now: '2026-11-30T00:00:00.000Z' });
  const c = {
    ...blankCase('a', 'straight'),
    mass: 2,
    friction: 0.02,
    slope: 0.5,
    force: 5,
    radius,
    stroke: 0.25,
    speed: 0.2,
  };
  const limits = [
    { id: 'torque', sense: 'min', value: null, need: 'must' },
    { id: 'speed', sense: 'min', value: null, need: 'must' },
    { id: 'play', sense: 'max', value: 1e-4 / radius, need: 'must' },
    { id: 'stiffness', sense: 'min', value: 2e5 * radius ** 2, need: 'wish' },
  ];
  return { ...j, brief: { ...j.brief, cases: [c], limits } } as Joint;
};
const stage = (kind: string, over: object = {}): StageRecord => ({
  id: kind,
  kind,
  params: { ...(stageKind(kind)!.starts as object), ...over },
});
const line = (j: Joint, ...stages: StageRecord[]): LineReport =>
  analyseLine(j, { ...j.variants[0]!, stages } as Variant, shelf);
const figure = (r: LineReport, id: string) => r.figures.find((f) => f.id === id)!;

describe('a straight axis', () => {
  it('is the same along the axis whatever radius its brief counts with', () => {
    for (const kind of ['rack', 'screw']) {
      const [a, b] = [RADIUS, 0.031].map((r) => ({ r, report: line(joint(r), stage(kind)) }));
      for (const [id, power] of [
        ['torque', -1],
        ['play', 1],
        ['stiffness', -2],
        ['speed', 1],
        ['mass', 0],
        ['money', 0],
        ['efficiency', 0],
      ] as const) {
        expect(figure(a!.report, id), `${kind} ${id}`).toBeDefined();
        expect(figure(a!.report, id).value * a!.r ** power, `${kind} ${id}`).toBeCloseTo(
          figure(b!.report, id).value * b!.r ** power,
          6,
        );
      }
      for (const v of a!.report.verdicts)
        expect(v.state, v.id).toBe(b!.report.verdicts.find((x) => x.id === v.id)!.state);
    }
  });

  it('pushes with the motor’s torque over the pinion’s radius, less what is lost', () => {
    const j = joint();
    const report = line(j, stage('rack'));
    const [bare] = [analyseLine(j, { ...j.variants[0]!, stages: [stage('rack', { z: 40 })] } as Variant, shelf)];
    // Twice the radius: half of the force, but for the drag of a larger pinion.
    expect(figure(bare, 'reach').value / figure(report, 'reach').value).toBeCloseTo(0.5, 1);
    const stages = report.stages[0]!.report!;
    // The stage's own figures are newtons and metres; the line's are about the brief's radius.
    expect(stages.figures.find((f) => f.id === 'play')!.value / RADIUS).toBeCloseTo(figure(report, 'play').value, 9);
    expect(stages.figures.find((f) => f.id === 'stiffness')!.quantity).toBe('stiffnessPerLength');
    expect(report.stages[0]!.duty!.torque).toBeCloseTo(demandOf(j.brief, shelf).peak / RADIUS, 9);
  });

  it('counts what rides on the carriage into its mass: motor, what comes before, and the pinion, but no rack', () => {
    const rides = (...stages: StageRecord[]) => line(joint(), ...stages).checks.find((c) => c.id === 'rides');
    const motor = joint().variants[0]!.motor.mass;
    const r = line(joint(), stage('rack'));
    const bar = r.stages[0]!.report!.figures.find((f) => f.id === 'mass')!.value - rides(stage('rack'))!.limit + motor;
    // The rack alone stays: its bar, 7.8 g/cm³ or so of steel.
    expect(bar).toBeGreaterThan(0.1);
    expect(rides(stage('rack'))).toMatchObject({ figure: 2, state: 'holds', severity: 'warn' });
    const before = line(joint(), stage('spur'), stage('rack')).stages[0]!.report!.numbers.mass;
    expect(rides(stage('spur'), stage('rack'))!.limit - rides(stage('rack'))!.limit).toBeCloseTo(before, 9);
    expect(rides(stage('rack', { moves: 'rack' }))).toBeUndefined();
    expect(rides(stage('screw'))).toBeUndefined();
    const light = joint();
    (light.brief.cases[0] as { mass: number }).mass = 0.1;
    expect(line(light, stage('rack')).checks.find((c) => c.id === 'rides')!.state).toBe('fails');
  });

  it('counts force times speed as the power that it is', () => {
    const report = line(joint(), stage('screw'));
    const n = report.stages[0]!.report!.numbers;
    const own = stageKind('screw')!.open(stage('screw').params, shelf);
    if (!own.ok) throw new Error(own.problem.what);
    const alone = own.value.load(report.stages[0]!.duty!);
    expect(n.ratio).toBeCloseTo(alone.ratio * RADIUS, 9);
    expect(n.limits[0]!.torque).toBeCloseTo(alone.limits[0]!.torque * RADIUS, 9);
    expect(n.stiffness).toBeCloseTo(alone.stiffness * RADIUS ** 2, 6);
    // Power goes out as it came: torque over ratio in, force over rad/m out.
    expect(n.limits[0]!.torque / n.ratio).toBeCloseTo(alone.limits[0]!.torque / alone.ratio, 9);
  });

  it('holds by itself where a screw does: the line says so', () => {
    expect(line(joint(), stage('screw')).holder).toBe('stage 1');
    expect(line(joint(), stage('rack')).holder).toBeUndefined();
  });

  it('ends a line, and belongs to a brief that runs straight: otherwise it is said in words', () => {
    const turning = createJoint('Arm', { id: 'arm', now: '2026-11-30T00:00:00.000Z' });
    expect(line(turning, stage('rack')).problem).toMatchObject({
      what: expect.stringMatching(/runs straight/),
      place: 'rack',
    });
    expect(line(joint(), stage('rack'), stage('spur')).problem?.what).toMatch(/Nothing can follow stage 1/);
    const mixed = joint();
    const two = {
      ...mixed,
      brief: { ...mixed.brief, cases: [...mixed.brief.cases, { ...mixed.brief.cases[0]!, id: 'b', radius: 0.05 }] },
    };
    expect(travelOf(two.brief as Joint['brief'])).toBeUndefined();
    expect(line(two as Joint, stage('rack')).problem?.mend).toMatch(/one radius/);
  });

  it('keeps its limits along the axis when the radius is changed', () => {
    const j = joint();
    const limits = rescaleLimits(j.brief.limits, RADIUS, 0.04);
    const along = (list: typeof limits, r: number, id: string, power: number) =>
      list.find((l) => l.id === id)!.value! * r ** power;
    expect(along(limits, 0.04, 'play', 1)).toBeCloseTo(1e-4, 12);
    expect(along(limits, 0.04, 'stiffness', -2)).toBeCloseTo(2e5, 6);
    expect(limits.find((l) => l.id === 'torque')!.value).toBeNull();
    expect(straightQuantity('speed', 0.5)).toEqual({ quantity: 'linearSpeed', by: 0.5 });
  });

  it('is sized, and a stage for it asked for, in its own terms', () => {
    const j = joint();
    const ratio = lackingRatio(j, { ...j.variants[0]!, stages: [] }, shelf);
    for (const kind of ['rack', 'screw']) {
      const params = stageFor(j, kind, kind === 'screw' ? 20 : Math.min(ratio, 1.2), shelf)!;
      const report = line(j, { id: 'x', kind, params });
      expect(report.problem).toBeUndefined();
      const stops = report.stages[0]!.report!.checks.filter((c) => c.state === 'fails' && c.severity === 'stop');
      expect(
        stops.map((c) => c.id),
        kind,
      ).toEqual([]);
      expect((params as { stroke: number }).stroke).toBeGreaterThanOrEqual(0.25);
    }
    const filled = fillLine(j, j.variants[0]!, shelf, [4, 1.2], 'money', (i) => `s${i}`, 'rack');
    // A rack is nowhere but at the end.
    expect(filled.ok).toBe(false);
  });

  it('is looked for: racks and screws at the end of lines, and nowhere else', () => {
    const j = joint();
    const ask: FindAsk = {
      joint: j,
      variant: j.variants[0]!,
      shelf,
      kinds: ['rack', 'screw', 'spur'],
      stages: 2,
      first: true,
    };
    const search = findLines(ask);
    let step = search.next();
    while (!step.done) step = search.next();
    const kinds = step.value.lines.map((l) => l.stages.map((s) => s.kind));
    expect(kinds.some((k) => k.at(-1) === 'screw')).toBe(true);
    for (const k of kinds) for (const not of k.slice(0, -1)) expect(['rack', 'screw']).not.toContain(not);
    // The same brief as something that turns finds neither.
    const arm = createJoint('Arm', { id: 'arm', now: '2026-11-30T00:00:00.000Z' });
    const other = findLines({ ...ask, joint: arm, variant: arm.variants[0]! });
    let last = other.next();
    while (!last.done) last = other.next();
    expect(last.value.lines.every((l) => l.stages.every((s) => s.kind === 'spur'))).toBe(true);
    expect(last.value.whyNot.map((w) => w.kind)).not.toContain('rack');
  }, 60_000);
});

describe('told along the axis', () => {
  it('is force, way and mass for torque, angle and inertia about the arm', () => {
    // About 20 mm: 1 N·m is 50 N, 0.01 rad is 0.2 mm, 4 N·m/rad is 4/0.02² = 10 kN/m, 1e-3 kg·m² is 2.5 kg.
    expect(alongAxis({ quantity: 'torque', value: 1, low: 0.8, high: 1.2 }, 0.02)).toEqual({
      quantity: 'force',
      value: 50,
      low: 40,
      high: 60,
    });
    expect(alongAxis({ quantity: 'smallAngle', value: 0.01 }, 0.02)).toEqual({ quantity: 'smallLength', value: 2e-4 });
    expect(alongAxis({ quantity: 'stiffness', value: 4 }, 0.02).value).toBeCloseTo(1e4, 6);
    expect(alongAxis({ quantity: 'inertia', value: 1e-3 }, 0.02)).toEqual({ quantity: 'mass', value: 2.5 });
    const money = { quantity: 'money', value: 3 } as const;
    expect(alongAxis(money, 0.02)).toBe(money);
    expect(alongAxis({ quantity: 'torque', value: 1 }, undefined)).toEqual({ quantity: 'torque', value: 1 });
  });

  it('calls a torque a force, and nothing else otherwise', () => {
    expect(nameAlong('Torque, lifting', 0.02)).toBe('Force, lifting');
    expect(nameAlong('Torque, lifting', undefined)).toBe('Torque, lifting');
    expect(nameAlong('Play', 0.02)).toBe('Play');
  });

  it('leaves what is of the motor, and of a stage’s input, as it turns', () => {
    expect(['torque', 'speed', 'windUp', 'accelerates'].every(atOutput)).toBe(true);
    expect(['motorNeeded', 'motorRms', 'sensorless', 'speed-1'].some(atOutput)).toBe(false);
  });

  it('is so in sentences too, where all that they say is of the output', () => {
    const says = `It carries ${stated(4, 'torque')} for ${stated(3, 'money')}.`;
    expect(inUnits(says, {}, 0.02)).toMatch(/^It carries 200 N for 3 ./);
    expect(inUnits(says)).toMatch(/^It carries 4 N·m for 3 ./);
  });
});

describe('a stage of another travel of a turn', () => {
  it('is sized in its own terms: a screw takes the lead that comes nearest', () => {
    const params = stageKind('screw')!.starts as StageRecord['params'];
    const at = { torque: 20, torqueRms: 16, speed: 0.05, equivalent: 16, meanSpeed: 0.03 };
    for (const lead of [2e-3, 8e-3]) {
      const sized = resizedStage({ kind: 'screw', params }, (2 * Math.PI) / lead, Infinity, at, shelf)!;
      expect((sized['pitch'] as number) * (sized['starts'] as number)).toBeCloseTo(lead, 9);
    }
  });
});

describe('Reed lift', () => {
  const read = readJointFile(readFileSync(new URL('../../demo/reed-lift.json', import.meta.url), 'utf8'));
  if (!read.ok) throw new Error(read.problem.what);
  const reed = read.value;

  it('has a screw, a rack and a belt that all do what must be', () => {
    expect(reed.variants.map((v) => v.stages.at(-1)!.kind)).toEqual(['screw', 'rack', 'belt']);
    for (const v of reed.variants) {
      const report = analyseLine(reed, v, shelf);
      expect(report.problem, v.name).toBeUndefined();
      for (const x of report.verdicts)
        if (x.need === 'must') expect(['holds', 'near'], `${v.name} ${x.id}`).toContain(x.state);
    }
  });
});
