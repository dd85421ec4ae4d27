import {
  activeVariant,
  billCsv,
  billMarkdown,
  billOf,
  ok,
  parseQuantity,
  refuse,
  type Joint,
  type Result,
  type Shelf,
  type Variant,
} from '@gristmill/core';
import { fitSheet } from '@gristmill/core/fit/fit-sheet';
import { fitMarkdown } from '@gristmill/core/fit/write-fit';
import { strToU8 } from 'fflate';
import { lineFiles, zipped } from '@gristmill/core/assembly/line-files';
import Kernel from 'manifold-3d';
import { openFile, toJson, type Options } from './commands.ts';
import { misuse } from './misuse.ts';
import { writeOutput } from './write-output.ts';
import { chordOf } from './solid.ts';

/** Runs what goes on step by step to its end. */
export function finished<T>(steps: Generator<unknown, T>): T {
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** What is to be made: a variant, and how many joints of it. */
export interface Wanted {
  readonly joint: Joint;
  readonly variant: Variant;
  readonly shelf: Shelf;
  readonly joints: number;
  readonly title: string;
}

/** The variant of a joint file that is meant, and how many joints of it. */
export function wanted(file: string | undefined, o: Options, example: string): Result<Wanted> {
  if (!file) return misuse('FILE is missing.', 'What is made is a variant of a joint.', `Write ${example}.`);
  const opened = openFile(file, o);
  if (!opened.ok) return opened;
  const { joint, shelf, chosen } = opened.value;
  const variant = o.variant === undefined ? activeVariant(joint) : chosen[0]!;
  const joints = o.joints === undefined ? 1 : Number(o.joints);
  if (!Number.isInteger(joints) || joints < 1 || joints > 1000)
    return refuse('--joints is not a number of joints.', 'Between 1 and 1000 can be made.', 'Write --joints 2.');
  return ok({ joint, variant, shelf, joints, title: `${joint.name}, variant ${variant.name}` });
}

/** `bill FILE`: what some joints of a variant are made of, as Markdown, CSV or JSON. */
export function bill(file: string | undefined, o: Options): Result<string> {
  const of = wanted(file, o, 'gristmill bill joint.json');
  if (!of.ok) return of;
  const format = o.format ?? 'md';
  if (format !== 'md' && format !== 'csv')
    return misuse(`“${format}” is not a format of bills.`, 'They are written as md or csv.', 'Write --format csv.');
  const made = billOf(of.value.variant, of.value.joints, of.value.shelf);
  if (!made.ok) return made;
  if (o.json) return ok(toJson(made.value));
  return ok((format === 'csv' ? billCsv(made.value) : billMarkdown(made.value, of.value.title)).trimEnd());
}

/** A bed as it is typed: its width and depth with units, or one of both. */
function bedOf(text: string): Result<{ width: number; depth: number }> {
  const sides = text.split(/\s*[x×,]\s*/);
  const read = sides.map((s) => parseQuantity(s, 'length'));
  const wrong = read.find((r) => !r.ok);
  if (wrong && !wrong.ok) return wrong;
  const [width, depth = width] = read.map((r) => (r.ok ? r.value.si : NaN));
  if (sides.length > 2 || !(width! >= 0.02 && width! <= 2 && depth! >= 0.02 && depth! <= 2))
    return refuse('--bed is not a bed.', 'Each side must lie between 20 mm and 2 m.', 'Write --bed "220 mm x 220 mm".');
  return ok({ width: width!, depth: depth! });
}

/** `files FILE --out X.zip`: bill, plates, every part and the order of assembly, as one zip. */
export async function files(file: string | undefined, o: Options): Promise<Result<string>> {
  const of = wanted(file, o, 'gristmill files joint.json --out joint.zip');
  if (!of.ok) return of;
  if (!o.out) return misuse('--out is missing.', 'Files go into a zip.', 'Write --out joint.zip.');
  const bed = bedOf(o.bed ?? '220 mm');
  if (!bed.ok) return bed;
  const chord = chordOf(o);
  if (!chord.ok) return chord;
  const { title, variant, joints, shelf } = of.value;
  const sheet = fitSheet(variant, shelf, new Date().toISOString().slice(0, 10));
  const corrections = sheet.ok ? sheet.value.corrections : {};
  const kernel = await Kernel();
  kernel.setup();
  const making = lineFiles(
    kernel,
    {
      ...{ title, variant, joints, bed: bed.value, gap: 4e-3, reference: false },
      ...{ surface: chord.value, curve: 2e-6, compensation: 0 },
      ...(Object.keys(corrections).length && { corrections }),
    },
    shelf,
  );
  const made = finished(making);
  if (!made.ok) return made;
  const day = new Date().toISOString().slice(0, 10);
  const told: Record<string, Uint8Array> = sheet.ok
    ? { 'fit.md': strToU8(fitMarkdown(sheet.value, shelf.processes, title, day)) }
    : {};
  const all = { ...made.value, ...told };
  const names = Object.keys(all);
  const written = await writeOutput(o.out, zipped(all));
  if (!written.ok) return written;
  return ok(
    o.json
      ? toJson({ file: o.out, joints, files: names.sort() })
      : `${o.out}: ${names.length} files for ${joints} ${joints === 1 ? 'joint' : 'joints'} of ${title}.`,
  );
}
