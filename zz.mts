import { readFileSync } from 'node:fs';
import { registerKinds } from './core/src/stage/catalogue.ts';
import { readJointFile, makeShelf, editsFor, openLine, reducerOf, analyseLine } from './core/src/index.ts';
import { matingPairs } from './core/src/fit/pairs.ts';
import { drawSpecimens, balanced, chanceJams, chanceLoose, playAsMade } from './core/src/fit/jam.ts';
registerKinds();
for (const n of ['wing-root','body-yaw','neck-lift','tide-dial']) {
  const j = readJointFile(readFileSync(`demo/${n}.json`,'utf8')); if (!j.ok) throw j.problem;
  const joint = j.value; const shelf = makeShelf(editsFor(joint, {}));
  for (const v of joint.variants) {
    const all = openLine(v.stages, shelf).all; if (!all.ok) continue;
    const r = reducerOf(v, all.value, shelf); if (!r.ok) continue;
    r.value.bodies.map(b=>b.solid()); if (n==='wing-root'&&v.name==='B') console.log(r.value.bodies.map(b=>b.id+' '+b.part.material+' '+b.part.made).join('\n'));
    const t = performance.now(); const pairs = matingPairs(r.value.bodies); const dt = performance.now()-t;
    console.log(n, v.name, pairs.length, dt.toFixed(1),'ms');
    if (v.id === joint.activeVariant) for (const p of pairs) console.log('  ', p.purpose, p.count, p.hole.name, (p.hole.diameter*1e3).toFixed(3), '<-', p.shaft.name, (p.shaft.diameter*1e3).toFixed(3), (p.long*1e3).toFixed(1));
    const rep = analyseLine(joint, v, shelf);
    const rest = { torque: 0, torqueRms: 0, speed: 0 };
    let after = 1; const afters:number[] = []; for (let k = all.value.length-1; k>=0; k--) { afters[k]=after; after*=all.value[k]!.kinematics.ratio; }
    const stages = all.value.map((s,k)=>({ name: v.stages[k]!.kind, freedom: s.freedom(), after: afters[k]!, play: s.load(rest).play, madeBy: ()=>undefined, plastic: ()=>true, moves: s.freedom()!==undefined }));
    const t2 = performance.now();
    const asked = joint.brief.limits.find(l=>l.id==='play')?.value ?? Infinity;
    const g = drawSpecimens(stages, asked, { mean: 0, sd: 0, plastic: [8e-5,2e-5], metal: [1e-5,2e-6], frame: true }, 100000); let s = g.next(); while(!s.done) s = g.next();
    const d = s.value; const ms = performance.now()-t2;
    const mn=(x:number)=>(x*180/Math.PI*60).toFixed(2);
    const f = rep.figures.find(f=>f.id==='play');
    console.log('   jam', ms.toFixed(0),'ms', 'play', playAsMade(d).map(mn).join(' '), 'line', f && [f.value,f.low,f.high].map(x=>mn(x!)).join(' '), 'asked', mn(asked), 'Pj', chanceJams(d,0), 'Pl', chanceLoose(d,0), 'bal', (balanced(d)*1e6).toFixed(1),'um', 'kinds', stages.map(s=>s.name).join());
  }
}
