import {
  analyseLine,
  inUnits,
  ok,
  PROCESS_TYPES,
  stated,
  type Process,
  type Result,
  type Shelf,
  type Variant,
} from '@gristmill/core';
import { couponFile } from '@gristmill/core/assembly/coupon-file';
import { fitSheet } from '@gristmill/core/fit/fit-sheet';
import { furtherReading } from '@gristmill/core/fit/further';
import { balanced, chanceJams, chanceLoose, playAsMade } from '@gristmill/core/fit/jam';
import { lineJam } from '@gristmill/core/fit/line-jam';
import { slicerNumbers } from '@gristmill/core/fit/pair-fit';
import { fitHistory } from '@gristmill/core/fit/process-fit';
import { PURPOSES } from '@gristmill/core/fit/purposes';
import { reservesOf } from '@gristmill/core/fit/reserves';
import Kernel from 'manifold-3d';
import { shelfFrom, toJson, type Options } from './commands.ts';
import { misuse } from './misuse.ts';
import { writeOutput } from './write-output.ts';
import { finished, wanted } from './make.ts';

const today = (): string => new Date().toISOString().slice(0, 10);
const percent = (p: number): string => (p < 0.001 ? '< 0.1 %' : `${(100 * p).toFixed(1)} %`);
const um = (x: number): string => `${(x * 1e6).toFixed(0)} µm`;
/** How warm a joint usually gets above the room that its parts are measured in, K. */
const RISE = 15;

/** A process of the shop by its name, its identifier or its type. */
function processNamed(shelf: Shelf, name: string): Result<Process> {
  const found =
    shelf.processes.find((p) => p.id === name || p.name === name) ?? shelf.processes.find((p) => p.type === name);
  return found
    ? ok(found)
    : misuse(
        `There is no process “${name}”.`,
        `The shop has ${shelf.processes.map((p) => p.id).join(', ')}; types are ${PROCESS_TYPES.join(', ')}.`,
        'Name one of these.',
      );
}

/** The variant made by a process, where one is named. */
function madeBy(variant: Variant, shelf: Shelf, o: Options): Result<Variant> {
  if (o.process === undefined) return ok(variant);
  const process = processNamed(shelf, o.process);
  return process.ok ? ok({ ...variant, making: { ...variant.making, process: process.value.id } }) : process;
}

/** `fit FILE`: by which process a variant is made, whether it jams, and what every pair comes to. */
export function fit(file: string | undefined, o: Options): Result<string> {
  const of = wanted(file, o, 'gristmill fit joint.json');
  if (!of.ok) return of;
  const { joint, shelf, title } = of.value;
  const variant = madeBy(of.value.variant, shelf, o);
  if (!variant.ok) return variant;
  const day = today();
  const strong = reservesOf(analyseLine(joint, variant.value, shelf));
  const sheet = fitSheet(variant.value, shelf, day, (k) => strong[k] ?? NaN);
  if (!sheet.ok) return sheet;
  const jam = finished(
    lineJam({ variant: variant.value, brief: joint.brief, day, rise: RISE, samples: 100_000 }, shelf),
  );
  if (!jam.ok) return jam;
  const process = shelf.processes.find((p) => p.id === variant.value.making?.process);
  const history = process && fitHistory(process, day);
  if (history && !history.ok) return history;
  const { drawn, asked } = jam.value;
  const by = balanced(drawn);
  const [likely, low, high] = playAsMade(drawn);
  if (o.json)
    return ok(
      toJson({
        process: process && {
          id: process.id,
          name: process.name,
          fit: history!.value.now,
          notes: history!.value.notes,
        },
        jam: {
          askedPlay: asked,
          play: { likely, low, high },
          jams: chanceJams(drawn, 0),
          loose: chanceLoose(drawn, 0),
          balancedBy: by,
          jamsThen: chanceJams(drawn, by),
          looseThen: chanceLoose(drawn, by),
        },
        ...sheet.value,
      }),
    );
  const say = (x: number) => inUnits(stated(x, 'smallAngle', 3));
  const lines = [title, ''];
  if (process && history?.ok) {
    const { now, notes } = history.value;
    const n = slicerNumbers({ process, fit: now });
    lines.push(
      `Process: ${process.name}; outsides ${um(now.out.value)} ± ${um(1.96 * now.out.u)}, ` +
        `holes in ${um(now.into.value)} ± ${um(1.96 * now.into.u)} a side, scatter ${um(now.spread.value)}; ${now.counted} readings.`,
      process.compensates === 'slicer'
        ? `In the slicer: contour ${um(n.outer)}, holes ${um(n.holes)}, scale ${(100 * n.scale).toFixed(2)} %. Files are as drawn.`
        : process.compensates === 'outline'
          ? 'The files correct; contour, hole and scale settings of the slicer stay at 0, 0 and 100 %.'
          : 'Nothing corrects its sizes.',
      ...notes,
      furtherReading(now, true).says,
    );
  } else
    lines.push(
      'No process is chosen: name one by --process, or in Make, Fit. Sizes scatter as the shop’s factors say.',
    );
  lines.push(
    '',
    `Of 100 000 specimens ${percent(chanceJams(drawn, 0))} jam` +
      (Number.isFinite(asked) ? ` and ${percent(chanceLoose(drawn, 0))} have more play than ${say(asked)}` : '') +
      `; play ${say(likely)} (${say(low)} to ${say(high)}), ${RISE} K warmer than measured.`,
    ...(Number.isFinite(by)
      ? [
          `Both are as likely with every gap ${by < 0 ? 'narrower' : 'wider'} by ${um(Math.abs(by))}: ${percent(chanceJams(drawn, by))} and ${percent(chanceLoose(drawn, by))}.`,
        ]
      : []),
    '',
    'Pairs, likeliest to go wrong first: clearance as made, chance too tight, too loose, and what is drawn for it',
  );
  const risk = (f: (typeof sheet.value.pairs)[number]) => Math.max(f.fitted.tight, f.fitted.loose);
  for (const f of [...sheet.value.pairs].sort((a, b) => risk(b) - risk(a)))
    lines.push(
      `  ${inUnits(f.pair.shaft.name)} in ${inUnits(f.pair.hole.name)}, ${PURPOSES[f.pair.purpose].name}, ⌀ ${(f.pair.hole.diameter * 1e3).toFixed(2)} mm: ` +
        `${um(f.fitted.mean)} (${um(f.fitted.low)} to ${um(f.fitted.high)}), ${percent(f.fitted.tight)}, ${percent(f.fitted.loose)}` +
        (f.change
          ? `; ${f.change.hole ? 'hole' : 'shaft'} ${f.change.by >= 0 ? '+' : '−'}${um(Math.abs(f.change.by))}`
          : ''),
    );
  return ok(lines.map((l) => inUnits(l)).join('\n'));
}

/** `coupon --process NAME --out FILE`: what is printed or cut to know a process. */
export async function coupon(o: Options): Promise<Result<string>> {
  const shelf = shelfFrom(o);
  if (!shelf.ok) return shelf;
  if (!o.process)
    return misuse(
      '--process is missing.',
      'A coupon is made for a printer or a cutter.',
      'Write --process filament, or the name of a process of the shop.',
    );
  const process = processNamed(shelf.value, o.process);
  if (!process.ok) return process;
  if (!o.out) return misuse('--out is missing.', 'A coupon is a file.', 'Write --out coupon.3mf.');
  const format = o.format ?? /\.([a-z0-9]+)$/i.exec(o.out)?.[1]?.toLowerCase() ?? '';
  const kernel = await Kernel();
  kernel.setup();
  const made = couponFile(kernel, process.value, format, `Coupon, ${process.value.name}`);
  if (!made.ok) return made;
  const written = await writeOutput(o.out, made.value);
  if (!written.ok) return written;
  const zip = format !== '3mf';
  return ok(
    `${o.out}: the coupon of ${process.value.name}${zip ? ', a zip of its pieces with the measuring sheet' : ', all pieces on a plate'}; as drawn.`,
  );
}
