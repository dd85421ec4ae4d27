import {
  boreWords,
  gearOutline,
  gearPrisms,
  hubCurves,
  hubHoles,
  nutFor,
  spanTeeth,
  spanWords,
  toothWords,
  type Hub,
} from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle } from '../../shape/outline.ts';
import { cut } from '../../shape/solid.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports } from '../contract.ts';
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
  const stand = (k: number, crank: number) => ({
    at: [g.places[k]![0], g.places[k]![1], 0] as const,
    turn: spurPose(g, crank)[k]!.turn,
    apart: [0, 0, (k % 2 === 0 ? 1 : -1) * 1.5 * p.width] as const,
  });
  g.wheels.forEach((w, i) => {
    if (i > 1 && i < last) return;
    const idler = i > 0 && i < last;
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
    parts.push({
      id: i === 0 ? 'driver' : driven ? 'driven' : 'idler',
      name: idler ? 'Idler' : names[i]![0]!.toUpperCase() + names[i]!.slice(1),
      quantity: idler ? p.idlers : 1,
      made: material.made === 'printed' ? 'printed' : 'bought',
      material: material.name,
      mass: m.masses[i]!,
      money: m.prices[i]!,
      note:
        `${toothWords(w, p.double === 'yes')}, ${mm(p.width)} wide, ${spanWords(w, k)}` +
        boreWords(hub.bore, hub.shape),
      curves: [
        ...(rim ? [{ layer: 'outside', outline: rim }] : []),
        { layer: 'profile', outline: gearOutline(w, undefined, side) },
        ...hubCurves(hub),
      ],
      teeth: w,
      turns: idler ? 'free' : driven ? 'output' : 'input',
      places: (crank) =>
        idler ? g.wheels.flatMap((_, q) => (q > 0 && q < last ? [stand(q, crank)] : [])) : [stand(i, crank)],
      solid: () => ({
        prisms: [
          ...gearPrisms(w, p.width, p.double === 'yes', hubHoles(hub), rim ? { rim } : {}),
          ...hubCurves(hub)
            .filter((c) => c.layer === 'nut-traps')
            .map((c) => cut(c.outline, p.width - nut.height, p.width)),
        ],
      }),
    });
  });
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
    input: { at: [0, 0, 0], along: 'z', shaft: p.bore1 },
    output: { at: [x, y, p.width], along: 'z', shaft: g.wheels.at(-1)!.ring ? 0 : p.bore2 },
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
      do:
        p.double === 'yes' && p.helix > 0
          ? 'Bring the wheels together along the line of centres: two hands cannot be pushed in along the axis.'
          : 'Push the driven wheel in along its axis, turning it a little until its teeth enter.',
    },
    {
      do: 'Turn through a whole turn of the driven wheel and feel for tight places; mark them.',
      caution: 'Unpowered; fingers clear of the mesh.',
    },
  ];
}
