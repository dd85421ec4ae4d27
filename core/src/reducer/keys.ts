import { keyFor, keyLength } from '../gear/hub.ts';
import { rectangle } from '../shape/outline.ts';
import { prism, solidVolume } from '../shape/solid.ts';
import type { Body } from './body.ts';
import { mm, size, STEEL } from './drawn.ts';
import type { StandingStage } from './layout.ts';
import { alongOf } from './reach.ts';
import { axisOf, outAxis, type Setting } from './setting.ts';

/** Price of a key, starting value. */
const KEY = 0.3;
/** How far from an axis a wheel’s own may lie and be on it, m. */
const ON_AXIS = 1e-6;

/** The wheel of a stage that sits on a shaft: the longest of what turns there. */
export function wheelOn(s: StandingStage, turns: 'input' | 'output'): Body | undefined {
  const [x, y] = turns === 'input' ? axisOf(s) : outAxis(s);
  const long = (b: Body) => {
    const [low, high] = alongOf(b.solid());
    return high - low;
  };
  return s.bodies
    .filter((b) => b.turns === turns && b.part.quantity === 1)
    .filter((b) => {
      const [f] = b.places(0);
      return f && Math.abs(f.z[2]) > 0.5 && Math.hypot(f.at[0] - x, f.at[1] - y) < ON_AXIS;
    })
    .sort((a, b) => long(b) - long(a))[0];
}

/**
 * Parallel keys between shafts of the housing and wheels that have a keyway; a motor’s own comes with it.
 *
 * Source: ISO/R 773 (DIN 6885-1, form A, drawn with square ends).
 */
export function keyBodies({ plan, stages, step }: Setting): Body[] {
  return plan.links.flatMap((link, k) => {
    const [from, to] = [stages[k]!, stages[k + 1]];
    const shaft = `case/${link.hub ? 'hub' : 'shaft'}-${k + 1}`;
    return [
      ...(!link.hub && from.ports.output.bored === 'keyway'
        ? [{ s: from, wheel: wheelOn(from, 'output'), on: link.diameter }]
        : []),
      ...(to?.ports.input.bored === 'keyway' ? [{ s: to, wheel: wheelOn(to, 'input'), on: link.into }] : []),
    ].flatMap(({ s, wheel, on }): Body[] => {
      const { width, height, sunk } = keyFor(on);
      const [low, high] = wheel ? alongOf(wheel.solid()) : [0, 0];
      const length = keyLength(high - low);
      if (!wheel || !(length > 0)) return [];
      const bottom = on / 2 - sunk;
      const start = (low + high - length) / 2;
      const solid = {
        prisms: [prism(rectangle(-width / 2, bottom, width / 2, bottom + height), start, start + length)],
      };
      const mass = solidVolume(solid) * STEEL.density;
      return [
        {
          id: `case/key-${k + 1}-${s === from ? 'out' : 'in'}`,
          of: 'case',
          stage: -1,
          part: {
            name: `Key DIN 6885 ${[width, height, length].map(mm).join('×')}`,
            made: 'bought',
            material: 'Steel C45',
            quantity: 1,
            mass,
            money: KEY,
            note: `in ${wheel.part.name} on ⌀ ${size(on)}; slot ${size(sunk)} deep in the shaft`,
          },
          turns: 'output',
          speed: wheel.speed,
          flexes: false,
          joins: [wheel.id, shaft],
          lies: { on: shaft, under: wheel.id },
          solid: () => solid,
          places: wheel.places,
          apart: [[0, 0, (2 * k + 0.9) * step]],
        },
      ];
    });
  });
}
