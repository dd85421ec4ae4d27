import { askedValue, demandOf, LIMIT_KINDS, type Demand } from '../brief/demand.ts';
import { FigureMaker, term, type Figure } from '../figure/index.ts';
import type { Joint, Limit, LimitId, Variant } from '../joint/joint.ts';
import { motorTorque, topSpeed } from '../motor/available.ts';
import type { Problem } from '../result.ts';
import { uncertain, withFactor, type Shelf } from '../shop/shelf.ts';
import type { Duty, StageProblem, StageReport } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import { lineNumbers, type LineNumbers } from './numbers.ts';
import { samplePlay } from './play.ts';
import { bentWindUp, forward, ratiosAfter } from './sum.ts';

/** Where the line's figures come from, stage by stage, all at the output. */
export interface Attribution {
  readonly stageId: string;
  readonly ratio: number;
  readonly efficiency: number;
  /** Torque lost in this stage at the brief's peak, referred to the output, N·m. */
  readonly loss: number;
  readonly play: number;
  readonly windUp: number;
  readonly inertia: number;
  readonly mass: number;
  readonly money: number;
}

export interface StageOutcome {
  readonly stageId: string;
  readonly kind: string;
  readonly duty: Duty | undefined;
  readonly report: StageReport | undefined;
  readonly problem: StageProblem | undefined;
}

/** Cumulative values under each node of the strip. */
export interface Node {
  readonly ratio: number;
  readonly torque: number;
  readonly speed: number;
  readonly play: number;
}

export interface Verdict {
  readonly id: LimitId;
  readonly asked: number;
  readonly sense: 'min' | 'max';
  readonly need: 'must' | 'wish';
  readonly figure: Figure | undefined;
  readonly state: 'holds' | 'near' | 'fails' | 'unknown';
}

/** The reach of the motor after ratio and losses, over output speed. */
export interface TorqueMap {
  readonly speed: Float64Array;
  readonly peak: Float64Array;
  readonly continuous: Float64Array;
  readonly capacity: number;
  readonly points: readonly { readonly name: string; readonly torque: number; readonly speed: number; readonly margin: number }[];
}

export interface LineReport {
  readonly demand: Demand;
  readonly problem: Problem | undefined;
  readonly figures: readonly Figure[];
  readonly verdicts: readonly Verdict[];
  readonly stages: readonly StageOutcome[];
  readonly attribution: readonly Attribution[];
  readonly nodes: readonly Node[];
  readonly map: TorqueMap | undefined;
  readonly limitedBy: string;
  readonly holder: string | undefined;
}

const MOTOR_FACTORS = ['motor.spread', 'motor.sensorless', 'motor.duty'];
const SUM = 'recursion over the stages from the motor to the output';
const MAP_POINTS = 60;

/**
 * Sums a variant's line for the joint's brief, with bands, workings, verdicts and the share of every stage.
 *
 * @param bands false leaves the bands out (every figure's ends equal its value), for the many trials behind a derivative
 */
export function analyseLine(joint: Joint, variant: Variant, shelf: Shelf, bands = true): LineReport {
  const demand = demandOf(joint.brief, shelf);
  const made = lineNumbers(variant, demand, shelf);
  const stages = stageOutcomes(variant, demand, shelf, made.ok ? made.value : undefined);
  if (!made.ok) {
    const problem = made.problem;
    return { demand, problem, figures: [], verdicts: verdicts(joint.brief.limits, demand, []), stages, attribution: [], nodes: [], map: undefined, limitedBy: '', holder: undefined };
  }
  const n = made.value;
  const reads = variant.stages.map((s) => new Set(stageKind(s.kind)?.factors(s.params)));
  const ids = [...reads.flatMap((r) => [...r]), ...MOTOR_FACTORS];
  const trial = (id: string, value: number) => {
    const r = lineNumbers(variant, demand, withFactor(shelf, id, value), { numbers: n, reads });
    return r.ok ? r.value : undefined;
  };
  const ends = (bands ? uncertain(shelf, ids) : []).map((f) => [trial(f.id, f.low), trial(f.id, f.high)] as const);
  const figures = lineFigures(variant, demand, shelf, n, new FigureMaker(n, ends));
  const attribution = attributions(variant, demand, n);
  const nodes = lineNodes(variant, demand, shelf, n);
  const who = n.capacityStage >= 0 && n.capacity < n.reach ? `${n.capacityMode}, stage ${n.capacityStage + 1}` : `motor (${motorTorque(variant.motor, variant.driver, shelf, demand.speed * Math.abs(n.ratio), 'peak').bound})`;
  return { demand, problem: undefined, figures, verdicts: verdicts(joint.brief.limits, demand, figures), stages, attribution, nodes, map: torqueMap(variant, demand, shelf, n), limitedBy: who, holder: n.holder >= 0 ? `stage ${n.holder + 1}` : undefined };
}

function stageOutcomes(variant: Variant, demand: Demand, shelf: Shelf, n: LineNumbers | undefined): StageOutcome[] {
  return variant.stages.map((record, j) => {
    const kind = stageKind(record.kind);
    // Where a later stage is in trouble the earlier ones still show what they can for the joint's own duty.
    const duty = n?.duties[j] ?? { torque: demand.peak, torqueRms: demand.rms, speed: demand.speed };
    if (!kind) return { stageId: record.id, kind: record.kind, duty: undefined, report: undefined, problem: { what: `There is no stage of kind “${record.kind}”.`, why: 'This version does not know it.', mend: 'Remove the stage.' } };
    const report = kind.analyse(record.params, duty, shelf);
    return report.ok ? { stageId: record.id, kind: record.kind, duty, report: report.value, problem: undefined } : { stageId: record.id, kind: record.kind, duty, report: undefined, problem: report.problem };
  });
}

function attributions(variant: Variant, demand: Demand, n: LineNumbers): Attribution[] {
  const after = ratiosAfter(n.stages);
  return n.stages.map((s, j) => {
    const d = Math.abs(after[j]!);
    const out = n.duties[j]!.torque;
    const inward = out / (Math.abs(s.ratio) * s.etaForward) + s.drag;
    const own = inward > 0 ? out / (inward * Math.abs(s.ratio)) : NaN;
    return {
      stageId: variant.stages[j]!.id, ratio: s.ratio, efficiency: own, loss: (inward * Math.abs(s.ratio) - out) * d, play: s.play[0] / d,
      windUp: bentWindUp(demand.hold / d, s.stiffness, s.bendTorque, s.stiffnessBeyond) / d, inertia: s.inertiaIn * (s.ratio * d) ** 2 + s.inertiaOut * d * d, mass: s.mass, money: s.money,
    };
  });
}

function lineNodes(variant: Variant, demand: Demand, shelf: Shelf, n: LineNumbers): Node[] {
  const motorSpeed = demand.speed * Math.abs(n.ratio);
  const t0 = motorTorque(variant.motor, variant.driver, shelf, motorSpeed, 'peak').torque;
  const nodes: Node[] = [{ ratio: 1, torque: t0, speed: motorSpeed, play: 0 }];
  let [ratio, play, t] = [1, 0, t0];
  for (const s of n.stages) {
    ratio *= s.ratio;
    play = play / Math.abs(s.ratio) + s.play[0];
    t = forward([s], t);
    nodes.push({ ratio, torque: t, speed: motorSpeed / Math.abs(ratio), play });
  }
  return nodes;
}

function torqueMap(variant: Variant, demand: Demand, shelf: Shelf, n: LineNumbers): TorqueMap {
  const size = Math.abs(n.ratio);
  const top = Math.max((topSpeed(variant.motor, variant.driver) / size) * 1.02, demand.speed * 1.1, 1e-6);
  const speed = new Float64Array(MAP_POINTS + 1);
  const peak = new Float64Array(MAP_POINTS + 1);
  const continuous = new Float64Array(MAP_POINTS + 1);
  const at = (w: number, time: 'peak' | 'continuous') => forward(n.stages, motorTorque(variant.motor, variant.driver, shelf, w * size, time).torque);
  for (let i = 0; i <= MAP_POINTS; i++) {
    const w = (top * i) / MAP_POINTS;
    speed[i] = w;
    peak[i] = at(w, 'peak');
    continuous[i] = at(w, 'continuous');
  }
  const label = (name: string) => (demand.cases.length > 1 ? `${name}: ` : '');
  const points = demand.cases.flatMap((c) => [
    { name: `${label(c.name)}peak`, torque: c.loads.peak, speed: c.speed, margin: at(c.speed, 'peak') / c.loads.peak },
    { name: `${label(c.name)}RMS`, torque: c.loads.rms, speed: c.speed / 2, margin: at(c.speed / 2, 'continuous') / c.loads.rms },
    { name: `${label(c.name)}hold`, torque: c.loads.hold, speed: 0, margin: at(0, 'continuous') / c.loads.hold },
  ]);
  return { speed, peak, continuous, capacity: n.capacity, points };
}

function lineFigures(variant: Variant, demand: Demand, shelf: Shelf, n: LineNumbers, make: FigureMaker<LineNumbers>): Figure[] {
  const size = Math.abs(n.ratio);
  const motorSpeed = demand.speed * size;
  const t0 = motorTorque(variant.motor, variant.driver, shelf, motorSpeed, 'peak');
  const peak = term('T', 'peak torque asked', demand.peak, 'torque', 'brief');
  const hold = term('T_h', 'holding torque asked', demand.hold, 'torque', 'brief');
  const arm = term('L', 'longest arm', demand.arm, 'length', 'brief');
  const per = (symbol: string, name: string, quantity: Figure['quantity'], pick: (s: LineNumbers['stages'][number], j: number) => number) => n.stages.map((s, j) => term(`${symbol}${j + 1}`, `${name}, stage ${j + 1}`, pick(s, j), quantity, 'computed', variant.stages[j]!.id));
  const ratios = per('i', 'ratio', 'ratio', (s) => s.ratio);
  const etas = per('η', 'efficiency', 'efficiency', (s) => s.etaForward);
  const drags = per('d', 'drag at the input', 'torque', (s) => s.drag);
  const band = samplePlay(n.stages, n.stages.map((s) => s.play));
  const after = ratiosAfter(n.stages);
  const list: Figure[] = [
    make.figure('ratio', 'Ratio', 'ratio', (x) => x.ratio, { formula: 'Π iⱼ', terms: ratios, source: 'definition', note: n.ratio < 0 ? 'The output turns against the motor.' : 'The output turns with the motor.' }),
    make.figure('torque', 'Torque, lifting', 'torque', (x) => x.torque, { formula: 'min(motor’s reach, capacity)', terms: [term('T_m', `motor at ${(motorSpeed * 60 / 2 / Math.PI).toFixed(0)} rpm, ${t0.bound}`, t0.torque, 'torque', 'motor'), term('reach', 'motor’s reach at the output', n.reach, 'torque', 'computed'), ...(Number.isFinite(n.capacity) ? [term('capacity', `${n.capacityMode}, stage ${n.capacityStage + 1}`, n.capacity, 'torque', 'computed')] : []), ...ratios, ...etas, ...drags], source: 'Tⱼ = (Tⱼ₋₁ − dⱼ)·|iⱼ|·ηⱼ from the motor; the least stage limit carried through what follows' }),
    make.figure('reach', 'Reach at the asked speed', 'torque', (x) => x.reach, { formula: 'Tⱼ = (Tⱼ₋₁ − dⱼ)·|iⱼ|·ηⱼ', terms: [term('T₀', `motor, bound by ${t0.bound}`, t0.torque, 'torque', 'motor'), ...ratios, ...etas, ...drags], source: SUM }),
    make.figure('continuous', 'Reach for ever', 'torque', (x) => x.continuousReach, { formula: 'as the reach, with the motor’s continuous torque', terms: [...ratios, ...etas], source: variant.motor.type === 'brushless' ? 'I²R·R_th = allowed rise, R at temperature' : 'a stepper’s rated current is continuous' }),
    make.figure('speed', 'Speed', 'speed', (x) => x.speed, { formula: 'highest ω with reach(ω) ≥ T', terms: [peak, term('ω', 'asked', demand.speed, 'speed', 'brief'), ...ratios], source: 'bisection on the motor’s curve after ratio and losses', ...(n.speed === 0 ? { note: 'The peak torque is not reached at any speed.' } : {}) }),
    { id: 'play', name: 'Play', quantity: 'smallAngle', value: band.likely, low: band.low, high: band.high, working: { formula: 'Σ bⱼ/|Dⱼ|, sampled', terms: [...per('b', 'play at its own output', 'smallAngle', (s) => s.play[0]), ...per('D', 'ratio that follows', 'ratio', (_s, j) => after[j]!), term('worst', 'everything loose at once', band.worst, 'smallAngle', 'computed')], source: 'each stage drawn from a triangle between its ends, 600 draws, seed 1; band 2.5–97.5 %', note: 'Play never includes wind-up.' } },
    make.figure('efficiency', 'Efficiency, peak', 'efficiency', (x) => x.efficiency, { formula: 'Tₙ/(T₀·Π|iⱼ|)', terms: [peak, term('T₀', 'motor torque needed', n.motorNeeded, 'torque', 'computed'), ...etas, ...drags], source: SUM, note: 'It depends on the load, since drag does not shrink with it.' }),
    make.figure('motorNeeded', 'Motor needed', 'torque', (x) => x.motorNeeded, { formula: 'T/(|i|·η) + d, from the output back', terms: [peak, ...ratios, ...etas, ...drags], source: SUM }),
    make.figure('turnBack', 'Turn-back', 'torque', (x) => x.turnBack, { formula: 'Tⱼ = (Tⱼ₋₁ + dⱼ)·|iⱼ|/η_b,ⱼ', terms: [term('T₀', 'unpowered motor', variant.motor.detentTorque, 'torque', 'motor', 'detentTorque'), ...ratios, ...per('η_b', 'backward efficiency', 'efficiency', (s) => s.etaBackward), ...drags], source: SUM }),
    make.figure('inertia', 'Inertia at the output', 'inertia', (x) => x.inertiaLine, { formula: 'Σ Jⱼ·(ratio to the output)²', terms: [term('J_m', 'rotor', variant.motor.rotorInertia, 'inertia', 'motor', 'rotorInertia'), term('share', 'share of the rotor', n.rotorShare, 'efficiency', 'computed'), ...ratios], source: 'kinetic energy referred to the output' }),
    make.figure('acceleration', 'Acceleration left', 'acceleration', (x) => x.acceleration, { formula: '(T − T_h)/(J_load + J_line)', terms: [term('T', 'torque, lifting', n.torque, 'torque', 'computed'), hold, term('J_load', 'load', demand.inertia, 'inertia', 'brief'), term('J_line', 'line at the output', n.inertiaLine, 'inertia', 'computed')], source: 'Newton for rotation' }),
    make.figure('size', 'Outside size', 'length', (x) => x.size, { formula: 'largest of motor and stages across the axis', terms: [term('motor', 'frame', variant.motor.frame, 'length', 'motor'), ...per('s', 'outside', 'length', (s) => s.outside)], source: 'geometry' }),
    make.figure('length', 'Length', 'length', (x) => x.length, { formula: 'motor + stages', terms: [term('motor', 'length', variant.motor.length, 'length', 'motor'), ...per('l', 'length', 'length', (s) => s.length)], source: 'stages side by side along the axis; a folded line is shorter' }),
    make.figure('mass', 'Mass', 'mass', (x) => x.mass, { formula: 'motor + stages', terms: [term('motor', 'mass', variant.motor.mass, 'mass', 'motor'), ...per('m', 'mass', 'mass', (s) => s.mass)], source: 'without housing and screws' }),
    make.figure('money', 'Money', 'money', (x) => x.money, { formula: 'motor + stages', terms: [term('motor', 'price', variant.motor.price, 'money', 'motor'), ...per('¤', 'price', 'money', (s) => s.money)], source: 'prices of the shop; without driver, housing and screws' }),
    make.figure('copperLoss', 'Winding heat', 'power', (x) => x.copperLoss, { formula: 'I²·R', terms: [term('I', 'current', n.motorCurrent, 'current', 'computed'), term('R', 'resistance', variant.motor.resistance, 'resistance', 'motor', 'resistance')], source: variant.motor.type === 'stepper' ? 'two phases, each at I/√2 root mean square' : 'line-current convention' }),
  ];
  if (n.stages.length > 0) {
    const k = make.figure('stiffness', 'Stiffness', 'stiffness', (x) => x.stiffness, { formula: '1/k = Σ 1/(kⱼ·Dⱼ²)', terms: [...per('k', 'stiffness at its own output', 'stiffness', (s) => s.stiffness), ...per('D', 'ratio that follows', 'ratio', (_s, j) => after[j]!)], source: 'springs in series, referred to the output', note: 'With every span taut.' });
    const wind = make.figure('windUp', 'Wind-up, holding', 'smallAngle', (x) => x.windUpHold, { formula: 'Σ θⱼ(T_h/Dⱼ)/Dⱼ', terms: [hold, term('k', 'stiffness', n.stiffness, 'stiffness', 'computed')], source: 'two-slope springs in series: a slack span drops out' });
    const tipValue = (band.likely + wind.value) * demand.arm;
    const spread = (a: number, b: number) => Math.hypot(a, b) * demand.arm;
    list.push(k, wind, make.figure('windUpPeak', 'Wind-up at the peak', 'smallAngle', (x) => x.windUpPeak, { formula: 'Σ θⱼ(T/Dⱼ)/Dⱼ', terms: [peak, term('k', 'stiffness', n.stiffness, 'stiffness', 'computed')], source: 'two-slope springs in series' }));
    list.push({ id: 'tip', name: 'Tip deflection', quantity: 'length', value: tipValue, low: Math.max(0, tipValue - spread(band.likely - band.low, wind.value - wind.low)), high: tipValue + spread(band.high - band.likely, wind.high - wind.value), working: { formula: '(play + wind-up)·L', terms: [term('play', 'play', band.likely, 'smallAngle', 'computed'), term('θ', 'wind-up under the holding torque', wind.value, 'smallAngle', 'computed'), arm], source: 'small angles' } });
    if (Number.isFinite(n.naturalFrequency)) list.push(make.figure('natural', 'Natural frequency', 'frequency', (x) => x.naturalFrequency, { formula: '√(k/J_load)/2π', terms: [term('k', 'stiffness', n.stiffness, 'stiffness', 'computed'), term('J_load', 'load', demand.inertia, 'inertia', 'brief')], source: 'one mass on the line’s stiffness, motor held' }));
  }
  if (Number.isFinite(n.capacity)) list.push(make.figure('capacity', 'Capacity of the stages', 'torque', (x) => x.capacity, { formula: 'min over stages and modes of limitⱼ carried through what follows', terms: [term('limit', `${n.capacityMode}, stage ${n.capacityStage + 1}`, n.stages[n.capacityStage]!.limits.find((l) => l.mode === n.capacityMode)!.torque, 'torque', 'computed'), ...ratios], source: SUM }));
  if (Number.isFinite(n.commanded)) list.push(make.figure('commanded', 'Commanded step', 'smallAngle', (x) => x.commanded, { formula: variant.motor.type === 'stepper' ? '2π/(steps·microsteps·|i|)' : '2π/(counts·|i|)', terms: [...(variant.motor.type === 'stepper' ? [term('steps', 'full steps per turn', variant.motor.stepsPerTurn, 'count', 'motor'), term('n', 'microsteps', variant.driver.microsteps, 'count', 'field')] : [term('counts', 'counts per turn', variant.sensor.counts, 'count', 'field')]), ...ratios], source: 'definition', note: 'Microsteps resolve; they do not hold.' }));
  if (Number.isFinite(n.sensed)) list.push(make.figure('sensed', 'Sensed change', 'smallAngle', (x) => x.sensed, { formula: variant.sensor.place === 'motor' ? '2π/(counts·|i|)' : '2π/counts', terms: [term('counts', 'counts per turn', variant.sensor.counts, 'count', 'field'), ...ratios], source: 'definition' }));
  const best = Math.max(Number.isFinite(n.commanded) ? n.commanded : 0, Number.isFinite(n.sensed) ? n.sensed : 0);
  if (best > 0) {
    const loose = variant.sensor.place === 'output' ? 0 : 1;
    list.push({ id: 'kept', name: 'Resolution kept', quantity: 'smallAngle', value: best + loose * band.likely, low: best + loose * band.low, high: best + loose * band.high, working: { formula: loose ? 'max(commanded, sensed) + play' : 'max(commanded, sensed)', terms: [term('step', 'coarser of commanded and sensed', best, 'smallAngle', 'computed'), term('play', 'play', band.likely, 'smallAngle', 'computed')], source: 'an output-side sensor sees play, a motor-side one does not', note: 'Under a load that always pulls one way play is taken up; wind-up still moves the tip.' } });
  }
  return list.filter((f) => Number.isFinite(f.value));
}

function verdicts(limits: readonly Limit[], demand: Demand, figures: readonly Figure[]): Verdict[] {
  return limits.map((l) => {
    const asked = askedValue(l, demand);
    const figure = figures.find((f) => f.id === l.id);
    return { id: l.id, asked, sense: l.sense, need: l.need, figure, state: judge(asked, l.sense, figure) };
  });
}

/** Holds when the likely value meets the limit; near when the band's bad end does not; fails when the likely value does not. */
export function judge(asked: number, sense: 'min' | 'max', figure: { value: number; low: number; high: number } | undefined): Verdict['state'] {
  if (!figure || !Number.isFinite(asked)) return 'unknown';
  const slack = 1e-9 * Math.abs(asked);
  if (sense === 'min') return figure.value < asked - slack ? 'fails' : figure.low < asked - slack ? 'near' : 'holds';
  return figure.value > asked + slack ? 'fails' : figure.high > asked + slack ? 'near' : 'holds';
}

export const limitName = (id: LimitId): string => LIMIT_KINDS[id].name;
