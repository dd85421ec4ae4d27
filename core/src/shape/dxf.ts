import { flatten } from './flatten.ts';
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

/**
 * A drawing sheet as DXF in millimetres: ASCII, closed POLYLINE entities of straight pieces within `chordError` of the
 * exact curve.
 * Written by hand because R12 (AC1009), which every reader takes, has no LWPOLYLINE, and the writers at hand emit
 * nothing else.
 *
 * @param chordError metres
 * Source: DXF reference for release 12, sections HEADER, TABLES and ENTITIES.
 */
export function writeDxf(sheet: ExportSheet, chordError: number): string {
  const layers = [...new Set(sheet.curves.map((c) => layerName(c.layer)))];
  let out = tag(
    999,
    `${sheet.title.replace(/[^\x20-\x7e]+/g, ' ')}. mm, chord error ${(chordError * 1e6).toFixed(2)} um. ${sheet.note.replace(/[^\x20-\x7e]+/g, ' ')}`,
  );
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
  for (const { layer, outline } of sheet.curves) {
    const name = layerName(layer);
    const p = flatten(outline, chordError);
    out +=
      tag(0, 'POLYLINE') +
      tag(8, name) +
      tag(66, 1) +
      tag(70, outline.closed ? 1 : 0) +
      tag(10, '0.0') +
      tag(20, '0.0') +
      tag(30, '0.0');
    for (let i = 0; i < p.length; i += 2)
      out += tag(0, 'VERTEX') + tag(8, name) + tag(10, mm(p[i]!)) + tag(20, mm(p[i + 1]!)) + tag(30, '0.0');
    out += tag(0, 'SEQEND') + tag(8, name);
  }
  return out + tag(0, 'ENDSEC') + tag(0, 'EOF');
}
