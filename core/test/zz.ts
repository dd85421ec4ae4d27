import './setup.ts';
import { stageKinds, readParams, type StageReport } from '../src/index.ts';
import { shelf } from './helpers.ts';
import { ANCHORED } from './worked-stages.ts';
const which = process.argv[2]!;
const over = JSON.parse(process.argv[3] ?? '{}');
for (const kind of stageKinds()) {
  if (kind.id !== which) continue;
  const a = ANCHORED.find((x) => x.kind === kind.id && !x.further)!;
  const base = { ...(a.params as Record<string, unknown>), ...over };
  const run = (p: Record<string, unknown>): Record<string, number> | undefined => {
    const rd = readParams(kind.id, p);
    if (!rd.ok) {
      return undefined;
    }
    const o = kind.open(rd.value as never, shelf);
    if (!o.ok) {
      if (p === base) console.log(o.problem);
      return undefined;
    }
    const r: StageReport = o.value.report(a.duty);
    const n = r.numbers;
    return {
      eF: n.etaForward,
      eB: n.etaBackward,
      drag: n.drag,
      play: n.play[0],
      playHi: n.play[2],
      k: n.stiffness,
      m: n.mass,
      $: n.money,
      jI: n.inertiaIn,
      jO: n.inertiaOut,
      out: n.outside,
      len: n.length,
      max: n.maxSpeed,
      life: n.life,
      ...Object.fromEntries(n.limits.map((l, i) => ['L' + i, l.torque])),
    };
  };
  const b = run(base)!;
  if (!b) {
    console.log('base refused');
    continue;
  }
  const rd = readParams(kind.id, base);
  const o = kind.open((rd as any).value, shelf) as any;
  console.log(
    '##',
    which,
    o.value
      .report(a.duty)
      .numbers.limits.map((l: any, i: number) => `L${i} ${l.mode}=${l.torque.toPrecision(3)}`)
      .join('; '),
  );
  console.log(
    Object.entries(b)
      .map(([k, v]) => k + '=' + v.toPrecision(3))
      .join(' '),
  );
  for (const f of kind.fields) {
    if (f.as === 'choice' || f.as === 'text') continue;
    if (f.when && !f.when(base as never)) continue;
    const v0 = base[f.path] as number;
    if (typeof v0 !== 'number') continue;
    const step = f.as === 'count' ? Math.max(1, Math.round(v0 * 0.05)) : 0.03 * Math.abs(v0) || 1e-6;
    const hi = run({ ...base, [f.path]: v0 + step }),
      lo = run({ ...base, [f.path]: v0 - step });
    if (!hi && !lo) {
      console.log('  ', f.path, v0, 'refused');
      continue;
    }
    const [p, q] = [hi ?? b, lo ?? b];
    const dx = Math.log((hi ? v0 + step : v0) / (lo ? v0 - step : v0)) || 1;
    console.log(
      '  ',
      f.path.padEnd(12),
      String(v0).slice(0, 8).padEnd(9),
      Object.keys(b)
        .map((k) => {
          const e = v0 === 0 ? (p[k]! - q[k]!) / Math.abs(b[k]! || 1) : Math.log(p[k]! / q[k]!) / dx;
          return Math.abs(e) > 0.005 ? `${k}:${e.toFixed(2)}` : '';
        })
        .filter(Boolean)
        .join(' '),
    );
  }
}
