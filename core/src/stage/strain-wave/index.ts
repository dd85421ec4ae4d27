import { ok, type Result } from '../../result.ts';
import type { Shelf } from '../../shop/shelf.ts';
import type { Duty, KindTable, StageKind, StageReport } from '../contract.ts';
import { reportOf } from '../report.ts';
import { strainWaveCandidates, strainWaveDefaults } from './candidates.ts';
import { strainWaveChecks } from './checks.ts';
import { strainWaveCourses, strainWaveMap } from './courses.ts';
import { drawStrainWave } from './drawing.ts';
import { strainWaveFields } from './fields.ts';
import { strainWaveFigures } from './figures.ts';
import { strainWaveGeometry } from './geometry.ts';
import { modelStrainWave, rollerAngles, strainWaveFactors } from './model.ts';
import { ringTeeth, strainWaveRatio, strainWaveSchema, type StrainWaveParams } from './params.ts';
import { strainWaveAssembly, strainWaveParts } from './parts.ts';

const analyse = (p: StrainWaveParams, at: Duty, shelf: Shelf): Result<StageReport> =>
  reportOf(
    shelf,
    (s) => modelStrainWave(p, at, s),
    strainWaveFactors(p),
    (m, make) => strainWaveFigures(p, at, shelf, m, make),
    (m) => strainWaveChecks(p, at, m, shelf),
  );

/** Both answers to which member is bolted, and where rollers stand with what they press. */
function tables(p: StrainWaveParams): readonly KindTable[] {
  const list: KindTable[] = [
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
  const g = strainWaveGeometry(p);
  if (!g.ok) return list;
  const angles = rollerAngles(p, g.value);
  if (angles.length)
    list.push({
      id: 'rollers',
      title: 'Rollers round a lobe',
      columns: [
        { name: 'from its top', quantity: 'angle' },
        { name: 'share of push', quantity: 'efficiency' },
        { name: 'gap', quantity: 'length' },
      ],
      rows: g.value.line.groups.map((x) => ({
        cells: [
          x.angle,
          x.force /
            Math.max(
              1e-12,
              g.value.line.groups.reduce((s, y) => s + y.force * (y.angle === 0 ? 1 : 2), 0),
            ),
          x.gap * g.value.throw,
        ],
        current: false,
      })),
    });
  return list;
}

/** A flexible spline on a wave inside a ring of a few teeth more: much ratio, hardly any play, in one flat stage. */
export const strainWave: StageKind<StrainWaveParams> = {
  id: 'strain-wave',
  name: 'Strain wave',
  summary:
    'A flexible spline on a wave, inside a ring with a few teeth more: much ratio, hardly any play; flexing costs torque.',
  schema: strainWaveSchema,
  fields: strainWaveFields,
  defaults: strainWaveDefaults,
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
  factors: strainWaveFactors,
  analyse,
  screen: (p, at, shelf) => {
    const m = modelStrainWave(p, at, shelf);
    return m.ok ? ok(m.value.numbers) : m;
  },
  drawing: drawStrainWave,
  courses: strainWaveCourses,
  map: strainWaveMap,
  tables,
  parts: strainWaveParts,
  assembly: strainWaveAssembly,
  candidates: strainWaveCandidates,
};

export type { StrainWaveParams } from './params.ts';
