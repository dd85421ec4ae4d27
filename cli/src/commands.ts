import {
  builtOf,
  activeVariant,
  analyseLine,
  demandOf,
  editsFor,
  findingsOf,
  settleAll,
  standings,
  flatten,
  makeShelf,
  mergeEdits,
  motorConstants,
  motorEfficiency,
  motorHeat,
  motorTorque,
  ok,
  parseQuantity,
  partsOf,
  QUANTITIES,
  ratioDesk,
  readDriver,
  readJointFile,
  readMotor,
  readParams,
  readShopEdits,
  refuse,
  stageKind,
  stageKinds,
  stopping,
  waysOut,
  writeDxf,
  writeSvg,
  type Demand,
  type Duty,
  type Joint,
  type LineReport,
  type QuantityId,
  type Result,
} from '@gristmill/core';
import { misuse } from './misuse.ts';
import { readInput, readJsonArgument } from './read-input.ts';
import type { OptionName } from './table.ts';
import { sayFinding, sayLine, sayStage } from './plain.ts';

/** What follows a command on the line: options by name, as typed. */
export type Options = { readonly json: boolean; readonly must?: boolean } & {
  readonly [name in Exclude<OptionName, 'json' | 'must'>]?: string | undefined;
};

/** JSON as the command prints it: numbers that are not finite are null, typed arrays are arrays. */
export const toJson = (value: unknown): string =>
  JSON.stringify(
    value,
    (_k, v: unknown) =>
      ArrayBuffer.isView(v) ? Array.from(v as Float64Array) : typeof v === 'number' && !Number.isFinite(v) ? null : v,
    2,
  );

/** The shop for a command: as shipped, with the factors a joint keeps, and over both what --shop says. */
export function shelfFrom(o: Options, joint?: Joint): Result<ReturnType<typeof makeShelf>> {
  const kept = editsFor(joint, {});
  if (o.shop === undefined) return ok(makeShelf(kept));
  const edits = readJsonArgument(o.shop, '--shop');
  if (!edits.ok) return edits;
  // A whole shop file is taken as well as bare changes.
  const {
    format: _format,
    version: _version,
    ...bare
  } = (
    typeof edits.value === 'object' && edits.value !== null && !Array.isArray(edits.value) ? edits.value : {}
  ) as Record<string, unknown>;
  const read = readShopEdits(Array.isArray(edits.value) ? edits.value : bare);
  return read.ok ? ok(makeShelf(mergeEdits(kept, read.value))) : read;
}

/** The demand without the course of each cycle over time, which is for plots. */
function shortDemand(d: Demand): unknown {
  return {
    ...d,
    cases: d.cases.map((c) => {
      const { trace: _trace, ...loads } = c.loads;
      return { ...c, loads };
    }),
  };
}

/** A joint with its shop, and the variants that were asked for: all where none is named. */
export function openFile(
  file: string,
  o: Options,
): Result<{ readonly joint: Joint; readonly shelf: ReturnType<typeof makeShelf>; readonly chosen: Joint['variants'] }> {
  const text = readInput(file);
  if (!text.ok) return text;
  const read = readJointFile(text.value);
  if (!read.ok) return read;
  const joint = read.value;
  const shelf = shelfFrom(o, joint);
  if (!shelf.ok) return shelf;
  const chosen =
    o.variant === undefined ? joint.variants : joint.variants.filter((v) => v.id === o.variant || v.name === o.variant);
  if (chosen.length === 0)
    return misuse(
      `There is no variant “${o.variant}”.`,
      `The joint has ${joint.variants.map((v) => v.name).join(', ')}.`,
      'Name one of these.',
    );
  return ok({ joint, shelf: shelf.value, chosen });
}

/** `analyse FILE`: every variant's line and every test, as the views show them. */
export function analyse(file: string | undefined, o: Options): Result<string> {
  if (!file)
    return misuse('FILE is missing.', 'There is nothing to analyse.', 'Write gristmill analyse joint.gristmill.json.');
  const opened = openFile(file, o);
  if (!opened.ok) return opened;
  const { joint, shelf, chosen } = opened.value;
  const reports = chosen.map((variant) => ({ variant, report: analyseLine(joint, variant, shelf) }));
  const all = findingsOf(joint, shelf, new Map(reports.map((l) => [l.variant.id, l.report])));
  const findings = all.filter((f) => chosen.some((v) => v.id === f.variantId));
  const found = standings(findings, joint.tests);
  const lines = reports.map((l) => ({ ...l, verdicts: settleAll(joint.builds, l.report.verdicts, found, l.variant) }));
  if (!o.json) {
    const expected = (f: (typeof findings)[number]) =>
      lines.find((l) => l.variant.id === f.variantId)?.report.figures.find((x) => x.id === f.row);
    return ok(
      [
        ...lines.map((l) => sayLine(joint, l.variant.name, l.report, l.verdicts)),
        ...findings.map((f) => {
          const build = joint.builds.find((b) => b.id === f.buildId);
          const variant = chosen.find((v) => v.id === f.variantId);
          return sayFinding(f, expected(f), build && builtOf(build, variant));
        }),
      ].join('\n'),
    );
  }
  return ok(
    toJson({
      format: 'gristmill-report',
      joint: { id: joint.id, name: joint.name },
      activeVariant: activeVariant(joint).id,
      demand: shortDemand(demandOf(joint.brief, shelf)),
      variants: lines.map((l) => ({
        id: l.variant.id,
        name: l.variant.name,
        ...withoutDemand(l.report),
        verdicts: l.verdicts,
        figures: byId(l.report.figures),
        checks: byId(l.report.checks),
        stages: l.report.stages.map((s) => ({
          ...s,
          report: s.report && { ...s.report, figures: byId(s.report.figures) },
        })),
      })),
      tests: findings,
    }),
  );
}

/** The joint's demand stands once in the report, not in every variant. */
function withoutDemand(r: LineReport): Omit<LineReport, 'demand'> {
  const { demand: _demand, ...rest } = r;
  return rest;
}

/** Figures keyed by their identifier, which is how a script asks for them. */
const byId = <T extends { id: string }>(list: readonly T[]): Record<string, T> =>
  Object.fromEntries(list.map((f) => [f.id, f]));

export function kindAndParams(kindId: string | undefined, o: Options) {
  const kinds = stageKinds()
    .map((k) => k.id)
    .join(', ');
  if (!kindId)
    return misuse('KIND is missing.', `This version knows ${kinds}.`, "Write gristmill stage belt --params '{…}'.");
  const kind = stageKind(kindId);
  if (!kind)
    return misuse(`There is no stage of kind “${kindId}”.`, `This version knows ${kinds}.`, 'Use one of these.');
  const given = readJsonArgument(o.params, '--params');
  if (!given.ok) return given;
  const shelf = shelfFrom(o);
  if (!shelf.ok) return shelf;
  if (typeof given.value !== 'object' || given.value === null || Array.isArray(given.value))
    return refuse('--params is not an object.', 'Parameters are given by name.', 'Write it like \'{"z1":16}\'.');
  const known = kind.fields.map((f) => f.path as string);
  const strange = Object.keys(given.value).filter((name) => !known.includes(name));
  if (strange.length)
    return misuse(
      `There is no parameter “${strange[0]}”.`,
      `This kind is given by ${known.join(', ')}.`,
      `See gristmill params ${kindId}.`,
    );
  // What is left out takes the kind's own starting value, so that a question can be asked in few words.
  const params = readParams(kindId, {
    ...kind.defaults({ ratio: 3, torque: 1, size: Infinity, shelf: shelf.value }),
    ...given.value,
  });
  return params.ok ? ok({ kind, params: params.value, shelf: shelf.value }) : params;
}

function readDuty(text: string | undefined): Result<Duty> {
  if (text === undefined) return ok({ torque: 0, torqueRms: 0, speed: 0 });
  const given = readJsonArgument(text, '--duty');
  if (!given.ok) return given;
  const out: Record<string, number> = {};
  for (const [key, quantity] of [
    ['torque', 'torque'],
    ['torqueRms', 'torque'],
    ['speed', 'speed'],
  ] as const) {
    const raw = (given.value as Record<string, unknown> | null)?.[key];
    if (raw === undefined) continue;
    const parsed = typeof raw === 'string' ? parseQuantity(raw, quantity) : undefined;
    if (parsed && !parsed.ok) return parsed;
    const value = parsed?.ok ? parsed.value.si : raw;
    if (typeof value !== 'number' || !Number.isFinite(value) || value < 0)
      return refuse(
        `--duty ${key} is not a torque or speed of nought or more.`,
        'A duty is given in magnitudes, in SI or as text with a unit.',
        `Write it like '{"torque":4,"speed":2}'.`,
      );
    out[key] = value;
  }
  return ok({
    torque: out['torque'] ?? 0,
    torqueRms: out['torqueRms'] ?? out['torque'] ?? 0,
    speed: out['speed'] ?? 0,
  });
}

/** `stage KIND --params JSON [--duty JSON]`: one stage's report. */
export function stage(kindId: string | undefined, o: Options): Result<string> {
  const asked = kindAndParams(kindId, o);
  if (!asked.ok) return asked;
  const duty = readDuty(o.duty);
  if (!duty.ok) return duty;
  const { kind, params, shelf } = asked.value;
  const opened = kind.open(params, shelf);
  if (!opened.ok) return opened;
  const report = opened.value.report(duty.value);
  return ok(
    o.json
      ? toJson({
          kind: kind.id,
          params,
          duty: duty.value,
          kinematics: report.kinematics,
          numbers: report.numbers,
          figures: byId(report.figures),
          checks: byId(report.checks),
        })
      : sayStage(report),
  );
}

/** `outline KIND PART --params JSON --format svg|dxf|json`: the outline of a part. */
export function outline(kindId: string | undefined, partId: string | undefined, o: Options): Result<string> {
  const asked = kindAndParams(kindId, o);
  if (!asked.ok) return asked;
  const { kind, params, shelf } = asked.value;
  const parts = partsOf(kind.id, params, shelf);
  if (!parts.ok) return parts;
  const drawn = parts.value.filter((p) => p.curves.length > 0);
  const part = drawn.find((p) => p.id === partId);
  if (!part)
    return misuse(
      partId ? `There is no part “${partId}” with an outline.` : 'PART is missing.',
      `This stage has ${drawn.map((p) => p.id).join(', ')}.`,
      'Name one of these.',
    );
  const chord = parseQuantity(o.chord ?? '2 µm', 'length');
  if (!chord.ok) return chord;
  if (!(chord.value.si >= 1e-8 && chord.value.si <= 1e-2))
    return refuse(
      'The chord error cannot be kept.',
      'It must be between 0.01 µm and 10 mm.',
      'Write it like --chord "2 um".',
    );
  const sheet = { title: `${kind.name}, ${part.name}`, note: part.note, curves: part.curves };
  switch (o.format ?? 'json') {
    case 'svg':
      return ok(writeSvg(sheet));
    case 'dxf':
      return ok(writeDxf(sheet));
    case 'json':
      return ok(
        toJson({
          part: part.id,
          name: part.name,
          unit: 'm',
          chordError: chord.value.si,
          note: part.note,
          curves: part.curves.map((c) => ({
            layer: c.layer,
            closed: c.outline.closed,
            points: pairs(flatten(c.outline, chord.value.si)),
            vertices: triples(c.outline.points),
          })),
        }),
      );
    default:
      return misuse(
        `“${o.format}” is not a format of outlines.`,
        'They are written as svg, dxf or json.',
        'Write --format svg.',
      );
  }
}

const pairs = (p: Float64Array): number[][] =>
  Array.from({ length: p.length / 2 }, (_, i) => [p[2 * i]!, p[2 * i + 1]!]);
const triples = (p: Float64Array): number[][] =>
  Array.from({ length: p.length / 3 }, (_, i) => [p[3 * i]!, p[3 * i + 1]!, p[3 * i + 2]!]);

/** `check FILE`: whether a joint file is whole, and what stops its variants; with --must it refuses where anything does. */
export function check(file: string | undefined, o: Options): Result<string> {
  if (!file)
    return misuse('FILE is missing.', 'There is nothing to check.', 'Write gristmill check joint.gristmill.json.');
  const opened = openFile(file, o);
  if (!opened.ok) return opened;
  const { joint, shelf, chosen } = opened.value;
  const reports = chosen.map((v) => ({ v, report: analyseLine(joint, v, shelf) }));
  const findings = findingsOf(joint, shelf, new Map(reports.map((r) => [r.v.id, r.report])));
  const standing = standings(findings, joint.tests);
  const found = reports.map(({ v, report }) => {
    const troubles = report.stages.flatMap((s, i) => (s.problem ? [`stage ${i + 1}: ${s.problem.what}`] : []));
    const stops = [
      ...(report.problem && troubles.length === 0 ? [report.problem.what] : troubles),
      ...stopping(report).map((s) => `${s.where}: ${s.check.name} fails`),
    ];
    return {
      id: v.id,
      name: v.name,
      stops,
      missed: settleAll(joint.builds, report.verdicts, standing, v)
        .filter((x) => x.need === 'must' && x.state === 'fails')
        .map((x) => x.id),
    };
  });
  const said = found.map(
    (f) =>
      `Variant ${f.name}: ` +
      `${f.stops.length === 0 && f.missed.length === 0 ? 'nothing stops it' : [...f.stops, ...f.missed.map((m) => `misses ${m}`)].join('; ')}.`,
  );
  if (o.must && found.some((f) => f.stops.length || f.missed.length))
    return refuse(
      `${joint.name} does not do what it must.`,
      said.join(' '),
      'Open it in the app: the line says what would mend it.',
    );
  if (o.json) return ok(toJson({ ok: true, name: joint.name, fileVersion: joint.version, variants: found }));
  return ok([`${joint.name}: the file is whole.`, ...said].join('\n'));
}

/** `motor --motor JSON [--driver JSON] [--speed TEXT]`: what a motor gives at speeds, and its constants. */
export function motor(o: Options): Result<string> {
  const given = readJsonArgument(o.motor, '--motor');
  if (!given.ok) return given;
  const made = readMotor(given.value);
  if (!made.ok) return made;
  const drive = o.driver === undefined ? ok({}) : readJsonArgument(o.driver, '--driver');
  if (!drive.ok) return drive;
  const driver = readDriver({
    supplyVoltage: 24,
    currentLimit: 10,
    supplyCurrent: 10,
    microsteps: 16,
    ...(drive.value as object),
  });
  if (!driver.ok) return driver;
  const shelf = shelfFrom(o);
  if (!shelf.ok) return shelf;
  const points: object[] = [];
  for (const text of (o.speed ?? '0 rpm').split(',')) {
    const speed = parseQuantity(text, 'speed');
    if (!speed.ok) return speed;
    const w = speed.value.si;
    const [peak, ever] = (['peak', 'continuous'] as const).map((time) =>
      motorTorque(made.value, driver.value, shelf.value, w, time),
    );
    if (!peak!.known)
      return refuse(
        `${text.trim()} lies outside the motor’s curve.`,
        'Outside its points nothing is known of its torque.',
        'Ask within the curve, or add points.',
      );
    points.push({
      speed: w,
      peak,
      continuous: ever,
      atPeak: {
        ...motorEfficiency(made.value, driver.value, peak!.torque, w, shelf.value),
        ...motorHeat(made.value, driver.value, shelf.value, peak!.torque),
      },
      atContinuous: {
        ...motorEfficiency(made.value, driver.value, ever!.torque, w, shelf.value),
        ...motorHeat(made.value, driver.value, shelf.value, ever!.torque),
      },
    });
  }
  const constants = motorConstants(made.value, driver.value, shelf.value);
  if (o.json) return ok(toJson({ constants, points }));
  return ok(
    [
      ...Object.entries(constants)
        .filter(([, v]) => Number.isFinite(v))
        .map(([k, v]) => `${k} ${v}`),
      ...points.map((p) => JSON.stringify(p)),
    ].join('\n'),
  );
}

/** `desk FILE [--each 0.94]`: ratio windows for one to four stages, and the ways out where no ratio does. */
export function desk(file: string | undefined, o: Options): Result<string> {
  if (!file)
    return misuse('FILE is missing.', 'There is nothing to work on.', 'Write gristmill desk joint.gristmill.json.');
  const opened = openFile(file, o);
  if (!opened.ok) return opened;
  const { joint, shelf, chosen } = opened.value;
  const each = parseQuantity(o.each ?? '94 %', 'efficiency');
  if (!each.ok) return each;
  // A bare number above one is meant in per cent, as it is shown.
  if (!(each.value.si > 0 && each.value.si <= 1))
    return refuse(
      '--each is not an efficiency.',
      'One stage passes on between 0 and 100 %.',
      'Write it like --each "94 %".',
    );
  const variant = o.variant === undefined ? activeVariant(joint) : chosen[0]!;
  const rows = ratioDesk(joint, variant, shelf, each.value.si);
  const reach = waysOut(joint, variant, shelf, each.value.si ** Math.max(1, variant.stages.length));
  if (o.json) return ok(toJson({ variant: variant.id, rows, reach }));
  return ok(
    [
      ...rows.map((r) => {
        const whole = (x: number) => x.toPrecision(3);
        const range = r.both && `ratio ${whole(r.both[0])} to ${whole(r.both[1])}, suggested ${whole(r.suggested)}`;
        return `${r.stages} stage${r.stages > 1 ? 's' : ''}: ${range ?? 'no ratio meets everything'}`;
      }),
      ...(reach.margin < 1
        ? [
            `At best ${(reach.margin * 100).toFixed(0)} % of what is asked, at ratio ` +
              `${reach.ratio.toPrecision(3)}.${reach.shelf ? '' : ' No motor on the shelf reaches it.'}`,
            ...reach.ways.map((w) => `  ${w.label}. ${w.why}`),
          ]
        : []),
    ].join('\n'),
  );
}

/** `unit TEXT KIND`: what a typed quantity is in SI units. */
export function unit(text: string | undefined, kind: string | undefined, o: Options): Result<string> {
  if (text === undefined || kind === undefined || !(kind in QUANTITIES))
    return misuse(
      'TEXT or KIND is missing or unknown.',
      `The kinds are ${Object.keys(QUANTITIES).join(', ')}.`,
      'Write gristmill unit "62 ozf·in" torque.',
    );
  const parsed = parseQuantity(text, kind as QuantityId);
  if (!parsed.ok) return parsed;
  return ok(o.json ? toJson({ text, kind, si: parsed.value.si, unit: parsed.value.unit }) : String(parsed.value.si));
}
