import { LIMIT_KINDS } from '../brief/demand.ts';
import type { Finding } from '../bench/find.ts';
import type { Figure } from '../figure/figure.ts';
import type { LimitId } from '../schema/joint.ts';
import { sayBanded, sayUncertain, type UnitChoice } from '../units/format.ts';

export type Agreement = 'within' | 'above' | 'below' | 'overlaps';

/** How a finding lies to the expected band: apart by more than its uncertainty, overlapping the edge, or inside. */
export function agreement(found: { value: number; U: number }, expected: { low: number; high: number }): Agreement {
  if (found.value - found.U > expected.high) return 'above';
  if (found.value + found.U < expected.low) return 'below';
  if (found.value > expected.high || found.value < expected.low) return 'overlaps';
  return 'within';
}

/** Where a difference usually comes from, by row and direction; the nearest suspects first. */
const SUSPECTS: Partial<Record<LimitId, Partial<Record<'above' | 'below', string>>>> = {
  play: {
    above:
      'A belt that is not taut, a pulley loose on its shaft, or a push hard enough to wind the belt up reads as play.',
    below: 'Friction held the belt on one flank, or the push did not reach both ends of the clearance.',
  },
  torque: {
    above:
      'The driver gave more current than stated, or the starting factors are cautious: let this ladder replace them.',
    below:
      'Look at the tension (jumping), the pulley’s hold on its shaft (creep), then the supply voltage (lost steps).',
  },
};

/** One row's difference between found and expected, in words. */
export function sayDifference(
  row: LimitId,
  finding: Finding,
  expected: Figure | undefined,
  choice: UnitChoice = {},
): string {
  const kind = LIMIT_KINDS[row];
  const name = kind.name.toLowerCase();
  if (!finding.found) return `${kind.name} was not found: ${finding.problem?.what ?? 'the test has no result.'}`;
  const found = sayUncertain(finding.found.value, finding.found.U, kind.quantity, choice);
  if (!expected) return `Found ${name} is ${found}; nothing was expected to compare it with.`;
  const band = sayBanded(expected, kind.quantity, choice);
  const lies = agreement(finding.found, expected);
  const because = (way: 'above' | 'below') => SUSPECTS[row]?.[way] ?? '';
  if (finding.bound === 'atLeast')
    return {
      above: `Found ${name} is at least ${found}, above the expected ${band}. ${because('above')}`.trim(),
      overlaps:
        finding.found.value > expected.high
          ? `Found ${name} is at least ${found}, at the upper edge of the expected ${band}.`
          : `Found ${name} is at least ${found}, which agrees with the expected ${band}.`,
      within: `Found ${name} is at least ${found}, which agrees with the expected ${band}: what it really is may lie above.`,
      below: `Found ${name} is at least ${found}; the test stopped before the expected ${band} and does not tell.`,
    }[lies];
  if (finding.bound === 'atMost')
    return {
      below: `Found ${name} is less than ${found}, below the expected ${band}. ${because('below')}`.trim(),
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
      return `Found ${name} is above the expected band: ${found} against ${band}. ${because('above')}`.trim();
    case 'below':
      return `Found ${name} is below the expected band: ${found} against ${band}. ${because('below')}`.trim();
  }
}
