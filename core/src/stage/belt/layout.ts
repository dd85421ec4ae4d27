import { stated } from '../../units/stated.ts';
import {
  asideOf,
  loopPath,
  openCentre,
  perWay,
  solveCentre,
  standsClear,
  tensioning,
  type LoopPath,
  type Tensioning,
  type Wheel,
} from '../../loop/index.ts';
import { ok, type Result } from '../../result.ts';
import type { BeltSection } from '../../shop/section.ts';
import type { Mend } from '../../figure/figure.ts';
import type { StageProblem } from '../contract.ts';
import type { BeltParams } from './params.ts';
import { outsideRadius, pitchRadius } from './pulley.ts';

/** Where everything sits: pitch diameters, centre distance and the belt's path. */
export interface BeltLayout {
  readonly d1: number;
  readonly d2: number;
  readonly centre: number;
  /** Teeth of the belt; for an open-ended belt the whole teeth it takes. */
  readonly teeth: number;
  readonly length: number;
  readonly path: LoopPath;
  readonly wrap1: number;
  readonly wrap2: number;
  readonly mesh1: number;
  readonly mesh2: number;
  readonly tightSpan: number;
  /** Free spans and idler arc on the slack side together. */
  readonly slackSpan: number;
}

const problem = (
  what: string,
  why: string,
  mend: string,
  place: string,
  fix?: Mend,
): { ok: false; problem: StageProblem } => ({ ok: false, problem: { what, why, mend, place, ...(fix && { fix }) } });

/** Pitch-line radius of the idler: by its teeth inside, by its diameter and the belt's back outside. */
export function idlerRadius(p: BeltParams, s: BeltSection): number {
  return p.idler === 'inside' ? pitchRadius(s.pitch, p.idlerTeeth) : p.idlerDiameter / 2 + backThickness(s);
}

/** From the pitch line to the belt's back. */
export const backThickness = (s: BeltSection): number => s.height - s.toothHeight - s.offset;

/** The wheels in the order a counter-clockwise belt meets them: driver, idler on the lower (slack) side, driven. */
export function wheelsAt(p: BeltParams, s: BeltSection, c: number): Wheel[] {
  const r1 = pitchRadius(s.pitch, p.z1);
  const r2 = pitchRadius(s.pitch, p.z2);
  const wheels: Wheel[] = [
    { x: 0, y: 0, r: r1, sense: 1 },
    { x: c, y: 0, r: r2, sense: 1 },
  ];
  if (p.idler === 'none') return wheels;
  const ri = idlerRadius(p, s);
  wheels.splice(1, 0, asideOf(r1, r2, c, ri, p.idler, p.idlerAlong, p.idlerPush, -1));
  return wheels;
}

/** Centre distance for a belt of `teeth` teeth, or undefined where it does not reach round. */
export function centreForTeeth(p: BeltParams, s: BeltSection, teeth: number): number | undefined {
  const d1 = 2 * pitchRadius(s.pitch, p.z1);
  const d2 = 2 * pitchRadius(s.pitch, p.z2);
  const bare = openCentre(teeth * s.pitch, d1, d2);
  if (p.idler === 'none' || bare === undefined) return bare;
  return solveCentre((c) => loopPath(wheelsAt(p, s, c))?.length, teeth * s.pitch, Math.abs(d2 - d1) / 2 + 1e-6);
}

/** Smallest centre distance at which the pulleys clear each other, with their flanges, m. */
export const leastCentre = (p: BeltParams, s: BeltSection): number =>
  outsideRadius(s, p.z1) + outsideRadius(s, p.z2) + 2 * s.toothHeight + 5e-4;

/** Stocked tooth counts nearest to a wanted centre distance, best first, with the centre each gives. */
export function stockedNear(
  p: BeltParams,
  s: BeltSection,
  wanted: number,
  count: number,
): { teeth: number; centre: number }[] {
  return s.stock
    .map((teeth) => ({ teeth, centre: centreForTeeth(p, s, teeth) }))
    .filter((b): b is { teeth: number; centre: number } => b.centre !== undefined && b.centre >= leastCentre(p, s))
    .sort((a, b) => Math.abs(a.centre - wanted) - Math.abs(b.centre - wanted))
    .slice(0, count);
}

const millimetres = (x: number): string => `${stated(x, 'length', 4)}`;

/** Solves the layout, or says why the belt cannot lie so and what would. */
export function layoutBelt(p: BeltParams, s: BeltSection): Result<BeltLayout> {
  const d1 = 2 * pitchRadius(s.pitch, p.z1);
  const d2 = 2 * pitchRadius(s.pitch, p.z2);
  const least = leastCentre(p, s);
  let centre: number;
  let teeth: number;
  if (p.closure === 'open') {
    centre = p.centre;
    if (centre < least) {
      return problem(
        `The pulleys overlap at a centre distance of ${millimetres(centre)}.`,
        `Their outsides and flanges need ${millimetres(least)}.`,
        'Move the shafts apart.',
        'centre',
        {
          path: 'centre',
          value: Math.ceil(least * 1e4) / 1e4,
          label: `Centre distance ${millimetres(Math.ceil(least * 1e4) / 1e4)}`,
        },
      );
    }
    const path = loopPath(wheelsAt(p, s, centre));
    teeth = path ? Math.ceil(path.length / s.pitch - 1e-9) : 0;
  } else {
    teeth = p.beltTeeth;
    if (p.setBy === 'centre') {
      const best = stockedNear(p, s, p.centre, 1)[0];
      if (!best)
        return problem(
          'No stocked belt of this section goes round these pulleys.',
          `The longest on the shelf has ${Math.max(...s.stock)} teeth.`,
          'Use an open-ended belt, smaller pulleys or another section.',
          'closure',
          { path: 'closure', value: 'open', label: 'Open-ended belt' },
        );
      teeth = best.teeth;
    }
    const solved = centreForTeeth(p, s, teeth);
    if (solved === undefined || solved < least) {
      const needed = s.stock.find((t) => (centreForTeeth(p, s, t) ?? 0) >= least);
      const why =
        solved === undefined
          ? `${teeth} teeth make ${millimetres(teeth * s.pitch)}, less than it takes to go round ${p.z1} and ${p.z2} teeth.`
          : `It would pull the shafts to ${millimetres(solved)}, and the pulleys need ${millimetres(least)} to clear each other.`;
      return problem(
        'The belt is too short for its pulleys.',
        why,
        needed
          ? `The shortest stocked belt that fits has ${needed} teeth.`
          : 'Take smaller pulleys or an open-ended belt.',
        'beltTeeth',
        needed ? { path: 'beltTeeth', value: needed, label: `Belt with ${needed} teeth` } : undefined,
      );
    }
    centre = solved;
  }
  const path = loopPath(wheelsAt(p, s, centre));
  // Near a pulley the idler's tangents can swap over; the length then never comes out, and such a belt cannot be laid.
  const closes = path && (p.closure === 'open' || Math.abs(path.length - teeth * s.pitch) < 1e-9);
  if (!path || !closes || (p.idler !== 'none' && path.wraps[1]! > Math.PI)) {
    return problem(
      'The belt cannot run over the idler where it is.',
      path ? 'The idler does not touch the belt.' : 'The idler stands in the way of a pulley.',
      'Move it along the span, press it further in, or take it out.',
      'idlerPush',
      { path: 'idler', value: 'none', label: 'No idler' },
    );
  }
  const last = path.wheels.length - 1;
  const idlerOverlap =
    p.idler !== 'none'
      ? [0, last].find(
          (i) =>
            Math.hypot(path.wheels[i]!.x - path.wheels[1]!.x, path.wheels[i]!.y - path.wheels[1]!.y) <
            path.wheels[i]!.r + (p.idler === 'inside' ? path.wheels[1]!.r : p.idlerDiameter / 2),
        )
      : undefined;
  if (idlerOverlap !== undefined) {
    return problem(
      'The idler runs into a pulley.',
      `It is closer to the ${idlerOverlap === 0 ? 'driving' : 'driven'} pulley than the two are wide.`,
      'Move it along the span or make it smaller.',
      'idlerAlong',
      { path: 'idler', value: 'none', label: 'No idler' },
    );
  }
  const wrap1 = path.wraps[0]!;
  const wrap2 = path.wraps[last]!;
  const mesh1 = (p.z1 * wrap1) / (2 * Math.PI);
  const mesh2 = (p.z2 * wrap2) / (2 * Math.PI);
  if (Math.min(mesh1, mesh2) < 3) {
    const longer = s.stock.find((t) => {
      const c = centreForTeeth(p, s, t);
      if (c === undefined || c < least) return false;
      return Math.min(p.z1, p.z2) * (Math.PI - 2 * Math.asin(Math.abs(d2 - d1) / 2 / c)) >= 3 * 2 * Math.PI;
    });
    return problem(
      `Only ${Math.min(mesh1, mesh2).toFixed(1)} teeth are in mesh on the smaller pulley.`,
      'Below three the load sits on so few teeth that they shear or jump.',
      'Take a larger small pulley or a longer centre distance.',
      'z1',
      longer && p.idler === 'none' && p.closure === 'closed'
        ? { path: 'beltTeeth', value: longer, label: `Belt with ${longer} teeth` }
        : undefined,
    );
  }
  const tightSpan = path.runs[last]!.length;
  let slackSpan = 0;
  for (let i = 0; i < last; i++) slackSpan += path.runs[i]!.length + (i > 0 ? path.wheels[i]!.r * path.wraps[i]! : 0);
  const length = p.closure === 'open' ? path.length : teeth * s.pitch;
  return ok({ d1, d2, centre, teeth, length, path, wrap1, wrap2, mesh1, mesh2, tightSpan, slackSpan });
}

/**
 * Length that slips a belt over a flange: one tooth height plus a twentieth of a pitch on either side, m.
 *
 * @example fittingLength({ toothHeight: 1.17e-3, pitch: 3e-3 }) // 0.00264
 */
export const fittingLength = (s: Pick<BeltSection, 'toothHeight' | 'pitch'>): number =>
  2 * (s.toothHeight + s.pitch / 20);

/** Length that the belt gives for a way of its shafts towards each other. */
export const belted = ({ d1, d2, centre }: Pick<BeltLayout, 'd1' | 'd2' | 'centre'>): number =>
  perWay(d1 / 2, d2 / 2, centre);

/** Take-up for slipping the belt over a flange, as centre distance, m. */
export const fittingTakeUp = (s: BeltSection, at: Pick<BeltLayout, 'd1' | 'd2' | 'centre'>): number =>
  fittingLength(s) / belted(at);

/**
 * How far an idler is moved to tension its belt and to let it go while the shafts stay where they are; undefined without
 * one.
 *
 * @param takeUp way of the shafts that would tension it, m
 */
export function idlerWays(p: BeltParams, s: BeltSection, L: BeltLayout, takeUp: number): Tensioning | undefined {
  if (p.idler === 'none') return undefined;
  // On its back the belt runs on a larger circle than the idler is.
  const within = p.idler === 'outside' ? backThickness(s) : 0;
  const at = (idlerPush: number) => {
    const wheels = wheelsAt({ ...p, idlerPush }, s, L.centre);
    return standsClear(wheels, 1, within) ? loopPath(wheels)?.length : undefined;
  };
  const bare = loopPath(wheelsAt({ ...p, idler: 'none' }, s, L.centre))!.length;
  return tensioning(at, bare, p.idlerPush, belted(L) * takeUp, fittingLength(s));
}
