import { bearingStocked } from '../../shop/drawer.ts';
import { plateOutline } from '../../lobed/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle, OutlinePen, place, type Outline } from '../../shape/outline.ts';
import { prism } from '../../shape/solid.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Axle, Part, Ports } from '../contract.ts';
import { crankEnd } from '../crank-rod.ts';
import type { RingPlateBuild } from './build.ts';
import { crankBore, type RingPlateModel } from './model.ts';
import { crankPlaces, GAP, plateOutside, wheelBody } from './outlines.ts';
import type { RingPlateParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 6);
const degrees = (x: number): string => stated(x, 'angle', 6);

/** The wheel's body with half-round seats for its pins. */
function wheelOutside(p: RingPlateParams): Outline {
  const [R, r] = [p.circle / 2, p.pin / 2];
  const body = wheelBody(p);
  // Without room for seats the pins stand between two discs.
  if (body < R - 0.8 * r) return circle(0, 0, Math.max(1e-4, body));
  const half = Math.acos((R * R + body * body - r * r) / (2 * R * body));
  const inner = Math.acos((R * R + r * r - body * body) / (2 * R * r));
  const pen = new OutlinePen();
  for (let j = 0; j < p.pins; j++) {
    const a = (2 * Math.PI * j) / p.pins;
    // Down into the seat and out again, clockwise about the pin, then along the body to the next.
    pen.arc(R * Math.cos(a), R * Math.sin(a), r, a + Math.PI + inner, -2 * inner);
    pen.arc(0, 0, body, a + half, (2 * Math.PI) / p.pins - 2 * half);
  }
  return pen.close();
}

/** Plates, wheel with its pins, cranks, bearings, and the room they sweep. */
export function ringPlateParts(p: RingPlateParams, shelf: Shelf, m: RingPlateModel): Result<readonly Part[]> {
  const g = m.geometry;
  const [mp, mh] = [m.materials[0].material, m.materials[2].material];
  const how = (x: { made: string }) => (x.made === 'printed' ? 'printed' : 'bought') as Part['made'];
  const b = m.bearing;
  const cranks = crankPlaces(p);
  const outside = plateOutside(p, b.outside);
  const seats = cranks.map((x) => circle(x, 0, b.outside / 2));
  const lobes = plateOutline(g.profile);
  const floor = (k: number) => GAP + k * (p.width + GAP);
  const total = floor(p.plates) + GAP;
  const stand = (x: number, y: number, z: number, layer: number, turn = 0) => ({
    at: [x, y, z] as const,
    turn,
    apart: [0, 0, layer * 1.6 * p.width] as const,
  });
  const shift = (k: number, crank = 0): [number, number] => [
    p.throw * Math.cos(crank + g.drive.phases[k]!),
    p.throw * Math.sin(crank + g.drive.phases[k]!),
  ];
  const wheel = (crank: number) => -crank / p.pins;
  const kinds = g.alike
    ? [{ id: 'plate', name: 'Plate', list: g.drive.phases.map((_, k) => k), turn: 0 }]
    : g.clocking.map((turn, k) => ({ id: `plate-${k + 1}`, name: `Plate ${k + 1}`, list: [k], turn }));
  const parts: Part[] = kinds.map((kind) => {
    const own = kind.turn === 0 ? lobes : place(lobes, { x: 0, y: 0, turn: kind.turn });
    return {
      id: kind.id,
      name: kind.name,
      quantity: kind.list.length,
      made: how(mp),
      material: mp.name,
      mass: m.costs.plate.mass,
      money: m.costs.plate.money,
      note:
        `${p.pins + 1} lobes cut for ${p.pins} pins of ⌀ ${mm(2 * g.profile.pin)} on ⌀ ${mm(p.circle)}, ` +
        `eccentricity ${mm(p.throw)}, ${mm(p.width)} ` +
        `thick${kind.turn === 0 ? '' : `, lobes turned ${degrees(kind.turn)} from the cranks`}; ` +
        `seat${cranks.length > 1 ? 's' : ''} ${mm(b.outside)} for ${b.name}`,
      curves: [
        { layer: 'outside', outline: outside },
        { layer: 'profile', outline: own },
        ...seats.map((outline) => ({ layer: 'bearings', outline })),
      ],
      turns: 'free',
      places: (crank) => kind.list.map((k) => stand(...shift(k, crank), floor(k), k + 1)),
      solid: () => ({
        prisms:
          kind.turn === 0
            ? [prism(outside, 0, p.width, [lobes, ...seats])]
            : [prism(outside, 0, p.width, seats), { ...prism(lobes, 0, p.width), turn: kind.turn, cut: true }],
      }),
    };
  });
  const body = wheelOutside(p);
  const bore = p.bore > 0 ? [circle(0, 0, p.bore / 2)] : [];
  parts.push({
    id: 'wheel',
    name: 'Wheel',
    ...m.costs.wheel,
    made: how(mh),
    material: mh.name,
    note:
      `${wheelBody(p) < p.circle / 2 - 0.4 * p.pin ? `${p.pins} pins stand between two discs` : `${p.pins} seats of ⌀ ${mm(p.pin)}`} ` +
      `on ⌀ ${mm(p.circle)}, ${mm(total)} high${p.bore > 0 ? `, bore ${mm(p.bore)}` : ''}`,
    curves: [{ layer: 'seats', outline: body }, ...bore.map((outline) => ({ layer: 'bore', outline }))],
    turns: 'output',
    places: (crank) => [stand(0, 0, 0, 0, wheel(crank))],
    solid: () => ({ prisms: [prism(body, 0, total, bore)] }),
  });
  const rod = crankBore(p, b.bore);
  const bored = rod > 0 ? [circle(0, 0, rod / 2)] : [];
  const pieces = p.plates > 2 && rod > 0;
  if (pieces)
    parts.push({
      id: 'eccentric',
      name: 'Eccentric',
      ...m.costs.crank,
      made: how(mh),
      material: mh.name,
      note:
        `⌀ ${mm(b.bore)}, bored ${mm(rod)} ${mm(p.throw)} off its middle; bonded or pinned on the ` +
        `${p.shaft > 0 ? (cranks.length > 1 ? 'motor’s shaft or the rod' : 'motor’s shaft') : 'rod'} at ` +
        `${g.drive.phases.map(degrees).join(', ')}, one after another with the plates`,
      curves: [
        { layer: 'outside', outline: circle(p.throw, 0, b.bore / 2) },
        { layer: 'bore', outline: circle(0, 0, rod / 2) },
      ],
      turns: 'input',
      places: (crank) =>
        g.drive.phases.flatMap((phase, k) => cranks.map((x) => stand(x, 0, floor(k), k + 1, crank + phase))),
      solid: () => ({ prisms: [prism(circle(p.throw, 0, b.bore / 2), -GAP, p.width, bored)] }),
    });
  cranks.slice(pieces ? cranks.length : 0).forEach((x, i) => {
    const eccentrics = g.drive.phases.map((_, k) => circle(...shift(k), b.bore / 2));
    parts.push({
      id: `crank-${i + 1}`,
      name: i === 0 || p.layout === 'both' ? 'Driven crank' : 'Idle crank',
      ...m.costs.crank,
      quantity: 1,
      made: how(mh),
      material: mh.name,
      note:
        `${p.plates} eccentrics of ⌀ ${mm(b.bore)}, ${mm(p.throw)} off the axis at ${g.drive.phases.map(degrees).join(', ')}` +
        (rod > 0 ? `, bore ${mm(rod)}` : ''),
      curves: [
        ...eccentrics.map((outline, k) => ({ layer: `eccentric-${k + 1}`, outline })),
        ...bored.map((outline) => ({ layer: 'bore', outline })),
      ],
      turns: 'input',
      places: (crank) => [stand(x, 0, 0, p.plates + 2, crank)],
      solid: () => ({ prisms: eccentrics.map((o, k) => prism(o, floor(k) - GAP, floor(k) + p.width, bored)) }),
    });
  });
  if (m.costs.rod.quantity > 0)
    parts.push({
      id: 'crank-rod',
      name: 'Rod of a crank',
      ...m.costs.rod,
      made: 'bought',
      material: 'Silver steel 115CrV3, ground rod',
      note: `⌀ ${mm(rod)}, ${mm(total)} long and as far into its bearings; carries ${p.plates} eccentric${p.plates > 1 ? 's' : ''}`,
      curves: [],
      turns: 'input',
      // The first crank is put on the shaft that drives it.
      places: (crank) => cranks.slice(-m.costs.rod.quantity).map((x) => stand(x, 0, 0, p.plates + 2, crank)),
      seen: () => ({ prisms: [prism(circle(0, 0, rod / 2), 0, total)] }),
    });
  const swept = plateOutside(p, b.outside, p.throw + 3e-4);
  parts.push(
    {
      id: 'room',
      name: 'Swept room',
      quantity: 1,
      made: 'bought',
      reference: true,
      material: 'to be left free',
      mass: 0,
      money: 0,
      note: `the plates’ outside moved by ${mm(p.throw)} all round, and ${mm(3e-4)}; cut it from the housing, ${mm(total)} deep`,
      curves: [{ layer: 'clearance', outline: swept }],
    },
    {
      id: 'pin',
      name: p.pinsRun === 'sleeves' ? 'Pin with sleeve' : 'Pin',
      ...m.costs.pin,
      made: 'bought',
      material: m.materials[1].material.name,
      note: `⌀ ${mm(p.pin)}, ${mm(total)} long`,
      curves: [],
      turns: 'output',
      places: (crank) =>
        Array.from({ length: p.pins }, (_, j) => {
          const a = (2 * Math.PI * j) / p.pins + wheel(crank);
          return stand((p.circle / 2) * Math.cos(a), (p.circle / 2) * Math.sin(a), 0, 0, wheel(crank));
        }),
      seen: () => ({ prisms: [prism(circle(0, 0, p.pin / 2), 0, total)] }),
    },
    {
      id: 'bearing',
      name: `Bearing ${b.name}`,
      ...m.costs.bearing,
      made: 'bought',
      stocked: bearingStocked(b),
      material: 'as supplied',
      note: `${mm(b.bore)} × ${mm(b.outside)} × ${mm(b.width)}`,
      curves: [],
      turns: 'free',
      places: (crank) =>
        g.drive.phases.flatMap((_, k) => {
          const [dx, dy] = shift(k, crank);
          return cranks.map((x) => stand(x + dx, dy, floor(k), k + 1));
        }),
      seen: () => ({
        prisms: [prism(circle(0, 0, b.outside / 2), 0, Math.min(b.width, p.width), [circle(0, 0, b.bore / 2)])],
      }),
    },
  );
  return ok(parts);
}

/** Cranks that no shaft of another's goes through: what the stage stands in bears them on both sides. */
function axlesOf(p: RingPlateParams, bore: number): Axle[] {
  const rod = crankBore(p, bore);
  const diameter = rod || crankEnd(p.throw, bore);
  if (!(diameter > 0)) return [];
  const driven = { path: 'layout', value: 'idle', label: 'One crank driven, one idle' };
  return crankPlaces(p).flatMap((x, i): Axle[] =>
    i === 0 && p.shaft > 0
      ? []
      : [
          {
            part: rod > 0 ? 'crank-rod' : `crank-${i + 1}`,
            name: i === 0 ? 'first crank' : 'second crank',
            at: [x, 0, 0],
            diameter,
            long: GAP + p.plates * (p.width + GAP) + GAP,
            ...(i > 0 && p.layout === 'both' && { driven }),
          },
        ],
  );
}

/** Power goes in at the first crank, which stands beside the wheel it comes out at. */
export function ringPlatePorts(p: RingPlateParams, { bearing }: Pick<RingPlateBuild, 'bearing'>): Ports {
  return {
    input: { at: [crankPlaces(p)[0]!, 0, 0], along: 'z', shaft: p.shaft, boredBy: 'shaft' },
    output: {
      at: [0, 0, 2 * GAP + p.plates * (p.width + GAP)],
      along: 'z',
      shaft: p.bore,
      boredBy: 'bore',
    },
    axles: axlesOf(p, bearing.bore),
  };
}

/** The order of putting a ring-plate stage together. */
export function ringPlateAssembly(p: RingPlateParams): readonly AssemblyStep[] {
  return [
    { do: 'Press the pins into the wheel’s seats; each must stand square.', caution: 'Press, do not hammer.' },
    { do: 'Press a bearing into every seat of the plates.', caution: 'Press on the outer ring.' },
    {
      do:
        p.plates > 2
          ? `Put the first eccentric on the rod${p.layout === 'one' ? '' : 's'}, a plate on it, then the next in its phase, and so on: ` +
            'no bearing gets over an eccentric to the one behind it. A thin washer or balls go between plates, so that they do not rub.'
          : `Thread the plates on the crank${p.layout === 'one' ? '' : 's'} from both ends in their phases, ` +
            'with a thin washer or balls between them, so that they do not rub.',
    },
    ...(p.layout === 'one'
      ? []
      : [{ do: 'Turn both cranks until their eccentrics stand alike; a tooth or key out of step jams at once.' }]),
    { do: 'Turn the stack so that one eccentric points at a marked pin and push the wheel in along its axis.' },
    {
      do: 'Turn the crank through a whole turn by hand and feel for a place where it stops: that is a dead point, or a plate in the wrong order.',
      caution: 'Unpowered; fingers clear of the plates.',
    },
  ];
}
