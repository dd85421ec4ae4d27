import type { Outline } from './outline.ts';

/**
 * The outline as straight pieces that stay within `chordError` of it: points x, y in one array, first point not
 * repeated.
 *
 * An arc of radius r and angle θ is parted into n = ⌈θ / (2·acos(1 − e/r))⌉ equal pieces, whose sagitta is at most e;
 * acos(1 − x) is taken as 2·asin √(x/2), which
 * keeps its digits on arcs that are all but straight.
 *
 * @param chordError metres, greater than zero
 */
export function flatten(o: Outline, chordError: number): Float64Array {
  const p = o.points;
  const n = p.length / 3;
  const last = o.closed ? n : n - 1;
  let out = new Float64Array(Math.max(64, 8 * n));
  let at = 0;
  for (let i = 0; i < last; i++) {
    const j = i + 1 < n ? i + 1 : 0;
    const x1 = p[3 * i]!;
    const y1 = p[3 * i + 1]!;
    const b = p[3 * i + 2]!;
    const dx = p[3 * j]! - x1;
    const dy = p[3 * j + 1]! - y1;
    const chord = b === 0 ? 0 : Math.sqrt(dx * dx + dy * dy);
    const theta = 4 * Math.atan(b);
    const count = chord === 0 ? 1 : piecesOf(theta, (chord * (1 + b * b)) / (4 * Math.abs(b)), chordError);
    if (at + 2 * count + 2 > out.length) out = grown(out, at + 2 * count + 2);
    out[at++] = x1;
    out[at++] = y1;
    if (count === 1) continue;
    // The centre lies off the chord's middle by (1/b − b)/4 of the chord, to the left for a positive bulge.
    const k = (1 / b - b) / 4;
    const cx = x1 + dx / 2 - k * dy;
    const cy = y1 + dy / 2 + k * dx;
    const c = Math.cos(theta / count);
    const s = Math.sin(theta / count);
    let rx = x1 - cx;
    let ry = y1 - cy;
    for (let m = 1; m < count; m++) {
      const before = rx;
      rx = before * c - ry * s;
      ry = ry * c + before * s;
      out[at++] = cx + rx;
      out[at++] = cy + ry;
    }
  }
  if (!o.closed && n > 0) {
    out[at++] = p[3 * n - 3]!;
    out[at++] = p[3 * n - 2]!;
  }
  return out.slice(0, at);
}

/** Into how many chords an arc is cut so that none is off it by more. */
function piecesOf(theta: number, radius: number, chordError: number): number {
  const step = 4 * Math.asin(Math.min(1, Math.sqrt(chordError / (2 * radius))));
  return Math.max(1, Math.ceil(Math.abs(theta) / step));
}

/** The same with room for more, twice as much at least. */
function grown(list: Float64Array, least: number): Float64Array<ArrayBuffer> {
  const more = new Float64Array(Math.max(least, 2 * list.length));
  more.set(list);
  return more;
}
