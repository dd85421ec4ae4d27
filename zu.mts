import { turnSpecimen, TURNS } from './core/test/specimens/transmission.ts';
import { transmissionRun, unwrapped } from './core/src/index.ts';
(globalThis as any).DBG=1;
for (const [fam,seeds] of [['one turn each way, 18 bits',[1,2,3,4,5,6]],['two thirds of a turn',[1,2,3,4,5,6]]] as const) for (const s of seeds) { const sp = turnSpecimen(TURNS[fam]!, s);
const r = transmissionRun(unwrapped(sp.input).angles, unwrapped(sp.output).angles)!;
console.log(fam, s, 'ratio', sp.truth.ratio, 'err/u', ((r.slope-1/sp.truth.ratio)/r.uSlope).toFixed(1), 'rel', ((r.slope*sp.truth.ratio-1)).toExponential(2), sp.truth.orders.map(o=>o.order.toFixed(1)+':'+(o.amplitude*10800/Math.PI).toFixed(2)).join(' ')); }
