import { choiceField, countField, lengthField, materialField } from '../../gear/toothing.ts';
import { SECTIONS } from '../../shop/section.ts';
import type { FieldSpec } from '../contract.ts';
import { hasRollers, type StrainWaveParams as P } from './params.ts';

const TEETH = 'Teeth';
const WAVE = 'Wave generator';
const WALL = 'Spline and ring';
const deg = Math.PI / 180;
const cut = (p: P) => p.form !== 'belt';
const angle = (
  path: 'angle' | 'spread',
  label: string,
  group: string,
  help: string,
  when: (p: P) => boolean,
): FieldSpec<P> => ({ as: 'quantity', quantity: 'angle', path, label, group, help, step: deg, when });
const count = (
  path: 'shift' | 'depth' | 'addendum' | 'dedendum',
  label: string,
  help: string,
  step: number,
  when?: (p: P) => boolean,
): FieldSpec<P> => ({
  as: 'quantity',
  quantity: 'count',
  path,
  label,
  group: TEETH,
  help,
  step,
  ...(when && { when }),
});

/** How a person edits a strain-wave stage. */
export const strainWaveFields: readonly FieldSpec<P>[] = [
  choiceField<P>(
    'held',
    'Bolted down',
    TEETH,
    'Decides ratio and sense: with the ring bolted the spline turns back, with the spline bolted the ring turns on, and the two ratios differ by one.',
    [
      { value: 'ring', label: 'Ring, spline out' },
      { value: 'spline', label: 'Spline, ring out' },
    ],
  ),
  countField<P>('teeth', 'Spline teeth', 'The ring has as many more as there are lobes.', TEETH, 16, 400),
  countField<P>('lobes', 'Lobes', 'Waves round the spline.', TEETH, 2, 3),
  choiceField<P>(
    'form',
    'Tooth form',
    TEETH,
    'Straight sides mesh well in a wave; involute ones can be cut with usual tools; a belt can be the spline.',
    [
      { value: 'straight', label: 'Straight' },
      { value: 'involute', label: 'Involute' },
      { value: 'belt', label: 'Belt, inside out' },
    ],
  ),
  {
    as: 'choice',
    path: 'section',
    label: 'Belt section',
    group: TEETH,
    help: 'Its cord is the neutral line.',
    when: (p) => p.form === 'belt',
    options: () => SECTIONS.map((s) => ({ value: s.id, label: s.name })),
  },
  {
    as: 'quantity',
    quantity: 'length',
    path: 'module',
    label: 'Module',
    group: TEETH,
    help: 'Throw and tooth size follow from it.',
    step: 5e-5,
    when: cut,
  },
  angle(
    'angle',
    'Lean of sides',
    TEETH,
    'Against the tooth’s axis; pressure angle of involute teeth. Steeper holds more before it skips, but must still swing in.',
    cut,
  ),
  count(
    'shift',
    'Profile shift factor',
    'Of spline and ring alike, over the module.',
    0.1,
    (p) => p.form === 'involute',
  ),
  count(
    'depth',
    'Depth factor',
    'Throw over its nominal value; less clears teeth that clash, more meshes deeper.',
    0.02,
  ),
  count('addendum', 'Addendum factor', 'Over the module, spline and ring.', 0.05, cut),
  count('dedendum', 'Dedendum factor', 'Over the module, spline and ring.', 0.05, cut),
  lengthField<P>('thin', 'Thickness allowance', 'The spline’s teeth are cut thinner by it; play grows.', TEETH, 1e-5),
  choiceField<P>('shape', 'Shape', WAVE, 'An ellipse or cos nθ to carry a thin bearing or slide, or rollers.', [
    { value: 'ellipse', label: 'Ellipse' },
    { value: 'cosine', label: 'Cosine wave' },
    { value: 'two', label: 'One roller a lobe' },
    { value: 'four', label: 'Two rollers a lobe' },
    { value: 'many', label: 'Many rollers' },
  ]),
  angle('spread', 'Rollers either side', WAVE, 'Angle of a roller from its lobe’s top.', (p) => p.shape === 'four'),
  {
    as: 'count',
    path: 'rollers',
    label: 'Rollers',
    group: WAVE,
    help: 'In all, evenly round the contour.',
    min: 4,
    max: 36,
    when: (p) => p.shape === 'many',
  },
  choiceField<P>(
    'run',
    'It carries',
    WAVE,
    'A thin bearing rolls; a plain contour slides.',
    [
      { value: 'bearing', label: 'A thin bearing' },
      { value: 'plain', label: 'Nothing: it slides' },
    ],
    (p) => !hasRollers(p),
  ),
  {
    as: 'choice',
    path: 'bearing',
    label: 'Bearing or roller',
    group: WAVE,
    help: 'The thin bearing on the contour, or each roller, by ISO size.',
    when: (p) => hasRollers(p) || p.run === 'bearing',
    options: (_p, shelf) =>
      shelf.bearings.map((b) => ({
        value: b.id,
        label: `${b.name}, ${(b.bore * 1e3).toFixed(0)} × ${(b.outside * 1e3).toFixed(0)} × ${(b.width * 1e3).toFixed(0)}`,
      })),
  },
  lengthField<P>('slack', 'Gap to the spline', 'As made, in radius; it is missing from the throw.', WAVE, 1e-5),
  lengthField<P>('shaft', 'Shaft bore', 'For the motor’s shaft, or a hollow one; 0 for none.', WAVE),
  choiceField<P>(
    'body',
    'Spline',
    WALL,
    'A cup twists along its length; an open band gives its turn to a second ring of as many teeth.',
    [
      { value: 'cup', label: 'Cup' },
      { value: 'belt', label: 'Open band, second ring' },
    ],
  ),
  lengthField<P>('radius', 'Neutral line', 'Radius of the middle of the wall.', WALL, 1e-4, cut),
  lengthField<P>('wall', 'Wall', 'Under the teeth; strain and turning resistance grow with it.', WALL, 5e-5, cut),
  lengthField<P>('width', 'Tooth width', 'At the open end.', WALL),
  lengthField<P>(
    'cup',
    'Cup length',
    'From the closed end; a short one cones and catches.',
    WALL,
    1e-3,
    (p) => p.body === 'cup',
  ),
  lengthField<P>('ringWall', 'Ring wall', 'Outside its roots; holds against skipping.', WALL),
  materialField<P>('materialS', 'Spline'),
  materialField<P>('materialR', 'Ring'),
  materialField<P>('materialG', 'Generator'),
];
