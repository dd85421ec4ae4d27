/** What a piece takes up on a plate, seen from above, m. */
export interface Footprint {
  readonly width: number;
  readonly depth: number;
}

/** A piece on a plate: its near left corner, m; turned by a quarter where it fits better so. */
export interface OnPlate {
  readonly piece: number;
  readonly x: number;
  readonly y: number;
  readonly turned: boolean;
}

/** Pieces laid out: plate after plate, and those that are larger than a plate. */
export interface Plates {
  readonly plates: readonly (readonly OnPlate[])[];
  readonly tooLarge: readonly number[];
}

/** A row of pieces along a plate. */
interface Row {
  readonly y: number;
  readonly depth: number;
  end: number;
}

/**
 * Lays pieces out on as many plates of a size as it takes, apart from each other and from the edges. Deep ones first, in
 * rows: each goes into the first row that has room, else into a new one.
 *
 * @param bed width and depth of a plate, m
 * @param gap between pieces, and to the edge, m
 * Source: first fit by decreasing height; never more than 1.7 times the height it takes at best (Coffman, Garey, Johnson
 * and Tarjan, 1980).
 * @example layOut([{ width: 0.03, depth: 0.02 }], { width: 0.1, depth: 0.1 }, 0.005).plates[0][0].x // 0.005
 */
export function layOut(pieces: readonly Footprint[], bed: Footprint, gap: number): Plates {
  const [across, along] = [bed.width - 2 * gap, bed.depth - 2 * gap];
  const tooLarge: number[] = [];
  const flat = pieces.flatMap(({ width, depth }, piece) => {
    // Long side along the row, where the bed is wide enough for it.
    const turned = depth > width && depth <= across;
    const [w, d] = turned ? [depth, width] : [width, depth];
    if (w <= across && d <= along) return [{ piece, turned, width: w, depth: d }];
    if (d <= across && w <= along) return [{ piece, turned: !turned, width: d, depth: w }];
    tooLarge.push(piece);
    return [];
  });
  flat.sort((a, b) => b.depth - a.depth || b.width - a.width || a.piece - b.piece);
  const plates: { rows: Row[]; pieces: OnPlate[] }[] = [];
  for (const { piece, turned, width, depth } of flat) {
    const put = (plate: (typeof plates)[0], row: Row) => {
      plate.pieces.push({ piece, x: gap + row.end, y: gap + row.y, turned });
      row.end += width + gap;
    };
    const fits = () => {
      for (const plate of plates) {
        const row = plate.rows.find((r) => r.end + width <= across && depth <= r.depth);
        if (row) return void put(plate, row);
        const last = plate.rows[plate.rows.length - 1]!;
        const y = last.y + last.depth + gap;
        if (y + depth <= along) {
          const next = { y, depth, end: 0 };
          plate.rows.push(next);
          return void put(plate, next);
        }
      }
      const first = { y: 0, depth, end: 0 };
      const plate = { rows: [first], pieces: [] };
      plates.push(plate);
      put(plate, first);
    };
    fits();
  }
  return { plates: plates.map((p) => p.pieces), tooLarge };
}
