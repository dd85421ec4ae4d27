import { boreWords, hubCurves, hubHoles, PLAIN_HUB, type Hub } from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import { circle } from '../../shape/outline.ts';
import { prism, type Prism } from '../../shape/solid.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, Part, Ports } from '../contract.ts';
import { centreOf } from './drawing.ts';
import { RIM, RIM_OVER, type CableBuild, type CableModel } from './model.ts';
import { cableRatio, type CableParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 5);

/** Both drums and the cable. */
export function cableParts(p: CableParams, _shelf: Shelf, m: CableModel): Result<readonly Part[]> {
  const c = centreOf(p, m);
  const drum = (i: 0 | 1): Part => {
    const radius = i === 0 ? p.radius1 : p.radius2;
    const width = m.widths[i];
    const material = m.materials[i].material;
    const hub: Hub = {
      ...PLAIN_HUB,
      bore: i === 0 ? p.bore1 : p.bore2,
      shape: i === 0 ? p.shape1 : 'round',
      bolts: i === 0 ? 0 : p.bolts2,
      boltCircle: p.boltCircle2,
      boltHole: p.boltHole,
    };
    const rim = circle(0, 0, radius + RIM_OVER * p.cable);
    const holes = hubHoles(hub);
    const body = (): Prism[] => [
      prism(rim, 0, RIM, holes),
      prism(circle(0, 0, radius), RIM, width - RIM, holes),
      prism(rim, width - RIM, width, holes),
    ];
    // Their grooves begin where the cable leaves: both drums stand with their middles in one plane.
    const z = (m.widths[0] - width) / 2;
    return {
      id: i === 0 ? 'driver' : 'driven',
      name: i === 0 ? 'Driving drum' : 'Driven drum',
      quantity: 1,
      made: material.made === 'printed' ? 'printed' : 'bought',
      material: material.name,
      mass: m.masses[i],
      money: m.prices[i],
      note:
        `⌀ ${mm(2 * radius)} under the cable, helical groove of ${mm(0.52 * p.cable)} radius with ${mm(1.1 * p.cable)} of pitch, ` +
        `${mm(width)} wide${boreWords(hub.bore, hub.shape)}${i === 1 || p.hold === 'clamped' ? ', a clamp for the cable' : ''}`,
      curves: [{ layer: 'profile', outline: circle(0, 0, radius) }, { layer: 'rim', outline: rim }, ...hubCurves(hub)],
      turns: i === 0 ? 'input' : 'output',
      places: (crank) => [
        {
          at: [i === 0 ? 0 : c, 0, z],
          turn: i === 0 ? crank : crank / cableRatio(p),
          apart: [0, 0, (i === 0 ? -2 : 2) * width],
        },
      ],
      solid: () => ({ prisms: body() }),
    };
  };
  return ok([
    drum(0),
    drum(1),
    {
      id: 'cable',
      name: `Cable, ${m.sort.name}`,
      quantity: 1,
      made: 'bought',
      material: m.sort.name,
      mass: m.masses[2],
      money: m.prices[2],
      note: `⌀ ${mm(p.cable)}, ${mm(m.cableLength)} with its ends, breaks at ${stated(m.breaks, 'force', 3)} at the least`,
      curves: [],
    },
  ]);
}

/** Power goes in at the driving drum's axis and comes out at the driven one's, beside it. */
export const cablePorts = (p: CableParams, b: CableBuild): Ports => {
  const z = (b.widths[0] - b.widths[1]) / 2;
  return {
    input: { at: [0, 0, Math.min(0, z)], along: 'z', shaft: p.bore1, boredBy: 'bore1', bored: p.shape1 },
    output: {
      at: [centreOf(p, b), 0, Math.max(b.widths[0], z + b.widths[1])],
      along: 'z',
      shaft: p.bore2,
      boredBy: 'bore2',
    },
  };
};

/** The order of stringing a cable drive. */
export function cableAssembly(p: CableParams): readonly AssemblyStep[] {
  return [
    {
      do: 'Press the bearings into their seats and fasten both drums on their shafts, their grooves in one plane.',
      caution: 'Press, do not hammer.',
    },
    {
      do: 'Clamp one end of the cable on the driven drum, lead it to the driving one and round it for half of its turns.',
    },
    ...(p.hold === 'clamped' ? [{ do: 'Clamp the middle of the turns on the driving drum.' }] : []),
    {
      do: `Go on for the other half of the turns, back to the driven drum${p.path === 'eight' ? ', crossing the first run' : ''}, and clamp the other end in its tensioner.`,
    },
    {
      do: 'Tension it until a plucked run sounds as it should, turn through the whole range some twenty times, and tension it again.',
      caution:
        'A cable that breaks or slips its clamp whips: eye protection, stand clear of its plane, motor unpowered.',
    },
    { do: 'See at both ends of the range that no turn climbs on another and a turn is left on each drum.' },
  ];
}
