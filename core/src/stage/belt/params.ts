import { findSection } from '../../shop/shelf.ts';
import { amount, fromShop, group, length, oneOf, whole, wholeOf, type ParamTable } from '../param.ts';

/** Parameters of a synchronous belt stage, SI units. */
export interface BeltParams {
  /** Belt section by designation, e.g. R3. */
  section: string;
  /** Belt width, m. */
  width: number;
  /** Teeth of the driving pulley. */
  z1: number;
  /** Teeth of the driven pulley. */
  z2: number;
  /** Closed stocked belt, or an open-ended belt clamped or spliced. */
  closure: 'closed' | 'open';
  /** What is given: the belt length or the centre distance. */
  setBy: 'length' | 'centre';
  /** Teeth of the closed belt. */
  beltTeeth: number;
  /** Wanted centre distance, m. */
  centre: number;
  /** Installation tension of a span, N. */
  tension: number;
  /** Idler on the slack span. */
  idler: 'none' | 'inside' | 'outside';
  /** Teeth of an inside idler. */
  idlerTeeth: number;
  /** Diameter of a flat outside idler, m. */
  idlerDiameter: number;
  /** Where the idler sits along the centre distance. */
  idlerAlong: number;
  /** How far the idler presses the span aside, m. */
  idlerPush: number;
  /** Diameter of the pin that the idler runs on, m; 3 mm in files that do not say. */
  idlerBore?: number;
  /** Driving pulley bought or printed. */
  made1: 'bought' | 'printed';
  /** Driven pulley bought or printed. */
  made2: 'bought' | 'printed';
  /** Bore of the driving pulley, m. */
  bore1: number;
  /** Bore of the driven pulley, m. */
  bore2: number;
  /** Bearing seat in the driving pulley, m; 0 or absent for none. */
  seat1?: number | undefined;
  /** Bearing seat in the driven pulley, m; 0 or absent for none. */
  seat2?: number | undefined;
  /** How the driving pulley is held on its shaft. */
  hold1: 'screws' | 'glue' | 'key' | 'bolted';
  /** How the driven pulley is held. */
  hold2: 'screws' | 'glue' | 'key' | 'bolted';
  /** How far a printed contour is moved in, m. */
  allowance: number;
}
type P = BeltParams;

/** Pin of an idler in files that say none, m. */
export const IDLER_BORE = 3e-3;

/** What each parameter is, how it is bounded and edited. */
export const beltParams: ParamTable<P> = {
  ...group('Belt', {
    section: fromShop({
      says: 'Belt section by designation, e.g. R3',
      label: 'Section',
      help: 'Pitch and tooth form by standard designation.',
      start: 'R3',
      options: (_p, shelf) => shelf.sections.map((s) => ({ value: s.id, label: s.name })),
    }),
    width: length({
      says: 'Belt width',
      label: 'Belt width',
      help: 'Stiffness, tension and tooth shear grow with it.',
      start: 6e-3,
      least: 1e-3,
      most: 0.2,
      step: 1e-3,
    }),
    closure: oneOf({
      says: 'Closed stocked belt, or an open-ended belt clamped or spliced',
      label: 'Closure',
      help: 'Closed belts come in stocked lengths; an open-ended one is clamped or spliced to any.',
      start: 'closed',
      options: [
        ['closed', 'Closed, stocked'],
        ['open', 'Open-ended, clamped'],
      ],
    }),
    setBy: oneOf({
      says: 'What is given: the belt length or the centre distance',
      label: 'Given',
      help: 'Give the belt and get the centre distance, or the other way round.',
      start: 'length',
      options: [
        ['length', 'Belt length'],
        ['centre', 'Centre distance'],
      ],
      when: (p: P) => p.closure === 'closed',
    }),
    beltTeeth: wholeOf({
      says: 'Teeth of the closed belt',
      label: 'Belt teeth',
      help: 'Closed lengths of this section that the shop stocks.',
      start: 80,
      least: 10,
      most: 3000,
      options: (p: P, shelf) => {
        const stock = findSection(shelf, p.section)?.stock ?? [];
        const all = stock.includes(p.beltTeeth) ? stock : [...stock, p.beltTeeth].sort((a, b) => a - b);
        return all.map((t) => ({ value: t, label: `${t}` }));
      },
      when: (p: P) => p.closure === 'closed' && p.setBy === 'length',
    }),
    centre: length({
      says: 'Wanted centre distance',
      label: 'Wanted centres',
      help: 'The nearest stocked belt is chosen; an open-ended one meets it exactly.',
      start: 0.05,
      least: 1e-3,
      most: 5,
      step: 1e-3,
      when: (p: P) => p.closure !== 'closed' || p.setBy === 'centre',
    }),
    tension: amount('force', {
      says: 'Installation tension of a span',
      label: 'Installation tension',
      help: 'Of one span at rest. Set it by the pitch of a plucked span.',
      start: 35,
      least: 0,
      most: 1e5,
      step: 1,
    }),
  }),
  ...group('Teeth', {
    z1: whole({
      says: 'Teeth of the driving pulley',
      label: 'Driving pulley',
      help: 'Teeth of the pulley on the input.',
      start: 22,
      least: 6,
      most: 400,
    }),
    z2: whole({
      says: 'Teeth of the driven pulley',
      label: 'Driven pulley',
      help: 'Teeth of the pulley on the output.',
      start: 66,
      least: 6,
      most: 400,
    }),
  }),
  ...group('Idler', {
    idler: oneOf({
      says: 'Idler on the slack span',
      label: 'Idler',
      help: 'On the slack span: inside with teeth, or outside on the belt’s back.',
      start: 'none',
      options: [
        ['none', 'None'],
        ['inside', 'Inside, toothed'],
        ['outside', 'Outside, flat'],
      ],
    }),
    idlerTeeth: whole({
      says: 'Teeth of an inside idler',
      label: 'Idler teeth',
      help: 'Teeth of the inside idler.',
      start: 20,
      least: 6,
      most: 200,
      when: (p: P) => p.idler === 'inside',
    }),
    idlerDiameter: length({
      says: 'Diameter of a flat outside idler',
      label: 'Idler diameter',
      help: 'Flat, on the belt’s back.',
      start: 0.02,
      least: 1e-3,
      most: 0.5,
      step: 1e-3,
      when: (p: P) => p.idler === 'outside',
    }),
    idlerAlong: amount('efficiency', {
      says: 'Where the idler sits along the centre distance',
      label: 'Along the span',
      help: 'From the driving pulley.',
      start: 0.5,
      least: 0.05,
      most: 0.95,
      step: 0.05,
      when: (p: P) => p.idler !== 'none',
    }),
    idlerPush: length({
      says: 'How far the idler presses the span aside',
      label: 'Pressed in by',
      help: 'How far the span is moved aside.',
      start: 2e-3,
      least: 0,
      most: 0.5,
      when: (p: P) => p.idler !== 'none',
    }),
    idlerBore: length({
      says: 'Diameter of the pin that the idler runs on',
      label: 'Idler’s pin',
      help: 'A ground pin; the idler’s bearing is bored for it.',
      start: 3e-3,
      least: 1e-3,
      most: 0.05,
      step: 1e-3,
      when: (p: P) => p.idler !== 'none',
      absent: IDLER_BORE,
      late: true,
    }),
  }),
  ...group('Making', {
    made1: oneOf({
      says: 'Driving pulley bought or printed',
      label: 'Driving pulley',
      help: 'The smallest, most loaded part is worth buying.',
      start: 'bought',
      options: [
        ['bought', 'Bought, metal'],
        ['printed', 'Printed'],
      ],
    }),
    made2: oneOf({
      says: 'Driven pulley bought or printed',
      label: 'Driven pulley',
      help: 'Large pulleys print well.',
      start: 'printed',
      options: [
        ['bought', 'Bought, metal'],
        ['printed', 'Printed'],
      ],
    }),
    bore1: length({
      says: 'Bore of the driving pulley',
      label: 'Driving bore',
      help: 'Shaft diameter.',
      start: 8e-3,
      least: 5e-4,
      most: 0.5,
      step: 1e-3,
    }),
    bore2: length({
      says: 'Bore of the driven pulley',
      label: 'Driven bore',
      help: 'Shaft or bearing seat.',
      start: 8e-3,
      least: 5e-4,
      most: 0.5,
      step: 1e-3,
    }),
    seat1: length({
      says: 'Bearing seat in the driving pulley; 0 or absent for none',
      label: 'Driving seat',
      help: 'Diameter of a bearing seat in the pulley; 0 for none.',
      start: 0,
      least: 0,
      most: 0.5,
      step: 1e-3,
      absent: undefined,
    }),
    seat2: length({
      says: 'Bearing seat in the driven pulley; 0 or absent for none',
      label: 'Driven seat',
      help: 'Diameter of a bearing seat in the pulley; 0 for none.',
      start: 0,
      least: 0,
      most: 0.5,
      step: 1e-3,
      absent: undefined,
    }),
    hold1: oneOf({
      says: 'How the driving pulley is held on its shaft',
      label: 'Driving hold',
      help: 'What carries the torque between pulley and shaft.',
      start: 'key',
      options: [
        ['screws', 'Two set screws'],
        ['glue', 'Bonded bore'],
        ['key', 'Key or flat'],
        ['bolted', 'Bolted through'],
      ],
    }),
    hold2: oneOf({
      says: 'How the driven pulley is held',
      label: 'Driven hold',
      help: 'What carries the torque between pulley and its neighbour.',
      start: 'bolted',
      options: [
        ['screws', 'Two set screws'],
        ['glue', 'Bonded bore'],
        ['key', 'Key or flat'],
        ['bolted', 'Bolted through'],
      ],
    }),
    allowance: length({
      says: 'How far a printed contour is moved in',
      label: 'Profile allowance',
      help: 'A printed contour is moved in by this where no process is chosen to correct it; bought pulleys take none.',
      start: 5e-5,
      least: 0,
      most: 5e-4,
      step: 1e-5,
      when: (p: P) => p.made1 === 'printed' || p.made2 === 'printed',
    }),
  }),
};
