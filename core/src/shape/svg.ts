import { boundsOf } from './bounds.ts';
import { ORIGIN, type Outline } from './outline.ts';
import type { ExportSheet } from './sheet.ts';
import { xmlText } from './xml.ts';

/**
 * Path data of an outline, exact arcs included. `scale` turns metres into the wanted unit; y points up, so it is
 * negated.
 */
export function svgPath(o: Outline, scale = 1000, digits = 4): string {
  const p = o.points;
  const n = p.length / 3;
  if (n === 0) return '';
  // Plain numbers in a loop rather than toFixed: this runs each frame while a drawing turns.
  const unit = 10 ** digits;
  const w = (v: number) => Math.round(v * scale * unit) / unit;
  let d = `M${w(p[0]!)} ${w(-p[1]!)}`;
  const last = o.closed ? n : n - 1;
  for (let i = 0; i < last; i++) {
    const j = (i + 1) % n;
    const b = p[3 * i + 2]!;
    const x2 = p[3 * j]!;
    const y2 = p[3 * j + 1]!;
    if (b === 0) {
      d += `L${w(x2)} ${w(-y2)}`;
    } else {
      const theta = 4 * Math.atan(Math.abs(b));
      const chord = Math.hypot(x2 - p[3 * i]!, y2 - p[3 * i + 1]!);
      const r = w(chord / (2 * Math.sin(theta / 2)));
      d += `A${r} ${r} 0 ${theta > Math.PI ? 1 : 0} ${b > 0 ? 0 : 1} ${w(x2)} ${w(-y2)}`;
    }
  }
  return o.closed ? `${d}Z` : d;
}

/** A drawing sheet as an SVG file in millimetres, arcs exact, one group a layer. */
export function writeSvg(sheet: ExportSheet): string {
  const { x0, y0, x1, y1 } = boundsOf(sheet.curves.map((c) => ({ outline: c.outline, at: ORIGIN }))) ?? {
    x0: 0,
    y0: 0,
    x1: 0,
    y1: 0,
  };
  const margin = 1e-3;
  const mm = (v: number) => Number((v * 1000).toFixed(4));
  const [left, top, width, height] = [
    mm(x0 - margin),
    mm(-y1 - margin),
    mm(x1 - x0 + 2 * margin),
    mm(y1 - y0 + 2 * margin),
  ];
  const layers = [...new Set(sheet.curves.map((c) => c.layer))];
  const groups = layers.map(
    (layer) =>
      `  <g id="${xmlText(layer)}">\n${sheet.curves
        .filter((c) => c.layer === layer)
        .map((c) => `    <path d="${svgPath(c.outline, 1000, 6)}"/>`)
        .join('\n')}\n  </g>`,
  );
  const head =
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" ` +
    `viewBox="${left} ${top} ${width} ${height}" fill="none" stroke="#000" stroke-width="0.05">`;
  return `<?xml version="1.0" encoding="UTF-8"?>
${head}
  <title>${xmlText(sheet.title)}</title>
  <desc>${xmlText(`${sheet.note} Millimetres; circular arcs are exact.`)}</desc>
${groups.join('\n')}
</svg>
`;
}
