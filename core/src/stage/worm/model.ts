import { stated } from '../../units/stated.ts';
import { crossedCylinders, reducedModulus } from '../../contact/index.ts';
import {
  boreReach,
  flankLimit,
  modeLimits,
  rootLimits,
  warming,
  type Mode,
  type ToothMaterial,
} from '../../gear/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { isNeedle } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, StageNumbers } from '../contract.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { wormGeometry, type WormGeometry } from './geometry.ts';
import { wormRatio, type WormParams } from './params.ts';

/** Everything computed about a worm stage. */
export interface WormModel {
  readonly geometry: WormGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  readonly friction: number;
  /** Friction angle in the normal section, rad, and what vibration leaves of it. */
  readonly frictionAngle: number;
  readonly shaken: number;
  readonly forward: number;
  readonly backward: number;
  /**
   * Forces at the peak, N: along the wheel's circle (the worm's thrust), along the worm's circle (the wheel's thrust),
   * and apart.
   */
  readonly tangent: number;
  readonly thrust: number;
  readonly apart: number;
  readonly sliding: number;
  readonly rootTemperature: number;
  readonly flankTemperature: number;
  /** Pressure of fresh flanks, which touch in a point, and of run-in ones. */
  readonly fresh: number;
  readonly flank: number;
  readonly flankPermissible: number;
  /** What fresh flanks bear at once: 1.6 yields below the surface of a point contact. */
  readonly freshPermissible: number;
  readonly root: number;
  readonly bend: number;
  readonly likelyPlay: number;
  /** Play left when everything that can takes from it, m along the wheel's circle; below 0 it binds. */
  readonly bind: number;
  /** Torque at the wheel at which a spring-loaded worm lifts, N·m; Infinity without a spring. */
  readonly lifts: number;
  readonly wall1: number;
  readonly wall2: number;
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number];
  readonly numbers: StageNumbers;
}

const E_STEEL = 206e9;
const SHAFT_YIELD = 350e6;
/**
 * Share of a deep-groove bearing's static rating that it takes along its axis. Source: usual catalogue practice, 0.25
 * for small and light series.
 */
const AXIAL_SHARE = 0.25;

const hubOf = (bore: number, shape: WormParams['shape1']) => ({
  bore,
  shape,
  bolts: 0,
  boltCircle: 0,
  boltHole: 0,
  nuts: false,
});

/** Equivalent load of a deep-groove bearing under radial and axial force, N. Source: ISO 281:2007, table 3, f0 = 13. */
export function bearingLoad(b: Bearing, radial: number, axial: number): number {
  const rows = [
    [0.172, 0.19, 2.3],
    [0.345, 0.22, 1.99],
    [0.689, 0.26, 1.71],
    [1.03, 0.28, 1.55],
    [1.38, 0.3, 1.45],
    [2.07, 0.34, 1.31],
    [3.45, 0.38, 1.15],
    [5.17, 0.42, 1.04],
    [6.89, 0.44, 1],
  ] as const;
  const relative = (13 * axial) / b.static;
  const [, e, y] = rows.find((r) => relative <= r[0]) ?? rows[rows.length - 1]!;
  return axial <= e * radial ? radial : Math.max(radial, 0.56 * radial + y * axial);
}

/** A worm stage before any duty. */
export interface WormBuild {
  readonly geometry: WormGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** What is left between roots and bore of worm and wheel, m; Infinity for a worm on its own shaft. */
  readonly wall1: number;
  readonly wall2: number;
  /** Reduced modulus of both, Pa. */
  readonly modulus: number;
  /** Pressure of fresh flanks, which touch in a point, under one newton, Pa. */
  readonly pointPressure: number;
}

/** Builds a stage; refuses in words what does not go together. */
export function buildWorm(p: WormParams, shelf: Shelf): Result<WormBuild> {
  const made = wormGeometry(p);
  if (!made.ok) return made;
  const g = made.value;
  const m = g.mesh;
  const materials = needMaterials(p, ['material1', 'material2'], shelf);
  if (!materials.ok) return materials;
  const found = needBearing(p.bearing, shelf, 'The worm’s shaft runs in two of them and leans on one.');
  if (!found.ok) return found;
  const bearing = found.value;
  const wall1 = p.bore1 > 0 ? m.sides[0].root - boreReach(hubOf(p.bore1, p.shape1)) : Infinity;
  const wall2 = m.sides[1].root - boreReach(hubOf(p.bore2, p.shape2));
  const [a, b] = materials.value;
  const modulus = reducedModulus(a.material.modulus, a.poisson, b.material.modulus, b.poisson);
  return ok({
    geometry: g,
    materials: materials.value,
    bearing,
    wall1,
    wall2,
    modulus,
    pointPressure: crossedCylinders(1, m.rho1, m.rho2, m.generators, modulus).pressure,
  });
}

/** Coefficient of friction of the teeth, as given or as the shop has it. */
const frictionOf = (p: WormParams, shelf: Shelf): number =>
  p.frictionBy === 'given' ? p.friction : factor(shelf, 'worm.friction');

/** Angle of friction in the normal section, tan ρ′ = µ/cos α_n, rad. */
const frictionAngleOf = (p: WormParams, friction: number): number => Math.atan(friction / Math.cos(p.pressure));

/** What does not go together, in words; it can still be drawn. */
export function wrongWorm(p: WormParams, b: WormBuild, shelf: Shelf): Result<never> | undefined {
  const { geometry: g, bearing, wall1, wall2 } = b;
  const frictionAngle = frictionAngleOf(p, frictionOf(p, shelf));
  const m = g.mesh;
  if (isNeedle(bearing))
    return refuse(
      `${bearing.name} takes no thrust.`,
      'A worm pushes along its shaft as hard as its wheel pulls round; needles carry across it only.',
      'Choose ball bearings.',
      'bearing',
    );
  if (wall1 <= 0)
    return refuse(
      'The bore cuts into the worm’s thread.',
      `Its roots reach down to ⌀ ${stated(2 * m.sides[0].root, 'length', 4)}.`,
      'Take a smaller bore, or a larger quotient.',
      'bore1',
    );
  if (wall2 <= 0)
    return refuse(
      'The bore cuts into the wheel’s teeth.',
      `Its roots reach down to ⌀ ${stated(2 * m.sides[1].root, 'length', 4)}.`,
      'Take a smaller bore, or more teeth.',
      'bore2',
    );
  if (g.lead + frictionAngle > 1.5)
    return refuse(
      'With so much friction the worm cannot turn its wheel at all.',
      `Lead and friction angle come to ${stated(g.lead + frictionAngle, 'angle', 3)}; at 90° the thread jams.`,
      'Give a smaller coefficient of friction, or fewer starts.',
      p.frictionBy === 'given' ? 'friction' : 'starts',
    );
  return undefined;
}

/**
 * Computes a worm stage at a duty on its wheel.
 *
 * Source: η = tan γ/tan(γ + ρ′), driven back tan(γ − ρ′)/tan γ, with tan ρ′ = µ/cos α_n (equilibrium of the normal
 * force and its friction); point contact of crossed helical wheels
 * by Hertz as in VDI 2736-3, roots in the manner of ISO 6336-3 over the width that carries.
 */
export function modelWorm(p: WormParams, built: WormBuild, at: Duty, shelf: Shelf): WormModel {
  const { geometry: g, bearing, wall1, wall2 } = built;
  const friction = frictionOf(p, shelf);
  const frictionAngle = frictionAngleOf(p, friction);
  const [a, b] = built.materials;
  const m = g.mesh;
  const { lead } = g;
  const shaken = Math.atan((friction * factor(shelf, 'worm.vibration')) / Math.cos(p.pressure));
  const forward = Math.tan(lead) / Math.tan(lead + frictionAngle);
  const backward = Math.tan(lead - frictionAngle) / Math.tan(lead);
  const r2 = m.s2.r;
  const tangentPer = 1 / r2;
  const thrustPer = tangentPer * Math.tan(lead + frictionAngle);
  // Normal force from the wheel's tangential one: F_t2 = F_n(cos α·cos γ − µ·sin γ).
  const normalPer = tangentPer / (Math.cos(p.pressure) * Math.cos(lead) - friction * Math.sin(lead));
  const apartPer = normalPer * Math.sin(p.pressure);
  const k = factor(shelf, 'gear.load');
  const [tangent, thrust, apart] = [tangentPer * at.torque, thrustPer * at.torque, apartPer * at.torque];
  const wormSpeed = at.speed * Math.abs(wormRatio(p));
  const sliding = (wormSpeed * m.s1.r) / Math.cos(lead);

  const plastic = a.plastic || b.plastic;
  const mn = m.wheel.module;
  const ambient = factor(shelf, 'ambient');
  const heat =
    plastic && sliding > 0
      ? (warming(at) * at.torqueRms * at.speed * (1 / forward - 1)) /
        (g.carries * 1e3 * p.z2 * (sliding * mn * 1e3) ** 0.75)
      : 0;
  const rootTemperature = ambient + heat * factor(shelf, 'gear.heatRoot');
  const flankTemperature = ambient + heat * factor(shelf, 'gear.heatFlank');
  const [la, lb] = [rootLimits(a, rootTemperature, shelf), rootLimits(b, rootTemperature, shelf)];
  const share = 0.25 + 0.75 / Math.max(1, m.contact);
  // Along the worm's axis its thread is bent by the force that turns the wheel.
  const rootPer = (s: (typeof g.sections)[0]) => (tangentPer * k * s.form * s.stress * share) / (g.carries * mn);
  const [root1, root2] = [rootPer(g.sections[0]), rootPer(g.sections[1])];
  const { modulus } = built;
  // A point's pressure grows with the cube root of its force.
  const fresh = (torque: number) => built.pointPressure * Math.cbrt(Math.max(1e-9, normalPer * torque * k));
  // Run in, the point has worn to a line across part of the wheel: Johnson, 4.2, p = √(P′·E*/(π·R)).
  const line = factor(shelf, 'worm.runIn') * g.carries;
  const pressureOf = (torque: number) =>
    Math.sqrt((((normalPer * torque * k) / line) * modulus * (1 / m.rho1 + 1 / m.rho2)) / Math.PI);
  const permissible = Math.min(flankLimit(a, flankTemperature, shelf), flankLimit(b, flankTemperature, shelf));
  const pits = (permissible / pressureOf(1)) ** 2;

  const core = p.bore1 > 0 ? p.bore1 : 2 * m.sides[0].root;
  const inertia = (Math.PI * core ** 4) / 64;
  const shaftModulus = p.bore1 > 0 ? E_STEEL : a.material.modulus;
  const bendStiffness = (48 * shaftModulus * inertia) / p.span ** 3;
  const across = Math.hypot(apartPer, thrustPer);
  const bend = (across * at.torque) / bendStiffness;
  const shaftStressPer = (32 * ((across * p.span) / 4)) / (Math.PI * core ** 3);
  const axialTan = Math.tan(p.pressure) / Math.cos(lead);
  const springy = p.playBy === 'spring';
  const lifts = springy ? p.springForce / apartPer : Infinity;
  const modes: Mode[] = [
    ...(springy
      ? [
          {
            id: 'lift',
            mode: 'worm lifts against its spring',
            torque: lifts,
            ever: false,
            why: 'Beyond it the separating force opens the mesh, and play is there again.',
            grows: 'none' as const,
          },
        ]
      : []),
    {
      id: 'break-wheel',
      mode: 'root of the wheel breaks',
      torque: lb.peak / root2,
      ever: false,
      why: 'Bending at the root over the width that carries, force at the tip (ISO 6336-3 in manner).',
      grows: 'none',
    },
    {
      id: 'tire-wheel',
      mode: 'root of the wheel tires',
      torque: lb.ever / root2,
      ever: true,
      why: 'Bending for ever at the RMS torque.',
      grows: 'none',
    },
    {
      id: 'break-worm',
      mode: 'thread of the worm breaks',
      torque: la.peak / root1,
      ever: false,
      why: 'Bending of the thread at its root.',
      grows: 'none',
    },
    {
      id: 'pit',
      mode: 'flanks wear',
      torque: pits,
      ever: true,
      why:
        'Hertzian pressure at the pitch point for ever at the RMS torque, once run in: the point of ' +
        'contact has worn to a line across part of the wheel (VDI 2736-3 in manner). A throated wheel ' +
        'would start with a line.',
      grows: 'none',
    },
    {
      id: 'skip',
      mode: 'wheel skips',
      torque: (factor(shelf, 'gear.housing') * Math.max(0, m.s1.ra + m.s2.ra - m.centre)) / apartPer,
      ever: false,
      why: 'The separating force opens the centres by the working depth; a stiffer housing holds them.',
      grows: 'none',
    },
    {
      id: 'shaft',
      mode: 'worm shaft yields',
      torque: SHAFT_YIELD / shaftStressPer,
      ever: false,
      why: 'Bending between its bearings by separating and tangential force.',
      grows: 'none',
    },
    {
      id: 'thrust',
      mode: 'worm bearing dents',
      torque: (AXIAL_SHARE * bearing.static) / tangentPer,
      ever: false,
      why: `One bearing takes the whole thrust; a deep-groove ball bearing stands ${AXIAL_SHARE} of its static rating C0 along its axis.`,
      grows: 'none',
    },
  ];

  const toCircle = 1 / (Math.cos(p.pressure) * Math.cos(lead));
  const drawn = g.normalPlay * toCircle;
  const [thick, centreError, end, tilt] = [
    factor(shelf, 'gear.thickness') * Math.SQRT2,
    factor(shelf, 'worm.centre'),
    factor(shelf, 'worm.endPlay'),
    factor(shelf, 'gear.tilt'),
  ];
  // Once set by moving the worm, errors of centre and thickness are in what was set.
  const errors =
    p.playBy === 'centre'
      ? Math.hypot(thick / Math.cos(lead), 2 * centreError * axialTan)
      : p.playBy === 'dual-lead'
        ? Math.max(2e-6, 0.2 * thick)
        : 0;
  const bind = springy ? 0 : drawn - errors;
  const likely = springy ? 0 : Math.max(0, drawn) + end / 2;
  const play: [number, number, number] = springy
    ? [end / 2 / r2, 0, (end + tilt / 2) / r2]
    : [likely / r2, Math.max(0, bind) / r2, (Math.max(0, drawn) + errors + end + tilt) / r2];

  const alone = (2 * a.material.modulus * b.material.modulus) / (a.material.modulus + b.material.modulus);
  const meshK =
    factor(shelf, 'gear.stiffness') * g.carries * (alone / E_STEEL) * (0.75 * Math.max(1, m.contact) + 0.25);
  const rigid =
    1 /
    (1 / meshK +
      1 / factor(shelf, 'worm.support') +
      axialTan ** 2 * (1 / bendStiffness + 1 / factor(shelf, 'gear.housing')));
  const stiffness = rigid * r2 * r2;
  const solid = factor(shelf, 'gear.solid');
  const wormMass =
    Math.PI * Math.max(0, m.s1.r ** 2 - (p.bore1 / 2) ** 2) * p.length * a.material.density +
    (p.bore1 > 0 ? 0 : Math.PI * (bearing.bore / 2) ** 2 * Math.max(0, p.span - p.length) * a.material.density) +
    2 * bearing.mass;
  const wheelMass = Math.PI * Math.max(0, r2 * r2 - (p.bore2 / 2) ** 2) * p.width * b.material.density * solid;
  const priceOf = (x: ToothMaterial, mass: number, teeth: number) =>
    mass * x.material.price + (x.material.made === 'printed' ? 0 : teeth * factor(shelf, 'price.milled'));
  // Worm speed at which grease is wiped off: sliding of 3 m/s with a plastic, 8 m/s metal on metal.
  const top = plastic ? 3 : 8;
  const radial = across / 2;
  const life =
    at.equivalent && at.meanSpeed
      ? ((bearing.dynamic / bearingLoad(bearing, radial * at.equivalent, tangentPer * at.equivalent)) ** 3 *
          1e6 *
          2 *
          Math.PI) /
        (at.meanSpeed * Math.abs(wormRatio(p)))
      : Infinity;
  const springDrag = springy ? friction * (p.springForce / Math.sin(p.pressure)) * (m.s1.r / Math.cos(lead)) : 0;
  const numbers: StageNumbers = {
    ratio: wormRatio(p),
    etaForward: forward,
    etaBackward: backward,
    drag: factor(shelf, 'gear.churn') + springDrag,
    play,
    stiffness,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: (wormMass * m.s1.r ** 2) / 2,
    inertiaOut: (wheelMass * r2 * r2) / 2,
    limits: modeLimits(modes, at.torque, at.torqueRms),
    mass: wormMass + wheelMass,
    money: priceOf(a, wormMass - 2 * bearing.mass, 4 * p.starts) + priceOf(b, wheelMass, p.z2) + 2 * bearing.price,
    outside: g.outside,
    length: Math.max(p.width, 2 * m.s1.ra),
    maxSpeed: (top * Math.cos(lead)) / m.s1.r,
    bore: p.bore2,
    beside: true,
    life,
  };
  return {
    geometry: g,
    materials: [a, b],
    bearing,
    friction,
    frictionAngle,
    shaken,
    forward,
    backward,
    tangent,
    thrust,
    apart,
    sliding,
    rootTemperature,
    flankTemperature,
    fresh: fresh(at.torque),
    flank: pressureOf(at.torque),
    flankPermissible: permissible,
    freshPermissible: 1.6 * Math.min(a.material.strength, b.material.strength),
    root: Math.max(root1, root2) * at.torque,
    bend,
    likelyPlay: likely,
    bind,
    lifts,
    wall1,
    wall2,
    modes,
    masses: [wormMass, wheelMass],
    numbers,
  };
}
