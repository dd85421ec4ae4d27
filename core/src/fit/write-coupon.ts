import type { Process } from '../schema/process-schema.ts';
import { inUnits, stated } from '../units/stated.ts';
import type { UnitChoice } from '../units/format.ts';
import { couponOf } from './coupon.ts';

/** The measuring sheet of a coupon as Markdown: where the caliper goes, what is drawn there, and room for what is read. */
export function couponMarkdown(process: Process, units: UnitChoice = {}): string {
  const c = couponOf(process);
  const say = (text: string) => inUnits(text, units);
  return [
    `# Measuring sheet, ${process.name}`,
    '',
    `Machine: ${process.machine || '—'}; tool ${say(stated(process.tool, 'length', 3))}; ${process.layer > 0 ? `layer ${say(stated(process.layer, 'length', 3))}; ` : ''}settings: ${process.settings || '—'}`,
    '',
    'Day: ____________  Caliper: ____________',
    '',
    ...c.notes.map((n) => `- ${say(n)}`),
    '',
    '| | what | where the caliper goes | drawn | read |',
    '|---|---|---|---|---|',
    ...c.measures.map(
      (m, i) =>
        `| ${i + 1} | ${say(m.name)} | ${say(m.how)} | ${m.reading.drawn > 0 ? say(stated(m.reading.drawn, 'length', 6)) : '—'} | |`,
    ),
    '',
    'Three minutes; read to the last digit, and write down what it shows, not what it should. Eye protection when supports or a brim are broken off.',
    '',
  ].join('\n');
}
