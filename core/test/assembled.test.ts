import Kernel, { type Manifold, type ManifoldToplevel } from 'manifold-3d';
import { beforeAll, describe, expect, it } from 'vitest';
import { makeShelf, readParams, stageKind, stageKinds, type AnyStageKind, type BodyPlace } from '../src/index.ts';
import { endsTakenBack } from '../src/reducer/clashes.ts';
import { meshSolid } from '../src/solid/index.ts';
import { partsOf } from './stage-bench.ts';

let kernel: ManifoldToplevel;
beforeAll(async () => {
  kernel = await Kernel();
  kernel.setup();
});

const shelf = makeShelf();

/** Every piece of a stage in its place, by name; `chord` is how far its facets may stand off, m. */
function assembled(
  id: string,
  over: Record<string, unknown>,
  chord = 8e-6,
  crank = 0,
): { name: string; body: Manifold }[] {
  const kind = stageKind(id)!;
  const p = readParams(id, {
    ...(kind.defaults({ ratio: id === 'worm' ? 20 : 5, torque: 1, size: Infinity, shelf }) as object),
    ...over,
  });
  if (!p.ok) throw new Error(p.problem.what);
  const made = partsOf(kind, p.value, shelf);
  if (!made.ok) throw new Error(made.problem.what);
  const put = (body: Manifold, q: BodyPlace) => {
    const own = body.rotate([0, 0, (q.turn * 180) / Math.PI]);
    return (q.along === 'x' ? own.rotate([0, 90, 0]) : own).translate([q.at[0] * 1e3, q.at[1] * 1e3, q.at[2] * 1e3]);
  };
  return made.value.flatMap((part) => {
    if (!part.places || (!part.solid && part.id !== 'out-pin')) return [];
    const m = meshSolid(kernel, endsTakenBack((part.solid ?? part.seen!)(), 1e-7), chord)!;
    const body = new kernel.Manifold(
      new kernel.Mesh({ numProp: 3, vertProperties: m.vertices, triVerts: m.triangles }),
    );
    return part.places(crank).map((q, i) => ({ name: `${part.id}${i}`, body: put(body, q) }));
  });
}

/** Volume that two bodies share, mm³; most stand so far apart that their boxes tell. */
function shared(a: Manifold, b: Manifold): number {
  const [p, q] = [a.boundingBox(), b.boundingBox()];
  const apart = [0, 1, 2].some((k) => p.max[k]! < q.min[k]! || q.max[k]! < p.min[k]!);
  return apart ? 0 : a.intersect(b).volume();
}

/** Pairs that stand in one another, with the volume they share, mm³. */
const clashes = (list: ReturnType<typeof assembled>) => {
  const out: string[] = [];
  for (let i = 0; i < list.length; i++)
    for (let j = i + 1; j < list.length; j++) {
      const v = shared(list[i]!.body, list[j]!.body);
      if (v > 1e-4) out.push(`${list[i]!.name} ${list[j]!.name} ${v}`);
    }
  return out;
};

const loose = { allowanceS: 4e-5, allowanceP: 4e-5, allowanceR: 4e-5 };

/** Whether some part of a kind bends or runs, as it starts. */
const bends = (kind: AnyStageKind): boolean => {
  const made = partsOf(kind, kind.defaults({ ratio: 5, torque: 1, size: Infinity, shelf }), shelf);
  return made.ok && made.value.some((part) => part.flexes);
};

describe('every kind with parts that bend, as it starts', () => {
  // Rigid ones are held against each other in their housings, by `clashes`. Tight fits bite a little; teeth out of phase or
  // a part forgotten at the origin bite a lot.
  for (const kind of stageKinds().filter(bends))
    it(`${kind.id} stands with no part in another`, () => {
      const list = assembled(kind.id, {}, 3e-5);
      for (let i = 0; i < list.length; i++)
        for (let j = i + 1; j < list.length; j++) {
          const [a, b] = [list[i]!, list[j]!];
          const both = shared(a.body, b.body);
          const least = Math.min(a.body.volume(), b.body.volume());
          expect(both / least, `${a.name} in ${b.name}`).toBeLessThan(0.01);
        }
    });
});

describe('an assembled stage', () => {
  it.each([
    ['spur', { z1: 18, z2: 40, module: 1e-3, helix: 0.3, width: 6e-3, allowance1: 4e-5, allowance2: 4e-5 }, 2],
    [
      'spur',
      {
        form: 'ring',
        z1: 18,
        z2: 60,
        idlers: 1,
        zi: 20,
        module: 1e-3,
        width: 5e-3,
        trim: 'yes',
        allowance1: 4e-5,
        allowance2: 4e-5,
      },
      3,
    ],
    [
      'planetary',
      { module: 1e-3, zs: 18, zp: 27, zr: 72, planets: 3, width: 6e-3, helix: 0.3, double: 'yes', ...loose },
      8,
    ],
    ['planetary', { module: 1e-3, zs: 18, zp: 27, zr: 72, planets: 3, width: 6e-3, sets: 2, step: 0.7, ...loose }, 13],
    [
      'compound-planetary',
      {
        drive: 'sun',
        zs: 18,
        zpA: 24,
        zr1: 66,
        zpB: 21,
        zr2: 63,
        planets: 3,
        module: 1e-3,
        moduleB: 1e-3,
        helix: 0.15,
        width: 6e-3,
        widthB: 6e-3,
        allowanceA: 5e-5,
        allowanceB: 5e-5,
      },
      6,
    ],
    [
      'compound-planetary',
      {
        drive: 'sun',
        zs: 12,
        zpA: 21,
        zr1: 54,
        zpB: 20,
        zr2: 53,
        planets: 3,
        module: 1e-3,
        moduleB: 1e-3,
        trim: 'yes',
        width: 6e-3,
        widthB: 6e-3,
        allowanceA: 5e-5,
        allowanceB: 5e-5,
      },
      6,
    ],
    [
      'worm',
      {
        starts: 2,
        z2: 40,
        module: 1e-3,
        quotient: 10,
        width: 6e-3,
        length: 0.018,
        span: 0.03,
        bore1: 0,
        bearing: '685',
        bore2: 8e-3,
        allowance1: 4e-5,
        allowance2: 4e-5,
        playBy: 'centre',
        centreExtra: 0,
      },
      2,
    ],
    [
      'worm',
      {
        starts: 1,
        z2: 31,
        hand: 'left',
        module: 1e-3,
        quotient: 12,
        x2: 0.2,
        width: 6e-3,
        length: 0.018,
        span: 0.03,
        bore1: 0,
        bearing: '685',
        bore2: 8e-3,
        allowance1: 4e-5,
        allowance2: 4e-5,
        playBy: 'centre',
        centreExtra: 0,
      },
      2,
    ],
    [
      'cycloidal',
      {
        pins: 14,
        circle: 0.08,
        pin: 6e-3,
        throw: 1.4e-3,
        discs: 2,
        width: 8e-3,
        offset: 5e-5,
        ringChange: 0,
        outPins: 6,
        outCircle: 0.05,
        outPin: 5e-3,
        outGap: 1e-4,
        bearing: '61802',
        shaft: 5e-3,
        rim: 7e-3,
      },
      11,
    ],
    [
      'cycloidal',
      {
        pins: 13,
        circle: 0.08,
        pin: 6e-3,
        throw: 1.4e-3,
        discs: 3,
        width: 8e-3,
        offset: 5e-5,
        ringChange: 0,
        outPins: 6,
        outCircle: 0.05,
        outPin: 5e-3,
        outGap: 1e-4,
        bearing: '61802',
        shaft: 5e-3,
        rim: 7e-3,
        carriedBy: 'both',
      },
      15,
    ],
    [
      'ring-plate',
      {
        pins: 17,
        circle: 0.044,
        pin: 2.4e-3,
        throw: 0.8e-3,
        plates: 3,
        spread: 'even',
        layout: 'both',
        distance: 0.038,
        width: 6e-3,
        offset: 7e-5,
        bearing: '688',
        wall: 3e-3,
        bore: 8e-3,
      },
      10,
    ],
  ])(
    '%s %j: its bodies mesh without standing in one another',
    (id, over, pieces) => {
      const list = assembled(id, over);
      expect(list).toHaveLength(pieces);
      expect(clashes(list)).toEqual([]);
      // Teeth that are right at rest and wrong once they turn are found at angles that no tooth count divides.
      for (const crank of [0.37, 1.9, 4.1, 29.3]) {
        expect(clashes(assembled(id, over, 8e-6, crank)), `turned by ${crank}`).toEqual([]);
      }
    },
    60_000,
  );

  it('teeth half a pitch out of step would be found', () => {
    const [driver, driven] = assembled('spur', { z1: 18, z2: 40, module: 1e-3, width: 6e-3 });
    const out = driver!.body.rotate([0, 0, 10]);
    expect(clashes([{ name: 'a', body: out }, driven!])).toHaveLength(1);
  });

  it('a worm’s wheel touches it: turned on by more than its play, they clash on either side', () => {
    const [worm, wheel] = assembled('worm', {
      starts: 1,
      z2: 40,
      module: 1e-3,
      quotient: 10,
      width: 7e-3,
      length: 0.018,
      span: 0.03,
      bore1: 0,
      bearing: '685',
      allowance1: 2e-5,
      allowance2: 2e-5,
      playBy: 'centre',
      centreExtra: 0,
    });
    for (const side of [1, -1])
      expect(
        clashes([
          worm!,
          { name: 'wheel', body: wheel!.body.rotate([0, 0, (side * ((60e-6 / 20e-3) * 180)) / Math.PI]) },
        ]),
      ).toHaveLength(1);
  });
});
