import { fitHysteresis } from './core/src/index.ts';
import { LOOPS, loopSpecimen } from './core/test/specimens/hysteresis.ts';
const N = Number(process.argv[2] ?? 200);
for (const [name, family] of Object.entries(LOOPS)) {
  let hit = { k: 0, play: 0, fr: 0 }, all = 0, none = 0, sq = 0, u = 0, wrongCount = 0, ms = 0, infl=0, dp=0,up=0;
  for (let s = 1; s <= N; s++) {
    const sp = loopSpecimen(family, s);
    const t0 = performance.now();
    const f = fitHysteresis(sp.torque, sp.angle) as any;
    ms += performance.now() - t0;
    if (!f) { none++; continue; }
    all++;
    const k = f.stiffness[f.stiffness.length - 1]!, truth = sp.truth.slopes[sp.truth.slopes.length - 1]!;
    if (f.stiffness.length !== sp.truth.slopes.length) wrongCount++;
    if (Math.abs(k.value - truth) <= f.k * k.u) hit.k++;
    if (Math.abs(f.play.value - sp.truth.play) <= f.k * f.play.u) hit.play++;
    if (Math.abs(f.friction.value - sp.truth.friction) <= f.k * f.friction.u) hit.fr++;
    sq += (k.value / truth - 1) ** 2; u += f.k*k.u / truth; infl += f.hangs ?? 1; dp+=(f.play.value-sp.truth.play); up+=f.k*f.play.u
  }
  console.log(name.padEnd(32), 'k', (100*hit.k/all).toFixed(0), 'play', (100*hit.play/all).toFixed(0), 'fric', (100*hit.fr/all).toFixed(0), 'rms %', (100*Math.sqrt(sq/all)).toFixed(1), 'U %', (100*u/all).toFixed(1), 'wrong', wrongCount, 'none', none, 'ms', (ms/N).toFixed(1),'infl',(infl/all).toFixed(1));
}
