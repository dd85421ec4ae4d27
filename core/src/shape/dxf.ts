import type { Outline } from './outline.ts';
import type { ExportSheet } from './sheet.ts';

/** Six decimals of a millimetre: a nanometre, well under any stated chord error. */
const mm = (v: number): string => (v * 1000).toFixed(6);
const tag = (code: number, value: string | number): string => `${code}\n${value}\n`;
/** R12 layer names take letters, digits, dollar, hyphen and underscore. */
const layerName = (name: string): string =>
  name
    .toUpperCase()
    .replace(/[^A-Z0-9$_-]+/g, '_')
    .slice(0, 31);

/** Layers that are looked at, not cut: they are left out unless they are wanted, or all there is. */
const REFERENCE = /^(pitch-circle|clearance)$/;

/** What goes into a DXF beside what is cut. */
export interface DxfOptions {
  /** Layers that are only looked at as well. */
  readonly reference?: boolean;
}

/** Middle and radius of an outline that is a whole circle. */
function asCircle({ points: p, closed }: Outline): { x: number; y: number; r: number } | undefined {
  if (!closed || p.length !== 6 || Math.abs(p[2]!) !== 1 || p[2] !== p[5]) return undefined;
  return { x: (p[0]! + p[3]!) / 2, y: (p[1]! + p[4]!) / 2, r: Math.hypot(p[3]! - p[0]!, p[4]! - p[1]!) / 2 };
}

/** An outline as the release has it: a circle, or a polyline whose arcs are bulges. */
function entity(outline: Outline, layer: string): string {
  const round = asCircle(outline);
  if (round)
    return (
      tag(0, 'CIRCLE') +
      tag(8, layer) +
      tag(10, mm(round.x)) +
      tag(20, mm(round.y)) +
      tag(30, '0.0') +
      tag(40, mm(round.r))
    );
  const { points: p, closed } = outline;
  let out =
    tag(0, 'POLYLINE') +
    tag(8, layer) +
    tag(66, 1) +
    tag(70, closed ? 1 : 0) +
    tag(10, '0.0') +
    tag(20, '0.0') +
    tag(30, '0.0');
  for (let i = 0; i < p.length; i += 3) {
    out += tag(0, 'VERTEX') + tag(8, layer) + tag(10, mm(p[i]!)) + tag(20, mm(p[i + 1]!)) + tag(30, '0.0');
    if (p[i + 2] !== 0) out += tag(42, p[i + 2]!.toFixed(12));
  }
  return out + tag(0, 'SEQEND') + tag(8, layer);
}

/**
 * A drawing sheet as DXF in millimetres: ASCII, true circles, and closed POLYLINE entities whose arcs are bulges, so that
 * nothing is approximated that the outline has exactly.
 * Written by hand because R12 (AC1009), which every reader takes, has no LWPOLYLINE, and the writers at hand emit
 * nothing else.
 *
 * Source: DXF reference for release 12, sections HEADER, TABLES and ENTITIES; a bulge is the tangent of a quarter of the
 * arc's angle.
 */
export function writeDxf(sheet: ExportSheet, { reference = false }: DxfOptions = {}): string {
  const cut = sheet.curves.filter((c) => !REFERENCE.test(c.layer));
  const curves = reference || cut.length === 0 ? sheet.curves : cut;
  const layers = [...new Set(curves.map((c) => layerName(c.layer)))];
  const plain = (text: string) => text.replace(/[^\x20-\x7e]+/g, ' ');
  let out = tag(999, `${plain(sheet.title)}. mm, arcs exact. ${plain(sheet.note)}`);
  out +=
    tag(0, 'SECTION') +
    tag(2, 'HEADER') +
    tag(9, '$ACADVER') +
    tag(1, 'AC1009') +
    tag(9, '$INSUNITS') +
    tag(70, 4) +
    tag(9, '$MEASUREMENT') +
    tag(70, 1) +
    tag(0, 'ENDSEC');
  out += tag(0, 'SECTION') + tag(2, 'TABLES') + tag(0, 'TABLE') + tag(2, 'LAYER') + tag(70, layers.length);
  layers.forEach(
    (name, i) => (out += tag(0, 'LAYER') + tag(2, name) + tag(70, 0) + tag(62, i + 1) + tag(6, 'CONTINUOUS')),
  );
  out += tag(0, 'ENDTAB') + tag(0, 'ENDSEC') + tag(0, 'SECTION') + tag(2, 'ENTITIES');
  for (const { layer, outline } of curves) out += entity(outline, layerName(layer));
  return out + tag(0, 'ENDSEC') + tag(0, 'EOF');
}
