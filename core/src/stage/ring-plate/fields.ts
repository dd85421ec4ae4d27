import { choiceField, countField, lengthField, materialField } from '../../gear/toothing.ts';
import type { FieldSpec } from '../contract.ts';
import type { RingPlateParams as P } from './params.ts';

const WHEEL = 'Wheel and lobes';
const PLATES = 'Plates and cranks';

/** How a person edits a ring-plate stage. */
export const ringPlateFields: readonly FieldSpec<P>[] = [
  countField<P>('pins', 'Pins', 'Of the wheel, which is the ratio; the plates have one lobe more.', WHEEL, 5, 120),
  lengthField<P>('circle', 'Pin circle', 'Diameter.', WHEEL, 1e-3),
  lengthField<P>('pin', 'Pin', 'Diameter, over the sleeve where there is one.', WHEEL, 1e-4),
  lengthField<P>('throw', 'Eccentricity', 'More makes less play of the same gap.', WHEEL, 5e-5),
  lengthField<P>('offset', 'Gap all round', 'The lobes are cut for pins as much larger in radius.', WHEEL, 1e-5),
  choiceField<P>('pinsRun', 'Pins run', WHEEL, 'Fixed pins rub; sleeves roll and lose less.', [
    { value: 'fixed', label: 'Fixed' },
    { value: 'sleeves', label: 'With sleeves' },
  ]),
  lengthField<P>('bore', 'Wheel’s bore', '0 for none.', WHEEL, 5e-4),
  countField<P>('plates', 'Plates', 'Three even ones carry one another past every dead point.', PLATES, 1, 4),
  choiceField<P>('spread', 'Phases', PLATES, 'Evenly round the turn, or a quarter turn from one to the next.', [
    { value: 'even', label: 'Even' },
    { value: 'quarter', label: 'Quarter turns' },
  ]),
  choiceField<P>(
    'layout',
    'Cranks',
    PLATES,
    'One crank alone leans on the wheel; an idle one opposite steadies; two driven ones pass most.',
    [
      { value: 'one', label: 'One' },
      { value: 'idle', label: 'One driven, one idle' },
      { value: 'both', label: 'Two driven' },
    ],
  ),
  lengthField<P>('distance', 'Crank’s distance', 'From the wheel’s middle.', PLATES, 5e-4),
  lengthField<P>('width', 'Plate thickness', 'Pressure on the lobes falls with it.', PLATES),
  lengthField<P>('wall', 'Plate wall', 'Outside lobes and bearings.', PLATES),
  {
    as: 'choice',
    path: 'bearing',
    label: 'Eccentric bearing',
    group: PLATES,
    help: 'One in each plate on every crank, by ISO size.',
    options: (_p, shelf) =>
      shelf.bearings.map((b) => ({
        value: b.id,
        label: `${b.name}, ${(b.bore * 1e3).toFixed(0)} × ${(b.outside * 1e3).toFixed(0)} × ${(b.width * 1e3).toFixed(0)}`,
      })),
  },
  materialField<P>('materialP', 'Plates'),
  materialField<P>('materialW', 'Pins'),
  materialField<P>('materialH', 'Wheel'),
];
