import { stop } from '../refuse-stage.ts';
import { stated } from '../../units/stated.ts';
import {
  boreReach,
  meshModes,
  planetsOutBy,
  type ModeText,
  type ToothMaterial,
  isTwoHanded,
} from '../../gear/index.ts';
import type { Bearing } from '../../schema/joint.ts';
import { ok, refuse, type Result } from '../../result.ts';
import { isNeedle } from '../../shop/bearings.ts';
import type { Shelf } from '../../shop/shelf.ts';
import type { StageProblem } from '../contract.ts';
import { needBearing, needMaterials } from '../needs.ts';
import { planetaryGeometry, type PlanetaryGeometry } from './geometry.ts';
import type { PlanetaryParams } from './params.ts';
import { setMotion, type SetMotion } from './train.ts';

/** A planetary stage before any duty: teeth, materials, and what the planets run on. */
export interface PlanetaryBuild {
  readonly geometry: PlanetaryGeometry;
  readonly materials: readonly [ToothMaterial, ToothMaterial, ToothMaterial];
  readonly bearing: Bearing | undefined;
  /** What the planets' pins are of. */
  readonly pin: ToothMaterial;
  /** Across what sits in a planet: the bearing, or the pin, m. */
  readonly seat: number;
  /** What is left between the sun's roots and its bore, m. */
  readonly sunWall: number;
  readonly motion: SetMotion;
  /** Face widths of the sets over the last one's, from the input on: they fall off towards it. */
  readonly widths: readonly number[];
  /** How the sun's mesh, the ring's, the pins, plain bores and pins’ seats can fail. */
  readonly modes: readonly [readonly ModeText[], readonly ModeText[], ModeText, ModeText, ModeText];
}

const BORES: ModeText = {
  id: 'pv',
  mode: 'planet bores overheat (p·v)',
  time: 'continuous',
  why: 'Plain bores: pressure times rubbing speed decides how warm they run.',
  grows: 'width',
};

const SEATS: ModeText = {
  id: 'seat',
  mode: 'pins press their seats in the carrier wide',
  time: 'static',
  why: 'Each pin leans on two seats, as deep as the plates are thick; of a plastic half of its strength is counted, since it creeps.',
  grows: 'none',
};

const pinsFail = (plain: boolean): ModeText => ({
  id: 'pin',
  mode: plain ? 'planet pins bend or bores crush' : 'planet bearings dent or pins bend',
  time: 'static',
  why: `Each pin carries twice a mesh’s force: ${
    plain
      ? 'bending of a pin held at both ends, and pressure in the bore'
      : 'bending, and the bearing’s static rating C0'
  }.`,
  grows: 'none',
});

/** Builds a stage; refuses in words what cannot be made. */
export function buildPlanetary(p: PlanetaryParams, shelf: Shelf): Result<PlanetaryBuild> {
  const made = planetaryGeometry(p);
  if (!made.ok) return made;
  const materials = needMaterials(p, ['materialS', 'materialP', 'materialR'], shelf);
  if (!materials.ok) return materials;
  const pins = needMaterials(p, ['materialPins'], shelf);
  if (!pins.ok) return pins;
  const found = p.pins === 'plain' ? undefined : needBearing(p.bearing, shelf, 'The planets run on it.');
  if (found && !found.ok) return found;
  const bearing = found?.value;
  const [sun, planet, ring] = materials.value;
  const hub = { bore: p.boreS, shape: p.shapeS, bolts: 0, boltCircle: 0, boltHole: p.boltHole, nuts: false };
  return ok({
    geometry: made.value,
    materials: materials.value,
    bearing,
    pin: pins.value[0],
    seat: bearing ? bearing.outside : p.pin,
    sunWall: made.value.sunMesh.sides[0].root - boreReach(hub),
    motion: setMotion(p),
    widths: Array.from({ length: p.sets }, (_, k) => p.step ** (p.sets - 1 - k)),
    modes: [
      meshModes('sun', 'sun and planets', ['sun', 'planets, at the sun'], [sun, planet]),
      meshModes('ring', 'planets and ring', ['planets, at the ring', 'ring'], [planet, ring]),
      pinsFail(p.pins === 'plain'),
      BORES,
      SEATS,
    ],
  });
}

/** What does not go together, in words; it can still be drawn. */
export function wrongPlanetary(p: PlanetaryParams, b: PlanetaryBuild, shelf: Shelf): Result<never> | undefined {
  const { geometry: g, bearing, seat, sunWall } = b;
  if (bearing && isNeedle(bearing) !== (p.pins === 'needle')) {
    const other =
      shelf.bearings.find((b) => isNeedle(b) === (p.pins === 'needle') && Math.abs(b.bore - p.pin) < 1e-6) ??
      shelf.bearings.find((b) => isNeedle(b) === (p.pins === 'needle'));
    const problem: StageProblem = {
      what: `${bearing.name} is ${isNeedle(bearing) ? 'a needle' : 'a ball'} bearing.`,
      why: `The planets were to run on ${p.pins === 'needle' ? 'needles' : 'balls'}.`,
      mend: 'Choose a bearing of that sort, or the other sort of planet bearing.',
      place: 'bearing',
      ...(other && {
        fix: {
          path: 'bearing',
          value: other.id,
          also: { pin: other.bore },
          label: `${other.name}, pin ${stated(other.bore, 'length', 3)}`,
        },
      }),
    };
    return { ok: false, problem };
  }
  if (p.sets > 1 && p.arrangement !== 'sun-carrier')
    return refuse(
      'Only sets driven at the sun can be stacked.',
      'Each set’s carrier is the next one’s sun, inside one ring tube.',
      'Let the sun drive and the carrier be driven, or take one set.',
      'sets',
    );
  if (p.sets > 1 && isTwoHanded(p))
    return stop(
      'Sets in one ring tube cannot have a double helix.',
      'Each set’s planets would want a middle of their own in the tube’s teeth, and none of them could be put in.',
      'Take a single helix, straight teeth or one set.',
      'double',
      { path: 'double', value: 'no', label: 'Single helix' },
    );
  if (p.sets > 1 && planetsOutBy(p) === 'ring') {
    const problem: StageProblem = {
      what: 'A ring tube through several sets cannot be split.',
      why: 'Its halves would lie one behind the other, each over other sets’ planets.',
      mend: 'Split the planets or the suns, or take one set.',
      place: 'takenOut',
      fix: { path: 'takenOut', value: 'planets', label: 'Split planets' },
    };
    return { ok: false, problem };
  }
  const planetRoot = g.sunMesh.sides[1].root;
  if (seat / 2 >= planetRoot - 0.3e-3)
    return refuse(
      `${bearing ? 'The bearing' : 'The pin'} does not fit the planet.`,
      `Its roots reach down to ⌀ ${stated(2 * planetRoot, 'length', 4)} and need a wall.`,
      bearing ? 'Take a smaller bearing, or larger planets.' : 'Take a thinner pin, or larger planets.',
      bearing ? 'bearing' : 'pin',
    );
  if (p.boreS > 0 && sunWall <= 0)
    return refuse(
      'The bore cuts into the sun’s teeth.',
      `Its roots reach down to ⌀ ${stated(2 * g.sunMesh.sides[0].root, 'length', 4)}${p.shapeS === 'keyway' ? ', and the keyway goes deeper than the bore' : ''}.`,
      'Take a smaller bore, or more teeth on the sun.',
      'boreS',
    );
  return undefined;
}
