import { minutes } from '../plausible.ts';
import { LOBED } from '../../lobed/suspects.ts';
import type { KindTable, StageKind } from '../contract.ts';
import { described } from '../param.ts';
import { opener, type StageSteps } from '../open.ts';
import { cycloidalFreedom } from './freedom.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import { cycloidalCandidates, nearestCycloidal, startable } from './candidates.ts';
import { cycloidalChecks } from './checks.ts';
import { cycloidalCourses, cycloidalMap } from './courses.ts';
import { cycloidalShapes, drawCycloidal, type CycloidalShapes } from './drawing.ts';
import { cycloidalFigures } from './figures.ts';
import { buildCycloidal, wrongCycloidal, type CycloidalBuild } from './build.ts';
import { modelCycloidal, type CycloidalModel } from './model.ts';
import { cycloidalRatio, cycloidalParams, lobesOf, type CycloidalParams } from './params.ts';
import { cycloidalAssembly, cycloidalParts, cycloidalPorts } from './parts.ts';

/** How the lobes of each disc are clocked to its holes, where discs differ. */
function tables(_p: CycloidalParams, { geometry: g }: CycloidalBuild): readonly KindTable[] {
  if (g.alike) return [];
  return [
    {
      id: 'clocking',
      title: 'Lobes from holes',
      columns: [
        { name: 'disc', quantity: 'count' },
        { name: 'turned', quantity: 'angle' },
      ],
      rows: g.clocking.map((x, i) => ({ cells: [i + 1, x], current: false })),
    },
  ];
}

const steps: StageSteps<CycloidalParams, CycloidalBuild, CycloidalModel, CycloidalShapes> = {
  usual: {
    efficiency: { plastic: [0.6, 0.95], metal: [0.7, 0.96] },
    play: { plastic: minutes(2, 60), metal: minutes(0.3, 20) },
    because: {
      efficiency: 'Losses go with sliding on pins; sleeves take most of them.',
      play: 'Play goes with the gap over (Z − 1)·e: a small eccentricity makes much of it.',
    },
  },
  rigid: [
    ['materialD', 'Discs are stiff'],
    ['materialP', 'Pins are stiff'],
    ['materialH', 'Housing and plates are stiff'],
  ],
  build: buildCycloidal,
  wrong: wrongCycloidal,
  kinematics: (p) => {
    const ratio = Math.abs(cycloidalRatio(p));
    return {
      ratio: cycloidalRatio(p),
      members: [
        { name: 'crank', role: 'input' },
        { name: p.held === 'ring' ? 'disc' : 'ring', role: 'output' },
        { name: p.held === 'ring' ? 'ring' : 'disc', role: 'fixed' },
      ],
      orders: [
        { name: 'crank', perTurn: ratio },
        { name: 'output', perTurn: 1 },
        { name: 'pins', perTurn: ratio * p.pins },
        { name: 'lobes', perTurn: ratio * lobesOf(p) },
        { name: 'output pins', perTurn: ratio * p.outPins },
      ],
    };
  },
  model: modelCycloidal,
  figures: cycloidalFigures,
  checks: (p, at, shelf, m) => cycloidalChecks(p, at, m, shelf),
  shapes: cycloidalShapes,
  draw: drawCycloidal,
  courses: (p, b, at, _shelf, m) => cycloidalCourses(p, b, at, m().contact),
  map: (p, b, at, _shelf, m) => cycloidalMap(p, b, at, m().contact),
  tables,
  parts: cycloidalParts,
  ports: cycloidalPorts,
  assembly: cycloidalAssembly,
  freedom: cycloidalFreedom,
};

/** A cycloidal disc in a ring of pins: much ratio and many teeth in touch in one flat stage. */
export const cycloidal: StageKind<CycloidalParams> = {
  id: 'cycloidal',
  name: 'Cycloidal',
  summary: 'A lobed disc in a ring of pins: much ratio, many contacts, stands shocks; play by its gaps.',
  suspects: LOBED,
  ...described(cycloidalParams),
  defaults: (want) => firstThatCarries(cycloidal, startable(want)) ?? nearestCycloidal(want),
  open: opener(steps, cycloidalParams),
  passage: 'shaft',
  candidates: cycloidalCandidates,
};

export type { CycloidalParams } from './params.ts';
