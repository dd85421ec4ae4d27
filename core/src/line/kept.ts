import type { Joint } from '../joint/joint.ts';
import type { Shelf, ShopEdits } from '../shop/shelf.ts';
import type { QuantityId } from '../units/quantity.ts';
import { usedFactors } from './factors.ts';

type Kept = NonNullable<Joint['factors']>;

/** The factors a joint keeps, those it uses and does not have yet taken from the shelf as it is now. */
export function keepFactors(joint: Pick<Joint, 'variants' | 'factors'>, shelf: Shelf): Kept {
  const kept: Kept = { ...joint.factors };
  for (const id of usedFactors(joint)) {
    const f = shelf.factors[id];
    if (f && !kept[id]) kept[id] = { value: f.value, low: f.low, high: f.high, source: f.source };
  }
  return kept;
}

/** The shop's changes as a joint sees them: its own kept factors stand over the shop's. */
export function editsFor(joint: Pick<Joint, 'factors'> | undefined, edits: ShopEdits): ShopEdits {
  return joint?.factors
    ? { ...edits, factors: { ...edits.factors, ...(joint.factors as NonNullable<ShopEdits['factors']>) } }
    : edits;
}

/** Something in which the shop has moved on since a joint was computed. */
export interface Moved {
  readonly kind: 'factor' | 'motor' | 'material' | 'bearing';
  readonly id: string;
  readonly name: string;
  /** Set for factors: what the joint keeps and what the shop says. */
  readonly quantity?: QuantityId;
  readonly kept?: number;
  readonly now?: number;
}

/** Whether two records say the same; numbers to nine digits, since unit factors leave their last digit behind. */
function alike(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= 1e-9 * Math.max(Math.abs(a), Math.abs(b));
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b) return a === b;
  return [...new Set([...Object.keys(a), ...Object.keys(b)])].every((k) =>
    alike((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]),
  );
}

/**
 * Where the shop differs from what a joint was computed with: factors in use, and motors, materials and bearings by
 * their identifier.
 */
export function shopMoved(joint: Joint, shop: Shelf): Moved[] {
  const out: Moved[] = [];
  for (const id of usedFactors(joint)) {
    const kept = joint.factors?.[id];
    const now = shop.factors[id];
    if (kept && now && (kept.value !== now.value || kept.low !== now.low || kept.high !== now.high))
      out.push({ kind: 'factor', id, name: now.name, quantity: now.quantity, kept: kept.value, now: now.value });
  }
  const seen = new Set<string>();
  const compare = (
    kind: Moved['kind'],
    own: { readonly id: string; readonly name: string } | null | undefined,
    list: readonly { readonly id: string; readonly name: string }[],
  ) => {
    const there = own && list.find((x) => x.id === own.id);
    if (!own || !there || seen.has(`${kind}/${own.id}`) || alike(own, there)) return;
    seen.add(`${kind}/${own.id}`);
    out.push({ kind, id: own.id, name: own.name });
  };
  for (const v of joint.variants) {
    compare('motor', v.motor, shop.motors);
    compare('material', v.mount, shop.materials);
    compare('material', v.output?.shaftMaterial, shop.materials);
    compare('bearing', v.output?.bearing, shop.bearings);
  }
  return out;
}

/** The joint with everything taken anew from the shop. */
export function takeShop(joint: Joint, shop: Shelf): Joint {
  const from = <T extends { readonly id: string }>(own: T, list: readonly { readonly id: string }[]): T =>
    (list.find((x) => x.id === own.id) as T | undefined) ?? own;
  const variants = joint.variants.map((v) => ({
    ...v,
    motor: structuredClone(from(v.motor, shop.motors)),
    ...(v.mount && { mount: { ...from(v.mount, shop.materials) } }),
    ...(v.output && {
      output: {
        ...v.output,
        shaftMaterial: { ...from(v.output.shaftMaterial, shop.materials) },
        bearing: v.output.bearing && { ...from(v.output.bearing, shop.bearings) },
      },
    }),
  }));
  const next = { ...joint, variants, factors: {} };
  return { ...next, factors: keepFactors(next, shop) };
}
