import {
  crept,
  elastic,
  bearingDrag,
  greaseDrag,
  strengthOf,
  meshStiffness,
  flankCrush,
  flankEndurance,
  modeLimits,
  rootCycles,
  rootStrength,
  rootStress,
  type RootStrength,
  lastingTorque,
  lifeAsked,
  METAL_FLANK,
  metalCycles,
  metalOver,
  passesIn,
  shortestLife,
  wearPerPass,
  wearRate,
  WORN_OUT,
  warming,
  type Mode,
  type ToothMaterial,
  blankMass,
  cutPartPrice,
} from '../../gear/index.ts';
import { reducedModulus } from '../../contact/index.ts';
import { linePressure } from '../../lobed/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { equivalentLoad, ratedLife } from '../../shop/bearings.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { rodMass, sumCosts } from '../costs.ts';
import { boreLimits, bothBores, type Bored } from '../bore-holds.ts';
import type { Before, Duty, Spring, StageNumbers } from '../contract.ts';
import { pushedByTeeth } from '../push.ts';
import { inSeries } from '../../math/springs.ts';
import { shaftStands, shaftStress } from '../shaft.ts';
import { hubSprings } from '../hub-springs.ts';
import { couplingCost, couplingSpring, keepsOff, type Coupling } from '../coupling.ts';
import { spring, together } from '../springs.ts';
import { beginsAt, frictionOf, type WormBuild } from './build.ts';
import {
  driving,
  drivenBack,
  frictionAngle,
  normalForce,
  shaftBending,
  shaftEnd,
  shaftMoment,
  slidingSpeed,
  springFriction,
} from './forces.ts';
import type { WormGeometry } from './geometry.ts';
import { wormRatio, type WormParams } from './params.ts';

/** Everything computed about a worm stage. */
export interface WormModel {
  readonly geometry: WormGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  readonly coupling: Coupling | undefined;
  readonly stub: number;
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
  /** Of the bearing that takes the thrust, s. */
  readonly bearingLife: number;
  /** What fresh flanks bear at once: 1.6 yields below the surface of a point contact. */
  readonly freshPermissible: number;
  readonly root: number;
  /** Of worm and wheel for a newton metre, Pa. */
  readonly roots: readonly [number, number];
  /** What the worm's shaft stands, Pa, and its ⌀, m. */
  readonly shaftStands: number;
  readonly shaftAcross: number;
  readonly bend: number;
  readonly likelyPlay: number;
  /** Play left when everything that can takes from it, m along the wheel's circle; below 0 it binds. */
  readonly bind: number;
  /** Torque at the wheel at which a spring-loaded worm lifts, N·m; Infinity without a spring. */
  readonly lifts: number;
  readonly wall1: number;
  readonly wall2: number;
  /** Worm and wheel where their bores turn them. */
  readonly bores: readonly Bored[];
  readonly modes: readonly Mode[];
  readonly masses: readonly [number, number];
  readonly costs: ReturnType<typeof costsOf>;
  readonly numbers: StageNumbers;
}

const E_STEEL = 206e9;
/**
 * Share of a deep-groove bearing's static rating that it takes along its axis. Source: usual catalogue practice, 0.25
 * for small and light series.
 */
const AXIAL_SHARE = 0.25;

/** What the steps of the model share. */
interface Setting {
  readonly p: WormParams;
  readonly b: WormBuild;
  readonly at: Duty;
  readonly shelf: Shelf;
  /** Coefficient of friction of the teeth. */
  readonly friction: number;
  /** Its angle in the normal section, rad. */
  readonly rubbing: number;
  /** Speed of the worm, rad/s. */
  readonly speed: number;
  /** Pressed into its wheel by a spring. */
  readonly springy: boolean;
}

/** Forces for a newton metre at the wheel, N: along its circle, along the worm's, normal to a flank, apart, across the shaft. */
interface PerTorque {
  readonly tangent: number;
  readonly thrust: number;
  readonly normal: number;
  readonly apart: number;
  readonly across: number;
}

function perTorque({ p, b, friction, rubbing }: Setting): PerTorque {
  const { lead, mesh } = b.geometry;
  const tangent = 1 / mesh.s2.r;
  const thrust = tangent * Math.tan(lead + rubbing);
  const normal = tangent * normalForce(lead, p.pressure, friction);
  const apart = normal * Math.sin(p.pressure);
  return { tangent, thrust, normal, apart, across: Math.hypot(apart, thrust) };
}

/** How warm roots and flanks run, K: what rubbing turns into heat, carried off by both (VDI 2736 in manner). */
function temperaturesOf({ p, b, at, shelf }: Setting, forward: number, sliding: number) {
  const [worm, wheel] = b.materials;
  const { mesh, carries } = b.geometry;
  const ambient = factor(shelf, 'ambient');
  const heat =
    (worm.plastic || wheel.plastic) && sliding > 0
      ? (warming(at) * at.torqueRms * at.speed * (1 / forward - 1)) /
        (carries * 1e3 * p.z2 * (sliding * mesh.wheel.module * 1e3) ** 0.75)
      : 0;
  return {
    rootTemperature: ambient + heat * factor(shelf, 'gear.heatRoot'),
    flankTemperature: ambient + heat * factor(shelf, 'gear.heatFlank'),
  };
}

/** Root stress of worm and wheel for a newton metre, Pa: along the worm's axis its thread is bent by what turns the wheel. */
function rootsOf({ b, shelf }: Setting, tangent: number): [number, number] {
  const { mesh, carries, sections } = b.geometry;
  const share = 0.25 + 0.75 / Math.max(1, mesh.contact);
  const load = tangent * factor(shelf, 'gear.load');
  const of = (s: (typeof sections)[0]) => (load * s.form * s.stress * share) / (carries * mesh.wheel.module);
  return [of(sections[0]), of(sections[1])];
}

/** Pressure of flanks at a torque, Pa. A point's grows with the cube root of its force; run in, it has worn to a line. */
function pressuresOf({ b, shelf }: Setting, normal: number) {
  const { mesh, carries } = b.geometry;
  const load = normal * factor(shelf, 'gear.load');
  const line = factor(shelf, 'worm.runIn') * carries;
  const [worm, wheel] = b.materials;
  const ambient = factor(shelf, 'ambient');
  const modulus = reducedModulus(
    elastic(worm, ambient, shelf),
    worm.poisson,
    elastic(wheel, ambient, shelf),
    wheel.poisson,
  );
  return {
    // A point's pressure grows with the modulus to two thirds.
    fresh: (torque: number) => b.pointPressure * Math.cbrt(Math.max(1e-9, load * torque) * (modulus / b.modulus) ** 2),
    runIn: (torque: number) => linePressure(load * torque, line, modulus, 1 / mesh.rho1 + 1 / mesh.rho2),
  };
}

/** What ends it for a newton metre or at which torque. */
interface Ends {
  readonly lifts: number;
  readonly crushes: number;
  /** Torque that the flanks stand for the life asked, N·m, and how long they last, s. */
  readonly flanks: { readonly torque: number; readonly life: number };
  readonly root1: number;
  readonly root2: number;
  /** Share of what the shaft stands. */
  readonly shaft: number;
  readonly apart: number;
  readonly tangent: number;
}

/**
 * Flanks in the long run: a plastic wheel's wear by the work of sliding, metal on metal pits.
 *
 * Source: VDI 2736-3 in manner: the wear of 2736-2 with H_V = (1/η − 1)/µ; ISO 6336-2 for the line it has run in to.
 */
function flanksLast({ p, b, at, shelf, friction }: Setting, forward: number, runIn: (torque: number) => number) {
  const [worm, wheel] = b.materials;
  const { mesh: m, carries } = b.geometry;
  const passes = passesIn(at, 1, 1);
  const torque = lastingTorque(at);
  const asked = lifeAsked(at);
  if (!worm.plastic && !wheel.plastic) {
    const stands = Math.min(flankEndurance(worm, shelf), flankEndurance(wheel, shelf));
    const cycles = metalCycles(METAL_FLANK, runIn(torque) / stands);
    return {
      torque: ((stands * metalOver(METAL_FLANK, passes)) / runIn(1)) ** 2,
      life: passes > 0 ? (asked * cycles) / passes : Infinity,
    };
  }
  const loss = (1 / forward - 1) / friction;
  const deep = Math.max(1e-6, m.s1.ra + m.s2.ra - m.centre) / Math.cos(p.pressure);
  const across = factor(shelf, 'worm.runIn') * carries;
  // The worm's thread is worn along the turns that touch, the wheel's teeth each once a turn.
  const ofWheel = wearPerPass(1, loss, wearRate(wheel, worm, shelf), across, p.z2, deep);
  const ofWorm = wearPerPass(1, loss, wearRate(worm, wheel, shelf), 2 * Math.PI * m.s1.r, m.contact, deep);
  const stands = (WORN_OUT * p.module) / (Math.max(ofWheel, ofWorm) * passes);
  return { torque: stands, life: (asked * stands) / torque };
}

/** Everything that ends it, and at which torque. */
function modesOf({ b, at, shelf }: Setting, x: Ends, rootTemperature: number): Mode[] {
  const { bearing } = b;
  const m = b.geometry.mesh;
  const both = at.reverses === true;
  const { sections } = b.geometry;
  const [thread, tooth] = b.materials.map((of, i) =>
    rootStrength(of, rootTemperature, both, shelf, sections[i]!.chord * m.wheel.module),
  ) as [RootStrength, RootStrength];
  const wheel = b.materials[1];
  const passes = passesIn(at, 1, 1);
  const wears = b.materials.some((y) => y.plastic);
  const cycles = rootCycles(wheel, tooth, x.root2 * lastingTorque(at));
  return [
    ...(Number.isFinite(x.lifts)
      ? [
          {
            id: 'lift',
            mode: 'worm lifts against its spring',
            torque: x.lifts,
            life: Infinity,
            time: 'static' as const,
            why: 'Beyond it the separating force opens the mesh, and play is there again.',
            grows: 'none' as const,
          },
        ]
      : []),
    {
      id: 'break-wheel',
      mode: 'root of the wheel breaks',
      torque: tooth.peak / x.root2,
      life: Infinity,
      time: 'static',
      why: 'Bending at the root over the width that carries, force at the tip (ISO 6336-3 in manner).',
      grows: 'none',
    },
    {
      id: 'tire-wheel',
      mode: 'root of the wheel tires',
      torque: rootStress(wheel, tooth, passes) / x.root2,
      life: passes > 0 ? (lifeAsked(at) * cycles) / passes : Infinity,
      time: 'life',
      why: 'Bending at the root at the equivalent torque, once a turn of the wheel (tooth-root fatigue).',
      grows: 'none',
    },
    {
      id: 'break-worm',
      mode: 'thread of the worm breaks',
      torque: thread.peak / x.root1,
      life: Infinity,
      time: 'static',
      why: 'Bending of the thread at its root.',
      grows: 'none',
    },
    {
      id: 'pit',
      mode: wears ? 'flanks wear' : 'flanks pit',
      torque: x.flanks.torque,
      life: x.flanks.life,
      time: 'life',
      why: wears
        ? 'A worm slides all the way: what its friction rubs off the softer flanks, over what touches once run in; worn ' +
          'out is 0.15 of a module (VDI 2736-3 in manner).'
        : 'Hertzian pressure of the line that the contact has run in to, once a turn of the wheel (pitting, ISO 6336-2).',
      grows: 'none',
    },
    {
      id: 'crush',
      mode: 'flanks are crushed',
      torque: x.crushes,
      life: Infinity,
      time: 'static',
      why:
        'Hertzian pressure once run in, when the point of contact has worn to a line across part of the wheel, beyond ' +
        'what the softer flank bears once. A throated wheel would start with a line.',
      grows: 'none',
    },
    {
      id: 'skip',
      mode: 'wheel skips',
      torque: (factor(shelf, 'gear.housing') * Math.max(0, m.s1.ra + m.s2.ra - m.centre)) / x.apart,
      life: Infinity,
      time: 'static',
      why: 'The separating force opens the centres by the working depth; a stiffer housing holds them.',
      grows: 'none',
    },
    {
      id: 'shaft',
      mode: 'worm shaft yields',
      torque: 1 / x.shaft,
      life: Infinity,
      time: 'static',
      why: 'Bending between its bearings: the separating and the tangential force, and what pushes along it at its circle.',
      grows: 'none',
    },
    {
      id: 'thrust',
      mode: 'worm bearing dents',
      torque: (AXIAL_SHARE * bearing.static) / x.tangent,
      life: Infinity,
      time: 'static',
      why: `One bearing takes the whole thrust; a deep-groove ball bearing stands ${AXIAL_SHARE} of its static rating C0 along its axis.`,
      grows: 'none',
    },
  ];
}

/** Play at the wheel, rad, likely, least and most; what is likely along its circle and what errors leave of it, m. */
function playOf({ p, b, shelf, springy }: Setting) {
  const { lead, mesh, normalPlay } = b.geometry;
  const r = mesh.s2.r;
  const drawn = normalPlay / (Math.cos(p.pressure) * Math.cos(lead));
  const thick = factor(shelf, 'gear.thickness') * Math.SQRT2;
  const centre = 2 * factor(shelf, 'worm.centre') * (Math.tan(p.pressure) / Math.cos(lead));
  const end = factor(shelf, 'worm.endPlay');
  const tilt = factor(shelf, 'gear.tilt');
  if (springy) {
    const play: [number, number, number] = [end / 2 / r, 0, (end + tilt / 2) / r];
    return { bind: 0, likely: 0, play };
  }
  // Once set by moving the worm, errors of centre and thickness are in what was set.
  const errors = p.playBy === 'centre' ? Math.hypot(thick / Math.cos(lead), centre) : Math.max(2e-6, 0.2 * thick);
  const bind = drawn - errors;
  const likely = Math.max(0, drawn) + end / 2;
  const play: [number, number, number] = [
    likely / r,
    Math.max(0, bind) / r,
    (Math.max(0, drawn) + errors + end + tilt) / r,
  ];
  return { bind, likely, play };
}

/** Springs about the wheel, N·m/rad: teeth, support along the worm, what lets the axes apart, and the hub. */
function springsOf({ p, b, shelf }: Setting, shaft: number): Spring[] {
  const { lead, mesh, carries } = b.geometry;
  const [worm, wheel] = b.materials;
  const ambient = factor(shelf, 'ambient');
  const [e1, e2] = [elastic(worm, ambient, shelf), elastic(wheel, ambient, shelf)];
  const pair = inSeries(2 * e1, 2 * e2);
  // A wheel that gives way outwards turns by tan α/cos γ of that: the working angle across its axis.
  const slope = Math.tan(p.pressure) / Math.cos(lead);
  const apart = slope ** 2;
  const across = { g1: { helix: lead }, working: Math.atan(slope), contact: mesh.contact };
  const teeth = meshStiffness(across, factor(shelf, 'gear.stiffness') * carries * (pair / E_STEEL));
  const r = mesh.s2.r ** 2;
  return [
    spring('teeth', r * teeth, inSeries(2 * e1 * crept(worm), 2 * e2 * crept(wheel)) / pair),
    spring('bearings along the worm', r * factor(shelf, 'worm.support')),
    spring('worm’s shaft bends', (r * shaft) / apart, p.bore1 > 0 ? 1 : crept(worm)),
    ...couplingSpring(b.coupling, 1 / wormRatio(p), shelf),
    spring('axes give way', (r * factor(shelf, 'gear.housing')) / apart),
    ...hubSprings(p, ['worm', 'wheel'], [p.length, p.width], b.materials, wormRatio(p), shelf),
  ];
}

/** How long a worm's own shaft is beside its thread, out to the faces of its bearings and into a coupling, m. */
const journalsOf = ({ p, b }: Setting): number =>
  p.bore1 > 0 ? 0 : Math.max(0, p.span + b.bearing.width - p.length) + b.stub;

/** Masses of the worm with its bearings and of the wheel, kg. */
function massesOf(s: Setting): [number, number] {
  const { p, b, shelf } = s;
  const { bearing, geometry, materials } = b;
  const { s1, s2 } = geometry.mesh;
  const { density } = materials[0].material;
  const thread = rodMass(2 * s1.r, p.length, density) - rodMass(p.bore1, p.length, density);
  return [
    thread + rodMass(bearing.bore, journalsOf(s), density) + 2 * bearing.mass,
    blankMass(s2.r, p.bore2 / 2, p.width, materials[1], shelf),
  ];
}

/** Inertia of what turns with the worm, kg·m²: thread, its own shaft, and the coupling on that. */
function inertiaOf(s: Setting): number {
  const { p, b } = s;
  const of = (diameter: number, length: number) =>
    (rodMass(diameter, length, b.materials[0].material.density) * diameter ** 2) / 8;
  const thread = of(2 * b.geometry.mesh.s1.r, p.length) - of(p.bore1, p.length);
  return thread + of(b.bearing.bore, journalsOf(s)) + (b.coupling?.inertia ?? 0);
}

/** Life of the bearing that takes the thrust, s: L10 = (C/P)³·10⁶ turns (ISO 281). */
function lifeOf({ p, b, at }: Setting, per: PerTorque): number {
  if (!at.equivalent || !at.meanSpeed) return Infinity;
  const across = shaftEnd(per, b.geometry.mesh.s1.r, p.span);
  const load = equivalentLoad(b.bearing, across * at.equivalent, per.tangent * at.equivalent);
  return ratedLife(b.bearing, load, at.meanSpeed * Math.abs(wormRatio(p)));
}

/** What worm, wheel and two bearings weigh and cost: by mass, and by teeth milled where they are not printed. */
function costsOf({ p, b, shelf }: Setting, [withBearings, wheel]: readonly [number, number]) {
  const { bearing, materials } = b;
  const worm = withBearings - 2 * bearing.mass;
  return {
    worm: { quantity: 1, mass: worm, money: cutPartPrice(materials[0], worm, 4 * p.starts, shelf) },
    wheel: { quantity: 1, mass: wheel, money: cutPartPrice(materials[1], wheel, p.z2, shelf) },
    bearing: { quantity: 2, mass: bearing.mass, money: bearing.price },
    coupling: couplingCost(b.coupling),
  };
}

/** What comes before lies along the worm, half as high as the stage is. */
function beforeOf({ p, b }: Setting, length: number): Before {
  const { bearing, geometry, coupling } = b;
  const { ra } = geometry.mesh.s2;
  const far = beginsAt(p, b) + Math.max(ra, (p.span + bearing.width) / 2, p.length / 2);
  return {
    beside: geometry.centre + ra,
    across: { far, high: length / 2, lean: 0 },
    ...(coupling && { off: keepsOff(coupling) }),
  };
}

/**
 * Computes a worm stage at a duty on its wheel.
 *
 * Source: η = tan γ/tan(γ + ρ′), driven back tan(γ − ρ′)/tan γ, with tan ρ′ = µ/cos α_n (equilibrium of the normal
 * force and its friction); point contact of crossed helical wheels
 * by Hertz as in VDI 2736-3, roots in the manner of ISO 6336-3 over the width that carries.
 */
export function modelWorm(p: WormParams, built: WormBuild, at: Duty, shelf: Shelf): WormModel {
  const { geometry: g, bearing, coupling, wall1, wall2 } = built;
  const [a, b] = built.materials;
  const { lead, mesh: m } = g;
  const friction = frictionOf(p, shelf);
  const rubbing = frictionAngle(friction, p.pressure);
  const speed = at.speed * Math.abs(wormRatio(p));
  const springy = p.playBy === 'spring';
  const s: Setting = { p, b: built, at, shelf, friction, rubbing, speed, springy };
  const forward = driving(lead, rubbing);
  const backward = drivenBack(lead, rubbing);
  const per = perTorque(s);
  const sliding = slidingSpeed(speed, m.s1.r, lead);
  const temperatures = temperaturesOf(s, forward, sliding);
  const [root1, root2] = rootsOf(s, per.tangent);
  const { fresh, runIn } = pressuresOf(s, per.normal);
  const flank = temperatures.flankTemperature;
  const crush = Math.min(flankCrush(a, flank, shelf), flankCrush(b, flank, shelf));
  const core = p.bore1 > 0 ? p.bore1 : 2 * m.sides[0].root;
  const shaft = shaftBending(p.bore1 > 0 ? E_STEEL : elastic(a, factor(shelf, 'ambient'), shelf), core, p.span);
  // A worm that is its own shaft stands what it is made of.
  const stands = p.bore1 > 0 ? shaftStands(shelf) : strengthOf(a, 'along', shelf);
  const lifts = springy ? p.springForce / per.apart : Infinity;
  const ends: Ends = {
    lifts,
    crushes: (crush / runIn(1)) ** 2,
    flanks: flanksLast(s, forward, runIn),
    root1,
    root2,
    shaft: (shaftMoment(per, m.s1.r, p.span) * shaftStress(core)) / stands,
    apart: per.apart,
    tangent: per.tangent,
  };
  const bores = bothBores(
    p,
    ['worm', 'wheel'],
    [p.length, p.width],
    built.materials,
    [wall1, wall2],
    Math.abs(wormRatio(p)) * forward,
    [
      { path: 'length', name: 'Worm', value: p.length },
      { path: 'width', name: 'Face width', value: p.width },
    ],
  );
  const modes = [...modesOf(s, ends, temperatures.rootTemperature), ...boreLimits(bores, shelf)];
  const bearingLife = lifeOf(s, per);
  const { play, likely, bind } = playOf(s);
  const springs = springsOf(s, shaft);
  const stiffness = together(springs);
  const [wormMass, wheelMass] = massesOf(s);
  const rubs = springy ? springFriction(friction, p.springForce, p.pressure, m.s1.r, lead) : 0;
  const costs = costsOf(s, [wormMass, wheelMass]);
  const length = Math.max(p.width, 2 * m.s1.ra);
  const numbers: StageNumbers = {
    ratio: wormRatio(p),
    etaForward: forward,
    etaBackward: backward,
    pushes: pushedByTeeth(at, per.tangent * at.torque, per.apart * at.torque, per.thrust * at.torque, m.s2.r),
    drag: greaseDrag(g.outside, shelf) + 2 * bearingDrag(bearing, speed, shelf) + rubs,
    play,
    stiffness,
    springs,
    bendTorque: Infinity,
    stiffnessBeyond: stiffness,
    inertiaIn: inertiaOf(s),
    inertiaOut: (wheelMass * m.s2.r ** 2) / 2,
    limits: modeLimits(modes),
    ...sumCosts(Object.values(costs)),
    outside: g.outside,
    before: beforeOf(s, length),
    length,
    // Worm speed at which grease is wiped off: sliding of 3 m/s with a plastic, 8 m/s metal on metal.
    maxSpeed: ((a.plastic || b.plastic ? 3 : 8) * Math.cos(lead)) / m.s1.r,
    bore: p.bore2,
    beside: true,
    life: Math.min(bearingLife, shortestLife(modes)),
  };
  return {
    geometry: g,
    materials: [a, b],
    bearing,
    coupling,
    stub: built.stub,
    friction,
    frictionAngle: rubbing,
    shaken: frictionAngle(friction * factor(shelf, 'worm.vibration'), p.pressure),
    forward,
    backward,
    tangent: per.tangent * at.torque,
    thrust: per.thrust * at.torque,
    apart: per.apart * at.torque,
    sliding,
    ...temperatures,
    fresh: fresh(at.torque),
    flank: runIn(at.torque),
    freshPermissible: 1.6 * Math.min(strengthOf(a, 'along', shelf), strengthOf(b, 'along', shelf)),
    root: Math.max(root1, root2) * at.torque,
    roots: [root1, root2],
    shaftStands: stands,
    shaftAcross: core,
    bend: (per.across * at.torque) / shaft,
    bearingLife,
    likelyPlay: likely,
    bind,
    lifts,
    wall1,
    wall2,
    bores,
    modes,
    masses: [wormMass, wheelMass],
    costs,
    numbers,
  };
}
