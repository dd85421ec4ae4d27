import { ok, type Result } from '../../result.ts';
import type { Shelf } from '../../shop/shelf.ts';
import type { Duty, KindTable, StageKind, StageReport } from '../contract.ts';
import { reportOf } from '../report.ts';
import { cycloidalCandidates, cycloidalDefaults } from './candidates.ts';
import { cycloidalChecks } from './checks.ts';
import { cycloidalCourses, cycloidalMap } from './courses.ts';
import { drawCycloidal } from './drawing.ts';
import { cycloidalFields } from './fields.ts';
import { cycloidalFigures } from './figures.ts';
import { cycloidalGeometry } from './geometry.ts';
import { cycloidalFactors, modelCycloidal } from './model.ts';
import { cycloidalRatio, cycloidalSchema, lobesOf, type CycloidalParams } from './params.ts';
import { cycloidalAssembly, cycloidalParts } from './parts.ts';

const analyse = (p: CycloidalParams, at: Duty, shelf: Shelf): Result<StageReport> =>
  reportOf(
    shelf,
    (s) => modelCycloidal(p, at, s),
    cycloidalFactors(p),
    (m, make) => cycloidalFigures(p, at, shelf, m, make),
    (m) => cycloidalChecks(p, at, m, shelf),
  );

function tables(p: CycloidalParams): readonly KindTable[] {
  const g = cycloidalGeometry(p);
  if (!g.ok || g.value.alike) return [];
  return [
    {
      id: 'clocking',
      title: 'Lobes from holes',
      columns: [
        { name: 'disc', quantity: 'count' },
        { name: 'turned', quantity: 'angle' },
      ],
      rows: g.value.clocking.map((x, i) => ({ cells: [i + 1, x], current: false })),
    },
  ];
}

/** A cycloidal disc in a ring of pins: much ratio and many teeth in touch in one flat stage. */
export const cycloidal: StageKind<CycloidalParams> = {
  id: 'cycloidal',
  name: 'Cycloidal',
  summary: 'A lobed disc in a ring of pins: much ratio, many contacts, stands shocks; play by its gaps.',
  schema: cycloidalSchema,
  fields: cycloidalFields,
  defaults: cycloidalDefaults,
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
  factors: cycloidalFactors,
  analyse,
  screen: (p, at, shelf) => {
    const m = modelCycloidal(p, at, shelf);
    return m.ok ? ok(m.value.numbers) : m;
  },
  drawing: drawCycloidal,
  courses: cycloidalCourses,
  map: cycloidalMap,
  tables,
  parts: cycloidalParts,
  assembly: cycloidalAssembly,
  candidates: cycloidalCandidates,
};

export type { CycloidalParams } from './params.ts';
