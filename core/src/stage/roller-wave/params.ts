import { bearing, group, length, material, oneOf, whole, wholeOf, type ParamTable } from '../param.ts';
import { screwHole, screws } from '../shared-params.ts';

/** Parameters of a roller wave stage, SI units. */
export interface RollerWaveParams {
  /** What is held. */
  held: 'ring' | 'cage';
  /** Rollers in the cage, N. */
  rollers: number;
  /** How many lobes the ring has more than the cage has rollers. */
  more: number;
  /** Diameter of a roller, m. */
  roller: number;
  /** Eccentricity, m. */
  throw: number;
  /** Bearing on the eccentric. */
  bearing: string;
  /** Thickness of a sleeve over that bearing, m. */
  sleeve: number;
  /** Rows, evenly phased. */
  rows: number;
  /** Width of a row, m. */
  width: number;
  /** Equidistant gap between ring and rollers, m. */
  gap: number;
  /** Clearance of a roller in its slot, m. */
  slot: number;
  /** Cage walls are carried at one end or at both. */
  carriedBy: 'plate' | 'both';
  /** Bore of the eccentric, m. */
  shaft: number;
  /** Wall of the ring outside its lobes, m. */
  rim: number;
  /** Screws through the ring. */
  boltsR: number;
  /** Hole for a screw, m. */
  boltHole: number;
  /** Material of the shop, ring. */
  materialR: string;
  /** Material of the shop, cage. */
  materialC: string;
  /** Material of the shop, rollers. */
  materialP: string;
}
type P = RollerWaveParams;

/** What each parameter is, how it is bounded and edited. */
export const rollerWaveParams: ParamTable<P> = {
  ...group('Rollers and lobes', {
    held: oneOf({
      says: 'What is held',
      label: 'Held',
      help: 'With the ring held the cage drives out, with the cage held the ring does.',
      start: 'ring',
      options: [
        ['ring', 'Ring: cage drives out'],
        ['cage', 'Cage: ring drives out'],
      ],
    }),
    rollers: whole({
      says: 'Rollers in the cage, N',
      label: 'Rollers',
      help: 'In each row; the ratio goes with them.',
      start: 20,
      least: 5,
      most: 120,
    }),
    more: wholeOf({
      says: 'How many lobes the ring has more than the cage has rollers',
      label: 'Lobes of the ring',
      help: 'One more than rollers turns the cage against the crank, one less along with it.',
      start: 1,
      least: -1,
      most: 1,
      options: () => [
        { value: 1, label: 'one more' },
        { value: -1, label: 'one less' },
      ],
    }),
    roller: length({
      says: 'Diameter of a roller',
      label: 'Roller ⌀',
      help: 'Ground pins: 3, 4, 5, 6 mm are usual.',
      start: 4e-3,
      least: 5e-4,
      most: 0.05,
      step: 5e-4,
    }),
    throw: length({
      says: 'Eccentricity',
      label: 'Eccentricity',
      help: 'More makes steeper lobes and less play, until the ring is undercut.',
      start: 4e-4,
      least: 5e-5,
      most: 0.02,
      step: 5e-5,
    }),
    rows: whole({
      says: 'Rows, evenly phased',
      label: 'Rows',
      help: 'Two at half a turn cancel the shaking force, and share the load.',
      start: 2,
      least: 1,
      most: 2,
    }),
    width: length({
      says: 'Width of a row',
      label: 'Row width',
      help: 'Length of a roller.',
      start: 8e-3,
      least: 1e-3,
      most: 0.1,
    }),
  }),
  ...group('Clearance', {
    gap: length({
      says: 'Equidistant gap between ring and rollers',
      label: 'Gap all round',
      help: 'The ring is cut as much further out; every roller has it.',
      start: 4e-5,
      least: 0,
      most: 1e-3,
      step: 1e-5,
    }),
    slot: length({
      says: 'Clearance of a roller in its slot',
      label: 'Slot wider by',
      help: 'Across the slot; adds to the play.',
      start: 4e-5,
      least: 0,
      most: 1e-3,
      step: 1e-5,
    }),
  }),
  ...group('Eccentric', {
    bearing: bearing({
      says: 'Bearing on the eccentric',
      label: 'Eccentric bearing',
      help: 'One in each row; its outer ring, with a sleeve, is what the rollers run on.',
      start: '61804',
      needles: false,
    }),
    sleeve: length({
      says: 'Thickness of a sleeve over that bearing',
      label: 'Sleeve',
      help: 'Makes the eccentric larger than the bearing; of steel, ground.',
      start: 4e-3,
      least: 0,
      most: 0.2,
    }),
    shaft: length({
      says: 'Bore of the eccentric',
      label: 'Eccentric’s bore',
      help: 'For the motor’s shaft, or as a passage; 0 for none.',
      start: 5e-3,
      least: 0,
      most: 0.2,
    }),
  }),
  ...group('Cage and ring', {
    carriedBy: oneOf({
      says: 'Cage walls are carried at one end or at both',
      label: 'Cage walls held',
      help: 'Held at one end they are bent six times as hard.',
      start: 'both',
      options: [
        ['plate', 'at one end'],
        ['both', 'at both ends'],
      ],
    }),
    rim: length({
      says: 'Wall of the ring outside its lobes',
      label: 'Ring wall',
      help: 'Outside the deepest hollow.',
      start: 6e-3,
      least: 1e-3,
      most: 0.2,
    }),
    boltsR: screws({ says: 'Screws through the ring', label: 'Screws, ring', help: 'Through its wall.' }),
    boltHole: screwHole<P>((p: P) => p.boltsR > 0),
  }),
  ...group('Made of', {
    materialR: material({ says: 'ring', label: 'Ring', start: 'pa-cf' }),
    materialC: material({ says: 'cage', label: 'Cage', start: 'pa-cf' }),
    materialP: material({ says: 'rollers', label: 'Rollers', start: 'silver-steel' }),
  }),
};

/** Lobes of the ring, W. */
export const lobesOf = (p: Pick<P, 'rollers' | 'more'>): number => p.rollers + p.more;

/** ω_in/ω_out: ring held −N for one lobe more, +N for one less; cage held +W and −W. */
export const rollerWaveRatio = (p: Pick<P, 'rollers' | 'more' | 'held'>): number =>
  p.held === 'ring' ? -p.more * p.rollers : p.more * lobesOf(p);

/** Torque between ring and cage over that at the output. */
export const heldShare = (p: Pick<P, 'rollers' | 'more' | 'held'>): number =>
  p.held === 'ring' ? lobesOf(p) / p.rollers : 1;
