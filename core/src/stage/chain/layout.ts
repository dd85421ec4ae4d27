import {
  asideOf,
  loopPath,
  perWay,
  solveCentre,
  standsClear,
  tensioning,
  type LoopPath,
  type Tensioning,
  type Wheel,
} from '../../loop/index.ts';
import { ok, type Result } from '../../result.ts';
import type { ChainSize } from '../../shop/chains.ts';
import { inMm, stop } from '../refuse-stage.ts';
import { asidesOf, type AsideOf, type ChainParams } from './params.ts';
import { pitchRadiusOf } from './sprocket.ts';

/** An idler or a branch with its place among a path's wheels. */
export interface PlacedAside extends AsideOf {
  readonly at: number;
}

/** Where everything sits: centres, the chain's path over its pitch circles, teeth in mesh. */
export interface ChainLayout {
  readonly r1: number;
  readonly r2: number;
  readonly centre: number;
  readonly links: number;
  /** Wheels in the order in which the chain meets them: driver, idlers, driven, branches. */
  readonly path: LoopPath;
  /** Teeth of each of them. */
  readonly teeth: readonly number[];
  /** Place of the driven sprocket among them. */
  readonly driven: number;
  /** Idlers and branches, each with its place among them. */
  readonly asides: readonly PlacedAside[];
  /** Teeth in mesh on each. */
  readonly mesh: readonly number[];
  /** Free lengths from the driven sprocket back to the driver, and from the driver on to it, m. */
  readonly tight: number;
  readonly slack: number;
}

/** Room that plates of two runs need between sprockets, m. */
const APART = 5e-4;

/**
 * Links of a chain over two sprockets: 2C·cos α/p + (z₁ + z₂)/2 + α(z₂ − z₁)/π, sin α = (d₂ − d₁)/2C.
 *
 * @param centre m
 * @example linksOver(0.40005, 0.0127, 17, 17).toFixed(6) // '80.000000'
 */
export function linksOver(centre: number, pitch: number, z1: number, z2: number): number {
  const lean = Math.asin((pitchRadiusOf(pitch, z2) - pitchRadiusOf(pitch, z1)) / centre);
  return (2 * centre * Math.cos(lean)) / pitch + (z1 + z2) / 2 + (lean * (z2 - z1)) / Math.PI;
}

/**
 * Centre distance of two sprockets for a number of links, m; undefined where the chain is too short to go round.
 * @example centreFor(80, 0.0127, 17, 17).toFixed(6) // '0.400050'
 */
export function centreFor(links: number, pitch: number, z1: number, z2: number): number | undefined {
  const apart = Math.abs(pitchRadiusOf(pitch, z2) - pitchRadiusOf(pitch, z1));
  const free = (links - (z1 + z2) / 2) * pitch;
  if (!(free > 0) || linksOver(apart * (1 + 1e-9) + 1e-12, pitch, z1, z2) > links) return undefined;
  let c = Math.max(free / 2, apart * 1.001 + 1e-9);
  for (let i = 0; i < 60; i++) {
    const s = (pitchRadiusOf(pitch, z2) - pitchRadiusOf(pitch, z1)) / c;
    const step = ((linksOver(c, pitch, z1, z2) - links) * pitch) / (2 * Math.sqrt(1 - s * s));
    c = Math.max(c - step, apart + (c - apart) * 0.1);
    if (Math.abs(step) < 1e-15) break;
  }
  return c;
}

/** The sprockets at a centre distance. */
function wheelsAt(p: ChainParams, pitch: number, c: number) {
  const [r1, r2] = [pitchRadiusOf(pitch, p.z1), pitchRadiusOf(pitch, p.z2)];
  const wheels: Wheel[] = [{ x: 0, y: 0, r: r1, sense: 1 }];
  const teeth = [p.z1];
  const asides: PlacedAside[] = [];
  const put = (list: readonly AsideOf[], run: 1 | -1) => {
    for (const a of list) {
      asides.push({ ...a, at: wheels.length });
      wheels.push(asideOf(r1, r2, c, pitchRadiusOf(pitch, a.teeth), a.from, a.along, a.push, run));
      teeth.push(a.teeth);
    }
  };
  const all = asidesOf(p);
  put(
    all.filter((a) => !a.driven).sort((a, b) => a.along - b.along),
    -1,
  );
  const driven = wheels.length;
  wheels.push({ x: c, y: 0, r: r2, sense: 1 });
  teeth.push(p.z2);
  // Back from the driven sprocket the chain meets the farthest branch first.
  put(
    all.filter((a) => a.driven).sort((a, b) => b.along - a.along),
    1,
  );
  return { wheels, teeth, driven, asides };
}

/** Length of a chain along its path: on a sprocket it goes a pitch for each tooth, whatever the circle's arc, m. */
function chainLength(path: LoopPath, teeth: readonly number[], pitch: number): number {
  let sum = 0;
  for (let i = 0; i < teeth.length; i++)
    sum += path.runs[i]!.length + (path.wraps[i]! * teeth[i]! * pitch) / (2 * Math.PI);
  return sum;
}

/** Smallest centre distance at which the plates on both sprockets pass one another, m. */
export const leastCentre = (p: ChainParams, chain: ChainSize): number =>
  pitchRadiusOf(chain.pitch, p.z1) + pitchRadiusOf(chain.pitch, p.z2) + chain.plate + APART;

/** The next even number at or above a number of links. */
const even = (links: number): number => 2 * Math.ceil(links / 2 - 1e-9);

/** Solves the layout, or says why the chain cannot lie so and what would. */
export function layoutChain(p: ChainParams, chain: ChainSize): Result<ChainLayout> {
  const { pitch } = chain;
  const bare = asidesOf(p).length === 0;
  const least = leastCentre(p, chain);
  const lengthAt = (c: number): number | undefined => {
    const at = wheelsAt(p, pitch, c);
    const path = loopPath(at.wheels);
    return path && chainLength(path, at.teeth, pitch);
  };
  const takes = (c: number) => (bare ? linksOver(c, pitch, p.z1, p.z2) : (lengthAt(c) ?? NaN) / pitch);
  const solve = (links: number) =>
    bare ? centreFor(links, pitch, p.z1, p.z2) : solveCentre(lengthAt, links * pitch, 0.999 * least);
  const links = p.setBy === 'centre' ? even(takes(Math.max(p.centre, least))) : p.links;
  const centre = solve(links);
  if (centre === undefined || centre < least - 1e-12) {
    const enough = even(takes(least));
    return stop(
      'The chain is too short for its sprockets.',
      centre === undefined
        ? `${links} links make ${inMm(links * pitch)}, less than it takes to go round ${p.z1} and ${p.z2} teeth.`
        : `It would pull the shafts to ${inMm(centre)}, and the plates need ${inMm(least)} to pass one another.`,
      Number.isFinite(enough) ? `Take ${enough} links or more.` : 'Take smaller sprockets or a longer chain.',
      'links',
      Number.isFinite(enough) ? { path: 'links', value: enough, label: `${enough} links` } : undefined,
    );
  }
  const at = wheelsAt(p, pitch, centre);
  const path = loopPath(at.wheels);
  // Near a sprocket an idler's tangents can swap over; the length then never comes out, and such a chain cannot be laid.
  const closes = path !== undefined && Math.abs(chainLength(path, at.teeth, pitch) - links * pitch) < 1e-9;
  const off = closes ? at.asides.find((x) => path.wraps[x.at]! > Math.PI || path.wraps[x.at]! === 0) : at.asides[0];
  if (!closes || off !== undefined) {
    const { id, name } = off ?? { id: 'idler', name: 'idler' };
    return stop(
      `The chain cannot run over the ${name} where it is.`,
      closes ? `The ${name} does not touch the chain.` : `The ${name} stands in the way of a sprocket.`,
      'Move it along the run, press it further in, or take it out.',
      `${id}Push`,
      { path: id, value: 'none', label: `No ${name}` },
    );
  }
  for (const { id, name, at: i } of at.asides)
    for (const j of at.wheels.keys()) {
      if (j === i) continue;
      const [a, b] = [at.wheels[i]!, at.wheels[j]!];
      if (Math.hypot(a.x - b.x, a.y - b.y) < a.r + b.r + (a.sense === b.sense ? chain.plate : chain.roller))
        return stop(
          `The ${name} runs into another sprocket.`,
          'Teeth and plates on both must pass one another.',
          'Move it along the run, press it in less or make it smaller.',
          `${id}Along`,
          { path: id, value: 'none', label: `No ${name}` },
        );
    }
  const mesh = path.wraps.map((w, i) => (w * at.teeth[i]!) / (2 * Math.PI));
  const fewest = Math.min(mesh[0]!, mesh[at.driven]!);
  if (fewest < 3)
    return stop(
      `Only ${fewest.toFixed(1)} teeth are in mesh on the smaller sprocket.`,
      'Below three the load sits on so few teeth that the chain climbs.',
      'Take more teeth on the smaller sprocket, or a longer chain.',
      p.z1 <= p.z2 ? 'z1' : 'z2',
    );
  const last = at.wheels.length - 1;
  const between = (from: number, to: number) => {
    let sum = 0;
    for (let i = from; i < to; i++)
      sum += path.runs[i]!.length + (i > from ? (path.wraps[i]! * at.teeth[i]! * pitch) / (2 * Math.PI) : 0);
    return sum;
  };
  return ok({
    r1: at.wheels[0]!.r,
    r2: at.wheels[at.driven]!.r,
    centre,
    links,
    path,
    teeth: at.teeth,
    driven: at.driven,
    asides: at.asides,
    mesh,
    tight: between(at.driven, last + 1),
    slack: between(0, at.driven),
  });
}

/** Length that the chain gives for a way of its shafts towards each other. */
export const chained = ({ r1, r2, centre }: Pick<ChainLayout, 'r1' | 'r2' | 'centre'>): number =>
  perWay(r1, r2, centre);

/**
 * How far the idler is moved to take up what the chain has grown longer by, and to let it go by half a pitch, while the
 * shafts stay where they are; undefined without one.
 *
 * @param grown m
 */
export function idlerWays(p: ChainParams, pitch: number, L: ChainLayout, grown: number): Tensioning | undefined {
  if (p.idler === 'none') return undefined;
  const lengthOf = (q: ChainParams): number | undefined => {
    const at = wheelsAt(q, pitch, L.centre);
    const clear = at.asides.every((a) => standsClear(at.wheels, a.at));
    const path = clear ? loopPath(at.wheels) : undefined;
    return path && chainLength(path, at.teeth, pitch);
  };
  const without = p.idler2 && p.idler2 !== 'none' ? { ...p, idlerPush: 0 } : { ...p, idler: 'none' as const };
  const bare = lengthOf(without) ?? L.links * pitch;
  return tensioning((idlerPush) => lengthOf({ ...p, idlerPush }), bare, p.idlerPush, grown, pitch / 2);
}
