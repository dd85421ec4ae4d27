import { inSeries } from '../math/springs.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { rootSection, type RootSection } from './form-factor.ts';
import { interference, type Interference } from './interference.ts';
import { lossFactor, meshPair, overlapRatio, type Pair } from './pair.ts';
import { toothSide, type ToothSide } from './profile.ts';
import { ok, type Result } from '../result.ts';
import { METAL_FLANK, metalCycles, metalOver } from './fatigue.ts';
import { lastingTorque, passesIn } from './lasting.ts';
import { crept, elastic } from './material-state.ts';
import {
  flankCrush,
  flankEndurance,
  meshFriction,
  rootCycles,
  rootStrength,
  rootStress,
  type ToothMaterial,
} from './tooth-material.ts';
import { activeFlank, wearPerPass, wearRate, WORN_OUT } from './wear.ts';
import type { Gear } from './gear.ts';
import type { Duty } from '../stage/contract.ts';

/** A pair with everything about it that no factor moves. */
export interface Mesh {
  readonly pair: Pair;
  readonly sides: readonly [ToothSide, ToothSide];
  readonly sections: readonly [RootSection, RootSection];
  readonly interference: Interference;
  readonly loss: number;
  /** Length of each wheel's flank that touches, m. */
  readonly flanks: readonly [number, number];
  /** Common width of the teeth, m, and overlap ratio (halves of a double helix overlap each for itself). */
  readonly width: number;
  readonly overlap: number;
  /** Width of the whole, or of one half of a double helix, m. */
  readonly each: number;
}

/** Works a pair out once: pair, true sides, root sections, interferences. */
export function makeMesh(g1: Gear, g2: Gear, width: number, double: boolean, centre?: number): Result<Mesh> {
  const pair = meshPair(g1, g2, centre);
  if (!pair.ok) return pair;
  const sides = [toothSide(g1), toothSide(g2)] as const;
  return ok({
    pair: pair.value,
    sides,
    sections: [rootSection(g1), rootSection(g2)],
    interference: interference(pair.value, ...sides),
    loss: lossFactor(pair.value),
    flanks: [activeFlank(pair.value, 0), activeFlank(pair.value, 1)],
    width,
    overlap: overlapRatio(g1, double ? width / 2 : width),
    each: double ? width / 2 : width,
  });
}

/** What a mesh carries and how it answers under a load; forces along the working circle, N; stresses Pa. */
export interface MeshLoad {
  readonly force: number;
  readonly friction: number;
  readonly efficiency: number;
  /** Temperatures of root and flank of the warmer wheel, K. */
  readonly rootTemperature: number;
  readonly flankTemperature: number;
  /** Whether a wheel is of plastic, whose teeth warm. */
  readonly plastic: boolean;
  /** Root stress of each wheel and flank pressure at the peak, Pa. */
  readonly root: readonly [number, number];
  readonly flank: number;
  /** Forces along the working circle, N, at which a root breaks, flanks are crushed, and teeth ride over. */
  readonly breaks: readonly [number, number];
  readonly crushes: number;
  readonly skips: number;
  /** Forces that roots and flanks stand for the life that is asked, and how many times that life they last as loaded. */
  readonly tires: readonly [number, number];
  readonly tireLives: readonly [number, number];
  readonly pits: number;
  readonly pitLife: number;
  /** Radial and axial force at the peak, N. */
  readonly radial: number;
  readonly axial: number;
  /** Stiffness along the working circle, N/m, and the share of it left under a load that stays. */
  readonly stiffness: number;
  readonly held: number;
  /** Run-out of either wheel as made, m. */
  readonly runout: number;
  /** What its workings are told by. */
  readonly by: MeshTerms;
}

/** What the figures of a loaded mesh come from, for their workings. */
export interface MeshTerms {
  /** Load on the worst place of a tooth over the mean, K. */
  readonly worst: number;
  /** What each root stands at once, Pa, and the softer flank's pressure. */
  readonly stands: readonly [number, number];
  readonly bears: number;
  /** Load cycles that each root and the flanks last, and those in the life that is asked. */
  readonly cycles: readonly [number, number];
  readonly passes: readonly [number, number];
  /** How many times the life that is asked the flanks last. */
  readonly lives: number;
  /** Heat of friction, W, as much of the time as it turns, speed along the working circle, m/s, and what its surroundings are, K. */
  readonly heat: number;
  readonly speed: number;
  readonly ambient: number;
  /** What holds the wheels together, N/m, and the slope that teeth ride over on. */
  readonly hold: number;
  readonly slope: number;
  /** Moduli of both, Pa. */
  readonly moduli: readonly [number, number];
  /** Stiffness of a steel pair, Pa, and how much a flank is heated, as the shop has them. */
  readonly steel: number;
  readonly heating: number;
  /** Force for a newton metre at the output, 1/m, how many times that springs make of it, and what they add, N. */
  readonly per: number;
  readonly times: number;
  readonly sprung: number;
  /** Poisson's ratios of both. */
  readonly poisson: readonly [number, number];
}

/**
 * How far the play of a made mesh, along its working circle, may be off the drawn one, m: thickness of both wheels, and
 * run-out of both, each of which brings the
 * centres nearer by half of it and back over a turn.
 *
 * Source: Δj = 2·Δa·tan α_wt (ISO 21771); independent deviations add by squares.
 */
export const meshPlaySpread = (p: Pair, shelf: Shelf): number =>
  Math.SQRT2 * Math.hypot(factor(shelf, 'gear.thickness'), factor(shelf, 'gear.runout') * Math.tan(p.working));

/** Modulus of steel, Pa, that stiffnesses of steel pairs are told with. */
export const E_STEEL = 206e9;

/**
 * Root stress, Pa per newton along the reference circle, of a wheel of a mesh.
 *
 * Source: ISO 6336-3:2006: σ_F = F_t/(b·m_n)·Y_F·Y_S·Y_ε·Y_β, Y_ε = 0.25 + 0.75·cos²β_b/ε_α, Y_β = 1 − ε_β·β/120° (ε_β
 * ≤ 1, β ≤ 30°).
 */
function rootPerForce(m: Mesh, wheel: 0 | 1): number {
  const g = wheel === 0 ? m.pair.g1 : m.pair.g2;
  const s = m.sections[wheel];
  return (s.form * s.stress * rootShare(m) * rootHelix(m)) / (m.width * g.module);
}

/**
 * Hertzian flank pressure at the pitch point, Pa, of a force along the reference circle.
 *
 * @param moduli of both, Pa, at the temperature they run at
 * Source: ISO 6336-2:2019: σ_H = Z_H·Z_E·Z_ε·Z_β·√(F_t/(d1·b)·(u ± 1)/u).
 */
export function flankPressure(
  m: Mesh,
  a: ToothMaterial,
  b: ToothMaterial,
  [Ea, Eb]: readonly [number, number],
  force: number,
): number {
  const p = m.pair;
  const u = p.g2.teeth / p.g1.teeth;
  const shape = zoneFactor(p) * elasticityFactor(Ea, a.poisson, Eb, b.poisson) * flankShare(m) * helixFactor(p);
  return shape * Math.sqrt((force / (2 * p.s1.r * m.width)) * ((u + (p.ring ? -1 : 1)) / u));
}

/**
 * Elasticity factor Z_E, √Pa, of ISO 6336-2.
 * @example elasticityFactor(206e9, 0.3, 206e9, 0.3) / 1e3 // 189.8117
 */
export const elasticityFactor = (Ea: number, poissonA: number, Eb: number, poissonB: number): number =>
  1 / Math.sqrt(Math.PI * ((1 - poissonA ** 2) / Ea + (1 - poissonB ** 2) / Eb));

/** Zone factor Z_H of ISO 6336-2: curvature at the pitch point and the force along the flank. */
export const zoneFactor = (p: Pick<Pair, 's1' | 'working'>): number =>
  Math.sqrt((2 * Math.cos(p.s1.helixBase)) / (Math.cos(p.s1.at) ** 2 * Math.tan(p.working)));

/** Share that a flank carries, Z_ε of ISO 6336-2, by contact and overlap ratio. */
export function flankShare(m: Pick<Mesh, 'overlap'> & { readonly pair: Pick<Pair, 'contact'> }): number {
  const eb = Math.min(1, m.overlap);
  // More than three pairs never share evenly, and the formula ends at four.
  const ea = Math.max(1, Math.min(3, m.pair.contact));
  return Math.sqrt(((4 - ea) / 3) * (1 - eb) + eb / ea);
}

/** Helix factor Z_β of ISO 6336-2. */
export const helixFactor = (p: Pick<Pair, 'g1'>): number => 1 / Math.sqrt(Math.cos(p.g1.helix));

/** Share that a root carries, Y_ε of ISO 6336-3. */
export const rootShare = (m: { readonly pair: Pick<Pair, 'contact' | 's1'> }): number =>
  0.25 + 0.75 / Math.max(1, m.pair.contact / Math.cos(m.pair.s1.helixBase) ** 2);

/** Helix factor Y_β of ISO 6336-3: ε_β at most one, β at most 30°. */
export const rootHelix = (m: Pick<Mesh, 'overlap'> & { readonly pair: Pick<Pair, 'g1'> }): number =>
  1 - Math.min(1, m.overlap) * (Math.min(Math.abs(m.pair.g1.helix), Math.PI / 6) / ((2 * Math.PI) / 3));

/** How deep the teeth of a pair reach into one another, m. */
export const workingDepth = (p: Pair): number =>
  p.ring ? p.s1.ra - (p.s2.ra - p.centre) : p.s1.ra + p.s2.ra - p.centre;

/**
 * How much of its steady warmth a plastic tooth reaches when it turns only part of the time: the share of the peak
 * speed that the mean is, to the 0.64.
 *
 * Source: VDI 2736-2, duty exponent 0.64; without a mean speed it is taken to turn for ever.
 */
export const warming = (at: { readonly speed: number; readonly meanSpeed?: number }): number =>
  at.meanSpeed !== undefined && at.speed > 0 ? Math.min(1, at.meanSpeed / at.speed) ** 0.64 : 1;

/** What a mesh is asked for; forces along its working circle, N. */
export interface MeshDuty {
  /** Force for a newton metre at the output, 1/m; how many times that springs make of it, and what they add, N. */
  readonly per: number;
  readonly times: number;
  readonly sprung: number;
  /** At the peak, carried for ever, and what tires and wears as the cycle does. */
  readonly force: number;
  readonly ever: number;
  readonly lasting: number;
  /** Along the working circle in the carrier's frame, m/s. */
  readonly speed: number;
  /** Share of its steady warmth that it reaches (`warming`). */
  readonly warm: number;
  /** How often a place of each wheel passes the mesh in the life that is asked. */
  readonly passes: readonly [number, number];
  /** Whether each wheel's teeth are bent both ways in turn. */
  readonly bothWays: readonly [boolean, boolean];
}

/**
 * What a stage's duty asks of one of its meshes.
 *
 * @param per force along the working circle for a newton metre at the output, 1/m
 * @param speed along the working circle for a radian a second of the output, m
 * @param turns of each wheel against the line of its meshes for a turn of the output
 * @param meshes that a place of each wheel goes through in a turn
 * @param bothWays whether a wheel is bent both ways whatever the load does
 */
export const meshDuty = (
  at: Duty,
  per: number,
  speed: number,
  turns: readonly [number, number],
  meshes: readonly [number, number],
  bothWays: readonly [boolean, boolean],
): MeshDuty => ({
  per,
  times: 1,
  sprung: 0,
  force: per * at.torque,
  ever: per * at.torqueRms,
  lasting: per * lastingTorque(at),
  speed: speed * at.speed,
  warm: warming(at),
  passes: [passesIn(at, turns[0], meshes[0]), passesIn(at, turns[1], meshes[1])],
  bothWays: [bothWays[0] || at.reverses === true, bothWays[1] || at.reverses === true],
});

/** Everything of a duty that a loaded mesh depends on, to remember it by. */
export const meshKey = (on: MeshDuty): (number | boolean)[] => [
  on.force,
  on.ever,
  on.lasting,
  on.speed,
  on.warm,
  ...on.passes,
  ...on.bothWays,
];

/** What of a life that is asked a wheel's flanks last under a force, and the force that lasts just as long. */
interface Lasts {
  readonly force: number;
  readonly life: number;
}

/** A plastic wheel's flanks by their wear, which goes with the force. */
function wornOut(
  m: Mesh,
  wheel: 0 | 1,
  materials: readonly [ToothMaterial, ToothMaterial],
  on: MeshDuty,
  shelf: Shelf,
) {
  const p = m.pair;
  const gear = wheel === 0 ? p.g1 : p.g2;
  const rate = wearRate(materials[wheel], materials[1 - wheel]!, shelf);
  const one = wearPerPass(wheel === 0 ? p.rw1 : p.rw2, m.loss, rate, m.width, gear.teeth, m.flanks[wheel]);
  const force = (WORN_OUT * gear.module) / (one * on.passes[wheel]);
  return { force, life: force / on.lasting };
}

/** Metal flanks by their pitting: the wheel that passes more often pits first. */
function pitted(
  m: Mesh,
  materials: readonly [ToothMaterial, ToothMaterial],
  on: MeshDuty,
  one: number,
  shelf: Shelf,
): Lasts {
  const stands = Math.min(flankEndurance(materials[0], shelf), flankEndurance(materials[1], shelf));
  const passes = Math.max(on.passes[0], on.passes[1]);
  return {
    force: ((stands * metalOver(METAL_FLANK, passes)) / one) ** 2,
    life: passes > 0 ? metalCycles(METAL_FLANK, (one * Math.sqrt(on.lasting)) / stands) / passes : Infinity,
  };
}

/** Flanks in the long run: of plastic they wear, and metal on metal pits. */
function flanksLast(
  m: Mesh,
  materials: readonly [ToothMaterial, ToothMaterial],
  on: MeshDuty,
  one: number,
  shelf: Shelf,
): Lasts {
  const [a, b] = materials;
  if (!a.plastic && !b.plastic) return pitted(m, materials, on, one, shelf);
  const first = a.plastic ? wornOut(m, 0, materials, on, shelf) : undefined;
  const last = b.plastic ? wornOut(m, 1, materials, on, shelf) : undefined;
  return first && (!last || first.force <= last.force) ? first : last!;
}

/**
 * How stiff a mesh is along its working circle, N/m. c′ is told along the line of action, which leans by the working angle:
 * force and way along the circle are both its cosine of those.
 *
 * @param tooth c′·b of its materials, N/m, teeth straight
 * Source: ISO 6336-1: c_γ = c′·cos β·(0.75·ε_α + 0.25), along the line of action in the transverse plane.
 * @example meshStiffness({ g1: { helix: 0 }, working: Math.PI / 6, contact: 1 }, 1e8) // 7.5e7
 */
export const meshStiffness = (
  p: { readonly g1: Pick<Pair['g1'], 'helix'>; readonly working: number; readonly contact: number },
  tooth: number,
): number => tooth * Math.cos(p.g1.helix) * Math.cos(p.working) ** 2 * (0.75 * Math.max(1, p.contact) + 0.25);

/** Least slope that teeth ride over on, where friction would hold all but the slope itself. */
const LEAST_SLOPE = 0.05;

/**
 * Force along the working circle at which teeth ride over, N: their separating force has opened the centres by the
 * working depth that run-out leaves, against what holds them together.
 *
 * Friction helps as teeth slide over one another, until something shakes: the shop says what share of it counts.
 *
 * @param hold radial stiffness of what holds the mesh together, N/m
 * @param slope that they ride over on
 * Source: force balance on the flank, F·tan(α_w − s·ρ) = k·(h_w − f).
 */
function skipForce(p: Pair, hold: number, slope: number, shelf: Shelf): number {
  return (hold * Math.max(0, workingDepth(p) - factor(shelf, 'gear.runout'))) / slope;
}

/** Slope that teeth ride over on, with what of their friction helps. */
const skipSlope = (p: Pair, friction: number, shelf: Shelf): number =>
  Math.max(LEAST_SLOPE, Math.tan(p.working - factor(shelf, 'skip.friction') * Math.atan(friction)));

/**
 * Loads a mesh: forces, temperatures, stresses, and what breaks, crushes, tires and wears it.
 *
 * @param hold radial stiffness of what holds the two wheels together, N/m
 */
export function loadMesh(
  m: Mesh,
  a: ToothMaterial,
  b: ToothMaterial,
  on: MeshDuty,
  shelf: Shelf,
  hold: number,
): MeshLoad {
  const { force, ever, speed, warm } = on;
  const p = m.pair;
  const k = factor(shelf, 'gear.load');
  const friction = meshFriction(a, b, shelf);
  const efficiency = 1 - friction * m.loss;
  const plastic = a.plastic || b.plastic;
  // VDI 2736-2, temperature of root and flank: ϑ0 + P·µ·H_v·k_ϑ/(b·z·(v·m)^0.75), its own units mm and m/s; metals
  // carry their heat away.
  const ambient = factor(shelf, 'ambient');
  const rubbed = warm * ever * speed * friction * m.loss;
  const heat =
    plastic && speed > 0
      ? rubbed / (m.width * 1e3 * Math.min(p.g1.teeth, p.g2.teeth) * (speed * p.g1.module * 1e3) ** 0.75)
      : 0;
  const rootTemperature = ambient + heat * factor(shelf, 'gear.heatRoot');
  const heating = factor(shelf, 'gear.heatFlank');
  const flankTemperature = ambient + heat * heating;
  // Both standards count with the force at the reference circle, which is smaller than the working one where shifts
  // open the centres.
  const reference = (k * Math.cos(p.s1.at)) / Math.cos(p.working);
  const per = [rootPerForce(m, 0) * reference, rootPerForce(m, 1) * reference] as const;
  const roots = [
    rootStrength(a, rootTemperature, on.bothWays[0], shelf, m.sections[0].chord * p.g1.module),
    rootStrength(b, rootTemperature, on.bothWays[1], shelf, m.sections[1].chord * p.g2.module),
  ] as const;
  const tires = (i: 0 | 1) => rootStress(i === 0 ? a : b, roots[i], on.passes[i]) / per[i];
  const cycles = [rootCycles(a, roots[0], per[0] * on.lasting), rootCycles(b, roots[1], per[1] * on.lasting)] as const;
  const tireLife = (i: 0 | 1) => (on.passes[i] > 0 ? cycles[i] / on.passes[i] : Infinity);
  const moduli = [elastic(a, ambient, shelf), elastic(b, ambient, shelf)] as const;
  const one = flankPressure(m, a, b, moduli, reference);
  const crush = Math.min(flankCrush(a, flankTemperature, shelf), flankCrush(b, flankTemperature, shelf));
  const last = flanksLast(m, [a, b], on, one, shelf);
  const alone = inSeries(2 * moduli[0], 2 * moduli[1]);
  const steel = factor(shelf, 'gear.stiffness');
  const stiffness = meshStiffness(p, steel * m.width * (alone / E_STEEL));
  const tan = Math.tan(p.working);
  const slope = skipSlope(p, friction, shelf);
  return {
    force,
    friction,
    efficiency,
    rootTemperature,
    flankTemperature,
    plastic,
    root: [per[0] * force, per[1] * force],
    flank: one * Math.sqrt(force),
    breaks: [roots[0].peak / per[0], roots[1].peak / per[1]],
    crushes: (crush / one) ** 2,
    tires: [tires(0), tires(1)],
    tireLives: [tireLife(0), tireLife(1)],
    pits: last.force,
    pitLife: last.life,
    skips: skipForce(p, hold, slope, shelf),
    radial: force * tan,
    // The helix leans by tan β·r_w/r where the force acts (ISO 21771).
    axial: (force * Math.tan(Math.abs(p.g1.helix)) * Math.cos(p.s1.at)) / Math.cos(p.working),
    stiffness,
    held: inSeries(2 * moduli[0] * crept(a), 2 * moduli[1] * crept(b)) / alone,
    runout: factor(shelf, 'gear.runout'),
    by: {
      worst: k,
      stands: [roots[0].peak, roots[1].peak],
      bears: crush,
      cycles,
      passes: on.passes,
      lives: last.life,
      heat: rubbed,
      speed,
      ambient,
      hold,
      slope,
      moduli,
      steel,
      heating,
      per: on.per,
      times: on.times,
      sprung: on.sprung,
      poisson: [a.poisson, b.poisson],
    },
  };
}
