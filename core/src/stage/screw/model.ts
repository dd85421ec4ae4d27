import { term, type Term } from '../../figure/index.ts';
import {
  bearingDrag,
  cutPartPrice,
  cuttingPrice,
  elastic,
  crept,
  lastingTorque,
  lifeAsked,
  shortestLife,
  strengthOf,
  wearRate,
  type ToothMaterial,
} from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import type { Bearing } from '../../schema/joint.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, Spring, StageNumbers } from '../contract.ts';
import { rodMass, type Cost } from '../costs.ts';
import {
  couplingCost,
  couplingFor,
  couplingSpring,
  ENDS_APART,
  keepsOff,
  reachInto,
  type Coupling,
} from '../coupling.ts';
import { limitOf, type Limit } from '../limits.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { inMm, stop } from '../refuse-stage.ts';
import { spring, together } from '../springs.ts';
import { exponent, forceOn, nutLoad, nutsOf, opensOver, type Nuts } from './nuts.ts';
import { screwRatio, type ScrewParams } from './params.ts';
import {
  ENDS,
  eulerLoad,
  frictionAngleOf,
  ballWork,
  screwWork,
  threadOf,
  whirlSpeed,
  type ScrewWork,
  type Thread,
  fourthPower,
} from './thread.ts';

/** A screw stage before any duty. */
export interface ScrewBuild {
  readonly thread: Thread;
  readonly materials: readonly [ToothMaterial, ToothMaterial];
  readonly bearing: Bearing;
  /** What takes its end; undefined where that is too thick for any. */
  readonly coupling: Coupling | undefined;
  /** Its ends: across, and as long as they are before and behind it, m. */
  readonly journal: { readonly across: number; readonly before: number; readonly behind: number };
  /** Length of the screw between its bearings, m. */
  readonly length: number;
}

/** Everything computed about a screw stage; forces N, its "torque" is the force along the axis. */
export interface ScrewModel extends ScrewBuild {
  readonly friction: number;
  /** Friction angle of the thread; nought for a ball screw. */
  readonly frictionAngle: number;
  readonly work: ScrewWork;
  /** Efficiency of the thread alone when it is pushed. */
  readonly threadBackward: number;
  /** Friction angle over lead angle: it holds still from one on. */
  readonly holds: number;
  readonly torque: number;
  readonly buckles: number;
  /** First whirl, and the speed of travel at which it comes. */
  readonly whirl: number;
  readonly pressure: number;
  /** What a plain collar takes, torque of a newton, m; and both nuts under their preload, N·m. */
  readonly collar: number;
  readonly rubs: number;
  /** Load that takes the preload off one nut. */
  readonly opens: number;
  readonly limits: readonly Limit[];
  readonly masses: readonly [number, number];
  readonly prices: readonly [number, number];
  readonly nuts: number;
  /** Bearings of its ends. */
  readonly bearings: Cost;
  readonly numbers: StageNumbers;
}

/** Shear modulus of a metal over its Young’s modulus. */
const SHEAR = 1 / 2.6;
/** Share of a thread’s thickness that may be worn off a nut. */
const WORN = 0.2;

/** Builds a stage; refuses in words what does not go together. */
export function buildScrew(p: ScrewParams, shelf: Shelf): Result<ScrewBuild> {
  const found = needMaterials(p, ['material1', 'material2'], shelf);
  if (!found.ok) return found;
  const b = needBearing(p.bearing, shelf, 'It carries the screw’s thrust.');
  if (!b.ok) return b;
  const thread = threadOf(p);
  if (!(thread.core >= 0.3 * p.diameter))
    return stop(
      `A pitch of ${inMm(p.pitch)} leaves too thin a core in a screw of ${inMm(p.diameter)}.`,
      `Its thread would reach down to ⌀ ${inMm(Math.max(0, thread.core))}.`,
      'Take a finer pitch with more starts, or a thicker screw.',
      'pitch',
      { path: 'pitch', value: Math.floor(0.25 * p.diameter * 2e3) / 2e3 || 5e-4, label: 'Finer pitch' },
    );
  if (p.nutDiameter <= p.diameter + 1e-3)
    return stop(
      `A nut of ${inMm(p.nutDiameter)} does not go round a screw of ${inMm(p.diameter)}.`,
      'Half a millimetre of wall is the least.',
      'Take a larger nut.',
      'nutDiameter',
      { path: 'nutDiameter', value: Number((2.2 * p.diameter).toPrecision(2)), label: 'Nut of 2.2 diameters' },
    );
  const nuts = p.nut === 'double' ? 2 : 1;
  const bearing = b.value;
  const across = Math.min(p.diameter, bearing.bore);
  const coupling = couplingFor(across);
  return ok({
    thread,
    materials: found.value,
    bearing,
    coupling,
    journal: {
      across,
      before: 2 * bearing.width + reachInto(coupling, Math.max(p.diameter, 8e-3)),
      behind: (bearingsOf(p) - 2) * bearing.width,
    },
    // What is free of it lies between its bearings.
    length: Math.max(p.stroke + nuts * p.nutLength + 2 * bearing.width, p.free),
  });
}

/** Bearings of a screw: a pair holds an end fixed. */
const bearingsOf = ({ ends }: Pick<ScrewParams, 'ends'>): number =>
  ends === 'fixed-free' ? 2 : ends === 'fixed-fixed' ? 4 : 3;

/** What the stage's formulas work on. */
interface Setting {
  readonly p: ScrewParams;
  readonly b: ScrewBuild;
  readonly at: Duty;
  readonly shelf: Shelf;
}

/** Friction, and what the thread takes and gives back. */
function workOf({ p, b, shelf }: Setting) {
  const { thread } = b;
  const collar = p.collar === 'plain' ? (factor(shelf, 'screw.collar') * p.collarDiameter) / 2 : 0;
  if (p.type === 'ball') {
    const backward = factor(shelf, 'screw.ballBack');
    return {
      friction: 0,
      angle: 0,
      collar,
      work: ballWork(thread, factor(shelf, 'screw.ball'), backward, collar),
      alone: backward,
    };
  }
  const friction = factor(shelf, b.materials[1].plastic ? 'screw.friction' : 'screw.frictionMetal');
  const angle = frictionAngleOf(friction, p.flank, thread.angle);
  return {
    friction,
    angle,
    collar,
    work: screwWork(thread, angle, collar),
    alone: screwWork(thread, angle, 0).backward,
  };
}

/** Springs along the axis, N/m: the bar, wound and stretched, the nut, and the bearing. */
function springsOf({ p, b, shelf }: Setting, nuts: 1 | 2): Spring[] {
  const { thread, materials } = b;
  const ambient = factor(shelf, 'ambient');
  const [screw, nut] = materials;
  const modulus = elastic(screw, ambient, shelf);
  const area = (Math.PI * thread.core ** 2) / 4;
  // Held at both ends the nut stands worst in the middle, on two halves, each behind its bearing.
  const bar = (modulus * area * (p.ends === 'fixed-fixed' ? 4 : 1)) / p.free;
  const polar = (Math.PI * thread.core ** 4) / 32;
  const twist = ((SHEAR * modulus * polar) / p.free) * ((2 * Math.PI) / thread.lead) ** 2;
  const one =
    p.type === 'ball'
      ? factor(shelf, 'screw.nut') * p.diameter
      : factor(shelf, 'screw.thread') * elastic(nut, ambient, shelf) * p.nutLength;
  return [
    spring('screw stretches', bar, crept(screw)),
    spring('screw twists', twist, crept(screw)),
    ...couplingSpring(b.coupling, thread.lead / (2 * Math.PI), shelf),
    spring('nut', one * nuts, p.type === 'ball' ? 1 : crept(nut)),
    spring('bearing and its seat', factor(shelf, 'worm.support') * (p.ends === 'fixed-fixed' ? 2 : 1)),
  ];
}

/**
 * What ends a nut at a load of its own, as force along the axis: where the preload still presses the other one by then,
 * what it leaves.
 *
 * @param load of the nut, N, by `formula` with `terms`
 */
function nutLimit(
  nuts: Nuts,
  id: string,
  mode: string,
  load: number,
  why: string,
  formula: string,
  terms: () => readonly Term[],
): Limit {
  const [over, n] = [opensOver(nuts), exponent(nuts)];
  const pressed = load < over * nuts.preload;
  return limitOf(
    id,
    mode,
    'static',
    forceOn(nuts, load),
    why,
    pressed ? `max(0, c·F_v·((${formula}/F_v)^(1/n) − 1))` : formula,
    Infinity,
    () => [
      ...terms(),
      ...(pressed
        ? [
            term('F_v', 'preload', nuts.preload, 'force', 'field', 'preload'),
            term('c', 'load that lets one nut go, over the preload', over, 'ratio', 'computed'),
            term('n', 'of force over deflection', n, 'count', 'definition'),
          ]
        : []),
    ],
  );
}

/** All that limits the stage, as force along the axis, N. */
function limitsOf({ p, b, at, shelf }: Setting, work: ScrewWork, buckles: number): Limit[] {
  const { thread, materials, bearing } = b;
  const [screw, nut] = materials;
  const area = (Math.PI * thread.core ** 2) / 4;
  const twist = (16 * work.raise) / (Math.PI * thread.core ** 3);
  const bears = 0.25 * bearing.static;
  const asked = lifeAsked(at);
  const speed = at.meanSpeed ?? at.speed;
  const turns = (speed * asked) / thread.lead;
  const force = lastingTorque(at);
  // The preload stays between the nuts: they carry it, the bearing does not.
  const nuts = nutsOf(p);
  const lasts = nutLoad(nuts, force);
  const rated = (id: string, what: string, rating: number, under: Nuts, carries = nutLoad(under, force)): Limit =>
    limitOf(
      id,
      what,
      'life',
      turns > 0 ? forceOn(under, rating / Math.cbrt(turns / 1e6)) : Infinity,
      'Rating life of balls that carry thrust (L10).',
      '(C/F)³·10⁶·P_h/v',
      turns > 0 && carries > 0 ? ((rating / carries) ** 3 * 1e6 * asked) / turns : Infinity,
      () => [
        term('C', 'rating for thrust', rating, 'force', 'shop'),
        term('F', 'what it carries at the equivalent force', carries, 'force', 'brief'),
        term('P_h', 'lead', thread.lead, 'length', 'computed'),
        term('v', 'mean speed', speed, 'linearSpeed', 'brief'),
      ],
    );
  const list = [
    limitOf(
      'buckles',
      'screw buckles',
      'static',
      factor(shelf, 'screw.straight') * buckles,
      'Pushed at its longest free length, a share of Euler’s load since no screw is straight.',
      'share·F_E',
      Infinity,
      () => [
        term(
          'share',
          'of Euler’s load, since no screw is straight',
          factor(shelf, 'screw.straight'),
          'efficiency',
          'shop',
          'screw.straight',
        ),
        term('F_E', 'Euler’s load', buckles, 'force', 'computed'),
      ],
    ),
    limitOf(
      'yields',
      'core of the screw yields',
      'static',
      strengthOf(screw, 'along', shelf) / Math.hypot(1 / area, Math.sqrt(3) * twist),
      'Pushed or pulled and twisted at once (von Mises).',
      'R_e/√((1/A)² + 3·(16·T/(F·π·d₃³))²)',
      Infinity,
      () => [
        term('R_e', 'yield', strengthOf(screw, 'along', shelf), 'stress', 'shop'),
        term('A', 'core', area, 'area', 'computed'),
        term('T', 'torque that raises a newton', work.raise, 'torque', 'computed'),
        term('F', 'a newton', 1, 'force', 'definition'),
        term('d₃', 'core', thread.core, 'length', 'computed'),
      ],
    ),
    limitOf(
      'thrust',
      'bearing is dented by the thrust',
      'static',
      p.collar === 'plain' ? Infinity : bears,
      'Deep-groove ball bearings bear thrust up to a quarter of their static rating (ISO 76 practice).',
      '¼·C₀',
      Infinity,
      () => [term('C₀', 'static rating', bearing.static, 'force', 'shop')],
    ),
  ].filter((l) => Number.isFinite(l.torque));
  if (p.collar === 'bearing')
    list.push(rated('tires', 'bearing wears out', 0.5 * bearing.dynamic, { ...nuts, preload: 0 }));
  if (p.type === 'ball')
    return [
      ...list,
      nutLimit(
        nuts,
        'dents',
        'ball nut is dented',
        p.static,
        'Static load rating of its data sheet, of which the preload may take a part.',
        'C₀',
        () => [term('C₀', 'static rating', p.static, 'force', 'field', 'static')],
      ),
      rated('rolls', 'ball nut wears out', p.dynamic, nuts),
    ];
  const turnsIn = p.nutLength / p.pitch;
  const face = Math.PI * thread.pitchDiameter * thread.depth * turnsIn;
  const shear = Math.PI * p.diameter * 0.6 * p.nutLength;
  // What slides past is the thread's own length; its normal force is larger than the thrust by its lean.
  const slide = Math.hypot(Math.PI * thread.pitchDiameter, thread.lead) / thread.lead;
  const rate = wearRate(nut, screw, shelf);
  const room = WORN * thread.depth;
  const perMetre = (rate * slide) / face;
  const way = speed * asked;
  return [
    ...list,
    nutLimit(
      nuts,
      'strips',
      'threads of the nut shear off',
      (strengthOf(nut, 'along', shelf) / Math.sqrt(3)) * shear,
      'Shear at the root of the nut’s threads, six tenths of its length.',
      'R_m/√3·π·d·0.6·l',
      () => [
        term('R_m', 'strength of the nut', strengthOf(nut, 'along', shelf), 'stress', 'shop'),
        term('d', 'diameter', p.diameter, 'length', 'field', 'diameter'),
        term('l', 'nut length', p.nutLength, 'length', 'field', 'nutLength'),
      ],
    ),
    nutLimit(
      nuts,
      'crushes',
      'threads of the nut are crushed',
      strengthOf(nut, 'along', shelf) * face,
      'Pressure on the flanks that touch, all of its turns alike.',
      'R·π·d₂·H₁·l/P',
      () => [
        term('R', 'strength of the nut', strengthOf(nut, 'along', shelf), 'stress', 'shop'),
        term('d₂', 'pitch diameter', thread.pitchDiameter, 'length', 'computed'),
        term('H₁', 'depth that bears', thread.depth, 'length', 'computed'),
        term('l', 'nut length', p.nutLength, 'length', 'field', 'nutLength'),
        term('P', 'pitch', p.pitch, 'length', 'field', 'pitch'),
      ],
    ),
    ...(rate > 0
      ? [
          limitOf(
            'wears',
            'nut is worn out',
            'life',
            way > 0 ? forceOn(nuts, room / (perMetre * way)) : Infinity,
            'Sliding takes material off the nut’s flanks; worn out is a fifth of their depth (linear wear).',
            'h·A/(k·F·s·v)',
            way > 0 && lasts > 0 ? (room * asked) / (perMetre * lasts * way) : Infinity,
            () => [
              term('h', 'what may be worn off', room, 'length', 'computed'),
              term('A', 'flanks that touch', face, 'area', 'computed'),
              term('k', 'wear, m³/(N·m)', rate, 'count', 'shop'),
              term('F', 'what a nut carries at the equivalent force', lasts, 'force', 'brief'),
              term('s', 'way of sliding over travel', slide, 'ratio', 'computed'),
              term('v', 'mean speed', speed, 'linearSpeed', 'brief'),
            ],
          ),
        ]
      : []),
  ];
}

/**
 * Computes a screw and its nut at a duty along the axis: forces N, ways m.
 *
 * Source: inclined plane for the thread, Euler for buckling, a beam’s first mode for whirling, ISO 281 for rating lives.
 */
export function modelScrew(p: ScrewParams, b: ScrewBuild, at: Duty, shelf: Shelf): ScrewModel {
  const s: Setting = { p, b, at, shelf };
  const { thread, materials, bearing } = b;
  const [screw, nut] = materials;
  const { friction, angle, collar, work, alone } = workOf(s);
  const modulus = elastic(screw, factor(shelf, 'ambient'), shelf);
  const ends = ENDS[p.ends];
  const buckles = eulerLoad(modulus, thread.core, p.free, ends.buckles);
  const whirl = whirlSpeed(modulus, screw.material.density, thread.core, p.free, ends.whirls);
  const nuts = p.nut === 'double' ? 2 : 1;
  const springs = springsOf(s, nuts);
  const stiffness = together(springs);
  const limits = limitsOf(s, work, buckles);
  const pair = nutsOf(p);
  const opens = opensOver(pair) * pair.preload;
  const { density } = screw.material;
  const { across, before, behind } = b.journal;
  const bar = rodMass((p.diameter + thread.core) / 2, b.length, density) + rodMass(across, before + behind, density);
  const sleeve =
    (Math.PI / 4) *
    (p.nutDiameter ** 2 - p.diameter ** 2) *
    p.nutLength *
    (p.type === 'ball' ? 7850 : nut.material.density);
  const perTen = (x: number) => x / 0.01;
  const masses = [bar, sleeve] as const;
  const prices = [
    factor(shelf, p.type === 'ball' ? 'price.ballScrew' : 'price.screw') * b.length * perTen(p.diameter),
    p.type === 'ball'
      ? factor(shelf, 'price.ballNut') * perTen(p.diameter)
      : cutPartPrice(nut, sleeve, 0, shelf) + cuttingPrice(nut, 8, shelf),
  ] as const;
  const bearings = bearingsOf(p);
  const turning = (at.speed * 2 * Math.PI) / thread.lead;
  // Both nuts rub under the preload: one is raised, the other lowered; the collar does not feel it.
  const rubs = pair.preload * (work.raise + work.lower - 2 * collar);
  const endPlay = factor(shelf, 'worm.endPlay');
  const play = p.nut === 'double' ? 0 : p.play;
  const bought = couplingCost(b.coupling);
  const numbers: StageNumbers = {
    ratio: screwRatio(p),
    etaForward: work.forward,
    etaBackward: work.backward,
    drag: rubs + bearings * bearingDrag(bearing, turning, shelf),
    play: [play + endPlay / 2, 0.5 * play, 1.5 * play + endPlay],
    stiffness,
    springs,
    bendTorque: nuts === 2 ? opens : Infinity,
    stiffnessBeyond: nuts === 2 ? together(springsOf(s, 1)) : stiffness,
    inertiaIn:
      (Math.PI / 32) * density * (b.length * fourthPower(p.diameter, thread.core) + (before + behind) * across ** 4) +
      (b.coupling?.inertia ?? 0),
    inertiaOut: nuts * sleeve,
    limits: limits.map((l) => ({ mode: l.mode, time: l.time, torque: l.torque, life: l.life })),
    mass: bar + nuts * sleeve + bearings * bearing.mass + bought.mass,
    money: prices[0] + nuts * prices[1] + bearings * bearing.price + bought.money,
    outside: Math.max(p.nutDiameter, bearing.outside),
    ...(b.coupling && { before: { off: keepsOff(b.coupling) } }),
    length: before + ENDS_APART + b.length + behind,
    maxSpeed: 0.8 * whirl,
    bore: 0,
    beside: false,
    life: shortestLife(limits),
  };
  return {
    ...b,
    friction,
    frictionAngle: angle,
    work,
    threadBackward: alone,
    holds: p.type === 'ball' ? 0 : angle / thread.angle,
    torque: at.torque * work.raise,
    buckles,
    whirl,
    pressure: nutLoad(pair, at.torque) / (Math.PI * thread.pitchDiameter * thread.depth * (p.nutLength / p.pitch)),
    opens,
    collar,
    rubs,
    limits,
    masses,
    prices,
    bearings: { quantity: bearings, mass: bearing.mass, money: bearing.price },
    nuts,
    numbers,
  };
}
