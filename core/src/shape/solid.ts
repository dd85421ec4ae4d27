import { area, type Outline } from './outline.ts';

/** A straight or twisted prism along z: an outline with holes. */
export interface Prism {
  readonly outer: Outline;
  readonly holes: readonly Outline[];
  readonly from: number;
  readonly to: number;
  /** Angle the section turns from bottom to top, rad; right-handed. */
  readonly twist: number;
  /** Angle by which the whole section is turned at the bottom, rad. */
  readonly turn?: number;
  /** Taken away instead of added. */
  readonly cut?: boolean;
}

/** A body as prisms put together in order. */
export interface Solid {
  readonly prisms: readonly Prism[];
}

/** A prism on one outline. */
export const prism = (outer: Outline, from: number, to: number, holes: readonly Outline[] = [], twist = 0): Prism => ({
  outer,
  holes,
  from,
  to,
  twist,
});

/** A cut on one outline. */
export const cut = (outer: Outline, from: number, to: number): Prism => ({
  outer,
  holes: [],
  from,
  to,
  twist: 0,
  cut: true,
});

/** Volume of a prism, m³: area does not change with twist. */
export const prismVolume = (p: Prism): number =>
  (Math.abs(area(p.outer)) - p.holes.reduce((s, h) => s + Math.abs(area(h)), 0)) * (p.to - p.from);

/** Volume of a solid whose added prisms do not overlap and whose cuts lie wholly inside them, m³. */
export const solidVolume = (s: Solid): number =>
  s.prisms.reduce((sum, p) => sum + (p.cut ? -1 : 1) * prismVolume(p), 0);
