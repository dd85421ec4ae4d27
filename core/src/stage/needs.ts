import { toothMaterial, type ToothMaterial } from '../gear/tooth-material.ts';
import type { Bearing } from '../schema/joint.ts';
import { ok, refuse, type Result } from '../result.ts';
import { findBearing, type Shelf } from '../shop/shelf.ts';

/** A bearing of the shop that a stage cannot do without; `why` says what it is for. */
export function needBearing(id: string, shelf: Shelf, why: string): Result<Bearing> {
  const found = findBearing(shelf, id);
  if (found) return ok(found);
  const some = shelf.bearings.slice(0, 6).map((b) => b.id);
  return refuse(
    `There is no bearing “${id}” in the shop.`,
    why,
    `Choose one of ${some.join(', ')} and others.`,
    'bearing',
  );
}

type Materials<T extends readonly string[]> = { readonly [K in keyof T]: ToothMaterial };

/** The materials that the named fields of a stage's parameters choose, in that order. */
export function needMaterials<const F extends readonly string[]>(
  p: { readonly [K in F[number]]: string },
  fields: F,
  shelf: Shelf,
): Result<Materials<F>> {
  const found: ToothMaterial[] = [];
  for (const field of fields) {
    const m = toothMaterial(p[field as F[number]], shelf, field);
    if (!m.ok) return m;
    found.push(m.value);
  }
  return ok(found as unknown as Materials<F>);
}
