import type { ArmCase, Brief, LimitId } from '../joint/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { QuantityId } from '../units/quantity.ts';
import { armLoads, type ArmLoads } from './arm.ts';

export interface CaseDemand {
  readonly id: string;
  readonly name: string;
  readonly loads: ArmLoads;
  readonly speed: number;
}

/** What all load cases together ask of the line. */
export interface Demand {
  readonly cases: readonly CaseDemand[];
  readonly peak: number;
  readonly rms: number;
  readonly hold: number;
  readonly speed: number;
  /** Longest arm: the tip. */
  readonly arm: number;
  /** Largest load inertia about the axis, kg·m². */
  readonly inertia: number;
}

export function demandOf(brief: Brief, shelf: Shelf): Demand {
  const g = factor(shelf, 'gravity');
  const cases = brief.cases.map((c: ArmCase) => ({ id: c.id, name: c.name, loads: armLoads(c, g), speed: c.speed }));
  const most = (pick: (c: CaseDemand) => number) => cases.reduce((m, c) => Math.max(m, pick(c)), 0);
  return { cases, peak: most((c) => c.loads.peak), rms: most((c) => c.loads.rms), hold: most((c) => c.loads.hold), speed: most((c) => c.speed), arm: brief.cases.reduce((m, c) => Math.max(m, c.length), 0), inertia: most((c) => c.loads.inertia) };
}

export interface LimitKind {
  readonly name: string;
  readonly quantity: QuantityId;
  readonly sense: 'min' | 'max';
  /** What it means, for the view. */
  readonly help: string;
  /** A value to begin with, SI. */
  readonly start: number | null;
}

export const LIMIT_KINDS: Readonly<Record<LimitId, LimitKind>> = {
  torque: { name: 'Torque, lifting', quantity: 'torque', sense: 'min', start: null, help: 'Peak of the load cases, shock included, at the speed asked.' },
  speed: { name: 'Speed', quantity: 'speed', sense: 'min', start: null, help: 'Highest speed at which the peak torque is still there.' },
  play: { name: 'Play', quantity: 'smallAngle', sense: 'max', start: (6 * Math.PI) / 10800, help: 'Angle the output turns with the input held and no torque; wind-up is not in it.' },
  stiffness: { name: 'Stiffness', quantity: 'stiffness', sense: 'min', start: (3 * 180) / Math.PI, help: 'Torque per angle at the output, motor held.' },
  tip: { name: 'Tip deflection', quantity: 'length', sense: 'max', start: 3e-3, help: 'Play and wind-up under the holding torque, at the end of the longest arm.' },
  turnBack: { name: 'Turn-back', quantity: 'torque', sense: 'max', start: 2, help: 'Torque at the output that turns the unpowered line back.' },
  size: { name: 'Outside size', quantity: 'length', sense: 'max', start: 0.2, help: 'Largest dimension of any stage across its axis.' },
  mass: { name: 'Mass', quantity: 'mass', sense: 'max', start: 0.8, help: 'Motor and stages, without housing and screws.' },
  money: { name: 'Money', quantity: 'money', sense: 'max', start: 80, help: 'Motor and stages at the shop’s prices.' },
};

/** The value a limit asks for; torque and speed may follow the load cases. */
export function askedValue(limit: { id: LimitId; value: number | null }, demand: Demand): number {
  if (limit.value !== null) return limit.value;
  return limit.id === 'speed' ? demand.speed : limit.id === 'torque' ? demand.peak : NaN;
}
