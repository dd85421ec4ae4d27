import { ok, type Result } from '../../result.ts';
import type { Shelf } from '../../shop/shelf.ts';
import type { Duty, StageKind, StageReport } from '../contract.ts';
import { reportOf } from '../report.ts';
import { wormCandidates, wormDefaults } from './candidates.ts';
import { wormChecks } from './checks.ts';
import { drawWorm } from './drawing.ts';
import { wormFields } from './fields.ts';
import { wormFigures } from './figures.ts';
import { modelWorm, wormFactors } from './model.ts';
import { wormRatio, wormSchema, type WormParams } from './params.ts';
import { wormAssembly, wormParts } from './parts.ts';

const analyse = (p: WormParams, at: Duty, shelf: Shelf): Result<StageReport> =>
  reportOf(
    shelf,
    (s) => modelWorm(p, at, s),
    wormFactors(p),
    (m, make) => wormFigures(p, at, shelf, m, make),
    (m) => wormChecks(p, at, m),
  );

/** A worm and a cylindrical wheel at a right angle. */
export const worm: StageKind<WormParams> = {
  id: 'worm',
  name: 'Worm',
  summary: 'Much ratio in one step at a right angle; can hold by itself, and loses much.',
  schema: wormSchema,
  fields: wormFields,
  defaults: wormDefaults,
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
  factors: wormFactors,
  analyse,
  screen: (p, at, shelf) => {
    const m = modelWorm(p, at, shelf);
    return m.ok ? ok(m.value.numbers) : m;
  },
  drawing: drawWorm,
  parts: wormParts,
  assembly: wormAssembly,
  candidates: wormCandidates,
};

export type { WormParams } from './params.ts';
