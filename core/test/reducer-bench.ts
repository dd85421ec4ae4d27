import { readFileSync } from 'node:fs';
import {
  mended,
  openLine,
  ownFace,
  readJointFile,
  reducerChecks,
  reducerOf,
  stageKinds,
  usualHousing,
  type Joint,
  type Reducer,
  type Variant,
} from '../src/index.ts';
import { shelf } from './helpers.ts';

export const joint = (name: string): Joint => {
  const r = readJointFile(readFileSync(new URL(`../../demo/${name}.json`, import.meta.url), 'utf8'));
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
};
export const DEMOS = ['body-yaw', 'neck-lift', 'wing-root', 'tide-dial'].map(joint);
export const active = (j: Joint): Variant => j.variants.find((v) => v.id === j.activeVariant)!;

/** A variant of the demo whose stages are of one kind, as it starts, in a housing. */
export function ofKind(id: string, ratio = id === 'worm' ? 20 : 5): Variant {
  const kind = stageKinds().find((k) => k.id === id)!;
  const params = kind.defaults({ ratio, torque: 1, size: Infinity, shelf }) as Record<string, unknown>;
  const { output: _, ...base } = active(DEMOS[0]!);
  return { ...base, housing: usualHousing(shelf), stages: [{ id: 's', kind: id, params }] };
}

export function made(variant: Variant): Reducer {
  const all = openLine(variant.stages, shelf).all;
  if (!all.ok) throw new Error(all.problem.what);
  const r = reducerOf(variant, all.value, shelf);
  if (!r.ok) throw new Error(r.problem.what);
  return r.value;
}

/** The variant with a motor's shaft that fits, cut where it would run into something. */
export function fitted(v: Variant): Variant {
  const face = ownFace(v.motor, undefined);
  const bore = made(v).layout.stages[0]!.ports.input.shaft || face.shaft;
  const { pilot, screws, circle: on, deep, thread, reach } = face;
  const fits: Variant = {
    ...v,
    housing: { ...v.housing!, face: { pilot, screws, circle: on, deep, thread, shaft: bore, reach } },
  };
  const cut = reducerChecks(made(fits), fits).find((c) => c.id === 'motor-room' && c.state === 'fails');
  return cut ? mended(fits, cut.mend!, shelf) : fits;
}

export const body = (r: Reducer, id: string) => {
  const found = r.bodies.find((b) => b.id === id);
  if (!found) throw new Error(`no ${id} among ${r.bodies.map((b) => b.id).join(', ')}`);
  return found;
};

/** What kinds are usually asked for where two stand one behind the other. */
const USUAL: Readonly<Record<string, number>> = {
  ...{ worm: 20, cycloidal: 15, 'strain-wave': 50, 'roller-wave': 15, 'compound-planetary': 30 },
  ...{ 'ring-plate': 20, bevel: 2, belt: 3, chain: 3, cable: 4, spur: 3 },
};

/** Two stages one behind the other, as they start for 4 N·m at the output, in a housing, with a motor's shaft that fits. */
export function twoOf(first: string, second: string): Variant {
  const params = (id: string, torque: number) =>
    stageKinds()
      .find((k) => k.id === id)!
      .defaults({ ratio: USUAL[id] ?? 5, torque, size: Infinity, shelf }) as Record<string, unknown>;
  const stages = [
    { id: 'x', kind: first, params: params(first, 4 / (USUAL[second] ?? 5)) },
    { id: 'y', kind: second, params: params(second, 4) },
  ];
  return fitted({ ...ofKind(first, USUAL[first] ?? 5), stages });
}

/** Two spur stages on keyed shafts of 8 mm, in a housing. */
export function keyedLine(): Variant {
  const spur = { ...ofKind('spur').stages[0]!.params, z1: 30, z2: 60, module: 1e-3, width: 9e-3 };
  const params = { ...spur, bore1: 0.008, shape1: 'keyway', bore2: 0.008, shape2: 'keyway' };
  return fitted({ ...ofKind('spur'), stages: ['x', 'y'].map((id) => ({ id, kind: 'spur', params })) });
}
