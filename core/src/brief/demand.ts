import type { Brief, LimitId, LoadCase } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { QuantityId } from '../units/quantity.ts';
import { straightQuantity } from '../units/straight.ts';
import type { CaseLoads, OperatingPoint } from './pattern.ts';
import { loadPattern } from './patterns.ts';
import { travelPerRadian } from './straight.ts';

export interface CaseDemand {
  readonly id: string;
  readonly name: string;
  readonly pattern: LoadCase['pattern'];
  readonly loads: CaseLoads;
  readonly speed: number;
}

/** What all load cases together ask of the line. */
export interface Demand {
  readonly cases: readonly CaseDemand[];
  readonly peak: number;
  readonly rms: number;
  readonly hold: number;
  readonly speed: number;
  /** Torque that wears bearings like the worst case's cycle, N·m, and the mean speed it goes with. */
  readonly equivalent: number;
  readonly meanSpeed: number;
  /** In some case the load pulls now one way, now the other, each with a good part of its most. */
  readonly reverses: boolean;
  /** Life that the brief asks, s; undefined where it asks none. */
  readonly life: number | undefined;
  /** Longest arm: the tip. */
  readonly arm: number;
  /** Largest load inertia about the axis, kg·m². */
  readonly inertia: number;
  /** Largest friction of a load itself, N·m. */
  readonly friction: number;
  /**
   * Travel for a radian, m, where every load case is of one straight axis: the arm about which forces are told as torques;
   * undefined where something turns.
   */
  readonly travel: number | undefined;
  /** Widest move, rad. */
  readonly swing: number;
  /** Every operating point of every case, named. */
  readonly points: readonly OperatingPoint[];
}

const kept = new WeakMap<LoadCase, { g: number; loads: CaseLoads }>();

/** Loads of a case, which is never changed in place; asking again answers from memory. */
export function caseLoads(c: LoadCase, g: number): CaseLoads {
  const found = kept.get(c);
  if (found?.g === g) return found.loads;
  const loads = loadPattern(c.pattern).loads(c, g);
  kept.set(c, { g, loads });
  return loads;
}

export function demandOf(brief: Brief, shelf: Shelf): Demand {
  const g = factor(shelf, 'gravity');
  const cases = brief.cases.map((c): CaseDemand => {
    const loads = caseLoads(c, g);
    return { id: c.id, name: c.name, pattern: c.pattern, loads, speed: loads.speed };
  });
  const most = (pick: (l: CaseLoads) => number) => cases.reduce((m, c) => Math.max(m, pick(c.loads)), 0);
  // The case that wears most is the one with the most of T^(10/3)·n.
  const wear = (l: CaseLoads) => l.equivalent ** (10 / 3) * l.meanSpeed;
  const worst = cases.reduce<CaseLoads | undefined>((a, c) => (a && wear(a) >= wear(c.loads) ? a : c.loads), undefined);
  const points = cases.flatMap((c) =>
    c.loads.points.map((p) => (cases.length > 1 ? { ...p, name: `${p.name}, ${c.name}` } : p)),
  );
  return {
    cases,
    peak: most((l) => l.peak),
    rms: most((l) => l.rms),
    hold: most((l) => l.hold),
    speed: most((l) => l.speed),
    equivalent: worst?.equivalent ?? 0,
    meanSpeed: worst?.meanSpeed ?? 0,
    reverses: cases.some((c) => c.loads.reverses),
    life: brief.limits.find((l) => l.id === 'life')?.value ?? undefined,
    arm: most((l) => l.arm),
    inertia: most((l) => l.inertia),
    friction: most((l) => l.friction),
    travel: travelOf(brief),
    swing: most((l) => l.swing),
    points,
  };
}

/**
 * Travel for a radian of a brief whose load cases are all of one straight axis, m; undefined where something turns.
 * @example travelOf({ cases: [] }) // undefined
 */
export function travelOf({ cases }: Pick<Brief, 'cases'>): number | undefined {
  const travels = new Set(cases.map((c) => (c.pattern === 'straight' ? travelPerRadian(c) : undefined)));
  return travels.size === 1 ? [...travels][0] : undefined;
}

/**
 * Limits that stay what they are along a straight axis while the radius that they are told about changes.
 *
 * @param from travel for a radian before, and `to` after, m
 * @example rescaleLimits([{ id: 'play', value: 0.001 }], 0.01, 0.02) // [{ id: 'play', value: 0.0005 }]
 */
export const rescaleLimits = <L extends { readonly id: LimitId; readonly value: number | null }>(
  limits: readonly L[],
  from: number,
  to: number,
): L[] =>
  limits.map((l) => {
    const { by = 1 } = straightQuantity(LIMIT_KINDS[l.id].quantity, to) ?? {};
    const { by: was = 1 } = straightQuantity(LIMIT_KINDS[l.id].quantity, from) ?? {};
    return l.value === null || by === was ? l : { ...l, value: (l.value * was) / by };
  });

export interface LimitKind {
  readonly name: string;
  readonly quantity: QuantityId;
  readonly sense: 'min' | 'max';
  /** What it means, for the view. */
  readonly help: string;
  /** A value to begin with, SI. */
  readonly start: number | null;
}

const minute = Math.PI / 10800;

export const LIMIT_KINDS: Readonly<Record<LimitId, LimitKind>> = {
  torque: {
    name: 'Torque, lifting',
    quantity: 'torque',
    sense: 'min',
    start: null,
    help: 'Peak of the load cases, shock included, each at its own speed.',
  },
  speed: {
    name: 'Speed',
    quantity: 'speed',
    sense: 'min',
    start: null,
    help: 'Highest speed at which the peak torque is still there.',
  },
  play: {
    name: 'Play',
    quantity: 'smallAngle',
    sense: 'max',
    start: 6 * minute,
    help: 'Backlash: angle the output turns with the input held and no torque; wind-up is not in it.',
  },
  stiffness: {
    name: 'Stiffness',
    quantity: 'stiffness',
    sense: 'min',
    start: (3 * 180) / Math.PI,
    help: 'Torsional stiffness: torque per angle at the output, motor held.',
  },
  tip: {
    name: 'Tip deflection',
    quantity: 'length',
    sense: 'max',
    start: 3e-3,
    help: 'Play and wind-up under the holding torque, at the end of the longest arm.',
  },
  resolution: {
    name: 'Resolution kept',
    quantity: 'smallAngle',
    sense: 'max',
    start: 6 * minute,
    help: 'Smallest change that the output makes and keeps, with play, sticking and sensor errors in it.',
  },
  repeatability: {
    name: 'Repeatability',
    quantity: 'smallAngle',
    sense: 'max',
    start: 10 * minute,
    help: 'How far apart it comes to rest when sent to the same place from either side.',
  },
  turnBack: {
    name: 'Turn-back',
    quantity: 'torque',
    sense: 'max',
    start: 2,
    help: 'Back-driving torque: what at the output turns the unpowered line back: must (at most), must not (at least), or either.',
  },
  size: {
    name: 'Outside size',
    quantity: 'length',
    sense: 'max',
    start: 0.2,
    help: 'Largest dimension of any stage across its axis.',
  },
  length: {
    name: 'Length',
    quantity: 'length',
    sense: 'max',
    start: 0.15,
    help: 'Motor and stages one after the other along the axis.',
  },
  bore: {
    name: 'Hollow bore',
    quantity: 'length',
    sense: 'min',
    start: 8e-3,
    help: 'Clear passage along the output axis, for cables.',
  },
  mass: {
    name: 'Mass',
    quantity: 'mass',
    sense: 'max',
    start: 0.8,
    help: 'Motor and stages, without housing and screws.',
  },
  money: { name: 'Money', quantity: 'money', sense: 'max', start: 80, help: 'Motor and stages at the shop’s prices.' },
  life: {
    name: 'Life',
    quantity: 'life',
    sense: 'min',
    start: 500 * 3600,
    help: 'Hours of the load cycle until the first part is worn out: teeth by wear or fatigue, bearings by rated life (L10).',
  },
  noise: {
    name: 'Noise',
    quantity: 'count',
    sense: 'max',
    start: null,
    help: 'A note in words; nothing predicts it yet.',
  },
};

/** The value a limit asks for; torque and speed may follow the load cases. */
export function askedValue(limit: { id: LimitId; value: number | null }, demand: Demand): number {
  if (limit.value !== null) return limit.value;
  return limit.id === 'speed' ? demand.speed : limit.id === 'torque' ? demand.peak : NaN;
}
