import * as kit from 'replicad';
import kernel from 'replicad-opencascadejs';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, it } from 'vitest';
import { circle, prism } from '../src/index.ts';
import { namedBody } from '../src/solid/step.ts';
import { writeStepAssembly, type StepPlace } from '../src/solid/step-assembly.ts';

beforeAll(async () => {
  kit.setOC(
    await kernel({
      locateFile: () => fileURLToPath(import.meta.resolve('replicad-opencascadejs/wasm')),
      print: () => undefined,
    }),
  );
}, 30_000);

const at = (x: number, y: number, z: number): StepPlace => ({
  at: [x, y, z],
  x: [1, 0, 0],
  y: [0, 1, 0],
  z: [0, 0, 1],
});
const body = (name: string, r: number, high: number) => {
  const made = namedBody(kit, name, { prisms: [prism(circle(0, 0, r), 0, high)] });
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};

describe('a STEP assembly', () => {
  const write = () => {
    const pin = body('Pin ⌀ 4', 2e-3, 10e-3);
    const plate = body('Plate', 20e-3, 3e-3);
    return writeStepAssembly(kit, 'Wing root, variant B', [
      { ...plate, places: [at(0, 0, 0)], colour: '#c0c0c0' },
      {
        ...pin,
        colour: '#804020',
        places: [at(10, 0, 3), at(-10, 0, 3), { at: [0, 10, 3], x: [0, 0, -1], y: [0, 1, 0], z: [1, 0, 0] }],
      },
    ]);
  };

  it('holds each body once, placed as often as it occurs, with names', () => {
    const text = new TextDecoder().decode(write());
    expect(text).toMatch(/^ISO-10303-21;/);
    expect(text.match(/=\s*MANIFOLD_SOLID_BREP/g)).toHaveLength(2);
    expect(text.match(/=\s*NEXT_ASSEMBLY_USAGE_OCCURRENCE/g)).toHaveLength(4);
    expect(text).toContain("'Wing root, variant B'");
    // What is not ASCII is escaped, as the standard has it.
    expect([...text].every((c) => c.charCodeAt(0) < 128)).toBe(true);
    expect(text).toContain('Pin \\X2\\2300\\X0\\ 4');
    expect(text).toMatch(/SI_UNIT\(\.MILLI\.,\.METRE\.\)/);
  });

  it('opens again with every piece in its place: volume and bounds by hand', async () => {
    const back = await kit.importSTEP(new Blob([write() as Uint8Array<ArrayBuffer>]));
    const volume = kit.measureVolume(back as kit.Shape3D);
    const by = Math.PI * 20 ** 2 * 3 + 3 * Math.PI * 2 ** 2 * 10;
    expect(Math.abs(volume / by - 1)).toBeLessThan(1e-6);
    const [[x0, y0, z0], [x1, y1, z1]] = back.boundingBox.bounds;
    expect([x0, y0, z0, x1, y1, z1].map((v) => Number(v.toFixed(3)))).toEqual([-20, -20, 0, 20, 20, 13]);
  });
});
