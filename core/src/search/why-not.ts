import type { Variant } from '../schema/joint.ts';
import { AIMS, type Aim, type Miss } from './compose.ts';
import type { Drive } from './drives.ts';
import type { Analysed, FoundLine, WhyNot } from './found.ts';
import { betterThan, recordOf, type Weighed } from './lines.ts';

/** A found line as what it is compared by. */
export const weighed = (line: FoundLine): Weighed & { readonly line: FoundLine } => ({
  line,
  of: { stages: line.stages.map((_, i) => i) },
  aims: AIMS.map((a) => smallBetter(line, a)),
});

const smallBetter = ({ aims }: FoundLine, aim: Aim): number =>
  aim === 'stiffness' || aim === 'efficiency' ? 1 / Math.max(aims[aim], 1e-9) : aims[aim];

/** Aims that a beaten line is named by. */
const NAMED = 2;

/**
 * Why a kind has no line among those shown: by the line of it that was computed whole where there is one, else by the
 * nearest miss, else by what its strongest stage carries.
 *
 * @param carried by the strongest stage of it that fell short, N·m; 0 where none was there
 */
export function whyNot(
  kind: string,
  analysed: readonly Analysed[],
  shown: readonly FoundLine[],
  miss: Miss | undefined,
  drives: readonly Drive[],
  variant: Variant,
  carried: number,
  peak: number,
): WhyNot {
  const own = analysed.filter((a) => a.line.stages.some((s) => s.kind === kind));
  const able = own.find((a) => !a.out);
  if (able) {
    const better = shown.map(weighed).find((x) => betterThan(x, weighed(able.line)));
    if (better) return { ...NONE, kind, ...nearest(able.line), beaten: beatenBy(able.line, better.line) };
  }
  const out = own.find((a) => a.out);
  if (out?.out) return { ...NONE, kind, ...nearest(out.line), ...out.out };
  if (miss)
    return {
      kind,
      limit: miss.limit,
      value: miss.value,
      asked: miss.asked,
      ...nearest(recordOf(miss, drives, variant)),
    };
  return { kind, limit: carried > 0 ? 'torque' : undefined, value: carried, asked: peak, line: undefined };
}

const NONE = { limit: undefined, value: 0, asked: 0 };

const nearest = ({ motor, driver, stages }: Pick<FoundLine, 'motor' | 'driver' | 'stages'>) => ({
  line: { motor, driver, stages },
});

/** What a line is furthest behind another in. */
function beatenBy(own: FoundLine, other: FoundLine): WhyNot['beaten'] {
  const times = (aim: Aim) => smallBetter(own, aim) / Math.max(smallBetter(other, aim), 1e-9);
  const behind = [...AIMS]
    .sort((a, b) => times(b) - times(a))
    .slice(0, NAMED)
    .map((aim) => ({ aim, own: own.aims[aim], other: other.aims[aim] }));
  return { by: other.stages.map((s) => s.kind), behind };
}
