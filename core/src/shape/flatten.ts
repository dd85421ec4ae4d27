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
  const out: number[] = [];
  const last = o.closed ? n : n - 1;
  for (let i = 0; i < last; i++) {
    const j = (i + 1) % n;
    const x1 = p[3 * i]!;
    const y1 = p[3 * i + 1]!;
    const b = p[3 * i + 2]!;
    out.push(x1, y1);
    if (b === 0) continue;
    const x2 = p[3 * j]!;
    const y2 = p[3 * j + 1]!;
    const theta = 4 * Math.atan(b);
    const chord = Math.hypot(x2 - x1, y2 - y1);
    if (chord === 0) continue;
    const r = chord / (2 * Math.sin(Math.abs(theta) / 2));
    const step = 4 * Math.asin(Math.min(1, Math.sqrt(chordError / (2 * r))));
    const count = Math.max(1, Math.ceil(Math.abs(theta) / step));
    // The centre lies off the chord's middle by (1/b − b)/4 of the chord, to the left for a positive bulge.
    const k = (1 / b - b) / 4;
    const cx = (x1 + x2) / 2 - k * (y2 - y1);
    const cy = (y1 + y2) / 2 + k * (x2 - x1);
    const a0 = Math.atan2(y1 - cy, x1 - cx);
    for (let m = 1; m < count; m++) {
      const a = a0 + (theta * m) / count;
      out.push(cx + r * Math.cos(a), cy + r * Math.sin(a));
    }
  }
  if (!o.closed && n > 0) out.push(p[3 * n - 3]!, p[3 * n - 2]!);
  return Float64Array.from(out);
}
