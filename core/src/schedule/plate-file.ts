import type { ManifoldToplevel } from 'manifold-3d';
import { laidOut } from '../assembly/laid-out.ts';
import { ok, refuse, type Result } from '../result.ts';
import type { Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import { meshSolid, solidKey } from '../solid/mesh.ts';
import type { Correction } from '../solid/correction.ts';
import { write3mf, type NamedMesh } from '../solid/threemf.ts';
import { inUnits } from '../units/stated.ts';
import { partsOfJoint } from './pieces.ts';

/** One plate of a plan, as it is to be written. */
export interface PlateAsk {
  readonly title: string;
  /** Pieces by part and shape, as a print of the plan has them. */
  readonly made: Readonly<Record<string, number>>;
  readonly bed: readonly [width: number, depth: number];
  readonly gap: number;
  /** Largest distance of a surface from the exact one, and how far contours are moved into the material, m. */
  readonly chordError: number;
  readonly compensation: number;
  /** How parts are drawn for their processes, by their keys. */
  readonly corrections?: Readonly<Record<string, Correction>>;
}

/**
 * The pieces of one print side by side on the bed, as 3MF; a body at a time.
 *
 * @returns refuses in words where the design has changed since the plan was made
 */
export function* plateFile(
  kernel: ManifoldToplevel,
  variant: Variant,
  ask: PlateAsk,
  shelf: Shelf,
): Generator<number, Result<Uint8Array>> {
  const parts = partsOfJoint(variant, shelf);
  if (!parts.ok) return parts;
  const list: (NamedMesh & { count: number })[] = [];
  const wanted = Object.entries(ask.made);
  for (const [i, [mark, count]] of wanted.entries()) {
    yield i / wanted.length;
    const [key, shape] = mark.split('#');
    const solid = parts.value.find((p) => p.key === key)?.part.solid?.();
    const mesh =
      solid &&
      solidKey(solid) === shape &&
      meshSolid(kernel, solid, ask.chordError, ask.corrections?.[key!] ?? ask.compensation);
    if (!mesh)
      return refuse(
        `“${key}” is not what it was when the plate was planned.`,
        'The design has changed since.',
        'Wait until the plan is made anew, and take the plate from it.',
      );
    list.push({ name: inUnits(parts.value.find((p) => p.key === key)!.part.name), mesh, count });
  }
  const [width, depth] = ask.bed;
  const { plates } = laidOut(list, { width, depth }, ask.gap);
  return ok(write3mf(list, ask.title, plates[0] ?? []));
}
