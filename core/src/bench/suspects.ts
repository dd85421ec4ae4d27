import { stated } from '../units/stated.ts';
import type { QuantityId } from '../units/quantity.ts';
import type { LineOrder, OrderPeak } from './contract.ts';

const capital = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);
const mm = (x: number): string => stated(x, 'length', 2);

/**
 * Names what could have made a peak: orders of the line and their second and third harmonics within the resolution.
 *
 * @param resolution orders that cannot be told apart: one over the turns recorded
 * @param angle whether amplitudes are angles at the output, so that they can be told as a length in the hand
 */
export function suspectsFor(
  order: number,
  amplitude: number,
  quantity: QuantityId,
  orders: readonly LineOrder[],
  resolution: number,
  angle: boolean,
): OrderPeak {
  const reach = 0.6 * resolution + 0.002 * order;
  const list = orders
    .flatMap((o) => [1, 2, 3].map((h) => ({ o, h, off: Math.abs(o.order * h - order) })))
    .filter((x) => x.off <= reach)
    // The first harmonic of a part is likelier than the third of another.
    .sort((a, b) => a.h - b.h || a.off - b.off)
    .slice(0, 4)
    .map(({ o, h }) => ({
      name: h === 1 ? o.name : `${o.name}, ${h === 2 ? 'twice' : 'three times'}`,
      order: o.order * h,
      means:
        angle && o.lever > 0
          ? h === 2
            ? `oval, or two high places, by about ${mm(amplitude * o.lever)}`
            : h === 3
              ? `three high places (a chuck’s jaws) of about ${mm(amplitude * o.lever)}`
              : /teeth|tooth|mesh|pins|lobes/i.test(o.name)
                ? `each tooth is off by about ${mm(amplitude * o.lever)}: form, spacing or a damaged one`
                : `off centre by about ${mm(amplitude * o.lever)}, or a shaft as much out of line`
          : 'this part shakes once each time it comes round',
    }));
  const next =
    list.length === 0
      ? 'Nothing in the line turns at this order: look at the mount, the table, the mains or another machine.'
      : list.length === 1
        ? `Mark ${list[0]!.name}, turn it half a turn on its shaft and record again: a peak that turns with it is its own.`
        : `${capital(list.map((s) => s.name).join(' or '))}: turn one of them half a turn on its shaft and record again, or record more turns.`;
  return { order, amplitude, quantity, suspects: list, next };
}
