import { TOOTHED } from '../../gear/suspects.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import type { StageKind } from '../contract.ts';
import { opener, type StageSteps } from '../open.ts';
import { bevelFreedom } from './freedom.ts';
import { described } from '../param.ts';
import { minutes } from '../plausible.ts';
import { bevelCandidates, nearestBevel } from './candidates.ts';
import { bevelChecks } from './checks.ts';
import { bevelCounts } from './counts.ts';
import { bevelShapes, drawBevel, type BevelShapes } from './drawing.ts';
import { bevelFigures } from './figures.ts';
import { buildBevel, modelBevel, wrongBevel, type BevelBuild, type BevelModel } from './model.ts';
import { bevelParams, type BevelParams } from './params.ts';
import { bevelAssembly, bevelParts, bevelPorts } from './parts.ts';

const steps: StageSteps<BevelParams, BevelBuild, BevelModel, BevelShapes> = {
  usual: {
    efficiency: { plastic: [0.9, 0.99], metal: [0.93, 0.995] },
    play: { plastic: minutes(1, 90), metal: minutes(0.5, 40) },
    because: {
      efficiency: 'Losses go with friction and few teeth.',
      play: 'Play goes with the thickness allowances and the mounting distances over the wheel’s radius.',
    },
  },
  rigid: [
    ['material1', 'Pinion is stiff'],
    ['material2', 'Wheel is stiff'],
  ],
  build: buildBevel,
  wrong: wrongBevel,
  kinematics: (p) => ({
    ratio: p.z2 / p.z1,
    members: [
      { name: 'pinion', role: 'input' },
      { name: 'wheel', role: 'output' },
      { name: 'frame', role: 'fixed' },
    ],
    orders: [
      { name: 'pinion', perTurn: p.z2 / p.z1 },
      { name: 'wheel', perTurn: 1 },
      { name: 'tooth mesh', perTurn: p.z2 },
    ],
  }),
  model: modelBevel,
  figures: bevelFigures,
  checks: (p, at, _shelf, m) => bevelChecks(p, at, m),
  shapes: bevelShapes,
  draw: drawBevel,
  parts: bevelParts,
  ports: bevelPorts,
  assembly: bevelAssembly,
  freedom: bevelFreedom,
};

/** A pair of straight bevel wheels; with as many teeth on both a mitre pair. */
export const bevel: StageKind<BevelParams> = {
  id: 'bevel',
  name: 'Bevel',
  summary: 'Straight bevel pair, or mitre pair: turns a corner at any angle with little loss; set by shims.',
  suspects: {
    ...TOOTHED,
    play: {
      above: 'A wheel that stands further from the crossing than drawn, or end play of either shaft, reads as play.',
      below: 'Wheels nearer to the crossing than drawn bind before they have run in.',
    },
  },
  ...described(bevelParams),
  defaults: (want) => firstThatCarries(bevel, want) ?? nearestBevel(want),
  open: opener(steps, bevelParams),
  counts: bevelCounts,
  passage: 'bore2',
  candidates: bevelCandidates,
};

export type { BevelParams } from './params.ts';
