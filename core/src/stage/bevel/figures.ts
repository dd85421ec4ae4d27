import { exact, term, worked, type Figure, type FigureMaker } from '../../figure/index.ts';
import { meshModeWorkings, meshFigures } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { one, pieceFigures } from '../costs.ts';
import { limitFigures } from '../limits.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import type { BevelModel } from './model.ts';
import type { BevelParams } from './params.ts';

const ISO = 'ISO 23509, straight bevel gears';
/** Play that a shim is told for, m. */
const TOLD = 1e-5;

/** Every figure of a bevel pair with its working. */
export function bevelFigures(
  p: BevelParams,
  at: Duty,
  shelf: Shelf,
  m: BevelModel,
  make: FigureMaker<BevelModel>,
): Figure[] {
  const g = m.geometry;
  const z1 = term('z₁', 'teeth, pinion', p.z1, 'count', 'field', 'z1');
  const z2 = term('z₂', 'teeth, wheel', p.z2, 'count', 'field', 'z2');
  const mod = term('m_e', 'outer module', p.module, 'length', 'field', 'module');
  const Re = term('R_e', 'outer cone distance', g.outer, 'length', 'computed');
  const T = term('T', 'peak torque at the wheel', at.torque, 'torque', 'brief');
  const Ft = term('F_t', 'tooth force', m.tangent, 'force', 'computed');
  const alpha = term('α', 'pressure angle', p.pressure, 'angle', 'field', 'pressure');
  const deltaOf = (i: 0 | 1) => (i ? 'δ₂' : 'δ₁');
  const delta = (i: 0 | 1) =>
    term(deltaOf(i), i ? 'cone, wheel' : 'cone, pinion', g.cones[i].pitch, 'angle', 'computed');
  const names = ['pinion', 'wheel'] as const;
  const each = (make_: (i: 0 | 1) => Figure): Figure[] => ([0, 1] as const).map(make_);
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: 'z₂/z₁',
      terms: [z1, z2],
      source: 'definition',
    })),
    ...each((i) =>
      exact(`cone${i + 1}`, `Pitch cone, ${names[i]}`, 'angle', g.cones[i].pitch, () => ({
        formula: i ? 'Σ − δ₁' : 'atan(sin Σ/(z₂/z₁ + cos Σ))',
        terms: [...(i ? [delta(0)] : []), term('Σ', 'shaft angle', p.shaft, 'angle', 'field', 'shaft'), z1, z2],
        source: ISO,
      })),
    ),
    exact('distance', 'Outer cone distance', 'length', g.outer, () => ({
      formula: 'm_e·z₁/(2·sin δ₁)',
      terms: [mod, z1, delta(0)],
      source: ISO,
    })),
    exact('meanModule', 'Module at mid-face', 'length', g.meanModule, () => ({
      formula: 'm_e·(R_e − b/2)/R_e',
      terms: [mod, Re, term('b', 'face width', p.width, 'length', 'field', 'width')],
      source: ISO,
    })),
    ...each((i) =>
      exact(`virtual${i + 1}`, `Virtual teeth, ${names[i]}`, 'count', g.cones[i].virtual, () => ({
        formula: i ? 'z₂/cos δ₂' : 'z₁/cos δ₁',
        terms: [i ? z2 : z1, delta(i)],
        source: 'back cone unrolled (Tredgold)',
      })),
    ),
    ...each((i) =>
      exact(`mount${i + 1}`, `Mounting distance, ${names[i]}`, 'length', g.cones[i].mount, () => ({
        formula: `R_e·cos ${deltaOf(i)} + h_f·sin ${deltaOf(i)} + hub`,
        terms: [
          Re,
          delta(i),
          term(
            'h_f',
            'dedendum at the outer end',
            g.outer * Math.tan(g.cones[i].pitch - g.cones[i].root),
            'length',
            'computed',
          ),
          term('hub', 'hub', i ? p.hub2 : p.hub1, 'length', 'field', i ? 'hub2' : 'hub1'),
        ],
        source: 'from the crossing of the axes to the back of the hub',
      })),
    ),
    ...each((i) =>
      exact(
        `shim${i + 1}`,
        `Shim for 0.01 mm of play, ${names[i]}`,
        'length',
        TOLD / (2 * Math.tan(p.pressure) * Math.sin(g.cones[i].pitch)),
        () => ({
          formula: `Δj/(2·tan α·sin ${deltaOf(i)})`,
          terms: [term('Δj', 'play', TOLD, 'length', 'definition'), alpha, delta(i)],
          source: 'a wheel moved along its axis, towards the apex',
        }),
      ),
    ),
    ...each((i) =>
      exact(`tip${i + 1}`, `Tip ⌀, ${names[i]}`, 'length', 2 * g.cones[i].over, () => ({
        formula: `m_e·${i ? 'z₂' : 'z₁'} + 2·h_a·cos ${deltaOf(i)}`,
        terms: [
          mod,
          i ? z2 : z1,
          delta(i),
          term(
            'h_a',
            'addendum at the outer end',
            g.outer * Math.tan(g.cones[i].tip - g.cones[i].pitch),
            'length',
            'computed',
          ),
        ],
        source: ISO,
      })),
    ),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.load.efficiency,
      () => ({
        formula: '1 − µ·H_v',
        terms: [
          term('µ', 'friction of the teeth', m.load.friction, 'count', 'computed'),
          term('H_v', 'loss of the virtual pair', g.mesh.loss, 'count', 'computed'),
        ],
        source: 'ISO/TR 14179-2 on the virtual spur pair',
      }),
    ),
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
        formula: '(j + j_b/2)/r_m2; more or less by thickness and by 2·Δa·tan α·sin δ of either',
        terms: [
          term('j', 'play at mid-face', g.mesh.pair.play, 'length', 'computed'),
          term('j_b', 'play of bearings and shafts', factor(shelf, 'gear.tilt'), 'length', 'shop', 'gear.tilt'),
          term('r_m2', 'mean radius, wheel', g.cones[1].mean, 'length', 'computed'),
          term('Δa', 'mounting distance as made', factor(shelf, 'bevel.place'), 'length', 'shop', 'bevel.place'),
        ],
        source: 'shims at either wheel set it',
      }),
    ),
    ...partLoadFigures(make, m, at),
    ...springFigures(
      make,
      m,
      'mesh by its radius squared, the separating force F·tan α on the housing and on the bearing that takes the thrust, the hub',
    ),
    ...meshFigures('1', 'virtual pair', g.mesh, make, (x: BevelModel) => x.load, m.load, T).filter(
      (f) => f.id !== 'force-1' && f.id !== 'working-1',
    ),
    make.figure(
      'tangent',
      'Tooth force at mid-face',
      'force',
      (x) => x.tangent,
      () => ({
        formula: 'T/r_m2',
        terms: [T, term('r_m2', 'mean radius, wheel', g.cones[1].mean, 'length', 'computed')],
        source: 'equilibrium',
      }),
    ),
    ...each((i) =>
      make.figure(
        `axial${i + 1}`,
        `Thrust on the ${names[i]}`,
        'force',
        (x) => x.axial[i],
        () => ({
          formula: `F_t·tan α·sin ${deltaOf(i)}`,
          terms: [Ft, alpha, delta(i)],
          source: 'equilibrium; it pushes out of the mesh',
        }),
      ),
    ),
    ...each((i) =>
      make.figure(
        `radial${i + 1}`,
        `Radial force on the ${names[i]}`,
        'force',
        (x) => x.radial[i],
        () => ({ formula: `F_t·tan α·cos ${deltaOf(i)}`, terms: [Ft, alpha, delta(i)], source: 'equilibrium' }),
      ),
    ),
    ...limitFigures(m.limits, make, (x) => x.limits, undefined, new Map(meshModeWorkings('1', g.mesh, m.load, at))),
    ...pieceFigures(
      make,
      { pinion: one(m.masses[0], m.prices[0]), wheel: one(m.masses[1], m.prices[1]) },
      {
        mass: 'frustums of the pitch cones and hubs by the share left, times density',
        money: 'material by mass, twice the work of a spur wheel’s tooth',
      },
    ),
  ];
}
