import { LIMIT_KINDS } from '../brief/demand.ts';
import type { Finding } from '../bench/find.ts';
import type { Figure } from '../figure/figure.ts';
import type { LimitId } from '../schema/joint.ts';
import type { Suspects } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import { sayBanded, sayUncertain, type UnitChoice } from '../units/format.ts';

export type Agreement = 'within' | 'above' | 'below' | 'overlaps';

/** How a finding lies to the expected band: apart by more than its uncertainty, overlapping the edge, or inside. */
export function agreement(found: { value: number; U: number }, expected: { low: number; high: number }): Agreement {
  if (found.value - found.U > expected.high) return 'above';
  if (found.value + found.U < expected.low) return 'below';
  if (found.value > expected.high || found.value < expected.low) return 'overlaps';
  return 'within';
}

/** Where a difference usually comes from whatever the stages are; theirs come before it. */
const SUSPECTS: Suspects = {
  play: {
    above: 'A push hard enough to wind the joint up reads as play.',
    below: 'Friction held the joint on one side, or the push did not reach both ends of the clearance.',
  },
  stiffness: {
    above: 'The sensor sits before part of what gives way.',
    below: 'The lever, its clamp or a flange gives way besides the joint.',
  },
  torque: {
    above:
      'The driver gave more current than stated, or the starting factors are cautious: let this measurement replace them.',
    below: 'Look at what gave way first, then at the driver’s current and the supply voltage (lost steps).',
  },
};

/** What may be behind a difference: first what the kinds in the line know of themselves, each said once. */
function because(row: LimitId, way: 'above' | 'below', stages: readonly string[]): string {
  const own = [...new Set(stages)].flatMap((kind) => stageKind(kind)?.suspects?.[row]?.[way] ?? []);
  return [...new Set(own), SUSPECTS[row]?.[way] ?? ''].join(' ').trim();
}

/** What a finding was found of. */
export interface BuiltOf {
  /** Kinds of the line's stages. */
  readonly stages?: readonly string[];
  /** The variant has changed since it was built. */
  readonly earlier?: boolean;
}

/**
 * One row's difference between found and expected, in words.
 *
 * @param of what was built: its kinds' own suspects are named
 */
export function sayDifference(
  row: LimitId,
  finding: Finding,
  expected: Figure | undefined,
  choice: UnitChoice = {},
  { stages = [], earlier = false }: BuiltOf = {},
): string {
  const kind = LIMIT_KINDS[row];
  const name = kind.name.toLowerCase();
  if (!finding.found) return `${kind.name} was not found: ${finding.problem?.what ?? 'the test has no result.'}`;
  const found = sayUncertain(finding.found.value, finding.found.U, kind.quantity, choice);
  if (!expected) return `Found ${name} is ${found}; nothing was expected to compare it with.`;
  const band = sayBanded(expected, kind.quantity, choice);
  // Nothing can be blamed on a design that was never built.
  if (earlier)
    return `Found ${name} is ${found}, of a build of an earlier design; what is expected of the variant as it is now is ${band}.`;
  const lies = agreement(finding.found, expected);
  const why = (way: 'above' | 'below') => because(row, way, stages);
  if (finding.bound === 'atLeast')
    return {
      above: `Found ${name} is at least ${found}, above the expected ${band}. ${why('above')}`.trim(),
      overlaps:
        finding.found.value > expected.high
          ? `Found ${name} is at least ${found}, at the upper edge of the expected ${band}.`
          : `Found ${name} is at least ${found}, which agrees with the expected ${band}.`,
      within: `Found ${name} is at least ${found}, which agrees with the expected ${band}: what it really is may lie above.`,
      below: `Found ${name} is at least ${found}; the test stopped before the expected ${band} and does not tell.`,
    }[lies];
  if (finding.bound === 'atMost')
    return {
      below: `Found ${name} is less than ${found}, below the expected ${band}. ${why('below')}`.trim(),
      overlaps:
        finding.found.value < expected.low
          ? `Found ${name} is less than ${found}, at the lower edge of the expected ${band}.`
          : `Found ${name} is less than ${found}, which agrees with the expected ${band}.`,
      within: `Found ${name} is less than ${found}, which agrees with the expected ${band}: what it really is may lie below.`,
      above: `Found ${name} is less than ${found}; all of the expected ${band} lies below that, and the test does not tell.`,
    }[lies];
  switch (lies) {
    case 'within':
      return `Found ${name} is within the expected band: ${found} against ${band}.`;
    case 'overlaps':
      return `Found ${name} is at the edge of the expected band: ${found} against ${band}; the uncertainty covers the difference.`;
    case 'above':
      return `Found ${name} is above the expected band: ${found} against ${band}. ${why('above')}`.trim();
    case 'below':
      return `Found ${name} is below the expected band: ${found} against ${band}. ${why('below')}`.trim();
  }
}
