import { bearing, group, length, material, oneOf, whole, type ParamTable } from '../param.ts';

/** Parameters of a ring-plate stage, SI units. */
export interface RingPlateParams {
  /** Pins of the wheel, Z; the plates have one lobe more. */
  pins: number;
  /** Diameter of the wheel’s pin circle, m. */
  circle: number;
  /** Diameter of a pin, over its sleeve where it has one, m. */
  pin: number;
  /** Eccentricity of the cranks, m. */
  throw: number;
  /** Equidistant gap between lobes and pins, m. */
  offset: number;
  /** Pins are fixed, or carry sleeves that roll. */
  pinsRun: 'fixed' | 'sleeves';
  /** Bore of the wheel, m. */
  bore: number;
  /** Plates. */
  plates: number;
  /** Phases of the plates: evenly round the turn, or a quarter turn apart. */
  spread: 'even' | 'quarter';
  /** One crank, a driven and an idle one, or two that both drive. */
  layout: 'one' | 'idle' | 'both';
  /** Distance of a crank from the wheel’s middle, m. */
  distance: number;
  /** Thickness of a plate, m. */
  width: number;
  /** Wall of a plate outside lobes and bearings, m. */
  wall: number;
  /** Bearing on each eccentric, by designation. */
  bearing: string;
  /** Bore of the driven crank for the shaft that drives it, m; 0 or absent for none. */
  shaft: number;
  /** Material of the shop, plates. */
  materialP: string;
  /** Material of the shop, pins. */
  materialW: string;
  /** Material of the shop, wheel. */
  materialH: string;
}
type P = RingPlateParams;

/** What each parameter is, how it is bounded and edited. */
export const ringPlateParams: ParamTable<P> = {
  ...group('Wheel and lobes', {
    pins: whole({
      says: 'Pins of the wheel, Z; the plates have one lobe more',
      label: 'Pins',
      help: 'Of the wheel, which is the ratio; the plates have one lobe more.',
      start: 15,
      least: 5,
      most: 120,
    }),
    circle: length({
      says: 'Diameter of the wheel’s pin circle',
      label: 'Pin circle',
      help: 'Diameter.',
      start: 0.025,
      least: 5e-3,
      most: 1,
      step: 1e-3,
    }),
    pin: length({
      says: 'Diameter of a pin, over its sleeve where it has one',
      label: 'Pin',
      help: 'Diameter, over the sleeve where there is one.',
      start: 3e-3,
      least: 5e-4,
      most: 0.1,
      step: 1e-4,
    }),
    throw: length({
      says: 'Eccentricity of the cranks',
      label: 'Eccentricity',
      help: 'More makes less play of the same gap.',
      start: 4e-4,
      least: 5e-5,
      most: 0.02,
      step: 5e-5,
    }),
    offset: length({
      says: 'Equidistant gap between lobes and pins',
      label: 'Gap all round',
      help: 'Equidistant modification: the lobes are cut for pins as much larger in radius.',
      start: 7e-5,
      least: 0,
      most: 1e-3,
      step: 1e-5,
    }),
    pinsRun: oneOf({
      says: 'Pins are fixed, or carry sleeves that roll',
      label: 'Pins run',
      help: 'Fixed pins rub; sleeves roll and lose less.',
      start: 'fixed',
      options: [
        ['fixed', 'Fixed'],
        ['sleeves', 'With sleeves'],
      ],
    }),
    bore: length({
      says: 'Bore of the wheel',
      label: 'Wheel’s bore',
      help: '0 for none.',
      start: 8e-3,
      least: 0,
      most: 0.5,
    }),
  }),
  ...group('Plates and cranks', {
    plates: whole({
      says: 'Plates',
      label: 'Plates',
      help: 'Three even ones carry one another past every dead point.',
      start: 3,
      least: 1,
      most: 4,
    }),
    spread: oneOf({
      says: 'Phases of the plates: evenly round the turn, or a quarter turn apart',
      label: 'Phases',
      help: 'Evenly round the turn, or a quarter turn from one to the next.',
      start: 'even',
      options: [
        ['even', 'Even'],
        ['quarter', 'Quarter turns'],
      ],
    }),
    layout: oneOf({
      says: 'One crank, a driven and an idle one, or two that both drive',
      label: 'Cranks',
      help: 'One crank alone leans on the wheel; an idle one opposite steadies; two driven ones pass most.',
      start: 'both',
      options: [
        ['one', 'One'],
        ['idle', 'One driven, one idle'],
        ['both', 'Two driven'],
      ],
    }),
    distance: length({
      says: 'Distance of a crank from the wheel’s middle',
      label: 'Crank’s distance',
      help: 'From the wheel’s middle.',
      start: 0.025,
      least: 2e-3,
      most: 1,
    }),
    width: length({
      says: 'Thickness of a plate',
      label: 'Plate thickness',
      help: 'Pressure on the lobes falls with it.',
      start: 5e-3,
      least: 5e-4,
      most: 0.1,
    }),
    wall: length({
      says: 'Wall of a plate outside lobes and bearings',
      label: 'Plate wall',
      help: 'Outside lobes and bearings.',
      start: 3e-3,
      least: 5e-4,
      most: 0.1,
    }),
    bearing: bearing({
      says: 'Bearing on each eccentric, by designation',
      label: 'Eccentric bearing',
      help: 'One in each plate on every crank, by ISO size.',
      start: '688',
    }),
    shaft: length({
      says: 'Bore of the driven crank for the motor’s shaft; 0 or absent for none',
      label: 'Crank’s bore',
      help: 'For the motor’s shaft, or the one that drives it; 0 for none.',
      start: 5e-3,
      least: 0,
      most: 0.2,
      absent: 0,
      late: true,
    }),
  }),
  ...group('Made of', {
    materialP: material({ says: 'plates', label: 'Plates', start: 'pa-cf' }),
    materialW: material({ says: 'pins', label: 'Pins', start: 'silver-steel' }),
    materialH: material({ says: 'wheel', label: 'Wheel', start: 'pa-cf' }),
  }),
};

/** ω_in/ω_out: the wheel turns back by a pin for each turn of the crank. */
export const ringPlateRatio = (p: Pick<RingPlateParams, 'pins'>): number => -p.pins;

/** Phases of the plates' eccentrics, rad. */
export const phasesOf = (p: Pick<RingPlateParams, 'plates' | 'spread'>): number[] =>
  Array.from({ length: p.plates }, (_, i) => (p.spread === 'even' ? (2 * Math.PI * i) / p.plates : (Math.PI / 2) * i));
