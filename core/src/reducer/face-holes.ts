import { SCREWS } from '../shop/fasteners.ts';
import { slot } from './drawn.ts';
import { facePlaces } from './motor-body.ts';
import { HEAD_ROOM, SLIDE } from './plan.ts';
import type { Plate } from './seats.ts';
import type { Setting } from './setting.ts';
import type { Hole } from './sliced.ts';

/**
 * What a motor takes out of what it is screwed on: its screws with their heads sunk, its pilot, its shaft.
 *
 * @param mx and my where its shaft is
 * @param slide how far it is moved along x and back, m
 */
export function motorHoles({ face, h }: Setting, p: Plate, mx: number, my: number, slide: number): Hole[] {
  const s = SCREWS[face.thread];
  const sunk = p.to - s.headHeight - HEAD_ROOM[1];
  const pilot = face.pilot > 0 ? p.from + face.pilotHeight + HEAD_ROOM[1] : p.from;
  return [
    ...facePlaces(face).flatMap(([dx, dy]): Hole[] => [
      { outline: slot(mx + dx, my + dy, s.hole / 2, slide), from: p.from, to: sunk },
      { outline: slot(mx + dx, my + dy, (s.head + HEAD_ROOM[0]) / 2, slide), from: sunk, to: p.to },
    ]),
    ...(pilot > p.from ? [{ outline: slot(mx, my, face.pilot / 2 + SLIDE, slide), from: p.from, to: pilot }] : []),
    { outline: slot(mx, my, face.shaft / 2 + h.gap, slide), from: pilot, to: p.to },
  ];
}
