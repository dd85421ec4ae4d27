import { minutes } from '../plausible.ts';
import { TOOTHED } from '../../gear/suspects.ts';
import type { StageKind } from '../contract.ts';
import { described } from '../param.ts';
import { opener, type StageSteps } from '../open.ts';
import { wormFreedom } from './freedom.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import { nearestWorm, wormCandidates } from './candidates.ts';
import { wormChecks } from './checks.ts';
import { drawWorm, wormShapes, type WormShapes } from './drawing.ts';
import { wormFigures } from './figures.ts';
import { buildWorm, wrongWorm, type WormBuild } from './build.ts';
import { modelWorm, type WormModel } from './model.ts';
import { wormRatio, wormParams, type WormParams } from './params.ts';
import { wormAssembly, wormParts, wormPorts } from './parts.ts';

const steps: StageSteps<WormParams, WormBuild, WormModel, WormShapes> = {
  usual: {
    efficiency: { plastic: [0.2, 0.85], metal: [0.25, 0.92] },
    play: { plastic: minutes(0.5, 60), metal: minutes(0.5, 20) },
    because: {
      efficiency: 'A worm’s losses go with its lead and friction.',
      play: 'Play goes with the centre distance and the allowances.',
    },
  },
  rigid: [
    ['material1', 'Worm is stiff'],
    ['material2', 'Wheel is stiff'],
  ],
  build: buildWorm,
  wrong: wrongWorm,
  kinematics: (p) => ({
    ratio: wormRatio(p),
    members: [
      { name: 'worm', role: 'input' },
      { name: 'wheel', role: 'output' },
      { name: 'frame', role: 'fixed' },
    ],
    orders: [
      { name: 'worm', perTurn: p.z2 / p.starts },
      { name: 'wheel', perTurn: 1 },
      { name: 'tooth mesh', perTurn: p.z2 },
    ],
  }),
  model: modelWorm,
  figures: wormFigures,
  checks: (p, at, _shelf, m) => wormChecks(p, at, m),
  shapes: wormShapes,
  draw: drawWorm,
  parts: wormParts,
  ports: wormPorts,
  assembly: wormAssembly,
  freedom: wormFreedom,
};

/** A worm and a cylindrical wheel at a right angle. */
export const worm: StageKind<WormParams> = {
  id: 'worm',
  name: 'Worm',
  summary: 'Much ratio in one step at a right angle; can hold by itself, and loses much.',
  suspects: {
    ...TOOTHED,
    play: {
      above: 'The worm’s shaft moving in its bearings, or axes further apart than drawn, reads as play.',
      below: 'Axes nearer than drawn press the thread into the wheel.',
    },
  },
  ...described(wormParams),
  defaults: (want) => firstThatCarries(worm, want) ?? nearestWorm(want),
  open: opener(steps, wormParams),
  passage: 'bore2',
  candidates: wormCandidates,
};

export type { WormParams } from './params.ts';
