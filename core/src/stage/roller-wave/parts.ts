import { boltPlaces, PLAIN_HUB } from '../../gear/index.ts';
import { bearingStocked } from '../../shop/drawer.ts';
import { ok, type Result } from '../../result.ts';
import { circle, place, type Outline } from '../../shape/outline.ts';
import { prism } from '../../shape/solid.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, BodyPlace, Part, Ports } from '../contract.ts';
import { rollerPoses, wallOutline, wavePose } from './drawing.ts';
import { phaseOf, PLATE, ROOM, type RollerWaveBuild, type RollerWaveModel } from './model.ts';
import type { RollerWaveParams } from './params.ts';
import { ringOutline } from './wave.ts';

const mm = (x: number): string => stated(x, 'length', 6);
const FINE = 1e-6;

/** Turn of a row's own ring profile: its throw stands as far round, and the wave with it. */
const ringTurn = (p: RollerWaveParams, b: RollerWaveBuild, row: number): number =>
  ((p.more > 0 ? 1 : -1) * phaseOf(p, row)) / b.wave.lobes;

/** Ring, cage, rollers, eccentric and bearings. */
export function rollerWaveParts(p: RollerWaveParams, _shelf: Shelf, m: RollerWaveModel): Result<readonly Part[]> {
  const { wave, bearing, costs } = m;
  const high = p.rows * p.width + (p.rows - 1) * ROOM;
  const from = (row: number) => row * (p.width + ROOM);
  const profile = (row: number): Outline => ringOutline(wave, wave.roller + p.gap, FINE, ringTurn(p, m, row));
  const rim = circle(0, 0, m.outside / 2);
  const bolts = boltPlaces({ ...PLAIN_HUB, bolts: p.boltsR, boltCircle: 2 * m.reach[1] + p.rim }).map(([x, y]) =>
    circle(x, y, p.boltHole / 2),
  );
  const wall = wallOutline(p, m);
  const walls = Array.from({ length: p.rollers }, (_, k) =>
    place(wall, { x: 0, y: 0, turn: (2 * Math.PI * (k + 0.5)) / p.rollers }),
  );
  const disc = circle(0, 0, m.cage[1]);
  // The input's shaft goes through the first plate; where both hold, the second has it too.
  const through = [circle(0, 0, Math.max(bearing.bore / 2 + p.throw + ROOM, p.shaft / 2 + 1e-3))];
  const [ring, cage, roller] = m.materials.map((x) => x.material);
  const how = (made: string): Part['made'] => (made === 'printed' ? 'printed' : 'bought');
  const eccentricAt = (crank: number, row: number): BodyPlace => {
    const a = wavePose(p, crank).throw + phaseOf(p, row);
    return { at: [p.throw * Math.cos(a), p.throw * Math.sin(a), from(row)], turn: a, apart: [0, 0, -1.5 * high] };
  };
  const held = p.held === 'ring';
  return ok([
    ...Array.from({ length: p.rows }, (_, row): Part => {
      const top = row === p.rows - 1 ? high : from(row + 1);
      return {
        id: p.rows > 1 ? `ring-${row + 1}` : 'ring',
        name: p.rows > 1 ? `Ring of row ${row + 1}` : 'Ring',
        ...costs.ring,
        quantity: 1,
        made: how(ring!.made),
        material: ring!.name,
        note: `${wave.lobes} lobes, ⌀ ${mm(2 * m.reach[0])} to ${mm(2 * m.reach[1])} inside, ⌀ ${mm(m.outside)} outside, ${mm(top - from(row))} high${p.rows > 1 ? '; the rows’ lobes stand turned by half a lobe' : ''}`,
        curves: [
          { layer: 'outside', outline: rim },
          { layer: 'profile', outline: profile(row) },
          ...bolts.map((outline) => ({ layer: 'bolts', outline })),
        ],
        turns: held ? 'fixed' : 'output',
        places: (crank) => [{ at: [0, 0, 0], turn: wavePose(p, crank).ring, apart: [0, 0, row * 0.5 * high] }],
        solid: () => ({ prisms: [prism(rim, from(row), top, [profile(row), ...bolts])] }),
      };
    }),
    {
      id: 'cage',
      name: 'Cage',
      ...costs.cage,
      made: how(cage!.made),
      material: cage!.name,
      note:
        `${p.rollers} slots of ${mm(p.roller + p.slot)}, walls ${mm(m.wall)} thin, ` +
        `⌀ ${mm(2 * m.cage[0])} to ${mm(2 * m.cage[1])}, ${mm(high)} high, on a plate of ${mm(PLATE)}`,
      curves: [
        { layer: 'outside', outline: disc },
        ...walls.map((outline) => ({ layer: 'walls', outline })),
        { layer: 'bore', outline: through[0]! },
      ],
      turns: held ? 'output' : 'fixed',
      places: (crank) => [{ at: [0, 0, 0], turn: wavePose(p, crank).cage, apart: [0, 0, 2 * high] }],
      solid: () => ({
        prisms: [
          prism(disc, high + ROOM, high + ROOM + PLATE, p.shaft > 0 ? [circle(0, 0, p.shaft / 2 + ROOM)] : []),
          ...walls.map((o) => prism(o, p.carriedBy === 'both' ? -ROOM : 0, high + ROOM)),
        ],
      }),
    },
    ...(p.carriedBy === 'both'
      ? [
          {
            id: 'cage-plate',
            name: 'Cage’s second plate',
            ...costs.cagePlate,
            made: how(cage!.made),
            material: cage!.name,
            note: `⌀ ${mm(2 * m.cage[1])}, ${mm(PLATE)} thick, screwed on the walls’ ends once the rollers are in`,
            curves: [
              { layer: 'outside', outline: disc },
              { layer: 'bore', outline: through[0]! },
            ],
            turns: held ? ('output' as const) : ('fixed' as const),
            places: (crank: number) => [
              { at: [0, 0, 0] as const, turn: wavePose(p, crank).cage, apart: [0, 0, -2 * high] as const },
            ],
            solid: () => ({ prisms: [prism(disc, -ROOM - PLATE, -ROOM, through)] }),
          },
        ]
      : []),
    {
      id: 'roller',
      name: 'Roller',
      ...costs.roller,
      made: roller!.made === 'printed' ? 'printed' : 'bought',
      material: roller!.name,
      note: `ground pin ⌀ ${mm(p.roller)} × ${mm(p.width)}`,
      curves: [{ layer: 'outside', outline: circle(0, 0, wave.roller) }],
      turns: 'free',
      // In and out once as the throw comes round in the cage.
      sways: (2 * Math.PI) / Math.abs(1 - wavePose(p, 1).cage),
      places: (crank) =>
        Array.from({ length: p.rows }, (_, i) =>
          rollerPoses(p, m, crank, phaseOf(p, i)).map((q): BodyPlace => ({
            at: [q.x, q.y, from(i)],
            turn: q.turn,
            apart: [0, 0, high],
          })),
        ).flat(),
      solid: () => ({ prisms: [prism(circle(0, 0, wave.roller), 0, p.width)] }),
    },
    {
      id: 'eccentric',
      name: 'Eccentric',
      ...costs.crank,
      made: 'bought',
      material: 'steel, turned',
      note: `${p.rows > 1 ? 'two seats' : 'a seat'} of ⌀ ${mm(bearing.bore)} for ${bearing.name}, ${mm(p.throw)} beside the middle${p.rows > 1 ? ', half a turn apart' : ''}${p.shaft > 0 ? `, bore ${mm(p.shaft)}` : ''}`,
      curves: [{ layer: 'seat', outline: circle(p.throw, 0, bearing.bore / 2) }],
      turns: 'input',
      places: (crank) => [{ at: [0, 0, 0], turn: crank, apart: [0, 0, -2.5 * high] }],
      solid: () => ({
        prisms: Array.from({ length: p.rows }, (_, i) =>
          prism(
            circle(p.throw * Math.cos(phaseOf(p, i)), p.throw * Math.sin(phaseOf(p, i)), bearing.bore / 2),
            from(i),
            i === p.rows - 1 ? high : from(i + 1),
            p.shaft > 0 ? [circle(0, 0, p.shaft / 2)] : [],
          ),
        ),
      }),
    },
    ...(p.sleeve > 0
      ? [
          {
            id: 'sleeve',
            name: 'Sleeve',
            ...costs.sleeve,
            made: 'bought',
            material: 'steel, ground',
            note: `⌀ ${mm(2 * wave.eccentric)} over ⌀ ${mm(bearing.outside)}, ${mm(p.width)} long, pressed on the bearing`,
            curves: [
              { layer: 'outside', outline: circle(0, 0, wave.eccentric) },
              { layer: 'bore', outline: circle(0, 0, bearing.outside / 2) },
            ],
            turns: 'free',
            places: (crank: number) => Array.from({ length: p.rows }, (_, i) => eccentricAt(crank, i)),
            solid: () => ({
              prisms: [prism(circle(0, 0, wave.eccentric), 0, p.width, [circle(0, 0, bearing.outside / 2)])],
            }),
          } satisfies Part,
        ]
      : []),
    {
      id: 'bearing',
      name: `Bearing ${bearing.name}`,
      ...costs.bearing,
      made: 'bought',
      stocked: bearingStocked(bearing),
      material: 'as supplied',
      note: `${mm(bearing.bore)} × ${mm(bearing.outside)} × ${mm(bearing.width)}, one a row`,
      curves: [],
      turns: 'free',
      places: (crank) =>
        Array.from({ length: p.rows }, (_, i) => {
          const q = eccentricAt(crank, i);
          return { ...q, at: [q.at[0], q.at[1], q.at[2] + (p.width - Math.min(p.width, bearing.width)) / 2] as const };
        }),
      seen: () => ({
        prisms: [
          prism(circle(0, 0, bearing.outside / 2), 0, Math.min(p.width, bearing.width), [
            circle(0, 0, bearing.bore / 2),
          ]),
        ],
      }),
    },
  ]);
}

/** Power goes in at the eccentric and comes out along the same axis. */
export function rollerWavePorts(p: RollerWaveParams): Ports {
  const high = p.rows * p.width + (p.rows - 1) * ROOM;
  return {
    input: { at: [0, 0, p.carriedBy === 'both' ? -ROOM - PLATE : 0], along: 'z', shaft: p.shaft, boredBy: 'shaft' },
    output: { at: [0, 0, high + ROOM + PLATE], along: 'z', shaft: 0 },
  };
}

/** The order of putting a roller wave together. */
export function rollerWaveAssembly(p: RollerWaveParams): readonly AssemblyStep[] {
  return [
    {
      do: `Press ${p.rows > 1 ? 'a bearing on each seat of the eccentric' : 'the bearing on the eccentric'}${p.sleeve > 0 ? ', and a sleeve on it' : ''}.`,
      caution: 'Press on the ring that is being fitted; do not hammer.',
    },
    {
      do: 'Set the eccentric into the ring with its throw pointing to a hollow, grease the rollers and stand one in each hollow’s place.',
    },
    ...(p.rows > 1
      ? [{ do: 'Set the next row’s ring on the first, turned by half a lobe, and stand its rollers in it.' }]
      : []),
    {
      do: 'Lower the cage between the rollers, turning the eccentric a little where it does not go down.',
    },
    {
      do: 'Close it with the second plate or a cover, and turn the input by hand through a turn of the output; it must run without tight places.',
      caution: 'Unpowered; fingers clear of the slots.',
    },
  ];
}
