import type { ManifoldToplevel } from 'manifold-3d';
import type { Outline } from '../shape/outline.ts';
import type { Solid } from '../shape/solid.ts';
import { evenly, NO_CORRECTION, type Correction } from '../solid/correction.ts';
import { compensated } from '../solid/mesh.ts';
import type { MadeBy } from './making-of.ts';

/** A part's contours three times over: as drawn, as drawn for its process, and as they come out. */
export interface Overlay {
  readonly drawn: readonly Outline[];
  readonly forProcess: readonly Outline[];
  readonly made: readonly Outline[];
}

/** Largest distance of the pieces from the exact contour, m. */
const CHORD = 2e-6;

/**
 * Contours of a body as drawn, as its process needs them drawn, and as they come out then: what the machine adds is added
 * again to what it is given. Where the slicer corrects, it is given the drawing and takes its own setting off.
 *
 * @param correction how the part is drawn
 * @param made the process that makes it
 */
export function overlayOf(
  kernel: ManifoldToplevel,
  solid: Solid,
  correction: Correction,
  { process, fit }: MadeBy,
): Overlay {
  const curves = solid.prisms.flatMap((p) => [
    { layer: p.cut ? 'cut' : 'outside', outline: p.outer },
    ...p.holes.map((outline) => ({ layer: 'holes', outline })),
  ]);
  const scale = (fit.scaleX.value + fit.scaleY.value) / 2;
  // The other way round: outwards by what it adds, larger by its scale.
  const adds: Correction =
    process.compensates === 'slicer'
      ? NO_CORRECTION
      : { ...evenly(0), out: -fit.out.value, into: -fit.into.value, scale: 1 / (1 + scale) - 1 };
  const forProcess = compensated(kernel, curves, correction, CHORD);
  const made = compensated(kernel, forProcess, adds, CHORD);
  const outlines = (list: readonly { readonly outline: Outline }[]) => list.map((c) => c.outline);
  return { drawn: outlines(curves), forProcess: outlines(forProcess), made: outlines(made) };
}
