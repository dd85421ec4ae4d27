import { choiceField, countField, lengthField, materialField, NO_YES, SHAPES } from '../../gear/toothing.ts';
import { isNeedle } from '../../shop/bearings.ts';
import type { FieldSpec } from '../contract.ts';
import type { WormParams as P } from './params.ts';

const deg = Math.PI / 180;
const TEETH = 'Teeth';
const PLAY = 'Shift and play';
const SHAFT = 'Worm shaft';
const BORES = 'Bores and screws';
const number = (
  path: keyof P & string,
  label: string,
  group: string,
  help: string,
  step: number,
  when?: (p: P) => boolean,
): FieldSpec<P> => ({ as: 'quantity', quantity: 'count', path, label, group, help, step, ...(when && { when }) });

/** How a person edits a worm stage. */
export const wormFields: readonly FieldSpec<P>[] = [
  countField<P>('starts', 'Starts', 'Few hold by themselves and lose much; many run well and turn back.', TEETH, 1, 12),
  countField<P>('z2', 'Wheel', 'Teeth.', TEETH),
  choiceField<P>('hand', 'Hand', TEETH, 'Decides which way the wheel turns.', [
    { value: 'right', label: 'Right' },
    { value: 'left', label: 'Left' },
  ]),
  lengthField<P>('module', 'Module', 'Axial, of the worm; transverse, of the wheel.', TEETH, 5e-5),
  number(
    'quotient',
    'Diameter quotient',
    TEETH,
    'Reference diameter over module: small is steep and efficient, large is stiff and holds.',
    0.5,
  ),
  lengthField<P>('width', 'Wheel width', 'Face width.', TEETH),
  lengthField<P>('length', 'Worm length', 'Threaded.', TEETH),
  {
    as: 'quantity',
    quantity: 'angle',
    path: 'pressure',
    label: 'Pressure angle',
    group: 'Tooth form',
    help: 'In the normal section.',
    step: 2.5 * deg,
  },
  number('addendum', 'Addendum', 'Tooth form', 'Over the module.', 0.05),
  number('dedendum', 'Dedendum', 'Tooth form', 'Over the module.', 0.05),
  number('fillet', 'Root rounding', 'Tooth form', 'Of the cutter’s tip, over the module.', 0.02),
  number('x2', 'Shift, wheel', PLAY, 'Moves the axes apart by as many modules; takes undercut off.', 0.05),
  lengthField<P>('allowance1', 'Thinner, worm', 'Thickness taken off the thread; makes play.', PLAY, 1e-5),
  lengthField<P>('allowance2', 'Thinner, wheel', 'Thickness taken off each tooth.', PLAY, 1e-5),
  choiceField<P>(
    'playBy',
    'Play set by',
    PLAY,
    'Centre distance, moving a dual-lead worm along its axis, or a spring that keeps both flanks in touch.',
    [
      { value: 'centre', label: 'Centre distance' },
      { value: 'dual-lead', label: 'Dual-lead worm' },
      { value: 'spring', label: 'Spring' },
    ],
  ),
  lengthField<P>(
    'centreExtra',
    'Centres further',
    'Beyond the distance without play; below it closes.',
    PLAY,
    1e-5,
    (p) => p.playBy === 'centre',
  ),
  {
    as: 'quantity',
    quantity: 'efficiency',
    path: 'leadDifference',
    label: 'Leads differ by',
    group: PLAY,
    help: 'Between the two flanks, over their mean; 2 to 4 % is usual.',
    step: 0.005,
    when: (p) => p.playBy === 'dual-lead',
  },
  lengthField<P>(
    'wormShift',
    'Worm moved',
    'Towards its thick end, by shims.',
    PLAY,
    1e-4,
    (p) => p.playBy === 'dual-lead',
  ),
  {
    as: 'quantity',
    quantity: 'force',
    path: 'springForce',
    label: 'Spring',
    group: PLAY,
    help: 'Presses worm and wheel together.',
    step: 1,
    when: (p) => p.playBy === 'spring',
  },
  choiceField<P>(
    'frictionBy',
    'Friction',
    'Losses',
    'From the shop’s factor with its band, or one that you have measured.',
    [
      { value: 'shop', label: 'Shop’s factor' },
      { value: 'given', label: 'As given' },
    ],
  ),
  number('friction', 'Coefficient', 'Losses', 'Of the mesh.', 0.01, (p) => p.frictionBy === 'given'),
  materialField<P>('material1', 'Worm'),
  materialField<P>('material2', 'Wheel'),
  lengthField<P>('bore1', 'Worm’s bore', '0 where its shaft is one with it.', SHAFT),
  choiceField<P>(
    'shape1',
    'Worm’s bore is',
    SHAFT,
    'A flat for a set screw; a keyway by ISO/R 773.',
    SHAPES,
    (p) => p.bore1 > 0,
  ),
  {
    as: 'choice',
    path: 'bearing',
    label: 'Bearings',
    group: SHAFT,
    help: 'Two of them, by ISO size; one takes the thrust.',
    options: (_p, shelf) =>
      shelf.bearings
        .filter((b) => !isNeedle(b))
        .map((b) => ({
          value: b.id,
          label: `${b.name}, ${(b.bore * 1e3).toFixed(0)} × ${(b.outside * 1e3).toFixed(0)} × ${(b.width * 1e3).toFixed(0)}`,
        })),
  },
  lengthField<P>('span', 'Between bearings', 'The shorter, the stiffer.', SHAFT, 1e-3),
  lengthField<P>('bore2', 'Wheel’s bore', '0 for none.', BORES),
  choiceField<P>(
    'shape2',
    'Wheel’s bore is',
    BORES,
    'A flat for a set screw; a keyway by ISO/R 773.',
    SHAPES,
    (p) => p.bore2 > 0,
  ),
  countField<P>('bolts2', 'Screws, wheel', 'Through the wheel.', BORES, 0, 24),
  lengthField<P>('boltCircle2', 'Their circle', 'Diameter.', BORES, 5e-4, (p) => p.bolts2 > 0),
  lengthField<P>('boltHole', 'Screw hole', '3.2 mm for M3.', BORES, 1e-4, (p) => p.bolts2 > 0),
  choiceField<P>('nuts', 'Nut traps', BORES, 'Hexagons for ISO 4032 nuts.', NO_YES, (p) => p.bolts2 > 0),
];
