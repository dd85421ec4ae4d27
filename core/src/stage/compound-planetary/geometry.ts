import { stated } from '../../units/stated.ts';
import { makeMesh, meshPair, plainCentre, shiftSum, trimTips, wheel, type Gear, type Mesh } from '../../gear/index.ts';
import { gcd } from '../../math/gcd.ts';
import { ok, type Result } from '../../result.ts';
import type { StageProblem } from '../contract.ts';
import type { CompoundParams } from './params.ts';

/** Everything about a shared-planet stage that no factor moves. */
export interface CompoundGeometry {
  readonly sun: Gear | undefined;
  readonly planetA: Gear;
  readonly planetB: Gear;
  readonly ring1: Gear;
  readonly ring2: Gear;
  /** Sun and A (absent without a sun), A and ring 1, B and ring 2. */
  readonly sunMesh: Mesh | undefined;
  readonly mesh1: Mesh;
  readonly mesh2: Mesh;
  readonly centre: number;
  /** Angle from a tooth of A to the nearest of B, by planet, rad: what the marks are set to. */
  readonly clocking: readonly number[];
  /**
   * How many teeth of A each planet's mark stands counter-clockwise from outwards when both toothings have found their
   * rings.
   */
  readonly marks: readonly number[];
  /** Whether one planet fits every place. */
  readonly identical: boolean;
  readonly gap: number;
  readonly outside: number;
}

/** Planets alike fit every place when (z_r1·z_pB − z_r2·z_pA)/(N·gcd(z_pA, z_pB)) is whole. */
export const identicalCount = (p: CompoundParams): number =>
  (p.zr1 * p.zpB - p.zr2 * p.zpA) / (p.planets * gcd(p.zpA, p.zpB));

function stop(what: string, why: string, mend: string, path: string, value: number, label: string): Result<never> {
  const problem: StageProblem = { what, why, mend, place: path, fix: { path, value, label } };
  return { ok: false, problem };
}

/** Geometry of a stage; refuses in words what does not close. */
export function compoundGeometry(p: CompoundParams): Result<CompoundGeometry> {
  const fit = p.zs + 2 * p.zpA;
  if (p.zr1 <= p.zpA + 2)
    return stop(
      `A held ring of ${p.zr1} teeth has no room for planets of ${p.zpA}.`,
      'Planets run inside it.',
      `Give it ${fit} teeth.`,
      'zr1',
      fit,
      `Held ring ${fit} teeth`,
    );
  if (p.zr2 <= p.zpB + 2)
    return stop(
      `A driven ring of ${p.zr2} teeth has no room for planets of ${p.zpB}.`,
      'Planets run inside it.',
      `Give it ${p.zpB + fit - p.zpA} teeth or so.`,
      'zr2',
      p.zpB + fit - p.zpA,
      `Driven ring ${p.zpB + fit - p.zpA} teeth`,
    );
  if (p.zr1 * p.zpB === p.zr2 * p.zpA)
    return stop(
      'The driven ring would stand still.',
      `${p.zr1}·${p.zpB} equals ${p.zr2}·${p.zpA}: both rings turn alike against the planets.`,
      'Change one count by one.',
      'zr2',
      p.zr2 + 1,
      `Driven ring ${p.zr2 + 1} teeth`,
    );
  const a = (teeth: number, more: Partial<Gear>) => wheel(p, teeth, { allowance: p.allowanceA, ...more });
  const b = (teeth: number, more: Partial<Gear>) =>
    wheel({ ...p, module: p.moduleB }, teeth, { allowance: p.allowanceB, ...more });
  const sun0 = a(p.zs, { helix: -p.helix, shift: p.xs });
  const pa0 = a(p.zpA, { helix: p.helix, shift: p.xpA });
  const pb0 = b(p.zpB, { helix: p.helix, shift: p.xpB });
  let centre = plainCentre(p.module, p.zpA, p.zr1, p.helix, true);
  if (p.drive === 'sun') {
    const pair = meshPair(sun0, pa0);
    if (!pair.ok) return pair;
    centre = pair.value.centre;
  }
  const shift1 = shiftSum(p.module, p.zpA, p.zr1, p.pressure, p.helix, true, centre);
  const shift2 = shiftSum(p.moduleB, p.zpB, p.zr2, p.pressure, p.helix, true, centre);
  if (!shift1.ok || Math.abs(shift1.value + p.xpA) > 1.6)
    return stop(
      `A held ring of ${p.zr1} teeth does not close round these planets.`,
      `They stand ${stated(centre, 'length', 5)} out, too far to shift to.`,
      `Give it ${fit} teeth.`,
      'zr1',
      fit,
      `Held ring ${fit} teeth`,
    );
  if (!shift2.ok || Math.abs(shift2.value + p.xpB) > 1.6) {
    const module = (2 * centre * Math.cos(p.helix)) / (p.zr2 - p.zpB);
    return stop(
      'The two toothings do not have one centre distance.',
      `A sets ${stated(centre, 'length', 5)}; B with ${p.zr2} − ${p.zpB} teeth wants ` +
        `${stated(plainCentre(p.moduleB, p.zpB, p.zr2, p.helix, true), 'length', 5)}, too far to shift.`,
      `Give B the module ${stated(module, 'length', 5)}, or other teeth.`,
      'moduleB',
      Number(module.toPrecision(9)),
      `Module B ${stated(module, 'length', 5)}`,
    );
  }
  const r10 = a(p.zr1, { helix: p.helix, shift: shift1.value + p.xpA, ring: true, cutter: p.zpA });
  const r20 = b(p.zr2, { helix: p.helix, shift: shift2.value + p.xpB, ring: true, cutter: p.zpB });
  const trim = p.trim === 'yes';
  const [s1, a1] = trim && p.drive === 'sun' ? trimTips(sun0, pa0) : [0, 0];
  const [a2, c1] = trim ? trimTips(pa0, r10) : [0, 0];
  const [b1, c2] = trim ? trimTips(pb0, r20) : [0, 0];
  const [sun, planetA, planetB, ring1, ring2] = [
    { ...sun0, short: s1 },
    { ...pa0, short: Math.max(a1, a2) },
    { ...pb0, short: b1 },
    { ...r10, short: c1 },
    { ...r20, short: c2 },
  ];
  const double = p.double === 'yes';
  const m0 = p.drive === 'sun' ? makeMesh(sun, planetA, p.width, double) : undefined;
  if (m0 && !m0.ok) return m0;
  const m1 = makeMesh(planetA, ring1, p.width, double);
  if (!m1.ok) return m1;
  const m2 = makeMesh(planetB, ring2, p.widthB, double);
  if (!m2.ok) return m2;
  // Each planet stands where both toothings find a space of their ring; modulo the finest step the two can make
  // together.
  const step = (2 * Math.PI * gcd(p.zpA, p.zpB)) / (p.zpA * p.zpB);
  const clocking = Array.from({ length: p.planets }, (_, k) => {
    const at = (2 * Math.PI * k) / p.planets;
    const x = (at * p.zr1) / p.zpA - (at * p.zr2) / p.zpB;
    const y = x - step * Math.round(x / step);
    return Math.abs(y) < 1e-12 ? 0 : y;
  });
  // The planet that has this clocking fits at one of its turns only, which its mark shows: the nearest one outwards.
  const marks = clocking.map((clock, k) => {
    const at = (2 * Math.PI * k) / p.planets;
    const x = (at * p.zr1) / p.zpA - (at * p.zr2) / p.zpB;
    const off = (n: number) => {
      const pitches = ((clock - x + (2 * Math.PI * n) / p.zpA) * p.zpB) / (2 * Math.PI);
      return Math.abs(pitches - Math.round(pitches));
    };
    for (let n = 0; n <= p.zpA / 2; n++) for (const s of [n, -n]) if (off(s) < 1e-6) return s;
    return 0;
  });
  const tip = Math.max(m1.value.pair.s1.ra, m2.value.pair.s1.ra);
  return ok({
    sun: p.drive === 'sun' ? sun : undefined,
    planetA,
    planetB,
    ring1,
    ring2,
    sunMesh: m0?.value,
    mesh1: m1.value,
    mesh2: m2.value,
    centre,
    clocking,
    marks,
    identical: Number.isInteger(identicalCount(p)),
    gap: 2 * centre * Math.sin(Math.PI / p.planets) - 2 * tip,
    outside: 2 * (Math.max(m1.value.sides[1].root, m2.value.sides[1].root) + p.rim),
  });
}
