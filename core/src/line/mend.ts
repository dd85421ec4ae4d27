import type { Mend } from '../figure/index.ts';
import { ownFace } from '../reducer/motor-body.ts';
import { setDriver } from '../motor/driver.ts';
import { withSupply, withUnit } from '../motor/drive.ts';
import type { Variant } from '../schema/joint.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Change } from '../stage/mend.ts';

/**
 * A variant with the change made that a line's check proposes, and what it takes along.
 *
 * @returns the variant itself where the shop no longer has what is asked for
 */
export const mended = (
  variant: Variant,
  { path, value, also }: Pick<Mend, 'path' | 'value' | 'also'>,
  shelf: Shelf,
): Variant => mendedBy(variant, { [path]: value, ...also }, shelf);

/** The same of changes by path, one after the other. */
export const mendedBy = (variant: Variant, change: Change, shelf: Shelf): Variant =>
  Object.entries(change).reduce((v, [path, value]) => changed(v, path, value, shelf), variant);

/** A variant whose motor's shaft is cut to a length from the face, m: its face is then given, not its frame's. */
function withReach(variant: Variant, reach: number): Variant {
  const { housing, motor } = variant;
  if (!housing) return variant;
  const { pilot, screws, circle, deep, thread, shaft } = ownFace(motor, housing);
  return {
    ...variant,
    housing: { ...housing, face: { pilot, screws, circle, deep, thread, shaft, ...housing.face, reach } },
  };
}

function changed(variant: Variant, path: string, value: number | string, shelf: Shelf): Variant {
  const of = <T extends { readonly id: string }>(list: readonly T[]): T | undefined => list.find((x) => x.id === value);
  const { motor, driver, output } = variant;
  const drive = (d: typeof driver | ReturnType<typeof setDriver>): Variant => ({
    ...variant,
    driver: d as Variant['driver'],
  });
  switch (path) {
    case 'driver.currentLimit':
      return drive(setDriver(driver, 'currentLimit', Number(value)));
    case 'driver.brake':
      return drive({ ...driver, brake: Number(value) });
    case 'driver.unit': {
      const unit = of(shelf.drivers);
      return unit ? drive(withUnit(driver, unit, motor)) : variant;
    }
    case 'driver.supply': {
      const supply = of(shelf.supplies);
      return supply ? drive(withSupply(driver, supply)) : variant;
    }
    case 'motor.sensored':
      return motor.type === 'brushless' ? { ...variant, motor: { ...motor, sensored: true } } : variant;
    case 'mount': {
      const mount = of(shelf.materials);
      return mount ? { ...variant, mount: { ...mount } } : variant;
    }
    case 'output.balls':
      return output?.race
        ? { ...variant, output: { ...output, race: { ...output.race, balls: Number(value) } } }
        : variant;
    case 'output.bearing': {
      const bearing = of(shelf.bearings);
      return output && bearing ? { ...variant, output: { ...output, bearing: { ...bearing } } } : variant;
    }
    case 'output.shaftLength':
      return output ? { ...variant, output: { ...output, shaftLength: Number(value) } } : variant;
    case 'housing.ears.screw': {
      const { housing } = variant;
      if (!housing?.ears) return variant;
      const screw = value as NonNullable<Variant['housing']>['screw'];
      return { ...variant, housing: { ...housing, ears: { ...housing.ears, screw } } };
    }
    case 'housing.gap':
      return variant.housing ? { ...variant, housing: { ...variant.housing, gap: Number(value) } } : variant;
    case 'housing.plate':
      return variant.housing ? { ...variant, housing: { ...variant.housing, plate: Number(value) } } : variant;
    case 'housing.screw':
      return variant.housing
        ? { ...variant, housing: { ...variant.housing, screw: value as NonNullable<Variant['housing']>['screw'] } }
        : variant;
    case 'housing.reach':
      return withReach(variant, Number(value));
    default: {
      const of = /^stages\.(\d+)\.(\w+)$/.exec(path);
      if (!of) throw new Error(`no way to mend ${path}`);
      const at = Number(of[1]);
      return {
        ...variant,
        stages: variant.stages.map((s, i) => (i === at ? { ...s, params: { ...s.params, [of[2]!]: value } } : s)),
      };
    }
  }
}
