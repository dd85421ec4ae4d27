import { term } from '../../figure/index.ts';
import {
  blankMass,
  boreReach,
  cutPartPrice,
  lastingTorque,
  lifeAsked,
  passesIn,
  PLAIN_HUB,
  shortestLife,
  type ToothMaterial,
} from '../../gear/index.ts';
import { HELD_HOURS } from '../../gear/material-state.ts';
import { pullFor, sides } from '../../loop/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { findCable, type CableSort } from '../../shop/cables.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import { boreLimits, type Bored } from '../bore-holds.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import { limitOf, type Limit } from '../limits.ts';
import { shaftDrag } from '../loop-drag.ts';
import { pulled } from '../push.ts';
import { needMaterials } from '../needs.ts';
import { inMm, stop } from '../refuse-stage.ts';
import { hubSprings } from '../hub-springs.ts';
import { spring, together } from '../springs.ts';
import { cableRadii, cableRatio, type CableParams } from './params.ts';

/** A cable drive before any duty. */
export interface CableBuild {
  readonly sort: CableSort;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  /** Radii on which the cable's middle runs, m. */
  readonly radii: readonly [number, number];
  readonly runs: readonly [number, number];
  /** Width of the grooves on either drum, m, and how far the cable walks along the driving one. */
  readonly widths: readonly [number, number];
  readonly walks: number;
  /** How far the cable leans sideways at the end of its range, rad. */
  readonly fleet: number;
  /** Turning that clamped ends allow, rad at the output; Infinity where friction holds. */
  readonly stores: number;
  /** Least breaking load of the cable, N. */
  readonly breaks: number;
  readonly wall: number;
}

/** Everything computed about a cable drive. */
export interface CableModel extends CableBuild {
  readonly rigidity: number;
  /** Stiffness of the pulling and the other run, each with what stretches on the drums and in its clamp, N/m. */
  readonly runStiffness: readonly [number, number];
  /** Shares of a force that the pulling run gains and the other loses. */
  readonly shares: readonly [number, number];
  /** Force that turns the driven drum, N. */
  readonly force: number;
  readonly tight: number;
  readonly slack: number;
  /** Preload at which the other run just stays taut, whichever way it pulls. */
  readonly needs: number;
  readonly runsStiffness: number;
  /** Torque at which the other run hangs. */
  readonly hangs: number;
  /** Tight over slack at the peak, and what friction holds. */
  readonly ratioAsked: number;
  readonly ratioHeld: number;
  readonly limits: readonly Limit[];
  /** The drum that its bore turns. */
  readonly bores: readonly Bored[];
  readonly masses: readonly [number, number, number];
  readonly prices: readonly [number, number, number];
  readonly cableLength: number;
  readonly numbers: StageNumbers;
}

/** Pitch of helical grooves over the cable's diameter: it must not climb on itself. */
const GROOVE = 1.1;
/** Wall of a drum beside its last groove, m. */
export const RIM = 2e-3;
/** How far this wall stands over the cable's bottom, in diameters of the cable. */
export const RIM_OVER = 1.5;

/** Builds a drive; refuses in words what does not go together. */
export function buildCable(p: CableParams, shelf: Shelf): Result<CableBuild> {
  const found = needMaterials(p, ['material1', 'material2'], shelf);
  if (!found.ok) return found;
  const sort = findCable(p.sort)!;
  const radii = cableRadii(p);
  const [r1, r2] = radii;
  // Rim beside rim, half a millimetre apart.
  const least = p.radius1 + p.radius2 + 2 * RIM_OVER * p.cable + 5e-4;
  if (p.runsBy === 'centre' && p.centre < least)
    return stop(
      `The drums touch at a centre distance of ${inMm(p.centre)}.`,
      `With the rims beside their grooves they need ${inMm(least)}.`,
      'Move the shafts apart, or take smaller drums.',
      'centre',
      {
        path: 'centre',
        value: Math.ceil(least * 1.05e3) / 1e3,
        label: `Centre distance ${inMm(Math.ceil(least * 1.05e3) / 1e3)}`,
      },
    );
  const across = p.path === 'eight' ? r1 + r2 : r2 - r1;
  const free = Math.sqrt(Math.max(0, p.centre ** 2 - across ** 2));
  const runs: [number, number] = p.runsBy === 'centre' ? [free, free] : [p.runA, p.runB];
  if (!(runs[0] > 1e-3 && runs[1] > 1e-3))
    return stop(
      'No free run is left between the drums.',
      'Each run needs a millimetre and more.',
      'Move the shafts apart.',
      'centre',
    );
  const pitch = GROOVE * p.cable;
  const turned = (p.range * r2) / r1 / (2 * Math.PI);
  const walks = turned * pitch;
  const widths = [
    // Held by friction the turns wander along it; clamped, either side needs what the other has unwound.
    (p.wraps + turned) * pitch + 2 * RIM,
    (p.range / (2 * Math.PI)) * pitch + pitch + 2 * RIM,
  ] as const;
  return ok({
    sort,
    materials: found.value,
    radii,
    runs,
    widths,
    walks,
    fleet: Math.atan(walks / 2 / Math.min(...runs)),
    stores: p.hold === 'clamped' ? (2 * Math.PI * Math.max(0, p.wraps - 1) * r1) / r2 : Infinity,
    breaks: sort.breaks * p.cable ** 2,
    wall: p.radius1 - boreReach({ ...PLAIN_HUB, bore: p.bore1, shape: p.shape1 }),
  });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongCable(p: CableParams, b: CableBuild): Result<never> | undefined {
  if (b.wall < 5e-4)
    return refuse(
      'The bore cuts through the driving drum.',
      `Under its cable it is ⌀ ${stated(2 * p.radius1, 'length', 4)}, and half a millimetre of wall is the least.`,
      'Take a smaller bore or a larger drum.',
      'bore1',
    );
  if (p.bore2 / 2 > p.radius2 - 1e-3)
    return refuse(
      'The bore cuts through the driven drum.',
      `Under its cable it is ⌀ ${stated(2 * p.radius2, 'length', 4)}, and a millimetre of wall is the least.`,
      'Take a smaller bore or a larger drum.',
      'bore2',
    );
  return undefined;
}

/**
 * Length of free cable that stretches as much as what lies on a drum: the change of its pull dies away by friction, r/µ·(1 −
 * e^(−µ·wrap)).
 *
 * @example onDrum(0.01, 0.15, 6 * Math.PI).toFixed(6) // '0.062722'
 */
export const onDrum = (radius: number, friction: number, wrap: number): number =>
  (radius / friction) * (1 - Math.exp(-friction * wrap));

/**
 * Computes a cable drive at a duty on its driven drum. Source: two springs side by side, each the whole of its run, since
 * what lies on the drums and in the clamp stretches with it; Euler’s rope friction; see `onDrum`.
 */
export function modelCable(p: CableParams, b: CableBuild, at: Duty, shelf: Shelf): CableModel {
  const { sort, radii, runs, materials } = b;
  const [r1, r2] = radii;
  const rigidity = p.rigidity > 0 ? p.rigidity : factor(shelf, sort.stiffness) * p.cable ** 2;
  const friction = factor(shelf, sort.friction);
  // Each run with what stretches on the drums and in its clamp.
  const more = onDrum(r1, friction, Math.PI * p.wraps) + onDrum(r2, friction, Math.max(0.3, p.range / 2));
  const runStiffness = (length: number): number => 1 / ((length + more) / rigidity + 1 / factor(shelf, 'cable.end'));
  const [kA, kB] = [runStiffness(runs[0]), runStiffness(runs[1])];
  const shares = [kA / (kA + kB), kB / (kA + kB)] as const;
  const force = at.torque / r2;
  const hangsAt = p.preload / shares[1];
  const { tight, slack } = sides(force, p.preload, shares[0]);
  const runsStiffness = r2 ** 2 * rigidity * (1 / runs[0] + 1 / runs[1]);
  const whole = r2 ** 2 * (kA + kB);
  const held = sort.creep > 0 ? HELD_HOURS ** -sort.creep : 1;
  const springs = [
    spring('free runs', runsStiffness, held),
    spring('cable on the drums and in its clamps', 1 / (1 / whole - 1 / runsStiffness), held),
    ...hubSprings(p, ['driving drum', 'driven drum'], b.widths, materials, cableRatio(p), shelf),
  ];
  const stiffness = together(springs);
  const holds = Math.exp(friction * 2 * Math.PI * p.wraps);
  const clamp = factor(shelf, 'cable.clamp') * b.breaks;
  // Slips where tight over slack reaches what friction holds.
  const slips = p.hold === 'clamped' ? Infinity : ((p.preload * (holds - 1)) / (shares[0] + holds * shares[1])) * r2;
  const eta = factor(shelf, 'cable.efficiency');
  const passes = passesIn(at, r2 / r1, 1);
  const bendsOf = (pull: number) => {
    const load = pull / b.breaks / 0.2;
    const drum = (2 * r1) / p.cable / 20;
    return (factor(shelf, 'cable.bends') * drum ** 3) / load ** 2;
  };
  const lasting = lastingTorque(at) / r2;
  const lastingSides = sides(lasting, p.preload, shares[0]);
  const lastingPull = lastingSides.tight;
  // The pull that lasts as many bends as are asked, less the preload that is always there.
  const lastsPull =
    passes > 0
      ? 0.2 * b.breaks * Math.sqrt((factor(shelf, 'cable.bends') * ((2 * r1) / p.cable / 20) ** 3) / passes)
      : Infinity;
  const bores: Bored[] = [
    {
      name: 'driving drum',
      bore: p.bore1,
      path: 'bore1',
      shape: p.shape1,
      width: b.widths[0],
      material: materials[0],
      gain: Math.abs(cableRatio(p)) * eta,
      wall: b.wall,
      driven: true,
    },
  ];
  const limits: Limit[] = [
    ...boreLimits(bores, shelf),
    limitOf(
      'breaks',
      'cable breaks in its clamp',
      'static',
      pullFor(clamp, p.preload, shares[0]) * r2,
      'Preload and the pulling run’s share of the load, against what a clamp leaves of its breaking load.',
      'share·F_B → (F − F₀)/a·R₂',
    ),
    ...(Number.isFinite(slips)
      ? [
          limitOf(
            'slips',
            'cable slips on the driving drum',
            'static',
            slips,
            'Tight over slack beyond e^(µ·2π·turns).',
            'F₀·(K − 1)/(a + K·b)·R₂',
            Infinity,
            () => [
              term('F₀', 'preload', p.preload, 'force', 'field', 'preload'),
              term('K', 'tight over slack that friction holds', holds, 'ratio', 'computed'),
              term('a', 'share of the pulling run', shares[0], 'efficiency', 'computed'),
              term('b', 'share of the other run', shares[1], 'efficiency', 'computed'),
              term('R₂', 'driven radius', r2, 'length', 'computed'),
            ],
          ),
        ]
      : []),
    limitOf(
      'tires',
      'cable is worn out by bending',
      'life',
      Number.isFinite(lastsPull) ? pullFor(lastsPull, p.preload, shares[0]) * r2 : Infinity,
      'Each stroke bends it over the driving drum and straight again; small drums and high pull shorten its life.',
      'L·N₀·(D/(20d))³·(F_B/(5F))²/n',
      passes > 0 && lastingPull > 0 ? (lifeAsked(at) * bendsOf(lastingPull)) / passes : Infinity,
      () => [
        term('L', 'life asked', lifeAsked(at), 'life', 'brief'),
        term(
          'N₀',
          'bends at a fifth of its breaking load over twenty diameters',
          factor(shelf, 'cable.bends'),
          'count',
          'shop',
          'cable.bends',
        ),
        term('D', 'driving drum', 2 * r1, 'length', 'computed'),
        term('d', 'cable', p.cable, 'length', 'field', 'cable'),
        term('F_B', 'breaking load', b.breaks, 'force', 'shop'),
        term('F', 'pull at the equivalent load', lastingPull, 'force', 'computed'),
        term('n', 'bends in the life asked', passes, 'count', 'computed'),
      ],
    ),
  ];
  const cableLength = runs[0] + runs[1] + 2 * Math.PI * p.wraps * r1 + p.range * r2 + 0.06;
  const blank = (i: 0 | 1, radius: number, bore: number) =>
    blankMass(radius, bore / 2, b.widths[i], materials[i], shelf);
  const masses = [
    blank(0, p.radius1, p.bore1),
    blank(1, p.radius2, p.bore2),
    sort.mass * p.cable ** 2 * cableLength,
  ] as const;
  const prices = [
    cutPartPrice(materials[0], masses[0], 10, shelf),
    cutPartPrice(materials[1], masses[1], 10, shelf),
    factor(shelf, 'price.cable') * cableLength * p.cable * 1e3,
  ] as const;
  const centre =
    p.runsBy === 'centre' ? p.centre : Math.hypot(Math.max(...runs), p.path === 'eight' ? r1 + r2 : r2 - r1);
  const load = tight + slack;
  const ratio = cableRatio(p);
  // The pulling run alone, and drums that give on their shafts as before.
  const only = 1 / (1 / (r2 ** 2 * kA) - 1 / whole + 1 / stiffness);
  const numbers: StageNumbers = {
    ratio,
    etaForward: eta,
    etaBackward: eta,
    pull: lastingSides.tight + lastingSides.slack,
    pullPeak: load,
    pushes: pulled(load, lastingSides.tight + lastingSides.slack),
    drag: shaftDrag([load, load], [p.bore1, p.bore2], Math.abs(ratio), shelf),
    play: [0, 0, 0],
    stiffness,
    springs,
    bendTorque: hangsAt * r2,
    stiffnessBeyond: only,
    inertiaIn: (masses[0] * r1 ** 2) / 2,
    inertiaOut: (masses[1] * r2 ** 2) / 2,
    limits: limits.map((l) => ({ mode: l.mode, time: l.time, torque: l.torque, life: l.life })),
    mass: masses[0] + masses[1] + masses[2],
    money: prices[0] + prices[1] + prices[2],
    outside: Math.max(centre, r1 + r2) + r1 + r2,
    before: { beside: Math.max(centre, r1 + r2) + r2 },
    length: Math.max(...b.widths),
    maxSpeed: 10 / r1,
    bore: p.bore2,
    beside: true,
    life: shortestLife(limits),
  };
  return {
    ...b,
    rigidity,
    runStiffness: [kA, kB],
    shares,
    force,
    tight,
    slack,
    needs: force * shares[1],
    runsStiffness,
    hangs: hangsAt * r2,
    ratioAsked: slack > 0 ? tight / slack : Infinity,
    ratioHeld: holds,
    limits,
    bores,
    masses,
    prices,
    cableLength,
    numbers,
  };
}
