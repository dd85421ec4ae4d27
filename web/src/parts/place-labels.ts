/** A label that wants to stand near a point: its size, all px or all mm. */
export interface LabelBox {
  readonly key: string;
  /** The point it belongs to, and the way it would rather stand from it, of length one. */
  readonly x: number;
  readonly y: number;
  readonly ux: number;
  readonly uy: number;
  readonly width: number;
  readonly height: number;
}

interface Box {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

const meet = (a: Box, b: Box): boolean => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;

/** Turns away from the wished way that are tried, nearest first, and how far out. */
const TURNS = [0, 0.6, -0.6, 1.2, -1.2, 1.8, -1.8, 2.5, -2.5, Math.PI];
const OUT = [1, 2, 3.2, 4.6];

/**
 * Where the middle of each label stands so that none lies over another: the nearest free place about its point, the
 * wished way first. Where there is none it stands at the wished place all the same.
 *
 * @param taken boxes that are not to be covered
 */
export function placeLabels(
  labels: readonly LabelBox[],
  taken: readonly Box[] = [],
): ReadonlyMap<string, { readonly x: number; readonly y: number; readonly far: boolean }> {
  const boxes = [...taken];
  const out = new Map<string, { x: number; y: number; far: boolean }>();
  for (const l of labels) {
    const at = (out: number, turn: number) => {
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const [dx, dy] = [l.ux * c - l.uy * s, l.ux * s + l.uy * c];
      // Clear of the point by half the label along that way, and a little.
      const reach = (Math.abs(dx) * l.width) / 2 + (Math.abs(dy) * l.height) / 2 + 0.25 * l.height * (4 * out - 3);
      return { x: l.x + dx * reach, y: l.y + dy * reach };
    };
    const boxAt = (p: { x: number; y: number }): Box => ({
      x0: p.x - l.width / 2,
      x1: p.x + l.width / 2,
      y0: p.y - l.height / 2,
      y1: p.y + l.height / 2,
    });
    let found = { ...at(1, 0), far: false };
    search: for (const o of OUT)
      for (const t of TURNS) {
        const p = at(o, t);
        if (boxes.some((b) => meet(b, boxAt(p)))) continue;
        found = { ...p, far: o > 2 };
        break search;
      }
    boxes.push(boxAt(found));
    out.set(l.key, found);
  }
  return out;
}
