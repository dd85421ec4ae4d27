import { describe, expect, it } from 'vitest';
import { analyseLine } from '../src/index.ts';
import {
  activeFlank,
  flankCrush,
  flankEndurance,
  gear,
  meshPair,
  METAL_FLANK,
  metalCycles,
  metalOver,
  rootCycles,
  rootStrength,
  rootStress,
  crept,
  elastic,
  strengthOf,
  toothMaterial,
  wearPerPass,
  wearRate,
  type ToothMaterial,
} from '../src/gear/index.ts';
import physics from './cases/physics.json' with { type: 'json' };
import { spur } from './anchors/spur.ts';
import { demo, shelf } from './helpers.ts';

const of = (id: string): ToothMaterial => {
  const made = toothMaterial(id, shelf, 'material');
  if (!made.ok) throw new Error(made.problem.what);
  return made.value;
};
const MPa = 1e6;

describe('what a tooth stands, by hand from the shop', () => {
  it('printed PA with carbon fibre: 70 MPa along its layers where walls fill the tooth, along its Wöhler line', () => {
    const m = of('pa-cf');
    const root = rootStrength(m, 293.15, false, shelf);
    expect(root.peak / MPa).toBeCloseTo(70, 9);
    // 0.6, 0.35 and 0.28 of it at 10⁴, 10⁶ and 10⁷; halfway in logarithms by the geometric mean.
    for (const [cycles, share] of [
      [1e4, 0.6],
      [1e5, Math.sqrt(0.6 * 0.35)],
      [1e6, 0.35],
      [1e7, 0.28],
      [1e8, 0.28 * 0.8],
    ] as const) {
      expect(rootStress(m, root, cycles) / MPa).toBeCloseTo(70 * share, 6);
      expect(rootCycles(m, root, 70 * MPa * share) / cycles).toBeCloseTo(1, 6);
    }
    expect(rootCycles(m, root, 70 * MPa)).toBe(0);
    expect(rootCycles(m, root, 0)).toBe(Infinity);
    expect(flankCrush(m, 293.15, shelf) / MPa).toBeCloseTo(2.75 * 70, 9);
  });

  it('a thick one by its section: a box of walls, two lines of 0.45 mm on either side, and four tenths inside', () => {
    const m = of('pa-cf');
    const peak = (mm: number) => rootStrength(m, 293.15, false, shelf, mm * 1e-3).peak / MPa;
    expect([peak(1), peak(1.8)]).toEqual([70, 70]);
    // Section modulus of a filled box 6 mm high, by its moments: all of it less six tenths of a core of 4.2 mm.
    expect(peak(6)).toBeCloseTo((70 * (6 ** 3 - 0.6 * 4.2 ** 3)) / 6 ** 3, 9);
    expect(rootStrength(of('pom'), 293.15, false, shelf, 6e-3).peak / MPa).toBeCloseTo(62, 9);
  });

  it('across its layers less; a metal and a milled plastic the same whichever way', () => {
    const both = (id: string) => (['along', 'across'] as const).map((way) => strengthOf(of(id), way, shelf) / MPa);
    expect(['pla', 'petg', 'abs', 'pc', 'pa12', 'pa-cf', 'resin'].map(both)).toEqual([
      [45, 28],
      [40, 25],
      [32, 20],
      [55, 35],
      [40, 30],
      [70, 35],
      [40, 38],
    ]);
    expect([both('pom'), both('silver-steel')]).toEqual([
      [62, 62],
      [450, 450],
    ]);
  });

  it('of rubber by its strain: 15 % of 60 MPa, whatever it tears at', () => {
    expect(strengthOf(of('tpu'), 'along', shelf) / MPa).toBeCloseTo(9, 9);
  });

  it('bent both ways it stands seven tenths in the long run, and as much at once', () => {
    for (const id of ['pa-cf', 'c45']) {
      const [one, both] = [false, true].map((way) => rootStrength(of(id), 293.15, way, shelf));
      expect(both!.peak).toBe(one!.peak);
      expect(both!.lasting / one!.lasting).toBeCloseTo(0.7, 12);
    }
  });

  it('falls evenly to 0.35 at 150 °C, and to nothing as far beyond; no colder part is stronger', () => {
    const share = (kelvin: number) => rootStrength(of('pa-cf'), kelvin, false, shelf).peak / 70e6;
    expect([share(273.15), share(293.15), share(358.15), share(423.15)]).toEqual(
      [1, 1, 0.675, 0.35].map((x) => expect.closeTo(x, 9)),
    );
    expect([share(488.15), share(553.15), share(700)]).toEqual([0.175, 0, 0].map((x) => expect.closeTo(x, 9)));
  });

  it('steel C45: half as much again of its yield at once, three quarters for ever, whatever it is warm', () => {
    const m = of('c45');
    for (const kelvin of [293.15, 400]) {
      const root = rootStrength(m, kelvin, false, shelf);
      expect(root).toEqual({ peak: 555 * MPa, lasting: 277.5 * MPa });
      // ISO 6336: 2.5 at 10⁴, one at 3·10⁶ and beyond; flanks 1.6 at 10⁵, one at 5·10⁷.
      expect(rootStress(m, root, 1e4) / MPa).toBeCloseTo(2.5 * 277.5, 6);
      expect(rootStress(m, root, 3e6) / MPa).toBeCloseTo(277.5, 9);
      expect(rootStress(m, root, 1e9) / MPa).toBeCloseTo(277.5, 9);
      expect(rootCycles(m, root, 277.5 * MPa)).toBe(Infinity);
      expect(rootCycles(m, root, 2.5 * 277.5 * MPa)).toBeCloseTo(1e4, 3);
      expect(flankEndurance(m, shelf)).toBe(555 * MPa);
      expect(flankCrush(m, kelvin, shelf)).toBeCloseTo(1.6 * 555 * MPa, 3);
    }
    expect(metalOver(METAL_FLANK, 1e5)).toBeCloseTo(1.6, 9);
    expect(metalCycles(METAL_FLANK, 1.6)).toBeCloseTo(1e5, 3);
  });
});

describe('how stiff a plastic is', () => {
  const share = (id: string, kelvin: number) => elastic(of(id), kelvin, shelf) / of(id).material.modulus;

  it('falls evenly from 23 °C to a tenth at its softening point; a metal stays as it is', () => {
    // PLA softens at 55 °C: half way there at 39 °C.
    expect([10, 23, 39, 55, 80].map((c) => share('pla', c + 273.15))).toEqual(
      [1, 1, 0.55, 0.1, 0.1].map((x) => expect.closeTo(x, 9)),
    );
    expect([20, 200].map((c) => share('c45', c + 273.15))).toEqual([1, 1]);
  });

  it('and with the time a load stays: 1000 h take a third of PLA, an eighth of PA with fibre, nothing of steel', () => {
    expect(['pla', 'pa-cf', 'c45'].map((id) => crept(of(id)))).toEqual(
      [0.66069345, 0.87096359, 1].map((x) => expect.closeTo(x, 8)),
    );
  });
});

describe('wear of a flank', () => {
  it('is as deep as an independent calculation has it', () => {
    for (const c of physics.wear) {
      const one = wearPerPass(
        c.torque_Nm,
        c.loss_factor,
        c.k_w_mm3_per_Nm * 1e-9,
        c.width_mm * 1e-3,
        c.teeth,
        c.active_flank_mm * 1e-3,
      );
      expect((one * c.turns * 1e3) / c.wear_mm).toBeCloseTo(1, 6);
    }
  });

  it('goes by what the wheel is of and what it runs on; metals do not wear so', () => {
    const rate = (own: string, mate: string) => wearRate(of(own), of(mate), shelf) / 1e-15;
    expect([
      rate('pom', 'c45'),
      rate('pom', 'pa66'),
      rate('pa66', 'c45'),
      rate('pa12', 'pom'),
      rate('pa-cf', 'pa-cf'),
      rate('pla', 'petg'),
      rate('pla', 'c45'),
      rate('c45', 'pla'),
    ]).toEqual([1, 5, 3, 10, 20, 15, 6, 0].map((x) => expect.closeTo(x, 9)));
  });

  it('spreads over the length of involute that touches: summed along it in twenty thousand steps', () => {
    for (const [z1, z2, ring] of [
      [18, 54, false],
      [27, 72, true],
    ] as const) {
      const [g1, g2] = [z1, z2].map((teeth, i) =>
        gear({ module: 1e-3, pressure: Math.PI / 9, teeth, ring: i === 1 && ring, shift: 0 }),
      );
      const made = meshPair(g1!, g2!);
      if (!made.ok) throw new Error(made.problem.what);
      const p = made.value;
      // A point on the line of action stands on the first wheel at √(rb² + way²), on the second at its distance from
      // that wheel's middle: radii walked, with the involute's angle tan α − α.
      const radii = (wheel: 0 | 1) =>
        [p.start, p.end].map((way) =>
          wheel === 0
            ? Math.hypot(p.s1.rb, way)
            : Math.hypot(p.s2.rb, ring ? way + p.centre * Math.sin(p.working) : p.centre * Math.sin(p.working) - way),
        );
      for (const wheel of [0, 1] as const) {
        const rb = (wheel === 0 ? p.s1 : p.s2).rb;
        const [a, b] = radii(wheel).sort((x, y) => x - y) as [number, number];
        const at = (r: number) => {
          const turn = Math.acos(rb / r);
          const angle = Math.tan(turn) - turn;
          return [r * Math.cos(angle), r * Math.sin(angle)] as const;
        };
        let [sum, n] = [0, 20_000];
        for (let i = 0; i < n; i++) {
          const [[x0, y0], [x1, y1]] = [at(a + ((b - a) * i) / n), at(a + ((b - a) * (i + 1)) / n)];
          sum += Math.hypot(x1 - x0, y1 - y0);
        }
        expect(activeFlank(p, wheel) / sum).toBeCloseTo(1, 6);
      }
    }
  });
});

describe('a stage that turns its output round', () => {
  it('is told to run too fast by how fast, and not by which way', () => {
    const joint = demo();
    const variant = joint.variants[0]!;
    variant.stages = [{ id: 's', kind: 'spur', params: structuredClone(spur.params) as Record<string, never> }];
    const over = (speed: number) => {
      joint.brief = {
        ...joint.brief,
        cases: joint.brief.cases.map((c) => ({ ...c, speed, acceleration: 1e5 }) as typeof c),
      };
      return analyseLine(joint, variant, shelf).checks.find((c) => c.id === 'speed-0');
    };
    // Three to one, 500 rad/s at the input.
    expect(over(160)).toBeUndefined();
    expect(over(170)).toMatchObject({ state: 'fails', limit: expect.closeTo(500, 6) as number });
    expect(over(170)!.figure).toBeCloseTo(510, 6);
  });
});
