import { firstThatCarries } from '../choose-candidate.ts';
import type { StageKind } from '../contract.ts';
import { opener, type StageSteps } from '../open.ts';
import { described } from '../param.ts';
import { cableCandidates, nearestCable } from './candidates.ts';
import { cableChecks } from './checks.ts';
import { cableShapes, drawCable, type CableShapes } from './drawing.ts';
import { cableFigures } from './figures.ts';
import { buildCable, modelCable, wrongCable, type CableBuild, type CableModel } from './model.ts';
import { cableParams, cableRatio, type CableParams } from './params.ts';
import { cableAssembly, cableParts, cablePorts } from './parts.ts';

const steps: StageSteps<CableParams, CableBuild, CableModel, CableShapes> = {
  rigid: [
    ['material1', 'Driving drum is stiff'],
    ['material2', 'Driven drum is stiff'],
  ],
  build: buildCable,
  wrong: wrongCable,
  kinematics: (p, { radii }) => ({
    ratio: cableRatio(p),
    members: [
      { name: 'driving drum', role: 'input' },
      { name: 'driven drum', role: 'output' },
      { name: 'frame', role: 'fixed' },
    ],
    orders: [
      { name: 'driving drum', perTurn: radii[1] / radii[0] },
      { name: 'driven drum', perTurn: 1 },
    ],
  }),
  model: modelCable,
  figures: cableFigures,
  checks: (p, at, _shelf, m) => cableChecks(p, at, m),
  shapes: cableShapes,
  draw: drawCable,
  parts: cableParts,
  ports: cablePorts,
  assembly: cableAssembly,
};

/** A cable over two drums, tensioned both ways (capstan drive). */
export const cable: StageKind<CableParams> = {
  id: 'cable',
  name: 'Cable',
  summary:
    'Cable round two drums (capstan): no play, turns back freely, quiet; its range is bounded and it wants tension.',
  suspects: {
    play: {
      above: 'A run that hangs, a clamp that has slipped, or a push hard enough to stretch the cable reads as play.',
    },
    stiffness: {
      below:
        'A cable that has not bedded in gives way at its clamps and on its drums; tension it again after some turns.',
    },
    torque: { below: 'Look for slip on the driving drum: mark the cable, and see whether the mark walks.' },
  },
  ...described(cableParams),
  defaults: (want) => firstThatCarries(cable, want) ?? nearestCable(want),
  open: opener(steps, cableParams),
  passage: 'bore2',
  candidates: cableCandidates,
};

export type { CableParams } from './params.ts';
