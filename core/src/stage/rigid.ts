import { check, type Check } from '../figure/index.ts';
import { sortOf } from '../gear/material-state.ts';
import { findMaterial, type Shelf } from '../shop/shelf.ts';

/** A part that must keep its shape: the field that says what it is of, and the check's name. */
export type RigidPart = readonly [field: string, says: string];

/** Modulus below which a part does not keep its shape, Pa, and what a part that does is made of. */
const [RUBBER, STIFF] = [0.3e9, 1e9];
/** Softening temperature that a warm joint asks of a plastic, K: 65 °C. */
const WARM = 338.15;

/**
 * A check for each part of rubber that has to be stiff; none where there is no such part, since nobody wants to read that
 * steel is no rubber.
 *
 * @param p the stage's parameters, by field
 */
export function rigidChecks(p: object, parts: readonly RigidPart[], shelf: Shelf): Check[] {
  const chosen = p as Readonly<Record<string, string>>;
  const stiffer = [...shelf.materials]
    .filter((m) => m.modulus >= STIFF && m.softening >= WARM)
    .sort((a, b) => a.price - b.price);
  return parts.flatMap(([field, name]) => {
    const material = findMaterial(shelf, chosen[field]!);
    if (!material || sortOf(material) !== 'elastic') return [];
    const better = stiffer.find((m) => m.made === material.made) ?? stiffer[0];
    return [
      check({
        id: `rubber-${field}`,
        name,
        figure: material.modulus,
        limit: RUBBER,
        sense: 'min',
        quantity: 'stress',
        near: 0,
        why: `${material.name} is an elastomer: teeth, plates and pins of it give way long before they break, and what they carry skips.`,
        mend: better && { path: field, value: better.id, label: better.name },
        advice: 'Take a material that is stiff.',
      }),
    ];
  });
}
