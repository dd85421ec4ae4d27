import {
  alongAxis,
  atOutput,
  formatAgainst,
  LIMIT_KINDS,
  nameAlong,
  sayBanded,
  sayUncertain,
  sayDifference,
  stageKind,
  travelOf,
  type BuiltOf,
  type Check,
  type Figure,
  type Finding,
  type Joint,
  type LineReport,
  type SettledVerdict,
  type StageReport,
  type StraightFigure,
} from '@gristmill/core';

const MARK = { holds: 'ok', near: 'near', fails: 'FAILS', unknown: '?' } as const;

/** What of a line runs straight is told along its axis: its travel for a radian, m. */
type Travel = number | undefined;

const along = <F extends { readonly id: string } & StraightFigure>(f: F, travel: Travel): F =>
  alongAxis(f, atOutput(f.id) ? travel : undefined);

function figureLine(f: Figure, travel?: Travel): string {
  const told = along(f, travel);
  return `  ${nameAlong(f.name, travel).padEnd(34)} ${sayBanded(told, told.quantity)}`;
}

function checkLine(c: Check, travel?: Travel): string {
  const told = along({ id: c.id, quantity: c.quantity, value: c.figure, high: c.limit }, travel);
  return (
    `  ${MARK[c.state].padEnd(6)} ${c.name.padEnd(36)} ` +
    `${formatAgainst(told.value, told.high, told.quantity).join(c.sense === 'min' ? ' >= ' : ' <= ')}${c.state === 'holds' ? '' : `. ${c.why} ${c.mend ? `Mend: ${c.mend.label}.` : (c.advice ?? '')}`}`
  );
}

/** A stage's report as lines of text. */
export const sayStage = (r: StageReport): string =>
  [...r.figures.map((f) => figureLine(f)), ...r.checks.map((c) => checkLine(c))].join('\n');

/** What was found for a limit, and that it decides or why it does not. */
function sayFound({ finding, by, earlier }: SettledVerdict, travel: Travel): string {
  if (!finding?.found) return '';
  const bound = { atLeast: 'at least ', atMost: 'less than ', both: '' }[finding.bound ?? 'both'];
  const { value, U, quantity } = finding.found;
  const found = alongAxis({ quantity, value, high: U }, travel);
  const says = `, found ${bound}${sayUncertain(found.value, found.high, found.quantity)}`;
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
  const travel = travelOf(joint.brief);
  const out = [`${joint.name}, variant ${variantName}`];
  if (r.problem) out.push(`  ${r.problem.what} ${r.problem.why} ${r.problem.mend}`);
  else out.push(`  limited by ${r.limitedBy}`);
  for (const v of verdicts) {
    const { name, quantity } = LIMIT_KINDS[v.id];
    const limit = alongAxis({ quantity, value: v.asked }, travel);
    const figure = v.figure && alongAxis(v.figure, travel);
    const asked =
      v.sense === 'either' || !Number.isFinite(v.asked)
        ? 'noted'
        : `asked ${v.sense === 'min' ? '>=' : '<='} ${sayBanded(limit, limit.quantity)}`;
    out.push(
      `  ${MARK[v.state].padEnd(6)} ${nameAlong(name, travel).padEnd(18)} ${asked}, expected ` +
        `${figure ? sayBanded(figure, figure.quantity) : (v.says ?? 'unknown')}${sayFound(v, travel)}`,
    );
  }
  out.push(...r.checks.map((c) => checkLine(c, travel)));
  out.push(...r.figures.map((f) => figureLine(f, travel)));
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
