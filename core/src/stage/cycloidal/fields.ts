import { choiceField, countField, lengthField, materialField } from '../../gear/toothing.ts';
import type { FieldSpec } from '../contract.ts';
import type { CycloidalParams as P } from './params.ts';

const LOBES = 'Pins and lobes';
const GAP = 'Clearance';
const OUT = 'Output';
const RUN = [
  { value: 'fixed', label: 'Fixed' },
  { value: 'sleeves', label: 'With sleeves' },
];

/** How a person edits a cycloidal stage. */
export const cycloidalFields: readonly FieldSpec<P>[] = [
  choiceField<P>(
    'held',
    'Held',
    LOBES,
    'With the ring held the output turns against the crank by one lobe a turn; with the disc held the ring turns with it.',
    [
      { value: 'ring', label: 'Ring: disc drives out' },
      { value: 'disc', label: 'Disc: ring turns' },
    ],
  ),
  countField<P>('pins', 'Pins', 'Of the ring. A disc of one lobe less has the ratio of its lobes.', LOBES, 4, 120),
  choiceField<P>(
    'difference',
    'Lobes less',
    LOBES,
    'One less than pins: every pin touches. Two less: half the ratio, lobes cut off at their tips, fewer pins touch.',
    [
      { value: 1, label: 'one' },
      { value: 2, label: 'two' },
    ],
  ),
  lengthField<P>('circle', 'Pin circle', 'Diameter.', LOBES, 1e-3),
  lengthField<P>('pin', 'Pin', 'Diameter, over the sleeve where there is one.', LOBES, 1e-4),
  lengthField<P>(
    'throw',
    'Eccentricity',
    'More makes the play of a given clearance smaller, and the lobes sharper.',
    LOBES,
    5e-5,
  ),
  countField<P>('discs', 'Discs', 'Two cancel the shaking force, three the couple too.', LOBES, 1, 3),
  lengthField<P>('width', 'Disc thickness', 'Pressure on the lobes falls with it.', LOBES),
  choiceField<P>('pinsRun', 'Pins run', LOBES, 'Fixed pins rub; sleeves roll and lose less.', RUN),
  lengthField<P>(
    'offset',
    'Gap all round',
    'The profile is cut for pins as much larger in radius: every pin then has this gap.',
    GAP,
    1e-5,
  ),
  lengthField<P>(
    'ringChange',
    'Circle smaller by',
    'In radius, for cutting the profile: opens the gaps unevenly, and can be combined with the other.',
    GAP,
    1e-5,
  ),
  countField<P>('outPins', 'Output pins', 'Through holes of pin + 2e.', OUT, 3, 24),
  lengthField<P>('outCircle', 'Their circle', 'Diameter.', OUT, 5e-4),
  lengthField<P>('outPin', 'Output pin', 'Diameter, over the sleeve where there is one.', OUT, 5e-4),
  lengthField<P>('outGap', 'Hole wider by', 'In diameter; adds to the play.', OUT, 1e-5),
  choiceField<P>('outRun', 'They run', OUT, 'Fixed pins rub in their holes; sleeves roll.', RUN),
  choiceField<P>('carriedBy', 'They stand in', OUT, 'One plate, or one on either side of the discs.', [
    { value: 'plate', label: 'one plate' },
    { value: 'both', label: 'two plates' },
  ]),
  {
    as: 'choice',
    path: 'bearing',
    label: 'Eccentric bearing',
    group: 'Crank',
    help: 'One in each disc, by ISO size.',
    options: (_p, shelf) =>
      shelf.bearings.map((b) => ({
        value: b.id,
        label: `${b.name}, ${(b.bore * 1e3).toFixed(0)} × ${(b.outside * 1e3).toFixed(0)} × ${(b.width * 1e3).toFixed(0)}`,
      })),
  },
  lengthField<P>('shaft', 'Crank’s bore', 'For the motor’s shaft; 0 for none.', 'Crank'),
  materialField<P>('materialD', 'Discs'),
  materialField<P>('materialP', 'Pins'),
  materialField<P>('materialH', 'Housing, plates'),
  lengthField<P>('rim', 'Housing wall', 'Outside the pin circle.', 'Housing'),
  countField<P>('boltsR', 'Screws, housing', 'Through its wall.', 'Housing', 0, 24),
  lengthField<P>('boltHole', 'Screw hole', '3.2 mm for M3.', 'Housing', 1e-4, (p) => p.boltsR > 0),
];
