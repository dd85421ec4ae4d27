import type { Bearing, Joint, Material, Process } from '../schema/joint.ts';
import type { ShopReads } from '../shop/reads.ts';
import { shippedFactor, type Shelf, type ShopEdits } from '../shop/shelf.ts';
import { BEARINGS } from '../shop/bearings.ts';
import { MATERIALS } from '../shop/materials.ts';
import { PROCESSES } from '../shop/processes.ts';
import { builtAsNow, designOf } from './design.ts';
import type { QuantityId } from '../units/quantity.ts';

type Keeps = Pick<Joint, 'factors' | 'materials' | 'bearings' | 'processes'>;
type KeptFactor = NonNullable<Joint['factors']>[string];

const sameFactor = (a: KeptFactor, b: { value: number; low: number; high: number }): boolean =>
  a.value === b.value && a.low === b.low && a.high === b.high;

/** What is read and not kept yet, out of the shop's list. */
function added<T extends { readonly id: string }>(
  kept: readonly T[] | undefined,
  read: readonly string[],
  shop: readonly T[],
): T[] {
  const fresh = read.filter((id) => !kept?.some((k) => k.id === id));
  return fresh.flatMap((id) => shop.filter((x) => x.id === id).map((x) => structuredClone(x)));
}

/**
 * The joint with what a computation has read of the shop kept as the shop has it now; what it keeps already stays.
 *
 * @param reads of the line's report
 * @returns the joint itself where there is nothing new
 */
export function keepReads<J extends Keeps>(joint: J, reads: ShopReads, shop: Shelf): J {
  const factors: Record<string, KeptFactor> = {};
  for (const id of reads.factors) {
    const f = shop.factors[id];
    if (f && !joint.factors?.[id]) factors[id] = { value: f.value, low: f.low, high: f.high, source: f.source };
  }
  const materials = added<Material>(joint.materials, reads.materials, shop.materials);
  const bearings = added<Bearing>(joint.bearings, reads.bearings, shop.bearings);
  if (Object.keys(factors).length + materials.length + bearings.length === 0) return joint;
  return {
    ...joint,
    factors: { ...joint.factors, ...factors },
    ...(materials.length && { materials: [...(joint.materials ?? []), ...materials] }),
    ...(bearings.length && { bearings: [...(joint.bearings ?? []), ...bearings] }),
  };
}

/** The joint with a process of the shop kept as the shop has it now; one that it keeps already stays. */
export function keepProcess<J extends Keeps>(joint: J, id: string, shop: Shelf): J {
  const fresh = added<Process>(joint.processes, [id], shop.processes);
  return fresh.length ? { ...joint, processes: [...(joint.processes ?? []), ...fresh] } : joint;
}

/** What a joint keeps that stands otherwise in the shop, in front of the shop's own. */
function over<T extends { readonly id: string }>(
  kept: readonly T[] | undefined,
  own: readonly T[] | undefined,
  shipped: readonly T[],
): readonly T[] | undefined {
  const changed = (kept ?? []).filter((k) => {
    const now = own?.find((x) => x.id === k.id) ?? shipped.find((x) => x.id === k.id);
    return !now || !alike(k, now);
  });
  return changed.length ? [...changed, ...(own ?? []).filter((x) => !changed.some((c) => c.id === x.id))] : own;
}

/**
 * The shop's changes as a joint sees them: what it keeps stands over the shop's own, where the two differ. The shop's
 * changes themselves where they do not.
 */
export function editsFor(joint: Keeps | undefined, edits: ShopEdits): ShopEdits {
  if (!joint) return edits;
  const factors = Object.entries(joint.factors ?? {}).filter(([id, kept]) => {
    const now = edits.factors?.[id] ?? shippedFactor(id);
    return now !== undefined && !sameFactor(kept, now);
  });
  const materials = over<Material>(joint.materials, edits.materials, MATERIALS);
  const bearings = over<Bearing>(joint.bearings, edits.bearings, BEARINGS);
  const processes = over<Process>(joint.processes, edits.processes, PROCESSES);
  if (
    factors.length === 0 &&
    materials === edits.materials &&
    bearings === edits.bearings &&
    processes === edits.processes
  )
    return edits;
  return {
    ...edits,
    ...(factors.length && { factors: { ...edits.factors, ...Object.fromEntries(factors) } }),
    ...(materials && { materials }),
    ...(bearings && { bearings }),
    ...(processes && { processes }),
  };
}

/** Something in which the shop has moved on since a joint was computed. */
export interface Moved {
  readonly kind: 'factor' | 'motor' | 'material' | 'bearing' | 'process';
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
  for (const [id, kept] of Object.entries(joint.factors ?? {})) {
    const now = shop.factors[id];
    if (now && !sameFactor(kept, now))
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
    compare('material', v.housing?.material, shop.materials);
  }
  for (const m of joint.materials ?? []) compare('material', m, shop.materials);
  for (const b of joint.bearings ?? []) compare('bearing', b, shop.bearings);
  for (const p of joint.processes ?? []) compare('process', p, shop.processes);
  return out;
}

/**
 * The joint with everything taken anew from the shop. What was built as it was designed is so still: what the shop says of
 * its motor or its plastic has changed, and not what stands on the bench.
 */
export function takeShop(joint: Joint, shop: Shelf): Joint {
  const from = <T extends { readonly id: string }>(own: T, list: readonly { readonly id: string }[]): T =>
    (list.find((x) => x.id === own.id) as T | undefined) ?? own;
  const variants = joint.variants.map((v) => ({
    ...v,
    motor: structuredClone(from(v.motor, shop.motors)),
    ...(v.mount && { mount: { ...from(v.mount, shop.materials) } }),
    ...(v.housing && { housing: { ...v.housing, material: { ...from(v.housing.material, shop.materials) } } }),
    ...(v.output && {
      output: {
        ...v.output,
        shaftMaterial: { ...from(v.output.shaftMaterial, shop.materials) },
        bearing: v.output.bearing && { ...from(v.output.bearing, shop.bearings) },
      },
    }),
  }));
  const factors = Object.keys(joint.factors ?? {}).flatMap((id) => {
    const f = shop.factors[id];
    return f ? [[id, { value: f.value, low: f.low, high: f.high, source: f.source }] as const] : [];
  });
  const builds = joint.builds.map((b) => {
    const i = joint.variants.findIndex((v) => v.id === b.variantId);
    return b.design !== undefined && i >= 0 && builtAsNow(b, joint.variants[i]!)
      ? { ...b, design: designOf(variants[i]!) }
      : b;
  });
  return {
    ...joint,
    variants,
    builds,
    factors: Object.fromEntries(factors),
    ...(joint.materials && { materials: joint.materials.map((m) => ({ ...from(m, shop.materials) })) }),
    ...(joint.bearings && { bearings: joint.bearings.map((b) => ({ ...from(b, shop.bearings) })) }),
    ...(joint.processes && { processes: joint.processes.map((p) => structuredClone(from(p, shop.processes))) }),
  };
}
