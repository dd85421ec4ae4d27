import { TOOTHED } from '../../gear/suspects.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import type { StageKind } from '../contract.ts';
import { opener, type StageSteps } from '../open.ts';
import { rackFreedom } from './freedom.ts';
import { described } from '../param.ts';
import { nearestRack, rackCandidates } from './candidates.ts';
import { rackChecks } from './checks.ts';
import { drawRack, rackShapes, type RackShapes } from './drawing.ts';
import { rackFigures } from './figures.ts';
import { buildRack, modelRack, wrongRack, type RackBuild, type RackModel } from './model.ts';
import { rackParams, rackRatio, type RackParams } from './params.ts';
import { rackAssembly, rackParts, rackPorts } from './parts.ts';

const steps: StageSteps<RackParams, RackBuild, RackModel, RackShapes> = {
  straight: true,
  rigid: [
    ['material1', 'Pinion is stiff'],
    ['material2', 'Rack is stiff'],
  ],
  build: buildRack,
  wrong: wrongRack,
  kinematics: (p, { geometry }) => ({
    ratio: rackRatio(p),
    members: [
      { name: p.form === 'rollers' ? 'roller pinion' : 'pinion', role: 'input' },
      { name: p.moves === 'rack' ? 'rack' : 'carriage', role: 'output' },
      { name: 'frame', role: 'fixed' },
    ],
    // Events for 2π metres, as the output's turn counts.
    orders: [
      { name: 'pinion', perTurn: 1 / geometry.radius },
      { name: p.form === 'rollers' ? 'rollers on teeth' : 'tooth mesh', perTurn: p.z / geometry.radius },
    ],
  }),
  model: modelRack,
  figures: rackFigures,
  checks: (p, at, _shelf, m) => rackChecks(p, at, m),
  shapes: rackShapes,
  draw: drawRack,
  parts: rackParts,
  ports: rackPorts,
  assembly: rackAssembly,
  freedom: rackFreedom,
};

/** A rack and its pinion, with teeth or with rollers. */
export const rack: StageKind<RackParams> = {
  id: 'rack',
  name: 'Rack',
  summary:
    'Pinion on a rack: straight travel of any length, stiff where its shaft is, with play unless it is taken out.',
  straight: true,
  suspects: {
    ...TOOTHED,
    stiffness: {
      below: 'The shaft that overhangs its bearing, and what the rack is screwed on, give way besides the teeth.',
    },
  },
  ...described(rackParams),
  defaults: (want) => firstThatCarries(rack, want) ?? nearestRack(want),
  open: opener(steps, rackParams),
  candidates: rackCandidates,
};

export type { RackParams } from './params.ts';
