import { TEST_KINDS, analyseTest, blankTest, contextFor, makeShelf } from './core/src/index.ts';
const kind = TEST_KINDS.find(k=>k.id==='noise')!; const shelf = makeShelf();
const rate=8000,n=65536; 
for (const amp of [0.1,0.003]) for (const off of [0,0.25,0.5]) {
 const f = (300+off)*rate/n*3.37; let s=1; const g=()=>{ let x=0; for(let i=0;i<12;i++){ s=(Math.imul(s,1664525)+1013904223)>>>0; x+=s/4294967296;} return x-6; };
 const sound=Float64Array.from({length:n},(_,i)=>amp*Math.sin(2*Math.PI*f*i/rate)+0.0*Math.sin(1)+0.02*g());
 const b=blankTest(kind,{id:'x',buildId:'',date:''});
 const r=analyseTest({...b,rig:{...b.rig,speed:2*Math.PI}},{...contextFor(undefined,undefined,shelf),recording:{channels:[{id:'sound',name:'sound',quantity:'count'}],data:[sound],rate,malformed:0,gaps:0,notes:[]}} as never);
 if(r.ok) console.log(amp,off,'f',f,r.value.peaks!.slice(0,2).map(p=>[p.order,p.amplitude/amp])); else console.log(r.problem);
}
