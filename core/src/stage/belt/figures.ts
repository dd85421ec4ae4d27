import { partLoadFigures } from '../part-load.ts';
import { FigureMaker, term, type Figure, worked } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { idlerFigures } from '../idler.ts';
import { springFigures } from '../springs.ts';
import { belted, type BeltLayout } from './layout.ts';
import type { BeltModel } from './model.ts';
import type { BeltParams } from './params.ts';
import { loadedTeeth } from './strength.ts';

const lengthOf = ([x, y]: readonly [number, number]): number => Math.hypot(x, y);

const GEOMETRY = 'plane geometry of the open belt; ISO 5296 for pitch and pulley diameters';

/** Angle between the pulls of both runs at the shaft where it is less, rad: a pulley is pulled by the angle that it is not wrapped by. */
const betweenPulls = (L: BeltLayout): number => Math.min(Math.abs(Math.PI - L.wrap1), Math.abs(Math.PI - L.wrap2));

/** Every figure of a belt stage with its working. */
export function beltFigures(
  p: BeltParams,
  at: Duty,
  shelf: Shelf,
  m: BeltModel,
  make: FigureMaker<BeltModel>,
): Figure[] {
  const s = m.section;
  const L = m.layout;
  const pitch = term('p', 'pitch', s.pitch, 'length', 'shop', `section ${s.id}`);
  const z1 = term('z₁', 'teeth, driving pulley', p.z1, 'count', 'field', 'z1');
  const z2 = term('z₂', 'teeth, driven pulley', p.z2, 'count', 'field', 'z2');
  const d1 = term('d₁', 'pitch diameter, driving', L.d1, 'length', 'computed');
  const d2 = term('d₂', 'pitch diameter, driven', L.d2, 'length', 'computed');
  const C = term('C', 'centre distance', L.centre, 'length', p.closure === 'open' ? 'field' : 'computed', 'centre');
  const T = term('T', 'peak torque at the driven pulley', at.torque, 'torque', 'brief');
  const Fi = term('Fᵢ', 'installation tension of a span', p.tension, 'force', 'field', 'tension');
  const Fu = term('Fᵤ', 'circumferential force, 2T/d₂', m.force, 'force', 'computed');
  const w = term('w', 'belt width', p.width, 'length', 'field', 'width');
  const per = (key: keyof typeof s.ids, symbol: string, name: string, q: 'forcePerWidth' | 'massPerLengthWidth') =>
    term(symbol, name, factor(shelf, s.ids[key]), q, 'shop', s.ids[key]);
  const held = (made: BeltParams['made1']): number => (made === 'printed' ? factor(shelf, 'belt.printedJump') : 1);
  const ze = term(
    'zₑ',
    'teeth that share the load: min(z, 12)·(1 − 0.2·(6 − z)) below six',
    loadedTeeth(L.mesh1),
    'count',
    'computed',
  );
  const Lt = term('Lₜ', 'tight span', L.tightSpan, 'length', 'computed');
  const Ls = term('Lₛ', 'slack span', L.slackSpan, 'length', 'computed');
  const arrives = L.path.runs.at(-1)!.heading;
  const idlerNote =
    p.idler === 'none' ? undefined : 'With an idler the path is solved by directed tangents round all three wheels.';
  return [
    make.figure(
      'centre',
      'Centre distance',
      'length',
      (x) => x.layout.centre,
      () => ({
        formula:
          p.closure === 'open' ? 'C as entered' : 'solve 2C·cos α + π(d₁+d₂)/2 + α(d₂−d₁) = z·p,  sin α = (d₂−d₁)/2C',
        terms: [
          term('z', 'teeth of the belt', L.teeth, 'count', p.setBy === 'length' ? 'field' : 'computed', 'beltTeeth'),
          pitch,
          d1,
          d2,
        ],
        source: GEOMETRY,
        ...(idlerNote && { note: idlerNote }),
      }),
    ),
    make.figure(
      'length',
      'Belt length',
      'length',
      (x) => x.layout.length,
      () => ({
        ...(p.closure === 'open'
          ? p.idler === 'none'
            ? {
                formula: '2C·cos α + π(d₁+d₂)/2 + α(d₂−d₁)',
                terms: [
                  C,
                  d1,
                  d2,
                  term('α', 'lean of a span', Math.asin((L.d2 - L.d1) / (2 * L.centre)), 'angle', 'computed'),
                ],
              }
            : {
                formula: 'Lₜ + Lₛ + (d₁·β₁ + d₂·β₂)/2',
                terms: [
                  Lt,
                  term('Lₛ', 'slack spans with the idler’s arc', L.slackSpan, 'length', 'computed'),
                  d1,
                  d2,
                  term('β₁', 'wrap, driving pulley', L.wrap1, 'angle', 'computed'),
                  term('β₂', 'wrap, driven pulley', L.wrap2, 'angle', 'computed'),
                ],
              }
          : { formula: 'z·p', terms: [term('z', 'teeth of the belt', L.teeth, 'count', 'computed'), pitch] }),
        source: GEOMETRY,
      }),
    ),
    make.figure(
      'd1',
      'Pitch ⌀, driving',
      'length',
      (x) => x.layout.d1,
      () => ({
        formula: 'd₁ = p·z₁/π',
        terms: [pitch, z1],
        source: 'ISO 5296',
      }),
    ),
    make.figure(
      'd2',
      'Pitch ⌀, driven',
      'length',
      (x) => x.layout.d2,
      () => ({
        formula: 'd₂ = p·z₂/π',
        terms: [pitch, z2],
        source: 'ISO 5296',
      }),
    ),
    make.figure(
      'wrap',
      'Wrap, driving pulley',
      'angle',
      (x) => x.layout.wrap1,
      () => ({
        ...(p.idler === 'none'
          ? { formula: 'π − 2·asin((d₂ − d₁)/(2C))', terms: [d1, d2, C] }
          : {
              formula: 'θₗ − θₐ',
              terms: [
                term('θₐ', 'way of the tight run that arrives', arrives, 'angle', 'computed'),
                term('θₗ', 'way of the run that leaves to the idler', arrives + L.wrap1, 'angle', 'computed'),
              ],
            }),
        source: GEOMETRY,
        ...(idlerNote && { note: idlerNote }),
      }),
    ),
    make.figure(
      'mesh',
      'Teeth in mesh',
      'count',
      (x) => x.layout.mesh1,
      () => ({
        formula: 'z₁·β₁/(2π)',
        terms: [z1, term('β₁', 'wrap', L.wrap1, 'angle', 'computed')],
        source: GEOMETRY,
      }),
    ),
    make.figure(
      'span',
      'Free span',
      'length',
      (x) => x.layout.tightSpan,
      () => ({
        formula: '√(C² − ((d₂ − d₁)/2)²)',
        terms: [C, d1, d2],
        source: GEOMETRY,
      }),
    ),
    make.figure(
      'ratio',
      'Ratio',
      'ratio',
      (x) => x.ratio,
      () => ({
        formula: 'z₂/z₁; the same way round',
        terms: [z1, z2],
        source: 'definition',
      }),
    ),
    make.figure(
      'force',
      'Force at the pitch line',
      'force',
      (x) => x.force,
      () => ({
        formula: 'Fᵤ = 2T/d₂',
        terms: [T, d2],
        source: 'equilibrium of the driven pulley',
      }),
    ),
    make.figure(
      'tight',
      'Tight side at peak',
      'force',
      (x) => x.tight,
      () => ({
        formula: m.slack > 0 ? 'Fᵢ + Fᵤ·Lₛ/(Lₜ + Lₛ)' : 'Fᵤ; the slack side hangs',
        terms: [Fi, Fu, Lt, Ls],
        source: 'equilibrium; spans share the change of load as springs while both are taut',
      }),
    ),
    make.figure(
      'slack',
      'Slack side at peak',
      'force',
      (x) => x.slack,
      () => ({
        formula: 'max(0, Fᵢ − Fᵤ·Lₜ/(Lₜ + Lₛ))',
        terms: [Fi, Fu, Lt, Ls],
        source: 'equilibrium; spans share the change of load as springs while both are taut',
      }),
    ),
    make.figure(
      'needed',
      'Tension needed',
      'force',
      (x) => x.neededTension,
      () => ({
        formula: '2·T/d₂·Lₜ/(Lₜ + Lₛ)',
        terms: [T, d2, Lt, Ls],
        source: 'slack side = 0 at peak torque',
      }),
    ),
    make.figure(
      'pluck',
      'Plucked span sounds',
      'frequency',
      (x) => x.pluck,
      () => ({
        formula: '√(Fᵢ/(m·w)) / (2·L)',
        terms: [
          Fi,
          per('mass', 'm', 'mass per length and width', 'massPerLengthWidth'),
          w,
          term('L', 'free span', L.tightSpan, 'length', 'computed'),
        ],
        source: 'taut string, first mode',
      }),
    ),
    make.figure(
      'shaft',
      'Shaft load at peak',
      'force',
      (x) => x.shaftLoad,
      () => ({
        formula:
          p.idler === 'none' ? '√(Fₜ² + Fₛ² + 2·Fₜ·Fₛ·cos(2·asin((d₂ − d₁)/(2C))))' : '√(Fₜ² + Fₛ² + 2·Fₜ·Fₛ·cos(γ))',
        terms: [
          term('Fₜ', 'tight side', m.tight, 'force', 'computed'),
          term('Fₛ', 'slack side', m.slack, 'force', 'computed'),
          ...(p.idler === 'none'
            ? [d1, d2, C]
            : [term('γ', 'between the two at the shaft that is pulled harder', betweenPulls(L), 'angle', 'computed')]),
        ],
        source: 'vector sum along the spans',
      }),
    ),
    ...partLoadFigures(make, m, at),
    ...springFigures(
      make,
      m,
      'spans as axial springs in parallel, teeth in mesh in series, pulleys on what holds them, the driving one’s by the ratio squared; both spans taut',
    ),
    make.figure(
      'spanStiffness',
      'Stiffness, spans alone',
      'stiffness',
      (x) => x.spanStiffness,
      () => ({
        formula: '(d₂/2)²·E·A/w·w·(1/Lₜ + 1/Lₛ)',
        terms: [d2, per('stiffness', 'E·A/w', 'axial stiffness per width', 'forcePerWidth'), w, Lt, Ls],
        source: 'spans as axial springs in parallel',
      }),
    ),
    make.figure(
      'slackTorque',
      'Slack side hangs above',
      'torque',
      (x) => x.slackTorque,
      () => ({
        formula: 'Fᵢ·d₂/2·(Lₜ + Lₛ)/Lₜ',
        terms: [Fi, d2, Lt, Ls],
        source: 'slack side = 0',
        note: 'Above it one span carries alone and the spans’ stiffness halves.',
      }),
    ),
    make.figure(
      'windUp',
      'Wind-up at peak',
      'smallAngle',
      (x) => x.windUp,
      () => ({
        formula: 'min(T, T_b)/k + max(0, T − T_b)/k′',
        terms: [
          T,
          term('k', 'stiffness, both spans', m.numbers.stiffness, 'stiffness', 'computed'),
          term('k′', 'stiffness, one span', m.numbers.stiffnessBeyond, 'stiffness', 'computed'),
          term('T_b', 'slack side hangs above', m.slackTorque, 'torque', 'computed'),
        ],
        source: 'two-slope spring',
        note: 'It is what a hand feels and calls play; a taut rounded belt has none.',
      }),
    ),
    worked(
      {
        id: 'play',
        name: 'Play, driven pulley',
        quantity: 'smallAngle',
        value: m.numbers.play[0],
        low: m.numbers.play[1],
        high: m.numbers.play[2],
      },
      () => ({
        formula: '2c/d₂; from 0 to twice that',
        terms: [term('c', 'tooth clearance at the pitch line', s.clearance, 'length', 'shop', `section ${s.id}`), d2],
        source: 'ISO 5294, ISO 17396 tooth spaces; rounded profiles seat without clearance',
        note:
          s.clearance === 0
            ? 'A rounded profile seats without clearance while the belt is taut.'
            : 'Friction of a taut belt may hold it on one flank: nothing moves. At worst both pulleys give their whole clearance.',
      }),
    ),
    make.figure(
      'jump',
      'Jumps a tooth at',
      'torque',
      (x) => x.jumpTorque,
      () => ({
        formula: '(min(j·w·zₑ·m₁, j·w·zₘ·m₂) + κ·Fᵢ)·d₂/2',
        terms: [
          term('zₘ', 'the same on the driven pulley', loadedTeeth(L.mesh2), 'count', 'computed'),
          term(
            'm₁',
            'share that the driving pulley as made holds',
            held(p.made1),
            'efficiency',
            'shop',
            'belt.printedJump',
          ),
          term('m₂', 'share that the driven one holds', held(p.made2), 'efficiency', 'shop', 'belt.printedJump'),
          per('jump', 'j', 'jump resistance per tooth and width', 'forcePerWidth'),
          w,
          ze,
          term('κ', 'share of installation tension', factor(shelf, 'belt.jump'), 'count', 'shop', 'belt.jump'),
          Fi,
          d2,
        ],
        source: 'starting model, linear in the installation tension; a torque ladder to the skip replaces it',
      }),
    ),
    make.figure(
      'shear',
      'Belt teeth shear at',
      'torque',
      (x) => x.shearTorque,
      () => ({
        formula: 'τ·w·zₑ·d₂/2',
        terms: [per('shear', 'τ', 'tooth shear per tooth and width', 'forcePerWidth'), w, ze, d2],
        source: 'load share of the teeth in mesh, ISO 5295 practice',
      }),
    ),
    make.figure(
      'tensionTorque',
      'Tight side’s limit at',
      'torque',
      (x) => x.tensionTorque,
      () => ({
        formula: 'Fₐ·r₂, or (Fₐ − Fᵢ)·(Lₜ + Lₛ)/Lₛ·r₂ while the slack side carries',
        terms: [per('tension', 'Fₐ/w', 'allowable tension per width', 'forcePerWidth'), w, Fi, d2],
        source: 'equilibrium',
      }),
    ),
    make.figure(
      'takeUpFit',
      'Take-up to fit the belt',
      'length',
      (x) => x.takeUpFit,
      () => ({
        formula: '2(h + p/20)/(dL/dC)',
        terms: [term('h', 'tooth height', s.toothHeight, 'length', 'shop', `section ${s.id}`), pitch, C],
        source: 'one tooth height and a tolerance to slip over the flange',
      }),
    ),
    make.figure(
      'takeUpTension',
      'Take-up to tension it',
      'length',
      (x) => x.takeUpTension,
      () => ({
        formula: 'share·C',
        terms: [term('share', 'take-up share', factor(shelf, 'belt.takeUp'), 'efficiency', 'shop', 'belt.takeUp'), C],
        source: 'starting value',
      }),
    ),
    ...(p.idler === 'none' ? [] : idlerOf(p, m, make)),
    ...(p.closure === 'open'
      ? [
          make.figure(
            'swing',
            'Swing with clamped ends',
            'angle',
            (x) => x.layout.wrap2,
            () => ({
              formula: 'β₂',
              terms: [term('β₂', 'wrap, driven pulley', L.wrap2, 'angle', 'computed')],
              source: 'the clamp stays on the arc the belt wraps',
              note: 'An open-ended belt clamped on the driven pulley turns no further; a splice in the span must never reach a pulley.',
            }),
          ),
        ]
      : []),
    make.figure(
      'speed',
      'Belt speed',
      'linearSpeed',
      (x) => x.beltSpeed,
      () => ({
        formula: 'ω₂·d₂/2',
        terms: [term('ω₂', 'speed of the driven pulley', at.speed, 'speed', 'brief'), d2],
        source: 'definition',
      }),
    ),
    make.figure(
      'efficiency',
      'Efficiency under load',
      'efficiency',
      (x) => x.numbers.etaForward,
      () => ({
        formula: 'η',
        terms: [term('η', 'whole stage', factor(shelf, 'belt.efficiency'), 'efficiency', 'shop', 'belt.efficiency')],
        source: 'starting value for synchronous belts; bearing drag is counted apart',
      }),
    ),
    make.figure(
      'drag',
      'Drag at the input',
      'torque',
      (x) => x.numbers.drag,
      () => ({
        formula: 'T_s + μ·F₁·b₁/2 + (T_s + μ·F₂·b₂/2)/i',
        terms: [
          term('F₁', 'on the driving shaft', lengthOf(m.shaft1), 'force', 'computed'),
          term('F₂', 'on the driven shaft', lengthOf(m.shaft2), 'force', 'computed'),
          term('b₁', 'bore, driving', p.bore1, 'length', 'field', 'bore1'),
          term('b₂', 'bore, driven', p.bore2, 'length', 'field', 'bore2'),
          term('i', 'ratio', m.ratio, 'ratio', 'computed'),
          term('T_s', 'seal drag of a shaft', factor(shelf, 'belt.seal'), 'torque', 'shop', 'belt.seal'),
          term('μ', 'bearing friction', factor(shelf, 'belt.bearing'), 'count', 'shop', 'belt.bearing'),
        ],
        source: 'constant coefficient of friction at the bore',
      }),
    ),
    make.figure(
      'mass',
      'Mass',
      'mass',
      (x) => x.numbers.mass,
      () => ({
        formula: 'm₁ + m₂ + m_b + m_i',
        terms: [
          term('m_i', 'idler', m.idlerMass, 'mass', 'computed'),
          term('m₁', 'driving pulley', m.pulleyMass[0], 'mass', 'computed'),
          term('m₂', 'driven pulley', m.pulleyMass[1], 'mass', 'computed'),
          term('m_b', 'belt', m.beltMass, 'mass', 'computed'),
        ],
        source: 'volumes × densities of the shop',
      }),
    ),
    make.figure(
      'money',
      'Money',
      'money',
      (x) => x.numbers.money,
      () => ({
        formula: 'C₁ + C₂ + C_b + C_i + C_r',
        terms: [
          term('C_i', 'idler', m.idlerMoney, 'money', 'computed'),
          term('C₁', 'driving pulley', m.pulleyMoney[0], 'money', 'computed'),
          term('C₂', 'driven pulley', m.pulleyMoney[1], 'money', 'computed'),
          term('C_b', 'belt', m.beltMoney, 'money', 'computed'),
          term('C_r', 'bearings', factor(shelf, 'price.bearing'), 'money', 'shop', 'price.bearing'),
        ],
        source: 'prices of the shop',
      }),
    ),
  ];
}

/** How far the idler is moved while the shafts stay where they are. */
const idlerOf = (p: BeltParams, m: BeltModel, make: FigureMaker<BeltModel>): Figure[] =>
  idlerFigures(make, m, {
    ways: (x) => x.idler()!,
    push: p.idlerPush,
    pull: (x) => x.idlerPull,
    wrap: m.layout.path.wraps[1]!,
    tight: m.tight,
    longer: {
      formula: 'k·C_t',
      terms: [
        term('L', 'length of the belt', m.layout.path.length, 'length', 'computed'),
        term('k', 'length that shafts give for their way, 2·cos α', belted(m.layout), 'ratio', 'computed'),
        term('C_t', 'take-up to tension it', m.takeUpTension, 'length', 'computed'),
      ],
    },
    shorter: {
      formula: '2(h + p/20)',
      terms: [
        term('L', 'length of the belt', m.layout.path.length, 'length', 'computed'),
        term('h', 'tooth height', m.section.toothHeight, 'length', 'shop', `section ${m.section.id}`),
        term('p', 'pitch', m.section.pitch, 'length', 'shop', `section ${m.section.id}`),
      ],
    },
  });
