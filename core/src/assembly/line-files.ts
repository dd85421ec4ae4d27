import { strToU8, zipSync } from 'fflate';
import type { ManifoldToplevel } from 'manifold-3d';
import { openStage } from '../line/open.ts';
import { refuse, ok, type Result } from '../result.ts';
import type { StageRecord, Variant } from '../schema/joint.ts';
import { boundsOf } from '../shape/bounds.ts';
import { ORIGIN } from '../shape/outline.ts';
import { writeDxf } from '../shape/dxf.ts';
import { writeSvg } from '../shape/svg.ts';
import type { Shelf } from '../shop/shelf.ts';
import { partKey } from '../fit/making-of.ts';
import { evenly, isPlain, type Correction } from '../solid/correction.ts';
import { compensated, meshSolid, type TriangleMesh } from '../solid/mesh.ts';
import { writeStl } from '../solid/stl.ts';
import { write3mf, type NamedMesh } from '../solid/threemf.ts';
import type { Part } from '../stage/contract.ts';
import { stageKind } from '../stage/registry.ts';
import { inUnits, stated } from '../units/stated.ts';
import { FINE } from '../gear/profile.ts';
import { billOf, housingParts, piecesOf } from './bill.ts';
import { goingTogether, type GoingStep } from './going-together.ts';
import { laidOut } from './laid-out.ts';
import { layOut, type Footprint } from './plates.ts';
import { billCsv, billMarkdown } from './write-bill.ts';

/** What is wanted of a whole line as files. */
export interface LineFilesWish {
  readonly title: string;
  readonly variant: Variant;
  /** How many joints are to be made. */
  readonly joints: number;
  /** Width and depth of the printer's bed, and the room between pieces, m. */
  readonly bed: Footprint;
  readonly gap: number;
  /** Layers that are only looked at in the DXF as well. */
  readonly reference: boolean;
  /** Largest distance of a meshed surface, and of a contour that is moved, from the exact one, m. */
  readonly surface: number;
  readonly curve: number;
  /** How far every contour is moved into the material, m, where nothing more is known of how a part is made. */
  readonly compensation: number;
  /** How parts are drawn for their processes, by their keys. */
  readonly corrections?: Readonly<Record<string, Correction>>;
}

/** How far the files have come. */
export interface LineFilesProgress {
  readonly doing: string;
  readonly share: number;
}

/** Files by name, with folders; as bytes. */
export type NamedFiles = Readonly<Record<string, Uint8Array>>;

/** The same as one zip. What is packed already is only put in. */
export const zipped = (files: NamedFiles): Uint8Array =>
  zipSync(
    Object.fromEntries(Object.entries(files).map(([name, b]) => [name, name.endsWith('.3mf') ? [b, { level: 0 }] : b])),
  );

const MM = 1000;
/** Share of the time that the order of assembly takes. */
const ORDER = 0.2;

/** A made part with its mesh, and how many of it all joints take. */
interface Meshed {
  readonly stage: number;
  readonly part: Part;
  readonly mesh: TriangleMesh;
  readonly count: number;
}

/** A name as part of a file's name. */
const slug = (name: string): string =>
  name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'x';

/** Stands for the place of a stage with what is of none: the housing. */
const HOUSING = -1;

const baseName = ({ stage, part }: Pick<Meshed, 'stage' | 'part'>): string =>
  `${stage === HOUSING ? 'housing' : `stage${stage + 1}`}-${slug(part.id)}`;

/** How a part is drawn for its process. */
const correctionOf = (
  wish: Pick<LineFilesWish, 'corrections' | 'compensation'>,
  { stage, part }: Pick<Meshed, 'stage' | 'part'>,
): Correction => wish.corrections?.[partKey(stage, part.id)] ?? evenly(wish.compensation);

const upper = (name: string): string => name[0]!.toUpperCase() + name.slice(1);
const placeName = (stage: number): string => (stage === HOUSING ? 'housing' : `stage ${stage + 1}`);

/** Says of a part that it is larger than the bed. */
const refuseLarge = (part: Part, { width, depth }: Footprint, { bed, gap }: Pick<LineFilesWish, 'bed' | 'gap'>) => {
  const size = (x: number) => stated(x, 'length', 4);
  return refuse(
    `“${part.name}” does not go on the plate.`,
    `It takes up ${size(width)} by ${size(depth)}, and the bed is ` +
      `${size(bed.width)} by ${size(bed.depth)}, less ${size(gap)} at every edge.`,
    'Give a larger bed or less room between the pieces, or have that part made elsewhere.',
  );
};

/** What no process takes off an outside or puts on it, m. */
const BEYOND_PROCESS = 1e-3;

/** Refuses a printed part that is surely larger than the bed, as it is drawn: before the minutes in which bodies are made. */
function surelyLarge(part: Part, wish: Pick<LineFilesWish, 'bed' | 'gap'>): Result<never> | undefined {
  if (part.made !== 'printed' || !part.solid) return undefined;
  const b = boundsOf(
    part
      .solid()
      .prisms.filter((p) => !p.cut)
      .map((p) => ({ outline: p.outer, at: { ...ORIGIN, turn: p.turn ?? 0 } })),
  );
  if (!b) return undefined;
  const drawn = { width: b.x1 - b.x0, depth: b.y1 - b.y0 };
  const least = { width: drawn.width - BEYOND_PROCESS, depth: drawn.depth - BEYOND_PROCESS };
  return layOut([least], wish.bed, wish.gap).tooLarge.length ? refuseLarge(part, drawn, wish) : undefined;
}

/**
 * Printed parts of one material on plates, each plate a 3MF of its own.
 *
 * @param file what their names begin with
 */
function platesOf(material: string, file: string, list: readonly Meshed[], wish: LineFilesWish): Result<NamedFiles> {
  const { plates, tooLarge } = laidOut(list, wish.bed, wish.gap);
  const large = tooLarge[0];
  if (large) return refuseLarge(list[large.part]!.part, large, wish);
  const files: Record<string, Uint8Array> = {};
  plates.forEach((items, n) => {
    const used = [...new Set(items.map((x) => x.part))].sort((a, b) => a - b);
    const meshes = used.map((k): NamedMesh => ({
      name: `${upper(placeName(list[k]!.stage))}, ${inUnits(list[k]!.part.name)}`,
      mesh: list[k]!.mesh,
    }));
    const name = plates.length > 1 ? `-${n + 1}` : '';
    files[`plates/${file}${name}.3mf`] = write3mf(
      meshes,
      `${wish.title}, ${material}, plate ${n + 1} of ${plates.length}`,
      items.map((x) => ({ ...x, part: used.indexOf(x.part) })),
    );
  });
  return ok(files);
}

/** The order of putting the line together, and what to mind with each stage, as lists to tick off. */
function assemblyMarkdown(
  title: string,
  stages: readonly StageRecord[],
  shelf: Shelf,
  steps?: readonly GoingStep[],
): string {
  const lines = [`# ${title}`, ''];
  if (steps) {
    lines.push('## The whole line, found by taking it apart', '');
    for (const { do: what, tool, caution } of steps)
      lines.push(
        `- [ ] ${inUnits(what)}${tool ? ` (${inUnits(tool)})` : ''}${caution ? ` *${inUnits(caution)}*` : ''}`,
      );
    lines.push('');
  }
  stages.forEach((s, i) => {
    const opened = openStage(s, shelf);
    if (!opened.ok) return;
    lines.push(`## Stage ${i + 1}, ${stageKind(s.kind)?.name.toLowerCase()}`, '');
    for (const step of opened.value.assembly())
      lines.push(`- [ ] ${inUnits(step.do)}${step.caution ? ` *${inUnits(step.caution)}*` : ''}`);
    lines.push('');
  });
  lines.push(
    'Press fits: press, do not hammer. Eye protection for cutting; gloves and fresh air for resin and glue.',
    '',
  );
  return lines.join('\n');
}

/**
 * Everything it takes to make some joints, as files: the bill, the order of assembly, plates of printed parts by material,
 * each made part as STL, SVG and DXF, and a manifest of what they were made with. A body at a time.
 *
 * @returns refuses in words what cannot be
 */
export function* lineFiles(
  kernel: ManifoldToplevel,
  wish: LineFilesWish,
  shelf: Shelf,
): Generator<LineFilesProgress, Result<NamedFiles>> {
  const { variant, title, joints, surface } = wish;
  const bill = billOf(variant, joints, shelf);
  if (!bill.ok) return bill;
  const made: { stage: number; part: Part }[] = [];
  for (const [stage, record] of variant.stages.entries()) {
    const parts = piecesOf(record, shelf);
    if (!parts.ok) return parts;
    for (const part of parts.value) if (part.curves.length > 0 || part.solid) made.push({ stage, part });
  }
  for (const part of housingParts(variant, shelf)) if (part.solid) made.push({ stage: HOUSING, part });
  for (const { part } of made) {
    const large = surelyLarge(part, wish);
    if (large) return large;
  }
  const files: Record<string, Uint8Array> = {
    'bill.csv': strToU8(billCsv(bill.value)),
    'bill.md': strToU8(billMarkdown(bill.value, title)),
  };
  const order = goingTogether(kernel, variant, shelf);
  let move = order.next();
  for (; !move.done; move = order.next()) yield { doing: 'Order of assembly', share: ORDER * move.value.share };
  const steps = move.value.ok && move.value.value.stuck.length === 0 ? move.value.value.steps : undefined;
  files['assembly.md'] = strToU8(assemblyMarkdown(title, variant.stages, shelf, steps));
  const meshed: Meshed[] = [];
  for (const [i, one] of made.entries()) {
    const { stage, part } = one;
    yield { doing: inUnits(part.name), share: ORDER + (1 - ORDER) * (i / made.length) };
    const note = inUnits(part.note);
    const by = correctionOf(wish, one);
    const curves = isPlain(by) ? part.curves : compensated(kernel, part.curves, by, wish.curve / 2);
    const sheet = { title: `${title}, ${placeName(stage)}, ${inUnits(part.name)}`, note, curves };
    if (part.curves.length > 0) {
      files[`svg/${baseName(one)}.svg`] = strToU8(writeSvg(sheet));
      files[`dxf/${baseName(one)}.dxf`] = strToU8(writeDxf(sheet, { reference: wish.reference }));
    }
    if (!part.solid) continue;
    const mesh = meshSolid(kernel, part.solid(), surface, by);
    if (!mesh)
      return refuse(
        `Nothing is left of “${part.name}” of ${placeName(stage)}.`,
        'Its cuts take all of it away.',
        'Look at its bore and screws.',
      );
    files[`stl/${baseName(one)}.stl`] = writeStl(mesh, sheet.title);
    if (part.made === 'printed') meshed.push({ stage, part, mesh, count: part.quantity * joints });
  }
  const taken = new Set<string>();
  for (const material of new Set(meshed.map((m) => m.part.material))) {
    yield { doing: `Plates of ${material}`, share: 1 };
    // Materials of the reader's own may be named alike but for what a file's name cannot hold.
    let file = slug(material);
    for (let n = 2; taken.has(file); n++) file = `${slug(material)}-${n}`;
    taken.add(file);
    const plates = platesOf(
      material,
      file,
      meshed.filter((m) => m.part.material === material),
      wish,
    );
    if (!plates.ok) return plates;
    Object.assign(files, plates.value);
  }
  files['manifest.json'] = strToU8(JSON.stringify(manifestOf(wish, bill.value, Object.keys(files)), null, 2) + '\n');
  return ok(files);
}

/** What the files are, and what they were made with; lengths in millimetres. */
function manifestOf(
  wish: LineFilesWish,
  bill: { mass: number; money: number; toPay: number },
  names: readonly string[],
) {
  const mm = (x: number) => Number((x * MM).toPrecision(9));
  return {
    format: 'gristmill-files',
    version: 1,
    title: wish.title,
    joints: wish.joints,
    units: 'mm, g',
    bed: [mm(wish.bed.width), mm(wish.bed.depth)],
    gap: mm(wish.gap),
    surfaceWithin: mm(wish.surface),
    curvesWithin: mm(wish.compensation === 0 && !wish.corrections ? FINE : wish.curve),
    movedIn: mm(wish.compensation),
    ...(wish.corrections && {
      drawnFor: Object.fromEntries(
        Object.entries(wish.corrections).map(([key, c]) => [
          key,
          {
            outsidesIn: mm(c.out),
            holesOut: mm(c.into),
            scale: Number((1 / (1 + c.scale)).toPrecision(7)),
            ...(c.foot && { foot: { by: mm(c.foot.by), high: mm(c.foot.high) } }),
            rounds: c.rounds.map((r) => ({
              what: r.hole ? 'hole' : 'outside',
              diameter: mm(r.diameter),
              by: mm(r.by),
            })),
          },
        ]),
      ),
    }),
    mass: Number((bill.mass * 1e3).toPrecision(6)),
    price: Number(bill.money.toFixed(2)),
    toPay: Number(bill.toPay.toFixed(2)),
    files: [...names].sort(),
  };
}
