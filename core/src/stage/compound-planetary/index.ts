import { gcd } from '../../math/gcd.ts';
import { minutes } from '../plausible.ts';
import { partLoadFigures } from '../part-load.ts';
import { ringWallCheck } from '../ring-wall.ts';
import { pieceFigures } from '../costs.ts';
import { springFigures } from '../springs.ts';
import { sprungChecks, sprungPlanetFigures } from '../taken-out.ts';
import { TOOTHED } from '../../gear/suspects.ts';
import { stated } from '../../units/stated.ts';
import {
  meshChecks,
  meshFigures,
  modeChecks,
  meshModeWorkings,
  modeFigures,
  MODULES,
  plainToothing,
  sharedOutBy,
  spacesEvenly,
  trainRatio,
  trainSpeeds,
  wheelChecks,
  wheelFigures,
  isTwoHanded,
} from '../../gear/index.ts';
import { steppedUp } from '../../math/steps.ts';
import { check, type FigureMaker, term, type Check, type Figure, exact, worked } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty, KindTable, StageKind, StageWish } from '../contract.ts';
import { described, startsOf } from '../param.ts';
import { opener, type StageSteps } from '../open.ts';
import { compoundFreedom } from './freedom.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import { compoundCounts } from './counts.ts';
import { compoundShapes, drawCompound, type CompoundShapes } from './drawing.ts';
import { identicalCount } from './geometry.ts';
import {
  buildCompound,
  compoundTrain,
  modelCompound,
  wrongCompound,
  type CompoundBuild,
  type CompoundModel,
} from './model.ts';
import { compoundParams, type CompoundParams as P } from './params.ts';
import { compoundAssembly, compoundParts, compoundPorts } from './parts.ts';

const sunny = (p: P) => p.drive === 'sun';

function figures(p: P, at: Duty, shelf: Shelf, m: CompoundModel, make: FigureMaker<CompoundModel>): Figure[] {
  const g = m.geometry;
  const counts = [
    term('z_s', 'teeth, sun', p.zs, 'count', 'field', 'zs'),
    term('z_pA', 'planet A', p.zpA, 'count', 'field', 'zpA'),
    term('z_r1', 'held ring', p.zr1, 'count', 'field', 'zr1'),
    term('z_pB', 'planet B', p.zpB, 'count', 'field', 'zpB'),
    term('z_r2', 'driven ring', p.zr2, 'count', 'field', 'zr2'),
  ].slice(sunny(p) ? 0 : 1);
  const etas = m.meshes.map((x) =>
    term(`η ${x.id}`, x.name, x.eta, 'efficiency', p.meshBy === 'given' ? 'field' : 'computed', 'eta'),
  );
  const lost = [
    ...etas,
    ...(m.rubs > 0 ? [term('T_p', 'friction on all pins, for a newton metre', m.rubs, 'torque', 'computed')] : []),
  ];
  const powers =
    'mesh powers in the carrier’s frame, each mesh passing η of what enters it; signs that come out consistent';
  const spread = factor(shelf, 'gear.thickness');
  const T = term('T', 'peak torque', at.torque, 'torque', 'brief');
  return [
    exact('ratio', 'Ratio', 'ratio', m.ratio, () => ({
      formula: sunny(p) ? '(1 + z_r1/z_s)/(1 − z_r1·z_pB/(z_pA·z_r2))' : '1/(1 − z_r1·z_pB/(z_pA·z_r2))',
      terms: counts,
      source: 'Willis for both toothings',
    })),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.forward,
      () => ({
        formula: 'torques of the train with what its meshes and pins lose',
        terms: lost,
        source: powers,
        note: 'It falls steeply with the ratio: most of the power runs round inside.',
      }),
    ),
    make.figure(
      'efficiencyBack',
      'Efficiency, turned back',
      'efficiency',
      (x) => x.backward,
      () => ({
        formula: 'the same with the driven ring driving',
        terms: lost,
        source: powers,
        note: '0 or less is self-locking.',
      }),
    ),
    ...(m.rubs > 0
      ? [
          make.figure(
            'pinLoss',
            'Lost on the planets’ pins',
            'efficiency',
            (x) => x.rubs * x.turns,
            () => ({
              formula: 'N·µ·F₁·d/2·n',
              terms: [
                term('N', 'planets', p.planets, 'count', 'field', 'planets'),
                term('µ', 'friction of a plain bore', factor(shelf, 'pin.friction'), 'count', 'shop', 'pin.friction'),
                term(
                  'F₁',
                  'all that a planet presses its pin with, for a newton metre',
                  m.pressed,
                  'force',
                  'computed',
                ),
                term('d', 'pin', p.pin, 'length', 'field', 'pin'),
                term('n', 'turns of a planet on its pin for one of the output', m.turns, 'count', 'computed'),
                term(
                  's',
                  'share of what leans it that pins hold',
                  factor(shelf, 'pin.lean'),
                  'efficiency',
                  'shop',
                  'pin.lean',
                ),
              ],
              source:
                'over the output’s power: both rings push planets inwards, and lean them since they pull in different planes; pressure as of an even bed',
            }),
          ),
        ]
      : []),
    exact('centre', 'Centre distance', 'length', g.centre, () => ({
      formula: sunny(p) ? 'm_t(z_s + z_pA)/2·cos α_t/cos α_wt' : 'm_t(z_r1 − z_pA)/2',
      terms: [
        ...counts,
        term('m_t', 'module in the transverse section', g.mesh1.pair.s1.mt, 'length', 'computed'),
        term('α_t', 'pressure angle there', g.mesh1.pair.s1.at, 'angle', 'computed'),
        term('α_wt', 'working angle of the sun', (g.sunMesh ?? g.mesh1).pair.working, 'angle', 'computed'),
      ],
      source: 'ISO 21771:2007; the rings are shifted to it',
    })),
    exact('shift1', 'Shift, held ring', 'count', g.ring1.shift, () => ({
      formula: 'x_p + Σx at the centre distance',
      terms: [term('a', 'centre distance', g.centre, 'length', 'computed')],
      source: 'ISO 21771:2007',
    })),
    exact('shift2', 'Shift, driven ring', 'count', g.ring2.shift, () => ({
      formula: 'x_p + Σx at the centre distance',
      terms: [term('a', 'centre distance', g.centre, 'length', 'computed')],
      source: 'ISO 21771:2007',
    })),
    exact('gap', 'Gap of neighbours', 'length', g.gap, () => ({
      formula: '2a·sin(π/N) − d_a',
      terms: [
        term('a', 'centre distance', g.centre, 'length', 'computed'),
        term(
          'd_a',
          'tip ⌀ of the larger toothing',
          2 * g.centre * Math.sin(Math.PI / p.planets) - g.gap,
          'length',
          'computed',
        ),
        term('N', 'planets', p.planets, 'count', 'field', 'planets'),
      ],
      source: 'chord of two places, less two tip radii',
    })),
    ...m.rims.map((r, i) =>
      make.figure(
        `rim-${r.id}`,
        `Wall of the ${r.name}, bending`,
        'stress',
        (x) => x.rims[i]!.stress,
        () => ({
          formula: 'F_r·R/2·(N/π − 1/tan(π/N))·6/(b·t²)',
          terms: [
            term('F_r', 'radial force of a planet', r.radial, 'force', 'computed'),
            term('R', 'middle of the wall', r.radius, 'length', 'computed'),
            term('b', 'its face width', r.width, 'length', 'computed'),
            term('t', 'its wall', r.wall, 'length', 'computed'),
            term('N', 'planets', p.planets, 'count', 'field', 'planets'),
          ],
          source: 'thin ring under N even radial loads',
        }),
      ),
    ),
    exact('alike', 'Planets alike', 'count', identicalCount(p), () => ({
      formula: '(z_r1·z_pB − z_r2·z_pA)/(N·g)',
      terms: [
        ...counts,
        term('N', 'planets', p.planets, 'count', 'field', 'planets'),
        term('g', 'greatest common divisor of both toothings’ teeth', gcd(p.zpA, p.zpB), 'count', 'computed'),
      ],
      source: g.identical ? 'whole: one planet fits every place' : 'not whole: each planet has a clocking of its own',
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
        formula: 'Σ share·j/r_w over the meshes, less what the planets’ places take away',
        terms: m.meshes.map((x) => term(`j ${x.id}`, x.name, x.mesh.pair.play, 'length', 'computed')),
        source: 'small angles of the train; free ranges of several planets overlap',
        ...(sharedOutBy(p) === 'none'
          ? {}
          : { note: 'Only of the meshes whose rings are whole: halves press on both flanks of the others.' }),
      }),
    ),
    make.figure(
      'playOne',
      'Play, one planet as drawn',
      'smallAngle',
      (x) => x.playOne,
      () => ({
        formula: 'Σ share·j/r_w',
        terms: m.meshes.map((x) => term(`j ${x.id}`, x.name, x.mesh.pair.play, 'length', 'computed')),
        source: 'small angles of the train',
      }),
    ),
    make.figure(
      'bind',
      'Play left on the tight side',
      'smallAngle',
      (x) => x.bind,
      () => ({
        formula: 'one planet’s play − thickness spread − 2·d₂(N)·σ',
        terms: [],
        source: 'below nought some planets bind',
      }),
    ),
    ...(sharedOutBy(p) === 'none' ? [] : sprungPlanetFigures(p.preload, make)),
    ...partLoadFigures(make, m, at),
    ...springFigures(
      make,
      m,
      'each spring by the energy it stores for a newton metre at the output; N planets side by side',
    ),
    ...m.meshes.flatMap((x, i) =>
      meshFigures(x.id, x.name, x.mesh, make, (q: CompoundModel) => q.meshes[i]!.load, x.load, T),
    ),
    ...modeFigures(
      m.modes,
      make,
      (x) => x.modes,
      new Map(m.meshes.flatMap((x) => meshModeWorkings(x.id, x.mesh, x.load, at))),
    ),
    ...(g.sun ? wheelFigures(g.sun, 'sun', 'sun', g.sunMesh!.pair.s1.ra, spread) : []),
    ...wheelFigures(g.planetA, 'planetA', 'planet A', g.mesh1.pair.s1.ra, spread),
    ...wheelFigures(g.ring1, 'ring1', 'held ring', g.mesh1.pair.s2.ra, spread),
    ...wheelFigures(g.planetB, 'planetB', 'planet B', g.mesh2.pair.s1.ra, spread),
    ...wheelFigures(g.ring2, 'ring2', 'driven ring', g.mesh2.pair.s2.ra, spread),
    ...pieceFigures(make, m.pieces, {
      mass: 'blanks by the share that holes leave',
      money: 'material by mass, work by tooth for milled wheels',
    }),
  ];
}

const ADVICE = 'Take a larger module, wider wheels, a stronger material, or share it among more planets.';

function checks(p: P, at: Duty, m: CompoundModel): Check[] {
  const g = m.geometry;
  const over = (p.zs + p.zr1) % p.planets;
  const list: Check[] = [];
  if (g.sun) {
    const better = [p.zs - 1, p.zs + 1, p.zs - 2, p.zs + 2].find((z) => z >= 5 && spacesEvenly(z, p.zr1, p.planets));
    list.push(
      check({
        id: 'assembles',
        name: 'Planets can be put in evenly',
        figure: Math.min(over, p.planets - over),
        limit: 0,
        sense: 'max',
        quantity: 'count',
        near: 0,
        why: `Sun and held ring need ${p.zs} + ${p.zr1} = ${p.zs + p.zr1} divisible by ${p.planets}; ${over} is left.`,
        ...(better
          ? { mend: { path: 'zs', value: better, label: `Sun ${better} teeth` } }
          : {
              mend: {
                path: 'planets',
                value: Math.max(2, p.planets - 1),
                label: `${Math.max(2, p.planets - 1)} planets`,
              },
            }),
      }),
    );
  }
  list.push(
    check({
      id: 'alike',
      of: 'alike',
      name: 'Planets are alike',
      figure: g.identical ? 0 : 1,
      limit: 0.5,
      sense: 'max',
      quantity: 'count',
      severity: 'note',
      near: 0,
      why: g.identical
        ? 'One planet fits every place.'
        : 'Each planet has an angle of its own between its toothings; the table and the assembly give them. A mark on each keeps them apart.',
      advice: 'Choose counts whose cross products differ by a multiple of the planets.',
    }),
  );
  list.push(
    check({
      id: 'gap',
      of: 'gap',
      name: 'Neighbouring planets clear',
      figure: g.gap,
      limit: 0.5 * p.module,
      sense: 'min',
      quantity: 'length',
      severity: g.gap <= 0 ? 'stop' : 'warn',
      why: 'Their tips pass close to one another.',
      ...(p.planets > 2 ? { mend: { path: 'planets', value: p.planets - 1, label: `${p.planets - 1} planets` } } : {}),
      advice: 'Take fewer or smaller planets.',
    }),
  );
  const mat = (id: string, i: 0 | 1) => m.meshes.find((x) => x.id === id)!.materials[i];
  if (g.sun) list.push(...wheelChecks(g.sun, { id: 'sun', name: 'sun', shift: 'xs' }, g.sunMesh!, 0, mat('sun', 0)));
  list.push(
    ...wheelChecks(g.planetA, { id: 'planetA', name: 'planet A', shift: 'xpA' }, g.mesh1, 0, mat('ring1', 0)),
    ...wheelChecks(g.ring1, { id: 'ring1', name: 'held ring' }, g.mesh1, 1, mat('ring1', 1)),
    ...wheelChecks(g.planetB, { id: 'planetB', name: 'planet B', shift: 'xpB' }, g.mesh2, 0, mat('ring2', 0)),
    ...wheelChecks(g.ring2, { id: 'ring2', name: 'driven ring' }, g.mesh2, 1, mat('ring2', 1)),
  );
  for (const x of m.meshes) list.push(...meshChecks(x.id, x.name, x.mesh));
  const b = (id: string) => id.endsWith('ring2') || id.includes('ring2-');
  // Both toothings share one centre distance: where one module grows, the other grows with it.
  const withBoth = (c: Check): Check => {
    const { mend } = c;
    if (mend?.path !== 'module') return c;
    const of = b(c.id) ? p.moduleB : p.module;
    const [module, moduleB] = [p.module, p.moduleB].map((x) =>
      Number(((x * (mend.value as number)) / of).toPrecision(9)),
    ) as [number, number];
    return {
      ...c,
      mend: {
        path: 'module',
        value: module,
        also: { moduleB },
        label: `Modules ${stated(module, 'length', 4)} and ${stated(moduleB, 'length', 4)}`,
      },
    };
  };
  const onB = (c: Check): Check =>
    c.mend?.path === 'width'
      ? { ...c, mend: { ...c.mend, path: 'widthB', label: c.mend.label.replace('Face width', 'Face width B') } }
      : c;
  list.push(
    ...modeChecks(
      m.modes.filter((x) => !b(x.id)),
      p,
      at,
      ADVICE,
    ).map(withBoth),
  );
  list.push(
    ...modeChecks(
      m.modes.filter((x) => b(x.id)),
      { width: p.widthB, module: p.moduleB },
      at,
      ADVICE,
    ).map((c) => withBoth(onB(c))),
  );
  list.push(
    check({
      id: 'worth',
      of: 'efficiency',
      name: 'Enough gets through',
      figure: m.forward,
      limit: 0.4,
      sense: 'min',
      quantity: 'efficiency',
      severity: 'warn',
      why: 'Below this most of the motor’s work heats the teeth.',
      advice: 'Take counts with less ratio, and let another stage do the rest.',
    }),
  );
  if (p.helix > 0)
    list.push(
      check({
        id: 'hands',
        name: 'Hands of the teeth go together',
        figure: isTwoHanded(p) ? 2 : 1,
        limit: p.drive === 'sun' ? 1 : 2,
        sense: 'max',
        quantity: 'count',
        near: 0,
        why: 'Teeth of two hands go into one another from the side only: planets come into both rings from the middle, and then no sun can.',
        mend: { path: 'double', value: 'no', label: 'Single helix' },
        advice: 'Take one hand, or let the planets’ cage drive, without a sun.',
      }),
    );
  for (const r of m.rims)
    list.push(
      ringWallCheck({
        of: `rim-${r.id}`,
        name: `Wall of the ${r.name}`,
        stress: r.stress,
        wall: r.wall,
        material: m.materials[2].material,
        path: 'rim',
        value: p.rim,
        held: r.held,
        why: `The planets press the ${r.name} out where they stand and bend its wall in between.`,
      }),
    );
  list.push(...sprungChecks(sharedOutBy(p) !== 'none', p.preload, at, m));
  list.push(
    check({
      id: 'bind',
      of: 'bind',
      name: 'Planets do not bind',
      figure: m.bind,
      limit: 0,
      sense: 'min',
      quantity: 'smallAngle',
      severity: 'warn',
      near: 0,
      why: 'Teeth come out thicker or thinner; the allowance must be more than that.',
      mend: {
        path: 'allowanceB',
        value: steppedUp(p.allowanceB + 2e-5, 1e-5),
        label: `B ${stated(steppedUp(p.allowanceB + 2e-5, 1e-5), 'length', 4)} thinner`,
      },
    }),
  );
  return list;
}

/** How B is clocked to A on each planet. */
function tables(p: P, { geometry: g }: CompoundBuild): readonly KindTable[] {
  return [
    {
      id: 'clocking',
      title: 'Clocking of the planets',
      columns: [
        { name: 'planet', quantity: 'count' },
        { name: 'place', quantity: 'angle' },
        { name: 'B from A', quantity: 'angle' },
      ],
      rows: g.clocking.map((x, i) => ({ cells: [i + 1, (2 * Math.PI * i) / p.planets, x], current: false })),
    },
  ];
}

const steps: StageSteps<P, CompoundBuild, CompoundModel, CompoundShapes> = {
  usual: {
    efficiency: { plastic: [0.4, 0.92], metal: [0.6, 0.96] },
    play: { plastic: minutes(3, 90), metal: minutes(1, 30) },
    because: {
      efficiency: 'Losses grow with the ratio: power circulates between both rings.',
      play: 'Play goes with the allowances of both toothings over the driven ring’s radius.',
    },
  },
  rigid: [
    ['materialS', 'Sun is stiff'],
    ['materialP', 'Planets are stiff'],
    ['materialR', 'Rings are stiff'],
    ['materialPins', 'Planets’ pins are stiff'],
  ],
  build: buildCompound,
  wrong: wrongCompound,
  kinematics: (p) => {
    const train = compoundTrain(p);
    const ratio = trainRatio(train);
    const planet = Math.abs(trainSpeeds(train).planet);
    return {
      ratio,
      members: [
        { name: p.drive, role: 'input' },
        { name: 'driven ring', role: 'output' },
        { name: 'held ring', role: 'fixed' },
        ...(p.drive === 'sun' ? [{ name: 'carrier', role: 'free' as const }] : []),
      ],
      orders: [
        { name: 'input', perTurn: Math.abs(ratio) },
        { name: 'output', perTurn: 1 },
        { name: 'mesh A', perTurn: planet * p.zpA },
        { name: 'mesh B', perTurn: planet * p.zpB },
      ],
    };
  },
  model: modelCompound,
  figures,
  checks: (p, at, _shelf, m) => checks(p, at, m),
  shapes: compoundShapes,
  draw: drawCompound,
  tables,
  parts: compoundParts,
  ports: compoundPorts,
  assembly: compoundAssembly,
  freedom: compoundFreedom,
};

/**
 * Sets of counts on one module for both toothings, unshifted and alike; ratio rises as the cross products draw
 * together.
 */
const COUNTS = [
  [15, 24, 63, 21, 60],
  [12, 18, 48, 15, 45],
  [12, 21, 54, 18, 51],
  [18, 24, 66, 21, 63],
  [12, 24, 60, 21, 57],
  [18, 27, 72, 24, 69],
  [15, 30, 75, 27, 72],
] as const;

const base = (module: number, c: readonly [number, number, number, number, number]): P => ({
  ...startsOf(compoundParams),
  zs: c[0],
  zpA: c[1],
  zr1: c[2],
  zpB: c[3],
  zr2: c[4],
  ...plainToothing(module, 10 * module + 2e-3),
  trim: 'yes',
  moduleB: module,
  widthB: 12 * module + 2e-3,
  pin: Math.max(2e-3, Math.round(c[3] * module * 250) * 1e-3),
  rim: Math.max(3e-3, 3 * module),
  boreS: c[0] * module > 9e-3 ? 5e-3 : 0,
});

type Counts = Parameters<typeof base>[1];

/** How far a ratio that usual counts give may be from the one wanted, as a share. */
const NEAR = 0.06;
/** Fewest teeth that are not undercut unshifted at 20°; where there are none, fewer. Source: ISO 53 rack, 2/sin² α. */
const FEWEST = [17, 14, 11];

/** Counts for a ratio: usual ones that come near, or else those that do of all that assemble, small rings first. */
function countsFor(ratio: number): readonly Counts[] {
  const off = (c: Counts) => Math.abs(Math.log(Math.abs(trainRatio(compoundTrain(base(1e-3, c)))) / Math.abs(ratio)));
  const usual = [...COUNTS].sort((a, b) => off(a) - off(b)).slice(0, 2);
  if (off(usual[0]!) <= NEAR && usual[0]![0] >= FEWEST[1]!) return usual;
  const { sets } = compoundCounts(base(1e-3, COUNTS[0]), { ratio, size: Infinity, tolerance: NEAR });
  const all = sets
    .filter((s) => s.assembles)
    .map((s) => [s.values['zs']!, s.values['zpA']!, s.values['zr1']!, s.values['zpB']!, s.values['zr2']!] as const)
    .sort((a, b) => a[2] - b[2]);
  for (const least of FEWEST) {
    const found = all.filter((c) => Math.min(c[0], c[1], c[3]) >= least);
    if (found.length) return found.slice(0, 3);
  }
  return usual;
}

function* candidates(want: StageWish): Generator<P> {
  const near = countsFor(want.ratio);
  for (const module of MODULES.slice(2)) {
    for (const c of near) {
      const p = base(module, c);
      if ((p.zr1 + 2.5) * module + 2 * p.rim <= want.size) yield p;
    }
  }
}

/** Planets with two toothings shared by a held and a driven ring: much ratio in one flat stage. */
export const compoundPlanetary: StageKind<P> = {
  id: 'compound-planetary',
  name: 'Shared-planet',
  summary: 'Planets with two toothings, two rings: much ratio in one flat stage; efficiency falls with it.',
  suspects: TOOTHED,
  ...described(compoundParams),
  defaults: (want) => firstThatCarries(compoundPlanetary, want) ?? base(1e-3, COUNTS[0]),
  open: opener(steps, compoundParams),
  counts: compoundCounts,
  passage: 'boreS',
  candidates,
};

export type { CompoundParams } from './params.ts';
