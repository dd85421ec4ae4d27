import { stated } from '../../units/stated.ts';
import { flankLimit, modeLimits, rootLimits, type Mode, type ToothMaterial } from '../../gear/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { carry, type Carried, type ContactSet } from '../../lobed/index.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import type { Kept } from '../kept.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { strainWaveGeometry, STEPS, type StrainWaveGeometry } from './geometry.ts';
import { hasRollers, ringTeeth, strainWaveRatio, type StrainWaveParams } from './params.ts';

/** Everything computed about a strain-wave stage. */
export interface StrainWaveModel {
  readonly geometry: StrainWaveGeometry;
  /** Spline, ring, generator. */
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /**
   * Radial force of a lobe on the generator at no load, and the least of what presses near a lobe's top (a roller's, or
   * the contour's over one tooth pitch), N.
   */
  readonly preload: number;
  readonly leastPreload: number;
  readonly strain: number;
  readonly strainLimit: number;
  readonly stress: number;
  /** Slope of the wall along a cup, rad, and the shear strain it brings. */
  readonly coning: number;
  readonly coningShear: number;
  readonly usable: number;
  readonly drag: number;
  readonly dragFlex: number;
  readonly dragGenerator: number;
  readonly starting: number;
  readonly turnBack: number;
  readonly lossTeeth: number;
  readonly lossGenerator: number;
  readonly forward: number;
  readonly backward: number;
  readonly carried: Carried;
  readonly toothForce: number;
  readonly pressure: number;
  readonly radial: number;
  readonly rise: number;
  /** Slopes of twist against torque in three stretches, N·m/rad, with the torques between them. */
  readonly slopes: readonly [number, number, number];
  readonly bends: readonly [number, number];
  readonly cupStiffness: number;
  readonly generatorStiffness: number;
  readonly errorOnce: number;
  readonly errorTwice: number;
  readonly alignment: number;
  readonly bore: number;
  /** Radius at which rollers' middles stand, or of the generator's plug at a lobe's top, m. */
  readonly seat: number;
  readonly bind: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number, number];
  readonly numbers: StageNumbers;
}

type Class = 'metal' | 'plastic' | 'elastic';
const ELASTIC_BELOW = 0.3e9;

export const materialClass = (m: ToothMaterial): Class =>
  m.material.modulus < ELASTIC_BELOW ? 'elastic' : m.plastic ? 'plastic' : 'metal';

const E_STEEL = 206e9;

/** A strain-wave stage before any duty. */
export interface StrainWaveBuild {
  readonly geometry: StrainWaveGeometry;
  /** Spline, ring, generator. */
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** Radius at which rollers' middles stand, or of the generator's plug at a lobe's top, m. */
  readonly seat: number;
  /** Angles of the rollers round the generator, rad; none for a contour. */
  readonly rollers: readonly number[];
  /** Largest bore of the generator, m. */
  readonly bore: number;
  /** Teeth in their spaces, as contacts that close when the spline is turned on. */
  readonly contacts: ContactSet;
}

/** Builds a stage; refuses in words what does not go together. */
export function buildStrainWave(p: StrainWaveParams, shelf: Shelf): Result<StrainWaveBuild> {
  const made = strainWaveGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const materials = needMaterials(p, ['materialS', 'materialR', 'materialG'], shelf);
  if (!materials.ok) return materials;
  const use = hasRollers(p) ? 'It is what rolls in the spline.' : 'It is what the spline rides on.';
  const found = needBearing(p.bearing, shelf, use);
  if (!found.ok) return found;
  const bearing = found.value;
  const w0 = g.throw;
  const inner = g.radius - g.wall / 2;
  const rollers = hasRollers(p);

  // What the generator takes up inside.
  const seat = rollers
    ? inner + w0 - bearing.outside / 2
    : inner + w0 - (p.run === 'bearing' ? (bearing.outside - bearing.bore) / 2 : 0);
  const neighbours = rollerAngles(p, g);
  const bore = rollers
    ? Math.max(0, 2 * (Math.min(seat, ...neighbours.map(() => seat)) - bearing.outside / 2 - 1e-3))
    : Math.max(0, 2 * ((p.run === 'bearing' ? bearing.bore / 2 : inner) - w0 * 1.05 - 2.5e-3));
  return ok({
    geometry: g,
    materials: materials.value,
    bearing,
    seat,
    rollers: neighbours,
    bore,
    contacts: contactsOf(g, p),
  });
}

/** Distance of the middles of the rollers nearest to one another, m; Infinity for fewer than two. */
function closestRollers(angles: readonly number[], seat: number): number {
  if (angles.length < 2) return Infinity;
  const next = (k: number) => (k + 1 < angles.length ? angles[k + 1]! : angles[0]! + 2 * Math.PI);
  return Math.min(...angles.map((a, k) => 2 * seat * Math.sin(Math.abs(next(k) - a) / 2)));
}

/** What does not go together, in words; it can still be drawn. */
export function wrongStrainWave(p: StrainWaveParams, b: StrainWaveBuild): Result<never> | undefined {
  const { geometry: g, bearing, seat, bore } = b;
  const w0 = g.throw;
  const rollers = hasRollers(p);
  if (rollers && !(seat > bearing.bore / 2 + 1e-3))
    return refuse(
      'The rollers do not fit inside the spline.',
      `Rollers of ⌀ ${stated(bearing.outside, 'length', 4)} would stand ${stated(seat, 'length', 4)} from the middle.`,
      'Take smaller rollers or more teeth.',
      'bearing',
    );
  const closest = closestRollers(b.rollers, seat);
  if (rollers && closest < bearing.outside)
    return refuse(
      'Neighbouring rollers run into one another.',
      `Their middles are ${stated(closest, 'length', 4)} apart, each is ⌀ ${stated(bearing.outside, 'length', 4)}.`,
      p.shape === 'many' ? 'Take fewer or smaller rollers.' : 'Set them wider apart, or take smaller ones.',
      p.shape === 'many' ? 'rollers' : p.shape === 'four' ? 'spread' : 'bearing',
    );
  if (!rollers && p.run === 'bearing' && !(bearing.bore / 2 - w0 > 1.5e-3))
    return refuse(
      'The bearing leaves no plug to push it out.',
      `Its bore of ${stated(bearing.bore, 'length', 4)} is drawn in by ${stated(w0, 'length', 4)}.`,
      'Take a larger bearing.',
      'bearing',
    );
  if (p.shaft > bore + 1e-9)
    return refuse(
      'The motor’s shaft leaves no wall in the generator.',
      `At most ⌀ ${stated(bore, 'length', 4)} can be bored, ${stated(p.shaft, 'length', 4)} are wanted.`,
      'Take a thinner shaft or a larger generator.',
      'shaft',
    );
  return undefined;
}

/**
 * Computes a strain-wave stage at a duty on its output.
 *
 * Source: thin-ring bending for the wall (strain (n² − 1)/2·t·w0/r² times the shape's factor), one-sided tooth contacts
 * at their own clearances for load, thin-cylinder torsion for the cup, NASA SP-8007 for its buckling,
 * hysteresis 2π·tan δ of the strain energy a wave for what flexing costs.
 */
export function modelStrainWave(
  p: StrainWaveParams,
  built: StrainWaveBuild,
  at: Duty,
  shelf: Shelf,
  kept: Kept,
): StrainWaveModel {
  const { geometry: g, bearing, seat, bore } = built;
  const [ms, mr, mg] = built.materials;
  const n = p.lobes;
  const [r, t, w0] = [g.radius, g.wall, g.throw];
  const inner = r - t / 2;
  const rollers = hasRollers(p);
  const plain = !rollers && p.run === 'plain';
  const ratio = strainWaveRatio(p);
  const i = Math.abs(ratio);
  const R = (g.module * ringTeeth(p)) / 2;

  const EI = (factor(shelf, 'wave.rim') * ms.material.modulus * p.width * t ** 3) / 12;
  const unit = (EI * w0) / r ** 3;
  // A contour's pressure over a lobe: 2(n² − 1)²/n of the same unit; rollers by their own equilibrium.
  const contourLobe = ((2 * (n * n - 1) ** 2) / n) * unit;
  const top = Math.PI / n / 3;
  const groups = g.line.groups;
  const near = groups.filter((x) => x.angle <= top + 1e-9);
  const preload = groups.length
    ? groups.reduce((s, x) => s + x.force * (x.angle === 0 ? 1 : 2) * Math.cos(x.angle), 0) * unit
    : contourLobe;
  // Between a wave's top and a third of the way down, the least that still presses.
  const leastPreload = near.length
    ? Math.min(...near.map((x) => x.force)) * unit
    : ((n * n - 1) ** 2 * EI * w0 * Math.cos(n * top) * ((2 * Math.PI) / p.teeth)) / r ** 3;

  const strain = (((n * n - 1) / 2) * t * w0 * g.shapeFactor) / (r * r);
  const cls = materialClass(ms);
  const notch = factor(shelf, 'wave.notch');
  const strainLimit =
    (cls === 'metal'
      ? (factor(shelf, 'wave.fatigueMetal') * ms.material.strength) / ms.material.modulus
      : factor(shelf, cls === 'plastic' ? 'wave.strainPlastic' : 'wave.strainElastic')) / notch;
  const coned = p.body === 'cup';
  const coning = coned ? w0 / p.cup : 0;
  const coningShear = coned ? w0 / (n * p.cup) : 0;
  // Where the wall stands nearer to round, tips must still pass between the lobes: the wave falls evenly to the closed
  // end.
  const drawnIn = r - g.line.least;
  const usable = coned
    ? Math.max(0, Math.min(p.cup, p.cup * (drawnIn > 0 ? Math.min(1, Math.max(0, g.pass) / drawnIn) : 0)))
    : Infinity;

  const muGenerator = factor(shelf, rollers ? 'wave.roller' : plain ? 'wave.plain' : 'wave.bearing');
  const raceRadius = rollers || plain ? inner : (bearing.outside + bearing.bore) / 4;
  const loss = factor(
    shelf,
    cls === 'metal' ? 'wave.lossMetal' : cls === 'plastic' ? 'wave.lossPlastic' : 'wave.lossElastic',
  );
  // Mean square of curvature change over the ring, for the wave and half as much again along a cup that is bent with
  // it.
  const stored =
    0.5 *
    EI *
    (((n * n - 1) * w0) / (r * r)) ** 2 *
    0.5 *
    g.line.bendSquare *
    2 *
    Math.PI *
    r *
    (coned ? 1 + 0.5 * Math.min(2, (p.cup - p.width) / p.width) : 1);
  const dragFlex = 2 * n * loss * stored;
  const dragGenerator = muGenerator * n * preload * raceRadius;
  const drag = dragFlex + dragGenerator + factor(shelf, 'gear.churn') * 0.5;

  // Contacts of a turn-on: every tooth on its own clearance, both lobes alike.
  const alone = (2 * ms.material.modulus * mr.material.modulus) / (ms.material.modulus + mr.material.modulus);
  const toothStiffness = factor(shelf, 'gear.stiffness') * p.width * (alone / E_STEEL);
  const cos = Math.cos(g.lean);
  const least = 1e-3;
  const T = Math.max(least, at.torque);
  // On the member that turns out: with the spline bolted, the ring carries as much more.
  const carried = kept.step('carried', [toothStiffness, T], shelf, () => carry([built.contacts], toothStiffness, T));
  const toothForce = Math.max(...carried.forces);
  const radial = (T / (n * R)) * Math.tan(g.lean);
  // Sides touch over about the engaged depth, nearly flat on flat.
  const depth = Math.max(1e-6, g.engaged);
  const pressure = toothForce / (p.width * Math.max(0.3 * depth, Math.min(depth, 0.2 * g.module)));

  const slide = slidePerTurn(g, carried.forces);
  const muTeeth = factor(shelf, ms.plastic || mr.plastic ? 'gear.frictionPlastic' : 'gear.frictionMetal');
  const lossTeeth = (muTeeth * slide * i) / T;
  const lossGenerator = (muGenerator * n * radial * raceRadius * i) / T;
  const forward = 1 / (1 + lossTeeth + lossGenerator);
  const backward = 1 - lossTeeth - lossGenerator;
  const starting = drag * factor(shelf, 'wave.start');

  const G = (m: ToothMaterial) => m.material.modulus / (2 * (1 + m.poisson));
  const cupStiffness = coned ? (2 * Math.PI * G(ms) * r ** 3 * t) / p.cup : toothStiffness * R * R * 0.25 * g.inMesh;
  const ringK = ringStiffness(g, mr, p.width, n);
  const support = 1 / (1 / factor(shelf, 'wave.support') + 1 / ringK);
  const generatorStiffness = (n * support * R * R) / Math.tan(g.lean) ** 2;
  const series = (teeth: number) => 1 / (1 / Math.max(1e-6, teeth) + 1 / cupStiffness + 1 / generatorStiffness);

  // Limits.
  const ambient = factor(shelf, 'ambient');
  const rise =
    coned || cls !== 'metal'
      ? (dragFlex * at.speed * i) / (factor(shelf, 'wave.cooling') * 2 * Math.PI * r * (coned ? p.cup : p.width) * 2)
      : 0;
  const hot = ambient + rise;
  const limits = rootLimits(ms, hot, shelf);
  const area = 2 * Math.PI * r * r * t;
  const stress = strain * ms.material.modulus * notch;
  const left = Math.sqrt(Math.max(0, 1 - (strain / strainLimit) ** 2));
  const shearEver = (limits.ever / Math.sqrt(3)) * left;
  const thickness = 2 * g.mesh.tooth.half(Math.max(g.splineRoot, g.splineTip - g.engaged));
  const perTooth = toothForce * cos;
  const toothShear = perTooth / (p.width * Math.max(1e-6, thickness));
  const shape = (r / Math.max(p.width, p.cup)) ** 0.5;
  const buckle = 0.747 * factor(shelf, 'wave.buckle') * ms.material.modulus * (t / r) ** 1.25 * shape * area;
  const skips = (support * depth * n * R) / Math.tan(g.lean);
  const permissible = Math.min(flankLimit(ms, hot, shelf), flankLimit(mr, ambient, shelf));
  const modes: Mode[] = [
    {
      id: 'skip',
      mode: 'the wave skips',
      torque: skips,
      ever: false,
      why: 'The teeth’s lean pushes the spline off the ring; generator and ring give way, and at the whole depth the teeth ride over.',
      grows: 'none',
    },
    {
      id: 'shear',
      mode: 'teeth shear off',
      torque: (T * limits.peak) / Math.sqrt(3) / toothShear,
      ever: false,
      why: 'The worst tooth across its thickness where the ring’s tips stand.',
      grows: 'width',
    },
    {
      id: 'wear',
      mode: 'flanks wear',
      torque: (T * permissible) / pressure,
      ever: true,
      why: 'Pressure of the worst tooth’s side on the ring’s, over the depth that touches.',
      grows: 'width',
    },
    {
      id: 'wall',
      mode: 'the wall tires',
      torque: shearEver * area,
      ever: true,
      why: 'Torsion on top of the bending that every wave brings.',
      grows: 'none',
    },
    ...(coned
      ? [
          {
            id: 'buckle',
            mode: 'the wall buckles',
            torque: buckle,
            ever: false,
            why: 'A thin cylinder folds in torsion (NASA SP-8007).',
            grows: 'none' as const,
          },
        ]
      : []),
    ...(plain
      ? []
      : [
          {
            id: 'dent',
            mode: rollers ? 'rollers dent' : 'the generator’s bearing dents',
            torque: Math.max(
              1e-9,
              ((bearing.static *
                (rollers
                  ? Math.max(
                      1,
                      groups.reduce((s, x) => s + (x.force > 0 ? (x.angle === 0 ? 1 : 2) : 0), 0),
                    )
                  : 1) -
                preload) *
                n *
                R) /
                Math.tan(g.lean),
            ),
            ever: false,
            why: 'Static rating against what a lobe’s teeth push inwards, beside the preload.',
            grows: 'none' as const,
          },
        ]),
  ];
  const limit = Math.min(...modes.map((m) => m.torque));
  const bends: [number, number] = [0.2 * limit, 0.6 * limit];
  const secant = (a: number, b: number) => {
    const [x, y] = [turnUnder(built.contacts, toothStiffness, a), turnUnder(built.contacts, toothStiffness, b)];
    return series((b - a) / Math.max(1e-12, y - x));
  };
  const slopes: [number, number, number] = [
    secant(Math.max(1e-4, 0.02 * limit), bends[0]),
    secant(bends[0], bends[1]),
    secant(bends[1], Math.max(bends[1] * 1.01, limit)),
  ];

  // Play: what a tooth is free either way, and what making adds; a clash leaves none.
  const free = freeTurn(g);
  const spread = factor(shelf, 'wave.round') * Math.tan(g.lean) + factor(shelf, 'gear.thickness');
  const gap = p.slack * Math.tan(g.lean);
  const likely = Math.max(0, free + (2 * gap) / R);
  const play: [number, number, number] = [likely, Math.max(0, likely - spread / R), likely + spread / R];

  const off = factor(shelf, 'wave.centre');
  // Off centre by e, both lobes slide sideways against each other; as one goes deeper it takes over, which leaves
  // e²/(2·depth).
  const errorTwice = (off * off) / (2 * depth) / R;
  const errorOnce = (off * Math.min(1, off / depth)) / R;
  const alignment = Math.max(0, g.least) / Math.max(0.05, Math.sin(g.lean));

  const density = (m: ToothMaterial) => m.material.density;
  const toothRing = Math.PI * ((r + g.splineTip) ** 2 - inner ** 2) * p.width * 0.75;
  const splineMass =
    (toothRing + (coned ? 2 * Math.PI * r * t * (p.cup - p.width) + Math.PI * r * r * Math.max(1.5e-3, 1.5 * t) : 0)) *
    density(ms);
  const ringMass =
    Math.PI *
    ((g.outside / 2) ** 2 - ((g.ringTip + g.ringRoot) / 2) ** 2) *
    (p.width + 2e-3) *
    density(mr) *
    (coned ? 1 : 2);
  const bought = plain ? 0 : rollers ? built.rollers.length : 1;
  const generatorMass =
    Math.PI * Math.max(0, seat ** 2 - (p.shaft / 2) ** 2) * p.width * density(mg) * 0.8 + bearing.mass * bought;
  const work = (m: ToothMaterial, z: number) => (m.material.made === 'printed' ? 0 : z * factor(shelf, 'price.milled'));
  const numbers: StageNumbers = {
    ratio,
    etaForward: forward,
    etaBackward: backward,
    drag,
    play,
    stiffness: slopes[0],
    bendTorque: bends[0],
    stiffnessBeyond: slopes[1],
    inertiaIn: (generatorMass * seat * seat) / 2,
    inertiaOut: p.held === 'ring' ? splineMass * r * r : ringMass * (g.outside / 2 - p.ringWall / 2) ** 2,
    limits: modeLimits(modes, at.torque, at.torqueRms),
    mass: splineMass + ringMass + generatorMass,
    money:
      (g.section
        ? factor(shelf, 'price.belt') * Math.PI * 2 * r * (p.width / 6e-3)
        : splineMass * ms.material.price + work(ms, p.teeth)) +
      ringMass * mr.material.price +
      work(mr, ringTeeth(p)) +
      generatorMass * mg.material.price +
      bearing.price * bought,
    outside: g.outside,
    length: coned ? p.cup + 2e-3 : 2 * p.width + 2e-3,
    maxSpeed: plain ? (ms.plastic || mg.plastic ? 1.5 : 4) / inner : rollers ? 300 : 370,
    bore: p.shaft,
    beside: false,
    life:
      !plain && at.equivalent && at.meanSpeed
        ? (((bearing.dynamic * (rollers ? 2 : 1)) /
            Math.max(1e-6, preload + (at.equivalent / (n * R)) * Math.tan(g.lean))) **
            3 *
            1e6 *
            2 *
            Math.PI) /
          (at.meanSpeed * i)
        : Infinity,
  };
  const turnBack = (drag * i) / Math.max(1e-6, backward);
  return {
    geometry: g,
    materials: [ms, mr, mg],
    bearing,
    preload,
    leastPreload,
    strain,
    strainLimit,
    stress,
    coning,
    coningShear,
    usable,
    drag,
    dragFlex,
    dragGenerator,
    starting,
    turnBack,
    lossTeeth,
    lossGenerator,
    forward,
    backward,
    carried,
    toothForce,
    pressure,
    radial,
    rise,
    slopes,
    bends,
    cupStiffness,
    generatorStiffness,
    errorOnce,
    errorTwice,
    alignment,
    bore,
    seat,
    bind: g.least - spread,
    modes,
    masses: [splineMass, ringMass, generatorMass],
    numbers,
  };
}

/** Angles of the rollers round the generator, rad, from a lobe's top. */
export function rollerAngles(p: StrainWaveParams, g: Pick<StrainWaveGeometry, 'line'>): number[] {
  if (!hasRollers(p)) return [];
  if (p.shape === 'many') return Array.from({ length: p.rollers }, (_, k) => (2 * Math.PI * k) / p.rollers);
  const half = p.shape === 'four' ? g.line.form.spread : 0;
  return Array.from({ length: p.lobes }, (_, k) => (2 * Math.PI * k) / p.lobes).flatMap((a) =>
    half > 0 ? [a - half, a + half] : [a],
  );
}

/**
 * Teeth in their spaces as one-sided contacts about the ring's middle: levers and clearances on the side that closes
 * when the spline is turned on.
 */
function contactsOf(g: StrainWaveGeometry, p: StrainWaveParams): ContactSet {
  const c = g.course;
  const [arms, gaps]: [number[], number[]] = [[], []];
  const R = (g.module * ringTeeth(p)) / 2;
  // One contact a tooth, each where it stands in its lobe: lobes repeat exactly, so the course of one serves.
  const half = Math.PI / p.lobes;
  const deepest = Math.max(1e-12, g.engaged);
  for (let i = 0; i < p.teeth; i++) {
    const along = (2 * Math.PI * i) / p.teeth;
    const u = along - 2 * half * Math.round(along / (2 * half));
    const k = Math.round(((u + half) / (2 * half)) * STEPS);
    const gap = c.ahead[k]!;
    // A tooth that only just dips in has no side to push with.
    if (!Number.isFinite(gap) || c.depth[k]! < 0.1 * deepest) continue;
    arms.push(R * Math.cos(g.lean));
    gaps.push(Math.max(0, gap));
  }
  if (!arms.length) {
    arms.push(R * Math.cos(g.lean));
    gaps.push(Math.max(0, g.least));
  }
  const nothing = new Float64Array(arms.length);
  return {
    arms: Float64Array.from(arms),
    // In order, so that a turn is found by adding up.
    gaps: Float64Array.from(gaps).sort(),
    nx: nothing,
    ny: nothing,
    slides: nothing,
    curves: nothing,
  };
}

/**
 * Turn of the spline under a torque, rad: contacts of one lever and in the order of their gaps close one after another,
 * so that with k of them closed T = c·a·Σ(a·θ − gap).
 */
export function turnUnder(s: ContactSet, stiffness: number, torque: number): number {
  const arm = s.arms[0]!;
  let sum = 0;
  let turn = 0;
  for (let k = 1; k <= s.gaps.length; k++) {
    sum += s.gaps[k - 1]!;
    turn = (torque / (stiffness * arm) + sum) / (k * arm);
    if (k === s.gaps.length || turn * arm <= s.gaps[k]!) break;
  }
  return turn;
}

/**
 * How far the spline turns from touch to touch, rad: least clearance ahead and behind of teeth well in; below 0 where
 * they clash.
 */
function freeTurn(g: StrainWaveGeometry): number {
  const c = g.course;
  let [ahead, behind] = [Infinity, Infinity];
  for (let k = 0; k <= STEPS; k++) {
    if (c.depth[k]! < 0.1 * g.engaged) continue;
    ahead = Math.min(ahead, c.ahead[k]!);
    behind = Math.min(behind, c.behind[k]!);
  }
  const R = (g.module * g.mesh.ringTeeth) / 2;
  return Number.isFinite(ahead + behind) ? (ahead + behind) / (R * Math.cos(g.lean)) : 0;
}

/**
 * Work of sliding over all loaded teeth for a radian of the generator, per unit of friction: force times the way a
 * tooth slips along its side.
 */
function slidePerTurn(g: StrainWaveGeometry, forces: Float64Array): number {
  const total = forces.reduce((s, f) => s + f, 0);
  // A tooth goes in and out by its depth along its side once a lobe: on the mean, twice the depth over the arc of the
  // mesh.
  const arc = (2 * Math.PI * g.inMesh) / g.mesh.splineTeeth / g.line.form.lobes;
  return total * ((2 * g.engaged) / Math.cos(g.lean) / Math.max(0.05, arc));
}

/**
 * Radial stiffness of the ring at a lobe against n equal pushes, N/m: a thin ring where its wall bends, far stiffer
 * where it is thick.
 */
function ringStiffness(g: StrainWaveGeometry, m: ToothMaterial, width: number, n: number): number {
  const h = g.outside / 2 - g.ringRoot;
  const R = (g.outside / 2 + g.ringRoot) / 2;
  const I = (width * h ** 3) / 12;
  let sum = 0;
  for (let j = 1; j < 40; j++) sum += n / Math.PI / ((j * n) ** 2 - 1) ** 2;
  return (m.material.modulus * I) / (R ** 3 * sum);
}
