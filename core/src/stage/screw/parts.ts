import { bearingStocked } from '../../shop/drawer.ts';
import { ok, type Result } from '../../result.ts';
import { circle, OutlinePen, type Outline } from '../../shape/outline.ts';
import { prism } from '../../shape/solid.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports } from '../contract.ts';
import { coupledPort, couplingPart, ENDS_APART } from '../coupling.ts';
import type { ScrewBuild, ScrewModel } from './model.ts';
import { leadOf, type ScrewParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 6);
/** Points a start of a screw's cross-section is drawn with. */
const POINTS = 48;

/** A screw across its axis: going round a lead, the radius goes through root, flank, crest and flank once a start. */
function crossSection(p: ScrewParams, core: number): Outline {
  const pen = new OutlinePen();
  const [out, low] = [p.diameter / 2, core / 2];
  const round = POINTS * p.starts;
  for (let i = 0; i < round; i++) {
    const u = ((i * p.starts) / round) % 1;
    const r =
      u < 0.3
        ? low
        : u < 0.5
          ? low + ((out - low) * (u - 0.3)) / 0.2
          : u < 0.8
            ? out
            : out - ((out - low) * (u - 0.8)) / 0.2;
    const a = (2 * Math.PI * i) / round;
    pen.to(r * Math.cos(a), r * Math.sin(a));
  }
  return pen.close();
}

/** Screw, nut or nuts, and bearings. */
export function screwParts(p: ScrewParams, _shelf: Shelf, m: ScrewModel): Result<readonly Part[]> {
  const { thread, bearing } = m;
  const [a, b] = [m.materials[0].material, m.materials[1].material];
  const ball = p.type === 'ball';
  const sign = p.hand === 'right' ? 1 : -1;
  const section = crossSection(p, thread.core);
  const named = ball
    ? `ball screw ${mm(p.diameter)} × ${mm(leadOf(p))}`
    : `Tr ${mm(p.diameter)} × ${mm(leadOf(p))}${p.starts > 1 ? ` P ${mm(p.pitch)}` : ''}`;
  const nutHole = circle(0, 0, p.diameter / 2);
  const nutBody = circle(0, 0, p.nutDiameter / 2);
  const ends = p.ends === 'fixed-free' ? [0, 1] : p.ends === 'fixed-fixed' ? [0, 1, 2, 3] : [0, 1, 2];
  const middle = m.length / 2;
  const end = circle(0, 0, m.journal.across / 2);
  return ok([
    {
      id: 'screw',
      name: 'Screw',
      quantity: 1,
      made: a.made === 'printed' ? 'printed' : 'bought',
      material: a.name,
      mass: m.masses[0],
      money: m.prices[0],
      note: `${named}, ${p.hand}-handed, ${mm(m.length)} long between its bearings, ends ⌀ ${mm(m.journal.across)}`,
      curves: [{ layer: 'profile', outline: section }],
      turns: 'input',
      places: (crank) => [{ at: [0, 0, 0], turn: crank, apart: [0, 0, 0] }],
      solid: () => ({
        prisms: [
          prism(section, 0, m.length, [], (sign * 2 * Math.PI * m.length) / leadOf(p)),
          prism(end, -m.journal.before, 0),
          ...(m.journal.behind > 0 ? [prism(end, m.length, m.length + m.journal.behind)] : []),
        ],
      }),
    },
    {
      id: 'nut',
      name: ball ? 'Ball nut' : 'Nut',
      quantity: m.nuts,
      made: ball || b.made !== 'printed' ? 'bought' : 'printed',
      material: ball ? 'as supplied' : b.name,
      mass: m.masses[1],
      money: m.prices[1],
      note:
        `${named}, ${p.hand}-handed, ⌀ ${mm(p.nutDiameter)}, ${mm(p.nutLength)} long` +
        (m.nuts > 1 ? `; two against one another with ${stated(p.preload, 'force', 4)}` : ''),
      curves: [
        { layer: 'outside', outline: nutBody },
        { layer: 'bore', outline: nutHole },
      ],
      turns: 'free',
      runs: true,
      places: (crank) =>
        Array.from({ length: m.nuts }, (_, i) => ({
          at: [0, 0, middle + (i - m.nuts / 2) * p.nutLength + (sign * crank * leadOf(p)) / (2 * Math.PI)] as const,
          turn: 0,
          apart: [2 * p.nutDiameter, 0, 0] as const,
        })),
      // Its thread is cut, or printed, by the designation: the hole is drawn to the screw's outside.
      [ball ? 'seen' : 'solid']: () => ({ prisms: [prism(nutBody, 0, p.nutLength, [nutHole])] }),
    },
    {
      id: 'bearing',
      name: `Bearing ${bearing.name}`,
      quantity: ends.length,
      made: 'bought',
      stocked: bearingStocked(bearing),
      material: 'as supplied',
      mass: bearing.mass,
      money: bearing.price,
      note: `${mm(bearing.bore)} × ${mm(bearing.outside)} × ${mm(bearing.width)}; a pair holds an end fixed`,
      curves: [],
      turns: 'free',
      places: () =>
        ends.map((k) => ({
          at: [0, 0, k < 2 ? (k - 2) * bearing.width : m.length + (k - 2) * bearing.width] as const,
          turn: 0,
          apart: [0, 0, k < 2 ? -4 * bearing.width : 4 * bearing.width] as const,
        })),
      seen: () => ({
        prisms: [prism(circle(0, 0, bearing.outside / 2), 0, bearing.width, [circle(0, 0, bearing.bore / 2)])],
      }),
    },
    ...couplingPart(m.coupling, m.journal.across, (crank) => ({
      at: [0, 0, -m.journal.before - (ENDS_APART + m.coupling!.length) / 2],
      turn: crank,
      apart: [0, 0, -8 * bearing.width],
    })),
  ]);
}

/** Power goes in at the screw's end; the nut runs along its axis. */
export const screwPorts = (p: ScrewParams, b: ScrewBuild): Ports => ({
  // Its end reaches out of the bearings into a coupling.
  input: { at: [0, 0, -b.journal.before - ENDS_APART], along: 'z', shaft: 0, ...coupledPort(b.coupling) },
  output: {
    at: [0, 0, b.length + (p.ends === 'fixed-free' ? 0 : 2 * b.bearing.width)],
    along: 'z',
    shaft: 0,
    straight: [0, 0, p.hand === 'right' ? 1 : -1],
  },
});

/** The order of putting a screw together. */
export function screwAssembly(p: ScrewParams): readonly AssemblyStep[] {
  return [
    {
      do: 'Press the bearings on the ends of the screw, a pair against one another where it is held fixed.',
      caution: 'Press on the inner ring; do not hammer.',
    },
    {
      do:
        p.type === 'ball'
          ? 'Run the ball nut on from its sleeve; never take it off without one, or its balls fall out.'
          : 'Run the nut on; it must turn by its own weight along the whole thread.',
    },
    ...(p.nut === 'double'
      ? [
          {
            do: 'Press the second nut against the first with the spring or shim that gives the preload, and keep it from turning.',
            caution: 'The spring is loaded.',
          },
        ]
      : []),
    {
      do: 'Couple the shaft with a coupling that bends and does not twist, and bring the nut into line with the guide before it is screwed down.',
    },
    {
      do: 'Grease the thread, run the whole stroke by hand and feel for tight places.',
      caution: 'Unpowered; fingers clear of nut and ends.',
    },
    {
      do: 'Set stops and switches at both ends, and a brake where the screw does not hold what hangs on it.',
      caution:
        'A nut that wears through lets its load fall: where one hangs over people, local codes and licensed practice ask for a second nut that catches it.',
    },
  ];
}
