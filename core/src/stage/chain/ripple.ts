import type { Course } from '../contract.ts';
import type { ChainParams } from './params.ts';

/** Angles over a turn at which the course is told. */
const STEPS = 720;

/**
 * Speed of the chain over a turn of the driver as a share of its mean: cos θ over each tooth's angle, θ from −180°/z to
 * 180°/z, over its mean sin(π/z)/(π/z).
 *
 * Source: the driver as a polygon whose corner pulls the run along.
 */
export function rippleCourse(p: Pick<ChainParams, 'z1'>): Course {
  const half = Math.PI / p.z1;
  const mean = Math.sin(half) / half;
  const values = new Float64Array(STEPS + 1);
  for (let i = 0; i <= STEPS; i++) {
    const turned = (2 * Math.PI * i) / STEPS;
    const within = (turned % (2 * half)) - half;
    values[i] = Math.cos(within) / mean;
  }
  values[STEPS] = values[0]!;
  return { id: 'ripple', name: 'Chain speed over its mean', quantity: 'ratio', values };
}
