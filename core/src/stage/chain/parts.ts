import { boreWords, hubCurves, hubHoles, PLAIN_HUB, type Hub } from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle } from '../../shape/outline.ts';
import { prism } from '../../shape/solid.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Mend } from '../../figure/figure.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, IdlePin, Part, Ports, Turning } from '../contract.ts';
import { pitchesAt, sprocketTurns } from './drawing.ts';
import { chained, layoutChain } from './layout.ts';
import { asideBore, idlerOf, takeUpOf, type ChainBuild, type ChainModel } from './model.ts';
import { asideWay, type Tensioning } from '../../loop/index.ts';
import type { ChainParams } from './params.ts';
import { sprocketOutline, toothGap } from './sprocket.ts';

const mm = (x: number): string => stated(x, 'length', 5);

/** Sprockets, chain and what carries them. */
export function chainParts(p: ChainParams, shelf: Shelf, m: ChainModel): Result<readonly Part[]> {
  const { chain, layout: L, width } = m;
  const stand = (i: number, crank: number) => ({
    at: [L.path.wheels[i]!.x, L.path.wheels[i]!.y, 0] as const,
    turn: sprocketTurns(L, chain.pitch, pitchesAt(p, crank))[i]!,
    apart: [0, 0, i === 0 ? -3 * width : 3 * width] as const,
  });
  const extra = L.asides;
  const sprocket = (i: number, id: string, name: string, turns: Turning, mass: number, money: number): Part => {
    const z = L.teeth[i]!;
    const hub: Hub = {
      ...PLAIN_HUB,
      bore:
        i === 0
          ? p.bore1
          : i === L.driven
            ? p.bore2
            : asideBore(
                p,
                extra.find((a) => a.at === i)!,
              ),
      shape: i === 0 ? p.shape1 : i === L.driven ? p.shape2 : 'round',
      bolts: i === L.driven ? p.bolts2 : 0,
      boltCircle: p.boltCircle2,
      boltHole: p.boltHole,
    };
    const material = m.materials[i === L.driven ? 1 : 0].material;
    const gap = toothGap(chain, z, p.form);
    const outline = sprocketOutline(gap, z);
    return {
      id,
      name,
      quantity: 1,
      made: material.made === 'printed' ? 'printed' : 'bought',
      material: material.name,
      mass,
      money,
      note:
        `chain ${chain.id}, ${z} teeth, ${mm(width)} wide, ⌀ ${mm(2 * gap.tip)} over tips, ${mm(2 * gap.root)} at the roots` +
        boreWords(hub.bore, hub.shape),
      curves: [{ layer: 'profile', outline }, ...hubCurves(hub)],
      turns,
      places: (crank) => [stand(i, crank)],
      solid: () => ({ prisms: [prism(outline, 0, width, hubHoles(hub))] }),
    };
  };
  const pairs: Part[] = extra.length
    ? [
        {
          id: 'idler-bearings',
          name: 'Ball bearings of an idler or branch, a pair',
          quantity: extra.length,
          made: 'bought',
          material: 'as supplied',
          mass: 0,
          money: factor(shelf, 'price.bearing'),
          note: 'for its pin; their mass is not counted',
          curves: [],
        },
      ]
    : [];
  // Idlers and branches weigh by their own size: their sum is told in proportion to the square of their radii.
  const weights = extra.map((a) => L.path.wheels[a.at]!.r ** 2);
  const sum = weights.reduce((a, b) => a + b, 0);
  const bearing = factor(shelf, 'price.bearing');
  const more = extra.map((a, k) =>
    sprocket(
      a.at,
      a.id,
      `${a.name[0]!.toUpperCase()}${a.name.slice(1)} sprocket`,
      'free',
      (m.masses[3] * weights[k]!) / sum,
      ((m.prices[3] - extra.length * bearing) * weights[k]!) / sum,
    ),
  );
  const links = L.links % 2 ? `${L.links} links, one of them offset` : `${L.links} links`;
  return ok([
    sprocket(0, 'driver', 'Driving sprocket', 'input', m.masses[0], m.prices[0]),
    sprocket(L.driven, 'driven', 'Driven sprocket', 'output', m.masses[1], m.prices[1]),
    ...more,
    {
      id: 'chain',
      name: `Chain ${chain.id}`,
      quantity: 1,
      made: 'bought',
      material: 'steel',
      mass: m.masses[2],
      money: m.prices[2],
      note: `${chain.inch ? `inch ${chain.inch}, ` : ''}${links} (${mm(L.links * chain.pitch)}), with a connecting link`,
      curves: [],
      turns: 'free',
      flexes: true,
      places: () => [{ at: [0, 0, 0], turn: 0, apart: [0, 0, 6 * width] }],
      seen: () => chainSeen(m),
    },
    ...pairs,
  ]);
}

/** The chain's plates and rollers as they lie at rest, seen from outside. */
function chainSeen({ chain, layout: L, width }: ChainModel) {
  const middle = width / 2;
  const half = chain.across / 2;
  const { wheels, runs } = L.path;
  const strip = (r: (typeof runs)[number]) => {
    const [nx, ny] = [Math.sin(r.heading) * (chain.plate / 2), -Math.cos(r.heading) * (chain.plate / 2)];
    return {
      points: Float64Array.of(
        r.x1 + nx,
        r.y1 + ny,
        0,
        r.x2 + nx,
        r.y2 + ny,
        0,
        r.x2 - nx,
        r.y2 - ny,
        0,
        r.x1 - nx,
        r.y1 - ny,
        0,
      ),
      closed: true,
    };
  };
  // Plates stand on either side of the teeth: seen as bands along the runs, and rings round the sprockets.
  const sides = [
    [middle - half, middle - chain.inner / 2],
    [middle + chain.inner / 2, middle + half],
  ] as const;
  return {
    prisms: sides.flatMap(([z0, z1]) => [
      ...runs.map((r) => prism(strip(r), z0, z1)),
      ...wheels.map((w) =>
        prism(circle(w.x, w.y, w.r + chain.plate / 2), z0, z1, [
          circle(w.x, w.y, Math.max(1e-4, w.r - chain.plate / 2)),
        ]),
      ),
    ]),
  };
}

/** Places and pushes that are tried for an idler of a chain that has none: shares of the run, and of a pitch. */
const [ALONG, PUSH] = [
  [0.5, 0.4, 0.3],
  [0.5, 1, 1.5, 2],
] as const;

/** An idler outside a chain that has none, where there is room for one that takes its slack up. */
function idlerFor(p: ChainParams, b: ChainBuild): Mend | undefined {
  const needs = takeUpOf(p, b);
  for (const push of PUSH)
    for (const idlerAlong of ALONG) {
      const also = { idlerTeeth: p.z1, idlerAlong, idlerPush: Math.round(push * b.chain.pitch * 1e4) / 1e4 };
      const tried: ChainParams = { ...p, idler: 'outside', ...also };
      const layout = layoutChain(tried, b.chain);
      const ways = layout.ok && idlerOf(tried, { ...b, layout: layout.value });
      if (ways && ways.length / chained(layout.value) >= needs)
        return { path: 'idler', value: 'outside', also, label: `Idler of ${p.z1} teeth outside` };
    }
  return undefined;
}

/** Pins of its idlers: the first is moved, a second one stays where it is. */
const idlePins = (p: ChainParams, { layout: L, width }: ChainBuild, ways: Tensioning): readonly IdlePin[] =>
  L.asides
    .filter((a) => !a.driven)
    .map((a): IdlePin => {
      const { x, y } = L.path.wheels[a.at]!;
      const { on, back } = a.id === 'idler' ? ways : { on: 0, back: 0 };
      const way = asideWay(L.r1, L.r2, L.centre, a.from, -1);
      return { id: a.id, at: [x, y, 0], diameter: asideBore(p, a), long: width, way, on, back };
    });

/** Power goes in at the driving sprocket's axis and comes out at the driven one's, beside it. */
export function chainPorts(p: ChainParams, b: ChainBuild): Ports {
  const { chain, layout, width } = b;
  const side = (chain.across - width) / 2;
  const ways = idlerOf(p, b);
  return {
    input: {
      at: [0, 0, -side],
      along: 'z',
      shaft: p.bore1,
      boredBy: 'bore1',
      bored: p.shape1,
      // To lay it on: half a pitch of length.
      ...(p.takeUp === 'centre' && { slide: chain.pitch / 2 / chained(layout) }),
    },
    output: { at: [layout.centre, 0, width + side], along: 'z', shaft: p.bore2, boredBy: 'bore2', bored: p.shape2 },
    ...(ways && { idle: idlePins(p, b, ways) }),
    ...(p.takeUp === 'centre' && {
      takeUp: {
        needs: takeUpOf(p, b),
        gives: ways ? ways.length / chained(layout) : 0,
        mend: () => idlerFor(p, b),
      },
    }),
  };
}

/** The order of putting a chain stage together. */
export function chainAssembly(p: ChainParams): readonly AssemblyStep[] {
  return [
    {
      do: 'Press the bearings into their seats on both shafts.',
      caution: 'Press, do not hammer; support the ring that is being pressed.',
    },
    { do: 'Fasten both sprockets on their shafts and bring them into one plane with a straight edge.' },
    {
      do:
        p.takeUp === 'centre'
          ? 'Move the shafts together, lay the chain on, close it with its connecting link, its clip’s open end against the way the chain runs.'
          : 'Lay the chain on and close it with its connecting link, its clip’s open end against the way the chain runs.',
    },
    {
      do: 'Set the sag of the slack run as given, in the middle of it, and turn through a whole turn: it tightens at one place.',
    },
    {
      do: 'Grease it, wipe it off, and put a cover over the chain and both sprockets before it runs under power.',
      caution:
        'A chain draws in fingers, hair and sleeves where it runs onto a sprocket, and whips where it breaks: never without its cover. Local codes say what guards it needs.',
    },
  ];
}
