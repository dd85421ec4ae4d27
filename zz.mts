import * as c from './core/src/index.ts';
import { registerKinds } from './core/src/stage/catalogue.ts'; registerKinds();
import { readFileSync } from 'node:fs';
const run=(g:any)=>{let s=g.next();while(!s.done)s=g.next();return s.value};
const name=process.argv[2] ?? 'body-yaw';
for (const lim of [{id:'bore',sense:'min',value:0.008,need:'must'},{id:'bore',sense:'min',value:0.02,need:'must'},{id:'life',sense:'min',value:3600*5000,need:'must'},{id:'stiffness',sense:'min',value:4000,need:'must'},{id:'play',sense:'max',value:0.0003,need:'must'},{id:'tip',sense:'max',value:0.001,need:'must'},{id:'length',sense:'max',value:0.06,need:'must'},{id:'repeatability',sense:'max',value:0.0005,need:'must'},{id:'resolution',sense:'max',value:0.0003,need:'must'}]) {
const r=c.readJointFile(readFileSync(`/work/main/demo/${name}.json`,'utf8')) as any; const joint=structuredClone(r.value); const variant=c.activeVariant(joint); const shelf=c.makeShelf();
joint.brief.limits=joint.brief.limits.filter((l:any)=>l.id!==lim.id); joint.brief.limits.push(lim);
const ask={joint,variant,shelf,stages:3,first:process.argv[3]==='first'} as any;
const t=performance.now(); const f=run(c.findLines(ask));
console.log(JSON.stringify(lim),'lines',f.lines.length,(performance.now()-t).toFixed(0));
for(const w of f.whyNot) console.log('   ',c.whyNotSays(w));
}
