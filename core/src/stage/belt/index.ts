import { ok, type Result } from '../../result.ts';
import type { Shelf } from '../../shop/shelf.ts';
import type { Duty, Screening, StageKind, StageReport } from '../contract.ts';
import { reportOf } from '../report.ts';
import { beltCandidates, beltDefaults } from './candidates.ts';
import { beltChecks } from './checks.ts';
import { drawBelt } from './drawing.ts';
import { beltFields } from './fields.ts';
import { beltFigures } from './figures.ts';
import { modelBelt } from './model.ts';
import { beltSchema, type BeltParams } from './params.ts';
import { beltTables } from './tables.ts';
import { beltAssembly, beltParts } from './parts.ts';

/** Only what this stage reads: a factor that moves nothing would cost two trials for no band. */
function factors(p: BeltParams): readonly string[] {
  const holds = new Set([p.hold1, p.hold2]);
  const made = new Set([p.made1, p.made2, ...(p.idler === 'none' ? [] : ['bought'])]);
  return [
    `belt.${p.section}.stiffness`,
    `belt.${p.section}.tension`,
    `belt.${p.section}.shear`,
    `belt.${p.section}.jump`,
    `belt.${p.section}.mass`,
    'belt.efficiency',
    'belt.seal',
    'belt.bearing',
    'belt.tooth',
    'belt.jump',
    'belt.takeUp',
    'price.belt',
    'price.bearing',
    ...(holds.has('screws') ? ['hold.screw'] : []),
    ...(holds.has('glue') ? ['hold.glue'] : []),
    ...(holds.has('key') ? ['hold.key'] : []),
    ...(holds.has('bolted') ? ['hold.bolt'] : []),
    ...(made.has('printed') ? ['printed.shear', 'printed.density', 'price.print'] : []),
    ...(made.has('bought') ? ['metal.density', 'price.pulley', 'price.tooth'] : []),
  ];
}

const analyse = (p: BeltParams, at: Duty, shelf: Shelf): Result<StageReport> =>
  reportOf(
    shelf,
    (s) => modelBelt(p, at, s),
    factors(p),
    (m, make) => beltFigures(p, at, shelf, m, make),
    (m) => beltChecks(p, at, shelf, m),
  );

function screen(p: BeltParams, at: Duty, shelf: Shelf): Screening {
  const made = modelBelt(p, at, shelf);
  return made.ok ? ok(made.value.numbers) : made;
}

/** Synchronous belt over two pulleys, with or without an idler. */
export const belt: StageKind<BeltParams> = {
  id: 'belt',
  name: 'Belt',
  summary: 'Synchronous belt over two pulleys: no play while taut, springy, cheap, quiet.',
  schema: beltSchema,
  fields: beltFields,
  defaults: beltDefaults,
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
  factors,
  analyse,
  screen,
  drawing: drawBelt,
  tables: beltTables,
  parts: beltParts,
  assembly: beltAssembly,
  candidates: beltCandidates,
};

export type { BeltParams } from './params.ts';
