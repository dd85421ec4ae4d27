import { overPins, spanOver, spanTeeth, usualPin } from '../gear/measure.ts';
import { gearSize } from '../gear/gear.ts';
import { inv, inverseInv } from '../gear/involute.ts';
import type { FitReading } from '../schema/process-schema.ts';
import { boundsOf } from '../shape/bounds.ts';
import { ORIGIN } from '../shape/outline.ts';
import { roundOf } from '../shape/round-of.ts';
import type { Part } from '../stage/contract.ts';
import { stated } from '../units/stated.ts';

/** A size of a part that can be measured with a caliper or a pin, and what of its process it tells. */
export type PartFeature = Pick<FitReading, 'feature' | 'axis' | 'drawn'> & {
  readonly name: string;
  /** Where the caliper goes. */
  readonly how: string;
  readonly gain: number;
};

/**
 * What a measure over pins gains for a metre by which flanks stand out: 2/sin α_M, with an odd count cos(90°/z) of it.
 *
 * Source: a flank that stands out by c along its normal does so by c/cos β_b in the transverse section, and the pin's centre
 * moves by that over sin α_M.
 */
export function pinGain(g: Parameters<typeof overPins>[0], pin: number): number {
  const s = gearSize(g);
  const d = pin / (g.module * g.teeth * Math.cos(g.pressure));
  const half = s.half - Math.PI / (2 * g.teeth);
  const y = g.ring ? inv(s.at) + Math.PI / (2 * g.teeth) - d + half : inv(s.at) - Math.PI / (2 * g.teeth) + d + half;
  const odd = g.teeth % 2 === 0 ? 1 : Math.cos(Math.PI / (2 * g.teeth));
  return (2 * odd) / Math.sin(inverseInv(y)) / Math.cos(s.helixBase);
}

/**
 * Sizes of a made part by which its process can be known: span over teeth and over pins of an involute toothing, bores,
 * round outsides, and what a caliper reads across lobes.
 */
export function partFeatures(part: Pick<Part, 'teeth' | 'curves'>): PartFeature[] {
  const list: PartFeature[] = [];
  const g = part.teeth;
  if (g) {
    if (!g.ring) {
      const k = spanTeeth(g);
      list.push({
        name: `Span over ${k} teeth`,
        how: 'Jaws flat on two flanks, rocked to the least reading',
        feature: 'outside',
        axis: 'round',
        drawn: spanOver(g, k),
        // Each jaw lies on one flank, and both stand out along their normals.
        gain: 2,
      });
    }
    const pin = usualPin(g);
    const over = overPins(g, pin);
    if (Number.isFinite(over))
      list.push({
        name: g.ring ? `Between pins ⌀ ${stated(pin, 'length', 5)}` : `Over pins ⌀ ${stated(pin, 'length', 5)}`,
        how: g.ring ? 'Pins in opposite spaces, the inner jaws on them' : 'Pins in opposite spaces, the jaws on them',
        feature: g.ring ? 'hole' : 'outside',
        axis: 'round',
        drawn: over,
        gain: pinGain(g, pin),
      });
  }
  const shell = part.curves.some((c) => c.layer === 'outside');
  const seen = new Set<string>();
  for (const { layer, outline } of part.curves) {
    const round = roundOf(outline);
    const outside = layer === 'outside' || (!shell && /^profile/.test(layer));
    if (round) {
      const d = 2 * round.r;
      const key = `${outside}/${Math.round(d * 1e6)}`;
      if (seen.has(key) || d < 2e-3) continue;
      seen.add(key);
      list.push({
        name: outside ? `Outside ⌀ ${stated(d, 'length', 5)}` : `Bore ⌀ ${stated(d, 'length', 5)}`,
        how: outside ? 'Jaws across it, above the first layers' : 'The inner jaws, or the largest pin that goes in',
        feature: outside ? 'outside' : 'hole',
        axis: 'round',
        drawn: d,
        gain: 2,
      });
    } else if (outside && !g && outline.closed) {
      const b = boundsOf([{ outline, at: ORIGIN }]);
      if (b)
        list.push({
          name: 'Across the widest',
          how: 'Jaws across it, along its mark where it has one',
          feature: 'outside',
          axis: 'x',
          drawn: b.x1 - b.x0,
          gain: 2,
        });
    }
  }
  return list;
}
