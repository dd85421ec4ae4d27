import type { Joint, Variant } from '../joint/joint.ts';
import { uncertain, withFactor, type Shelf } from '../shop/shelf.ts';
import { stageKind } from '../stage/registry.ts';
import { analyseLine, type LineReport } from './analyse.ts';

/** An input that moves a figure: how much the figure changes, relative to itself, when the input grows by a hundredth (or by one). */
export interface Mover {
  readonly label: string;
  /** What the input is: a load case, a stage's parameter, the motor, a factor of the shop. */
  readonly group: string;
  /** Relative change of the figure for the change of the input, e.g. 0.01 for one percent. */
  readonly change: number;
  /** How the input was moved: "+1 %" or "+1". */
  readonly step: string;
}

/** Which figure of a line: the line's own, or a stage's. */
export interface FigureAddress {
  readonly stageId: string | undefined;
  readonly figureId: string;
}

export function findFigure(report: LineReport, at: FigureAddress): number | undefined {
  const list = at.stageId === undefined ? report.figures : report.stages.find((s) => s.stageId === at.stageId)?.report?.figures;
  return list?.find((f) => f.id === at.figureId)?.value;
}

interface Nudge {
  readonly label: string;
  readonly group: string;
  readonly step: string;
  readonly apply: () => LineReport;
}

function* nudges(joint: Joint, variant: Variant, shelf: Shelf): Generator<Nudge> {
  for (const [i, c] of joint.brief.cases.entries()) {
    for (const [key, label] of [['load', 'load'], ['length', 'arm length'], ['armMass', 'arm mass'], ['armCentre', 'arm’s centre'], ['speed', 'speed'], ['acceleration', 'acceleration'], ['dynamicFactor', 'shock factor']] as const) {
      if (c[key] === 0) continue;
      yield { label, group: c.name, step: '+1 %', apply: () => analyseLine({ ...joint, brief: { ...joint.brief, cases: joint.brief.cases.map((x, k) => (k === i ? { ...x, [key]: x[key] * 1.01 } : x)) } }, variant, shelf, false) };
    }
  }
  for (const key of Object.keys(variant.motor)) {
    const value = (variant.motor as Record<string, unknown>)[key];
    if (typeof value !== 'number' || value === 0 || key === 'stepsPerTurn') continue;
    yield { label: key.replace(/[A-Z]/g, (x) => ` ${x.toLowerCase()}`), group: 'motor', step: '+1 %', apply: () => analyseLine(joint, { ...variant, motor: { ...variant.motor, [key]: value * 1.01 } }, shelf, false) };
  }
  for (const [key, label] of [['supplyVoltage', 'supply voltage'], ['currentLimit', 'current limit'], ['supplyCurrent', 'supply current']] as const) {
    yield { label, group: 'driver', step: '+1 %', apply: () => analyseLine(joint, { ...variant, driver: { ...variant.driver, [key]: variant.driver[key] * 1.01 } }, shelf, false) };
  }
  for (const [j, record] of variant.stages.entries()) {
    const kind = stageKind(record.kind);
    if (!kind) continue;
    for (const field of kind.fields) {
      const value = record.params[field.path];
      if (typeof value !== 'number' || field.when?.(record.params) === false) continue;
      const next = field.as === 'quantity' ? value * 1.01 : value + 1;
      if (value === 0) continue;
      yield { label: field.label.toLowerCase(), group: `stage ${j + 1}`, step: field.as === 'quantity' ? '+1 %' : '+1', apply: () => analyseLine(joint, { ...variant, stages: variant.stages.map((s, k) => (k === j ? { ...s, params: { ...s.params, [field.path]: next } } : s)) }, shelf, false) };
    }
  }
  const ids = [...variant.stages.flatMap((s) => stageKind(s.kind)?.factors(s.params) ?? []), 'motor.spread', 'gravity'];
  for (const f of [...uncertain(shelf, ids), shelf.factors['gravity']!]) {
    yield { label: f.name, group: 'shop', step: '+1 %', apply: () => analyseLine(joint, variant, withFactor(shelf, f.id, f.value * 1.01), false) };
  }
}

/**
 * The inputs that move a figure most, by finite differences over everything a person can set: one percent on what is continuous,
 * one more on what is counted.
 *
 * @param count how many to return
 * @param onProgress share done, 0 to 1; return false to stop early
 * @returns movers, strongest first; empty where the figure does not exist or nothing moves it
 */
export function movers(joint: Joint, variant: Variant, shelf: Shelf, at: FigureAddress, count = 3, onProgress?: (share: number) => boolean): Mover[] {
  const base = findFigure(analyseLine(joint, variant, shelf, false), at);
  if (base === undefined) return [];
  const all = [...nudges(joint, variant, shelf)];
  const found: Mover[] = [];
  for (const [i, n] of all.entries()) {
    const value = findFigure(n.apply(), at);
    if (value !== undefined && Number.isFinite(value)) {
      const change = base === 0 ? 0 : (value - base) / Math.abs(base);
      if (Math.abs(change) > 1e-7) found.push({ label: n.label, group: n.group, step: n.step, change });
    }
    if (onProgress && !onProgress((i + 1) / all.length)) break;
  }
  return found.sort((a, b) => Math.abs(b.change) - Math.abs(a.change)).slice(0, count);
}
