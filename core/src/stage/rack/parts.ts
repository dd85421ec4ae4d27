import {
  boreWords,
  gearOutline,
  gearPrisms,
  hubCurves,
  hubHoles,
  PLAIN_HUB,
  spanTeeth,
  spanWords,
  toothWords,
  type Hub,
} from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle, type Outline } from '../../shape/outline.ts';
import { prism, type Prism } from '../../shape/solid.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports } from '../contract.ts';
import { pinionTurn, rackOutline } from './drawing.ts';
import { springParts, springsOn, wheelParts } from '../split-wheel.ts';
import { halved, type RackBuild, type RackModel } from './model.ts';
import { pinionRadius, type RackParams } from './params.ts';
import { rollerRackOutline } from './rollers.ts';

const mm = (x: number): string => stated(x, 'length', 6);

/** One piece of the rack: as many whole teeth as fit, its own middle at x = 0. */
function pieceOutline(p: RackParams, m: Pick<RackModel, 'geometry'>, teeth: number): Outline {
  const g = m.geometry;
  return g.rollers ? rollerRackOutline(g.rollers, teeth, p.back) : rackOutline(p, g, teeth, p.allowance2);
}

/** Pinion and rack. */
export function rackParts(p: RackParams, _shelf: Shelf, m: RackModel): Result<readonly Part[]> {
  const g = m.geometry;
  const hub: Hub = { ...PLAIN_HUB, bore: p.bore, shape: p.shape };
  const [a, b] = [m.materials[0].material, m.materials[1].material];
  const how = (made: string): Part['made'] => (made === 'printed' ? 'printed' : 'bought');
  const profile = g.mesh
    ? gearOutline(g.pinion!, undefined, g.mesh.sides[0])
    : circle(0, 0, g.radius + 0.8 * g.rollers!.roller);
  const seats = Array.from({ length: g.rollers ? p.z : 0 }, (_, i) => {
    const at = (2 * Math.PI * i) / p.z;
    return circle(g.radius * Math.cos(at), g.radius * Math.sin(at), p.roller / 2);
  });
  // Teeth of each piece: the first ones take what does not divide.
  const each = Array.from({ length: g.pieces }, (_, i) => Math.floor((g.teeth + i) / g.pieces));
  const most = Math.max(...each);
  const outline = pieceOutline(p, m, most);
  const shorter = each.filter((n) => n < most).length;
  const pieces: Part[] = [
    { n: most, count: each.length - shorter, id: 'rack' },
    ...(shorter ? [{ n: most - 1, count: shorter, id: 'rack-short' }] : []),
  ].map(({ n, count, id }): Part => {
    const own = n === most ? outline : pieceOutline(p, m, n);
    const before = id === 'rack' ? 0 : (each.length - shorter) * most;
    return {
      id,
      name: g.pieces > 1 ? `Rack, piece of ${n} teeth` : 'Rack',
      quantity: count,
      made: how(b.made),
      material: b.name,
      mass: (m.masses[1] * n) / g.teeth,
      money: (m.prices[1] * n) / g.teeth,
      note:
        `${g.rollers ? `for rollers of ${mm(p.roller)}` : `module ${mm(p.module)}, ${stated(p.pressure, 'angle', 4)}${slantWords(p)}`}, pitch ${mm(g.pitch)}, ` +
        `${n} teeth (${mm(n * g.pitch)}), ${mm(p.width)} wide, ${mm(p.back)} high below the pitch line` +
        (g.pieces > 1 ? '; set together with a counter-rack over the joint' : ''),
      curves: [{ layer: 'profile', outline: own }],
      turns: 'free',
      runs: true,
      places: (crank) =>
        Array.from({ length: count }, (_, k) => ({
          // The first piece's middle lies so that a space stands under the pinion at rest, as drawn.
          at: [
            crank * pinionRadius(p) + (before + (k + 0.5) * n - Math.floor(g.teeth / 2) - 0.5) * g.pitch,
            -g.axis,
            0,
          ] as const,
          turn: 0,
          apart: [0, -2 * p.back, 0] as const,
        })),
      solid: () => ({ prisms: slanted(own, p) }),
    };
  });
  const pieceCount = halved(p) ? 2 : 1;
  const cost = { quantity: pieceCount, mass: m.masses[0] / pieceCount, money: m.prices[0] / pieceCount };
  const pinion = {
    id: 'pinion',
    made: how(a.made),
    material: a.name,
    turns: 'input',
    places: (crank: number) => [
      { at: [0, 0, 0] as const, turn: pinionTurn(crank), apart: [0, 2 * p.back, 0] as const },
    ],
  } as const;
  if (g.rollers)
    return ok([
      {
        ...pinion,
        ...cost,
        name: 'Roller pinion',
        note: `${p.z} rollers of ${mm(p.roller)} on a circle of ${mm(2 * g.radius)}, between two discs, ${mm(p.width)} long${boreWords(p.bore, p.shape)}`,
        curves: [
          { layer: 'profile', outline: profile },
          ...seats.map((o) => ({ layer: 'rollers', outline: o })),
          ...hubCurves(hub),
        ],
        solid: () => ({
          prisms: [
            ...[-1, 1].map((side) =>
              prism(profile, side < 0 ? -DISC : p.width, side < 0 ? 0 : p.width + DISC, hubHoles(hub)),
            ),
            ...seats.map((o) => prism(o, 0, p.width)),
            prism(circle(0, 0, 0.6 * (g.radius - p.roller / 2) + 0.4 * (p.bore / 2)), 0, p.width, hubHoles(hub)),
          ],
        }),
      },
      ...pieces,
    ]);
  const gear = g.pinion!;
  const double = p.double === 'yes';
  return ok([
    ...wheelParts(
      halved(p) ? 'sprung' : 'no',
      { ...pinion, name: 'Pinion', teeth: gear },
      p.width,
      double,
      cost,
      (width, teeth, two, { sprung }) => {
        const own: Hub = sprung ? { ...PLAIN_HUB, bore: p.bore } : hub;
        return {
          note: `${toothWords(teeth, two)}, ${mm(width)} wide, ${spanWords(gear, spanTeeth(gear))}${boreWords(own.bore, own.shape)}`,
          curves: [{ layer: 'profile', outline: profile }, ...hubCurves(own)],
          solid: () => ({ prisms: gearPrisms(teeth, width, two, hubHoles(own)) }),
        };
      },
    ),
    ...pieces,
    ...springParts(
      springsOn(p.takenOut),
      p.takenOut === 'split'
        ? `${stated(p.preload, 'force', 4)} together along the pitch circle, evenly round`
        : `${stated(p.preload, 'force', 4)} together, towards the rack`,
    ),
  ]);
}

/** What is said of slant teeth: a rack that lies under its pinion has the other hand. */
const slantWords = (p: RackParams): string =>
  p.helix === 0
    ? ''
    : `, helix ${stated(p.helix, 'angle', 3)} ${p.double === 'yes' ? 'double' : 'left'}, its ends along the teeth`;

/** A rack's body: under the pinion its teeth go on along the rack as the pinion's helix comes round, back first where it is double. */
function slanted(outline: Outline, p: RackParams): Prism[] {
  const way = p.form === 'involute' ? p.width * Math.tan(p.helix) : 0;
  if (way === 0) return [prism(outline, 0, p.width)];
  if (p.double === 'no') return [{ ...prism(outline, 0, p.width), leans: [0, way] }];
  const half = p.width / 2;
  return [
    { ...prism(outline, 0, half), leans: [0, -way / 2] },
    { ...prism(outline, half, p.width), leans: [-way / 2, 0] },
  ];
}

/** Thickness of the discs that hold rollers, m. */
const DISC = 3e-3;

/** Power goes in at the pinion's axis, as far before it as its shaft overhangs; the rack, or the carriage, runs across it. */
export const rackPorts = (p: RackParams, { geometry: g }: RackBuild): Ports => {
  const side = g.rollers ? DISC : 0;
  return {
    input: {
      at: [0, 0, -Math.max(side, p.overhang - p.width / 2)],
      along: 'z',
      shaft: p.bore,
      boredBy: 'bore',
      bored: p.shape,
    },
    output: { at: [0, -g.axis, p.width + side], along: 'z', shaft: 0, straight: [1, 0, 0] },
  };
};

/** The order of putting a rack and pinion together. */
export function rackAssembly(p: RackParams): readonly AssemblyStep[] {
  return [
    {
      do: 'Screw the rack down against its edge, and see with a dial on the carriage that it lies straight within what is stated.',
    },
    { do: 'Set further pieces on with a short counter-rack clamped over the joint, so that the pitch runs on.' },
    {
      do: 'Fasten the pinion on its shaft, close to its bearing.',
      caution: 'Motor unpowered; fingers clear of pinion and rack.',
    },
    {
      do:
        p.form === 'rollers'
          ? 'Bring the rollers into the rack until they touch both flanks, and by the stated micrometres further.'
          : p.takenOut === 'spring'
            ? 'Hook in the springs that press the pinion into the rack; it must swing freely, with a stop behind it.'
            : p.takenOut === 'split'
              ? 'Turn the halves apart against their springs, bring them into the rack, and let go.'
              : p.takenOut === 'none'
                ? 'Bring the pinion to its distance from the pitch line, and feel for play at several places of the stroke.'
                : 'Take the play out where the rack lies nearest, until a hundredth of a millimetre is left, and lock it.',
      ...(p.takenOut === 'spring' || p.takenOut === 'split'
        ? { caution: 'The springs are loaded: keep fingers out of the mesh.' }
        : {}),
    },
    {
      do: 'Set stops at both ends of the stroke before it runs under power, and a brake where a load could come down.',
      caution:
        'A carriage crushes what is between it and its stop. Where a load hangs over people, local codes and licensed practice decide what holds it.',
    },
  ];
}
