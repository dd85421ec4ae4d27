import type { ManifoldToplevel } from 'manifold-3d';
import { billOf, howOf, housingParts, outputHow, piecesOf, type BillRow } from '../assembly/bill.ts';
import { outputPieces } from '../line/output.ts';
import { ok, refuse, type Result } from '../result.ts';
import type { Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import { meshSolid, solidKey } from '../solid/mesh.ts';
import type { Part } from '../stage/contract.ts';
import { inUnits } from '../units/stated.ts';
import { measuresOf, type BodyMeasures } from './measures.ts';

/** A part of a joint that has to be made. */
export interface MadePiece {
  /** Where it is and which it is: `stage1/ring`, `case/cover`. */
  readonly key: string;
  readonly name: string;
  readonly how: 'printed' | 'cut';
  readonly material: string;
  /** Pieces of one joint. */
  readonly each: number;
  /** Marks its shape: a piece that was printed counts while this is the same. */
  readonly shape: string;
  /** Absent where no body is known. */
  readonly body?: BodyMeasures;
}

/** Groups of what is ordered in one go. */
export const BUYS = ['motor', 'bearings', 'belts', 'screws', 'units', 'stock'] as const;
export type Buy = (typeof BUYS)[number];

/** What is bought together. */
export interface BoughtGroup {
  readonly id: Buy;
  /** Of one joint: how many of what; with how many of all joints lie in the drawer. */
  readonly rows: readonly { readonly name: string; readonly each: number; readonly there: number }[];
  /** Parts by key that come with it. */
  readonly keys: readonly string[];
}

/** All that a joint takes, made and bought; plain data. */
export interface Pieces {
  readonly made: readonly MadePiece[];
  readonly bought: readonly BoughtGroup[];
}

/** What is printed of no plastic in particular is printed of what is in the printer. */
const USUAL = 'usual plastic, printed';

/** How finely a body is meshed to be measured, m. */
const CHORD = 5e-5;

/** What of a bill is bought as what. */
function groupOf(row: Pick<BillRow, 'name' | 'at'>): Buy {
  if (row.at.some((a) => a === 'motor' || a === 'driver' || a === 'supply' || a === 'sensor')) return 'motor';
  if (/bearing|ball/i.test(row.name)) return 'bearings';
  if (/belt|pulley|idler,/i.test(row.name)) return 'belts';
  if (/ISO \d|DIN \d|threaded rod|screw|nut|washer|insert/i.test(row.name)) return 'screws';
  return /pin|roller|rod|shaft/i.test(row.name) ? 'stock' : 'units';
}

/** A name as part of a key: `Output shaft` is `output-shaft`. */
const slug = (name: string): string => name.toLowerCase().replace(/[^a-z0-9]+/g, '-');

interface Known {
  readonly key: string;
  readonly at: string;
  readonly part: Pick<Part, 'name' | 'material' | 'made' | 'quantity' | 'solid' | 'stocked'>;
}

/** Every part of a joint with its key; refuses in words where a stage cannot be. */
export function partsOfJoint(variant: Variant, shelf: Shelf): Result<Known[]> {
  const out: Known[] = [];
  for (const [i, stage] of variant.stages.entries()) {
    const parts = piecesOf(stage, shelf);
    if (!parts.ok) return parts;
    for (const part of parts.value) out.push({ key: `stage${i + 1}/${part.id}`, at: `stage ${i + 1}`, part });
  }
  for (const part of housingParts(variant, shelf))
    if (!part.reference) out.push({ key: `case/${part.id}`, at: 'housing', part });
  for (const p of outputPieces(variant.output)) {
    // The shaft and bearings are bodies of the housing by these names; balls and rings of a race are none.
    const key = p.stocked ? 'case/bearing-output' : `case/${slug(p.name)}`;
    out.push({ key, at: 'output', part: { ...p, made: 'bought' } });
  }
  return ok(out);
}

/**
 * What of a joint is made and what is bought, with measures of every body; a body at a time.
 *
 * @param kernel meshes the bodies
 * @param joints how many are wanted, for what the drawer holds of them
 * @returns refuses in words where a stage cannot be
 */
export function* jointPieces(
  kernel: ManifoldToplevel,
  variant: Variant,
  joints: number,
  shelf: Shelf,
  measured: Map<string, BodyMeasures> = new Map(),
): Generator<number, Result<Pieces>> {
  const bill = billOf(variant, joints, shelf);
  if (!bill.ok) return bill;
  const parts = partsOfJoint(variant, shelf);
  if (!parts.ok) return parts;
  const made: MadePiece[] = [];
  const known = new Set(shelf.materials.map((m) => m.name));
  const keys = new Map<Buy, string[]>([['motor', ['motor/body']]]);
  for (const [i, { key, at, part }] of parts.value.entries()) {
    const name = inUnits(part.name);
    const how = at === 'output' ? outputHow(part) : howOf(part);
    if (how === 'bought') {
      const group = groupOf({ name, at: [at] });
      keys.set(group, [...(keys.get(group) ?? []), key]);
      continue;
    }
    yield i / parts.value.length;
    const solid = part.solid?.();
    const shape = solid ? solidKey(solid) : 'none';
    let body = measured.get(shape);
    if (solid && !body) {
      const mesh = meshSolid(kernel, solid, CHORD);
      if (!mesh)
        return refuse(`Nothing is left of “${name}”.`, 'Its cuts take all of it away.', 'Look at its bore and screws.');
      measured.set(shape, (body = measuresOf(mesh)));
    }
    const { quantity: each } = part;
    const material = how === 'printed' && !known.has(part.material) ? USUAL : part.material;
    made.push({ key, name, how, material, each, shape, ...(body && { body }) });
  }
  const rows = new Map<Buy, BoughtGroup['rows'][number][]>();
  for (const r of bill.value.rows) {
    if (r.how !== 'bought') continue;
    const group = groupOf(r);
    rows.set(group, [...(rows.get(group) ?? []), { name: inUnits(r.name), each: r.each, there: r.there }]);
  }
  // What is made to its drawing is cut out of something.
  for (const m of made)
    if (m.how === 'cut')
      rows.set('stock', [
        ...(rows.get('stock') ?? []),
        { name: `blank for ${m.name}, ${m.material}`, each: m.each, there: 0 },
      ]);
  const bought = BUYS.flatMap((id): BoughtGroup[] =>
    rows.has(id) ? [{ id, rows: rows.get(id)!, keys: keys.get(id) ?? [] }] : [],
  );
  return ok({ made, bought });
}
