import { boreWords, hubCurves, hubHoles, PLAIN_HUB, type Hub } from '../../gear/index.ts';
import { ok, type Result } from '../../result.ts';
import type { Shelf } from '../../shop/shelf.ts';
import { stated } from '../../units/stated.ts';
import type { AssemblyStep, BodyPlace, Part, Ports } from '../contract.ts';
import { bevelBody, seenAlong } from './body.ts';
import { bevelTurns } from './drawing.ts';
import { hubRadius, type BevelBuild, type BevelModel } from './model.ts';
import type { BevelParams } from './params.ts';

const mm = (x: number): string => stated(x, 'length', 6);

/** By how much the pinion's axis leans from x towards z, the wheel's axis. */
const leanOf = (p: BevelParams): number => p.shaft - Math.PI / 2;

/** Pinion and wheel. */
export function bevelParts(p: BevelParams, _shelf: Shelf, m: BevelModel): Result<readonly Part[]> {
  const g = m.geometry;
  const part = (i: 0 | 1): Part => {
    const c = g.cones[i];
    const material = m.materials[i].material;
    const hub: Hub = {
      ...PLAIN_HUB,
      bore: i === 0 ? p.bore1 : p.bore2,
      shape: i === 0 ? p.shape1 : p.shape2,
      bolts: i === 0 ? 0 : p.bolts2,
      boltCircle: p.boltCircle2,
      boltHole: p.boltHole,
    };
    const place = (crank: number): BodyPlace =>
      i === 0
        ? {
            at: [0, 0, 0],
            turn: bevelTurns(p, crank)[0],
            along: 'x',
            lean: leanOf(p),
            apart: [-2 * p.width * Math.sin(p.shaft), 0, 2 * p.width * Math.cos(p.shaft)],
          }
        : { at: [0, 0, 0], turn: bevelTurns(p, crank)[1], apart: [0, 0, 2 * p.width] };
    const reach = Math.max(hubRadius(hub.bore), hub.bolts > 0 ? (p.boltCircle2 + p.boltHole) / 2 + 2e-3 : 0);
    return {
      id: i === 0 ? 'pinion' : 'wheel',
      name: i === 0 ? 'Pinion' : 'Wheel',
      quantity: 1,
      made: material.made === 'printed' ? 'printed' : 'bought',
      material: material.name,
      mass: m.masses[i],
      money: m.prices[i],
      note:
        `straight bevel, ${c.teeth} teeth, outer module ${mm(p.module)}, pitch cone ${stated(c.pitch, 'angle', 5)}, face ${mm(p.width)}, ` +
        `⌀ ${mm(2 * c.over)} over tips, mounting distance ${mm(c.mount)}${boreWords(hub.bore, hub.shape)}; flanks are spherical involutes`,
      curves: [{ layer: 'profile', outline: seenAlong(c, g, p.pressure) }, ...hubCurves(hub)],
      turns: i === 0 ? 'input' : 'output',
      places: (crank) => [place(crank)],
      // The pinion's axis runs towards the apex, its body away from it.
      solid: () => bevelBody(c, g, p.pressure, p.width, reach, hubHoles(hub), i === 0 ? -1 : 1),
    };
  };
  return ok([part(0), part(1)]);
}

/** Power goes in along the pinion's axis towards the crossing, and comes out along the wheel's. */
export const bevelPorts = (p: BevelParams, { geometry: g }: BevelBuild): Ports => ({
  input: {
    at: [-g.cones[0].mount * Math.sin(p.shaft), 0, g.cones[0].mount * Math.cos(p.shaft)],
    along: 'x',
    lean: leanOf(p),
    shaft: p.bore1,
    boredBy: 'bore1',
    bored: p.shape1,
  },
  output: {
    at: [0, 0, Math.max(g.cones[1].mount, g.cones[0].mount * Math.cos(p.shaft) + 1e-3)],
    along: 'z',
    shaft: p.bore2,
    boredBy: 'bore2',
    bored: p.shape2,
  },
});

/** The order of putting a bevel pair together. */
export function bevelAssembly(): readonly AssemblyStep[] {
  return [
    {
      do: 'Fasten both wheels on their shafts and set the pinion to its mounting distance by shims behind its bearing.',
      caution: 'Press, do not hammer.',
    },
    {
      do: 'Bring the wheel in by its own shims until the play is as wanted; a shim for a hundredth of a millimetre of play is told among the figures.',
    },
    {
      do: 'Mark some teeth with marking paste and turn it under a light load: the mark should sit in the middle of the flank, nearer to the inner end.',
    },
    { do: 'Where the mark lies at an end, move both wheels by the ratio of their shims, so that the play stays.' },
    {
      do: 'Grease it and turn it through a whole turn of the wheel; it must run without tight places.',
      caution: 'Fingers clear of the mesh: bevel teeth draw in from the side.',
    },
  ];
}
