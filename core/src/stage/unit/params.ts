import * as v from 'valibot';
import { quantity } from '../../schema/quantity-schema.ts';

const size = (min: number, what: string) => v.pipe(quantity('length', min, 5), v.description(what));

/** A bought unit as its data sheet gives it, SI units. */
export const unitSchema = v.pipe(
  v.looseObject({
    designation: v.pipe(v.string(), v.maxLength(80), v.description('Standard designation or your own name for it')),
    ratio: v.pipe(
      quantity('ratio', -1e4, 1e4),
      v.check((x) => Math.abs(x) >= 0.01, 'must be at least 0.01, with its sign'),
      v.description('ω_in/ω_out; negative where the output turns the other way'),
    ),
    form: v.pipe(v.picklist(['inline', 'beside', 'angle']), v.description('Where the output lies to the input')),
    efficiency: v.pipe(quantity('efficiency', 0.01, 1), v.description('Forwards, under load')),
    backEfficiency: v.pipe(quantity('efficiency', -1, 1), v.description('Backwards; 0 or less where it holds itself')),
    drag: v.pipe(quantity('torque', 0, 1e3), v.description('No-load torque at the input, N·m')),
    play: v.pipe(quantity('smallAngle', 0, 1), v.description('Play at the output, likely, rad')),
    playMost: v.pipe(quantity('smallAngle', 0, 1), v.description('Play at the output, at most, rad')),
    stiffness: v.pipe(quantity('stiffness', 1e-3, 1e9), v.description('Torsional stiffness at the output, N·m/rad')),
    inertia: v.pipe(quantity('inertia', 0, 10), v.description('Inertia at the input, kg·m²')),
    ratedTorque: v.pipe(quantity('torque', 1e-4, 1e6), v.description('Rated output torque, N·m')),
    peakTorque: v.pipe(quantity('torque', 1e-4, 1e6), v.description('Short-time output torque, N·m')),
    ratedSpeed: v.pipe(quantity('speed', 1e-2, 1e5), v.description('Input speed the life is rated at, rad/s')),
    ratedLife: v.pipe(quantity('life', 0, 1e10), v.description('Life at rated torque and speed, s; 0 where not given')),
    maxSpeed: v.pipe(quantity('speed', 1e-2, 1e5), v.description('Highest input speed, rad/s')),
    outside: size(1e-3, 'Outside diameter or side, m'),
    length: size(1e-3, 'Length along the axis, m'),
    centre: size(0, 'Axis to axis where the output lies beside the input, m'),
    bore: size(0, 'Hollow passage along the output axis, m'),
    mass: v.pipe(quantity('mass', 0, 1e4), v.description('Mass, kg')),
    price: v.pipe(quantity('money', 0, 1e7), v.description('Price')),
  }),
  v.check((p) => p.playMost >= p.play, 'must have most play no less than the likely one'),
  v.check((p) => p.peakTorque >= p.ratedTorque, 'must have a short-time torque no less than the rated one'),
);

export type UnitParams = v.InferOutput<typeof unitSchema>;
