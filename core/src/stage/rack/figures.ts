import { exact, term, worked, type Figure, type FigureMaker } from '../../figure/index.ts';
import { meshModeWorkings, meshFigures } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { one, pieceFigures } from '../costs.ts';
import { limitFigures } from '../limits.ts';
import { RUNS } from '../output-units.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import { springsCost, springsOn } from '../split-wheel.ts';
import { takenOutFigures } from '../taken-out.ts';
import type { RackModel } from './model.ts';
import type { RackParams } from './params.ts';
import type { RollersLoaded } from './rollers-carry.ts';

/** What rollers that are set in hold and cost; nothing where they only touch. */
function setInFigures(p: RackParams, shelf: Shelf, r: RollersLoaded, make: FigureMaker<RackModel>): Figure[] {
  if (p.interference === 0) return [];
  return [
    make.figure(
      'opens',
      'Force that lifts the rollers behind off',
      'force',
      (x) => x.rollers!.lets,
      () => ({
        formula: '2·n·k·δ',
        terms: [
          term('n', 'rollers that carry on one side at the least', r.carry, 'count', 'computed'),
          term('k', 'stiffness of a roller on its pin', r.one, 'stiffnessPerLength', 'computed'),
          term('δ', 'set in by', p.interference, 'length', 'field', 'interference'),
        ],
        source: 'springs in front and behind give alike until those behind are free',
      }),
    ),
    make.figure(
      'braking',
      'Friction of rollers set in',
      'force',
      (x) => x.rollers!.drag,
      () => ({
        formula: 'µ·F_v',
        terms: [
          term('µ', 'friction of rollers', factor(shelf, 'lobe.roll'), 'count', 'shop', 'lobe.roll'),
          term('F_v', 'press in front and behind together', r.lets, 'force', 'computed'),
        ],
        source: 'all that press roll all the time',
      }),
    ),
  ];
}

/** Every figure of a rack stage with its working. */
export function rackFigures(
  p: RackParams,
  at: Duty,
  shelf: Shelf,
  m: RackModel,
  make: FigureMaker<RackModel>,
): Figure[] {
  const g = m.geometry;
  const z = term('z', p.form === 'rollers' ? 'rollers' : 'teeth', p.z, 'count', 'field', 'z');
  const mod = term('m', 'module', p.module, 'length', 'field', 'module');
  const r = term('r', 'pitch radius', g.radius, 'length', 'computed');
  const F = term('F', 'peak force along the rack', at.torque, 'force', 'brief');
  const slope = Math.tan(g.angle);
  const held = p.takenOut === 'split' || p.takenOut === 'spring';
  return [
    exact('travel', 'Travel of a turn', 'length', 2 * Math.PI * g.radius, () => ({
      formula: 'π·m·z/cos β',
      terms: [mod, z, term('β', 'helix', p.form === 'involute' ? p.helix : 0, 'angle', 'field', 'helix')],
      source: 'rolling without slip on the pitch circle',
    })),
    exact('axis', 'Pinion’s axis over the pitch line', 'length', g.axis, () => ({
      formula: 'r + x·m',
      terms: [r, term('x', 'shift', p.form === 'rollers' ? 0 : p.shift, 'count', 'field', 'shift'), mod],
      source: 'ISO 21771',
    })),
    exact('contact', p.form === 'rollers' ? 'Rollers that carry at once' : 'Contact ratio', 'count', g.contact, () =>
      p.form === 'rollers'
        ? {
            formula: 'θ·z/(2π)',
            terms: [z, term('θ', 'angle over which a roller touches a flank', g.rollers!.reach, 'angle', 'computed')],
            source: 'cycloid and its parallel curve, cut off at the tips',
          }
        : {
            formula: '(√(r_a² − (r·cos α_t)²) − r·sin α_t + min((h_a − x)·m/sin α_t, r·sin α_t))/(π·m_t·cos α_t)',
            terms: [
              term('h_a', 'addendum of the rack over the module', g.mesh!.pair.g1.addendum, 'count', 'definition'),
              term('x', 'shift', p.shift, 'count', 'field', 'shift'),
              term('m_t', 'module in the transverse section', g.mesh!.pair.s1.mt, 'length', 'computed'),
              r,
              term('r_a', 'tip radius', g.tip, 'length', 'computed'),
              term('α_t', 'pressure angle', g.angle, 'angle', 'computed'),
              mod,
            ],
            source: 'length of the line of action, ended by the pinion’s tips and the rack’s',
          },
    ),
    exact('length', 'Length of the rack', 'length', g.length, () => ({
      formula: 's + what the pinion covers, in whole teeth',
      terms: [
        term('s', 'stroke', p.stroke, 'length', 'field', 'stroke'),
        term('p', 'pitch', g.pitch, 'length', 'computed'),
        term('n', 'pieces', g.pieces, 'count', 'computed'),
      ],
      source: 'two teeth beyond the contact at either end together',
    })),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.efficiency,
      () =>
        p.form === 'rollers'
          ? {
              formula: '1 + 4·µ·ln(cos(θ/2))/θ',
              terms: [
                term('µ', 'friction of rollers', factor(shelf, 'lobe.roll'), 'count', 'shop', 'lobe.roll'),
                term('θ', 'angle at the end of a contact', g.rollers!.reach, 'angle', 'computed'),
              ],
              source:
                '2µ·tan(θ/2), mean over a contact: rollers’ friction seen at their outside, against the way along the flank',
            }
          : {
              formula: '1 − µ·H_v',
              terms: [
                term('µ', 'friction of the teeth', m.load!.friction, 'count', 'computed'),
                term('H_v', 'loss of the mesh', g.mesh!.loss, 'count', 'computed'),
              ],
              source: 'ISO/TR 14179-2, on a wheel of ten million teeth',
            },
    ),
    worked(
      {
        id: 'play',
        name: 'Play along the rack',
        quantity: 'smallLength',
        value: m.numbers.play[0],
        low: m.numbers.play[1],
        high: m.numbers.play[2],
      },
      () =>
        p.form === 'rollers'
          ? {
              formula: '0; at most max(0, 2·(Δ − δ) + Δa·tan(π/z))',
              terms: [
                term('δ', 'set in by', p.interference, 'length', 'field', 'interference'),
                term('Δ', 'profile as made', factor(shelf, 'lobe.profile'), 'length', 'shop', 'lobe.profile'),
                term('Δa', 'lies straight within', p.straight, 'length', 'field', 'straight'),
                z,
              ],
              source: 'rollers touch both flanks; one on either side at the least, a pitch apart, lean by π/z together',
            }
          : p.takenOut !== 'none'
            ? {
                formula: held ? '0 while the springs hold' : '0.01 to 0.03 mm, set by hand',
                terms: [term('j', 'play of the mesh before', m.before, 'length', 'computed')],
                source: 'force balance on both flanks; usual practice of fitting',
              }
            : {
                formula: '(A_s1 + A_s2)/cos β + j_b/2; more or less by thickness and by 2·Δa·tan α_t',
                terms: [
                  term('β', 'helix', p.helix, 'angle', 'field', 'helix'),
                  term('j_b', 'play of bearings and shafts', factor(shelf, 'gear.tilt'), 'length', 'shop', 'gear.tilt'),
                  term('A_s1', 'thinner, pinion', p.allowance1, 'length', 'field', 'allowance1'),
                  term('A_s2', 'thinner, rack', p.allowance2, 'length', 'field', 'allowance2'),
                  term('Δa', 'lies straight within', p.straight, 'length', 'field', 'straight'),
                ],
                source: 'ISO 21771: circumferential backlash; a rack that comes nearer takes 2·Δa·tan α_t of it',
              },
    ),
    exact('perCentre', 'Play for a tenth of a millimetre of centre', 'length', 2e-4 * slope, () => ({
      formula: '2·Δa·tan α_t',
      terms: [
        term('Δa', 'centre', 1e-4, 'length', 'definition'),
        term('α_t', 'pressure angle', g.angle, 'angle', 'computed'),
      ],
      source: 'ISO 21771',
    })),
    ...(m.rollers ? setInFigures(p, shelf, m.rollers, make) : takenOutFigures(p, g.angle, m, make)),
    ...partLoadFigures(make, m, at, RUNS),
    ...springFigures(
      make,
      m,
      'teeth or rollers, the separating force F·tan α on what holds the axes, and the shaft: bent over its overhang 3E·I/L³, twisted G·I_p/L over r²',
      RUNS,
    ),
    ...(g.mesh
      ? meshFigures('1', 'pair', g.mesh, make, (x: RackModel) => x.load!, m.load!, F).filter(
          (f) => f.id !== 'contact-1' && f.id !== 'working-1',
        )
      : []),
    make.figure(
      'radial',
      'Force that lifts the pinion off',
      'force',
      (x) => x.radial,
      () => ({
        formula: m.load ? 'F_t·tan α_wt' : 'F·tan α_t',
        terms: m.load
          ? [
              term('F_t', 'tooth force', m.load.force, 'force', 'computed'),
              term('α_wt', 'working angle', g.mesh!.pair.working, 'angle', 'computed'),
            ]
          : [F, term('α_t', 'pressure angle', g.angle, 'angle', 'computed')],
        source: 'equilibrium',
      }),
    ),
    ...(p.helix > 0 && p.double === 'no' && p.form === 'involute'
      ? [
          make.figure(
            'axial',
            'Thrust on the pinion',
            'force',
            (x) => x.axial,
            () => ({
              formula: 'F·tan β',
              terms: [F, term('β', 'helix', p.helix, 'angle', 'field', 'helix')],
              source: 'equilibrium',
            }),
          ),
        ]
      : []),
    ...limitFigures(
      m.limits,
      make,
      (x) => x.limits,
      RUNS,
      new Map(
        g.mesh && m.load
          ? // What rides over springs lets go by their force.
            meshModeWorkings('1', g.mesh, m.load, at).filter(([id]) => p.takenOut === 'none' || id !== 'skip-1')
          : [],
      ),
    ),
    ...pieceFigures(
      make,
      {
        pinion: one(m.masses[0], m.prices[0]),
        'rack, all of its length': one(m.masses[1], m.prices[1]),
        springs: springsCost(p.form === 'involute' ? springsOn(p.takenOut) : 0),
      },
      {
        mass: 'volume times density',
        money: 'material by mass, work by tooth',
      },
    ),
  ];
}
