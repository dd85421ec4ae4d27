import { bearingStocked } from '../../shop/drawer.ts';
import {
  boreWords,
  gearOutline,
  gearPrisms,
  hubCurves,
  hubHoles,
  nutFor,
  PLAIN_HUB,
  type Hub,
} from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle } from '../../shape/outline.ts';
import { cut, prism } from '../../shape/solid.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import { coupledPort, couplingPart, ENDS_APART } from '../coupling.ts';
import { beginsAt, endOf, type WormBuild } from './build.ts';
import { wormPose } from './drawing.ts';
import type { AssemblyStep, Part, Ports } from '../contract.ts';
import { wheelSpan } from './figures.ts';
import type { WormModel } from './model.ts';
import type { WormParams } from './params.ts';
import { axialSection, threadProfile } from './thread.ts';

const mm = (x: number): string => stated(x, 'length', 6);
/** Worm, wheel and the worm's bearings. */
export function wormParts(p: WormParams, shelf: Shelf, m: WormModel): Result<readonly Part[]> {
  const g = m.geometry;
  const x = g.mesh;
  const [a, b] = [m.materials[0].material, m.materials[1].material];
  const dual = p.playBy === 'dual-lead';
  const how = (material: { made: string }) =>
    (material.made === 'printed' && !dual ? 'printed' : 'bought') as Part['made'];
  const hub1: Hub = { ...PLAIN_HUB, bore: p.bore1, shape: p.shape1 };
  const hub2: Hub = {
    ...PLAIN_HUB,
    bore: p.bore2,
    shape: p.shape2,
    bolts: p.bolts2,
    boltCircle: p.boltCircle2,
    boltHole: p.boltHole,
    nuts: p.nuts === 'yes',
  };
  const nut = nutFor(p.boltHole);
  const reach = (p.span + m.bearing.width - p.length) / 2;
  const journal = circle(0, 0, m.bearing.bore / 2);
  const leads = dual
    ? `, leads of the two flanks ${mm(g.advance * (1 + p.leadDifference / 2))} and ${mm(g.advance * (1 - p.leadDifference / 2))}`
    : `, lead ${mm(g.advance)}`;
  const [k, span] = wheelSpan(m);
  // A dual-lead pair has two unlike flanks on either part: it is bought to its data, not cut from one profile.
  const twist = Math.tan(x.worm.helix) / x.s1.r;
  // At rest a thread stands half a pitch beside the wheel's upper tooth, below the worm's axis, in the wheel's middle
  // plane.
  const wormTurn = -Math.PI / 2 - (p.length / 2 + (Math.PI * p.module) / 2) * twist;
  const lift = 1.4 * x.s1.ra;
  const bearingAt = (side: 1 | -1) => ({
    at: [(side * p.span) / 2 - m.bearing.width / 2, g.centre, p.width / 2] as const,
    turn: 0,
    along: 'x' as const,
    apart: [side * 2 * m.bearing.width, lift, 0] as const,
  });
  const note = dual ? '; bought as a pair to these data: its flanks are unlike, so no outline is given' : '';
  return ok([
    {
      id: 'worm',
      name: 'Worm',
      ...m.costs.worm,
      made: how(a),
      material: a.name,
      note:
        `involute (type I), axial module ${mm(p.module)}, ${p.starts} start${p.starts > 1 ? 's' : ''} ` +
        `${p.hand}, ⌀ ${mm(2 * x.s1.ra)} over tips${leads}, thread ${mm(p.length)} ` +
        `long${
          p.bore1 > 0
            ? boreWords(p.bore1, p.shape1)
            : `, shaft ⌀ ${mm(m.bearing.bore)} both sides, ${mm(m.stub)} longer on one`
        }${note}`,
      curves: dual
        ? []
        : [
            { layer: 'profile', outline: gearOutline(x.worm, undefined, x.sides[0]) },
            { layer: 'axial-section', outline: axialSection(x, threadProfile(x, 1e-7), p.length, 0, 0) },
            ...hubCurves(hub1),
          ],
      turns: 'input',
      places: (crank) => [
        { at: [-p.length / 2, g.centre, p.width / 2], turn: wormTurn + crank, along: 'x', apart: [0, lift, 0] },
      ],
      ...(!dual && {
        solid: () => ({
          prisms: [
            ...gearPrisms(x.worm, p.length, false, hubHoles(hub1)),
            ...(p.bore1 > 0 ? [] : [prism(journal, -reach - m.stub, 0), prism(journal, p.length, p.length + reach)]),
          ],
        }),
      }),
    },
    {
      id: 'wheel',
      name: 'Wheel',
      ...m.costs.wheel,
      made: how(b),
      material: b.name,
      note:
        `cylindrical, helix ${stated(g.lead, 'angle', 5)} ${p.hand}, normal module ` +
        `${mm(x.wheel.module)}, ${p.z2} teeth, ${mm(p.width)} wide, span over ${k} teeth ` +
        `${mm(span)}${p.bore2 > 0 ? `, bore ${mm(p.bore2)}${p.shape2 === 'round' ? '' : ` with a ${p.shape2}`}` : ''}${note}`,
      curves: dual
        ? []
        : [{ layer: 'profile', outline: gearOutline(x.wheel, undefined, x.sides[1]) }, ...hubCurves(hub2)],
      turns: 'output',
      places: (crank) => [
        {
          at: [0, 0, 0],
          turn: Math.PI / 2 + wormPose(p, g, crank).turn - (Math.tan(x.wheel.helix) * p.width) / (2 * x.s2.r),
          apart: [0, 0, 0],
        },
      ],
      ...(!dual && {
        solid: () => ({
          prisms: [
            ...gearPrisms(x.wheel, p.width, false, hubHoles(hub2)),
            ...hubCurves(hub2)
              .filter((c) => c.layer === 'nut-traps')
              .map((c) => cut(c.outline, p.width - nut.height, p.width)),
          ],
        }),
      }),
    },
    {
      id: 'bearing',
      name: `Bearing ${m.bearing.name}`,
      ...m.costs.bearing,
      made: 'bought',
      stocked: bearingStocked(m.bearing),
      material: 'as supplied',
      note: `${mm(m.bearing.bore)} × ${mm(m.bearing.outside)} × ${mm(m.bearing.width)}, ${mm(p.span)} apart`,
      curves: [],
      turns: 'free',
      places: () => [bearingAt(-1), bearingAt(1)],
      seen: () => ({
        prisms: [prism(circle(0, 0, m.bearing.outside / 2), 0, m.bearing.width, [circle(0, 0, m.bearing.bore / 2)])],
      }),
    },
    ...couplingPart(m.coupling, m.bearing.bore, (crank) => ({
      at: [-endOf(p, m) - (ENDS_APART + m.coupling!.length) / 2, g.centre, p.width / 2],
      turn: crank,
      along: 'x',
      apart: [-m.coupling!.length, lift, 0],
    })),
  ]);
}

/** Power goes in along the worm's axis and comes out along the wheel's. */
export const wormPorts = (p: WormParams, b: WormBuild): Ports => ({
  // A motor stands clear of the wheel, which reaches below it; what is coupled ends just before the worm's own shaft does.
  input: {
    at: [-beginsAt(p, b), b.geometry.centre, p.width / 2],
    along: 'x',
    shaft: p.bore1,
    boredBy: 'bore1',
    bored: p.shape1,
    turnsIn: true,
    ...(p.playBy === 'spring' && { swings: true }),
    borne: {
      name: b.bearing.name,
      bore: b.bearing.bore,
      outside: b.bearing.outside,
      width: b.bearing.width,
      at: [beginsAt(p, b) - p.span / 2, beginsAt(p, b) + p.span / 2],
      lever: b.geometry.mesh.s2.r,
      spanBy: 'span',
      span: p.span,
    },
    ...coupledPort(b.coupling),
  },
  output: { at: [0, 0, p.width], along: 'z', shaft: p.bore2, boredBy: 'bore2', bored: p.shape2 },
});

/** The order of putting a worm stage together. */
export function wormAssembly(p: WormParams): readonly AssemblyStep[] {
  return [
    {
      do:
        p.bore1 > 0
          ? 'Fasten the worm on its shaft and press a bearing on either side.'
          : 'Press a bearing on either side of the worm.',
      caution: 'Press on the inner ring; do not hammer.',
    },
    {
      do: 'Set the worm with its bearings into what holds them and take its end play out with shims: all of it shows at the wheel.',
    },
    {
      do: 'Fasten the wheel on its shaft and set it so that its middle lies under the worm’s axis; the mark of contact should sit in the middle of its teeth.',
    },
    p.playBy === 'centre'
      ? {
          do: 'Bring the axes to the centre distance given, by shims under what holds the worm’s bearings, and feel for play at several places of the wheel.',
        }
      : p.playBy === 'dual-lead'
        ? {
            do: 'Move the worm along its axis by shims until the play is as wanted, thick end towards the wheel to close it.',
          }
        : {
            do: 'Hook in the spring that presses the worm into the wheel; it must swing freely.',
            caution: 'The spring is loaded: keep fingers out of the mesh.',
          },
    {
      do: 'Grease the thread and turn the worm until the wheel has made a whole turn; it must run without tight places.',
      caution: 'A worm pulls in whatever touches it: unpowered, fingers clear.',
    },
    {
      do:
        'Do not rely on the worm alone to hold a load over people: vibration can unlock it. Local codes ' +
        'and licensed practice decide where a brake is needed.',
      caution: 'Held loads can come down.',
    },
  ];
}
