import type { Anchored } from './anchor.ts';
import { ringPlate } from './ring-plate.ts';

const SOUGHT =
  'most torque for a newton a crank: a linear programme over both cranks’ forces, 720 sides to a circle, plates in balance about their pitch points';
const CLOSED = '1.22 of 2.4 N·m over the least of Z·e·Σ|u × A|/|A + (Z + 1)·e·u|, 7200 angles';

/** The same wheel and plates on other cranks: the worst crank’s force, and the least of the torque over its most. */
const cranks = (over: Record<string, unknown>, force: number, score: number, how: string): Anchored => ({
  kind: 'ring-plate',
  further: true,
  params: { ...ringPlate.params, ...over },
  duty: ringPlate.duty,
  worked: {
    crankForce: [force, how, 1e-5],
    score: [score, how, 3e-5],
    dead: [(570 * 2.4) / force, '570 N by 2.4 N·m over it', 1e-5],
  },
});

const QUARTER = { spread: 'quarter', plates: 2 };
export const oneCrank = cranks({ layout: 'one' }, 249.91458275, 0.7072268257, CLOSED);
export const oneQuarter = cranks({ layout: 'one', ...QUARTER }, 382.693646305, 0.5499486596, CLOSED);
export const idleCrank = cranks({ layout: 'idle' }, 144.54785479, 0.8441946806, SOUGHT);
export const idleQuarter = cranks({ layout: 'idle', ...QUARTER }, 238.8981818, 0.7660167131, SOUGHT);
export const bothQuarter = cranks({ layout: 'both', ...QUARTER }, 106.247386513, 0.9296497348, SOUGHT);
