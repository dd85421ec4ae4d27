import { ORIGIN, rectangle, segment } from '../shape/outline.ts';
import type { DrawItem, Ink, Tint } from '../stage/contract.ts';

/** A cut or seen part of an axial section: a rectangle between two corners, m. */
export const sectionBox = (
  key: string,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  tint: Tint,
  hatch = true,
  ink: Ink = 'outline',
): DrawItem => ({
  kind: 'curve',
  key,
  outline: rectangle(x0, y0, x1, y1),
  at: ORIGIN,
  ink,
  tint,
  ...(hatch && { hatch }),
});

/**
 * Three thin lines that show how a wheel's teeth lean, in a section whose axis runs along x: a right hand falls to the
 * right; a double helix shows its arrow.
 * None for straight teeth.
 *
 * Source: ISO 2203, conventional representation of gears.
 */
export function helixTraces(
  key: string,
  x0: number,
  x1: number,
  middle: number,
  helix: number,
  double: boolean,
): DrawItem[] {
  if (helix === 0) return [];
  const width = x1 - x0;
  const fall = -Math.tan(helix);
  const line = (k: string, a: number, ya: number, b: number, yb: number): DrawItem => ({
    kind: 'curve',
    key: `${key}-${k}`,
    outline: segment(a, ya, b, yb),
    at: ORIGIN,
    ink: 'centre',
    tint: 'none',
  });
  return [-1, 0, 1].flatMap((i) => {
    const y = middle + i * width * 0.12;
    const half = (fall * width) / 2;
    if (!double) return [line(`${i}`, x0, y - half, x1, y + half)];
    const apex = (x0 + x1) / 2;
    return [line(`${i}a`, x0, y + half / 2, apex, y - half / 2), line(`${i}b`, apex, y - half / 2, x1, y + half / 2)];
  });
}

/** The same where the section's axis runs along y, about a middle x. */
export const turnedTraces = (
  key: string,
  middle: number,
  y0: number,
  y1: number,
  helix: number,
  double: boolean,
): DrawItem[] =>
  helixTraces(key, y0, y1, 0, helix, double).map((item) =>
    item.kind === 'curve' ? { ...item, at: { x: middle, y: 0, turn: Math.PI / 2 } } : item,
  );

/** A force on a part, from where it acts. */
export const forceArrow = (
  key: string,
  from: readonly [number, number],
  direction: number,
  long: number,
  newtons: number,
): DrawItem => ({
  kind: 'arrow',
  key,
  from,
  to: [from[0] + long * Math.cos(direction), from[1] + long * Math.sin(direction)],
  ink: 'force',
  label: { value: newtons, quantity: 'force' },
});
