import type { Anchored } from './anchor.ts';
import { screw } from './screw.ts';

/** The same screw with balls in its thread: what of it comes about otherwise. */
export const screwBall: Anchored = {
  kind: 'screw',
  further: true,
  params: { ...screw.params, type: 'ball' },
  duty: screw.duty,
  worked: {
    leadAngle: [0.07941013017, 'atan(2/(π·8)): balls run on the nominal diameter'],
    core: [0.006666666667, '8 mm less two thirds of the pitch'],
    efficiency: [0.9, 'of a ball screw, as the shop has it'],
    backward: [0.8, 'the same, turned back'],
    torque: [0.07073553026, '200 N·2 mm/(2π·0.9)'],
    lower: [0.05092958179, '200 N·2 mm·0.8/(2π)'],
    euler: [7137.623964, 'tan x = x: (x/L)²·E·I of the core', 2e-4],
    buckles: [4996.336774, 'seven tenths of it', 2e-4],
    whirl: [2307.463931, '(x/L)²·√(E·I/(ρ·A)), tan x = tanh x', 2e-5],
    yields: [12122.5225, 'von Mises of pull over the core and of the torque of a newton'],
    dents: [7000, 'its static rating'],
    rolls: [1.28e10, 'ISO 281: (4000/100)³·10⁶ turns at five a second'],
  },
};
