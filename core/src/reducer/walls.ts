import type { HullArc } from '../shape/hull.ts';
import { hullOutline } from '../shape/hull.ts';
import type { Solid } from '../shape/solid.ts';
import type { Body } from './body.ts';
import { at, bodyOf, moved, ring, size, weighedIn } from './drawn.ts';
import { openedAtFace } from './blocks.ts';
import { tieHoles, type Shared } from './plates.ts';
import { ringHoles, type HeldRing } from './rings.ts';
import type { Plate } from './seats.ts';
import { axisOf, type Setting } from './setting.ts';
import { sliced } from './sliced.ts';

/**
 * What keeps two plates apart: a wall all round, or a post at every screw.
 *
 * @param inner outline of the room inside
 * @param held the ring that the wall holds itself; undefined where it holds none
 * @param post radius of a post, m
 */
export function sideBody(
  w: Setting,
  k: number,
  bay: Plate,
  shared: Shared,
  inner: readonly HullArc[],
  held: HeldRing | undefined,
  post: number,
): Body {
  const { h, screw, stages, step, shelf } = w;
  const weighed = weighedIn(h.material, shelf);
  const high = bay.to - bay.from;
  const apart = (2 * k - 0.4) * step;
  const numbered = (name: string) => (stages.length > 1 ? `${name} ${k + 1}` : name);
  if (h.sides === 'posts') {
    const solid: Solid = { prisms: [ring(2 * post, screw.hole, 0, high)] };
    return bodyOf(
      {
        id: `post-${k + 1}`,
        name: numbered('Post'),
        note: `⌀ ${size(2 * post)}, bored ${size(screw.hole)}, ${size(high)} long`,
        solid,
        frames: shared.centres.map((c) => at(c.x, c.y, bay.from)),
        apart,
      },
      weighed(solid, post - screw.hole / 2),
    );
  }
  const [x, y] = axisOf(stages[k]!);
  const room = held
    ? ringHoles(held, x, y, bay.from, bay.to)
    : [{ outline: hullOutline(inner), from: bay.from, to: bay.to }];
  // Where the motor stands across, its block closes the wall.
  const open = k === 0 ? openedAtFace(w, shared.outline, hullOutline(inner)) : undefined;
  const holes = [...tieHoles(w, shared, bay), ...(open ? [] : room)];
  const solid = moved({ prisms: sliced(open ?? shared.outline, bay.from, bay.to, holes) }, -bay.from);
  return bodyOf(
    {
      id: `wall-${k + 1}`,
      name: numbered('Wall'),
      note: `${size(high)} high, ${size(h.wall)} thick${held ? `, holds the ring on ⌀ ${size(2 * held.radius)}` : ''}`,
      solid,
      frames: [at(0, 0, bay.from)],
      apart,
    },
    weighed(solid, h.wall),
  );
}
