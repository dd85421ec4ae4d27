import { TEST_KINDS, analyseTest, blankTest, contextFor, makeShelf } from './core/src/index.ts';
import { TURNS, turnSpecimen } from './core/test/specimens/transmission.ts';
const kind = TEST_KINDS.find(k=>k.id==='transmission')!; const shelf = makeShelf();
const N = Number(process.argv[2] ?? 100), only = process.argv[3];
for (const [name, family] of Object.entries(TURNS)) {
  if (only && !name.includes(only)) continue;
  const t: Record<string, {hit:number, all:number, err:number, U:number}> = {};
  let none = 0, ms = 0, found = 0, sought = 0, ghosts = 0, ahit = 0; const why = new Set<string>();
  for (let s = 1; s <= N; s++) {
    const sp = turnSpecimen(family, s);
    const rec = { channels: [{id:'input',name:'input',quantity:'angle'},{id:'output',name:'output',quantity:'angle'}], data:[sp.input,sp.output], rate:0, malformed:0,gaps:0,notes:[] } as never;
    const b = blankTest(kind,{id:'x',buildId:'',date:''});
    const test = {...b, rig:{...b.rig, ...(family.sensor && {sensorError: family.sensor*Math.PI/10800})}};
    const ctx = { ...contextFor(undefined, undefined, shelf, rec), orders: [{name:'motor', order: Math.abs(sp.truth.ratio), lever: 1},{name:'output',order:1,lever:1}] };
    const t0=performance.now();
    const r = analyseTest(test, ctx as never); ms += performance.now()-t0;
    if (!r.ok) { none++; why.add(r.problem.what); continue; }
    for (const id of ['ratio','play','peakToPeak','rms']) {
      const f = r.value.figures.find(x=>x.id===id); if (!f) continue;
      const truth = (sp.truth as never)[id] as number;
      const q = t[id] ??= {hit:0,all:0,err:0,U:0};
      q.all++; (q as any).b = ((q as any).b??0)+(f.value-truth); q.err += ((f.value-truth))**2; q.U += f.U ?? 0; if (Math.abs(f.value-truth) <= (f.U ?? 0)) q.hit++;
    }
    const peaks = r.value.peaks ?? [];
    for (const o of sp.truth.orders) { if (family.uneven && o.order===1) continue; sought++; const p = peaks.find(p=>Math.abs(p.order-o.order) < Math.min(0.2, 0.3*(family.near??1))); if (p) { found++; const U=(p as any).U ?? 0; if (Math.abs(p.amplitude-o.amplitude)<=U) ahit++; } }
    ghosts += peaks.filter(p=>!sp.truth.orders.some(o=>Math.abs(p.order-o.order)<0.3)).length;
  }
  const A = Math.PI/10800;
  console.log(name.padEnd(34), Object.entries(t).map(([id,q])=>`${id} ${(100*q.hit/q.all).toFixed(0)}% bias ${((q as any).b/q.all/(id==='ratio'?1:A)).toFixed(3)} rms ${id==='ratio'?Math.sqrt(q.err/q.all).toExponential(1):(Math.sqrt(q.err/q.all)/A).toFixed(2)} U ${id==='ratio'?(q.U/q.all).toExponential(1):(q.U/q.all/A).toFixed(2)}`).join(' | '), '| orders', found, '/', sought, 'amp', (100*ahit/found).toFixed(0)+'%', 'ghosts', (ghosts/N).toFixed(1), 'none', none, 'ms', (ms/N).toFixed(0), [...why].join());
}
