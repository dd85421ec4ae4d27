import {
  cutPartPrice,
  sharedOutBy,
  wheelPrice,
  gearOutline,
  gearPrisms,
  hubCurves,
  hubHoles,
  PLAIN_HUB,
  spanTeeth,
  type Gear,
  type Hub,
  isTwoHanded,
  toothWords,
  spanWords,
} from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle, place, segment } from '../../shape/outline.ts';
import { prism } from '../../shape/solid.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports, Turning } from '../contract.ts';
import { compoundPose } from './drawing.ts';
import type { CompoundGeometry } from './geometry.ts';
import { springParts, wheelParts, windStep } from '../split-wheel.ts';
import { ringSprings, type CompoundModel } from './model.ts';
import type { CompoundParams } from './params.ts';

/** How far a planet's pin stands out on either side, m. */
const PIN_OUT = 3e-3;
const mm = (x: number): string => stated(x, 'length', 6);
const degrees = (x: number): string => stated(x, 'angle', 6);
const said = (g: Gear, width: number, double: boolean): string =>
  `${toothWords(g, double)}, ${mm(width)} wide, ${spanWords(g, spanTeeth(g))}`;

/** Sun, planets (one part each where they are not alike) and both rings. */
export function compoundParts(p: CompoundParams, shelf: Shelf, m: CompoundModel): Result<readonly Part[]> {
  const g = m.geometry;
  const double = p.double === 'yes';
  const [ws, wp, wr] = m.materials;
  const [ms, mp, mr] = [ws.material, wp.material, wr.material];
  const how = (x: { made: string }) => (x.made === 'printed' ? 'printed' : 'bought') as Part['made'];
  const parts: Part[] = [];
  const pose = (crank: number) => compoundPose(p, g, crank);
  const cage: Turning = p.drive === 'sun' ? 'free' : 'input';
  const stand = (x: number, y: number, z: number, turn: number, layer: number) => ({
    at: [x, y, z] as const,
    turn,
    apart: [0, 0, layer * 1.6 * (p.width + p.widthB)] as const,
  });
  // Planets come into their rings from the middle.
  const inMesh = isTwoHanded(p) && p.drive !== 'sun' ? { together: 'wheels' } : {};
  if (g.sun) {
    const sun = g.sun;
    const hub: Hub = { ...PLAIN_HUB, bore: p.boreS };
    parts.push({
      id: 'sun',
      name: 'Sun',
      quantity: 1,
      made: how(ms),
      material: ms.name,
      mass: m.masses[0],
      money: cutPartPrice(ws, m.masses[0], p.zs, shelf),
      note: said(sun, p.width, double),
      curves: [{ layer: 'profile', outline: gearOutline(sun) }, ...hubCurves(hub)],
      turns: 'input',
      ...inMesh,
      places: (crank) => [stand(0, 0, 0, pose(crank).sun, -2)],
      solid: () => ({ prisms: gearPrisms(sun, p.width, double, hubHoles(hub)) }),
    });
  }
  const bore = circle(0, 0, p.pin / 2);
  const kinds = g.identical
    ? [{ id: 'planet', name: 'Planet', n: p.planets, turn: g.clocking[0]! }]
    : g.clocking.map((turn, i) => ({ id: `planet-${i + 1}`, name: `Planet ${i + 1}`, n: 1, turn }));
  const rb = g.mesh1.pair.s1.rb;
  for (const k of kinds) {
    const b = place(gearOutline(g.planetB), { x: 0, y: 0, turn: k.turn });
    parts.push({
      id: k.id,
      name: k.name,
      quantity: k.n,
      made: how(mp),
      material: mp.name,
      mass: m.masses[1],
      money: cutPartPrice(wp, m.masses[1], p.zpA + p.zpB, shelf),
      note:
        `A: ${said(g.planetA, p.width, double)}; B: ${said(g.planetB, p.widthB, double)}, turned ${degrees(k.turn)} from ` +
        `A; bore ${mm(p.pin)}; the mark lies on a tooth of A`,
      curves: [
        { layer: 'profile-a', outline: gearOutline(g.planetA) },
        { layer: 'profile-b', outline: b },
        { layer: 'bore', outline: bore },
        { layer: 'mark', outline: segment(0.4 * rb, 0, 0.8 * rb, 0) },
      ],
      turns: 'free',
      ...inMesh,
      places: (crank) =>
        pose(crank).planets.flatMap((q, i) =>
          g.identical || k.id === `planet-${i + 1}` ? [stand(q.a.x, q.a.y, 0, q.a.turn, 0)] : [],
        ),
      solid: () => ({
        prisms: [
          ...gearPrisms(g.planetA, p.width, double, [bore]),
          ...gearPrisms(g.planetB, p.widthB, double, [bore], { from: p.width }).map((x) =>
            x.cut ? x : { ...x, turn: (x.turn ?? 0) + k.turn },
          ),
        ],
      }),
    });
  }
  const rim = circle(0, 0, g.outside / 2);
  const way = sharedOutBy(p);
  for (const [id, name, ring, width, mesh, mass, split] of [
    ['ring1', 'Held ring', g.ring1, p.width, g.mesh1, m.masses[2], way === 'rings'],
    ['ring2', 'Driven ring', g.ring2, p.widthB, g.mesh2, m.masses[3], way !== 'none'],
  ] as const) {
    const pieces = split ? 2 : 1;
    parts.push(
      ...wheelParts(
        split ? 'sprung' : 'no',
        {
          id,
          name,
          made: how(mr),
          material: mr.name,
          teeth: ring,
          turns: id === 'ring1' ? 'fixed' : 'output',
          ...inMesh,
          places: (crank) => [id === 'ring1' ? stand(0, 0, 0, 0, -1) : stand(0, 0, p.width, pose(crank).ring2, 1)],
        },
        width,
        double,
        {
          quantity: pieces,
          mass: mass / pieces,
          money: wheelPrice(wr, mass, ring.teeth, split, shelf) / pieces,
        },
        (wide, teeth, two) => ({
          note: `${said(teeth, wide, two)}, outside ⌀ ${mm(g.outside)}`,
          curves: [
            { layer: 'outside', outline: rim },
            { layer: 'profile', outline: gearOutline(ring, undefined, mesh.sides[1]) },
          ],
          solid: () => ({ prisms: gearPrisms(teeth, wide, two, [], { rim }) }),
        }),
      ),
    );
  }
  parts.push(
    ...springParts(
      ringSprings(p),
      `${stated(p.planets * p.preload, 'force', 4)} together along a ring’s pitch circle, evenly round`,
    ),
  );
  parts.push({
    id: 'pin',
    name: 'Planet pin',
    quantity: p.planets,
    made: 'bought',
    material: 'ground rod',
    mass: 0,
    money: 0.2,
    note: `⌀ ${mm(p.pin)}, ${mm(p.width + p.widthB + 2 * PIN_OUT)} long`,
    curves: [],
    turns: cage,
    places: (crank) => pose(crank).planets.map((q) => stand(q.a.x, q.a.y, -PIN_OUT, pose(crank).cage, 0)),
    seen: () => ({ prisms: [prism(bore, 0, p.width + p.widthB + 2 * PIN_OUT)] }),
  });
  return ok(parts);
}

/** Power goes in along the axis at the sun, or at the planets' cage, and comes out at the driven ring. */
export const compoundPorts = (p: CompoundParams): Ports => ({
  input: {
    at: [0, 0, -PIN_OUT],
    along: 'z',
    ...(p.drive === 'sun' ? { shaft: p.boreS, boredBy: 'boreS' } : { shaft: 0 }),
  },
  output: { at: [0, 0, p.width + p.widthB + PIN_OUT], along: 'z', shaft: 0 },
});

/** The order of putting a shared-planet stage together, with every planet's clocking. */
export function compoundAssembly(
  p: CompoundParams,
  { geometry: g }: { readonly geometry: CompoundGeometry },
): readonly AssemblyStep[] {
  const clocks = g.clocking.map((x, i) => `${i + 1}: ${degrees(x)}`).join(', ');
  const away = g.marks.flatMap((n, i) =>
    n === 0
      ? []
      : [
          `planet ${i + 1} on by ${Math.abs(n)} ${Math.abs(n) === 1 ? 'tooth' : 'teeth'} of A ${n > 0 ? 'counter-clockwise' : 'clockwise'}`,
        ],
  );
  return [
    {
      do: g.identical
        ? `All planets are alike; B stands ${degrees(g.clocking[0]!)} from A on each.`
        : `The planets differ. B is turned from A by planet: ${clocks}. Number them.`,
    },
    {
      do:
        'Set the planets on their pins in order, seen as drawn, each turned until its mark points ' +
        `outwards${away.length ? `; then turn ${away.join(', ')}` : ''}.`,
    },
    { do: 'Push the held ring over toothing A along the axis; every mark must stay where it is.' },
    ...(p.drive === 'sun' ? [{ do: 'Push the sun in between the planets, turning it a little until it enters.' }] : []),
    {
      do:
        'Turn the driven ring until its teeth find toothing B of every planet, and push it on. If one does ' +
        'not enter, that planet is in the wrong place or turned by a tooth.',
    },
    ...(sharedOutBy(p) === 'none'
      ? []
      : [windStep(sharedOutBy(p) === 'driven' ? 'driven ring' : 'held ring, then of the driven one')]),
    {
      do: 'Put a thrust bearing between the two rings: they are pushed together and would drag on the planets.',
      caution: 'Keep fingers out of the mesh; the driven ring moves with great force.',
    },
  ];
}
