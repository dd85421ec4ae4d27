import type { Material } from '../schema/joint.ts';
import { circle, type Outline } from '../shape/outline.ts';
import type { Bump, BumpSize } from '../shape/hull.ts';
import type { Prism, Solid } from '../shape/solid.ts';
import { SCREWS, type Screw } from '../shop/fasteners.ts';
import type { MotorFace } from '../shop/motor-face.ts';
import type { Body } from './body.ts';
import { at, bodyOf, moved, plateId, size, weighedIn } from './drawn.ts';
import { pinHoles, threadsIn } from './idle-pins.ts';
import { motorHoles } from './face-holes.ts';
import { EDGE, hasHub, HUB, STEP } from './plan.ts';
import { grooves, padPrisms } from './blocks.ts';
import { clipped, seatIn, type Boss, type Plate, type Seat } from './seats.ts';
import { axisOf, widest, type Setting } from './setting.ts';
import { sliced, type Hole } from './sliced.ts';

/** Where the plates of a run lie along the axis. */
export function platesOf({ plan, stages, variant, h }: Setting): Plate[] {
  return plan.plates.map((thick, i) => {
    const [before, behind] = plan.more;
    if (i === 0) return { from: stages[0]!.from - h.gap - before - thick, to: stages[0]!.from - h.gap - before };
    const from = stages[i - 1]!.to + (hasHub(plan, variant, i - 1) ? HUB : 0) + h.gap + (i === 1 ? behind : 0);
    return { from, to: from + thick };
  });
}

/** What all plates share: their outline, where its screws are, and the least radius inside, m. */
export interface Shared {
  readonly outline: Outline;
  readonly centres: readonly Bump[];
  readonly inside: number;
  /** Outline of the plate that has ears, and where they are. */
  readonly eared: { readonly outline: Outline; readonly ears: readonly Bump[] } | undefined;
}

/** Holes of the screws that hold the housing together. */
export const tieHoles = ({ screw }: Setting, { centres }: Shared, { from, to }: Plate): Hole[] =>
  centres.map((c) => ({ outline: circle(c.x, c.y, screw.hole / 2), from, to }));

/** Holes of the ears that the housing is mounted by. */
const earHoles = ({ h }: Setting, ears: readonly Bump[], { from, to }: Plate): Hole[] =>
  ears.map((c) => ({ outline: circle(c.x, c.y, SCREWS[h.ears!.screw].hole / 2), from, to }));

/** What an ear is like: its screw's washer stands clear of the walls, and on it. */
export function earSize(screw: Screw): BumpSize {
  const beyond = screw.washer / 2 + EDGE / 2;
  return { r: 1.25 * beyond, beyond };
}

/** Whether a seat lies where the motor's shaft would go through. */
const covers = (s: Seat, x: number, y: number, { face, h }: Setting): boolean =>
  Math.hypot(s.x - x, s.y - y) < ((s.bearing?.outside ?? s.diameter) + face.shaft) / 2 + h.gap + EDGE / 2;

/** The hole that a plate has on the motor's axis, or on the output's, beside its bearings. */
function passage(w: Setting, i: number, p: Plate, here: readonly Seat[], bottom: number, inside: number): Hole[] {
  const { plan, face, h, stages, sweeps, output } = w;
  const [mx, my] = axisOf(stages[0]!);
  const last = stages.length - 1;
  const out: Hole[] = [];
  const round = (to: number) => ({ outline: circle(mx, my, face.shaft / 2 + h.gap), from: p.from, to });
  const tip = bottom + face.reach;
  if (i === 0 && plan.direct) out.push(...motorHoles(w, p, mx, my, stages[0]!.ports.input.slide ?? 0));
  else if (i === 0 && !plan.aside) out.push(round(p.to));
  else if (i === 1 && plan.direct && tip > p.from - h.gap && !here.some((s) => covers(s, mx, my, w)))
    // The motor's shaft ends in the next plate, or goes through it.
    out.push(round(Math.min(p.to, tip + h.gap)));
  if (i === last + 1 && !output && plan.links[last]!.hub) {
    // The stage's own flange is what is screwed to: the cover leaves it free.
    const flange = sweeps[last]!.filter((s) => s.body.turns === 'output' && s.to > stages[last]!.to - 1e-6);
    const reach = Math.min(widest(flange, 0, 0) + h.gap, inside - STEP);
    out.push({ outline: circle(0, 0, reach), from: p.from, to: p.to });
  }
  return out;
}

/** A plate with its holes and the bosses on it, from its own lower face. */
function plateSolid(
  p: Plate,
  outline: Outline,
  holes: readonly Hole[],
  bosses: readonly Boss[],
  pad: readonly Prism[],
): Solid {
  const cut = (list: readonly Hole[], from: number, to: number) =>
    list.filter((o) => o.to > from + 1e-9 && o.from < to - 1e-9).map((o) => clipped(o, from, to));
  return moved(
    {
      prisms: [
        ...sliced(outline, p.from, p.to, cut(holes, p.from, p.to)),
        ...bosses.flatMap((o) => sliced(circle(o.x, o.y, o.r), o.from, o.to, cut(o.holes, o.from, o.to))),
        ...pad,
      ],
    },
    -p.from,
  );
}

/** The plates of a run: the motor's, those between stages, the cover. */
export function plateBodies(w: Setting, plates: readonly Plate[], seats: readonly Seat[], shared: Shared): Body[] {
  const { plan, h, pair, output, variant, face, step, shelf } = w;
  const last = plates.length - 1;
  const ofHousing = weighedIn(h.material, shelf);
  const ofMount = weighedIn((variant.mount as Material | undefined) ?? h.material, shelf);
  return plates.map((p, i) => {
    const here = seats.filter((s) => s.plate === i);
    const eared = w.h.ears && i === (w.h.ears.on === 'cover' ? last : 0) ? shared.eared : undefined;
    const cuts = here.map((s) => seatIn(p, s, s.of === 'output' && pair ? output!.span : 0, h.wall));
    const bosses = cuts.flatMap((c) => (c.boss ? [c.boss] : []));
    const holes = [
      ...tieHoles(w, shared, p),
      ...cuts.flatMap((c) => c.holes),
      ...passage(w, i, p, here, plates[0]!.from, shared.inside),
      ...pinHoles(w, i, p),
      ...(eared ? earHoles(w, eared.ears, p) : []),
      ...grooves(w, i, p),
    ];
    const motor = i === 0 && plan.direct;
    const solid = plateSolid(p, eared?.outline ?? shared.outline, holes, bosses, padPrisms(w, i, p));
    return bodyOf(
      {
        id: plateId(i, plates.length),
        name: motor ? 'Motor plate' : i === 0 ? 'First plate' : i === last ? 'Cover' : `Plate ${i + 1}`,
        note: plateNote(p, here, bosses, motor ? face : undefined, [
          eared && `${eared.ears.length} ears for ${w.h.ears!.screw}`,
          threadsIn(w, i),
        ]),
        solid,
        frames: [at(0, 0, p.from)],
        apart: (2 * i - 1) * step,
      },
      (motor ? ofMount : ofHousing)(solid, p.to - p.from),
    );
  });
}

function plateNote(
  p: Plate,
  seats: readonly Seat[],
  bosses: readonly Boss[],
  face: MotorFace | undefined,
  more: readonly (string | undefined)[],
): string {
  const high = bosses.reduce((most, o) => Math.max(most, o.to - o.from), 0);
  return [
    `${size(p.to - p.from)} thick`,
    ...(face ? [`${face.screws} × ${face.thread} on ⌀ ${size(face.circle)} for the motor, heads sunk`] : []),
    ...more.filter((x) => x !== undefined),
    ...(high > 1e-9 ? [`boss ${size(high)} high for a bearing`] : []),
    ...seats.map((s) =>
      s.bearing ? `seat ⌀ ${size(s.bearing.outside)} for ${s.bearing.name}` : `bore ⌀ ${size(s.diameter)}, no bearing`,
    ),
  ].join(', ');
}
