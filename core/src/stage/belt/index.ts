import type { StageKind } from '../contract.ts';
import { described } from '../param.ts';
import { reTension } from './retension.ts';
import { opener, type StageSteps } from '../open.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import { beltCandidates, plainBelt } from './candidates.ts';
import { beltChecks } from './checks.ts';
import { beltShapes, drawBelt, type BeltShapes } from './drawing.ts';
import { beltFigures } from './figures.ts';
import { buildBelt, modelBelt, wrongBelt, type BeltBuild, type BeltModel } from './model.ts';
import { beltParams, type BeltParams } from './params.ts';
import { beltTables } from './tables.ts';
import { beltAssembly, beltParts, beltPorts } from './parts.ts';

const steps: StageSteps<BeltParams, BeltBuild, BeltModel, BeltShapes> = {
  build: buildBelt,
  wrong: wrongBelt,
  kinematics: (p) => ({
    ratio: p.z2 / p.z1,
    members: [
      { name: 'driving pulley', role: 'input' },
      { name: 'driven pulley', role: 'output' },
      { name: 'frame', role: 'fixed' },
    ],
    orders: [
      { name: 'driving pulley', perTurn: p.z2 / p.z1 },
      { name: 'driven pulley', perTurn: 1 },
      { name: 'belt teeth', perTurn: p.z2 },
      { name: 'belt', perTurn: p.z2 / p.beltTeeth },
    ],
  }),
  model: modelBelt,
  figures: beltFigures,
  checks: beltChecks,
  shapes: beltShapes,
  draw: drawBelt,
  parts: beltParts,
  ports: beltPorts,
  assembly: beltAssembly,
};

/** Synchronous belt over two pulleys, with or without an idler. */
export const belt: StageKind<BeltParams> = {
  id: 'belt',
  name: 'Belt',
  summary: 'Synchronous belt over two pulleys: no play while taut, springy, cheap, quiet.',
  suspects: {
    play: {
      above:
        'A belt that is not taut, a pulley loose on its shaft, or a push hard enough to wind the belt up reads as play.',
      below: 'Friction held the belt on one flank.',
    },
    stiffness: { below: 'A belt less taut than stated hangs on one side sooner and is half as stiff there.' },
    torque: { below: 'Look at the belt’s tension (jumping) and at the pulley’s hold on its shaft (creep).' },
  },
  ...described(beltParams),
  defaults: (want) => firstThatCarries(belt, want) ?? plainBelt(want),
  alongWith: reTension,
  open: opener(steps, beltParams),
  tables: beltTables,
  passage: 'bore2',
  candidates: beltCandidates,
};

export type { BeltParams } from './params.ts';
