import {
  formatAgainst,
  LIMIT_KINDS,
  sayBanded,
  sayUncertain,
  sayDifference,
  stageKind,
  type BuiltOf,
  type Check,
  type Figure,
  type Finding,
  type Joint,
  type LineReport,
  type SettledVerdict,
  type StageReport,
} from '@gristmill/core';

const MARK = { holds: 'ok', near: 'near', fails: 'FAILS', unknown: '?' } as const;

const figureLine = (f: Figure): string => `  ${f.name.padEnd(34)} ${sayBanded(f, f.quantity)}`;
const checkLine = (c: Check): string =>
  `  ${MARK[c.state].padEnd(6)} ${c.name.padEnd(36)} ` +
  `${formatAgainst(c.figure, c.limit, c.quantity).join(c.sense === 'min' ? ' >= ' : ' <= ')}${c.state === 'holds' ? '' : `. ${c.why} ${c.mend ? `Mend: ${c.mend.label}.` : (c.advice ?? '')}`}`;

/** A stage's report as lines of text. */
export const sayStage = (r: StageReport): string =>
  [...r.figures.map(figureLine), ...r.checks.map(checkLine)].join('\n');

/** What was found for a limit, and that it decides or why it does not. */
function sayFound({ finding, by, earlier }: SettledVerdict): string {
  if (!finding?.found) return '';
  const bound = { atLeast: 'at least ', atMost: 'less than ', both: '' }[finding.bound ?? 'both'];
  const says = `, found ${bound}${sayUncertain(finding.found.value, finding.found.U, finding.found.quantity)}`;
  if (earlier) return `${says} of an earlier design`;
  return by === 'found' ? `${says}, which decides` : says;
}

/** A line's report as lines of text. */
export function sayLine(
  joint: Joint,
  variantName: string,
  r: Pick<LineReport, 'problem' | 'limitedBy' | 'checks' | 'figures' | 'stages'>,
  verdicts: readonly SettledVerdict[],
): string {
  const out = [`${joint.name}, variant ${variantName}`];
  if (r.problem) out.push(`  ${r.problem.what} ${r.problem.why} ${r.problem.mend}`);
  else out.push(`  limited by ${r.limitedBy}`);
  for (const v of verdicts) {
    const asked =
      v.sense === 'either' || !Number.isFinite(v.asked)
        ? 'noted'
        : `asked ${v.sense === 'min' ? '>=' : '<='} ${sayBanded({ value: v.asked }, LIMIT_KINDS[v.id].quantity)}`;
    out.push(
      `  ${MARK[v.state].padEnd(6)} ${LIMIT_KINDS[v.id].name.padEnd(18)} ${asked}, expected ` +
        `${v.figure ? sayBanded(v.figure, v.figure.quantity) : (v.says ?? 'unknown')}${sayFound(v)}`,
    );
  }
  out.push(...r.checks.map(checkLine));
  out.push(...r.figures.map(figureLine));
  r.stages.forEach((s, i) => {
    out.push(`Stage ${i + 1}, ${stageKind(s.kind)?.name.toLowerCase() ?? s.kind}`);
    if (s.problem) out.push(`  ${s.problem.what} ${s.problem.why} ${s.problem.mend}`);
    if (s.report) out.push(sayStage(s.report));
  });
  return out.join('\n');
}

/** A test's finding as a line of text. */
export function sayFinding(f: Finding, expected: Figure | undefined, of: BuiltOf = {}): string {
  if (f.row === undefined)
    return f.found
      ? `Test ${f.testId}: ${f.result?.says ?? ''}`
      : `Test ${f.testId}: ${f.problem?.what ?? 'no result'} ${f.problem?.mend ?? ''}`;
  const kind = LIMIT_KINDS[f.row];
  return f.found
    ? `Test ${f.testId}: ${kind.name.toLowerCase()} ` +
        `${sayUncertain(f.found.value, f.found.U, f.found.quantity)}. ` +
        `${sayDifference(f.row, f, expected, {}, of)}${f.slips.map((s) => ` ${s.ask}`).join('')}`
    : `Test ${f.testId}: ${f.problem?.what ?? 'no result'} ${f.problem?.mend ?? ''}`;
}
