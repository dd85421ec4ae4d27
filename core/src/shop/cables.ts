/** A cable by its make; what goes with its diameter squared is told for a metre of diameter. */
export interface CableSort {
  readonly id: 'steel-7x19' | 'steel-7x7' | 'aramid' | 'uhmwpe';
  readonly name: string;
  /** Factors of the shop: stiffness to a strain over diameter squared, and friction on its drum. */
  readonly stiffness: string;
  readonly friction: string;
  /** Least breaking load over diameter squared, Pa. */
  readonly breaks: number;
  /** Mass of a metre over diameter squared, kg/m³. */
  readonly mass: number;
  /** Smallest drum over its diameter. */
  readonly bends: number;
  /** n of its creep, E(t) = E·t^−n. */
  readonly creep: number;
}

/**
 * Cables that small drives are strung with.
 *
 * Source: EN 12385 for the make of wire ropes; breaking loads and masses are usual catalogue values.
 */
export const CABLES: readonly CableSort[] = [
  {
    id: 'steel-7x19',
    name: 'Steel 7×19',
    stiffness: 'cable.steel',
    friction: 'cable.frictionSteel',
    breaks: 560e6,
    mass: 4000,
    bends: 20,
    creep: 0,
  },
  {
    id: 'steel-7x7',
    name: 'Steel 7×7',
    stiffness: 'cable.steel7x7',
    friction: 'cable.frictionSteel',
    breaks: 630e6,
    mass: 4200,
    bends: 35,
    creep: 0,
  },
  {
    id: 'aramid',
    name: 'Aramid, braided',
    stiffness: 'cable.aramid',
    friction: 'cable.frictionFibre',
    breaks: 900e6,
    mass: 900,
    bends: 12,
    creep: 0.01,
  },
  {
    id: 'uhmwpe',
    name: 'UHMWPE, braided',
    stiffness: 'cable.uhmwpe',
    friction: 'cable.frictionFibre',
    breaks: 1100e6,
    mass: 720,
    bends: 12,
    creep: 0.05,
  },
];

/** A cable by its make; undefined where there is none of it. */
export const findCable = (id: string): CableSort | undefined => CABLES.find((c) => c.id === id);
