import { demandOf } from '../brief/demand.ts';
import type { OperatingPoint } from '../brief/pattern.ts';
import type { Joint, Variant } from '../schema/joint.ts';
import { driverFor, withSupply } from '../motor/drive.ts';
import { fullCurrent, setDriver } from '../motor/driver.ts';
import type { Supply } from '../motor/motor.ts';
import type { Shelf } from '../shop/shelf.ts';
import { stated } from '../units/stated.ts';
import { DESK_LEAST, DESK_MOST, marginAt } from './desk.ts';

/** A change that makes an impossible demand possible. */
export interface WayOut {
  readonly id: 'motor' | 'voltage' | 'supply' | 'current' | 'speed' | 'load';
  /** Verb first, as on a button. */
  readonly label: string;
  readonly why: string;
  /** How large the change is, as |ln factor|; the nearest come first. */
  readonly size: number;
  readonly apply:
    | { readonly motor: string }
    | { readonly supply: string }
    | { readonly driver: { readonly key: 'supplyVoltage' | 'supplyCurrent' | 'currentLimit'; readonly value: number } }
    | { readonly speedBy: number }
    | { readonly torqueBy: number };
}

export interface Reach {
  /** Best over all ratios of the least of available over asked. */
  readonly margin: number;
  readonly ratio: number;
  /** Whether any motor on the shelf would do. */
  readonly shelf: boolean;
  /** The two nearest ways out; empty where the motor reaches it. */
  readonly ways: readonly WayOut[];
}

const STEP = 1.06;

function bestOver(
  v: Pick<Variant, 'motor' | 'driver'>,
  points: readonly OperatingPoint[],
  shelf: Shelf,
  arrives: number,
): { margin: number; ratio: number } {
  let [margin, ratio] = [0, 1];
  for (let i = DESK_LEAST; i <= DESK_MOST; i *= STEP) {
    const m = marginAt(v, points, shelf, i, arrives);
    const least = Math.min(m.peak, m.ever);
    if (least > margin) [margin, ratio] = [least, i];
  }
  return { margin, ratio };
}

/** Another supply of the shop as a way out. */
const otherSupply = (to: Supply, from: Supply, why: string): WayOut => ({
  id: 'supply',
  label: `Take ${to.name[0]!.toLowerCase()}${to.name.slice(1)}`,
  why,
  size: Math.abs(Math.log((to.voltage * to.current) / (from.voltage * from.current))) + 0.05,
  apply: { supply: to.id },
});

/**
 * Whether any ratio lets the motor meet the brief, and where none does, the two nearest ways out: another motor of the
 * shelf, more
 * voltage or current, less speed, less load.
 *
 * @param arrives share of the motor's work that arrives, as η per stage to the number of stages
 */
export function waysOut(
  joint: Pick<Joint, 'brief'>,
  variant: Variant,
  shelf: Shelf,
  arrives: number,
  holds = false,
): Reach {
  const demand = demandOf(joint.brief, shelf);
  const points = holds ? demand.points.filter((p) => p.speed > 0) : demand.points;
  const now = bestOver(variant, points, shelf, arrives);
  if (now.margin >= 1) return { ...now, shelf: true, ways: [] };
  const { motor, driver } = variant;
  const ways: WayOut[] = [];
  const able = shelf.motors
    .filter(
      (m) =>
        m.id !== motor.id &&
        bestOver(
          { motor: m as Variant['motor'], driver: driverFor(m, motor, driver, shelf) as Variant['driver'] },
          points,
          shelf,
          arrives,
        ).margin >= 1,
    )
    .sort((a, b) => a.mass - b.mass);
  if (able[0])
    ways.push({
      id: 'motor',
      label: `Take ${able[0].name}`,
      why: `The lightest on the shelf that reaches it, ${stated(able[0].mass, 'mass', 3)}.`,
      size: Math.abs(Math.log(Math.max(able[0].mass, 1e-3) / Math.max(motor.mass, 1e-3))) + 0.2,
      apply: { motor: able[0].id },
    });
  const full = Math.min(fullCurrent(motor, driver), driver.unit?.current ?? Infinity);
  for (let current = driver.currentLimit * 1.05; current <= full * 1.0001; current *= 1.05) {
    if (bestOver({ motor, driver: { ...driver, currentLimit: current } }, points, shelf, arrives).margin < 1) continue;
    const value = Math.min(full, Math.ceil(current * 10) / 10);
    ways.push({
      id: 'current',
      label: `Set the driver to ${stated(value, 'current', 5)}`,
      why: 'The motor stands it; the driver holds it back.',
      size: Math.log(value / driver.currentLimit),
      apply: { driver: { key: 'currentLimit', value } },
    });
    break;
  }
  const reaches = (d: ReturnType<typeof setDriver>) =>
    bestOver({ motor, driver: d as Variant['driver'] }, points, shelf, arrives).margin >= 1;
  const [current, voltage] = [
    'Power is short at speed, not current in the winding: the supply holds the motor back.',
    'More voltage gives more speed, and with it more ratio. Driver and motor must be rated for it.',
  ];
  if (driver.supply) {
    // What is chosen from the shop is replaced from the shop.
    const { unit } = driver;
    const found = shelf.supplies
      .filter((s) => !unit || (unit.least <= s.voltage && s.voltage <= unit.most))
      .sort((a, b) => a.price - b.price)
      .find((s) => reaches(withSupply(driver, s)));
    if (found) ways.push(otherSupply(found, driver.supply, found.voltage > driver.supply.voltage ? voltage : current));
  } else {
    const first = (id: 'supply' | 'voltage', factors: readonly number[]): void => {
      const key = id === 'supply' ? 'supplyCurrent' : 'supplyVoltage';
      for (const factor of factors) {
        const value = id === 'supply' ? Math.ceil(driver[key] * factor) : Math.round(driver[key] * factor);
        if (!reaches(setDriver(driver, key, value))) continue;
        ways.push({
          id,
          label:
            id === 'supply'
              ? `Supply that gives ${stated(value, 'current', 5)}`
              : `Supply ${stated(value, 'voltage', 5)}`,
          why: id === 'supply' ? current : voltage,
          size: Math.log(factor) + (id === 'supply' ? 0.05 : 0.1),
          apply: { driver: { key, value } },
        });
        return;
      }
    };
    first('supply', [1.25, 1.5, 2, 3, 5]);
    first('voltage', [1.25, 1.5, 2, 3]);
  }
  // Slowed down, more ratio is left; the largest share of the speed that does it, by halving.
  const slowed = (s: number) =>
    bestOver(
      variant,
      points.map((p) => ({ ...p, speed: p.speed * s })),
      shelf,
      arrives,
    ).margin;
  if (slowed(0.02) >= 1) {
    let [lo, hi] = [0.02, 1];
    for (let k = 0; k < 9; k++) {
      const mid = (lo + hi) / 2;
      if (slowed(mid) >= 1) lo = mid;
      else hi = mid;
    }
    const by = Math.floor(lo * 100) / 100;
    ways.push({
      id: 'speed',
      label: `Ask for ${(by * 100).toFixed(0)} % of the speed`,
      why: `${stated(demand.speed * by, 'speed', 3)} in place of ${stated(demand.speed, 'speed', 3)}: more ratio is left for torque.`,
      size: Math.abs(Math.log(by)),
      apply: { speedBy: by },
    });
  }
  if (now.margin > 0.02) {
    const by = Math.floor(now.margin * 100) / 100;
    ways.push({
      id: 'load',
      label: `Ask for ${(by * 100).toFixed(0)} % of the load`,
      why: `${stated(demand.peak * by, 'torque', 3)} in place of ${stated(demand.peak, 'torque', 3)} at the peak.`,
      size: Math.abs(Math.log(by)),
      apply: { torqueBy: by },
    });
  }
  return { ...now, shelf: able.length > 0, ways: ways.sort((a, b) => a.size - b.size).slice(0, 2) };
}
