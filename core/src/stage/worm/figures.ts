import { pieceFigures } from '../costs.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import { modeFigures, spanOver, spanTeeth, wheelFigures } from '../../gear/index.ts';
import { term, type Figure, type FigureMaker, worked, exact } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
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
  const force = term('F_t2', 'force along the wheel’s circle', m.tangent, 'force', 'computed');
  const ISO = 'ISO 1122-2 and ISO 21771 for an involute (type I) worm';
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: 'z₂/z₁; the sign by the hand of the thread',
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
      formula: 'm(q + z₂ + 2x)/2',
      terms: [...sizes, term('x', 'shift of the wheel', p.x2, 'count', 'field', 'x2')],
      source: `${ISO}; without play, exact`,
    })),
    exact('worm-d', 'Worm’s reference ⌀', 'length', 2 * x.s1.r, () => ({
      formula: 'q·m',
      terms: sizes.slice(0, 2),
      source: ISO,
    })),
    exact('worm-tip', 'Tip ⌀, worm', 'length', 2 * x.s1.ra, () => ({
      formula: 'm(q + 2h_a*)',
      terms: sizes.slice(0, 2),
      source: ISO,
    })),
    exact('advance', 'Lead of the thread', 'length', g.advance, () => ({
      formula: 'π·m·z₁',
      terms: [sizes[0]!, sizes[2]!],
      source: ISO,
    })),
    exact('contact', 'Contact ratio', 'count', x.contact, () => ({
      formula: 'g/(π·m_n·cos α_n), g between both tips along the line of action',
      terms: [
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
        formula:
          p.playBy === 'spring'
            ? 'end play of the worm/r₂; the spring keeps both flanks in touch'
            : '(j_n/(cos α_n·cos γ) + end play/2)/r₂',
        terms: [
          term('j_n', 'normal play as drawn', g.normalPlay, 'length', 'computed'),
          term('r₂', 'radius of the wheel', x.s2.r, 'length', 'computed'),
          term('s', 'end play of the worm', factor(shelf, 'worm.endPlay'), 'length', 'shop', 'worm.endPlay'),
          term('Δa', 'centre distance as made', factor(shelf, 'worm.centre'), 'length', 'shop', 'worm.centre'),
        ],
        source: 'j_n = (A_s1 + A_s2)·cos α_n + 2Δa·sin α_n, exact for crossed helical wheels',
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
        formula: 'F_n·sin α_n, F_n = F_t2/(cos α_n·cos γ − µ·sin γ)',
        terms: [force, lead, mu],
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
        terms: [lead, term('r₁', 'radius of the worm', x.s1.r, 'length', 'computed')],
        source: 'velocity at the pitch point',
      }),
    ),
    make.figure(
      'flank',
      'Flank pressure, run in',
      'stress',
      (w) => w.flank,
      () => ({
        formula: '√(F_n·K·E*(1/ρ₁ + 1/ρ₂)/(π·b_r))',
        terms: [
          force,
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
        formula: 'F_t2/(b_c·m_n)·Y_F·Y_S·Y_ε·K',
        terms: [
          force,
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
              formula: 'ϑ₀ + P·(1/η − 1)·k_ϑ/(b·z₂·(v_g·m)^0.75)',
              terms: [
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
            () => ({
              formula: 'F_s·r₂(cos α_n·cos γ − µ·sin γ)/sin α_n',
              terms: [term('F_s', 'spring', p.springForce, 'force', 'field', 'springForce')],
              source: 'where the separating force lifts the worm',
            }),
          ),
        ]
      : []),
    ...modeFigures(m.modes, make, (w) => w.modes),
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
      { worm: m.costs.worm, wheel: m.costs.wheel, bearings: m.costs.bearing },
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
