import type { Bump } from '../shape/hull.ts';
import { circle } from '../shape/outline.ts';
import { prism, type Solid } from '../shape/solid.ts';
import { intoHole, lengthFor, nutMass, screwMass, SCREWS, washerMass, type Screw } from '../shop/fasteners.ts';
import type { Body } from './body.ts';
import { at, bodyOf, hexagon, mm, ring, size, STEEL } from './drawn.ts';
import { facePlaces } from './motor-body.ts';
import { HEAD_ROOM } from './plan.ts';
import type { Plate } from './seats.ts';
import type { Setting } from './setting.ts';
import type { Frame } from './frame.ts';

const steel = { made: 'bought', material: STEEL.name } as const;

/** Price of a washer, starting value. */
const WASHER = 0.02;

/** A screw with its head above z = 0 and its thread below. */
export const screwSolid = (s: Screw, length: number): Solid => ({
  prisms: [prism(circle(0, 0, s.d / 2), -length, 0), prism(circle(0, 0, s.head / 2), 0, s.headHeight)],
});

/** Screws through the whole stack with nuts and washers; threaded rods with nuts at both ends where no screw is so long. */
export function tieBodies(
  { screw: s, step, stages, h }: Setting,
  centres: readonly Bump[],
  bottom: number,
  top: number,
): Body[] {
  const apart = (2 * stages.length + 0.6) * step;
  const w = s.washerHeight;
  const grip = top - bottom + 2 * w;
  // What it is mounted by stands out: a rod with nuts, since a head would be in the way.
  const stands = h.stands ?? 0;
  const long = stands > 0 ? undefined : lengthFor(s, grip);
  const each = (z: number) => centres.map((c) => at(c.x, c.y, z));
  const nut: Solid = { prisms: [prism(hexagon(s.nut), 0, s.nutHeight, [circle(0, 0, s.d / 2)])] };
  const washer: Solid = { prisms: [ring(s.washer, 1.07 * s.d, 0, w)] };
  const rod = grip + 2 * s.nutHeight + 3 * s.pitch + stands;
  return [
    long === undefined
      ? bodyOf(
          {
            id: 'tie',
            name: `Threaded rod ${s.id}×${Math.ceil(rod * 1e3)}`,
            note:
              stands > 0
                ? `DIN 976-1, through the whole housing, standing out by ${size(stands)} to mount it`
                : 'DIN 976-1, through the whole housing; no standard screw is so long',
            solid: { prisms: [prism(circle(0, 0, s.d / 2), 0, rod)] },
            frames: each(bottom - w - s.nutHeight - 1.5 * s.pitch),
            apart,
          },
          { ...steel, mass: STEEL.density * s.area * rod, money: s.rodPrice * rod },
        )
      : bodyOf(
          {
            id: 'tie',
            name: `Screw ISO 4762 ${s.id}×${mm(long)}`,
            note: `through the whole housing, grip ${size(top - bottom)}; key ${size(s.key)}`,
            solid: screwSolid(s, long),
            frames: each(top + w),
            apart,
          },
          { ...steel, mass: screwMass(s, long), money: s.price },
        ),
    bodyOf(
      {
        id: 'washer',
        name: `Washer ISO 7089 ${s.id}`,
        note: 'under every head and nut',
        solid: washer,
        frames: [...each(bottom - w), ...each(top)],
        apart: 0,
      },
      { ...steel, mass: washerMass(s), money: WASHER },
    ),
    bodyOf(
      {
        id: 'nut',
        name: `Nut ISO 4032 ${s.id}`,
        note: `${size(s.nut)} across flats`,
        solid: nut,
        frames: [...each(bottom - w - s.nutHeight), ...(long === undefined ? each(top + w) : [])],
        apart: 0,
      },
      { ...steel, mass: nutMass(s), money: s.nutPrice },
    ),
  ];
}

/**
 * The screws that hold the motor to its plate or block, from inside.
 *
 * @param plate along the motor's axis, m
 * @param stands frame of a place beside the motor's axis, so far along it
 * @param apart how far they move when the line is drawn apart, m
 */
export function motorScrews(
  { face }: Pick<Setting, 'face'>,
  plate: Plate,
  stands: (dx: number, dy: number, along: number) => Frame,
  apart: number,
): Body {
  const s = SCREWS[face.thread];
  const seat = plate.to - s.headHeight - HEAD_ROOM[1];
  const long = intoHole(s, seat - plate.from, face.deep) ?? s.lengths[0]!;
  return bodyOf(
    {
      id: 'screw-motor',
      name: `Screw ISO 4762 ${s.id}×${mm(long)}`,
      note: `holds the motor; key ${size(s.key)}`,
      solid: screwSolid(s, long),
      frames: facePlaces(face).map(([dx, dy]) => stands(dx, dy, seat)),
      apart,
    },
    { ...steel, mass: screwMass(s, long), money: s.price },
  );
}
