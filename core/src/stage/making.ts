import type { Material } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { AnyStageKind } from './contract.ts';

/** Materials that stages of a search are made of. */
export interface Making {
  /** Of the process that the main parts are made by: each gives stages of its own. */
  readonly main: readonly Material[];
  /** In place of a milled material that is not allowed; undefined where none is milled. */
  readonly milled: Material | undefined;
  readonly allowed: ReadonlySet<string>;
}

/**
 * What stages are made of where the reader allows some materials only: the main parts of each that is printed, or, where
 * nothing is printed, of each that is milled.
 *
 * @returns undefined where every kind is made of what it usually is
 */
export function makingOf(materials: readonly Material[], allowed: readonly string[] | undefined): Making | undefined {
  if (!allowed) return undefined;
  const may = materials.filter((m) => allowed.includes(m.id) && m.made !== 'bought');
  const printed = may.filter((m) => m.made === 'printed');
  const milled = may.filter((m) => m.made === 'milled');
  const strongest = milled.reduce<Material | undefined>((a, b) => (a && a.strength >= b.strength ? a : b), undefined);
  return { main: printed.length ? printed : milled, milled: strongest, allowed: new Set(may.map((m) => m.id)) };
}

/** What the kinds are usually made of, where it is not bought: what a choice of materials begins with. */
export function usualMaterials(kinds: readonly AnyStageKind[], materials: readonly Material[]): string[] {
  const usual = new Set(
    kinds.flatMap((k) =>
      k.fields.flatMap((f) =>
        f.as === 'choice' && f.of === 'material' ? [(k.starts as Record<string, unknown>)[f.path]] : [],
      ),
    ),
  );
  return materials.filter((m) => m.made !== 'bought' && usual.has(m.id)).map((m) => m.id);
}

/**
 * A candidate stage in the materials that may be used: one set of parameters for each main material. What is bought ready
 * made stays; so does what is milled of an allowed material.
 *
 * @param params of the kind, in its usual materials
 */
export function inMaterials<P extends object>(
  kind: Pick<AnyStageKind, 'fields'>,
  params: P,
  making: Making | undefined,
  shelf: Pick<Shelf, 'materials'>,
): readonly P[] {
  const paths = making && kind.fields.flatMap((f) => (f.as === 'choice' && f.of === 'material' ? [f.path] : []));
  if (!paths?.length) return [params];
  const of = params as Readonly<Record<string, unknown>>;
  const usual = paths.map((path) => shelf.materials.find((m) => m.id === of[path]));
  const sets = new Map<string, P>();
  for (const main of making!.main) {
    const ids = usual.map((m) =>
      !m || m.made === 'bought' || (m.made === 'milled' && making!.allowed.has(m.id))
        ? undefined
        : m.made === 'milled'
          ? (making!.milled ?? main).id
          : main.id,
    );
    const key = ids.join(' ');
    if (!sets.has(key))
      sets.set(key, { ...params, ...Object.fromEntries(ids.flatMap((id, i) => (id ? [[paths[i]!, id]] : []))) });
  }
  return [...sets.values()];
}
