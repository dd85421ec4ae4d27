import { firstThatCarries } from '../choose-candidate.ts';
import type { StageKind } from '../contract.ts';
import { opener, type StageSteps } from '../open.ts';
import { described } from '../param.ts';
import { nearestScrew, screwCandidates } from './candidates.ts';
import { screwChecks } from './checks.ts';
import { drawScrew, screwShapes, type ScrewShapes } from './drawing.ts';
import { screwFigures } from './figures.ts';
import { buildScrew, modelScrew, type ScrewBuild, type ScrewModel } from './model.ts';
import { leadOf, screwParams, screwRatio, type ScrewParams } from './params.ts';
import { screwAssembly, screwParts, screwPorts } from './parts.ts';

const steps: StageSteps<ScrewParams, ScrewBuild, ScrewModel, ScrewShapes> = {
  straight: true,
  rigid: [
    ['material1', 'Screw is stiff'],
    ['material2', 'Nut is stiff'],
  ],
  build: buildScrew,
  kinematics: (p) => ({
    ratio: screwRatio(p),
    members: [
      { name: 'screw', role: 'input' },
      { name: 'nut', role: 'output' },
      { name: 'frame', role: 'fixed' },
    ],
    // Events for 2π metres, as the output's turn counts.
    orders: [
      { name: 'screw', perTurn: (2 * Math.PI) / leadOf(p) },
      { name: 'starts', perTurn: (2 * Math.PI * p.starts) / leadOf(p) },
    ],
  }),
  model: modelScrew,
  figures: screwFigures,
  checks: screwChecks,
  shapes: screwShapes,
  draw: drawScrew,
  parts: screwParts,
  ports: screwPorts,
  assembly: screwAssembly,
};

/** A screw and its nut: trapezoidal or with balls. */
export const screw: StageKind<ScrewParams> = {
  id: 'screw',
  name: 'Screw',
  summary: 'Screw and nut: much force from little torque, fine steps; a plain one can hold by itself.',
  straight: true,
  suspects: {
    play: {
      above: 'A nut that has worn, or a bearing with end play, reads as play.',
      below: 'A nut that binds against the guide shows none, and brakes.',
    },
    stiffness: { below: 'The bearing’s seat and what carries the nut give way besides the screw.' },
    torque: { below: 'Look at the alignment of nut and guide, then at grease and the collar.' },
  },
  ...described(screwParams),
  defaults: (want) => firstThatCarries(screw, want) ?? nearestScrew(want),
  open: opener(steps, screwParams),
  candidates: screwCandidates,
};

export type { ScrewParams } from './params.ts';
