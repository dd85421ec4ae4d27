import type { Bearing, Material, Process } from '../schema/joint.ts';
import { BEARINGS } from './bearings.ts';
import type { Drawer } from './drawer.ts';
import { DRIVERS, SUPPLIES } from './drives.ts';
import { FACTORS, type Factor } from './factor.ts';
import { INSTRUMENTS, type Instrument } from './instrument.ts';
import { MATERIALS } from './materials.ts';
import { MOTORS } from './motors.ts';
import { PROCESSES } from './processes.ts';
import type { Reads } from './reads.ts';
import { SECTIONS, sectionFactors, type BeltSection } from './section.ts';
import type { DriverUnit, Motor, Supply } from '../motor/motor.ts';

/**
 * The shop as the computation sees it. `over` sets one factor aside for a trial, which is how bands and derivatives are
 * felt out.
 */
export interface Shelf {
  readonly factors: Readonly<Record<string, Factor>>;
  readonly sections: readonly BeltSection[];
  readonly motors: readonly Motor[];
  readonly drivers: readonly DriverUnit[];
  readonly supplies: readonly Supply[];
  readonly instruments: readonly Instrument[];
  readonly materials: readonly Material[];
  readonly bearings: readonly Bearing[];
  readonly processes: readonly Process[];
  readonly drawer?: Drawer;
  readonly over?: { readonly id: string; readonly value: number };
  /** How much warmer a stage is than its surroundings, K: to it `ambient` is what it has around it. */
  readonly warm?: number;
  /** Where set, notes every entry that is looked at by `factor`, `findMaterial` and `findBearing`; see `recorded`. */
  readonly reads?: Reads;
}

/** What the reader changed in the shop: values by factor, and things of their own on its shelves. */
export interface ShopEdits {
  readonly factors?: Readonly<
    Record<
      string,
      { readonly value: number; readonly low: number; readonly high: number; readonly source?: string | undefined }
    >
  >;
  readonly motors?: readonly Motor[];
  readonly drivers?: readonly DriverUnit[];
  readonly supplies?: readonly Supply[];
  readonly instruments?: readonly Instrument[];
  readonly materials?: readonly Material[];
  readonly bearings?: readonly Bearing[];
  readonly processes?: readonly Process[];
  readonly drawer?: Drawer;
}

const SHIPPED: Readonly<Record<string, Factor>> = Object.fromEntries(
  [...FACTORS, ...SECTIONS.flatMap(sectionFactors)].map((f) => [f.id, f]),
);

/** A factor as it is shipped; undefined where there is none of that name. */
export const shippedFactor = (id: string): Factor | undefined => SHIPPED[id];

/** The shop as shipped, with the reader's changes laid over it. */
export function makeShelf(edits: ShopEdits = {}): Shelf {
  const factors: Record<string, Factor> = {};
  for (const factor of Object.values(SHIPPED)) {
    const edit = edits.factors?.[factor.id];
    factors[factor.id] = edit ? { ...factor, ...edit, source: edit.source ?? 'set in the shop' } : factor;
  }
  const merged = <T extends { id: string }>(own: readonly T[] | undefined, shipped: readonly T[]): T[] => [
    ...(own ?? []),
    ...shipped.filter((s) => !own?.some((o) => o.id === s.id)),
  ];
  return {
    factors,
    sections: SECTIONS,
    motors: merged(edits.motors, MOTORS),
    drivers: merged(edits.drivers, DRIVERS),
    supplies: merged(edits.supplies, SUPPLIES),
    instruments: merged(edits.instruments, INSTRUMENTS),
    materials: merged(edits.materials, MATERIALS),
    bearings: merged(edits.bearings, BEARINGS),
    processes: merged(edits.processes, PROCESSES),
    ...(edits.drawer && { drawer: edits.drawer }),
  };
}

/** A factor's value as it counts now. A factor nobody defined is a slip in the program, hence the throw. */
export function factor(shelf: Shelf, id: string): number {
  shelf.reads?.factors.add(id);
  const value = shelf.over?.id === id ? shelf.over.value : shelf.factors[id]?.value;
  if (value === undefined) throw new Error(`no factor ${id}`);
  return shelf.warm !== undefined && id === 'ambient' ? value + shelf.warm : value;
}

/** A material by its identifier; undefined where the shop has none of it. */
export function findMaterial(shelf: Shelf, id: string): Material | undefined {
  shelf.reads?.materials.add(id);
  return shelf.materials.find((m) => m.id === id);
}

/** A bearing by its identifier; undefined where the shop has none of it. */
export function findBearing(shelf: Shelf, id: string): Bearing | undefined {
  shelf.reads?.bearings.add(id);
  return shelf.bearings.find((b) => b.id === id);
}

/** A belt section by its identifier; undefined where the shop has none of it. */
export const findSection = (shelf: Shelf, id: string): BeltSection | undefined =>
  shelf.sections.find((s) => s.id === id);

/** The shelf with one factor set to another value. */
export const withFactor = (shelf: Shelf, id: string, value: number): Shelf => ({ ...shelf, over: { id, value } });

/** The factors among `ids` that have a range, in the order given, without repeats. */
export function uncertain(shelf: Shelf, ids: Iterable<string>): Factor[] {
  return [...new Set(ids)].map((id) => shelf.factors[id]).filter((f): f is Factor => f !== undefined && f.high > f.low);
}
