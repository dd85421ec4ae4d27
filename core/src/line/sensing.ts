import type { Variant } from '../schema/joint.ts';
import { factor, type Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import type { OutputPiece } from './output.ts';

/** A magnet across whose face its poles lie, as chips that read an angle want it: diameter and height, m; its density. */
const [ACROSS, HIGH, DENSITY] = [6e-3, 2.5e-3, 7500];
/** A chip on its board, kg. */
const BOARD = 4e-3;
/** Distance of the magnet from the chip, and from where to where it may be, m. */
const [GAP, NEAREST, FARTHEST] = [1e-3, 5e-4, 2e-3];
/** Price of the magnet, starting value. */
const MAGNET = 0.8;

/** Shafts of a line with a sensor of the joint's own: a servo motor brings its own. */
function shaftsOf({ sensor, motor }: Pick<Variant, 'sensor' | 'motor'>): readonly { shaft: string; counts: number }[] {
  const { place, counts, outputCounts } = sensor;
  const motorHas = motor.type !== 'servo' && (place === 'motor' || place === 'both');
  return [
    ...(motorHas ? [{ shaft: 'motor’s shaft', counts }] : []),
    ...(place === 'output' ? [{ shaft: 'output', counts }] : []),
    ...(place === 'both' ? [{ shaft: 'output', counts: outputCounts }] : []),
  ];
}

/** The sensors of a line and their magnets: what is bought for them. */
export function sensorPieces(variant: Pick<Variant, 'sensor' | 'motor'>, shelf: Shelf): readonly OutputPiece[] {
  const shafts = shaftsOf(variant);
  if (shafts.length === 0) return [];
  const size = (x: number) => stated(x, 'length', 3);
  return [
    ...shafts.map(({ shaft, counts }) => ({
      name: 'Angle sensor on a board',
      material: 'as supplied',
      note: `${counts} counts a turn, on the ${shaft}`,
      quantity: 1,
      mass: BOARD,
      money: factor(shelf, 'price.sensor'),
    })),
    {
      name: 'Magnet of an angle sensor',
      material: 'as supplied',
      note:
        `⌀ ${size(ACROSS)} × ${size(HIGH)}, magnetised across; ${size(GAP)} before the chip, ` +
        `${size(NEAREST)} to ${size(FARTHEST)} at most, centred on it; glued last`,
      quantity: shafts.length,
      mass: (Math.PI / 4) * ACROSS ** 2 * HIGH * DENSITY,
      money: MAGNET,
    },
  ];
}

/** What the sensors of a line weigh, kg, and cost. */
export function sensing(
  variant: Pick<Variant, 'sensor' | 'motor'>,
  shelf: Shelf,
): { readonly mass: number; readonly money: number } {
  const pieces = sensorPieces(variant, shelf);
  return {
    mass: pieces.reduce((s, p) => s + p.quantity * p.mass, 0),
    money: pieces.reduce((s, p) => s + p.quantity * p.money, 0),
  };
}
