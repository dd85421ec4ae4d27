import type { Process } from '../schema/process-schema.ts';
import { PROCESS_STARTS } from '../shop/processes.ts';
import type { UnitChoice } from '../units/format.ts';
import { inUnits, stated } from '../units/stated.ts';
import type { FitSheet } from './fit-sheet.ts';
import { slicerNumbers } from './pair-fit.ts';
import { fitHistory } from './process-fit.ts';
import { PURPOSES } from './purposes.ts';

const percent = (p: number): string => (p < 0.001 ? '< 0.1 %' : p > 0.999 ? '> 99.9 %' : `${(100 * p).toFixed(1)} %`);

/** What a process is drawn for or asks of the slicer, in sentences. */
function processLines(process: Process, day: string): string[] {
  const made = fitHistory(process, day);
  if (!made.ok) return [`${process.name}: ${made.problem.what} ${made.problem.why} ${made.problem.mend}`];
  const fit = made.value.now;
  const n = slicerNumbers({ process, fit });
  const mm = (x: number) => stated(Math.round(x * 1e6) / 1e6, 'length', 3);
  const who = {
    outline: `The files correct. Contour, hole and scale settings of the slicer stay at 0, 0 and 100 %.`,
    slicer: `The files are as drawn. Type in the slicer: contour ${mm(n.outer)}, holes ${mm(n.holes)}, scale ${(100 * n.scale).toFixed(2)} %.`,
    none: 'Nothing corrects its sizes.',
  }[process.compensates];
  const foot = {
    chamfer: `The lowest ${mm(fit.footHigh.value)} are drawn narrower, by ${mm(Math.max(0, fit.foot.value))} at the bed.`,
    raft: 'It is printed on a raft.',
    none: PROCESS_STARTS[process.type].prints ? 'The foot is left: scrape it off.' : '',
  }[process.foot];
  return [
    `### ${process.name}`,
    '',
    `${process.machine}; ${process.settings}. Outsides stand out by ${mm(fit.out.value)} ± ${mm(1.96 * fit.out.u)}, ` +
      `holes close in by ${mm(fit.into.value)} ± ${mm(1.96 * fit.into.u)} a side; ` +
      `a size scatters by ${mm(fit.spread.value)}; ${fit.counted} readings.`,
    '',
    `${who} ${foot}`.trim(),
    '',
    ...made.value.notes.map((note) => `- ${note}`),
  ];
}

/**
 * How a variant is made and fits, as a sheet that goes with its files: processes with what corrects them, every pair, and
 * how each part is laid, walled and finished.
 *
 * @param day ISO 8601, for which the processes are taken
 */
export function fitMarkdown(
  sheet: FitSheet,
  processes: readonly Process[],
  title: string,
  day: string,
  units: UnitChoice = {},
): string {
  const used = processes.filter((p) => sheet.parts.some((x) => x.process === p.id));
  const nameOf = (id: string | undefined) => processes.find((p) => p.id === id)?.name ?? '—';
  const um = (x: number) => `${(x * 1e6).toFixed(0)}`;
  const lines = [
    `# ${title}: how it is made to fit`,
    '',
    '## Processes',
    '',
    ...(used.length
      ? used.flatMap((p) => [...processLines(p, day), ''])
      : ['No process is chosen: all is as drawn.', '']),
    '## Pairs',
    '',
    'Clearance of the diameter as made, in µm: mean, 95 %; chances of too tight and too loose.',
    '',
    '| what goes in | into | for | ⌀ | clearance | too tight | too loose | drawn |',
    '|---|---|---|---|---|---|---|---|',
    ...sheet.pairs.map(
      ({ pair, fitted: c, change }) =>
        `| ${[
          `${pair.shaft.name}${pair.count > 1 ? `, ${pair.count} ×` : ''}`,
          pair.hole.name,
          PURPOSES[pair.purpose].name,
          stated(pair.hole.diameter, 'length', 5),
          `${um(c.mean)} (${um(c.low)} to ${um(c.high)})`,
          percent(c.tight),
          percent(c.loose),
          change
            ? `${change.hole ? 'hole' : 'shaft'} ${change.by >= 0 ? '+' : '−'}${um(Math.abs(change.by))} µm`
            : 'as drawn',
        ].join(' | ')} |`,
    ),
    '',
    '## Parts',
    '',
    ...sheet.parts.flatMap((p) => [
      `### ${p.name}${p.stage < 0 ? '' : `, stage ${p.stage + 1}`}`,
      '',
      `${p.material}; made by ${nameOf(p.process)}.`,
      '',
      ...(p.advice
        ? [
            ...(['lies', 'support', 'walls', 'seam', 'bed', 'material', 'after'] as const).flatMap((key) =>
              p.advice![key] ? [`- ${p.advice![key]}`] : [],
            ),
            '',
          ]
        : []),
    ]),
    'Press, do not hammer; support the inner ring of a bearing. Eye protection for reaming and filing, a mask for dust of fibres, gloves and fresh air for resin and glue. Local rules come first.',
    '',
  ];
  return lines.map((l) => inUnits(l, units)).join('\n');
}
