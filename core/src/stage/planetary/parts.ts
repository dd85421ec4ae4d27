import { carrierRadius } from './geometry.ts';
import { bearingStocked } from '../../shop/drawer.ts';
import { pinNote } from '../shared-params.ts';
import {
  gearOutline,
  gearPrisms,
  hubCurves,
  hubHoles,
  nutFor,
  PLAIN_HUB,
  planetsOutBy,
  spanTeeth,
  spanWords,
  toothWords,
  type Gear,
  type Hub,
  isTwoHanded,
} from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle, type Outline } from '../../shape/outline.ts';
import { cut, prism, type Prism } from '../../shape/solid.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports, Turning } from '../contract.ts';
import { springParts, wheelParts, windStep } from '../split-wheel.ts';
import { planetaryPose } from './drawing.ts';
import { GAP, pinLength, setsAlong, springsOf } from './costs.ts';
import type { PlanetaryBuild } from './build.ts';
import type { PlanetaryModel } from './model.ts';
import { roles, type Member, type PlanetaryParams } from './params.ts';
import { setMotion } from './train.ts';

const mm = (x: number): string => stated(x, 'length', 6);

/** What is said of a wheel on its sheet. */
const wheelNote = (g: Gear, width: number, double: boolean): string =>
  `${toothWords(g, double)}, ${mm(width)} wide, ${spanWords(g, spanTeeth(g))}`;

/** Sun, planets, ring, carrier plates, pins and bearings. */
export function planetaryParts(p: PlanetaryParams, shelf: Shelf, m: PlanetaryModel): Result<readonly Part[]> {
  const g = m.geometry;
  const [ms, mp, mr] = m.materials.map((x) => x.material) as [
    (typeof m.materials)[0]['material'],
    (typeof m.materials)[0]['material'],
    (typeof m.materials)[0]['material'],
  ];
  const parts: Part[] = [];
  const way = planetsOutBy(p);
  const how = (x: { made: string }) => (x.made === 'printed' ? 'printed' : 'bought') as Part['made'];
  const sunHub: Hub = { ...PLAIN_HUB, bore: p.boreS, shape: p.shapeS };
  const seat = m.bearing ? m.bearing.outside : p.pin;
  const planetHub: Hub = { ...PLAIN_HUB, bore: seat };
  const ringHub: Hub = {
    ...PLAIN_HUB,
    bolts: p.boltsR,
    boltCircle: g.outside - p.rim,
    boltHole: p.boltHole,
    nuts: p.nuts === 'yes',
  };
  const outline = (w: Gear, i: 0 | 1, mesh: typeof g.sunMesh) => gearOutline(w, undefined, mesh.sides[i]);
  const double = p.double === 'yes';
  const inMesh = isTwoHanded(p) ? { together: 'wheels' } : {};
  const pose = (crank: number) => planetaryPose(p, g, crank);
  const role = roles(p);
  const turnsWith = (member: Member): Turning =>
    member === role.input ? 'input' : member === role.output ? 'output' : 'fixed';
  // A set behind another turns as slowly as the carriers before it make it.
  const each = setMotion(p).ratio;
  // Where a set stands a helical tube's teeth have turned on: all of it but the tube is turned as far.
  const ahead = (k: number) => (setsAlong(p).floors[k]! * Math.tan(g.ring.helix)) / g.ringMesh.pair.s2.r;
  const inSet = (k: number, crank: number) => {
    const at = pose(crank / each ** k);
    const [by, c, s] = [ahead(k), Math.cos(ahead(k)), Math.sin(ahead(k))];
    return {
      sun: at.sun + by,
      carrier: at.carrier + by,
      planets: at.planets.map((q) => ({ x: c * q.x - s * q.y, y: s * q.x + c * q.y, turn: q.turn + by })),
    };
  };
  const cage = (k: number): Turning => (k === p.sets - 1 ? turnsWith('carrier') : 'free');
  // Sets stand one behind the other, each with its plates; drawn apart, every layer of a set moves on by one step.
  const { floors, widths } = setsAlong(p);
  const step = 1.2 * p.width;
  const away = (k: number, layer: number) => (4 * k + layer) * step;
  const stand = (x: number, y: number, z: number, turn: number, lift: number) => ({
    at: [x, y, z] as const,
    turn,
    apart: [0, 0, lift] as const,
  });
  for (let k = 0; k < p.sets; k++) {
    const width = widths[k]!;
    const set = p.sets > 1 ? `-${k + 1}` : '';
    const named = p.sets > 1 ? `, set ${k + 1}` : '';
    parts.push(
      ...wheelParts(
        way === 'sun' ? 'sprung' : 'no',
        {
          id: `sun${set}`,
          name: `Sun${named}`,
          made: how(ms),
          material: ms.name,
          teeth: g.sun,
          turns: k === 0 ? turnsWith('sun') : 'free',
          ...inMesh,
          places: (crank) => [stand(0, 0, floors[k]!, inSet(k, crank).sun, away(k, 1))],
        },
        width,
        double,
        m.costs.suns[k]!,
        (wide, teeth, two, { sprung }) => {
          const hub: Hub = sprung ? { ...PLAIN_HUB, bore: p.boreS } : sunHub;
          return {
            note: `${wheelNote(teeth, wide, two)}${p.boreS > 0 ? `, bore ${mm(p.boreS)} ${hub.shape === 'round' ? '' : `with a ${hub.shape}`}` : ', on its own shaft'}`,
            curves: [{ layer: 'profile', outline: outline(g.sun, 0, g.sunMesh) }, ...hubCurves(hub)],
            solid: () => ({ prisms: gearPrisms(teeth, wide, two, hubHoles(hub)) }),
          };
        },
      ),
      ...wheelParts(
        way === 'planets' ? 'sprung' : 'no',
        {
          id: `planet${set}`,
          name: `Planet${named}`,
          made: how(mp),
          material: mp.name,
          teeth: g.planet,
          turns: 'free',
          ...inMesh,
          places: (crank) => inSet(k, crank).planets.map((q) => stand(q.x, q.y, floors[k]!, q.turn, away(k, 2))),
        },
        width,
        double,
        m.costs.planets[k]!,
        (wide, teeth, two) => ({
          note: `${wheelNote(teeth, wide, two)}, ${m.bearing ? `seat ${mm(seat)} for ${m.bearing.name}` : `bore ${mm(p.pin)}`}`,
          curves: [{ layer: 'profile', outline: outline(g.planet, 1, g.sunMesh) }, ...hubCurves(planetHub)],
          solid: () => ({ prisms: gearPrisms(teeth, wide, two, hubHoles(planetHub)) }),
        }),
      ),
    );
  }
  const rim = circle(0, 0, g.outside / 2);
  const nut = nutFor(p.boltHole);
  const tube = floors[p.sets - 1]! + widths[p.sets - 1]!;
  parts.push(
    ...wheelParts(
      way === 'ring' ? 'sprung' : isTwoHanded(p) ? 'halves' : 'no',
      {
        id: 'ring',
        name: p.sets > 1 ? 'Ring tube' : 'Ring',
        made: how(mr),
        material: mr.name,
        teeth: g.ring,
        turns: turnsWith('ring'),
        places: (crank) => [stand(0, 0, 0, pose(crank).ring, -1.2 * tube)],
      },
      tube,
      double,
      m.costs.ring,
      (wide, teeth, two, { sprung, last }) => {
        const hub: Hub = sprung ? PLAIN_HUB : ringHub;
        const traps = last ? hubCurves(hub).filter((c) => c.layer === 'nut-traps') : [];
        return {
          note:
            `${wheelNote(teeth, wide, two)}, outside ⌀ ` +
            `${mm(g.outside)}${traps.length ? `, nut traps ${mm(nut.across)} across, ${mm(nut.height)} deep` : ''}`,
          curves: [
            { layer: 'outside', outline: rim },
            { layer: 'profile', outline: outline(g.ring, 1, g.ringMesh) },
            ...hubCurves(hub).filter((c) => last || c.layer !== 'nut-traps'),
          ],
          solid: () => ({
            prisms: [
              ...gearPrisms(teeth, wide, two, hubHoles(hub), { rim }),
              ...traps.map((c) => cut(c.outline, wide - nut.height, wide)),
            ],
          }),
        };
      },
    ),
  );
  const pins: Outline[] = g.places.map((a) => circle(g.centre * Math.cos(a), g.centre * Math.sin(a), p.pin / 2));
  const plate = circle(0, 0, carrierRadius(p, g.centre));
  const through = circle(0, 0, g.sunMesh.pair.s1.ra + GAP);
  const flange: Outline[] =
    p.boltsC > 0 ? hubHoles({ ...PLAIN_HUB, bolts: p.boltsC, boltCircle: p.boltCircleC, boltHole: p.boltHole }) : [];
  const flat =
    (holes: readonly Outline[]): (() => { prisms: Prism[] }) =>
    () => ({ prisms: [prism(plate, 0, p.plate, holes)] });
  const plates = (holes: readonly Outline[], layer: string) => [
    { layer: 'outside', outline: plate },
    ...pins.map((o) => ({ layer: 'pins', outline: o })),
    ...holes.map((o) => ({ layer, outline: o })),
  ];
  parts.push(
    {
      id: 'plate-in',
      name: 'Carrier plate, sun’s side',
      ...m.costs.plateIn,
      made: how(mr),
      material: mr.name,
      note:
        `${mm(p.plate)} thick, pins on ⌀ ` +
        `${mm(2 * g.centre)}${p.spacing === 'stepped' ? `, at ${g.places.map((a) => stated(a, 'angle', 6)).join(', ')}` : ''}`,
      curves: plates([through], 'passage'),
      turns: p.sets > 1 ? 'free' : turnsWith('carrier'),
      places: (crank) => floors.map((z, k) => stand(0, 0, z - p.plate - GAP, inSet(k, crank).carrier, away(k, 0))),
      solid: flat([...pins, through]),
    },
    ...(p.sets > 1
      ? [
          {
            id: 'plate-mid',
            name: 'Carrier plate, next sun’s side',
            ...m.costs.plateMid,
            made: how(mr),
            material: mr.name,
            note: `${mm(p.plate)} thick, pins on ⌀ ${mm(2 * g.centre)}; the next set’s sun is fixed to it`,
            curves: plates([], 'passage'),
            turns: 'free' as const,
            places: (crank: number) =>
              floors
                .slice(0, -1)
                .map((z, k) => stand(0, 0, z + widths[k]! + GAP, inSet(k, crank).carrier, away(k, 3) + step / 2)),
            solid: flat(pins),
          },
        ]
      : []),
    {
      id: 'plate-out',
      name: 'Carrier plate, output side',
      ...m.costs.plateOut,
      made: how(mr),
      material: mr.name,
      note: `${mm(p.plate)} thick${p.boltsC > 0 ? `, ${p.boltsC} screws on ⌀ ${mm(p.boltCircleC)}` : ''}`,
      curves: plates(flange, 'bolts'),
      turns: turnsWith('carrier'),
      places: (crank) => [stand(0, 0, tube + GAP, inSet(p.sets - 1, crank).carrier, away(p.sets - 1, 3) + step)],
      solid: flat([...pins, ...flange]),
    },
    ...widths.map((width, k): Part => ({
      id: p.sets > 1 ? `pin-${k + 1}` : 'pin',
      name: p.sets > 1 ? `Planet pin, set ${k + 1}` : 'Planet pin',
      ...m.costs.pins[k]!,
      made: m.pin.material.made === 'printed' ? 'printed' : 'bought',
      material: m.pin.material.name,
      note: `⌀ ${mm(p.pin)}, ${mm(pinLength(p, width))} long${pinNote(p, m.pin.material.made)}`,
      curves: [],
      turns: cage(k),
      places: (crank) =>
        inSet(k, crank).planets.map((q) =>
          stand(q.x, q.y, floors[k]! - p.plate - GAP, inSet(k, crank).carrier, away(k, 3)),
        ),
      seen: () => ({ prisms: [prism(circle(0, 0, p.pin / 2), 0, pinLength(p, width))] }),
    })),
  );
  const force = (of: number) => stated(of, 'force', 4);
  parts.push(
    ...springParts(
      springsOf(p),
      {
        none: '',
        sun: `${force(p.planets * p.preload)} together along the sun’s pitch circle, evenly round`,
        ring: `${force(p.planets * p.preload)} together along the ring’s pitch circle, evenly round`,
        planets: `${force(p.preload)} each along the planet’s pitch circle`,
        pairs: `each pushes a pin by ${force(2 * p.preload)} along the planets’ circle; its seat in the plates is a slot`,
      }[way],
    ),
  );
  if (m.bearing)
    parts.push({
      id: 'bearing',
      name: `Bearing ${m.bearing.name}`,
      ...m.costs.bearing,
      made: 'bought',
      stocked: bearingStocked(m.bearing),
      material: 'as supplied',
      note: `${mm(m.bearing.bore)} × ${mm(m.bearing.outside)} × ${mm(m.bearing.width)}`,
      curves: [],
    });
  return ok(parts);
}

/** Power goes in along the axis before the first plate and comes out behind the last one. */
export function planetaryPorts(p: PlanetaryParams, { materials }: Pick<PlanetaryBuild, 'materials'>): Ports {
  const { floors, widths } = setsAlong(p);
  const role = roles(p);
  const shaft = (m: Member) => (m === 'sun' ? p.boreS : 0);
  return {
    input: {
      at: [0, 0, -p.plate - GAP],
      along: 'z',
      shaft: shaft(role.input),
      ...(role.input === 'sun' && { boredBy: 'boreS', bored: p.shapeS }),
    },
    output: {
      at: [0, 0, floors.at(-1)! + widths.at(-1)! + GAP + p.plate],
      along: 'z',
      shaft: shaft(role.output),
      ...(role.output === 'sun' && { boredBy: 'boreS', bored: p.shapeS }),
      ...(role.output === 'carrier' &&
        p.boltsC > 0 && {
          flange: {
            screws: p.boltsC,
            circle: p.boltCircleC,
            hole: p.boltHole,
            deep: p.plate,
            material: materials[2].material,
          },
        }),
    },
  };
}

const PUSH_STEP: AssemblyStep = {
  do: 'Hook in the springs that push every second pin along its slot, until its planet touches the sun and the ring.',
  caution: 'The springs are loaded: keep fingers out of the mesh.',
};

/** The order of putting a planetary stage together. */
export function planetaryAssembly(p: PlanetaryParams): readonly AssemblyStep[] {
  const role = roles(p);
  const uneven = p.spacing === 'stepped';
  const way = planetsOutBy(p);
  return [
    {
      do:
        p.pins !== 'plain'
          ? 'Press a bearing into every planet.'
          : 'Ream the planets’ bores until the pins turn freely, and grease them.',
      ...(p.pins !== 'plain' ? { caution: 'Press on the outer ring; do not hammer.' } : {}),
    },
    {
      do: `Press the pins into the output plate and set the planets on them${uneven ? ', each at the angle given for its place' : ''}.`,
      caution: 'Press, do not hammer; support the plate under the pin.',
    },
    { do: 'Turn every planet so that its mark points outwards.' },
    {
      do: isTwoHanded(p)
        ? 'Lay one half of the ring round the planets, or turn sun and planets in together: two hands cannot be pushed in.'
        : 'Push the ring over the planets along the axis; the marks keep them in step.',
    },
    {
      do:
        p.boreS > 0
          ? 'Fasten the sun on its shaft by its screw or key, and push it in between the planets, turning it a little until it enters.'
          : 'Push the sun in between the planets, turning it a little until it enters.',
    },
    ...(way === 'none' ? [] : [way === 'pairs' ? PUSH_STEP : windStep(way === 'planets' ? 'planets' : way)]),
    {
      do:
        `Close the carrier with its second plate. Hold the ${role.held} and turn the ${role.input}: it ` +
        `must run freely through a whole turn of the ${role.output}.`,
      caution: 'Keep fingers out of the mesh.',
    },
    ...(p.sets > 1 ? [{ do: `Do the same for each of the ${p.sets} sets; a carrier is the next one’s sun.` }] : []),
  ];
}
