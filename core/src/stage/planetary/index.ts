import { minutes } from '../plausible.ts';
import { TOOTHED } from '../../gear/suspects.ts';
import { trainRatio, trainSpeeds } from '../../gear/epicyclic.ts';
import type { StageKind } from '../contract.ts';
import { described } from '../param.ts';
import { opener, type StageSteps } from '../open.ts';
import { planetaryFreedom } from './freedom.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import { basePlanetary, planetaryCandidates } from './candidates.ts';
import { planetaryChecks } from './checks.ts';
import { countRatio, planetaryCounts } from './counts.ts';
import { drawPlanetary, planetaryPose, planetaryShapes, type PlanetaryShapes } from './drawing.ts';
import { planetaryFigures } from './figures.ts';
import { buildPlanetary, wrongPlanetary, type PlanetaryBuild } from './build.ts';
import { modelPlanetary, type PlanetaryModel } from './model.ts';
import { planetaryParams, roles, type PlanetaryParams } from './params.ts';
import { planetaryAssembly, planetaryParts, planetaryPorts } from './parts.ts';

const steps: StageSteps<PlanetaryParams, PlanetaryBuild, PlanetaryModel, PlanetaryShapes> = {
  usual: {
    efficiency: { plastic: [0.82, 0.975], metal: [0.9, 0.99] },
    play: { plastic: minutes(2, 60), metal: minutes(0.5, 20) },
    because: {
      efficiency: 'Losses go with friction and few teeth.',
      play: 'Play goes with the thickness allowances of both meshes.',
    },
  },
  rigid: [
    ['materialS', 'Sun is stiff'],
    ['materialP', 'Planets are stiff'],
    ['materialR', 'Ring and carrier are stiff'],
    ['materialPins', 'Planets’ pins are stiff'],
  ],
  build: buildPlanetary,
  wrong: wrongPlanetary,
  kinematics: (p, { geometry }) => {
    const role = roles(p);
    const ratio = countRatio(p, p.arrangement) ** p.sets;
    const { train } = planetaryPose(p, geometry, 0);
    const planet = Math.abs(trainSpeeds(train).planet);
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
          perTurn: Math.abs(trainRatio(train) === 0 ? 0 : trainSpeeds(train).carrier) * p.planets,
        },
      ],
    };
  },
  model: modelPlanetary,
  figures: planetaryFigures,
  checks: planetaryChecks,
  shapes: planetaryShapes,
  draw: drawPlanetary,
  parts: planetaryParts,
  ports: planetaryPorts,
  assembly: planetaryAssembly,
  freedom: planetaryFreedom,
};

/** Sun, planets and ring round one axis; any member fixed, any in, any out. */
export const planetary: StageKind<PlanetaryParams> = {
  id: 'planetary',
  name: 'Planetary',
  summary: 'Sun, planets and ring: compact, stiff, in line; play by its clearances.',
  suspects: TOOTHED,
  ...described(planetaryParams),
  defaults: (want) => firstThatCarries(planetary, want) ?? basePlanetary(1e-3, 0.01, 18, 27, 3, 1),
  open: opener(steps, planetaryParams),
  counts: planetaryCounts,
  passage: 'boreS',
  candidates: planetaryCandidates,
};

export type { PlanetaryParams } from './params.ts';
