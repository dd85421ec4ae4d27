import { beltKey } from '../../shop/drawer.ts';
import type { Mend } from '../../figure/figure.ts';
import { stated } from '../../units/stated.ts';
import { asideWay } from '../../loop/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle, type Outline } from '../../shape/outline.ts';
import { prism, type Prism } from '../../shape/solid.ts';
import type { BeltSection } from '../../shop/section.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { AssemblyStep, Part, Ports, Turning } from '../contract.ts';
import { backOutline, toothedOutline, wheelTurns } from './drawing.ts';
import { leastBackBend } from './checks.ts';
import { backThickness, fittingTakeUp, idlerWays, layoutBelt, belted } from './layout.ts';
import type { BeltBuild, BeltModel } from './model.ts';
import { IDLER_BORE, type BeltParams } from './params.ts';
import { outsideRadius, pitchRadius, pulleyOutline } from './pulley.ts';
import { FLANGES, HUB, HUB_WALL } from './weight.ts';

/** Thickness of a printed pulley's flanges, m. */
const FLANGE = 1e-3;
/** Time until an adhesive bears its load at room temperature, s: two-part epoxies. */
const CURE = 24 * 3600;

/** A bought pulley with its flanges, and its hub on the one side or the other. */
function boughtPulley(profile: Outline, flange: number, bore: number, width: number, hub: 1 | -1): Prism[] {
  const hole = [circle(0, 0, bore / 2)];
  const side = FLANGES / 2;
  const from = hub > 0 ? width + side : -side - HUB;
  return [
    prism(profile, 0, width, hole),
    prism(circle(0, 0, flange), -side, 0, hole),
    prism(circle(0, 0, flange), width, width + side, hole),
    prism(circle(0, 0, bore / 2 + HUB_WALL), from, from + HUB, hole),
  ];
}

/** Pulleys, belt and idler of a stage. */
export function beltParts(p: BeltParams, _shelf: Shelf, m: BeltModel): Result<readonly Part[]> {
  const s = m.section;
  const parts: Part[] = [];
  const pulleys = [
    {
      id: 'driver',
      name: 'Driving pulley',
      z: p.z1,
      bore: p.bore1,
      seat: p.seat1 ?? 0,
      how: p.made1,
      mass: m.pulleyMass[0],
      money: m.pulleyMoney[0],
    },
    {
      id: 'driven',
      name: 'Driven pulley',
      z: p.z2,
      bore: p.bore2,
      seat: p.seat2 ?? 0,
      how: p.made2,
      mass: m.pulleyMass[1],
      money: m.pulleyMoney[1],
    },
  ];
  const turns = (crank: number) => wheelTurns(m.layout, s, crank * (m.layout.d1 / 2));
  // The idler, where there is one, stands between the two.
  for (const [i, x] of pulleys.entries()) {
    const away = i === 0 ? 0 : m.layout.centre;
    const member: Turning = i === 0 ? 'input' : 'output';
    const stand = (crank: number, z: number, apart: number) => ({
      at: [away, 0, z] as const,
      turn: turns(crank).at(i === 0 ? 0 : -1)!,
      apart: [0, 0, apart] as const,
    });
    const allowance = x.how === 'printed' ? p.allowance : 0;
    const profile = pulleyOutline(s, x.z, allowance);
    if (!profile.ok) return profile;
    const note =
      `${s.id}, ${x.z} teeth, ${stated(p.width, 'length', 5)} wide, outside ⌀ ` +
      `${stated(2 * (outsideRadius(s, x.z) - allowance), 'length', 5)}, bore ` +
      (`${stated(x.bore, 'length', 5)}` +
        `${x.seat > 0 ? `, bearing seat ${stated(x.seat, 'length', 5)}` : ''}` +
        `${allowance > 0 ? `; profile moved in by ${stated(allowance, 'length', 3)}` : ''}`);
    parts.push({
      id: x.id,
      name: x.name,
      quantity: 1,
      made: x.how,
      material: x.how === 'printed' ? 'printed, axis upright' : 'aluminium',
      mass: x.mass,
      money: x.money,
      note,
      curves: [
        { layer: 'profile', outline: profile.value },
        { layer: 'bore', outline: circle(0, 0, x.bore / 2) },
        ...(x.seat > 0 ? [{ layer: 'bearing-seat', outline: circle(0, 0, x.seat / 2) }] : []),
        { layer: 'pitch-circle', outline: circle(0, 0, pitchRadius(s.pitch, x.z)) },
      ],
      ...(allowance > 0 && { drawnIn: allowance }),
      turns: member,
      places: (crank) => [stand(crank, 0, 0)],
      // How deep a bearing's seat goes is the maker's: such a pulley is given by its outlines, and only seen.
      [x.how === 'printed' && x.seat === 0 ? 'solid' : 'seen']: () => ({
        prisms:
          x.how === 'printed'
            ? [prism(profile.value, 0, p.width, [circle(0, 0, x.bore / 2)])]
            : boughtPulley(profile.value, outsideRadius(s, x.z) + s.toothHeight, x.bore, p.width, i === 0 ? -1 : 1),
      }),
    });
    const flange = circle(0, 0, outsideRadius(s, x.z) + s.toothHeight);
    parts.push({
      id: `${x.id}-flange`,
      name: `${x.name}, flange`,
      quantity: x.how === 'printed' ? 2 : 0,
      made: x.how,
      material: x.how === 'printed' ? 'printed or 1 mm sheet' : 'with the pulley',
      mass: 0,
      money: 0,
      note: `${stated(FLANGE, 'length')} thick; one on each side keeps the belt on`,
      curves: [
        { layer: 'profile', outline: flange },
        { layer: 'bore', outline: circle(0, 0, x.bore / 2) },
      ],
      ...(x.how === 'printed' && {
        turns: member,
        places: (crank: number) => [stand(crank, -FLANGE, -2 * p.width), stand(crank, p.width, 2 * p.width)],
        solid: () => ({ prisms: [prism(flange, 0, FLANGE, [circle(0, 0, x.bore / 2)])] }),
      }),
    });
  }
  parts.push({
    id: 'belt',
    name: p.closure === 'closed' ? 'Belt, closed' : 'Belt, open-ended',
    quantity: 1,
    made: 'bought',
    ...(p.closure === 'closed' && {
      stocked: { shelf: 'belts' as const, id: beltKey(s.id, m.layout.teeth, p.width) },
    }),
    material: 'synchronous belt',
    mass: m.beltMass,
    money: m.beltMoney,
    turns: 'free',
    flexes: true,
    places: () => [{ at: [0, 0, 0], turn: 0, apart: [0, 0, 4 * p.width] }],
    seen: () => ({
      prisms: [prism(backOutline(m.layout.path, backThickness(s)), 0, p.width, [toothedOutline(m.layout.path, s, 0)])],
    }),
    note: `${s.id}, ${m.layout.teeth} teeth (${stated(m.layout.teeth * s.pitch, 'length', 5)}), ${stated(p.width, 'length', 5)} wide`,
    curves: [],
  });
  parts.push({
    id: 'bearings',
    name: 'Ball bearings of the driven shaft, a pair',
    quantity: 1,
    made: 'bought',
    material: 'as supplied',
    mass: 0,
    money: m.bearingMoney,
    note: 'to fit the shaft; their mass is not counted',
    curves: [],
  });
  if (p.idler !== 'none') {
    const outline = p.idler === 'outside' ? ok(circle(0, 0, p.idlerDiameter / 2)) : pulleyOutline(s, p.idlerTeeth, 0);
    if (!outline.ok) return outline;
    const bore = p.idlerBore ?? IDLER_BORE;
    const wheel = m.layout.path.wheels[1]!;
    parts.push({
      id: 'idler',
      name: p.idler === 'inside' ? 'Idler, toothed' : 'Idler, flat',
      quantity: 1,
      made: 'bought',
      material: 'idler on a bearing',
      mass: m.idlerMass,
      money: m.idlerMoney,
      note: `${p.idler === 'inside' ? `${s.id}, ${p.idlerTeeth} teeth` : `⌀ ${stated(p.idlerDiameter, 'length', 5)}`}, bore ${stated(bore, 'length', 5)}`,
      curves: [
        { layer: 'profile', outline: outline.value },
        { layer: 'bore', outline: circle(0, 0, bore / 2) },
      ],
      turns: 'free',
      places: (crank) => [{ at: [wheel.x, wheel.y, 0], turn: turns(crank)[1]!, apart: [0, 0, 2 * p.width] }],
      seen: () => ({ prisms: [prism(outline.value, 0, p.width, [circle(0, 0, bore / 2)])] }),
    });
  }
  return ok(parts.filter((x) => x.quantity > 0));
}

/** Steps in which a place and a push are looked for that an idler can have, m. */
const [ALONG, PUSH] = [
  [0.5, 0.4, 0.35, 0.3],
  [2e-3, 3e-3, 4e-3, 5e-3, 6e-3, 8e-3],
] as const;

/** An idler on the back of a belt that has none, where there is room for it. */
function idlerFor(p: BeltParams, s: BeltSection, shelf: Shelf): Mend | undefined {
  const idlerDiameter = leastBackBend(s, shelf);
  for (const idlerPush of PUSH)
    for (const idlerAlong of ALONG) {
      const also = { idlerDiameter, idlerAlong, idlerPush };
      if (layoutBelt({ ...p, idler: 'outside', ...also }, s).ok)
        return {
          path: 'idler',
          value: 'outside',
          also,
          label: `Idler of ${stated(idlerDiameter, 'length', 3)} outside`,
        };
    }
  return undefined;
}

/** Power goes in at the driving pulley's axis and comes out at the driven one's, beside it. */
export function beltPorts(p: BeltParams, { layout, section }: BeltBuild, shelf: Shelf): Ports {
  const needs = factor(shelf, 'belt.takeUp') * layout.centre;
  const ways = idlerWays(p, section, layout, needs);
  const wheel = layout.path.wheels[1]!;
  return {
    input: {
      at: [0, 0, -FLANGE],
      along: 'z',
      shaft: p.bore1,
      boredBy: 'bore1',
      slide: Math.max(needs, fittingTakeUp(section, layout)),
    },
    output: { at: [layout.centre, 0, p.width + FLANGE], along: 'z', shaft: p.bore2, boredBy: 'bore2', pairPaid: true },
    takeUp: {
      needs,
      gives: ways ? ways.length / belted(layout) : 0,
      mend: () => idlerFor(p, section, shelf),
    },
    ...(ways && {
      idle: [
        {
          id: 'idler',
          at: [wheel.x, wheel.y, 0],
          diameter: p.idlerBore ?? IDLER_BORE,
          long: p.width,
          way: asideWay(layout.d1 / 2, layout.d2 / 2, layout.centre, p.idler as 'inside' | 'outside', -1),
          on: ways.on,
          back: ways.back,
        },
      ],
    }),
  };
}

/** The order of putting a belt stage together. */
export function beltAssembly(p: BeltParams): readonly AssemblyStep[] {
  return [
    {
      do: 'Press the bearings into their seats on both shafts.',
      caution: 'Press, do not hammer; support the ring that is being pressed.',
    },
    {
      do:
        p.hold2 === 'glue' || p.hold1 === 'glue'
          ? 'Bond the pulleys to their shafts and let them cure.'
          : 'Fasten the pulleys to their shafts.',
      ...(p.hold2 === 'glue' || p.hold1 === 'glue'
        ? { caution: 'Gloves and fresh air for the adhesive.', rests: CURE }
        : {}),
    },
    {
      do:
        p.closure === 'closed'
          ? p.idler === 'none'
            ? 'Move the shafts together by the take-up, lay the belt over both pulleys, move them apart.'
            : 'Move the idler back, lay the belt over both pulleys (where it does not slip over a flange, put them on their shafts with the belt round them), press the idler on.'
          : 'Clamp one end of the belt, lead it round, clamp the other so that the splice never reaches the driver.',
    },
    {
      do: `Tension until a plucked span sounds at the figure given in the Stage view, then lock ${p.idler === 'none' ? 'the shafts' : 'the idler’s pin'}.`,
      caution: 'Motor unpowered; fingers clear of the pulleys.',
    },
    { do: 'Turn the joint through its range and see that the belt runs between its flanges.' },
  ];
}
