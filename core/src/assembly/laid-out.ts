import type { TriangleMesh } from '../solid/mesh.ts';
import type { PlateItem } from '../solid/threemf.ts';
import { layOut, type Footprint } from './plates.ts';

const MM = 1000;

interface Box {
  readonly low: readonly [number, number, number];
  readonly high: readonly [number, number, number];
}

function boxOf({ vertices }: TriangleMesh): Box {
  const low: [number, number, number] = [Infinity, Infinity, Infinity];
  const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < vertices.length; i++) {
    const v = vertices[i]!;
    const k = i % 3;
    if (v < low[k]!) low[k] = v;
    if (v > high[k]!) high[k] = v;
  }
  return { low, high };
}

/** Meshes on plates: the pieces of each plate, and what is larger than a plate with its size, m. */
export interface LaidOut {
  readonly plates: readonly (readonly PlateItem[])[];
  readonly tooLarge: readonly (Footprint & { readonly part: number })[];
}

/**
 * Lays meshes out on plates, lying as they are drawn, as many of each as are wanted.
 *
 * @param bed width and depth of a plate, m; a depth of Infinity gives one plate
 * @param gap between pieces, and to the edge, m
 */
export function laidOut(
  list: readonly { readonly mesh: TriangleMesh; readonly count: number }[],
  bed: Footprint,
  gap: number,
): LaidOut {
  const boxes = list.map((m) => boxOf(m.mesh));
  const pieces = list.flatMap(({ count }, part) => Array.from({ length: count }, () => part));
  const prints = pieces.map((k): Footprint => {
    const { low, high } = boxes[k]!;
    return { width: (high[0] - low[0]) / MM, depth: (high[1] - low[1]) / MM };
  });
  const { plates, tooLarge } = layOut(prints, bed, gap);
  return {
    tooLarge: tooLarge.map((i) => ({ ...prints[i]!, part: pieces[i]! })),
    plates: plates.map((plate) =>
      plate.map(({ piece, x, y, turned }): PlateItem => {
        const part = pieces[piece]!;
        const { low, high } = boxes[part]!;
        // Turned by a quarter what was its left edge lies in front, and what was in front at the right.
        const corner = turned ? [-high[1], low[0]] : [low[0], low[1]];
        return {
          part,
          turn: turned ? Math.PI / 2 : 0,
          at: [x * MM - corner[0]!, y * MM - corner[1]!, -low[2]],
        };
      }),
    ),
  };
}

/** Width of the row that the parts of one stage are laid out in, and the room between them, m. */
const [ROW, ROOM] = [0.22, 4e-3];

/** All pieces of one stage on one plate, whatever its depth. */
export function onOnePlate(
  list: readonly { readonly mesh: TriangleMesh; readonly count: number }[],
): readonly PlateItem[] {
  const widest = list.reduce((most, { mesh }) => {
    const { low, high } = boxOf(mesh);
    return Math.max(most, (high[0] - low[0]) / MM, (high[1] - low[1]) / MM);
  }, ROW);
  return laidOut(list, { width: widest + 2 * ROOM, depth: Infinity }, ROOM).plates[0] ?? [];
}
