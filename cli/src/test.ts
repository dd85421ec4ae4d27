import {
  TEST_KINDS,
  analyseLine,
  analyseTest,
  blankTest,
  contextFor,
  formatQuantity,
  importFile,
  ok,
  readJointFile,
  refuse,
  rigFrom,
  sayUncertain,
  type LineReport,
  type Result,
  type Shelf,
  type TestKind,
  type Variant,
} from '@gristmill/core';
import { readFileSync } from 'node:fs';
import { shelfFrom, toJson, type Options } from './commands.ts';
import { misuse } from './misuse.ts';
import { readInput, readJsonArgument } from './read-input.ts';

const MAX = 400_000_000;

function bytesOf(file: string): Result<Uint8Array> {
  try {
    const bytes = readFileSync(file === '-' ? 0 : file);
    return bytes.length > MAX
      ? refuse('That file is too large.', `It has ${Math.round(bytes.length / 1e6)} MB.`, 'Thin it out first.')
      : ok(bytes);
  } catch {
    return refuse(`“${file}” cannot be read.`, 'There is no such file, or it may not be opened.', 'Check the name.');
  }
}

/** The variant a test is held against, with its line. */
function variantFrom(o: Options): Result<{ variant: Variant; line: LineReport; shelf: Shelf } | undefined> {
  if (o.joint === undefined) return ok(undefined);
  const text = readInput(o.joint);
  if (!text.ok) return text;
  const joint = readJointFile(text.value);
  if (!joint.ok) return joint;
  const variant = joint.value.variants.find((v) =>
    o.variant === undefined ? v.id === joint.value.activeVariant : v.id === o.variant || v.name === o.variant,
  );
  if (!variant)
    return misuse(
      `There is no variant “${o.variant}”.`,
      `The joint has ${joint.value.variants.map((v) => v.name).join(', ')}.`,
      'Name one of these.',
    );
  const shelf = shelfFrom(o, joint.value);
  return shelf.ok ? ok({ variant, line: analyseLine(joint.value, variant, shelf.value), shelf: shelf.value }) : shelf;
}

function sayTest(
  kind: TestKind,
  result: ReturnType<TestKind['analyse']> & { ok: true },
  notes: readonly string[],
): string {
  const r = result.value;
  const lines = [
    kind.name,
    r.found
      ? `  ${r.bound === 'atLeast' ? 'at least ' : r.bound === 'atMost' ? 'less than ' : ''}${sayUncertain(r.found.value, r.found.U, r.found.quantity)} ` +
        `(95 %, k = ${r.found.k.toFixed(2)})`
      : '',
    `  ${r.says}`,
  ];
  for (const f of r.figures)
    lines.push(
      `  ${f.name.padEnd(34)} ${f.U === undefined ? formatQuantity(f.value, f.quantity, {}, 5) : sayUncertain(f.value, f.U, f.quantity)}`,
    );
  for (const p of r.peaks ?? [])
    lines.push(
      `  order ${p.order.toPrecision(5)}: ` +
        `${p.U === undefined ? formatQuantity(p.amplitude, p.quantity, {}, 3) : p.U < p.amplitude ? sayUncertain(p.amplitude, p.U, p.quantity) : `up to ${formatQuantity(p.amplitude + p.U, p.quantity, {}, 2)}`}${p.suspects.length ? ` ${p.suspects.map((s) => `${s.name} (${s.means})`).join('; ')}` : ''}`,
    );
  for (const a of [...r.advice, ...notes]) lines.push(`  - ${a}`);
  return lines.filter(Boolean).join('\n');
}

/** `test KIND FILE [--rig JSON] [--joint FILE] [--variant NAME]`: analyses readings or a recording. */
export function test(kindId: string | undefined, file: string | undefined, o: Options): Result<string> {
  const known = TEST_KINDS.map((k) => k.id).join(', ');
  const kind = TEST_KINDS.find((k) => k.id === kindId);
  if (!kind)
    return misuse(
      kindId ? `There is no test “${kindId}”.` : 'KIND is missing.',
      `This version knows ${known}.`,
      'Use one of these.',
    );
  if (!file)
    return misuse(
      'FILE is missing.',
      'There is nothing to analyse.',
      'Name a CSV, JSON or WAV file, or - for standard input.',
    );
  const bytes = bytesOf(file);
  if (!bytes.ok) return bytes;
  const read = importFile(kind, bytes.value);
  if (!read.ok) return read;
  const held = variantFrom(o);
  if (!held.ok) return held;
  const given = o.rig === undefined ? ok({}) : readJsonArgument(o.rig, '--rig');
  if (!given.ok) return given;
  if (typeof given.value !== 'object' || given.value === null || Array.isArray(given.value))
    return refuse(
      '--rig is not an object.',
      'Dimensions are given by name.',
      `This test has ${kind.rig.map((f) => f.id).join(', ') || 'none'}.`,
    );
  const typed = given.value as Record<string, number | string>;
  // Bare numbers are SI here; text may have a unit.
  const rig: Record<string, number | string> = { ...read.value.rig, ...rigFrom(kind, typed) };
  if (typeof typed['instrument'] === 'string') rig['instrument'] = typed['instrument'];
  const own = shelfFrom(o);
  if (!own.ok) return own;
  const shelf = held.value?.shelf ?? own.value;
  const blank = blankTest(kind, { id: 'cli', buildId: '', date: '' });
  const record = { ...blank, rig: { ...blank.rig, ...rig }, readings: read.value.readings };
  const result = analyseTest(record, contextFor(held.value?.variant, held.value?.line, shelf, read.value.recording));
  if (!result.ok) return result;
  if (!o.json)
    return ok(
      sayTest(
        kind,
        result,
        read.value.notes.filter((n) => !result.value.advice.includes(n)),
      ),
    );
  const { plots, ...rest } = result.value;
  return ok(
    toJson({
      format: 'gristmill-test',
      kind: kind.id,
      rig: record.rig,
      ...rest,
      figures: Object.fromEntries(rest.figures.map((f) => [f.id, f])),
      plots: plots.map((p) => ({ name: p.name, series: p.series.map((s) => ({ key: s.key, points: s.x.length })) })),
      notes: read.value.notes,
      malformed: read.value.recording?.malformed ?? 0,
      gaps: read.value.recording?.gaps ?? 0,
    }),
  );
}
