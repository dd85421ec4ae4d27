import { driveMass, driveMoney } from '../motor/driver.ts';
import { openLine, partsOf } from '../line/open.ts';
import type { Body } from '../reducer/body.ts';
import { reducerOf } from '../reducer/reducer.ts';
import { roomOf } from '../reducer/room.ts';
import { stated } from '../units/stated.ts';
import type { Outline } from '../shape/outline.ts';
import type { Solid } from '../shape/solid.ts';
import { outputPieces } from '../line/output.ts';
import { sensorPieces } from '../line/sensing.ts';
import { ok, type Result } from '../result.ts';
import type { StageRecord, Variant } from '../schema/joint.ts';
import type { Drawer, Stocked } from '../shop/drawer.ts';
import type { Shelf } from '../shop/shelf.ts';
import type { Part } from '../stage/contract.ts';

/** How a piece comes about: printed from its body, made to its drawing, or bought by its name. */
export type HowMade = 'printed' | 'cut' | 'bought';

/** One line of a bill of materials. */
export interface BillRow {
  readonly name: string;
  /** Where in the joint it is: motor, driver, stages by their number, output. */
  readonly at: readonly string[];
  readonly how: HowMade;
  readonly material: string;
  readonly note: string;
  /** Pieces of one joint, of all that are wanted, and how many of those lie in the drawer. */
  readonly each: number;
  readonly needed: number;
  readonly there: number;
  /** Of one piece, kg and in the reader's money. */
  readonly mass: number;
  readonly money: number;
}

/** What a joint is made of, and what it takes to make some of them. */
export interface Bill {
  readonly joints: number;
  readonly rows: readonly BillRow[];
  /** Of one joint, at list prices: kg and money. */
  readonly mass: number;
  readonly money: number;
  /** Money for all of them, without what lies in the drawer. */
  readonly toPay: number;
}

/** A piece before it is counted. */
type Piece = Pick<BillRow, 'name' | 'how' | 'material' | 'note' | 'mass' | 'money'> & {
  readonly at: string;
  readonly quantity: number;
  readonly stocked?: Stocked | undefined;
};

/** What is printed but has no body here, a pin or a pulley with a bearing seat, is made to its drawing. */
export const howOf = (p: Pick<Part, 'solid' | 'made'>): HowMade =>
  p.solid && p.made === 'printed' ? 'printed' : p.solid || p.made === 'printed' ? 'cut' : 'bought';

/** What of an output is bought, bearings and balls, and what is turned to its drawing. */
export const outputHow = (p: Pick<Part, 'name' | 'stocked'>): HowMade =>
  p.stocked || p.name.startsWith('Ball') ? 'bought' : 'cut';

/**
 * Parts of what stands round the stages, or the room that a housing of the maker's own must leave free; none where a stage
 * cannot be.
 */
export function housingParts(variant: Variant, shelf: Shelf): readonly Part[] {
  const { housing } = variant;
  if (!housing) return [];
  const opened = openLine(variant.stages, shelf).all;
  if (!opened.ok) return [];
  const made = reducerOf(variant, opened.value, shelf);
  if (!made.ok) return [];
  if (housing.by === 'own') {
    const room = roomOf(made.value, housing.gap);
    if (!room) return [];
    const outline = room.solid.prisms[0]!.outer;
    return [
      {
        id: 'room',
        name: 'Room to leave free',
        quantity: 1,
        made: 'bought',
        reference: true,
        material: 'to be left free',
        mass: 0,
        money: 0,
        note: `cut it from your housing, ${stated(room.to - room.from, 'length', 5)} deep; ${stated(housing.gap, 'length', 3)} round what moves`,
        curves: [{ layer: 'outside', outline }],
        solid: () => room.solid,
      },
    ];
  }
  const bodies = made.value.housing?.bodies ?? [];
  // The output's own shaft and bearings are counted with the output.
  return bodies.filter((b) => !/output/.test(b.id)).map(partOfBody);
}

/** A body of the housing as a part: what is made has its outlines and its body, what is bought only its look. */
function partOfBody({ id, part, solid }: Body): Part {
  const shape = solid();
  const bought = part.material === 'as supplied' || part.material.startsWith('Steel, ');
  const made = !bought;
  return {
    ...part,
    id: id.replace(/^case\//, ''),
    curves: made ? curvesOf(shape) : [],
    ...(made ? { solid: () => shape } : { seen: () => shape }),
  };
}

/** Outlines of a body, each once: its outside, and what is cut through or into it. */
function curvesOf({ prisms }: Solid): Part['curves'] {
  const seen = new Set<string>();
  const out: { layer: string; outline: Outline }[] = [];
  const add = (layer: string, outline: Outline) => {
    const key = [...outline.points].map((x) => x.toFixed(9)).join();
    if (!seen.has(key)) out.push({ layer, outline });
    seen.add(key);
  };
  const [low, high] = [Math.min(...prisms.map((p) => p.from)), Math.max(...prisms.map((p) => p.to))];
  const everywhere = (o: Outline) => {
    const key = [...o.points].map((x) => x.toFixed(9)).join();
    return prisms.every((p) => p.holes.some((h) => [...h.points].map((x) => x.toFixed(9)).join() === key));
  };
  for (const p of prisms) {
    add(p.from <= low || p.to >= high ? 'outside' : 'steps', p.outer);
    for (const h of p.holes) add(everywhere(h) ? 'holes' : 'seats-in-part', h);
  }
  return out;
}

/** Parts of a stage that are made or bought; refuses in words where the stage cannot be. */
export function piecesOf(stage: Pick<StageRecord, 'kind' | 'params'>, shelf: Shelf): Result<readonly Part[]> {
  const parts = partsOf(stage.kind, stage.params, shelf);
  return parts.ok ? ok(parts.value.filter((p) => !p.reference)) : parts;
}

/** Motor, driver and supply: what is bought before the stages. */
function driving({ motor, driver, sensor }: Variant, shelf: Shelf): Piece[] {
  const bought = (at: string, name: string, note: string, mass: number, money: number, stocked?: Stocked): Piece => ({
    ...{ at, name, note, mass, money, stocked },
    ...{ how: 'bought' as const, material: 'as supplied', quantity: 1 },
  });
  const unit = driver.unit;
  const supply = driver.supply;
  return [
    bought('motor', motor.name, '', motor.mass, motor.price, { shelf: 'motors', id: motor.id }),
    ...(unit ? [bought('driver', unit.name, '', driveMass({ unit }), driveMoney({ unit }))] : []),
    ...sensorPieces({ motor, sensor }, shelf).map((p): Piece => ({ ...p, at: 'sensor', how: 'bought' })),
    ...(supply ? [bought('supply', supply.name, '', 0, driveMoney({ supply }))] : []),
  ];
}

/** How many of what is wanted lie in the drawer: the first rows take them, the others what is left. */
function taking(drawer: Drawer): (stocked: Stocked | undefined, needed: number) => number {
  const left = new Map<string, number>();
  return (stocked, needed) => {
    if (!stocked) return 0;
    const key = `${stocked.shelf} ${stocked.id}`;
    const have = left.get(key) ?? drawer[stocked.shelf]?.[stocked.id] ?? 0;
    const taken = Math.min(have, needed);
    left.set(key, have - taken);
    return taken;
  };
}

/**
 * What some joints of a variant are made of, from the motor to the output. Pieces that are the same in several stages are
 * one row.
 *
 * @param joints how many are wanted, at least 1
 * @returns refuses in words where a stage cannot be
 */
export function billOf(variant: Variant, joints: number, shelf: Shelf): Result<Bill> {
  const pieces: Piece[] = driving(variant, shelf);
  for (const [i, stage] of variant.stages.entries()) {
    const parts = piecesOf(stage, shelf);
    if (!parts.ok) return parts;
    for (const p of parts.value) pieces.push({ ...p, at: `stage ${i + 1}`, how: howOf(p) });
  }
  for (const p of housingParts(variant, shelf).filter((x) => !x.reference))
    pieces.push({ ...p, at: 'housing', how: howOf(p) });
  for (const p of outputPieces(variant.output)) pieces.push({ ...p, at: 'output', how: outputHow(p) });
  const rows = new Map<string, Piece & { at: string; places: string[]; count: number }>();
  for (const p of pieces) {
    const key = JSON.stringify([p.name, p.how, p.material, p.note, p.mass, p.money]);
    const known = rows.get(key);
    if (!known) rows.set(key, { ...p, places: [p.at], count: p.quantity });
    else {
      known.count += p.quantity;
      if (!known.places.includes(p.at)) known.places.push(p.at);
    }
  }
  const take = taking(shelf.drawer ?? {});
  const list = [...rows.values()].map(
    ({ name, how, material, note, mass, money, places, count, stocked }): BillRow => ({
      ...{ name, how, material, note, mass, money, at: places, each: count, needed: count * joints },
      there: take(stocked, count * joints),
    }),
  );
  return ok({
    joints,
    rows: list,
    mass: list.reduce((s, r) => s + r.each * r.mass, 0),
    money: list.reduce((s, r) => s + r.each * r.money, 0),
    toPay: list.reduce((s, r) => s + (r.needed - r.there) * r.money, 0),
  });
}
