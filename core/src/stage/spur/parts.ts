import {
  boreWords,
  gearOutline,
  gearPrisms,
  hubCurves,
  hubHoles,
  nutFor,
  PLAIN_HUB,
  spanTeeth,
  spanWords,
  takenOutBy,
  toothWords,
  type Hub,
  isTwoHanded,
} from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle } from '../../shape/outline.ts';
import { cut } from '../../shape/solid.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports } from '../contract.ts';
import { springParts, springsOn, wheelParts, windStep } from '../split-wheel.ts';
import { spurPose } from './drawing.ts';
import { namesOf, type SpurModel } from './model.ts';
import type { SpurParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 6);

/** Every wheel of the train. */
export function spurParts(p: SpurParams, shelf: Shelf, m: SpurModel): Result<readonly Part[]> {
  const g = m.geometry;
  const names = namesOf(p);
  const last = g.wheels.length - 1;
  const parts: Part[] = [];
  const double = p.double === 'yes';
  const way = takenOutBy(p);
  const stand = (k: number, crank: number) => ({
    at: [g.places[k]![0], g.places[k]![1], 0] as const,
    turn: spurPose(g, crank)[k]!.turn,
    apart: [0, 0, (k % 2 === 0 ? 1 : -1) * 1.5 * p.width] as const,
  });
  g.wheels.forEach((w, i) => {
    const idler = i > 0 && i < last;
    // Idlers in mesh with one another have unlike hands: one part for each hand.
    const hands = w.helix !== 0 && p.idlers > 1 ? 2 : 1;
    if (idler && i > hands) return;
    const alike = (q: number) => q > 0 && q < last && (q - i) % hands === 0;
    const idlers = g.wheels.filter((_, q) => alike(q)).length;
    const mesh = g.meshes[Math.max(0, i - 1)]!;
    const side = mesh.sides[i === 0 ? 0 : 1];
    const driven = i === last;
    const hub: Hub = {
      bore: i === 0 ? p.bore1 : driven && !w.ring ? p.bore2 : idler ? 3e-3 : 0,
      shape: i === 0 ? p.shape1 : driven ? p.shape2 : 'round',
      bolts: driven ? p.bolts2 : 0,
      boltCircle: w.ring ? 2 * side.root + p.rim : p.boltCircle2,
      boltHole: p.boltHole,
      nuts: driven && p.nuts === 'yes',
    };
    const rim = w.ring ? circle(0, 0, side.root + p.rim) : undefined;
    const material = m.materials[i]!.material;
    const k = spanTeeth(w);
    const nut = nutFor(p.boltHole);
    const split = driven && way === 'split';
    const pieces = split ? 2 : 1;
    parts.push(
      ...wheelParts(
        split ? 'sprung' : 'no',
        {
          id: i === 0 ? 'driver' : driven ? 'driven' : i > 1 ? 'idler-2' : 'idler',
          name: idler
            ? hands > 1
              ? `Idler, ${w.helix > 0 ? 'right' : 'left'} hand`
              : 'Idler'
            : names[i]![0]!.toUpperCase() + names[i]!.slice(1),
          made: material.made === 'printed' ? 'printed' : 'bought',
          material: material.name,
          teeth: w,
          turns: idler ? 'free' : driven ? 'output' : 'input',
          ...(isTwoHanded(p) && { together: 'wheels' }),
          places: (crank) =>
            idler ? g.wheels.flatMap((_, q) => (alike(q) ? [stand(q, crank)] : [])) : [stand(i, crank)],
        },
        p.width,
        double,
        { quantity: idler ? idlers : pieces, mass: m.masses[i]! / pieces, money: m.prices[i]! / pieces },
        (width, teeth, two, { sprung }) => {
          const own: Hub = sprung ? { ...PLAIN_HUB, bore: hub.bore } : hub;
          return {
            note: `${toothWords(teeth, two)}, ${mm(width)} wide, ${spanWords(w, k)}` + boreWords(own.bore, own.shape),
            curves: [
              ...(rim ? [{ layer: 'outside', outline: rim }] : []),
              { layer: 'profile', outline: gearOutline(w, undefined, side) },
              ...hubCurves(own),
            ],
            solid: () => ({
              prisms: [
                ...gearPrisms(teeth, width, two, hubHoles(own), rim ? { rim } : {}),
                ...hubCurves(own)
                  .filter((c) => c.layer === 'nut-traps')
                  .map((c) => cut(c.outline, width - nut.height, width)),
              ],
            }),
          };
        },
      ),
    );
  });
  parts.push(
    ...springParts(
      springsOn(way),
      way === 'split'
        ? `${stated(p.preload, 'force', 4)} together along the pitch circle, evenly round`
        : `${stated(p.preload, 'force', 4)} together, towards the mate`,
    ),
  );
  if (p.idlers > 0)
    parts.push({
      id: 'idler-bearings',
      name: 'Ball bearings of an idler, a pair',
      quantity: p.idlers,
      made: 'bought',
      material: 'as supplied',
      mass: 0,
      money: factor(shelf, 'price.bearing'),
      note: 'for its pin; their mass is not counted',
      curves: [],
    });
  return ok(parts);
}

/** Power goes in at the first wheel's axis and comes out at the last one's. */
export function spurPorts(p: SpurParams, { geometry: g }: Pick<SpurModel, 'geometry'>): Ports {
  const [x, y] = g.places.at(-1)!;
  return {
    input: { at: [0, 0, 0], along: 'z', shaft: p.bore1, boredBy: 'bore1', bored: p.shape1 },
    output: {
      at: [x, y, p.width],
      along: 'z',
      ...(g.wheels.at(-1)!.ring ? { shaft: 0 } : { shaft: p.bore2, boredBy: 'bore2' }),
      bored: p.shape2,
    },
  };
}

/** The order of putting a train together. */
export function spurAssembly(p: SpurParams): readonly AssemblyStep[] {
  return [
    {
      do: 'Press the bearings into their seats.',
      caution: 'Press, do not hammer; support the ring that is being pressed.',
    },
    { do: 'Fasten the driving wheel on its shaft, faces square.' },
    ...(p.idlers > 0
      ? [{ do: `Set ${p.idlers > 1 ? 'the idlers' : 'the idler'} on ${p.idlers > 1 ? 'their pins' : 'its pin'}.` }]
      : []),
    {
      do: isTwoHanded(p)
        ? 'Bring the wheels together along the line of centres: two hands cannot be pushed in along the axis.'
        : 'Push the driven wheel in along its axis, turning it a little until its teeth enter.',
    },
    ...(takenOutBy(p) === 'split' ? [windStep('driven wheel')] : []),
    ...(takenOutBy(p) === 'spring'
      ? [
          {
            do: 'Hook in the springs that press the wheels together; what carries them must swing freely, with a stop behind it.',
            caution: 'The springs are loaded: keep fingers out of the mesh.',
          },
        ]
      : []),
    ...(takenOutBy(p) === 'eccentric' || takenOutBy(p) === 'taper'
      ? [
          {
            do: 'Take the play out where it is least in a turn, until a hundredth of a millimetre is left, and lock it.',
          },
        ]
      : []),
    {
      do: 'Turn through a whole turn of the driven wheel and feel for tight places; mark them.',
      caution: 'Unpowered; fingers clear of the mesh.',
    },
  ];
}
