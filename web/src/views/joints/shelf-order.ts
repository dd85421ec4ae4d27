import type { Entry } from './read-shelf.ts';

/** What the shelf may be ordered by. */
export type ShelfOrder = 'opened' | 'changed' | 'name';
export const ORDERS: readonly { readonly value: ShelfOrder; readonly label: string }[] = [
  { value: 'opened', label: 'last opened' },
  { value: 'changed', label: 'last changed' },
  { value: 'name', label: 'name' },
];

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/**
 * The joints whose name or stages have every word that is looked for, in an order.
 *
 * @param opened when each was last opened here, ms
 */
export function onShelf(
  entries: readonly Entry[],
  look: string,
  order: ShelfOrder,
  opened: Readonly<Record<string, number>>,
): readonly Entry[] {
  const words = plain(look).split(/\s+/).filter(Boolean);
  const textOf = (e: Entry) =>
    plain(
      [
        e.name,
        ...(e.joint?.variants.flatMap((v) => [v.name, v.motor.name, ...v.stages.map((s) => s.kind)]) ?? []),
      ].join(' '),
    );
  const found = words.length ? entries.filter((e) => words.every((w) => textOf(e).includes(w))) : [...entries];
  const changed = (e: Entry) => Date.parse(e.joint?.changed ?? '') || 0;
  const names = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });
  return [...found].sort((a, b) =>
    order === 'name'
      ? names.compare(a.name, b.name)
      : order === 'changed'
        ? changed(b) - changed(a)
        : (opened[b.id] ?? 0) - (opened[a.id] ?? 0) || changed(b) - changed(a),
  );
}
