import { registerKinds, stageKind } from './core/src/stage/catalogue.ts';
import { makeShelf } from './core/src/index.ts';
await registerKinds();
const shelf = makeShelf({} as never);
for (const id of ['strain-wave','ring-plate','planetary','cycloidal']) { const k = stageKind(id)!; const t0=performance.now();
 for (let i=0;i<25;i++){ const p = k.defaults({ratio:30+i,torque:2,size:Infinity,shelf}); const o=k.open(p as never,shelf); if(o.ok) o.value.report({torque:1,torqueRms:1,speed:3}); }
 console.log(id,(performance.now()-t0)|0); }
