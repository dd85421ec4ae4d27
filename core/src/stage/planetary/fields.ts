import { choiceField, countField, lengthField, materialField, NO_YES, SHAPES, shiftField, toothingFields } from '../../gear/toothing.ts';
import { isNeedle } from '../../shop/bearings.ts';
import type { FieldSpec } from '../contract.ts';
import type { PlanetaryParams as P } from './params.ts';

const um = 1e-5;
const toothing = toothingFields<P>();

/** How a person edits a planetary stage. */
export const planetaryFields: readonly FieldSpec<P>[] = [
  choiceField<P>('arrangement', 'Runs as', 'Members', 'What drives and what is driven; the third member is held.', [
    { value: 'sun-carrier', label: 'sun in, carrier out' }, { value: 'sun-ring', label: 'sun in, ring out' }, { value: 'ring-carrier', label: 'ring in, carrier out' },
    { value: 'ring-sun', label: 'ring in, sun out' }, { value: 'carrier-sun', label: 'carrier in, sun out' }, { value: 'carrier-ring', label: 'carrier in, ring out' },
  ]),
  countField<P>('zs', 'Sun', 'Teeth of the sun.'), countField<P>('zp', 'Planet', 'Teeth of a planet.'), countField<P>('zr', 'Ring', 'Sun plus two planets, or one or two off with shift.', 'Teeth', 5, 600),
  ...toothing.filter((f) => f.group === 'Teeth'),
  countField<P>('planets', 'Planets', 'More share the load, less evenly.', 'Members', 2, 12),
  choiceField<P>('spacing', 'Spacing', 'Members', 'Even where (sun + ring) divides by the planets; otherwise the nearest places that assemble.', [{ value: 'even', label: 'Even' }, { value: 'stepped', label: 'Nearest that fits' }]),
  countField<P>('sets', 'Sets', 'Equal sets in one ring tube; each carrier is the next sun.', 'Members', 1, 4),
  { as: 'quantity', quantity: 'efficiency', path: 'step', label: 'Width step', group: 'Members', help: 'Width of a set over the next one’s.', step: 0.05, when: (p) => p.sets > 1 },
  choiceField<P>('floating', 'Floating', 'Members', 'A member left free to centre itself shares the load among three planets.', [{ value: 'none', label: 'None' }, { value: 'sun', label: 'Sun' }, { value: 'ring', label: 'Ring' }, { value: 'carrier', label: 'Carrier' }]),
  shiftField<P>('xs', 'Shift, sun', 'The ring’s shift follows from the centre distance.'), shiftField<P>('xp', 'Shift, planets', 'A shift takes undercut off small wheels.'),
  lengthField<P>('allowanceS', 'Thinner, sun', 'Thickness taken off each tooth; makes play, and room for the process.', 'Shift and play', um),
  lengthField<P>('allowanceP', 'Thinner, planets', 'Thickness taken off each tooth.', 'Shift and play', um),
  lengthField<P>('allowanceR', 'Thinner, ring', 'Thickness taken off each tooth.', 'Shift and play', um),
  materialField<P>('materialS', 'Sun'), materialField<P>('materialP', 'Planets'), materialField<P>('materialR', 'Ring, carrier'),
  choiceField<P>('pins', 'Planets on', 'Pins and carrier', 'Plain bores are light and cheap; bearings run longer and cooler.', [{ value: 'plain', label: 'Plain bore' }, { value: 'ball', label: 'Ball bearing' }, { value: 'needle', label: 'Needle bearing' }]),
  lengthField<P>('pin', 'Pin', 'Ground rod, held at both ends.', 'Pins and carrier'),
  { as: 'choice', path: 'bearing', label: 'Bearing', group: 'Pins and carrier', help: 'Its bore is the pin’s; needles run on the pin itself, which must be hard and ground.', when: (p) => p.pins !== 'plain', options: (p, shelf) => shelf.bearings.filter((b) => isNeedle(b) === (p.pins === 'needle')).map((b) => ({ value: b.id, label: b.name })) },
  lengthField<P>('plate', 'Carrier plate', 'Thickness of each of the two plates.', 'Pins and carrier'),
  lengthField<P>('rim', 'Ring wall', 'Outside the roots.', 'Pins and carrier'),
  lengthField<P>('boreS', 'Sun’s bore', 'Motor shaft; 0 for a sun on its own shaft.', 'Bores and screws'),
  choiceField<P>('shapeS', 'Sun’s bore is', 'Bores and screws', 'A flat for a set screw; a keyway by ISO/R 773.', SHAPES, (p) => p.boreS > 0),
  countField<P>('boltsR', 'Screws, ring', 'Through the ring’s wall.', 'Bores and screws', 0, 24),
  lengthField<P>('boltHole', 'Screw hole', '3.2 mm for M3.', 'Bores and screws', 1e-4),
  choiceField<P>('nuts', 'Nut traps', 'Bores and screws', 'Hexagons in the ring for ISO 4032 nuts.', NO_YES, (p) => p.boltsR > 0),
  countField<P>('boltsC', 'Screws, output', 'In the output flange on the carrier.', 'Bores and screws', 0, 24),
  lengthField<P>('boltCircleC', 'Their circle', 'Diameter.', 'Bores and screws', 5e-4, (p) => p.boltsC > 0),
  choiceField<P>('meshBy', 'Mesh losses', 'Losses', 'From the shop’s tooth friction, or as measured.', [{ value: 'friction', label: 'From friction' }, { value: 'given', label: 'As given' }]),
  { as: 'quantity', quantity: 'efficiency', path: 'etaS', label: 'Sun’s mesh', group: 'Losses', help: 'Efficiency of the sun’s mesh, its bearings included.', step: 0.005, when: (p) => p.meshBy === 'given' },
  { as: 'quantity', quantity: 'efficiency', path: 'etaR', label: 'Ring’s mesh', group: 'Losses', help: 'Efficiency of the ring’s mesh, its bearings included.', step: 0.005, when: (p) => p.meshBy === 'given' },
  ...toothing.filter((f) => f.group !== 'Teeth'),
];
