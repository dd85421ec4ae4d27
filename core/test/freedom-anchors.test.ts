import { describe, expect, it } from 'vitest';
import { readParams, stageKind } from '../src/index.ts';
import { cold } from './helpers.ts';
import { ANCHORED } from './worked-stages.ts';

// Where the room between parts is, how far it lets the output go, and what takes from it: by hand from drawings, with the
// shop's spreads of 30 µm (thickness, run-out, profile, centres), 20 µm (places), 15 µm (tilt), 10 µm (crank), each a range
// of ±1.96.

const [MICRO, MM, DEGREE] = [1e-6, 1e-3, Math.PI / 180];
const tan20 = 0.363970234266;
const cos20 = 0.939692620786;
const spread = (x: number) => x / 1.96;

/** Of a mesh at 20°: both flanks of each wheel, run-out of 30 µm either wheel, centres that grow. */
const mesh = (drawn: number, turn: number, radii: readonly [number, number], centre: number, ring = false) => ({
  drawn,
  turn,
  shares: [2 / cos20, 2 / cos20],
  usual: [spread(30 * MICRO), spread(30 * MICRO)],
  radii,
  growths: [-2 * tan20, ring ? 2 * tan20 : -2 * tan20],
  wobble: spread(Math.SQRT2 * 30 * MICRO * tan20),
  place: 0,
  centre,
  perCentre: ring ? -2 * tan20 : 2 * tan20,
});
/** Of a contact of lobes: nothing that turns eccentric or grows. */
const lobes = (drawn: number, turn: number, share: number, place = spread(20 * MICRO), usual = spread(30 * MICRO)) => ({
  drawn,
  turn,
  shares: [share],
  usual: [usual],
  radii: [0],
  growths: [0],
  wobble: 0,
  place,
  centre: 0,
  perCentre: 0,
});

interface Room {
  readonly paths: number;
  readonly gaps: readonly (ReturnType<typeof mesh> | ReturnType<typeof lobes>)[];
  readonly apart: number;
  readonly extra: number;
  /** How near what was found by stepping is known, relative. */
  readonly within?: number;
}

const ROOMS: Readonly<Record<string, readonly Room[]>> = {
  spur: [
    {
      paths: 1,
      gaps: [mesh(80 * MICRO, 1 / (30 * MM), [10 * MM, 30 * MM], 40 * MM)],
      apart: 0,
      extra: (15 * MICRO) / (30 * MM),
    },
  ],
  // Virtual wheels of the mid-face: r/cos δ; allowances, told at the outer end, shrink with the cone.
  bevel: [
    {
      paths: 1,
      gaps: [
        (() => {
          const mid = 1 - 3.5 / Math.hypot(10, 20);
          const virtual = [(10 * MM * mid * Math.sqrt(5)) / 2, 20 * MM * mid * Math.sqrt(5)] as const;
          return {
            ...mesh(80 * MICRO * mid, 1 / (20 * MM * mid), virtual, virtual[0] + virtual[1]),
            // Each wheel 50 µm along its axis: 2·tan α times the sine of its cone; sin² of both make one.
            place: spread(2 * 50 * MICRO * tan20),
          };
        })(),
      ],
      apart: 0,
      extra: (15 * MICRO) / (20 * MM * (1 - 3.5 / Math.hypot(10, 20))),
    },
  ],
  // A turn of the carrier's arm moves a planet by both its meshes: half each.
  planetary: [
    {
      paths: 3,
      gaps: [
        mesh(80 * MICRO, 1 / (45 * MM), [9 * MM, 13.5 * MM], 22.5 * MM),
        mesh(80 * MICRO, 1 / (45 * MM), [13.5 * MM, 36 * MM], 22.5 * MM, true),
      ],
      apart: (20 * MICRO * Math.SQRT2) / 2 / (45 * MM),
      extra: (2 * 15 * MICRO) / (45 * MM),
    },
  ],
  // A push at the driven ring closes one mesh while the others roll. Slip at the sun: carrier by j/30 mm, planet back by
  // j/18 mm; at the held ring the planet forward by as much. The driven ring then moves by half of j and 7.5/18 of it.
  'compound-planetary': [
    {
      paths: 3,
      gaps: [
        mesh(80 * MICRO, (1 / 2 - 7.5 / 18) / (22.5 * MM), [6 * MM, 9 * MM], 15 * MM),
        mesh(80 * MICRO, (1 / 2 + 7.5 / 18) / (22.5 * MM), [9 * MM, 24 * MM], 15 * MM, true),
        mesh(80 * MICRO, 1 / (22.5 * MM), [7.5 * MM, 22.5 * MM], 15 * MM, true),
      ],
      apart: (20 * MICRO * Math.hypot(1, 1 / 12, 11 / 12)) / 2 / (22.5 * MM),
      extra: (15 * MICRO * (1 + 1 / 12 + 11 / 12)) / (22.5 * MM),
    },
  ],
  rack: [
    {
      paths: 1,
      gaps: [{ ...mesh(40 * MICRO, 1, [10 * MM, 8 * MM], 18 * MM), place: spread(2 * 30 * MICRO * tan20) }],
      apart: 0,
      extra: 15 * MICRO,
    },
  ],
  worm: [
    {
      paths: 1,
      gaps: [
        (() => {
          const cosLead = 16 / Math.hypot(1, 16);
          const place = spread((2 * 30 * MICRO * tan20) / cosLead);
          const side = 2 / (cos20 * cosLead);
          const drawn = (60 * MICRO) / cosLead;
          return {
            ...mesh(drawn, 1 / (37.5 * MM), [0, 0], 0),
            shares: [side, side],
            growths: [0, 0],
            wobble: 0,
            perCentre: 0,
            place,
          };
        })(),
      ],
      apart: 0,
      extra: (10 * MICRO + 7.5 * MICRO) / (37.5 * MM),
    },
  ],
  // Pins of a disc by turning it till they touch, mean over cranks of both discs; the worst of eight output pins stands
  // 22.5° beside the best place.
  cycloidal: [
    {
      paths: 1,
      gaps: [lobes(40.048 * MICRO, 2 / (20 * 1.2 * MM), 1)],
      apart: 0,
      extra: (2 * 10 * MICRO * 2) / (20 * 1.2 * MM),
      within: 5e-4,
    },
    { paths: 1, gaps: [lobes(50 * MICRO, 1 / (25.65 * MM * Math.cos(22.5 * DEGREE)), 2)], apart: 0, extra: 0 },
  ],
  // 70 µm over the longest of levers N·e·R·sin θ/√(R² + N²e² − 2R·N·e·cos θ), mean over a turn, less 20 µm of place.
  'ring-plate': [
    {
      paths: 1,
      gaps: [lobes(0.017508 / 250 - 20 * MICRO, 250, 1)],
      apart: 0,
      extra: 2 * 10 * MICRO * 250,
      within: 5e-4,
    },
  ],
  // Levers of rollers from their path r = e·cos kθ + √(22² − e²·sin² kθ) mm in the ring, two rows, mean over a turn; the cage
  // goes 21 for 20 that the ring would.
  'roller-wave': [
    {
      paths: 1,
      gaps: [lobes(40 * MICRO, 268.526321, 1)],
      apart: 0,
      extra: (2 * 10 * MICRO * 1.05) / (7.84726936 * MM),
      within: 3e-6,
    },
    { paths: 1, gaps: [lobes(40 * MICRO, 1.05 / (22 * MM), 2, 0, 0)], apart: 0, extra: 0 },
  ],
  // The play as worked, on the cup of 40 teeth that goes out; straight flanks of 30°.
  'strain-wave': [
    {
      paths: 1,
      gaps: [
        {
          ...mesh(0.00120125735 * 14.07 * MM, 1 / (13.4 * MM), [13.4 * MM, 13.4 * MM], 0),
          shares: [2 / Math.cos(30 * DEGREE), 2 / Math.cos(30 * DEGREE)],
          usual: [spread(30 * MICRO) / Math.SQRT2, spread(30 * MICRO) / Math.SQRT2],
          growths: [-2 * Math.tan(30 * DEGREE), 2 * Math.tan(30 * DEGREE)],
          wobble: 0,
          perCentre: 0,
          place: spread(30 * MICRO * Math.tan(30 * DEGREE)),
        },
      ],
      apart: 0,
      extra: 0,
    },
  ],
};

const freedomOf = (kind: string) => {
  const { params, duty } = ANCHORED.find((a) => a.kind === kind && !a.further)!;
  const read = readParams(kind, params);
  const opened = read.ok && stageKind(kind)!.open(read.value, cold);
  if (!opened || !opened.ok) throw new Error(kind);
  return { params: read.value as Readonly<Record<string, number>>, duty, opened: opened.value };
};

describe('room to move', () => {
  it('is worked out for every kind that knows it', () => {
    const known = ANCHORED.filter((a) => !a.further && freedomOf(a.kind).opened.freedom?.());
    expect(Object.keys(ROOMS).sort()).toEqual(known.map((a) => a.kind).sort());
  });

  for (const [kind, rooms] of Object.entries(ROOMS))
    it(`${kind}: gaps, how far they let the output go, and what takes from them`, () => {
      const { chains } = freedomOf(kind).opened.freedom!()!;
      expect(chains.length).toBe(rooms.length);
      rooms.forEach(({ paths, gaps, apart, extra, within = 1e-6 }, i) => {
        const chain = chains[i]!;
        const near = (found: number, value: number, what: string) =>
          expect(Math.abs(found - value), `${chain.name}, ${what}: ${found} for ${value}`).toBeLessThanOrEqual(
            within * Math.abs(value) + 1e-15,
          );
        expect(chain.paths).toBe(paths);
        near(chain.apart, apart, 'apart');
        near(chain.extra, extra, 'extra');
        expect(chain.gaps.length).toBe(gaps.length);
        gaps.forEach((gap, j) => {
          const found = chain.gaps[j]!;
          for (const key of ['drawn', 'turn', 'wobble', 'place', 'perCentre'] as const) near(found[key], gap[key], key);
          // Where it grows with nothing, no centre is told.
          if (gap.perCentre) near(found.centre, gap.centre, 'centre');
          expect(found.sides.length).toBe(gap.shares.length);
          found.sides.forEach((side, k) => {
            near(side.share, gap.shares[k]!, 'share');
            near(side.usual, gap.usual[k]!, 'usual');
            near(side.perGrowth, gap.growths[k]!, 'growth');
            if (gap.growths[k]) near(side.radius, gap.radii[k]!, 'radius');
          });
        });
      });
    });

  it('is wider by what is asked when its parameters are, of every kind', () => {
    for (const kind of Object.keys(ROOMS)) {
      const { params, opened } = freedomOf(kind);
      const freedom = opened.freedom!()!;
      const wide = readParams(kind, { ...params, ...freedom.wider(20 * MICRO) });
      const again = wide.ok && stageKind(kind)!.open(wide.value, cold);
      if (!again || !again.ok) throw new Error(kind);
      const now = again.value.freedom!()!.chains;
      freedom.chains.forEach((c, i) =>
        c.gaps.forEach((g, j) =>
          // Of a strain wave another place is then the tightest.
          expect(Math.abs((now[i]!.gaps[j]!.drawn - g.drawn) / (20 * MICRO) - 1), `${kind}, ${g.name}`).toBeLessThan(
            0.02,
          ),
        ),
      );
    }
  });
});
