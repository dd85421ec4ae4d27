import { circle } from '../shape/outline.ts';
import type { Solid } from '../shape/solid.ts';
import type { Body } from './body.ts';
import { at, bodyOf, moved, ring, size, weighedIn } from './drawn.ts';
import { LIP, SLIDE, STEP } from './plan.ts';
import { reachOf } from './reach.ts';
import type { Plate } from './seats.ts';
import { axisOf, through, widest, type Setting, type Sweep } from './setting.ts';
import { sliced, type Hole } from './sliced.ts';

/** A ring of a stage that the housing holds. */
export interface HeldRing {
  readonly stage: number;
  readonly radius: number;
  readonly from: number;
  readonly to: number;
  /** What stops it along the axis, before and behind: where what moves leaves room for it. */
  readonly shelf: boolean;
  readonly clamp: boolean;
  /** Radius that is left free before it and behind it, m. */
  readonly before: number;
  readonly behind: number;
}

/** What is widest of all that stands still round the axis of a stage of the run, one or stacked, if anything does. */
function stillOf(
  { stages, sweeps }: Setting,
  k: number,
): (Pick<Sweep, 'from' | 'to' | 'body'> & { readonly radius: number }) | undefined {
  const [x, y] = axisOf(stages[k]!);
  const all = sweeps[k]!.filter(({ body }) => body.turns === 'fixed')
    .filter(({ body }) => {
      const frames = body.places(0);
      return frames.length === 1 && Math.hypot(frames[0]!.at[0] - x, frames[0]!.at[1] - y) < 1e-9;
    })
    .map((s) => ({ ...s, radius: reachOf(s.body.solid()) }));
  const radius = Math.max(...all.map((s) => s.radius));
  const wide = all.filter((s) => s.radius > radius - 1e-9);
  const first = wide[0];
  if (!first) return undefined;
  return {
    body: first.body,
    radius,
    from: Math.min(...wide.map((s) => s.from)),
    to: Math.max(...wide.map((s) => s.to)),
  };
}

/** What of a stage turns or rolls. */
const movingOf = ({ sweeps }: Setting, k: number): readonly Sweep[] =>
  sweeps[k]!.filter(({ body }) => body.turns !== 'fixed');

/**
 * What of a stage stands still inside of what turns, so that no wall reaches it: a sun, a cage, a plate of pins. A ring goes
 * in from above, so that nothing wider may turn before it either.
 */
export function heldInside(w: Setting, k: number): Body | undefined {
  const still = stillOf(w, k);
  if (!still) return undefined;
  const [x, y] = axisOf(w.stages[k]!);
  const beside = movingOf(w, k).filter((m) => m.from < still.to - w.h.gap);
  return widest(beside, x, y) > still.radius ? still.body : undefined;
}

/** The ring of a stage of the run that stands still round its axis, if it has one. */
export function heldRing(w: Setting, k: number): HeldRing | undefined {
  const { stages, plan, face, h } = w;
  const s = stages[k]!;
  const [x, y] = axisOf(s);
  const still = stillOf(w, k);
  if (!still || heldInside(w, k)) return undefined;
  const { radius } = still;
  const moving = movingOf(w, k);
  // What ends flush with the ring would rub on a shelf or a clamp that reached over it.
  const ahead = moving.filter((m) => m.from < still.from + h.gap - 1e-9);
  const beyond = moving.filter((m) => m.to > still.to - h.gap + 1e-9);
  const before = Math.max(widest(ahead, x, y), through(plan, face, k)) + h.gap;
  const behind = widest(beyond, x, y) + h.gap;
  const shelf = before <= radius - STEP;
  return {
    stage: s.index,
    radius,
    from: still.from,
    to: still.to,
    shelf,
    clamp: behind <= radius - STEP,
    before: shelf ? before : radius,
    behind,
  };
}

/** Radius that is free over a ring where nothing clamps it, m: what moves there may reach beyond it. */
const over = (r: HeldRing): number => (r.clamp ? r.radius : Math.max(r.radius, r.behind));

/** Radius of what holds a ring, m. */
export const holderRadius = (r: HeldRing, wall: number): number => over(r) + wall;

/** The hole that a ring stands in, from plate to plate: stepped where there is a shelf. */
export const ringHoles = (r: HeldRing, x: number, y: number, from: number, to: number): Hole[] =>
  [
    { outline: circle(x, y, r.before), from, to: r.from },
    { outline: circle(x, y, r.radius), from: r.from, to: r.to },
    { outline: circle(x, y, over(r)), from: r.to, to },
  ].filter((o) => o.to - o.from > 1e-9);

/** What holds the ring of a stage: a tube between the plates where no wall does, and a ring that keeps it down. */
export function ringBodies(w: Setting, held: HeldRing, k: number, bay: Plate, merged: boolean): Body[] {
  const { stages, h, step, shelf } = w;
  const [x, y] = axisOf(stages[k]!);
  const weighed = weighedIn(h.material, shelf);
  const numbered = (name: string) => (stages.length > 1 ? `${name} ${k + 1}` : name);
  const out: Body[] = [];
  if (!merged) {
    const holes = ringHoles(held, x, y, bay.from, bay.to);
    const tube = sliced(circle(x, y, holderRadius(held, h.wall)), bay.from, bay.to, holes);
    const solid = moved({ prisms: tube }, -bay.from);
    out.push(
      bodyOf(
        {
          id: `holder-${k + 1}`,
          name: numbered('Ring holder'),
          note: `holds the ring on ⌀ ${size(2 * held.radius)}, ${size(bay.to - bay.from)} high, clamped between the plates`,
          solid,
          frames: [at(0, 0, bay.from)],
          apart: (2 * k - 0.4) * step,
        },
        weighed(solid, h.wall),
      ),
    );
  }
  if (held.clamp && bay.to - held.to > LIP / 2) {
    const [outer, inner, high] = [2 * (held.radius - SLIDE), 2 * held.behind, bay.to - held.to];
    const solid: Solid = { prisms: [ring(outer, inner, 0, high)] };
    out.push(
      bodyOf(
        {
          id: `clamp-${k + 1}`,
          name: numbered('Clamp ring'),
          note: `⌀ ${size(outer)}, bored ${size(inner)}, ${size(high)} high: keeps the ring down`,
          solid,
          frames: [at(x, y, held.to)],
          apart: (2 * k + 0.6) * step,
        },
        weighed(solid, (outer - inner) / 2),
      ),
    );
  }
  return out;
}
