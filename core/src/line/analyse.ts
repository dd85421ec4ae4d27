import { askedValue, demandOf, LIMIT_KINDS, type Demand } from '../brief/demand.ts';
import { FigureMaker, type Check, type Figure } from '../figure/index.ts';
import type { Joint, Limit, LimitId, Variant } from '../schema/joint.ts';
import { motorTorque } from '../motor/available.ts';
import { driveMass, driveMoney } from '../motor/driver.ts';
import { motorConstants, type MotorConstants } from '../motor/constants.ts';
import type { Problem, Result } from '../result.ts';
import { recorded, type ShopReads } from '../shop/reads.ts';
import { uncertain, type Shelf } from '../shop/shelf.ts';
import { arrivingShare, given } from '../stage/arriving.ts';
import type { Duty, Stage, StageProblem, StageReport } from '../stage/contract.ts';
import { ownDuty } from '../stage/straight.ts';
import { aroundOf } from '../reducer/around.ts';
import { lineChecks, provenLineChecks } from './checks.ts';
import { housingChecks } from './housing-checks.ts';
import { lineFigures } from './figures.ts';
import { loadCurve, motorPoints, torqueMap, type LoadCurve, type MotorDuty, type TorqueMap } from './map.ts';
import { heldWindUp, sumLine, trialOf, type LineNumbers } from './numbers.ts';
import { openFor, openStage, type StageOpener } from './open.ts';
import { spinPerAcceleration } from './spin.ts';
import { forward, ratiosAfter } from './sum.ts';

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
  readonly sense: Limit['sense'];
  readonly need: 'must' | 'wish';
  /** A new joint's own value that nobody has asked for yet. */
  readonly suggested?: boolean;
  readonly figure: Figure | undefined;
  /** What is known where no figure says it. */
  readonly says?: string;
  readonly state: 'holds' | 'near' | 'fails' | 'unknown';
}

/** What at the output belongs to no stage: the rotor, the motor itself, the output shaft. */
export interface Beside {
  readonly rotorInertia: number;
  readonly loadInertia: number;
  readonly motorMass: number;
  readonly motorMoney: number;
  /** Of driver and supply, where they are chosen. */
  readonly driveMoney: number;
  /** Of the driver alone, kg. */
  readonly driveMass: number;
  /** Of sensors and their magnets, kg and money. */
  readonly sensorMass: number;
  readonly sensorMoney: number;
  readonly shaftWindUp: number;
  /** Of the housing’s shafts between stages: wind-up, rad, and inertia at the output, kg·m². */
  readonly linkWindUp: number;
  readonly linkInertia: number;
  readonly shaftMass: number;
  readonly shaftMoney: number;
  readonly aroundMass: number;
  readonly aroundMoney: number;
}

export interface LineReport {
  /** What of the shop all of this came from. */
  readonly reads: ShopReads;
  readonly demand: Demand;
  readonly problem: Problem | undefined;
  readonly figures: readonly Figure[];
  readonly verdicts: readonly Verdict[];
  readonly stages: readonly StageOutcome[];
  readonly attribution: readonly Attribution[];
  readonly nodes: readonly Node[];
  readonly beside: Beside | undefined;
  /** What decides whether the line works, beyond what the brief limits. */
  readonly checks: readonly Check[];
  readonly map: TorqueMap | undefined;
  /** Efficiency over the load at the output. */
  readonly load: LoadCurve | undefined;
  readonly motor: { readonly constants: MotorConstants; readonly points: readonly MotorDuty[] };
  readonly limitedBy: string;
  readonly holder: string | undefined;
}

/** How a line is analysed. */
export interface AnalyseOptions {
  /** False leaves the bands out (every figure's ends equal its value), for the many trials behind a derivative. */
  readonly bands?: boolean;
  /** False leaves out the line's mends, each of which is tried before it is offered, where checks are only to decide. */
  readonly mends?: boolean;
  /** Opens its stages; one that remembers saves what an edit elsewhere has left alone. */
  readonly open?: StageOpener;
}

/** Sums a variant's line for the joint's brief, with bands, workings, verdicts and the share of every stage. */
export function analyseLine(
  joint: Pick<Joint, 'brief'>,
  variant: Variant,
  shelf: Shelf,
  { bands = true, mends = true, open = openStage }: AnalyseOptions = {},
): LineReport {
  const told = recorded(shelf, (read) =>
    lineReport(
      joint,
      variant,
      read,
      { bands, mends },
      openFor(demandOf(joint.brief, shelf).travel, variant.stages, shelf, open),
    ),
  );
  const { reads } = told;
  for (const s of told.value.stages) if (s.report) reads.add(s.report.reads);
  return { ...told.value, reads: reads.list() };
}

function lineReport(
  joint: Pick<Joint, 'brief'>,
  variant: Variant,
  shelf: Shelf,
  { bands, mends }: Required<Pick<AnalyseOptions, 'bands' | 'mends'>>,
  opened: ReturnType<typeof openFor>,
): Omit<LineReport, 'reads'> {
  const demand = demandOf(joint.brief, shelf);
  const constants = motorConstants(variant.motor, variant.driver, shelf);
  const line = opened.all.ok
    ? { variant, stages: opened.all.value, demand, shelf, around: aroundOf(variant, opened.all.value, shelf) }
    : undefined;
  const made = line ? sumLine(line) : (opened.all as { readonly ok: false; readonly problem: Problem });
  const stages = stageOutcomes(variant, demand, opened.each, made.ok ? made.value.numbers : undefined);
  if (!line || !made.ok) {
    const { problem } = made as { readonly problem: Problem };
    return {
      demand,
      problem,
      figures: [],
      verdicts: verdicts(joint.brief.limits, demand, [], undefined),
      stages,
      attribution: [],
      nodes: [],
      beside: undefined,
      checks: [],
      map: undefined,
      load: undefined,
      motor: { constants, points: [] },
      limitedBy: '',
      holder: undefined,
    };
  }
  const n = made.value.numbers;
  const ids = new Set(made.value.reads.factors);
  line.stages.forEach((s, j) => s.reads(n.duties[j]!).factors.forEach((id) => ids.add(id)));
  const ends = (bands ? uncertain(shelf, ids) : []).map(
    (f) => [trialOf(line, made.value, f.id, f.low), trialOf(line, made.value, f.id, f.high)] as const,
  );
  const figures = lineFigures(variant, demand, shelf, n, new FigureMaker(n, ends));
  const attribution = attributions(variant, demand, n);
  const nodes = lineNodes(variant, demand, shelf, n);
  const checks = [
    ...(mends ? provenLineChecks(joint.brief, line, n) : lineChecks(joint.brief, line, n, () => false)),
    ...(line.around ? housingChecks(line.around.reducer, variant, line.stages, shelf, n, mends) : []),
  ];
  const speed = (n.governing?.speed ?? demand.speed) * Math.abs(n.ratio);
  const who =
    n.capacityStage >= 0 && n.capacity < n.reach
      ? `${n.capacityMode}, stage ${n.capacityStage + 1}`
      : `motor (${motorTorque(variant.motor, variant.driver, shelf, speed, 'peak').bound})`;
  const { motor } = variant;
  const stageMass = n.stages.reduce((m, x) => m + x.mass, motor.mass + driveMass(variant.driver) + n.sensorMass);
  const bought = driveMoney(variant.driver);
  const stageMoney = n.stages.reduce((m, x) => m + x.money, motor.price + bought + n.sensorMoney);
  const beside: Beside = {
    rotorInertia: motor.rotorInertia * n.ratio ** 2,
    loadInertia: demand.inertia,
    motorMass: motor.mass,
    motorMoney: motor.price,
    driveMass: driveMass(variant.driver),
    driveMoney: bought,
    sensorMass: n.sensorMass,
    sensorMoney: n.sensorMoney,
    shaftWindUp: demand.hold / n.shaftStiffness,
    linkWindUp: demand.hold / n.linkStiffness,
    linkInertia: n.linkInertia,
    shaftMass: n.mass - stageMass - n.aroundMass,
    shaftMoney: n.money - stageMoney - n.aroundMoney,
    aroundMass: n.aroundMass,
    aroundMoney: n.aroundMoney,
  };
  return {
    demand,
    problem: undefined,
    figures,
    verdicts: verdicts(joint.brief.limits, demand, figures, n),
    stages,
    attribution,
    nodes,
    beside,
    checks,
    map: torqueMap(variant, demand, shelf, n),
    load: loadCurve(demand, n),
    motor: { constants, points: motorPoints(variant, demand, shelf, n) },
    limitedBy: who,
    holder: n.holder >= 0 ? `stage ${n.holder + 1}` : undefined,
  };
}

function stageOutcomes(
  variant: Variant,
  demand: Demand,
  each: readonly Result<Stage>[],
  n: LineNumbers | undefined,
): StageOutcome[] {
  return variant.stages.map((record, j) => {
    // Where a later stage is in trouble the earlier ones still show what they can for the joint's own duty.
    const duty = n?.duties[j] ?? { torque: demand.peak, torqueRms: demand.rms, speed: demand.speed };
    const opened = each[j]!;
    const straight = opened.ok && opened.value.straight && demand.travel !== undefined;
    const of = {
      stageId: record.id,
      kind: record.kind,
      // What is drawn of a straight stage is drawn by itself, in its own terms.
      duty: straight ? ownDuty(duty, demand.travel!) : duty,
    };
    return opened.ok
      ? { ...of, report: opened.value.report(duty), problem: undefined }
      : { ...of, report: undefined, problem: opened.problem };
  });
}

function attributions(variant: Variant, demand: Demand, n: LineNumbers): Attribution[] {
  const after = ratiosAfter(n.stages);
  return n.stages.map((s, j) => {
    const d = Math.abs(after[j]!);
    const out = n.duties[j]!.torque;
    const inward = out / (Math.abs(s.ratio) * arrivingShare(s)) + s.drag;
    // What branches take off is no loss.
    const useful = out * given(s);
    const own = inward > 0 ? useful / (inward * Math.abs(s.ratio)) : NaN;
    return {
      stageId: variant.stages[j]!.id,
      ratio: s.ratio,
      efficiency: own,
      loss: (inward * Math.abs(s.ratio) - useful) * d,
      play: s.play[0] / d,
      windUp: heldWindUp(s, demand.hold / d) / d,
      inertia: s.inertiaIn * (s.ratio * d) ** 2 + s.inertiaOut * d * d,
      mass: s.mass,
      money: s.money,
    };
  });
}

function lineNodes(variant: Variant, demand: Demand, shelf: Shelf, n: LineNumbers): Node[] {
  const motorSpeed = demand.speed * Math.abs(n.ratio);
  const t0 = motorTorque(variant.motor, variant.driver, shelf, motorSpeed, 'peak').torque;
  const nodes: Node[] = [{ ratio: 1, torque: t0, speed: motorSpeed, play: 0 }];
  // What speeds up the rotor and the stages does not arrive.
  const spin = spinPerAcceleration(n.inertiaLine, Math.abs(n.ratio)) * (n.governing?.acceleration ?? 0);
  let [ratio, play, t] = [1, 0, t0 - spin];
  for (const s of n.stages) {
    ratio *= s.ratio;
    play = play / Math.abs(s.ratio) + s.play[0];
    t = forward([s], t);
    nodes.push({ ratio, torque: t, speed: motorSpeed / Math.abs(ratio), play });
  }
  return nodes;
}

function verdicts(
  limits: readonly Limit[],
  demand: Demand,
  figures: readonly Figure[],
  n: LineNumbers | undefined,
): Verdict[] {
  return limits.map((l): Verdict => {
    const asked = askedValue(l, demand);
    const figure = figures.find((f) => f.id === l.id);
    const base = { id: l.id, asked, sense: l.sense, need: l.need, figure, ...(l.suggested && { suggested: true }) };
    if (l.id === 'noise') return { ...base, state: 'unknown', says: l.note || 'nothing noted' };
    if (l.id === 'turnBack' && n && n.holder >= 0)
      return {
        ...base,
        state: l.sense === 'max' ? 'fails' : 'holds',
        says: `self-locking: stage ${n.holder + 1} cannot be driven back`,
      };
    if (l.sense === 'either') return { ...base, state: figure ? 'holds' : 'unknown' };
    if (l.id === 'life' && n && n.life === Infinity)
      return { ...base, state: 'unknown', says: 'nothing in the line has a life that is known' };
    const state = judge(asked, l.sense, figure);
    // Its band is that of the cases in which the peak torque is there at all.
    const reach = l.id === 'speed' ? figures.find((f) => f.id === 'reach') : undefined;
    return { ...base, state: state === 'holds' && reach && reach.low < demand.peak * (1 - 1e-9) ? 'near' : state };
  });
}

/** What stops a line from working: its own checks and its stages', each with where it stands. */
export function stopping(report: LineReport): { readonly where: string; readonly check: Check }[] {
  const stops = (where: string, list: readonly Check[]) =>
    list.filter((c) => c.state === 'fails' && c.severity === 'stop').map((check) => ({ where, check }));
  return [
    ...stops('line', report.checks),
    ...report.stages.flatMap((s, i) => stops(`stage ${i + 1}`, s.report?.checks ?? [])),
  ];
}

/**
 * Holds when the likely value meets the limit; near when the band's bad end does not; fails when the likely value does
 * not.
 */
export function judge(
  asked: number,
  sense: 'min' | 'max',
  figure: { value: number; low: number; high: number } | undefined,
): Verdict['state'] {
  if (!figure || !Number.isFinite(asked)) return 'unknown';
  const slack = 1e-9 * Math.abs(asked);
  if (sense === 'min') return figure.value < asked - slack ? 'fails' : figure.low < asked - slack ? 'near' : 'holds';
  return figure.value > asked + slack ? 'fails' : figure.high > asked + slack ? 'near' : 'holds';
}

export const limitName = (id: LimitId): string => LIMIT_KINDS[id].name;
