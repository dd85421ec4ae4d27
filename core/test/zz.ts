import './setup.ts';
import { stageKinds } from '../src/index.ts';
import { flatten } from '../src/shape/flatten.ts';
import type { Prism } from '../src/shape/solid.ts';
import { made, ofKind, DEMOS, active } from './reducer-bench.ts';
import { anyStages } from './any-stage.ts';
type V3 = [number, number, number];
const polys = new WeakMap<object, { p: Float64Array; far: number }>();
const poly = (o: any) => { let h = polys.get(o); if (!h) { const p = Float64Array.from(flatten(o, 1e-6)); let far = 0; for (let i = 0; i < p.length; i += 2) far = Math.max(far, Math.hypot(p[i]!, p[i + 1]!)); polys.set(o, (h = { p, far })); } return h; };
const TOL = 3e-5;
function within(o: any, x: number, y: number): { i: boolean; off: number } {
  const { p, far } = poly(o); if (Math.hypot(x, y) > far + TOL) return { i: false, off: 1 };
  let [i, off] = [false, 1]; const n = p.length / 2;
  for (let a = 0, b = n - 1; a < n; b = a++) { const [ax, ay, bx, by] = [p[2*b]!, p[2*b+1]!, p[2*a]!, p[2*a+1]!]; if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) i = !i; const dx = bx - ax, dy = by - ay, l = dx*dx+dy*dy; const t = l > 0 ? Math.max(0, Math.min(1, ((x-ax)*dx+(y-ay)*dy)/l)) : 0; off = Math.min(off, Math.hypot(x-ax-t*dx, y-ay-t*dy)); }
  return { i, off };
}
function inPrism(p: Prism, [x, y, z]: V3): boolean {
  if (z < p.from + TOL || z > p.to - TOL) return false;
  const turn = -((p.turn ?? 0) + (p.twist * (z - p.from)) / (p.to - p.from));
  const [c, s] = [Math.cos(turn), Math.sin(turn)]; const [X, Y] = [c * x - s * y, s * x + c * y];
  const o = within(p.outer, X, Y); if (!o.i || o.off < TOL) return false;
  for (const h of p.holes) { const q = within(h, X, Y); if (q.i || q.off < TOL) return false; }
  return true;
}
const inSolid = (prisms: readonly Prism[], q: V3) => { let s = false; for (const p of prisms) { if (p.cut) { const turn = 0; if (q[2] > p.from - TOL && q[2] < p.to + TOL && within(p.outer, q[0], q[1]).i) s = false; } else if (inPrism(p, q)) s = true; } return s; };
const count = new Map<string, number>(); const first = new Map<string, string>();
const base = { ...ofKind('spur') };
const lines: any[] = []; const N = Number(process.argv[2] ?? 6);
const outV: any = DEMOS.map(active).find((v: any) => v.output);
for (const k of stageKinds()) anyStages(k, N, 3).forEach(({ params }, i) => { lines.push([k.id + '#' + i, { ...base, stages: [{ id: 's', kind: k.id, params }] }]); if (i < 3 && outV) lines.push([k.id + '#' + i + '+out', { ...base, output: outV.output, stages: [{ id: 's', kind: k.id, params }] }]); });
const ks = stageKinds().filter((k) => k.id !== 'unit' && !k.straight);
for (const a of ks) for (const b of ks) { const [p, q] = [anyStages(a, 1, 7), anyStages(b, 1, 8)]; if (p[0] && q[0]) lines.push([a.id + '>' + b.id, { ...base, stages: [{ id: 's', kind: a.id, params: p[0].params }, { id: 't', kind: b.id, params: q[0].params }] }]); }
let n = 0, seedv = 1; const rnd = () => { seedv = (Math.imul(seedv, 1664525) + 1013904223) >>> 0; return seedv / 4294967296; };
for (const [name, v] of lines) {
  let r: any; try { r = made(v); } catch { continue; }
  n++;
  for (const crank of [0, 1.3]) {
    const boxes = r.bodies.map((b: any) => { const prisms = b.solid().prisms; const fs = b.places(crank); return fs.map((f: any) => { const B = [1e9, 1e9, 1e9, -1e9, -1e9, -1e9]; for (const p of prisms) { const far = poly(p.outer).far; for (const sx of [-1, 1]) for (const sy of [-1, 1]) for (const z of [p.from, p.to]) { const q = [sx * far, sy * far, z]; for (let i = 0; i < 3; i++) { const w = f.at[i] + f.x[i] * q[0]! + f.y[i] * q[1]! + f.z[i] * q[2]!; B[i] = Math.min(B[i]!, w); B[i + 3] = Math.max(B[i + 3]!, w); } } } return { B, f }; }); });
    const local = (f: any, w: V3): V3 => { const d = [w[0] - f.at[0], w[1] - f.at[1], w[2] - f.at[2]]; return [f.x, f.y, f.z].map((e: any) => e[0] * d[0]! + e[1] * d[1]! + e[2] * d[2]!) as V3; };
    for (let i = 0; i < r.bodies.length; i++) for (let j = i + 1; j < r.bodies.length; j++) {
      const [a, b] = [r.bodies[i], r.bodies[j]];
      if (a.of === 'stage' && b.of === 'stage' && a.stage === b.stage) continue;
      if (a.flexes || b.flexes) continue;
      if (a.joins?.includes(b.id) || b.joins?.includes(a.id)) continue;
      const [pa, pb] = [a.solid().prisms, b.solid().prisms];
      let hit = 0;
      for (const A of boxes[i].slice(0, 2)) for (const Bx of boxes[j].slice(0, 4)) {
        const lo = [0, 1, 2].map((k) => Math.max(A.B[k], Bx.B[k])), hi = [3, 4, 5].map((k) => Math.min(A.B[k], Bx.B[k]));
        if (lo.some((x, k) => x >= hi[k]!)) continue;
        for (let t = 0; t < 60; t++) { const w = lo.map((x, k) => x + rnd() * (hi[k]! - x)) as V3; if (inSolid(pa, local(A.f, w)) && inSolid(pb, local(Bx.f, w))) hit++; }
      }
      if (hit) { const key = [a.id, b.id].map((s: string) => s.replace(/\d+/g, '#')).join(' × '); count.set(key, (count.get(key) ?? 0) + 1); if (!first.has(key)) first.set(key, `${name} ${hit}`); else if (count.get(key)! < 6) first.set(key, first.get(key) + ', ' + name); }
    }
  }
}
console.log(n, 'lines');
for (const [k, c] of [...count].sort((a, b) => b[1] - a[1])) console.log(c, k, '|', first.get(k));
