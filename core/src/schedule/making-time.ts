import type { Material } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import type { BodyMeasures } from './measures.ts';

/** Lines of a printed wall, and layers that close it above and below. */
const [WALLS, SKINS] = [2, 4];

/** What a printer lays down for one piece. */
export interface Laid {
  /** Length of line, m. */
  readonly path: number;
  /** Layers, each of which is begun anew. */
  readonly layers: number;
  /** Whole layers are hardened at once out of a bath of resin: there is no line. */
  readonly resin?: true;
}

/** Layer of a resin print, m: usual between detail and speed. */
const RESIN_LAYER = 5e-5;

/** What a resin printer lays down: layers alone. */
export const resinFor = (body: BodyMeasures): Laid => ({
  path: 0,
  layers: Math.ceil(body.box[2] / RESIN_LAYER - 1e-9),
  resin: true,
});

/**
 * Line that a printer lays for a body: its walls whole, the layers that close it whole, what is inside by its infill.
 *
 * Walls and skins overlap at edges, which counts them twice; never more than the body filled.
 *
 * @returns length of line, m, and layers
 */
export function laidFor(body: BodyMeasures, shelf: Shelf): Laid {
  const [line, layer, infill] = ['print.wall', 'print.layer', 'print.infill'].map((id) => factor(shelf, id)) as [
    number,
    number,
    number,
  ];
  const closed = Math.min(body.volume, body.side * WALLS * line + body.flat * SKINS * layer);
  const filled = closed + (body.volume - closed) * infill;
  return { path: filled / (line * layer), layers: Math.ceil(body.box[2] / layer - 1e-9) };
}

/**
 * Time of a print from what is laid, s: pieces of one plate are laid layer by layer together, so that the highest one
 * tells how many layers are begun.
 */
export function printTime({ path, layers, resin }: Laid, shelf: Shelf): number {
  if (resin) return factor(shelf, 'print.start') + layers * factor(shelf, 'print.resin');
  return factor(shelf, 'print.start') + path / factor(shelf, 'print.speed') + layers * factor(shelf, 'print.change');
}

/** What a print lays down for several pieces on one plate. */
export const laidTogether = (pieces: readonly { readonly laid: Laid; readonly count: number }[]): Laid => ({
  path: pieces.reduce((s, p) => s + p.count * p.laid.path, 0),
  layers: pieces.reduce((most, p) => Math.max(most, p.laid.layers), 0),
  ...(pieces.some((p) => p.laid.resin) && { resin: true as const }),
});

/** Young's moduli that part plastics from light metals and those from steels, Pa. */
const [LIGHT, STEEL] = [2e10, 1.5e11];

/** Chips in a second, mm³: by what a material is, told by its stiffness; brass is cut like aluminium. */
function chips(material: Pick<Material, 'modulus'>, shelf: Shelf): number {
  const { modulus } = material;
  return factor(shelf, modulus < LIGHT ? 'mill.plastic' : modulus < STEEL ? 'mill.light' : 'mill.steel');
}

/**
 * Time by hand at a mill or lathe for some pieces of a part, s: set up for both sides once, each piece clamped and
 * measured, and what of the blank is not the part cut away. The blank is the round or square bar that is smaller.
 *
 * @param body undefined where no body is known: then only setting up and handling count
 */
export function millTime(
  body: BodyMeasures | undefined,
  material: Pick<Material, 'modulus'>,
  count: number,
  shelf: Shelf,
): number {
  const handling = 2 * factor(shelf, 'mill.setup') + count * factor(shelf, 'mill.piece');
  if (!body) return handling;
  const [x, y, z] = body.box;
  const round = (Math.PI / 4) * Math.max(x, y) ** 2;
  const blank = Math.min(x * y, Math.abs(x - y) < 1e-4 * x ? round : Infinity) * z;
  const cut = Math.max(0, blank - body.volume) * 1e9;
  return handling + (count * cut) / chips(material, shelf);
}
