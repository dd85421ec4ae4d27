import { trainRatio, trainSpeeds } from '../../gear/epicyclic.ts';
import { ok, type Result } from '../../result.ts';
import type { Shelf } from '../../shop/shelf.ts';
import type { Duty, Screening, StageKind, StageReport } from '../contract.ts';
import { reportOf } from '../report.ts';
import { planetaryCandidates, planetaryDefaults } from './candidates.ts';
import { planetaryChecks } from './checks.ts';
import { countRatio, planetaryCounts } from './counts.ts';
import { drawPlanetary, planetaryPose } from './drawing.ts';
import { planetaryFields } from './fields.ts';
import { planetaryFigures } from './figures.ts';
import { planetaryGeometry } from './geometry.ts';
import { modelPlanetary, planetaryFactors } from './model.ts';
import { planetarySchema, roles, type PlanetaryParams } from './params.ts';
import { planetaryAssembly, planetaryParts } from './parts.ts';

const analyse = (p: PlanetaryParams, at: Duty, shelf: Shelf): Result<StageReport> =>
  reportOf(
    shelf,
    (s) => modelPlanetary(p, at, s),
    planetaryFactors(p),
    (m, make) => planetaryFigures(p, at, shelf, m, make),
    (m) => planetaryChecks(p, at, shelf, m),
  );

function screen(p: PlanetaryParams, at: Duty, shelf: Shelf): Screening {
  const made = modelPlanetary(p, at, shelf);
  return made.ok ? ok(made.value.numbers) : made;
}

/** Sun, planets and ring round one axis; any member fixed, any in, any out. */
export const planetary: StageKind<PlanetaryParams> = {
  id: 'planetary',
  name: 'Planetary',
  summary: 'Sun, planets and ring: compact, stiff, in line; play by its clearances.',
  schema: planetarySchema,
  fields: planetaryFields,
  defaults: planetaryDefaults,
  kinematics: (p) => {
    const role = roles(p);
    const ratio = countRatio(p, p.arrangement) ** p.sets;
    const geometry = planetaryGeometry(p);
    const train = geometry.ok ? planetaryPose(p, geometry.value, 0).train : undefined;
    const planet = train ? Math.abs(trainSpeeds(train).planet) : 0;
    // Every tooth of the sun meets a planet once for each turn against the carrier.
    const mesh = planet * p.zp;
    return {
      ratio,
      members: (['sun', 'ring', 'carrier'] as const).map((name) => ({
        name,
        role: name === role.input ? 'input' : name === role.output ? 'output' : 'fixed',
      })),
      orders: [
        { name: 'input', perTurn: Math.abs(ratio) },
        { name: 'output', perTurn: 1 },
        { name: 'tooth mesh', perTurn: mesh },
        { name: 'planet on its pin', perTurn: planet },
        {
          name: 'planets passing',
          perTurn: train ? Math.abs(trainRatio(train) === 0 ? 0 : trainSpeeds(train).carrier) * p.planets : 0,
        },
      ],
    };
  },
  factors: planetaryFactors,
  analyse,
  screen,
  drawing: drawPlanetary,
  counts: planetaryCounts,
  parts: planetaryParts,
  assembly: planetaryAssembly,
  candidates: planetaryCandidates,
};

export type { PlanetaryParams } from './params.ts';
