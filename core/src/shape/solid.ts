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
  /** How far along x the section stands at the bottom and at the top, m: what leans without turning, as a rack's slant teeth. */
  readonly leans?: readonly [number, number];
  /** Taken away instead of added. */
  readonly cut?: boolean;
  /** Stands in for a slice of a taper of the same solid, for whoever asks about room; surfaces are made of the taper. */
  readonly step?: boolean;
}

/**
 * A body that grows with its distance from a point on its axis, and ends in a sphere about that: the teeth of a bevel.
 */
export interface Taper {
  /** Section across z, at a distance of 1 from the apex: coordinates are tangents of angles at the axis. */
  readonly outer: Outline;
  /** Straight through all of it, m. */
  readonly holes: readonly Outline[];
  /** Heights of its apex and of its ends, which lie on one side of that, m. */
  readonly apex: number;
  readonly from: number;
  readonly to: number;
  /** Radius of the sphere about the apex that it ends in, m. */
  readonly within: number;
}

/** A body as prisms put together in order, and tapers where some of the prisms are only their steps. */
export interface Solid {
  readonly prisms: readonly Prism[];
  readonly tapers?: readonly Taper[];
}

/** The end of a taper that is farther from its apex, and the nearer one: heights, m. */
export const endsOf = (t: Taper): readonly [far: number, near: number] =>
  Math.abs(t.to - t.apex) > Math.abs(t.from - t.apex) ? [t.to, t.from] : [t.from, t.to];

/** The prisms of a solid that are its own surface, not only steps of a taper. */
export const ownPrisms = (s: Solid): readonly Prism[] => (s.tapers ? s.prisms.filter((p) => !p.step) : s.prisms);

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

/** A prism that is added, where what is cut from it is the same all along. */
export interface CutSlice {
  readonly p: Prism;
  readonly cuts: readonly Prism[];
}

/** Heights nearer to each other than this are one, m. */
const SAME = 1e-9;

/**
 * The prisms that a body is added up of, each in slices along which the same is cut from it.
 *
 * @example cutSlices({ prisms: [prism(circle(0, 0, 2), 0, 3), cut(circle(0, 0, 1), 1, 2)] }).length // 3
 */
export function cutSlices({ prisms }: Solid): CutSlice[] {
  const cuts = prisms.filter((p) => p.cut);
  return prisms.filter((p) => !p.cut).flatMap((p) => slicesOf(p, cuts));
}

function slicesOf(p: Prism, all: readonly Prism[]): CutSlice[] {
  const cuts = all.filter((c) => c.to > p.from + SAME && c.from < p.to - SAME);
  if (cuts.length === 0) return [{ p, cuts }];
  const at = [p.from, p.to, ...cuts.flatMap((c) => [c.from, c.to])]
    .filter((z) => z >= p.from && z <= p.to)
    .sort((a, b) => a - b)
    .filter((z, i, list) => i === 0 || z - list[i - 1]! > SAME);
  // Twist goes on evenly: a slice has its own share of it.
  const share = (z: number) => (z - p.from) / (p.to - p.from);
  const turned = (z: number) => (p.turn ?? 0) + p.twist * share(z);
  const leant = (z: number) => p.leans![0] + (p.leans![1] - p.leans![0]) * share(z);
  return at.slice(1).map((to, i) => {
    const from = at[i]!;
    const middle = (from + to) / 2;
    return {
      p: {
        ...p,
        from,
        to,
        turn: turned(from),
        twist: turned(to) - turned(from),
        ...(p.leans && { leans: [leant(from), leant(to)] }),
      },
      cuts: cuts.filter((c) => c.from < middle && c.to > middle),
    };
  });
}
