import { gearSize, thicknessAt, type Gear, type GearSize } from './gear.ts';
import { toothSide, type ToothSide } from './profile.ts';

/**
 * A worm and a cylindrical wheel at a right angle: two involute helical wheels with crossed axes. They touch in a point
 * that runs along a straight
 * line, and stay conjugate wherever the wheel stands along the worm and however far apart the axes are.
 *
 * Frame: the wheel's axis is z, the worm's runs along x at the height of the centre distance; both directions of
 * turning are mirror images.
 */
export interface CrossedMesh {
  readonly worm: Gear;
  readonly wheel: Gear;
  readonly s1: GearSize;
  readonly s2: GearSize;
  readonly sides: readonly [ToothSide, ToothSide];
  /** Lead angle of the worm, rad. */
  readonly lead: number;
  readonly centre: number;
  /** How far the centre distance is beyond the sum of reference radii, m. */
  readonly apart: number;
  /**
   * Rise of the line of action above the wheel's reference circle where contact begins (at the worm's tip, or where the
   * wheel's involute ends) and ends (at the wheel's tip, or where the worm's does), m.
   */
  readonly low: number;
  readonly high: number;
  /** How far x and z run for each metre of rise. */
  readonly perX: number;
  readonly perZ: number;
  /** Contact ratio in the normal direction. */
  readonly contact: number;
  /** Normal radii of curvature at the pitch point, worm and wheel, m. */
  readonly rho1: number;
  readonly rho2: number;
  /** Angle between the straight generators of the two flanks, rad. */
  readonly generators: number;
  /** Face width of the wheel and length of the worm that contact reaches over, m. */
  readonly wheelReach: number;
  readonly wormReach: number;
  /** Radii that the other's tips reach down to: on the worm, on the wheel. */
  readonly reach1: number;
  readonly reach2: number;
}

/**
 * Works out how a worm and its wheel touch.
 *
 * Source: the common normal of two involute helicoids keeps its direction, and lies in both planes of action (ISO
 * 21771:2007 for each wheel); with axes at a
 * right angle sin² β_b1 + sin² β_b2 = cos² α_n, so that the working normal angle is α_n at any centre distance.
 */
export function crossedMesh(worm: Gear, wheel: Gear, centre: number): CrossedMesh {
  const [s1, s2] = [gearSize(worm), gearSize(wheel)];
  const sides = [toothSide(worm), toothSide(wheel)] as const;
  const lead = Math.PI / 2 - Math.abs(worm.helix);
  const [sn, cn] = [Math.sin(worm.pressure), Math.cos(worm.pressure)];
  const perX = (cn * Math.cos(lead)) / sn;
  const perZ = (cn * Math.sin(lead)) / sn;
  const apart = centre - s1.r - s2.r;
  const tip1 = sides[0].pointed ? sides[0].tipForm : s1.ra;
  const tip2 = sides[1].pointed ? sides[1].tipForm : s2.ra;
  // Along the line of action, from the reference circle to another radius of the same wheel.
  const upTo = (r: number, k: number, to: number) =>
    (Math.sqrt(Math.max(0, r * r + (1 + k * k) * (to * to - r * r))) - r) / (1 + k * k);
  const [tips1, tips2] = [apart - upTo(s1.r, perZ, tip1), upTo(s2.r, perX, tip2)];
  // Below a flank's involute there is nothing that a tip could run on.
  const low = Math.max(tips1, upTo(s2.r, perX, sides[1].form));
  const high = Math.min(tips2, apart - upTo(s1.r, perZ, sides[0].form));
  const at1 = (rise: number) => Math.hypot(s1.r - (rise - apart), (rise - apart) * perZ);
  const at2 = (rise: number) => Math.hypot(s2.r + rise, rise * perX);
  const foot1 = s1.r / (1 + perZ * perZ) + apart;
  const foot2 = -s2.r / (1 + perX * perX);
  const [nx, nz] = [cn * Math.cos(lead), cn * Math.sin(lead)];
  // The pitch point lies midway where the axes stand further apart than the reference circles.
  const pitch = Math.min(high, Math.max(low, apart / 2));
  return {
    worm,
    wheel,
    s1,
    s2,
    sides,
    lead,
    centre,
    apart,
    low,
    high,
    perX,
    perZ,
    contact: Math.max(0, high - low) / sn / (Math.PI * worm.module * cn),
    rho1: Math.max(1e-6, (foot1 - pitch) / sn),
    rho2: Math.max(1e-6, (pitch - foot2) / sn),
    generators: Math.acos((nx * nz) / Math.sqrt((1 - nx * nx) * (1 - nz * nz))),
    wheelReach: 2 * Math.max(Math.abs(low - apart), Math.abs(high - apart)) * perZ,
    wormReach: 2 * Math.max(Math.abs(low), Math.abs(high)) * perX,
    reach1: at1(Math.min(tips2, foot1)),
    reach2: at2(Math.max(tips1, foot2)),
  };
}

/**
 * Width of a worm's thread at its crest, across the thread, m: what its transverse section shows there, by the sine of the
 * lead that the thread has at its crest, which is less than on its reference circle.
 *
 * Source: tan γ_a = p_z/(2π·r_a).
 */
export function crestWidth({ worm, s1, lead }: Pick<CrossedMesh, 'worm' | 's1' | 'lead'>): number {
  const atCrest = Math.atan((s1.r * Math.tan(lead)) / s1.ra);
  return thicknessAt(s1, worm.teeth, s1.ra) * Math.sin(atCrest);
}

/**
 * A place of contact in the mesh's frame at a rise above the wheel's reference circle; `side` +1 where the wheel is
 * pushed towards −x.
 */
export const contactPlace = (m: CrossedMesh, rise: number, side: 1 | -1): readonly [number, number, number] => [
  side * rise * m.perX,
  m.s2.r + rise,
  side * (rise - m.apart) * m.perZ * (m.worm.helix < 0 ? -1 : 1),
];

/**
 * Rises at which tooth pairs touch now.
 *
 * @param turn angle of the wheel from where one of its teeth stands at the worm, counter-clockwise, rad
 * @param side +1 where the wheel is pushed towards −x (counter-clockwise)
 */
export function contactRises(m: CrossedMesh, turn: number, side: 1 | -1): number[] {
  const sn = Math.sin(m.worm.pressure);
  // A tooth's flank at the reference circle in the middle plane is one tooth's half behind its middle; apart axes move
  // it along the helix.
  const per = m.s2.r * Math.cos(m.worm.pressure) * Math.cos(m.lead);
  const pitch = (2 * Math.PI) / m.wheel.teeth;
  const start = side * turn - m.s2.half - (m.apart * m.perZ * Math.tan(m.lead)) / m.s2.r;
  const out: number[] = [];
  // Contact runs downwards, from the wheel's tip to the worm's, as the wheel goes on.
  const [from, to] = [-m.high / sn / per, -m.low / sn / per];
  for (let k = Math.ceil((from - start) / pitch); start + k * pitch <= to; k++)
    out.push(-(start + k * pitch) * per * sn);
  return out;
}
