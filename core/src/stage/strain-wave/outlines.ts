import { OutlinePen, type Outline } from '../../shape/outline.ts';
import type { NeutralLine, Side } from '../../wave/index.ts';
import type { StrainWaveGeometry } from './geometry.ts';
import { wrap } from '../../math/wrap.ts';

/**
 * Heights at which a side is drawn, from low to high: straight ones need only their ends, others stay within 0.2 µm of
 * their curve with forty.
 */
function heights(side: Side, low: number, high: number, many = 40): number[] {
  const straight =
    Math.abs(side.cosine(low) - side.cosine(high)) < 1e-12 &&
    Math.abs(side.half((low + high) / 2) - (side.half(low) + side.half(high)) / 2) < 1e-12;
  const n = straight ? 1 : many;
  // Closer together towards the top, where a round side turns over.
  return Array.from({ length: n + 1 }, (_, i) => low + (high - low) * Math.sin((Math.PI / 2) * (i / n)));
}

/** Round spline as cut, teeth outwards, tooth 0 on the x axis. */
export function splineOutline(g: StrainWaveGeometry): Outline {
  const side = g.mesh.tooth;
  const ys = heights(side, g.splineRoot, g.splineTip);
  const pen = new OutlinePen();
  const z = g.mesh.splineTeeth;
  for (let i = 0; i < z; i++) {
    const a = (2 * Math.PI * i) / z;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const put = (x: number, y: number, bulge = 0) =>
      pen.to((g.radius + y) * c - x * s, (g.radius + y) * s + x * c, bulge);
    for (const y of ys) put(-side.half(y), y);
    for (const y of [...ys].reverse()) put(side.half(y), y);
    // Land along the root circle to the next tooth.
    const half = Math.atan2(side.half(ys[0]!), g.radius + ys[0]!);
    pen.bendLast(Math.tan(((2 * Math.PI) / z - 2 * half) / 4));
  }
  return pen.close();
}

/** A ring's inside, spaces cut out of it, space 0 on the x axis. */
export function ringOutline(
  g: Pick<StrainWaveGeometry, 'ringTip' | 'ringRoot'> & {
    readonly mesh: Pick<StrainWaveGeometry['mesh'], 'space' | 'ringTeeth'>;
  },
  teeth = g.mesh.ringTeeth,
  turn = 0,
): Outline {
  const side = g.mesh.space;
  const ys = heights(side, g.ringTip, g.ringRoot);
  const pen = new OutlinePen();
  for (let i = 0; i < teeth; i++) {
    const a = turn + (2 * Math.PI * i) / teeth;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const put = (x: number, y: number, bulge = 0) => pen.to(y * c - x * s, y * s + x * c, bulge);
    const corner = side.half(g.ringTip);
    const up = Math.sqrt(Math.max(0, g.ringTip ** 2 - corner * corner));
    put(-corner, up);
    for (const y of ys.slice(1)) put(-side.half(y), y);
    for (const y of [...ys.slice(1)].reverse()) put(side.half(y), y);
    put(corner, up, Math.tan(((2 * Math.PI) / teeth - 2 * Math.atan2(corner, up)) / 4));
  }
  return pen.close();
}

const at = new Float64Array(4);

/**
 * A line along the deformed spline at a distance from the neutral line, in the generator's frame: as arcs that turn
 * with it.
 */
export function alongWave(line: NeutralLine, distance: number, steps = 240): Outline {
  const length = 2 * Math.PI * line.form.radius;
  const pen = new OutlinePen();
  const points: [number, number, number][] = [];
  for (let i = 0; i < steps; i++) {
    line.at((length * i) / steps, at);
    points.push([at[0]! + distance * Math.cos(at[2]!), at[1]! + distance * Math.sin(at[2]!), at[2]!]);
  }
  for (let i = 0; i < steps; i++) {
    const [x, y, h] = points[i]!;
    const next = points[(i + 1) % steps]![2] + (i === steps - 1 ? 2 * Math.PI : 0);
    pen.to(x, y, Math.tan(wrap(next - h) / 4));
  }
  return pen.close();
}

/** The deformed spline's toothed outside when the generator has turned by `crank` and the spline itself by `turn`. */
export function wavedSpline(g: StrainWaveGeometry, crank: number, turn: number): Outline {
  const side = g.mesh.tooth;
  const ys = heights(side, g.splineRoot, g.splineTip, 7);
  const z = g.mesh.splineTeeth;
  const [cc, cs] = [Math.cos(crank), Math.sin(crank)];
  const per = 2 * ys.length;
  const points = new Float64Array(3 * per * z);
  let o = 0;
  for (let i = 0; i < z; i++) {
    const along = (2 * Math.PI * i) / z - crank + turn;
    g.mesh.line.at(along * g.radius, at);
    const [x0, y0] = [at[0]! * cc - at[1]! * cs, at[0]! * cs + at[1]! * cc];
    const n = at[2]! + crank;
    const [nc, ns] = [Math.cos(n), Math.sin(n)];
    for (let k = 0; k < per; k++) {
      const up = k < ys.length;
      const y = up ? ys[k]! : ys[per - 1 - k]!;
      const x = up ? -side.half(y) : side.half(y);
      points[o++] = x0 + y * nc - x * ns;
      points[o++] = y0 + y * ns + x * nc;
      points[o++] = 0;
    }
  }
  return { points, closed: true };
}
