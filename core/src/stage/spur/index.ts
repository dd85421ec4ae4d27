import { BOLT_WALL, boltRoom, circleMend } from '../bolt-room.ts';
import { minutes } from '../plausible.ts';
import { partLoadFigures } from '../part-load.ts';
import { pieceFigures } from '../costs.ts';
import { springsCost, springsOn } from '../split-wheel.ts';
import { takenOutChecks, takenOutFigures } from '../taken-out.ts';
import { springFigures } from '../springs.ts';
import { TOOTHED } from '../../gear/suspects.ts';
import {
  meshChecks,
  meshFigures,
  modeChecks,
  meshModeWorkings,
  modeFigures,
  wheelChecks,
  wheelFigures,
  takenOutBy,
} from '../../gear/index.ts';
import { check, type FigureMaker, term, type Check, type Figure, exact, worked } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { boreChecks, isBoreLimit } from '../bore-holds.ts';
import type { Duty, StageKind } from '../contract.ts';
import { described } from '../param.ts';
import { opener, type StageSteps } from '../open.ts';
import { spurFreedom } from './freedom.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import { baseSpur, spurCandidates } from './candidates.ts';
import { drawSpur, spurShapes, type SpurShapes } from './drawing.ts';
import { buildSpur, modelSpur, namesOf, wrongSpur, type SpurBuild, type SpurModel } from './model.ts';
import { spurRatio, spurParams, type SpurParams as P } from './params.ts';
import { spurAssembly, spurParts, spurPorts } from './parts.ts';

function figures(p: P, at: Duty, shelf: Shelf, m: SpurModel, make: FigureMaker<SpurModel>): Figure[] {
  const g = m.geometry;
  const names = namesOf(p);
  const spread = factor(shelf, 'gear.thickness');
  const T = term('T', 'peak torque', at.torque, 'torque', 'brief');
  const last = g.wheels.length - 1;
  const label = (i: number) => (g.meshes.length > 1 ? `mesh ${i + 1}` : 'pair');
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: `${m.numbers.ratio < 0 ? '−' : ''}z₂/z₁; the direction turns at each outside mesh`,
      terms: [
        term('z₁', 'teeth, driving', p.z1, 'count', 'field', 'z1'),
        term('z₂', 'teeth, driven', p.z2, 'count', 'field', 'z2'),
        term('n', 'idlers', p.idlers, 'count', 'field', 'idlers'),
      ],
      source: 'definition',
    })),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.efficiency,
      () => ({
        formula: m.loads.map((_, i) => `η${i + 1}`).join('·'),
        terms: m.loads.map((l, i) => term(`η${i + 1}`, label(i), l.efficiency, 'efficiency', 'computed')),
        source: 'ISO/TR 14179-2: 1 − µ·H_v for each mesh',
      }),
    ),
    ...g.meshes.map((x, i) =>
      exact(
        g.meshes.length > 1 ? `centre${i + 1}` : 'centre',
        g.meshes.length > 1 ? `Centre distance ${i + 1}` : 'Centre distance',
        'length',
        x.pair.centre,
        () => ({
          formula: x.pair.ring ? 'm_t(z₂ − z₁)/2·cos α_t/cos α_wt' : 'm_t(z₁ + z₂)/2·cos α_t/cos α_wt',
          terms: [
            term('m_t', 'module in the transverse section', x.pair.s1.mt, 'length', 'computed'),
            term('α_t', 'pressure angle there', x.pair.s1.at, 'angle', 'computed'),
            term('z₁', 'teeth', x.pair.g1.teeth, 'count', 'field'),
            term('z₂', 'teeth', x.pair.g2.teeth, 'count', 'field'),
            term('α_wt', 'working angle', x.pair.working, 'angle', 'computed'),
          ],
          source: 'ISO 21771:2007',
        }),
      ),
    ),
    ...(p.setBy === 'centre'
      ? [
          exact('x1', 'Shift, driving', 'count', g.x1, () => ({
            formula: 'share of Σx = (inv α_wt − inv α_t)(z₁ ± z₂)/(2 tan α)',
            terms: [term('a', 'centre distance', p.centre, 'length', 'field', 'centre')],
            source: 'ISO 21771:2007',
          })),
          exact('x2', 'Shift, driven', 'count', g.x2, () => ({
            formula: 'what is left of the sum',
            terms: [term('x₁', 'shift, driving', g.x1, 'count', 'computed')],
            source: 'ISO 21771:2007',
          })),
        ]
      : []),
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
          takenOutBy(p) === 'none'
            ? `(${g.meshes.map((_, i) => `j${i + 1} + j_b/2`).join(' + ')})/r_w`
            : 'Σ j_t/r_w, but for the last mesh’s, which is taken out',
        terms: [
          ...g.meshes.map((x, i) => term(`j${i + 1}`, `play of ${label(i)}`, x.pair.play, 'length', 'computed')),
          term('j_b', 'play of bearings and shafts', factor(shelf, 'gear.tilt'), 'length', 'shop', 'gear.tilt'),
          term('r_w', 'working radius of the driven wheel', g.meshes[last - 1]!.pair.rw2, 'length', 'computed'),
        ],
        source: 'allowances on the working circle: j_t = (A_s1 + A_s2)/cos β·cos α_t/cos α_wt',
      }),
    ),
    ...g.meshes.map((x, i) =>
      exact(
        `normal${i + 1}`,
        `Normal play, ${label(i)}`,
        'length',
        x.pair.play * Math.cos(x.pair.s1.at) * Math.cos(x.pair.s1.helixBase),
        () => ({
          formula: 'j_t·cos α_t·cos β_b',
          terms: [
            term('j_t', 'on the circle', x.pair.play, 'length', 'computed'),
            term('α_t', 'pressure angle in the transverse section', x.pair.s1.at, 'angle', 'computed'),
            term('β_b', 'helix at the base', x.pair.s1.helixBase, 'angle', 'computed'),
          ],
          source: 'ISO 21771; what a feeler gauge finds',
        }),
      ),
    ),
    ...takenOutFigures(p, g.meshes[last - 1]!.pair.working, m, make),
    ...partLoadFigures(make, m, at),
    ...springFigures(
      make,
      m,
      'meshes by their radius squared, the separating force F·tan α on the housing, hubs on their shafts, that of the first by the ratio squared',
    ),
    ...g.meshes.flatMap((x, i) =>
      meshFigures(`${i + 1}`, label(i), x, make, (q: SpurModel) => q.loads[i]!, m.loads[i]!, T),
    ),
    make.figure(
      'radial',
      'Radial force on the shafts',
      'force',
      (x) => x.loads[0]!.radial,
      () => ({
        formula: 'F_t·tan α_wt',
        terms: [
          term('F_t', 'tooth force', m.loads[0]!.force, 'force', 'computed'),
          term('α_wt', 'working angle', g.meshes[0]!.pair.working, 'angle', 'computed'),
        ],
        source: 'equilibrium',
      }),
    ),
    ...(p.helix > 0 && p.double === 'no'
      ? [
          make.figure(
            'axial',
            'Thrust',
            'force',
            (x) => x.loads[0]!.axial,
            () => ({
              formula: 'F_t·tan β·cos α_t/cos α_wt',
              terms: [
                term('F_t', 'tooth force', m.loads[0]!.force, 'force', 'computed'),
                term('α_t', 'pressure angle in the transverse section', g.meshes[0]!.pair.s1.at, 'angle', 'computed'),
                term('α_wt', 'working angle', g.meshes[0]!.pair.working, 'angle', 'computed'),
                term('β', 'helix', p.helix, 'angle', 'field', 'helix'),
              ],
              source: 'equilibrium; a double helix carries its own',
            }),
          ),
        ]
      : []),
    ...modeFigures(
      m.modes,
      make,
      (x) => x.modes,
      new Map(
        g.meshes
          .flatMap((x, i) => meshModeWorkings(`${i + 1}`, x, m.loads[i]!, at))
          // Sprung centres let go by their force.
          .filter(([id]) => takenOutBy(p) !== 'spring' || id !== `skip-${last}`),
      ),
    ),
    ...g.wheels.flatMap((w, i) =>
      i > 1 && i < last
        ? []
        : wheelFigures(
            w,
            `${i + 1}`,
            names[i]!,
            (i === 0 ? g.meshes[0]!.pair.s1 : g.meshes[i - 1]!.pair.s2).ra,
            spread,
          ),
    ),
    ...pieceFigures(
      make,
      {
        ...Object.fromEntries(
          m.masses.map((mass, i) => [`${names[i]!} (${i + 1})`, { quantity: 1, mass, money: m.prices[i]! }]),
        ),
        springs: springsCost(springsOn(takenOutBy(p))),
        'idlers’ bearings': { quantity: p.idlers, mass: 0, money: factor(shelf, 'price.bearing') },
      },
      {
        mass: 'blanks by the share that holes leave',
        money: 'material by mass, work by tooth for milled wheels',
      },
    ),
  ];
}

function checks(p: P, at: Duty, m: SpurModel): Check[] {
  const g = m.geometry;
  const names = namesOf(p);
  const last = g.wheels.length - 1;
  const list: Check[] = g.wheels.flatMap((w, i) =>
    i > 1 && i < last
      ? []
      : wheelChecks(
          w,
          {
            id: `${i + 1}`,
            name: names[i]!,
            ...(p.setBy === 'shifts' ? { shift: i === 0 ? 'x1' : i === last ? 'x2' : 'xi' } : {}),
            teeth: i === 0 ? 'z1' : i === last ? 'z2' : 'zi',
          },
          g.meshes[Math.max(0, i - 1)]!,
          i === 0 ? 0 : 1,
          m.materials[i]!,
        ),
  );
  g.meshes.forEach((x, i) =>
    list.push(...meshChecks(`${i + 1}`, g.meshes.length > 1 ? `mesh ${i + 1}` : 'the pair', x)),
  );
  list.push(
    ...modeChecks(
      m.modes.filter((x) => !isBoreLimit(x)),
      p,
      at,
      'Take a larger module, wider wheels or a stronger material.',
    ),
    ...boreChecks(m.modes, m.bores, at),
  );
  g.meshes.forEach((_, i) => {
    const soft = [m.materials[i]!, m.materials[i + 1]!].filter((x) => x.plastic);
    if (soft.length)
      list.push(
        check({
          id: `warm-${i + 1}`,
          of: `warm-${i + 1}`,
          name: `Flanks stay firm${g.meshes.length > 1 ? `, mesh ${i + 1}` : ''}`,
          figure: m.loads[i]!.flankTemperature,
          limit: Math.min(...soft.map((x) => x.material.softening)),
          sense: 'max',
          quantity: 'temperature',
          near: 0.03,
          why: 'Above its softening temperature a plastic flank smears (VDI 2736-2).',
          advice: 'Grease it, make it wider, run it slower, or pair the plastic with metal.',
        }),
      );
  });
  for (const [i, wall, bore, shape] of [
    [1, m.wall1, p.bore1, 'shape1'],
    [2, m.wall2, p.bore2, 'shape2'],
  ] as const) {
    if (bore > 0 && Number.isFinite(wall))
      list.push(
        check({
          id: `wall-${i}`,
          name: `Wall over the bore, ${names[i === 1 ? 0 : last]!}`,
          figure: wall,
          limit: 0.8 * p.module,
          sense: 'min',
          quantity: 'length',
          severity: 'warn',
          why: 'Between the bore, with its keyway or flat, and the roots.',
          ...(p[shape] === 'keyway' ? { mend: { path: shape, value: 'flat', label: 'A flat instead' } } : {}),
          advice: 'Take a smaller shaft or more teeth.',
        }),
      );
  }
  // Wheels that do not mesh must pass one another.
  for (let i = 0; i < g.places.length; i++) {
    for (let j = i + 2; j < g.places.length; j++) {
      if (g.wheels[j]!.ring) continue;
      const reach = (k: number) => (k === 0 ? g.meshes[0]!.pair.s1 : g.meshes[k - 1]!.pair.s2).ra;
      const apart =
        Math.hypot(g.places[i]![0] - g.places[j]![0], g.places[i]![1] - g.places[j]![1]) - reach(i) - reach(j);
      list.push(
        check({
          id: `pass-${i}-${j}`,
          name: `${names[i]![0]!.toUpperCase()}${names[i]!.slice(1)} and ${names[j]!} clear`,
          figure: apart,
          limit: 0.5 * p.module,
          sense: 'min',
          quantity: 'length',
          why: 'They do not mesh and must not touch.',
          mend: { path: 'bend', value: 0, label: 'Straight row' },
          advice: 'Bend the row less, or take larger idlers.',
        }),
      );
    }
  }
  list.push(...takenOutChecks(p, at, m.out, g.meshes[last - 1]!.pair.rw2));
  if (p.bolts2 > 0) {
    const bolts = { bolts: p.bolts2, circle: p.boltCircle2, hole: p.boltHole };
    const between = [p.bore2 / 2, g.meshes[last - 1]!.sides[1].root] as const;
    const ring = p.form === 'ring';
    const limit = ring ? p.rim - p.boltHole - 2e-3 : boltRoom(bolts, ...between) - BOLT_WALL;
    list.push(
      check({
        id: 'bolts',
        name: 'Screws fit the driven wheel',
        figure: limit,
        limit: 0,
        sense: 'min',
        quantity: 'length',
        near: 0,
        why: 'Each hole needs a millimetre of wall to the teeth and the bore, and heads stand beside one another.',
        ...(!ring && { mend: () => circleMend(bolts, ...between) }),
        advice: ring ? 'Give the ring a thicker wall.' : 'Take fewer or smaller screws, or a larger wheel.',
      }),
    );
  }
  return list;
}

const steps: StageSteps<P, SpurBuild, SpurModel, SpurShapes> = {
  usual: {
    efficiency: { plastic: [0.93, 0.99], metal: [0.95, 0.995] },
    play: { plastic: minutes(1, 60), metal: minutes(0.5, 20) },
    because: {
      efficiency: 'Losses go with friction and few teeth.',
      play: 'Play goes with the thickness allowances over the driven wheel’s radius.',
    },
  },
  rigid: [
    ['material1', 'Driving wheel is stiff'],
    ['material2', 'Driven wheel is stiff'],
  ],
  build: buildSpur,
  wrong: wrongSpur,
  kinematics: (p) => ({
    ratio: spurRatio(p),
    members: [
      { name: 'driving wheel', role: 'input' },
      { name: p.form === 'ring' ? 'ring' : 'driven wheel', role: 'output' },
      { name: 'frame', role: 'fixed' },
    ],
    orders: [
      { name: 'driving wheel', perTurn: p.z2 / p.z1 },
      { name: 'driven wheel', perTurn: 1 },
      { name: 'tooth mesh', perTurn: p.z2 },
      ...(p.idlers > 0 ? [{ name: 'idler', perTurn: p.z2 / p.zi }] : []),
    ],
  }),
  model: modelSpur,
  figures,
  checks: (p, at, _shelf, m) => checks(p, at, m),
  shapes: spurShapes,
  draw: drawSpur,
  parts: spurParts,
  ports: spurPorts,
  assembly: spurAssembly,
  freedom: spurFreedom,
};

/** A pair of spur or helical wheels, or a train with idlers. */
export const spur: StageKind<P> = {
  id: 'spur',
  name: 'Spur',
  summary: 'Two wheels, or a row with idlers: simple, stiff, to one side; play by its allowances.',
  suspects: TOOTHED,
  ...described(spurParams),
  defaults: (want) => firstThatCarries(spur, want) ?? baseSpur(1e-3, 0.01, 20, 60),
  open: opener(steps, spurParams),
  passage: 'bore2',
  candidates: spurCandidates,
};

export type { SpurParams } from './params.ts';
