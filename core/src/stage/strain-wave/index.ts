import { minutes } from '../plausible.ts';
import { WAVE } from '../../wave/suspects.ts';
import type { KindTable, StageKind } from '../contract.ts';
import { described } from '../param.ts';
import { opener, type StageSteps } from '../open.ts';
import { strainWaveFreedom } from './freedom.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import { nearestStrainWave, startable, strainWaveCandidates } from './candidates.ts';
import { strainWaveChecks } from './checks.ts';
import { strainWaveCourses, strainWaveMap } from './courses.ts';
import { drawStrainWave, strainWaveShapes, type StrainWaveShapes } from './drawing.ts';
import { strainWaveFigures } from './figures.ts';
import { buildStrainWave, type StrainWaveBuild } from './build.ts';
import { wrongStrainWave } from './rollers.ts';
import { modelStrainWave, type StrainWaveModel } from './model.ts';
import { ringTeeth, strainWaveRatio, strainWaveParams, type StrainWaveParams } from './params.ts';
import { strainWaveAssembly, strainWaveParts, strainWavePorts } from './parts.ts';

/** Where rollers stand, and what they press. */
function rollerTable(_p: StrainWaveParams, { geometry: g, rollers }: StrainWaveBuild): readonly KindTable[] {
  if (rollers.length === 0) return [];
  return [
    {
      id: 'rollers',
      title: 'Rollers round a lobe',
      columns: [
        { name: 'from its top', quantity: 'angle' },
        { name: 'share of push', quantity: 'efficiency' },
        { name: 'gap', quantity: 'length' },
      ],
      rows: g.line.groups.map((x) => ({
        cells: [
          x.angle,
          x.force /
            Math.max(
              1e-12,
              g.line.groups.reduce((s, y) => s + y.force * (y.angle === 0 ? 1 : 2), 0),
            ),
          x.gap * g.throw,
        ],
        current: false,
      })),
    },
  ];
}

const steps: StageSteps<StrainWaveParams, StrainWaveBuild, StrainWaveModel, StrainWaveShapes> = {
  usual: {
    efficiency: { plastic: [0.2, 0.85], metal: [0.6, 0.9] },
    play: { plastic: minutes(0, 15), metal: minutes(0, 5) },
    because: {
      efficiency: 'Losses go with what the generator rubs with, sliding or rolling, and with the ratio.',
      play: 'Play goes with the tooth-thickness allowance.',
    },
  },
  rigid: [
    ['materialR', 'Ring is stiff'],
    ['materialG', 'Generator is stiff'],
  ],
  build: buildStrainWave,
  wrong: wrongStrainWave,
  kinematics: (p) => {
    const ratio = strainWaveRatio(p);
    const turns = Math.abs(ratio);
    const [z, other] = p.held === 'ring' ? [p.teeth, ringTeeth(p)] : [ringTeeth(p), p.teeth];
    return {
      ratio,
      members: [
        { name: 'wave generator', role: 'input' },
        { name: p.held === 'ring' ? 'spline' : 'ring', role: 'output' },
        { name: p.held, role: 'fixed' },
      ],
      orders: [
        { name: 'generator, off centre', perTurn: turns },
        { name: 'generator, both lobes', perTurn: turns * p.lobes },
        { name: 'output', perTurn: 1 },
        { name: 'teeth of the output member', perTurn: z },
        { name: 'teeth past a lobe', perTurn: turns * other },
      ],
    };
  },
  model: modelStrainWave,
  figures: strainWaveFigures,
  checks: (p, at, shelf, m, mends) => strainWaveChecks(p, at, m, shelf, mends),
  shapes: strainWaveShapes,
  draw: drawStrainWave,
  courses: (p, b, _at, shelf, m) => strainWaveCourses(p, b, shelf, m()),
  map: strainWaveMap,
  tables: rollerTable,
  parts: strainWaveParts,
  ports: strainWavePorts,
  assembly: strainWaveAssembly,
  freedom: strainWaveFreedom,
};

/** Both answers to which member is bolted. */
function tables(p: StrainWaveParams): readonly KindTable[] {
  return [
    {
      id: 'held',
      title: 'Which member is bolted',
      columns: [{ name: 'bolted' }, { name: 'drives out' }, { name: 'ratio', quantity: 'ratio' }],
      rows: (['ring', 'spline'] as const).map((held) => ({
        cells: [
          held,
          held === 'ring' ? 'spline, against the motor' : 'ring, with the motor',
          strainWaveRatio({ ...p, held }),
        ],
        current: p.held === held,
        take: { path: 'held', value: held, label: `the ${held} bolted` },
      })),
    },
  ];
}

/** A flexible spline on a wave inside a ring of a few teeth more: much ratio, hardly any play, in one flat stage. */
export const strainWave: StageKind<StrainWaveParams> = {
  id: 'strain-wave',
  name: 'Strain wave',
  summary:
    'A flexible spline on a wave, inside a ring with a few teeth more: much ratio, hardly any play; flexing costs torque.',
  suspects: WAVE,
  ...described(strainWaveParams),
  defaults: (want) => firstThatCarries(strainWave, startable(want)) ?? nearestStrainWave(want),
  open: opener(steps, strainWaveParams),
  tables,
  passage: 'shaft',
  candidates: strainWaveCandidates,
};

export type { StrainWaveParams } from './params.ts';
