import { bearingStocked } from '../../shop/drawer.ts';
import { ringDisc } from '../../lobed/index.ts';
import { PLAIN_HUB, hubHoles } from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle, OutlinePen, place, type Outline } from '../../shape/outline.ts';
import { prism } from '../../shape/solid.ts';
import type { Material } from '../../schema/joint.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports, Turning } from '../contract.ts';
import { cycloidalPose } from './drawing.ts';
import { phaseOf, ringBore, seated } from './geometry.ts';
import { crankBore, inPieces, type CycloidalModel } from './model.ts';
import { pinNote } from '../shared-params.ts';
import { branchPins, lobesOf, type CycloidalParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 6);
const degrees = (x: number): string => stated(x, 'angle', 6);
/** Room between turning parts along the axis, m. */
const GAP = 5e-4;

/** The inside of the pin ring: a bore with half-round seats that hold the pins. */
function ringInside(p: CycloidalParams): Outline {
  const [R, r] = [p.circle / 2, p.pin / 2];
  const bore = ringBore(p);
  if (!seated(p)) return circle(0, 0, bore);
  const half = Math.acos((R * R + bore * bore - r * r) / (2 * R * bore));
  const inner = Math.acos((bore * bore - R * R - r * r) / (2 * R * r));
  const pen = new OutlinePen();
  for (let j = 0; j < p.pins; j++) {
    const a = (2 * Math.PI * j) / p.pins;
    // Round the outside of the pin, then along the bore to the next.
    pen.arc(R * Math.cos(a), R * Math.sin(a), r, a - inner, 2 * inner);
    pen.arc(0, 0, bore, a + half, (2 * Math.PI) / p.pins - 2 * half);
  }
  return pen.close();
}

/** Discs, housing with the pins' seats, crank, output plate, pins and bearings. */
export function cycloidalParts(p: CycloidalParams, shelf: Shelf, m: CycloidalModel): Result<readonly Part[]> {
  const g = m.geometry;
  const [md, pins, mh] = m.materials.map((x) => x.material) as [Material, Material, Material];
  const how = (x: { made: string }) => (x.made === 'printed' ? 'printed' : 'bought') as Part['made'];
  const b = m.bearing;
  const hole = p.outPin + 2 * p.throw + p.outGap;
  const holes = Array.from({ length: p.outPins }, (_, i) =>
    circle(
      (p.outCircle / 2) * Math.cos((2 * Math.PI * i) / p.outPins),
      (p.outCircle / 2) * Math.sin((2 * Math.PI * i) / p.outPins),
      hole / 2,
    ),
  );
  const seat = circle(0, 0, b.outside / 2);
  const profile = ringDisc(g.profile, p.difference);
  const total = p.discs * p.width + 2 * GAP;
  const stand = (x: number, y: number, z: number, turn: number, layer: number) => ({
    at: [x, y, z] as const,
    turn,
    apart: [0, 0, layer * 1.5 * p.width] as const,
  });
  const kinds = g.alike
    ? [{ id: 'disc', name: 'Disc', list: Array.from({ length: p.discs }, (_, i) => i), turn: 0 }]
    : g.clocking.map((turn, i) => ({ id: `disc-${i + 1}`, name: `Disc ${i + 1}`, list: [i], turn }));
  const pose = (crank: number) => cycloidalPose(p, crank);
  const [ringTurns, plateTurns]: readonly [Turning, Turning] =
    p.held === 'ring' ? ['fixed', 'output'] : ['output', 'fixed'];
  const discPlace = (i: number, crank: number) => {
    const at = pose(crank).discs[i]!;
    return stand(at.x, at.y, GAP + i * p.width, at.turn - pose(0).discs[i]!.turn, 2 + i);
  };
  const parts: Part[] = kinds.map((k) => ({
    id: k.id,
    name: k.name,
    quantity: k.list.length,
    made: how(md),
    material: md.name,
    mass: m.costs.disc.mass,
    money: m.costs.disc.money,
    note:
      `${lobesOf(p)} lobes cut for ${p.pins} pins of ⌀ ${mm(2 * g.profile.pin)} on ⌀ ` +
      `${mm(2 * g.profile.circle)}, eccentricity ${mm(p.throw)}, ${mm(p.width)} thick; ${p.outPins} ` +
      `holes of ${mm(hole)} on ⌀ ` +
      `${mm(p.outCircle)}${k.turn === 0 ? '' : `, lobes turned ${degrees(k.turn)} from the holes`}; seat ` +
      `${mm(b.outside)} for ${b.name}`,
    curves: [
      { layer: 'profile', outline: k.turn === 0 ? profile : place(profile, { x: 0, y: 0, turn: k.turn }) },
      { layer: 'bearing', outline: seat },
      ...holes.map((outline) => ({ layer: 'output-holes', outline })),
    ],
    // Discs that are alike all take the same part; where it must, it is set round by whole holes.
    turns: 'free',
    places: (crank) =>
      k.list.map((i) => {
        const at = discPlace(i, crank);
        return { ...at, turn: at.turn + settled(p, i, k.turn) };
      }),
    solid: () =>
      k.turn === 0
        ? { prisms: [prism(profile, 0, p.width, [seat, ...holes])] }
        : {
            prisms: [
              { ...prism(profile, 0, p.width), turn: k.turn },
              ...[seat, ...holes].map((o) => ({ ...prism(o, 0, p.width), cut: true })),
            ],
          },
  }));
  const inside = ringInside(p);
  const bolts =
    p.boltsR > 0
      ? hubHoles({ ...PLAIN_HUB, bolts: p.boltsR, boltCircle: p.circle + p.pin / 2 + p.rim, boltHole: p.boltHole })
      : [];
  const rim = circle(0, 0, g.outside / 2);
  parts.push({
    id: 'ring',
    name: 'Pin housing',
    ...m.costs.ring,
    made: how(mh),
    material: mh.name,
    note: `${
      seated(p)
        ? `${p.pins} seats of ⌀ ${mm(p.pin)} on ⌀ ${mm(p.circle)}`
        : `plain bore of ⌀ ${mm(2 * ringBore(p))}; the pins stand in the plates at both ends, on ⌀ ${mm(p.circle)}`
    }, outside ⌀ ${mm(g.outside)}, ${mm(total)} high`,
    curves: [
      { layer: 'outside', outline: rim },
      { layer: 'seats', outline: inside },
      ...bolts.map((outline) => ({ layer: 'bolts', outline })),
    ],
    turns: ringTurns,
    places: (crank) => [stand(0, 0, 0, pose(crank).ring, 0)],
    solid: () => ({ prisms: [prism(rim, 0, total, [inside, ...bolts])] }),
  });
  const bored = crankBore(p, b);
  const bore = bored > 0 ? [circle(0, 0, bored / 2)] : [];
  const phases = Array.from({ length: p.discs }, (_, i) => phaseOf(p, i));
  const eccentric = (phase: number) => circle(p.throw * Math.cos(phase), p.throw * Math.sin(phase), b.bore / 2);
  const crankBy = { ...m.costs.crank, made: how(mh), material: mh.name, turns: 'input' as const };
  if (inPieces(p, b))
    parts.push({
      ...crankBy,
      id: 'eccentric',
      name: 'Eccentric',
      note:
        `⌀ ${mm(b.bore)}, bored ${mm(bored)} ${mm(p.throw)} off its middle; bonded or pinned on the ` +
        `${p.shaft > 0 ? 'motor’s shaft' : 'rod'} at ${phases.map(degrees).join(', ')}, one after another with the discs`,
      curves: [{ layer: 'outside', outline: eccentric(0) }, ...bore.map((outline) => ({ layer: 'bore', outline }))],
      places: (crank) => phases.map((phase, i) => stand(0, 0, GAP + i * p.width, crank + phase, 1.5 + i)),
      solid: () => ({ prisms: [prism(eccentric(0), 0, p.width, bore)] }),
    });
  else
    parts.push({
      ...crankBy,
      id: 'crank',
      name: 'Crank',
      note:
        `${p.discs} eccentric${p.discs > 1 ? 's' : ''} of ⌀ ${mm(b.bore)}, ${mm(p.throw)} off the ` +
        (`axis${p.discs > 1 ? ` at ${phases.map(degrees).join(', ')}` : ''}` +
          `${p.shaft > 0 ? `, bore ${mm(p.shaft)}` : ''}`),
      curves: [
        ...phases.map((phase, i) => ({ layer: `eccentric-${i + 1}`, outline: eccentric(phase) })),
        ...bore.map((outline) => ({ layer: 'bore', outline })),
      ],
      places: (crank) => [stand(0, 0, GAP, crank, 2 + p.discs)],
      solid: () => ({
        prisms: phases.map((phase, i) => prism(eccentric(phase), i * p.width, (i + 1) * p.width, bore)),
      }),
    });
  if (m.costs.rod.quantity > 0)
    parts.push({
      id: 'crank-rod',
      name: 'Rod of the crank',
      ...m.costs.rod,
      made: 'bought',
      material: 'Silver steel 115CrV3, ground rod',
      note: `⌀ ${mm(bored)}, ${mm(p.discs * p.width)} long and as far as the motor’s coupling asks; carries ${p.discs} eccentrics`,
      curves: [],
      turns: 'input',
      places: (crank) => [stand(0, 0, GAP, crank, 2 + p.discs)],
      seen: () => ({ prisms: [prism(circle(0, 0, bored / 2), 0, p.discs * p.width)] }),
    });
  const outPlaces = Array.from(
    { length: p.outPins },
    (_, i) =>
      [
        (p.outCircle / 2) * Math.cos((2 * Math.PI * i) / p.outPins),
        (p.outCircle / 2) * Math.sin((2 * Math.PI * i) / p.outPins),
      ] as const,
  );
  const plate = outPlate(p);
  // The shaft turns in it at another speed.
  const passage = p.shaft > 0 ? [circle(0, 0, p.shaft / 2 + GAP)] : [];
  const seats = outPlaces.map(([x, y]) => circle(x, y, p.outPin / 2));
  const edge = circle(0, 0, p.outCircle / 2 + p.outPin);
  parts.push({
    id: 'plate',
    name: 'Output plate',
    ...m.costs.plate,
    made: how(mh),
    material: mh.name,
    note: `${p.outPins} pins of ⌀ ${mm(p.outPin)} on ⌀ ${mm(p.outCircle)}, ${mm(plate)} thick`,
    curves: [
      { layer: 'outside', outline: edge },
      ...seats.map((outline) => ({ layer: 'pins', outline })),
      ...passage.map((outline) => ({ layer: 'passage', outline })),
    ],
    turns: plateTurns,
    places: (crank) => [
      stand(0, 0, total, pose(crank).out, 5 + p.discs),
      ...(p.carriedBy === 'both' ? [stand(0, 0, -plate, pose(crank).out, -3)] : []),
    ],
    solid: () => ({ prisms: [prism(edge, 0, plate, [...seats, ...passage])] }),
  });
  parts.push(
    {
      id: 'pin',
      name: p.pinsRun === 'sleeves' ? 'Ring pin with sleeve' : 'Ring pin',
      ...m.costs.pin,
      made: how(pins),
      material: pins.name,
      note: `⌀ ${mm(p.pin)}, ${mm(total)} long${pinNote(p, pins.made)}`,
      curves: [],
      turns: ringTurns,
      places: (crank) =>
        Array.from({ length: p.pins }, (_, j) => {
          const a = (2 * Math.PI * j) / p.pins + pose(crank).ring;
          return stand((p.circle / 2) * Math.cos(a), (p.circle / 2) * Math.sin(a), 0, pose(crank).ring, 0);
        }),
      seen: () => ({ prisms: [prism(circle(0, 0, p.pin / 2), 0, total)] }),
    },
    {
      id: 'out-pin',
      name: p.outRun === 'sleeves' ? 'Output pin with sleeve' : 'Output pin',
      ...m.costs.outPin,
      made: how(pins),
      material: pins.name,
      note: `⌀ ${mm(p.outPin)}, ${mm(total + plate * (p.carriedBy === 'both' ? 2 : 1))} long${pinNote(p, pins.made)}`,
      curves: [],
      turns: plateTurns,
      places: (crank) => {
        const { out } = pose(crank);
        const [c, s] = [Math.cos(out), Math.sin(out)];
        return outPlaces.map(([x, y]) =>
          stand(c * x - s * y, s * x + c * y, p.carriedBy === 'both' ? -plate : 0, out, 4 + p.discs),
        );
      },
      seen: () => ({
        prisms: [prism(circle(0, 0, p.outPin / 2), 0, total + plate * (p.carriedBy === 'both' ? 2 : 1))],
      }),
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
      places: (crank) => Array.from({ length: p.discs }, (_, i) => discPlace(i, crank)),
      seen: () => ({ prisms: [prism(seat, 0, Math.min(b.width, p.width), [circle(0, 0, b.bore / 2)])] }),
    },
  );
  return ok(parts);
}

/** Thickness of the plate that holds the output pins, m. */
const outPlate = (p: CycloidalParams): number => Math.max(3e-3, p.outPin);

/** Power goes in along the axis at the crank and comes out at the plate of the output pins. */
export function cycloidalPorts(p: CycloidalParams): Ports {
  const plate = outPlate(p);
  return {
    input: { at: [0, 0, p.carriedBy === 'both' ? -plate : 0], along: 'z', shaft: p.shaft, boredBy: 'shaft' },
    output: { at: [0, 0, p.discs * p.width + 2 * GAP + plate], along: 'z', shaft: 0 },
  };
}

/**
 * By how many whole holes a disc is set round, as an angle, rad: until its lobes, which may be turned from its holes, stand
 * as its eccentric asks.
 */
function settled(p: CycloidalParams, i: number, turned: number): number {
  const wanted = -phaseOf(p, i) / (branchPins(p) - 1);
  const lobe = (2 * Math.PI) / lobesOf(p);
  for (let n = 0; n < p.outPins; n++) {
    const turn = (2 * Math.PI * n) / p.outPins;
    const off = (turned + turn - wanted) / lobe;
    if (Math.abs(off - Math.round(off)) < 1e-6) return turn;
  }
  return 0;
}

/** The order of putting a cycloidal stage together. */
export function cycloidalAssembly(p: CycloidalParams): readonly AssemblyStep[] {
  return [
    { do: 'Press the ring pins into their seats; each must stand square.', caution: 'Press, do not hammer.' },
    {
      do: 'Press a bearing into every disc, on its outer ring.',
      caution: 'Press, do not hammer; support the disc round its seat.',
    },
    p.discs > 2
      ? {
          do:
            'Three eccentrics do not let a bearing pass over their neighbours: put the crank together from ' +
            'its pieces, one with each disc, in the phases given.',
        }
      : {
          do: `Slide the disc${p.discs > 1 ? 's on from either end, their eccentrics opposite one another' : ' on its eccentric'}.`,
        },
    ...(p.discs > 1
      ? [
          {
            do:
              'Turn the discs until their output holes lie over one another and their lobes find the pins: where they do ' +
              'not, set a disc round by whole holes. Numbered discs go in their order.',
          },
        ]
      : []),
    {
      do: 'Lower the discs into the ring with the crank pointing at a marked pin: a hollow of the first disc meets that pin.',
    },
    { do: 'Push the output pins through all holes into their plate.', caution: 'Press, do not hammer.' },
    {
      do: 'Grease, and turn the crank through as many turns as there are lobes; feel for a tight place and find its pin.',
      caution: 'Unpowered; fingers clear of the discs.',
    },
  ];
}
