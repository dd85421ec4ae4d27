import type { Motor } from '../motor/motor.ts';
import type { Housing } from '../schema/joint.ts';
import type { Round } from '../shape/hull.ts';
import { circle, rectangle, type Outline } from '../shape/outline.ts';
import { prism, type Solid } from '../shape/solid.ts';
import { SCREWS } from '../shop/fasteners.ts';
import { faceOf, type MotorFace } from '../shop/motor-face.ts';

/**
 * A motor's face as the joint gives it, or as its frame has it.
 *
 * @param bore of the wheel that sits on its shaft, m; 0 where none does
 */
export function ownFace(motor: Motor, housing: Housing | undefined, bore = 0): MotorFace {
  const standard = faceOf(motor);
  // Where no standard says how thick the shaft is, it is taken to fit the wheel that sits on it.
  const usual = standard.form === 'round' && bore > 0 ? { ...standard, shaft: bore } : standard;
  return housing?.face ? { ...usual, ...housing.face, source: 'as you gave it' } : usual;
}

/** The outside of a motor seen along its shaft. */
export function motorOutline(motor: Motor, face: MotorFace): Outline {
  const r = motor.frame / 2;
  return face.form === 'square' ? rectangle(-r, -r, r, r) : circle(0, 0, r);
}

/** A motor as it is seen: its face at z = 0, its shaft along z. */
export function motorSolid(motor: Motor, face: MotorFace): Solid {
  const outline = motorOutline(motor, face);
  const tapped = facePlaces(face).map(([x, y]) => circle(x, y, SCREWS[face.thread].d / 2));
  const shaft = circle(0, 0, face.shaft / 2);
  return {
    prisms: [
      prism(outline, -motor.length, -face.deep),
      prism(outline, -face.deep, 0, tapped),
      ...(face.pilot > face.shaft && face.pilotHeight > 0
        ? [prism(circle(0, 0, face.pilot / 2), 0, face.pilotHeight, [shaft])]
        : []),
    ],
  };
}

/** Where the tapped holes of a face are, about the shaft, m: the first to the right and up, as on a square. */
export const facePlaces = (face: MotorFace): (readonly [number, number])[] =>
  Array.from({ length: face.screws }, (_, k) => {
    const a = Math.PI / face.screws + (2 * Math.PI * k) / face.screws;
    return [(face.circle / 2) * Math.cos(a), (face.circle / 2) * Math.sin(a)];
  });

/** Circles that hold a motor seen along its shaft. */
export function motorRounds(motor: Motor, face: MotorFace, x: number, y: number, more: number): Round[] {
  const r = motor.frame / 2;
  if (face.form === 'round') return [{ x, y, r: r + more }];
  return [-r, r].flatMap((dx) => [-r, r].map((dy): Round => ({ x: x + dx, y: y + dy, r: more })));
}

/** Its shaft, which turns. */
export const motorShaft = (face: MotorFace): Solid => ({
  prisms: [prism(circle(0, 0, face.shaft / 2), 0, face.reach)],
});
