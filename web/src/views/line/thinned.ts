import type { Mark } from '../../parts/Plot.tsx';

/**
 * Marks named while they are few; of many, only those that fail and the one with the least in hand. The others say
 * their name when pointed at.
 */
export function thinned(marks: readonly (Mark & { readonly margin: number })[], most = 4): Mark[] {
  const least = marks.reduce((m, p) => Math.min(m, p.margin), Infinity);
  return marks.map((m) =>
    marks.length <= most || !m.ok || m.margin === least ? m : { ...m, title: m.name, name: '' },
  );
}
