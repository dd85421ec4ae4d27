import { check, type Check, type Term } from '../figure/index.ts';
import { steppedUp } from '../math/steps.ts';
import type { Material } from '../schema/joint.ts';

/** Share of its strength that a ring's wall bears for as long as it is bent to and fro as the pushes go round. */
const LASTING = 0.4;

/** How the bending of a ring that unlike pushes bend is worked out (`ringBending`). */
export const bentBy = (pushes: string, terms: readonly Term[]) => ({
  formula: 'R/π·Σ [F_r·K(θ − θᵢ) + F_t·L(θ − θᵢ)]·6/(b·t²); K(x) = ½ + ¼·cos x − ½(π − x)·sin x, L = ∫K',
  terms,
  source: `thin ring under all ${pushes}, worst over a pitch; what holds it takes their sum`,
});

/** A ring that is pushed out from inside. */
export interface PushedRing {
  /** Figure that tells the stress, which names the check as well. */
  readonly of: string;
  readonly name: string;
  /** Where it is bent most, Pa, and how thick its wall is there, m. */
  readonly stress: number;
  readonly wall: number;
  readonly material: Pick<Material, 'strength'>;
  /** Parameter that thickens it, and what that is now, m. */
  readonly path: string;
  readonly value: number;
  /** Whether it stands still: what it stands in, where that closes round it, keeps it round. */
  readonly held: boolean;
  /** What bends it, a sentence. */
  readonly why: string;
}

/** Whether the wall of a ring bears what pushes it out. */
export function ringWallCheck({ of, name, stress, wall, material, path, value, held, why }: PushedRing): Check {
  const limit = LASTING * material.strength;
  const wanted = wall * Math.sqrt(stress / (0.9 * limit));
  return check({
    id: of,
    of,
    name,
    figure: stress,
    limit,
    sense: 'max',
    quantity: 'stress',
    severity: held ? 'note' : 'warn',
    why: held ? `${why} Counted with nothing round it: in a seat that closes round it, it stays round.` : why,
    mend: { path, value: steppedUp(value + wanted - wall, 5e-4), label: 'Thicker wall' },
  });
}
