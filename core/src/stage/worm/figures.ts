import { pieceFigures } from '../costs.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import { reducedModulus } from '../../contact/hertz-point.ts';
import {
  elastic,
  flankCrush,
  modeFigures,
  rootStrength,
  spanOver,
  spanTeeth,
  warming,
  wheelFigures,
  type ModeWorkings,
} from '../../gear/index.ts';
import { term, type Figure, type FigureMaker, worked, exact } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { furtherApart } from './geometry.ts';
import type { WormModel } from './model.ts';
import type { WormParams } from './params.ts';

/** What a worm stage is told to be worth, each with its working. */
export function wormFigures(
  p: WormParams,
  at: Duty,
  shelf: Shelf,
  m: WormModel,
  make: FigureMaker<WormModel>,
): Figure[] {
  const g = m.geometry;
  const x = g.mesh;
  const lead = term('γ', 'lead angle', g.lead, 'angle', 'computed');
  const rho = term('ρ′', 'friction angle, atan(µ/cos α)', m.frictionAngle, 'angle', 'computed');
  const mu =
    p.frictionBy === 'given'
      ? term('µ', 'friction', p.friction, 'count', 'field', 'friction')
      : term('µ', 'friction', m.friction, 'count', 'shop', 'worm.friction');
  const sizes = [
    term('m', 'axial module', p.module, 'length', 'field', 'module'),
    term('q', 'diameter quotient', p.quotient, 'count', 'field', 'quotient'),
    term('z₁', 'starts', p.starts, 'count', 'field', 'starts'),
    term('z₂', 'teeth', p.z2, 'count', 'field', 'z2'),
  ];
  const alpha = term('α_n', 'pressure angle', p.pressure, 'angle', 'field', 'pressure');
  const T = term('T', 'peak torque', at.torque, 'torque', 'brief');
  const ambient = factor(shelf, 'ambient');
  const [worm, wheel] = m.materials;
  const reduced = reducedModulus(
    elastic(worm, ambient, shelf),
    worm.poisson,
    elastic(wheel, ambient, shelf),
    wheel.poisson,
  );
  const stands = (i: 0 | 1): number =>
    rootStrength(m.materials[i], m.rootTemperature, at.reverses === true, shelf, g.sections[i].chord * x.wheel.module)
      .peak;
  const breaks = (i: 0 | 1) => ({
    formula: 'T·σ_P/σ_F',
    terms: [
      T,
      term('σ_P', 'what the root stands', stands(i), 'stress', 'computed'),
      term('σ_F', 'root stress', m.roots[i] * at.torque, 'stress', 'computed'),
    ],
  });
  const lifting = () => ({
    formula: 'F_s·r₂·(cos α_n·cos γ − µ·sin γ)/sin α_n',
    terms: [
      term('F_s', 'spring', p.springForce, 'force', 'field', 'springForce'),
      term('r₂', 'radius of the wheel', x.s2.r, 'length', 'computed'),
      alpha,
      lead,
      mu,
    ],
  });
  const how: ModeWorkings = new Map([
    ['lift', lifting],
    ['break-worm', () => breaks(0)],
    ['break-wheel', () => breaks(1)],
    [
      'crush',
      () => ({
        formula: 'T·(p_P/p)²',
        terms: [
          T,
          term(
            'p_P',
            'what the softer flank bears',
            Math.min(flankCrush(worm, m.flankTemperature, shelf), flankCrush(wheel, m.flankTemperature, shelf)),
            'stress',
            'computed',
          ),
          term('p', 'flank pressure, run in', m.flank, 'stress', 'computed'),
        ],
      }),
    ],
    [
      'skip',
      () => ({
        formula: 'T·k·max(0, h)/F_a',
        terms: [
          T,
          term('k', 'housing', factor(shelf, 'gear.housing'), 'stiffnessPerLength', 'shop', 'gear.housing'),
          term('h', 'working depth', x.s1.ra + x.s2.ra - x.centre, 'length', 'computed'),
          term('F_a', 'separating force', m.apart, 'force', 'computed'),
        ],
      }),
    ],
    [
      'shaft',
      () => ({
        formula: 'T·R_e·(π·d³/32)/√((F_a·L/4 + F_t2·r₁/2)² + (F_t1·L/4)²)',
        terms: [
          T,
          term('R_e', 'what the shaft stands', m.shaftStands, 'stress', 'computed'),
          term('d', 'shaft', m.shaftAcross, 'length', 'computed'),
          term('F_a', 'separating force', m.apart, 'force', 'computed'),
          term('F_t2', 'along the worm', m.tangent, 'force', 'computed'),
          term('F_t1', 'along the worm’s circle', m.thrust, 'force', 'computed'),
          term('r₁', 'radius of the worm', x.s1.r, 'length', 'computed'),
          term('L', 'between the bearings', p.span, 'length', 'field', 'span'),
        ],
      }),
    ],
    [
      'thrust',
      () => ({
        formula: '¼·C₀·r₂',
        terms: [
          term('C₀', 'static rating', m.bearing.static, 'force', 'shop'),
          term('r₂', 'radius of the wheel', x.s2.r, 'length', 'computed'),
        ],
      }),
    ],
  ]);
  const force = term('F_t2', 'force along the wheel’s circle', m.tangent, 'force', 'computed');
  const ISO = 'ISO 1122-2 and ISO 21771 for an involute (type I) worm';
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: `${m.numbers.ratio < 0 ? '−' : ''}z₂/z₁; the sign by the hand of the thread`,
      terms: sizes.slice(2),
      source: 'definition',
    })),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (w) => w.forward,
      () => ({
        formula: 'tan γ/tan(γ + ρ′)',
        terms: [lead, rho, mu],
        source: 'wedge with friction; tan ρ′ = µ/cos α_n',
      }),
    ),
    make.figure(
      'back',
      'Driven back',
      'efficiency',
      (w) => w.backward,
      () => ({
        formula: 'tan(γ − ρ′)/tan γ',
        terms: [lead, rho, mu],
        source: 'wedge with friction; zero or less holds by itself at rest',
        note: 'Vibration lowers friction: what holds at rest can creep or run back. Nobody’s safety may rest on it; use a brake.',
      }),
    ),
    make.figure(
      'hold',
      'Holds with',
      'angle',
      (w) => w.frictionAngle - g.lead,
      () => ({
        formula: 'ρ′ − γ',
        terms: [rho, lead],
        source: 'margin of the friction angle over the lead angle; below zero it turns back',
      }),
    ),
    exact('lead', 'Lead angle', 'angle', g.lead, () => ({
      formula: 'atan(z₁/q)',
      terms: sizes.slice(1, 3),
      source: ISO,
    })),
    exact('centre', 'Centre distance', 'length', g.centre, () => ({
      formula: furtherApart(p) === 0 ? 'm(q + z₂ + 2x)/2' : 'm(q + z₂ + 2x)/2 + Δa',
      terms: [
        ...sizes,
        term('x', 'shift of the wheel', p.x2, 'count', 'field', 'x2'),
        ...(furtherApart(p) === 0
          ? []
          : [term('Δa', 'centres further', p.centreExtra, 'length', 'field', 'centreExtra')]),
      ],
      source: `${ISO}; what the axes are set to`,
    })),
    exact('worm-d', 'Worm’s reference ⌀', 'length', 2 * x.s1.r, () => ({
      formula: 'q·m',
      terms: sizes.slice(0, 2),
      source: ISO,
    })),
    exact('worm-tip', 'Tip ⌀, worm', 'length', 2 * x.s1.ra, () => ({
      formula: 'm(q + 2·h_a)',
      terms: [...sizes.slice(0, 2), term('h_a', 'addendum over the module', p.addendum, 'count', 'field', 'addendum')],
      source: ISO,
    })),
    exact('advance', 'Lead of the thread', 'length', g.advance, () => ({
      formula: 'π·m·z₁',
      terms: [sizes[0]!, sizes[2]!],
      source: ISO,
    })),
    exact('contact', 'Contact ratio', 'count', x.contact, () => ({
      formula: 'h/sin α_n/(π·m_n·cos α_n)',
      terms: [
        term('h', 'rise of the line of action between both tips', x.high - x.low, 'length', 'computed'),
        term('m_n', 'normal module', x.wheel.module, 'length', 'computed'),
        term('α_n', 'pressure angle', p.pressure, 'angle', 'field', 'pressure'),
      ],
      source: 'line of action of crossed helical wheels: the cut of both planes of action',
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
        formula: p.playBy === 'spring' ? 's/(2·r₂)' : '(j_n/(cos α_n·cos γ) + s/2)/r₂',
        terms: [
          ...(p.playBy === 'spring'
            ? []
            : [alpha, lead, term('j_n', 'normal play as drawn', g.normalPlay, 'length', 'computed')]),
          term('r₂', 'radius of the wheel', x.s2.r, 'length', 'computed'),
          term('s', 'end play of the worm', factor(shelf, 'worm.endPlay'), 'length', 'shop', 'worm.endPlay'),
          ...(p.playBy === 'spring'
            ? []
            : [term('δ_a', 'centre distance as made', factor(shelf, 'worm.centre'), 'length', 'shop', 'worm.centre')]),
        ],
        source:
          p.playBy === 'spring'
            ? 'the spring keeps both flanks in touch; half of what the worm’s shaft moves along its axis is seen'
            : 'j_n = (A_s1 + A_s2)·cos α_n + 2Δa·sin α_n, exact for crossed helical wheels',
      }),
    ),
    ...(p.playBy === 'spring'
      ? []
      : [
          exact('normal', 'Normal play as drawn', 'length', g.normalPlay, () => ({
            formula:
              p.playBy === 'dual-lead'
                ? '(A_s1 + A_s2)·cos α_n − s·δ·cos α_n·cos γ'
                : '(A_s1 + A_s2)·cos α_n + 2Δa·sin α_n',
            terms: [
              alpha,
              lead,
              term('A_s1', 'thinner, worm', p.allowance1, 'length', 'field', 'allowance1'),
              term('A_s2', 'thinner, wheel', p.allowance2, 'length', 'field', 'allowance2'),
              ...(p.playBy === 'dual-lead'
                ? [
                    term('s', 'worm moved', p.wormShift, 'length', 'field', 'wormShift'),
                    term('δ', 'leads differ', p.leadDifference, 'efficiency', 'field', 'leadDifference'),
                  ]
                : [term('Δa', 'centres further', p.centreExtra, 'length', 'field', 'centreExtra')]),
            ],
            source: 'what a feeler gauge finds',
          })),
        ]),
    ...partLoadFigures(make, m, at),
    ...springFigures(
      make,
      m,
      'teeth, support along the worm, what the separating force wedges apart, and the hub, in series',
    ),
    make.figure(
      'thrust1',
      'Thrust on the worm',
      'force',
      (w) => w.tangent,
      () => ({
        formula: 'T/r₂',
        terms: [
          term('T', 'peak torque', at.torque, 'torque', 'brief'),
          term('r₂', 'radius of the wheel', x.s2.r, 'length', 'computed'),
        ],
        source: 'equilibrium; the force along the wheel’s circle',
      }),
    ),
    make.figure(
      'thrust2',
      'Thrust on the wheel',
      'force',
      (w) => w.thrust,
      () => ({
        formula: 'F_t2·tan(γ + ρ′)',
        terms: [force, lead, rho],
        source: 'equilibrium; the force along the worm’s circle',
      }),
    ),
    make.figure(
      'apart',
      'Separating force',
      'force',
      (w) => w.apart,
      () => ({
        formula: 'F_t2·sin α_n/(cos α_n·cos γ − µ·sin γ)',
        terms: [force, alpha, lead, mu],
        source: 'equilibrium',
      }),
    ),
    make.figure(
      'sliding',
      'Sliding speed',
      'linearSpeed',
      (w) => w.sliding,
      () => ({
        formula: 'ω₁·r₁/cos γ',
        terms: [
          term('ω₁', 'speed of the worm', at.speed * Math.abs(m.numbers.ratio), 'speed', 'brief'),
          lead,
          term('r₁', 'radius of the worm', x.s1.r, 'length', 'computed'),
        ],
        source: 'velocity at the pitch point',
      }),
    ),
    make.figure(
      'flank',
      'Flank pressure, run in',
      'stress',
      (w) => w.flank,
      () => ({
        formula: '√(F_n·K·E_r·(1/ρ₁ + 1/ρ₂)/(π·b_r))',
        terms: [
          term(
            'F_n',
            'normal force',
            m.tangent / (Math.cos(p.pressure) * Math.cos(g.lead) - m.friction * Math.sin(g.lead)),
            'force',
            'computed',
          ),
          term('K', 'worst place over the mean', factor(shelf, 'gear.load'), 'ratio', 'shop', 'gear.load'),
          term('E_r', 'reduced modulus', reduced, 'stress', 'computed'),
          term('ρ₁', 'curvature, worm', x.rho1, 'length', 'computed'),
          term('ρ₂', 'curvature, wheel', x.rho2, 'length', 'computed'),
          term('b_r', 'line that has run in', factor(shelf, 'worm.runIn') * g.carries, 'length', 'shop', 'worm.runIn'),
        ],
        source: 'Hertz along a line, once wear has spread the point; VDI 2736-3 in manner',
      }),
    ),
    make.figure(
      'fresh',
      'Flank pressure, fresh',
      'stress',
      (w) => w.fresh,
      () => ({
        formula: 'Hertz, ellipse of cylinders of ρ₁ and ρ₂ crossing at φ',
        terms: [
          term('ρ₁', 'curvature, worm', x.rho1, 'length', 'computed'),
          term('ρ₂', 'curvature, wheel', x.rho2, 'length', 'computed'),
          term('φ', 'between generators', x.generators, 'angle', 'computed'),
          force,
        ],
        source: 'K. L. Johnson, Contact Mechanics, 4.1; point contact as VDI 2736-3 takes it',
      }),
    ),
    make.figure(
      'root',
      'Root stress',
      'stress',
      (w) => w.root,
      () => ({
        formula: 'F_t2·K/(b_c·m_n)·Y_ε·max(Y_F·Y_S, Y_F1·Y_S1)',
        terms: [
          force,
          term('K', 'worst place over the mean', factor(shelf, 'gear.load'), 'ratio', 'shop', 'gear.load'),
          term('m_n', 'normal module', x.wheel.module, 'length', 'computed'),
          term('Y_ε', 'share that a root carries', 0.25 + 0.75 / Math.max(1, x.contact), 'count', 'computed'),
          term('Y_F1', 'form factor, thread', g.sections[0].form, 'count', 'computed'),
          term('Y_S1', 'stress correction', g.sections[0].stress, 'count', 'computed'),
          term('b_c', 'width that carries, min(b, 2m√(q + 1))', g.carries, 'length', 'computed'),
          term('Y_F', 'form factor, wheel', g.sections[1].form, 'count', 'computed'),
          term('Y_S', 'stress correction', g.sections[1].stress, 'count', 'computed'),
        ],
        source: 'ISO 6336-3 in manner, on the true root',
      }),
    ),
    ...(m.materials.some((y) => y.plastic)
      ? [
          make.figure(
            'warm',
            'Flank temperature',
            'temperature',
            (w) => w.flankTemperature,
            () => ({
              formula: 'ϑ₀ + w·T_r·ω₂·(1/η − 1)·k_ϑ/(10³·b_c·z₂·(10³·v_g·m_n)^0.75)',
              terms: [
                term('ϑ₀', 'surroundings', factor(shelf, 'ambient'), 'temperature', 'shop', 'ambient'),
                term('w', 'share of the steady warmth that it reaches', warming(at), 'efficiency', 'computed'),
                term('T_r', 'RMS torque', at.torqueRms, 'torque', 'brief'),
                term('ω₂', 'speed of the wheel', at.speed, 'speed', 'brief'),
                term('k_ϑ', 'heating of the flank', factor(shelf, 'gear.heatFlank'), 'count', 'shop', 'gear.heatFlank'),
                term('b_c', 'width that carries', g.carries, 'length', 'computed'),
                sizes[3]!,
                term('m_n', 'normal module', x.wheel.module, 'length', 'computed'),
                term('η', 'efficiency', m.forward, 'efficiency', 'computed'),
                term('v_g', 'sliding speed', m.sliding, 'linearSpeed', 'computed'),
              ],
              source: 'VDI 2736-2 with the worm’s loss in place of µ·H_v',
            }),
          ),
        ]
      : []),
    make.figure(
      'bend',
      'Worm bends',
      'length',
      (w) => w.bend,
      () => ({
        formula: 'F·l³/(48·E·I)',
        terms: [
          term('l', 'between bearings', p.span, 'length', 'field', 'span'),
          term('T', 'peak torque', at.torque, 'torque', 'brief'),
        ],
        source: 'a beam on two bearings, at its root ⌀ or its shaft’s',
      }),
    ),
    ...(Number.isFinite(m.lifts)
      ? [
          make.figure(
            'lifts',
            'Spring holds to',
            'torque',
            (w) => w.lifts,
            () => ({ ...lifting(), source: 'where the separating force lifts the worm' }),
          ),
        ]
      : []),
    ...modeFigures(m.modes, make, (w) => w.modes, how),
    ...wheelFigures(x.wheel, 'wheel', 'wheel', x.s2.ra, factor(shelf, 'gear.thickness')),
    ...(Number.isFinite(m.bearingLife)
      ? [
          make.figure(
            'life',
            'Life of the worm’s bearings',
            'life',
            (w) => w.bearingLife,
            () => ({
              formula: '(C/P)³·10⁶ turns',
              terms: [
                term('C', 'dynamic rating', m.bearing.dynamic, 'force', 'shop'),
                term('T_eq', 'equivalent torque', at.equivalent ?? at.torque, 'torque', 'computed'),
              ],
              source: 'ISO 281:2007; P = 0.56·F_r + Y·F_a',
            }),
          ),
        ]
      : []),
    ...pieceFigures(
      make,
      { worm: m.costs.worm, wheel: m.costs.wheel, bearings: m.costs.bearing, coupling: m.costs.coupling },
      {
        mass: 'volume times density of the shop’s materials',
        money: 'material by mass, work by tooth for milled wheels',
      },
    ),
  ];
}

/** Span over teeth of the wheel, told on its part. */
export const wheelSpan = (m: WormModel): readonly [number, number] => {
  const k = spanTeeth(m.geometry.mesh.wheel);
  return [k, spanOver(m.geometry.mesh.wheel, k)];
};
