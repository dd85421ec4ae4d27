import { minutes } from '../plausible.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import type { StageKind } from '../contract.ts';
import { opener, type StageSteps } from '../open.ts';
import { rollerWaveFreedom } from './freedom.ts';
import { described } from '../param.ts';
import { nearestWave, rollerWaveCandidates } from './candidates.ts';
import { rollerWaveChecks } from './checks.ts';
import { rollerWaveCounts } from './counts.ts';
import { rollerWaveCourses, rollerWaveMap } from './courses.ts';
import { drawRollerWave, rollerWaveShapes, type RollerWaveShapes } from './drawing.ts';
import { rollerWaveFigures } from './figures.ts';
import {
  buildRollerWave,
  modelRollerWave,
  wrongRollerWave,
  type RollerWaveBuild,
  type RollerWaveModel,
} from './model.ts';
import { lobesOf, rollerWaveParams, rollerWaveRatio, type RollerWaveParams } from './params.ts';
import { rollerWaveAssembly, rollerWaveParts, rollerWavePorts } from './parts.ts';

const steps: StageSteps<RollerWaveParams, RollerWaveBuild, RollerWaveModel, RollerWaveShapes> = {
  usual: {
    efficiency: { plastic: [0.75, 0.95], metal: [0.78, 0.95] },
    play: { plastic: minutes(1, 60), metal: minutes(0.3, 20) },
    because: {
      efficiency: 'Rollers rub on the cage’s walls.',
      play: 'Play goes with the gaps over how steep the wave is.',
    },
  },
  rigid: [
    ['materialR', 'Ring is stiff'],
    ['materialC', 'Cage is stiff'],
    ['materialP', 'Rollers are stiff'],
  ],
  build: buildRollerWave,
  wrong: wrongRollerWave,
  kinematics: (p) => {
    const ratio = rollerWaveRatio(p);
    return {
      ratio,
      members: [
        { name: 'eccentric', role: 'input' },
        { name: 'cage', role: p.held === 'ring' ? 'output' : 'fixed' },
        { name: 'ring', role: p.held === 'ring' ? 'fixed' : 'output' },
        { name: 'rollers', role: 'free' },
      ],
      orders: [
        { name: 'eccentric', perTurn: Math.abs(ratio) },
        { name: 'output', perTurn: 1 },
        { name: 'rollers over lobes', perTurn: p.rollers * lobesOf(p) },
      ],
    };
  },
  model: modelRollerWave,
  figures: rollerWaveFigures,
  checks: (p, at, _shelf, m) => rollerWaveChecks(p, at, m),
  shapes: rollerWaveShapes,
  draw: drawRollerWave,
  courses: (p, b, at, _shelf, m) => rollerWaveCourses(p, b, at, m().contact),
  map: (p, b, at, _shelf, m) => rollerWaveMap(p, b, at, m().contact),
  parts: rollerWaveParts,
  ports: (p) => rollerWavePorts(p),
  assembly: rollerWaveAssembly,
  freedom: rollerWaveFreedom,
};

/** An eccentric that drives rollers in a slotted cage through the lobes of a ring. */
export const rollerWave: StageKind<RollerWaveParams> = {
  id: 'roller-wave',
  name: 'Roller wave',
  summary:
    'Rollers in a slotted cage, driven by an eccentric through the lobes of a ring: compact, little play, many carry.',
  suspects: {
    play: {
      above: 'A ring cut further out, slots wider than drawn, or a loose eccentric bearing read as play.',
      below: 'Rollers that bite somewhere brake, and hide the play.',
    },
    stiffness: { below: 'Walls of the cage and the bearing’s seat give way besides the contacts.' },
    torque: { below: 'Look at the walls of the cage, then at the crests of the ring.' },
  },
  ...described(rollerWaveParams),
  defaults: (want) => firstThatCarries(rollerWave, want) ?? nearestWave(want),
  open: opener(steps, rollerWaveParams),
  counts: rollerWaveCounts,
  passage: 'shaft',
  candidates: rollerWaveCandidates,
};

export type { RollerWaveParams } from './params.ts';
