import { CHAINS, chainWords } from '../../shop/chains.ts';
import { firstThatCarries } from '../choose-candidate.ts';
import type { KindTable, StageKind } from '../contract.ts';
import { opener, type StageSteps } from '../open.ts';
import { described } from '../param.ts';
import { chainCandidates, nearestChain } from './candidates.ts';
import { chainChecks } from './checks.ts';
import { chainCounts } from './counts.ts';
import { chainShapes, drawChain, type ChainShapes } from './drawing.ts';
import { chainFigures } from './figures.ts';
import { buildChain, modelChain, wrongChain, type ChainBuild, type ChainModel } from './model.ts';
import { chainParams, type ChainParams } from './params.ts';
import { chainAssembly, chainParts, chainPorts } from './parts.ts';
import { rippleCourse } from './ripple.ts';

const steps: StageSteps<ChainParams, ChainBuild, ChainModel, ChainShapes> = {
  rigid: [
    ['material1', 'Driving sprocket is stiff'],
    ['material2', 'Driven sprocket is stiff'],
  ],
  build: buildChain,
  wrong: wrongChain,
  kinematics: (p, { layout }) => ({
    ratio: p.z2 / p.z1,
    members: [
      { name: 'driving sprocket', role: 'input' },
      { name: 'driven sprocket', role: 'output' },
      ...layout.asides.filter((a) => a.driven).map(({ name }) => ({ name, role: 'free' }) as const),
      { name: 'frame', role: 'fixed' },
    ],
    orders: [
      { name: 'driving sprocket', perTurn: p.z2 / p.z1 },
      { name: 'driven sprocket', perTurn: 1 },
      { name: 'joints on teeth', perTurn: p.z2 },
      { name: 'chain', perTurn: p.z2 / layout.links },
    ],
  }),
  model: modelChain,
  figures: chainFigures,
  checks: chainChecks,
  shapes: chainShapes,
  draw: drawChain,
  courses: (p) => [rippleCourse(p)],
  parts: chainParts,
  ports: chainPorts,
  assembly: chainAssembly,
};

/** What chain numbers mean, with the sizes they stand for. */
const tables = (p: ChainParams): readonly KindTable[] => [
  {
    id: 'numbers',
    title: 'Chain numbers',
    columns: [
      { name: 'number' },
      { name: 'says' },
      { name: 'pitch', quantity: 'length' },
      { name: 'roller', quantity: 'length' },
      { name: 'inner width', quantity: 'length' },
      { name: 'least breaking load', quantity: 'force' },
    ],
    rows: CHAINS.map((c) => ({
      cells: [c.id, chainWords(c), c.pitch, c.roller, c.inner, c.breaks],
      current: c.id === p.size,
      take: { path: 'size', value: c.id, label: `Chain ${c.id}` },
    })),
  },
];

/** Roller or bush chain over two sprockets, with or without idlers and branches. */
export const chain: StageKind<ChainParams> = {
  id: 'chain',
  name: 'Chain',
  summary: 'Roller chain over two sprockets: strong, cheap, forgiving; play by its sag, and a ripple at every tooth.',
  suspects: {
    play: {
      above: 'A chain that hangs more than stated or has worn, or a sprocket loose on its shaft, reads as play.',
      below: 'A chain set too tight has none, and wears its joints and bearings.',
    },
    stiffness: { below: 'A tight run that was not drawn taut first gives way by its sag.' },
    torque: { below: 'Look at the teeth of a plastic sprocket, then at a worn chain that climbs.' },
  },
  ...described(chainParams),
  defaults: (want) => firstThatCarries(chain, want) ?? nearestChain(want),
  open: opener(steps, chainParams),
  tables,
  counts: chainCounts,
  passage: 'bore2',
  candidates: chainCandidates,
};

export type { ChainParams } from './params.ts';
