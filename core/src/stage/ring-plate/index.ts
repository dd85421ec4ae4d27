import { pieceFigures } from '../costs.ts';
import { isCrossed } from '../../shop/bearings.ts';
import { minutes } from '../plausible.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import { LOBED } from '../../lobed/suspects.ts';
import { stated } from '../../units/stated.ts';
import { check, type FigureMaker, term, type Check, type Figure, worked, exact } from '../../figure/index.ts';
import { modeChecks, modeFigures } from '../../gear/index.ts';
import { steppedUp } from '../../math/steps.ts';
import { mostTorque, smallestHollow } from '../../lobed/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Course, Duty, StageKind, StageWish } from '../contract.ts';
import { firstThatCarries, nearRatio } from '../choose-candidate.ts';
import { crankEnd } from '../crank-rod.ts';
import { described, startsOf } from '../param.ts';
import { opener, type StageSteps } from '../open.ts';
import { ringPlateFreedom } from './freedom.ts';
import { drawRingPlate, ringPlateShapes, type RingPlateShapes } from './drawing.ts';
import { buildRingPlate, wrongRingPlate, type RingPlateBuild } from './build.ts';
import { modelRingPlate, type RingPlateModel } from './model.ts';
import { wheelBody } from './outlines.ts';
import { ringPlateRatio, ringPlateParams, type RingPlateParams as P } from './params.ts';
import { ringPlateAssembly, ringPlateParts, ringPlatePorts } from './parts.ts';
import { stepped } from '../../math/steps.ts';

function figures(p: P, at: Duty, shelf: Shelf, m: RingPlateModel, make: FigureMaker<RingPlateModel>): Figure[] {
  const g = m.geometry;
  const [Z, e, T] = [
    term('Z', 'pins', p.pins, 'count', 'field', 'pins'),
    term('e', 'eccentricity', p.throw, 'length', 'field', 'throw'),
    term('T', 'peak torque', at.torque, 'torque', 'brief'),
  ];
  const D = term('A', 'crank’s distance', p.distance, 'length', 'field', 'distance');
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: '−Z',
      terms: [Z],
      source: 'the wheel turns back by a pin for each turn of the crank',
    })),
    exact('score', 'Dead-point score', 'efficiency', g.score, () => ({
      formula: 'least over greatest torque at one crank-force limit, over a turn',
      terms: [Z, e, D],
      source: 'equilibrium of all plates, contact forces through the pitch point −Z·e·u; 0 jams',
    })),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.forward,
      () => ({
        formula: '1/(1 + Λ_pins + Λ_bearings)',
        terms: [
          term('Λ_pins', 'loss at the pins', m.lossPins, 'efficiency', 'computed'),
          term('Λ_b', 'loss in the bearings', m.lossBearings, 'efficiency', 'computed'),
        ],
        source: 'Σ µ·F·sliding way for a radian of the wheel, mean over a turn',
      }),
    ),
    make.figure(
      'back',
      'Efficiency, turned back',
      'efficiency',
      (x) => x.backward,
      () => ({
        formula: '1 − Λ',
        terms: [term('Λ', 'all losses', m.lossPins + m.lossBearings, 'efficiency', 'computed')],
        source: 'the same losses, taken from what comes in at the wheel',
      }),
    ),
    exact('hollow', 'Smallest hollow radius', 'length', Number.isFinite(g.hollow) ? g.hollow : 1, () => ({
      formula: '|(R² + e²Z² + 2ReZ·cos)^(3/2)/(R² − e²Z³ − (Z − 1)ReZ·cos)|, least where negative',
      terms: [Z, e],
      source: 'curvature of the path of pin centres; pins must be cut smaller',
    })),
    worked(
      {
        id: 'play',
        name: 'Play',
        quantity: 'smallAngle',
        value: m.numbers.play[0],
        low: m.numbers.play[1],
        high: m.numbers.play[2],
      },
      () => ({
        formula: 'δ/max arm + δ/max arm back, tightest plate, less pins off their places, plus the bearings’ own',
        terms: [
          term('δ', 'gap all round', p.offset, 'length', 'field', 'offset'),
          Z,
          e,
          term('p', 'pins off their places', factor(shelf, 'lobe.place'), 'length', 'shop', 'lobe.place'),
        ],
        source: 'levers of the contact normals about the wheel’s middle; about 2δ/(Z·e)',
      }),
    ),
    ...partLoadFigures(make, m, at),
    ...springFigures(make, m, 'each spring by the energy it stores for a newton metre at the output, mean over a turn'),
    make.figure(
      'crankForce',
      'Worst crank force',
      'force',
      (x) => x.crankForce,
      () => ({
        formula: 'K·T/most torque for a newton',
        terms: [T, D, term('K', 'share of the worst plate', m.crankShare, 'ratio', 'shop', 'lobe.plateShare')],
        source: 'where the plates pass least, dead points themselves left out',
      }),
    ),
    make.figure(
      'pinForce',
      'Worst pin',
      'force',
      (x) => x.pinForce,
      () => ({
        formula: 'least energy of one-sided contacts under the cranks’ push',
        terms: [T],
        source: 'contact equilibrium of a plate in its plane',
      }),
    ),
    make.figure(
      'pressure',
      'Lobe pressure',
      'stress',
      (x) => x.pressure,
      () => ({
        formula: '√(F·E*(1/r + 1/ρ)/(π·b))',
        terms: [
          term('r', 'pin’s radius', p.pin / 2, 'length', 'field', 'pin'),
          term('b', 'thickness', p.width, 'length', 'field', 'width'),
        ],
        source: 'Johnson, Contact Mechanics, 4.2, at the lobe’s tip',
      }),
    ),
    exact('shaking', 'Shaking force', 'force', m.shaking, () => ({
      formula: 'm·e·ω²·|Σ u|',
      terms: [term('m', 'one plate with its bearings', m.masses[0], 'mass', 'computed'), e],
      source: 'at the brief’s speed; even phases cancel it',
    })),
    ...(Number.isFinite(m.bearingLife)
      ? [
          make.figure(
            'life',
            'Life of the eccentric bearings',
            'life',
            (x) => x.bearingLife,
            () => ({
              formula: '(C/P)³·10⁶ turns',
              terms: [term('C', 'dynamic rating', m.bearing.dynamic, 'force', 'shop')],
              source: 'ISO 281; cubic mean over a turn',
            }),
          ),
        ]
      : []),
    ...modeFigures(m.modes, make, (x) => x.modes),
    ...pieceFigures(
      make,
      {
        plates: m.costs.plate,
        bearings: m.costs.bearing,
        wheel: m.costs.wheel,
        cranks: m.costs.crank,
        'rods of the cranks': m.costs.rod,
        pins: m.costs.pin,
      },
      {
        mass: 'volume times density of the shop’s materials',
        money: 'material by mass',
      },
    ),
  ];
}

function checks(p: P, at: Duty, m: RingPlateModel, shelf: Shelf): Check[] {
  const g = m.geometry;
  const smooth =
    p.plates < 3 || p.spread !== 'even'
      ? { path: 'plates', value: 3, also: { spread: 'even' }, label: 'Three even plates' }
      : p.layout === 'one'
        ? { path: 'layout', value: 'both', label: 'Two driven cranks' }
        : undefined;
  const room = m.geometry.drive.distance - m.bearing.outside / 2 - (p.circle / 2 + p.throw + p.pin / 2 + p.offset);
  const gap = Math.min(1e-3, steppedUp(p.offset + Math.max(1e-5, (-m.bind * p.pins * p.throw) / 2 + 2e-6), 1e-5));
  const dead = m.modes.find((x) => x.id === 'dead')!;
  const stronger = shelf.bearings
    .filter((b) => !isCrossed(b))
    .sort((a, b) => a.outside - b.outside)
    .find((b) => b.static > (m.bearing.static * at.torque) / Math.max(1e-9, dead.torque));
  return [
    check({
      id: 'score',
      of: 'score',
      name: 'Passes its dead points',
      figure: g.score,
      limit: 0.3,
      sense: 'min',
      quantity: 'efficiency',
      severity: g.score < 0.02 ? 'stop' : 'warn',
      near: 0.2,
      why:
        g.score < 0.02
          ? 'At some crank angle no plate passes any torque: it jams there.'
          : 'Near a dead point the cranks need much more force for the same torque: it runs rough.',
      mend: smooth,
      advice: 'Take three even plates, or two driven cranks.',
    }),
    check({
      id: 'tips',
      of: 'hollow',
      name: 'Lobes are whole',
      figure: g.profile.pin,
      limit: Number.isFinite(g.hollow) ? g.hollow : 1,
      sense: 'max',
      quantity: 'length',
      near: 0.05,
      why: 'Pins cut for a radius as large as the path’s hollow bend would cut the lobes’ tips away.',
      mend: { path: 'throw', value: Number((p.throw * 0.9).toPrecision(3)), label: 'Less eccentricity' },
    }),
    check({
      id: 'seats',
      name: 'Seats hold the pins',
      figure: wheelBody(p) - (p.circle - p.pin) / 2,
      limit: 0.3 * p.pin,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      near: 0,
      why: 'The wheel’s body must clear the lobes’ tips at R − 2e + r, and what is left of each seat must hold its pin.',
      mend: {
        path: 'throw',
        value: Number(Math.max(5e-5, (0.7 * p.pin + p.offset - 2e-4) / 2 - 1e-6).toPrecision(4)),
        label: 'Less eccentricity',
      },
      advice: 'Take thicker pins or less eccentricity, or hold the pins between two discs.',
    }),
    check({
      id: 'wall',
      name: 'Wall between lobes and bearing',
      figure: room,
      limit: 1e-3,
      sense: 'min',
      quantity: 'length',
      severity: 'warn',
      why: 'The plate is thinnest there and carries all of the crank’s force.',
      mend: {
        path: 'distance',
        value: steppedUp(p.distance + 1e-3 - room + 1e-6, 5e-4),
        label: `Crank at ${stated(steppedUp(p.distance + 1e-3 - room + 1e-6, 5e-4), 'length', 4)}`,
      },
    }),
    check({
      id: 'bind',
      name: 'Turns without binding',
      figure: m.bind,
      limit: 0,
      sense: 'min',
      quantity: 'smallAngle',
      severity: 'warn',
      near: 0,
      why: 'Lobes and pins come out a little off; the gap must be more than that.',
      mend: { path: 'offset', value: gap, label: `Gap ${stated(gap, 'length', 4)}` },
    }),
    check({
      id: 'balance',
      of: 'shaking',
      name: 'Shakes little',
      figure: m.shaking,
      limit: 0.5 * 9.81 * m.numbers.mass,
      sense: 'max',
      quantity: 'force',
      severity: 'warn',
      why: 'Plates not evenly phased shake with m·e·ω².',
      // Two opposite plates share their dead points; three pass one another's.
      ...(p.spread === 'quarter' || p.plates === 1
        ? {
            mend: {
              path: 'spread',
              value: 'even',
              also: { plates: Math.max(3, p.plates) },
              label: `${Math.max(3, p.plates)} plates, even phases`,
            },
          }
        : {}),
    }),
    check({
      id: 'alike',
      name: 'Plates are alike',
      figure: g.alike ? 0 : 1,
      limit: 0.5,
      sense: 'max',
      quantity: 'count',
      severity: 'note',
      near: 0,
      why: g.alike
        ? 'One drawing serves every plate.'
        : 'Each plate’s lobes stand at an angle of their own to its cranks; the parts give it. Number them.',
    }),
    check({
      id: 'bearing-width',
      name: 'Bearing lies inside its plate',
      figure: m.bearing.width,
      limit: p.width + 0.5e-3,
      sense: 'max',
      quantity: 'length',
      near: 0,
      severity: 'warn',
      why: 'Beyond it the bearing rubs on the next plate.',
      mend: {
        path: 'width',
        value: steppedUp(m.bearing.width, 5e-4),
        label: `Plates ${stated(steppedUp(m.bearing.width, 5e-4), 'length', 4)}`,
      },
    }),
    ...modeChecks(
      m.modes.filter((x) => x.id !== 'dead'),
      { width: p.width, module: 1 },
      at,
      'Take thicker or more plates, a larger circle or a stronger material.',
    ).map((c) => ({
      ...c,
      ...(c.mend && { mend: { ...c.mend, label: c.mend.label.replace('Face width', 'Plates') } }),
    })),
    check({
      id: 'dead',
      of: 'dead',
      name: 'Crank bearings hold',
      figure: at.torque,
      limit: dead.torque,
      sense: 'max',
      quantity: 'torque',
      why: dead.why,
      ...(g.score < 0.02
        ? { mend: smooth }
        : stronger && { mend: { path: 'bearing', value: stronger.id, label: `Bearing ${stronger.name}` } }),
      advice: 'Take larger bearings or more plates.',
    }),
  ];
}

/** Torque that the plates can pass over a turn of the crank, all and each, at its bearings' static rating. */
function courses(p: P, { geometry: g, bearing }: RingPlateBuild): Course[] {
  const n = g.course.length;
  const share = (k: number) =>
    Float64Array.from({ length: n }, (_, i) => {
      const crank = (2 * Math.PI * i) / (n - 1);
      const u = crank + g.drive.phases[k]!;
      const f = mostTorque(g.drive, crank).plates[k]!;
      const across = Math.cos(u) * (f.first[1] + f.second[1]) - Math.sin(u) * (f.first[0] + f.second[0]);
      return -p.pins * p.throw * bearing.static * across;
    });
  return [
    { id: 'passes', name: 'Can pass', quantity: 'torque', values: g.course.map((t) => t * bearing.static) },
    ...g.drive.phases.slice(0, 3).map((_, k) => ({
      id: `plate${k}`,
      name: `By plate ${k + 1}`,
      quantity: 'torque' as const,
      values: share(k),
    })),
  ];
}

const steps: StageSteps<P, RingPlateBuild, RingPlateModel, RingPlateShapes> = {
  usual: {
    efficiency: { plastic: [0.5, 0.95], metal: [0.7, 0.96] },
    play: { plastic: minutes(2, 90), metal: minutes(0.3, 30) },
    because: {
      efficiency: 'Losses go with sliding on pins; sleeves take most of them.',
      play: 'Play goes with the gap over Z·e: a small eccentricity makes much of it.',
    },
  },
  rigid: [
    ['materialP', 'Plates are stiff'],
    ['materialW', 'Pins are stiff'],
    ['materialH', 'Wheel and housing are stiff'],
  ],
  build: buildRingPlate,
  wrong: wrongRingPlate,
  kinematics: (p) => ({
    ratio: ringPlateRatio(p),
    members: [
      { name: 'crank', role: 'input' },
      { name: 'wheel', role: 'output' },
      { name: 'frame', role: 'fixed' },
    ],
    orders: [
      { name: 'crank', perTurn: p.pins },
      { name: 'output', perTurn: 1 },
      { name: 'pins', perTurn: p.pins * p.pins },
      { name: 'lobes', perTurn: p.pins * (p.pins + 1) },
    ],
  }),
  model: modelRingPlate,
  figures,
  checks: (p, at, shelf, m) => checks(p, at, m, shelf),
  shapes: ringPlateShapes,
  draw: drawRingPlate,
  courses,
  parts: ringPlateParts,
  ports: ringPlatePorts,
  assembly: ringPlateAssembly,
  freedom: ringPlateFreedom,
};

/** A stage of usual proportions: three even plates between two driven cranks. */
/** Shaft that most small motors have, m. */
const MOTOR_SHAFT = 5e-3;

function base(pins: number, circle: number, want: Pick<StageWish, 'shelf'>): P | undefined {
  const R = circle / 2;
  const e = stepped(Math.min(2e-3, (0.5 * R) / pins), 5e-5);
  if (e < 2e-4) return undefined;
  const hollow = smallestHollow({ pins, circle: R, pin: 0, throw: e });
  const pin = Math.floor(Math.min(0.6 * circle * Math.sin(Math.PI / pins), 1.4 * hollow, 6e-3) * 2e3 + 1e-6) / 2e3;
  const bearing = want.shelf.bearings.find((b) => b.id === (circle < 0.035 ? '688' : '61800'));
  if (pin < 1e-3 || !bearing) return undefined;
  return {
    ...startsOf(ringPlateParams),
    pins,
    circle,
    pin,
    throw: e,
    distance: steppedUp(R + e + pin / 2 + bearing.outside / 2 + 2.5e-3, 5e-4),
    width: Math.max(5e-3, steppedUp(0.12 * circle, 5e-4)),
    bearing: bearing.id,
    bore: Math.min(8e-3, stepped(0.3 * circle, 1e-3)),
    // Two that drive must be driven in step: one and an idle one need nothing more, and walls that bend no more for it.
    layout: 'idle',
    wall: 4e-3,
    shaft: crankEnd(e, bearing.bore) >= MOTOR_SHAFT ? MOTOR_SHAFT : 0,
  };
}

function* candidates(want: StageWish): Generator<P> {
  const pins = Math.round(Math.abs(want.ratio));
  if (pins < 6 || pins > 100) return;
  for (const circle of [0.025, 0.03, 0.04, 0.05, 0.06, 0.08, 0.1, 0.14]) {
    const p = base(pins, circle, want);
    if (p && 2 * p.distance + 0.03 <= want.size) yield p;
  }
}

/** A wish for a ratio that a stage is started with: it can be made beyond them, but nobody would begin there. */
const startable = (want: StageWish): StageWish => nearRatio(want, 8, 60);

/** A plain stage as near to a wish as one can be, where none that is usual can be made. */
const nearest = (want: StageWish): P => base(Math.round(startable(want).ratio), 0.06, want) ?? base(12, 0.06, want)!;

/** Plates with inner lobes that move in a circle round a wheel of pins. */
export const ringPlate: StageKind<P> = {
  id: 'ring-plate',
  name: 'Ring plate',
  summary: 'Lobed plates moving in a circle round a wheel of pins: flat, much ratio, room in the middle.',
  suspects: LOBED,
  ...described(ringPlateParams),
  defaults: (want) => firstThatCarries(ringPlate, startable(want)) ?? nearest(want),
  open: opener(steps, ringPlateParams),
  passage: 'bore',
  candidates,
};

export type { RingPlateParams } from './params.ts';
