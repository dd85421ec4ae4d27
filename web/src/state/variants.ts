import type { Joint, Variant } from '@gristmill/core';
import type { Draft } from 'immer';
import { newId } from './identifier.ts';

/** Adds a copy of the open variant under the next free letter, with what should differ, and opens it. */
export function copyVariant(d: Draft<Joint>, change: Partial<Variant> = {}): void {
  const from = d.variants.find((v) => v.id === d.activeVariant) ?? d.variants[0]!;
  const id = newId();
  const used = new Set(d.variants.map((v) => v.name));
  const name = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].find((x) => !used.has(x)) ?? id;
  d.variants.push({ ...(JSON.parse(JSON.stringify(from)) as Variant), ...change, id, name } as Draft<Variant>);
  d.activeVariant = id;
}
