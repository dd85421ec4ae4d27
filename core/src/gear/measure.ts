import { gearSize, type Gear } from './gear.ts';
import { inv, inverseInv } from './involute.ts';

/** Halves go to the even neighbour, so that a tie is always read the same way. */
function roundEven(x: number): number {
  const f = Math.floor(x);
  const d = x - f;
  if (Math.abs(d - 0.5) > 1e-9) return Math.round(x);
  return f % 2 === 0 ? f : f + 1;
}

/** Radius at which a caliper's jaws touch when they span k teeth, m. */
export function spanRadius(g: Gear, k: number): number {
  const s = gearSize(g);
  return Math.hypot(s.rb, (spanOver(g, k) * Math.cos(s.helixBase)) / 2);
}

/**
 * Teeth (a ring: spaces) that a caliper spans: z·α/π + ½ to the nearest, which touches near the reference circle; where
 * a shift or helix moves that
 * off the working flank, the nearest number that touches it.
 */
export function spanTeeth(g: Gear): number {
  const s = gearSize(g);
  const most = Math.max(1, Math.floor(g.teeth / 2));
  const plain = Math.max(1, Math.min(most, roundEven((g.teeth * g.pressure) / Math.PI + 0.5)));
  const inner = g.ring ? s.ra : Math.max(s.rb, s.r - g.module * (g.addendum - g.shift));
  const outer = g.ring ? s.r + g.module * (g.addendum + g.shift) : s.ra;
  for (let off = 0; off < 6; off++) {
    for (const k of off === 0 ? [plain] : [plain + off, plain - off]) {
      if (k < 1 || k > most) continue;
      const at = spanRadius(g, k);
      if (at > inner && at < outer) return k;
    }
  }
  return plain;
}

/**
 * Span over k teeth in the normal section, W_k = m·cos α·(π(k − ½) + z·inv α_t) + 2·x·m·sin α − A_s·cos α, m.
 *
 * @param k teeth spanned; see `spanTeeth`
 * Source: ISO 21771:2007, 7.3; for a ring the measure lies between the flanks of k spaces and the allowance adds.
 */
export function spanOver(g: Gear, k: number): number {
  const { at } = gearSize(g);
  const s = g.ring ? 1 : -1;
  return (
    g.module * Math.cos(g.pressure) * (Math.PI * (k - 0.5) + g.teeth * inv(at)) +
    2 * g.shift * g.module * Math.sin(g.pressure) +
    s * g.allowance * Math.cos(g.pressure)
  );
}

/** Pin diameter that usual tables take, 1.728 modules, m. */
export const usualPin = (g: Gear): number => 1.728 * g.module;

/**
 * Diameter over two pins laid in opposite spaces (a ring: between them), m. Odd counts lose cos(90°/z).
 *
 * @returns NaN where the pin does not rest on both flanks
 * Source: ISO 21771:2007, 7.4: inv α_M = inv α_t + d_M/(m z cos α) − π/(2z) + 2x·tan α/z − A_s/(m z), with the ring's
 * signs turned.
 */
export function overPins(g: Gear, pin: number): number {
  const s = gearSize(g);
  const d = pin / (g.module * g.teeth * Math.cos(g.pressure));
  const half = s.half - Math.PI / (2 * g.teeth);
  const y = g.ring ? inv(s.at) + Math.PI / (2 * g.teeth) - d + half : inv(s.at) - Math.PI / (2 * g.teeth) + d + half;
  if (!(y > 0)) return NaN;
  const at = (2 * s.rb) / Math.cos(inverseInv(y));
  const centres = g.teeth % 2 === 0 ? at : at * Math.cos(Math.PI / (2 * g.teeth));
  return g.ring ? centres - pin : centres + pin;
}
