import * as v from 'valibot';
import { hubShape, materialId, shift, size, teeth, thinning, toothingEntries, yesNo } from '../../gear/toothing.ts';
import { quantity, wholeNumber } from '../../schema/quantity-schema.ts';

const ARRANGEMENTS = ['sun-carrier', 'sun-ring', 'ring-carrier', 'ring-sun', 'carrier-sun', 'carrier-ring'] as const;

/** Parameters of a planetary stage, SI units. */
export const planetarySchema = v.looseObject({
  arrangement: v.pipe(
    v.picklist(ARRANGEMENTS),
    v.description('Which member drives and which is driven; the third is held'),
  ),
  zs: teeth('sun'),
  zp: teeth('planet'),
  zr: teeth('ring', 600),
  planets: v.pipe(wholeNumber(2, 12), v.description('Number of planets')),
  spacing: v.pipe(
    v.picklist(['even', 'stepped']),
    v.description('Planets evenly spaced, or at the nearest places that assemble'),
  ),
  sets: v.pipe(wholeNumber(1, 4), v.description('Equal sets one after the other, each carrier the next sun')),
  step: v.pipe(
    quantity('efficiency', 0.2, 1),
    v.description('Width of a set over that of the next one, towards the output'),
  ),
  floating: v.pipe(
    v.picklist(['none', 'sun', 'ring', 'carrier']),
    v.description('Member that is left free to centre itself'),
  ),
  ...toothingEntries,
  xs: shift('sun'),
  xp: shift('planet'),
  allowanceS: thinning('sun'),
  allowanceP: thinning('planet'),
  allowanceR: thinning('ring'),
  meshBy: v.pipe(v.picklist(['friction', 'given']), v.description('Mesh efficiencies from friction, or as given')),
  etaS: v.pipe(quantity('efficiency', 0.5, 1), v.description('Efficiency of the sun’s mesh, as given')),
  etaR: v.pipe(quantity('efficiency', 0.5, 1), v.description('Efficiency of the ring’s mesh, as given')),
  materialS: materialId('sun'),
  materialP: materialId('planets'),
  materialR: materialId('ring'),
  pins: v.pipe(
    v.picklist(['plain', 'ball', 'needle']),
    v.description('Planets run on the pin, or on a ball or needle bearing each'),
  ),
  pin: size('Pin diameter', 5e-4, 0.1),
  bearing: v.pipe(v.string(), v.description('Bearing of a planet, by designation')),
  rim: size('Wall of the ring outside its roots', 5e-4, 0.2),
  plate: size('Thickness of a carrier plate', 5e-4, 0.1),
  boreS: size('Bore of the sun', 0, 0.3),
  shapeS: hubShape('sun'),
  boltsR: v.pipe(wholeNumber(0, 24), v.description('Screws through the ring’s wall')),
  boltHole: size('Hole for a screw', 1e-3, 0.02),
  nuts: yesNo('Nut traps in the ring'),
  boltsC: v.pipe(wholeNumber(0, 24), v.description('Screws of the output flange on the carrier')),
  boltCircleC: size('Bolt circle of the output flange', 0, 1),
});

export type PlanetaryParams = v.InferOutput<typeof planetarySchema>;
export type Member = 'sun' | 'ring' | 'carrier';

/** Input, output and held member of an arrangement. */
export function roles(p: Pick<PlanetaryParams, 'arrangement'>): { input: Member; output: Member; held: Member } {
  const [input, output] = p.arrangement.split('-') as [Member, Member];
  return { input, output, held: (['sun', 'ring', 'carrier'] as const).find((m) => m !== input && m !== output)! };
}
