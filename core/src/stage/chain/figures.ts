import { exact, term, worked, type Figure, type FigureMaker } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { idlerFigures } from '../idler.ts';
import { one, pieceFigures } from '../costs.ts';
import { limitFigures } from '../limits.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import type { ChainModel } from './model.ts';
import type { ChainParams } from './params.ts';

/** Every figure of a chain stage with its working. */
export function chainFigures(
  p: ChainParams,
  at: Duty,
  shelf: Shelf,
  m: ChainModel,
  make: FigureMaker<ChainModel>,
): Figure[] {
  const { chain, layout: L } = m;
  const pitch = term('p', 'pitch', chain.pitch, 'length', 'shop', chain.id);
  const z1 = term('z₁', 'teeth, driving', p.z1, 'count', 'field', 'z1');
  const z2 = term('z₂', 'teeth, driven', p.z2, 'count', 'field', 'z2');
  const X = term('X', 'links', L.links, 'count', p.setBy === 'links' ? 'field' : 'computed', 'links');
  const Ft = term('F', 'pull of the tight run', m.tight, 'force', 'computed');
  const T = term('T', 'peak torque at the driven sprocket', at.torque, 'torque', 'brief');
  const branches = L.asides.filter((x) => x.driven);
  // What a joint turns under at each sprocket, over what turns the driven one.
  const before = (n: number) => ['1', ...branches.slice(0, n).map((x) => x.id)].join(' + ');
  const joints = branches.length
    ? `(1/z₂ + ${branches.map((x, i) => `(2·(${before(i)}) + ${x.id})/z ${x.id}`).join(' + ')} + (${before(branches.length)})/z₁)/(${before(branches.length)})`
    : '(1/z₁ + 1/z₂)';
  const diameter = (i: 1 | 2, r: number, z: typeof z1) =>
    exact(`pitch${i}`, `Pitch ⌀, ${i === 1 ? 'driving' : 'driven'}`, 'length', 2 * r, () => ({
      formula: `p/sin(π/z${i === 1 ? '₁' : '₂'})`,
      terms: [pitch, z],
      source: 'ISO 606',
    }));
  const gap = (i: 0 | 1) =>
    exact(`tip${i + 1}`, `Tip ⌀, ${i === 0 ? 'driving' : 'driven'}`, 'length', 2 * m.gaps[i].tip, () => ({
      formula: 'd + ½(1.25p + p(1 − 1.6/z)) − d₁',
      terms: [
        pitch,
        term('d', 'pitch ⌀', 2 * (i === 0 ? L.r1 : L.r2), 'length', 'computed'),
        term('d₁', 'roller', chain.roller, 'length', 'shop', chain.id),
        term('z', 'teeth', i === 0 ? p.z1 : p.z2, 'count', 'field', i === 0 ? 'z1' : 'z2'),
      ],
      source: 'ISO 606, the mean of least and most',
    }));
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: 'z₂/z₁; the direction stays',
      terms: [z1, z2],
      source: 'definition',
    })),
    ...branches.map((a) =>
      exact(a.id, `Ratio of the ${a.name}`, 'ratio', (L.path.wheels[a.at]!.sense * a.teeth) / p.z1, () => ({
        formula: `${L.path.wheels[a.at]!.sense < 0 ? '−' : ''}z₃/z₁; turned round where it runs on the chain’s outside`,
        terms: [z1, term('z₃', `teeth, ${a.name}`, a.teeth, 'count', 'field', `${a.id}Teeth`)],
        source: 'definition',
      })),
    ),
    exact('centre', 'Centre distance', 'length', L.centre, () => ({
      formula: 'X = 2C·cos α/p + (z₁ + z₂)/2 + α(z₂ − z₁)/π, sin α = (d₂ − d₁)/2C',
      terms: [X, pitch, z1, z2],
      source: 'open chain on its pitch circles, solved for C',
      ...(L.path.wheels.length > 2 && {
        note: 'With further sprockets the path is solved by directed tangents round all of them.',
      }),
    })),
    exact('links', 'Links', 'count', L.links, () => ({
      formula: 'X',
      terms: [X],
      source:
        (p.setBy === 'links' ? 'as entered; ' : 'the next even number to the centre distance; ') +
        (L.links % 2 ? 'odd: with one offset link, which bears four fifths' : 'even: no offset link'),
    })),
    diameter(1, L.r1, z1),
    diameter(2, L.r2, z2),
    gap(0),
    gap(1),
    exact('mesh', 'Teeth in mesh, smaller sprocket', 'count', Math.min(m.layout.mesh[0]!, L.mesh[L.driven]!), () => ({
      formula: 'z·β/(2π)',
      terms: (() => {
        const first = m.layout.mesh[0]! <= L.mesh[L.driven]!;
        const [z, mesh] = first ? [p.z1, m.layout.mesh[0]!] : [p.z2, L.mesh[L.driven]!];
        return [
          term('z', 'teeth', z, 'count', 'field', first ? 'z1' : 'z2'),
          term('β', 'wrap', (2 * Math.PI * mesh) / z, 'angle', 'computed'),
        ];
      })(),
      source: 'wrap of the path',
    })),
    exact('ripple', 'Ripple of chain speed', 'efficiency', m.ripple, () => ({
      formula: '1 − cos(π/z₁)',
      terms: [z1],
      source: 'polygon of the driving sprocket',
      note: 'The output shakes with it once a tooth; seventeen teeth and more keep it below 2 %.',
    })),
    make.figure(
      'tight',
      'Pull of the tight run',
      'force',
      (x) => x.tight,
      () => ({
        formula: `T/r₂·(${['1', ...branches.map((x) => x.id)].join(' + ')}) + F_s`,
        terms: [
          T,
          term(
            'F_s',
            'what the slack run hangs by, m·g·L²/(8f)',
            (chain.mass * factor(shelf, 'gravity') * L.slack) / (8 * p.sag),
            'force',
            'computed',
          ),
          term('r₂', 'pitch radius, driven', L.r2, 'length', 'computed'),
          ...branches.map((a) => term(a.id, `load of the ${a.name}`, a.load, 'efficiency', 'field', `${a.id}Load`)),
        ],
        source: 'equilibrium; the slack run hangs by its own weight',
      }),
    ),
    make.figure(
      'safety',
      'Least breaking load over its pull',
      'ratio',
      (x) => chain.breaks / x.tight,
      () => ({
        formula: 'F_B/F',
        terms: [term('F_B', 'least breaking load', chain.breaks, 'force', 'shop', chain.id), Ft],
        source: 'ISO 606; seven and more is usual',
      }),
    ),
    make.figure(
      'pressure',
      'Pressure in the joints',
      'stress',
      (x) => x.pressure,
      () => ({
        formula: 'F/A',
        terms: [Ft, term('A', 'bearing area', chain.area, 'area', 'shop', chain.id)],
        source: 'pin in bush',
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
        formula: '(8/3·f²·L + ε·X·p + 0.02·d₁)/r₂',
        terms: [
          term('d₁', 'roller', chain.roller, 'length', 'shop', chain.id),
          term('r₂', 'pitch radius, driven', L.r2, 'length', 'computed'),
          term('f', 'sag over its length', p.sag, 'efficiency', 'field', 'sag'),
          term('L', 'slack run', L.slack, 'length', 'computed'),
          term(
            'ε',
            'elongation that nobody takes up',
            p.takeUp === 'never' ? p.worn : 0,
            'efficiency',
            'field',
            'worn',
          ),
          X,
          pitch,
        ],
        source: 'length of a shallow parabola; driver held, the chain is drawn taut one way and the other',
        note: 'It shows where the load changes its sense; a load that pulls one way keeps the chain taut.',
      }),
    ),
    exact('takeUp', 'Take-up to the end of its life', 'length', m.takeUp, () => ({
      formula: 'ε·X·p/(2·cos α)',
      terms: [
        term('α', 'lean of a run', Math.asin(Math.min(1, (L.r2 - L.r1) / L.centre)), 'angle', 'computed'),
        term('ε', 'elongation at which it is worn out', m.wornOut, 'efficiency', 'computed'),
        X,
        pitch,
      ],
      source: '3 %, or 200 %/z of the larger sprocket where that is less',
    })),
    ...(p.idler === 'none'
      ? []
      : idlerFigures(make, m, {
          ways: (x) => x.idler()!,
          push: p.idlerPush,
          pull: (x) => x.numbers.idlerPull!,
          wrap: Math.max(...L.asides.filter((a) => !a.driven).map((a) => L.path.wraps[a.at]!)),
          tight: m.tight,
          longer: {
            formula: 'ε·X·p',
            terms: [term('ε', 'elongation at which it is worn out', m.wornOut, 'efficiency', 'computed'), X, pitch],
          },
          shorter: { formula: 'p/2', terms: [pitch] },
        })),
    make.figure(
      'shaft',
      'Load on the driving shaft',
      'force',
      (x) => x.shafts[0],
      () => ({ formula: '|F_tight + F_slack|', terms: [Ft], source: 'both runs as vectors' }),
    ),
    make.figure(
      'speed',
      'Chain speed',
      'linearSpeed',
      (x) => x.chainSpeed,
      () => ({
        formula: 'ω₂·r₂',
        terms: [
          term('r₂', 'pitch radius, driven', L.r2, 'length', 'computed'),
          term('ω₂', 'speed of the driven sprocket', at.speed, 'speed', 'brief'),
        ],
        source: 'definition',
      }),
    ),
    make.figure(
      'efficiency',
      'Efficiency under load',
      'efficiency',
      (x) => x.efficiency,
      () => ({
        formula: `1 − π·µ·d_p/p·${joints}`,
        terms: [
          term('µ', 'friction in a joint', factor(shelf, 'chain.friction'), 'count', 'shop', 'chain.friction'),
          term('d_p', 'pin', chain.pin, 'length', 'shop', chain.id),
          pitch,
          z1,
          z2,
          ...branches.flatMap((x) => [
            term(`z ${x.id}`, `teeth, ${x.name}`, x.teeth, 'count', 'field', `${x.id}Teeth`),
            term(x.id, `load of the ${x.name}`, x.load, 'efficiency', 'field', `${x.id}Load`),
          ]),
        ],
        source: 'each joint turns by 360°/z under the pull of a run as it comes on and leaves; bearings apart',
      }),
    ),
    ...partLoadFigures(make, m, at),
    make.figure(
      'drag',
      'Drag at the input',
      'torque',
      (x) => x.numbers.drag,
      () => ({
        formula: 'T_s + μ·F₁·b₁/2 + (T_s + μ·F₂·b₂/2)/i',
        terms: [
          term('F₁', 'on the driving shaft', m.shafts[0], 'force', 'computed'),
          term('F₂', 'on the driven shaft', m.shafts[1], 'force', 'computed'),
          term('b₁', 'bore, driving', p.bore1, 'length', 'field', 'bore1'),
          term('b₂', 'bore, driven', p.bore2, 'length', 'field', 'bore2'),
          term('i', 'ratio', m.numbers.ratio, 'ratio', 'computed'),
          term('T_s', 'seal drag of a shaft', factor(shelf, 'belt.seal'), 'torque', 'shop', 'belt.seal'),
          term('μ', 'bearing friction', factor(shelf, 'belt.bearing'), 'count', 'shop', 'belt.bearing'),
        ],
        source: 'seals, and bearings that the chain loads',
      }),
    ),
    ...springFigures(
      make,
      m,
      'E·A/L of the tight run alone, since the slack one hangs; teeth and hub by their modulus',
    ),
    ...limitFigures(m.limits, make, (x) => x.limits),
    ...pieceFigures(
      make,
      {
        'driving sprocket': one(m.masses[0], m.prices[0]),
        'driven sprocket': one(m.masses[1], m.prices[1]),
        chain: one(m.masses[2], m.prices[2]),
        idlers: one(m.masses[3], m.prices[3]),
      },
      {
        mass: 'sprockets as discs, the chain by its length',
        money: 'sprockets by mass and work, the chain by its length',
      },
    ),
  ];
}
