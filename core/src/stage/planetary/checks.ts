import { stated } from '../../units/stated.ts';
import {
  boltPlaces,
  meshChecks,
  modeChecks,
  PLAIN_HUB,
  planetsOutBy,
  spacesEvenly,
  wheelChecks,
} from '../../gear/index.ts';
import { steppedUp } from '../../math/steps.ts';
import { check, type Check, type Mend } from '../../figure/index.ts';
import type { Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { BOLT_WALL, boltRoom, nearestCircle } from '../bolt-room.ts';
import { boreChecks } from '../bore-holds.ts';
import { ringWallCheck } from '../ring-wall.ts';
import { sprungChecks } from '../taken-out.ts';
import { nearestCounts } from './counts.ts';
import { carrierRadius, type PlanetaryGeometry } from './geometry.ts';
import type { PlanetaryModel } from './model.ts';
import { roles, type PlanetaryParams } from './params.ts';

/** Wall that the screws of the output leave to the pins in their plate and round its edge, m. */
function flangeRoom(p: PlanetaryParams, g: PlanetaryGeometry): number {
  const bolts = { ...PLAIN_HUB, bolts: p.boltsC, boltCircle: p.boltCircleC, boltHole: p.boltHole };
  const toPins = g.places.flatMap((a) =>
    boltPlaces(bolts).map(
      ([x, y]) => Math.hypot(x - g.centre * Math.cos(a), y - g.centre * Math.sin(a)) - (p.pin + p.boltHole) / 2,
    ),
  );
  return Math.min(
    ...toPins,
    boltRoom({ bolts: p.boltsC, circle: p.boltCircleC, hole: p.boltHole }, 0, carrierRadius(p, g.centre)),
  );
}

/** The nearest circle on which they fit; else another number of them, as near as can be. */
function flangeMend(p: PlanetaryParams, g: PlanetaryGeometry): Mend | undefined {
  const most = 2 * carrierRadius(p, g.centre);
  const counts = Array.from({ length: 24 }, (_, i) => i + 1).sort(
    (a, b) => Math.abs(a - p.boltsC) - Math.abs(b - p.boltsC) || b - a,
  );
  for (const boltsC of counts) {
    const circle = nearestCircle(p.boltCircleC, most, (boltCircleC) => flangeRoom({ ...p, boltsC, boltCircleC }, g));
    if (circle === undefined) continue;
    const label = `${boltsC} screws on ⌀ ${stated(circle, 'length', 4)}`;
    return { path: 'boltCircleC', value: circle, label, ...(boltsC !== p.boltsC && { also: { boltsC } }) };
  }
  return undefined;
}

/** Whether every second planet can be pushed. */
function pairChecks(p: PlanetaryParams): Check[] {
  if (planetsOutBy(p) !== 'pairs') return [];
  const even = [p.planets + 1, p.planets - 1].find((n) => n <= 12 && spacesEvenly(p.zs, p.zr, n));
  return [
    check({
      id: 'pairs',
      name: 'Planets come in pairs',
      figure: p.planets % 2,
      limit: 0,
      sense: 'max',
      quantity: 'count',
      near: 0,
      why: 'One of each two is pushed against the other: an odd one out would push the carrier off its axis.',
      mend: even
        ? { path: 'planets', value: even, label: `${even} planets` }
        : { path: 'takenOut', value: 'planets', label: 'Split planets instead' },
      advice: 'Or split the planets, the sun or the ring instead.',
    }),
  ];
}

/** What decides whether a planetary stage works. */
export function planetaryChecks(p: PlanetaryParams, at: Duty, _shelf: Shelf, m: PlanetaryModel): Check[] {
  const g = m.geometry;
  const list: Check[] = [];
  const even = spacesEvenly(p.zs, p.zr, p.planets);
  const over = (p.zs + p.zr) % p.planets;
  const mend = (): Mend | undefined => {
    const near = nearestCounts(p)[0];
    return near
      ? {
          path: 'zs',
          value: near.zs,
          label: `Sun ${near.zs}, planet ${near.zp}, ring ${near.zr}`,
          also: { zp: near.zp, zr: near.zr },
        }
      : { path: 'spacing', value: 'stepped', label: 'Nearest places that fit' };
  };
  list.push(
    check({
      id: 'assembles',
      name: 'Planets can be put in evenly',
      figure: p.spacing === 'even' ? Math.min(over, p.planets - over) : 0,
      limit: 0,
      sense: 'max',
      quantity: 'count',
      near: 0,
      why:
        `Even spacing needs sun + ring divisible by the planets: ${p.zs} + ${p.zr} = ${p.zs + p.zr}, by ` +
        `${p.planets} leaves ` +
        `${over}.${even || p.spacing === 'even' ? '' : ' They stand at the nearest places that fit, a little out of balance.'}`,
      mend,
      advice: 'Or let the planets stand at the nearest places that fit.',
    }),
  );
  const gapLimit = 0.5 * p.module;
  list.push(
    check({
      id: 'gap',
      of: 'gap',
      name: 'Neighbouring planets clear',
      figure: g.gap,
      limit: gapLimit,
      sense: 'min',
      quantity: 'length',
      severity: g.gap <= 0 ? 'stop' : 'warn',
      why: 'Their tips pass close to one another; half a module is usual for printed wheels.',
      ...(p.planets > 2 ? { mend: { path: 'planets', value: p.planets - 1, label: `${p.planets - 1} planets` } } : {}),
      advice: 'Take fewer or smaller planets.',
    }),
  );
  list.push(
    check({
      id: 'ringShift',
      of: 'ringShift',
      name: 'Ring’s shift to close',
      figure: Math.abs(g.ringShift),
      limit: 1,
      sense: 'max',
      quantity: 'count',
      severity: 'warn',
      why: 'The ring is shifted until both meshes have one centre distance; far shifts leave odd teeth.',
      mend: { path: 'zr', value: p.zs + 2 * p.zp, label: `Ring ${p.zs + 2 * p.zp} teeth` },
    }),
  );
  list.push(
    ...wheelChecks(g.sun, { id: 'sun', name: 'sun', shift: 'xs' }, g.sunMesh, 0, m.materials[0]),
    ...wheelChecks(g.planet, { id: 'planet', name: 'planets', shift: 'xp' }, g.sunMesh, 1, m.materials[1]),
    ...wheelChecks(g.ring, { id: 'ring', name: 'ring' }, g.ringMesh, 1, m.materials[2]),
  );
  list.push(...meshChecks('sun', 'sun and planets', g.sunMesh), ...meshChecks('ring', 'planets and ring', g.ringMesh));
  list.push(
    ...modeChecks(
      m.modes.filter((x) => x.id !== 'pin' && x.id !== 'seat'),
      p,
      at,
      'Take a larger module, wider wheels, a stronger material, or share it among more planets.',
    ),
  );
  list.push(...boreChecks(m.forms, m.bores, at));
  const pin = m.modes.find((x) => x.id === 'pin')!;
  const thicker = steppedUp(p.pin * (at.torque / Math.max(0.9 * pin.torque, 1e-12)) ** (1 / 2), 5e-4);
  list.push(
    check({
      id: 'pin',
      of: 'pin',
      name: 'Pins and planet bores hold',
      figure: at.torque,
      limit: pin.torque,
      sense: 'max',
      quantity: 'torque',
      why: pin.why,
      ...(p.pins === 'plain' && thicker < 2 * g.sunMesh.sides[1].root - 6e-4 && thicker < 0.1
        ? { mend: { path: 'pin', value: thicker, label: `Pin ${stated(thicker, 'length', 4)}` } }
        : {}),
      advice: 'Take a larger bearing, larger planets or more of them.',
    }),
  );
  const seat = m.modes.find((x) => x.id === 'seat')!;
  const deeper = steppedUp(p.plate * (at.torque / Math.max(0.95 * seat.torque, 1e-12)), 5e-4);
  list.push(
    check({
      id: 'seat',
      of: 'seat',
      name: 'Pins’ seats in the carrier hold',
      figure: at.torque,
      limit: seat.torque,
      sense: 'max',
      quantity: 'torque',
      why: seat.why,
      ...(deeper <= 0.03
        ? { mend: { path: 'plate', value: deeper, label: `Carrier plates ${stated(deeper, 'length', 4)}` } }
        : {}),
      advice: 'Take thicker plates or pins, more planets, or a stronger material for carrier and ring.',
    }),
  );
  for (const [id, name, load, wheels] of [
    ['sun', 'sun’s mesh', m.sunLoad, [0, 1]],
    ['ring', 'ring’s mesh', m.ringLoad, [1, 2]],
  ] as const) {
    const soft = wheels.map((w) => m.materials[w]).filter((x) => x.plastic);
    if (soft.length === 0) continue;
    list.push(
      check({
        id: `warm-${id}`,
        of: `warm-${id}`,
        name: `Flanks stay firm, ${name}`,
        figure: load.flankTemperature,
        limit: Math.min(...soft.map((x) => x.material.softening)),
        sense: 'max',
        quantity: 'temperature',
        near: 0.03,
        why: 'Above its softening temperature a plastic flank smears (VDI 2736-2).',
        mend: {
          path: 'width',
          value: steppedUp(p.width * 1.5, 1e-3),
          label: `Face width ${stated(steppedUp(p.width * 1.5, 1e-3), 'length', 3)}`,
        },
        advice: 'Grease it, run it slower, or pair the plastic with metal.',
      }),
    );
  }
  list.push(
    ringWallCheck({
      of: 'wall',
      name: 'Ring’s wall',
      stress: m.wallStress,
      wall: p.rim,
      material: m.materials[2].material,
      path: 'rim',
      value: p.rim,
      held: roles(p).held === 'ring',
      why: 'The planets press the ring out where they stand and bend its wall in between.',
    }),
  );
  if (p.boreS > 0)
    list.push(
      check({
        id: 'sunWall',
        of: 'sunWall',
        name: 'Wall of the sun',
        figure: m.sunWall,
        limit: 0.8 * p.module,
        sense: 'min',
        quantity: 'length',
        severity: 'warn',
        why: 'Between the bore, with its keyway or flat, and the roots.',
        ...(p.shapeS === 'keyway' ? { mend: { path: 'shapeS', value: 'flat', label: 'A flat instead' } } : {}),
        advice: 'Take a smaller shaft or more teeth on the sun.',
      }),
    );
  if (p.boltsR > 0)
    list.push(
      check({
        id: 'boltWall',
        name: 'Screws fit the ring’s wall',
        figure: p.rim,
        limit: p.boltHole + 2e-3,
        sense: 'min',
        quantity: 'length',
        severity: 'stop',
        near: 0,
        why: 'The holes need a millimetre of wall on either side.',
        mend: {
          path: 'rim',
          value: steppedUp(p.boltHole + 2e-3, 5e-4),
          label: `Wall ${stated(steppedUp(p.boltHole + 2e-3, 5e-4), 'length', 4)}`,
        },
      }),
    );
  if (p.boltsC > 0)
    list.push(
      check({
        id: 'flangeWall',
        name: 'Screws fit the carrier’s output plate',
        figure: flangeRoom(p, g),
        limit: BOLT_WALL,
        sense: 'min',
        quantity: 'length',
        near: 0,
        why: 'The holes need a millimetre of wall to the planets’ pins and outwards, and heads stand beside one another.',
        mend: () => flangeMend(p, g),
        advice: 'Take smaller screws, or thinner pins.',
      }),
    );
  list.push(
    check({
      id: 'lean',
      of: 'lean',
      name: 'Carrier stays true',
      figure: m.lean,
      limit: 2e-3,
      sense: 'max',
      quantity: 'angle',
      severity: 'warn',
      why: 'The carrier twists and leans the planets’ pins, so that teeth carry at one end.',
      mend: {
        path: 'pin',
        value: steppedUp(p.pin * (m.lean / 2e-3) ** 0.25 * 1.02, 5e-4),
        label: `Pin ${stated(steppedUp(p.pin * (m.lean / 2e-3) ** 0.25 * 1.02, 5e-4), 'length', 4)}`,
      },
      advice: 'Take thicker pins or more planets, or join the plates by webs.',
    }),
  );
  if (m.bearing) {
    list.push(
      check({
        id: 'bearing-bore',
        name: 'Bearing fits the pin',
        figure: Math.abs(m.bearing.bore - p.pin),
        limit: 1e-5,
        sense: 'max',
        quantity: 'length',
        near: 0,
        why: `${m.bearing.name} has a bore of ${stated(m.bearing.bore, 'length', 4)}.`,
        mend: { path: 'pin', value: m.bearing.bore, label: `Pin ${stated(m.bearing.bore, 'length', 4)}` },
      }),
    );
    list.push(
      check({
        id: 'bearing-width',
        name: 'Bearing lies inside the planet',
        figure: m.bearing.width,
        limit: p.width + 1e-3,
        sense: 'max',
        quantity: 'length',
        near: 0,
        severity: 'warn',
        why: 'Beyond it the bearing runs into the plates.',
        mend: {
          path: 'width',
          value: steppedUp(m.bearing.width, 5e-4),
          label: `Face width ${stated(steppedUp(m.bearing.width, 5e-4), 'length', 4)}`,
        },
      }),
    );
  }
  list.push(...pairChecks(p), ...sprungChecks(planetsOutBy(p) !== 'none', p.preload, at, m));
  list.push(
    check({
      id: 'bind',
      of: 'bind',
      name: 'Planets do not bind',
      figure: m.bind,
      limit: 0,
      sense: 'min',
      quantity: 'smallAngle',
      severity: 'warn',
      near: 0,
      why: 'Teeth come out thicker or thinner and pins a little off their places; the allowance must be more than that.',
      mend: () => {
        const more = steppedUp(p.allowanceP + (-m.bind * g.sunMesh.pair.rw1 * Math.abs(m.setRatio)) / 2 + 1e-5, 1e-5);
        return more <= 2e-3
          ? { path: 'allowanceP', value: more, label: `Planets ${stated(more, 'length', 4)} thinner` }
          : undefined;
      },
    }),
  );
  return list;
}
