import { stated } from '../units/stated.ts';
import { term, type Figure, type FigureMaker, type Term, exact, worked } from '../figure/index.ts';
import type { Gear } from './gear.ts';
import type { Mesh, MeshLoad } from './mesh.ts';
import { overPins, spanOver, spanTeeth, usualPin } from './measure.ts';
import { worstSliding } from './pair.ts';
import { modeName, modeWhy, telling, type Mode } from './modes.ts';

const ISO = 'ISO 21771:2007';

/** Terms of a gear that its sizes come from. */
const gearTerms = (g: Gear): Term[] => [
  term('m', 'normal module', g.module, 'length', 'field', 'module'),
  term('z', 'teeth', g.teeth, 'count', 'field'),
  term('x', 'profile shift', g.shift, 'count', g.ring ? 'computed' : 'field'),
  term('α', 'pressure angle', g.pressure, 'angle', 'field', 'pressure'),
  term('β', 'helix', Math.abs(g.helix), 'angle', 'field', 'helix'),
  term('A_s', 'thickness allowance', g.allowance, 'length', 'field'),
];

/**
 * Sizes of one wheel with what a caliper finds: tip circle, span over teeth, size over pins, each with the band its
 * thickness spreads.
 */
export function wheelFigures(g: Gear, id: string, name: string, tipRadius: number, spread: number): Figure[] {
  const terms = gearTerms(g);
  const k = spanTeeth(g);
  const pin = usualPin(g);
  const span = spanOver(g, k);
  const cos = Math.cos(g.pressure);
  const list: Figure[] = [
    exact(`tip-⌀-${id}`.replace('⌀', 'd'), `Tip ⌀, ${name}`, 'length', 2 * tipRadius, () => ({
      formula: g.ring ? 'm_t·z − 2m(h_a* − x) + shortening' : 'm_t·z + 2m(h_a* + x) − shortening',
      terms,
      source: ISO,
    })),
    // A caliper sees what the thickness is off, times cos α.
    worked(
      {
        id: `span-${id}`,
        name: `Span over ${k} ${g.ring ? 'spaces' : 'teeth'}, ${name}`,
        quantity: 'length',
        value: span,
        low: span - spread * cos,
        high: span + spread * cos,
      },
      () => ({
        formula: g.ring
          ? 'm·cos α(π(k − ½) + z·inv α_t) + 2xm·sin α + A_s·cos α'
          : 'm·cos α(π(k − ½) + z·inv α_t) + 2xm·sin α − A_s·cos α',
        terms: [term('k', g.ring ? 'spaces spanned' : 'teeth spanned', k, 'count', 'computed'), ...terms],
        source: `${ISO}, 7.3; band: the shop’s spread of a made tooth’s thickness`,
      }),
    ),
  ];
  const over = overPins(g, pin);
  const thin = overPins({ ...g, allowance: g.allowance + spread }, pin);
  const thick = overPins({ ...g, allowance: g.allowance - spread }, pin);
  // A pin that would fall through, or stand clear of a flank, measures nothing.
  if (g.helix === 0 && [over, thin, thick].every(Number.isFinite)) {
    list.push(
      worked(
        {
          id: `pins-${id}`,
          name: `${g.ring ? 'Between' : 'Over'} pins of ${stated(pin, 'length', 5)}, ${name}`,
          quantity: 'length',
          value: over,
          low: Math.min(thin, thick, over),
          high: Math.max(thin, thick, over),
        },
        () => ({
          formula: 'd_b/cos α_M·(cos(90°/z) if odd) ± d_M;  inv α_M = inv α_t ∓ π/2z ± d_M/(m·z·cos α) + 2x·tan α/z',
          terms: [term('d_M', 'pin', pin, 'length', 'definition'), ...terms],
          source: `${ISO}, 7.4`,
        }),
      ),
    );
  }
  return list;
}

/** Geometry and loads of one mesh. */
export function meshFigures<M>(
  id: string,
  name: string,
  mesh: Mesh,
  make: FigureMaker<M>,
  load: (m: M) => MeshLoad,
  given: MeshLoad,
): Figure[] {
  const p = mesh.pair;
  const teeth = [
    term('z₁', 'teeth', p.g1.teeth, 'count', 'field'),
    term('z₂', p.ring ? 'teeth of the ring' : 'teeth', p.g2.teeth, 'count', 'field'),
  ];
  const ratios = [
    term('ε₁', 'contact before the pitch point', p.approach, 'count', 'computed'),
    term('ε₂', 'contact after it', p.recess, 'count', 'computed'),
  ];
  const slides = worstSliding(p);
  return [
    exact(`working-${id}`, `Working angle, ${name}`, 'angle', p.working, () => ({
      formula: p.ring
        ? 'inv α_wt = inv α_t + 2 tan α·(x₂ − x₁)/(z₂ − z₁)'
        : 'inv α_wt = inv α_t + 2 tan α·(x₁ + x₂)/(z₁ + z₂)',
      terms: [
        ...teeth,
        term('x₁', 'shift', p.g1.shift, 'count', 'field'),
        term('x₂', 'shift', p.g2.shift, 'count', 'field'),
      ],
      source: ISO,
    })),
    exact(`contact-${id}`, `Contact ratio, ${name}`, 'count', p.contact, () => ({
      formula: p.ring
        ? '(√(r_a1² − r_b1²) − √(r_a2² − r_b2²) + a·sin α_wt)/(π·m_t·cos α_t)'
        : '(√(r_a1² − r_b1²) + √(r_a2² − r_b2²) − a·sin α_wt)/(π·m_t·cos α_t)',
      terms: [
        term('r_a1', 'tip radius', p.s1.ra, 'length', 'computed'),
        term('r_b1', 'base radius', p.s1.rb, 'length', 'computed'),
        term('r_a2', 'tip radius', p.s2.ra, 'length', 'computed'),
        term('r_b2', 'base radius', p.s2.rb, 'length', 'computed'),
        term('a', 'centre distance', p.centre, 'length', 'computed'),
      ],
      source: ISO,
    })),
    ...(mesh.overlap > 0
      ? [
          exact(`overlap-${id}`, `Overlap ratio, ${name}`, 'count', mesh.overlap, () => ({
            formula: 'b·sin β/(π·m)',
            terms: [
              term('b', 'face width (of one half)', mesh.width, 'length', 'field', 'width'),
              term('β', 'helix', Math.abs(p.g1.helix), 'angle', 'field', 'helix'),
            ],
            source: ISO,
          })),
        ]
      : []),
    make.figure(
      `turn-${id}`,
      `Play changes over a turn, ${name}`,
      'length',
      (m) => 4 * load(m).runout * Math.tan(p.working),
      () => ({
        formula: '2·(F_r1 + F_r2)·tan α_wt',
        terms: [
          term('F_r', 'run-out of each wheel', given.runout, 'length', 'shop', 'gear.runout'),
          term('α_wt', 'working angle', p.working, 'angle', 'computed'),
        ],
        source: 'ISO 21771: Δj = 2·Δa·tan α_wt; both wheels at their worst against one another',
      }),
    ),
    ...(Number.isFinite(Math.max(...slides))
      ? [
          exact(`sliding-${id}`, `Worst sliding, ${name}`, 'ratio', Math.max(...slides), () => ({
            formula: 'max |1 − ρ₂·z₁/(ρ₁·z₂)|, |1 − ρ₁·z₂/(ρ₂·z₁)| at the ends of contact',
            terms: [
              term('g_1', 'start on the line of action', p.start, 'length', 'computed'),
              term('g_2', 'end', p.end, 'length', 'computed'),
            ],
            source: 'law of gearing; above 3 wears fast',
          })),
        ]
      : []),
    exact(`loss-${id}`, `Loss factor H_v, ${name}`, 'count', mesh.loss, () => ({
      formula: `2π(1/z₁ ${p.ring ? '−' : '+'} 1/z₂)/cos β_b·mean of Σ|s|/pairs over a base pitch`,
      terms: [...teeth, ...ratios],
      source: 'ISO/TR 14179-2: (1 − ε + ε₁² + ε₂²)/2 is that mean while ε₁ and ε₂ are below 1',
    })),
    make.figure(
      `force-${id}`,
      `Tooth force, ${name}`,
      'force',
      (m) => load(m).force,
      () => ({
        formula: 'T·K_γ/(N·r_w)',
        terms: [term('r_w', 'working radius', p.rw1, 'length', 'computed')],
        source: 'equilibrium; the worst of the meshes that share',
      }),
    ),
    make.figure(
      `root-${id}`,
      `Root stress, ${name}`,
      'stress',
      (m) => Math.max(...load(m).root),
      () => ({
        formula: 'F_t·cos α_t/cos α_wt/(b·m)·Y_F·Y_S·Y_ε·Y_β·K',
        terms: [
          term('F_t', 'tooth force', given.force, 'force', 'computed'),
          term('Y_F1', 'form factor, first wheel', mesh.sections[0].form, 'count', 'computed'),
          term('Y_S1', 'stress correction', mesh.sections[0].stress, 'count', 'computed'),
          term('Y_F2', 'form factor, second wheel', mesh.sections[1].form, 'count', 'computed'),
          term('Y_S2', 'stress correction', mesh.sections[1].stress, 'count', 'computed'),
        ],
        source: 'ISO 6336-3, force at the tip, 30° (ring 60°) tangent on the true root',
      }),
    ),
    make.figure(
      `flank-${id}`,
      `Flank pressure, ${name}`,
      'stress',
      (m) => load(m).flank,
      () => ({
        formula: 'Z_H·Z_E·Z_ε·Z_β·√(F_t·cos α_t/cos α_wt·K/(d₁·b)·(u ± 1)/u)',
        terms: [
          term('F_t', 'tooth force', given.force, 'force', 'computed'),
          term('b', 'width', mesh.width, 'length', 'field', 'width'),
          ...teeth,
        ],
        source: 'ISO 6336-2, Hertz at the pitch point, both materials’ E and ν',
      }),
    ),
    ...(given.plastic
      ? [
          make.figure(
            `warm-${id}`,
            `Flank temperature, ${name}`,
            'temperature',
            (m) => load(m).flankTemperature,
            () => ({
              formula: 'ϑ₀ + P·µ·H_v·k_ϑ/(b·z·(v·m)^0.75)',
              terms: [
                term('µ', 'friction', given.friction, 'count', 'shop', 'gear.frictionPlastic'),
                term('H_v', 'loss factor', mesh.loss, 'count', 'computed'),
              ],
              source: 'VDI 2736-2, mm and m/s',
            }),
          ),
        ]
      : []),
    make.figure(
      `stiff-${id}`,
      `Mesh stiffness, ${name}`,
      'stiffnessPerLength',
      (m) => load(m).stiffness,
      () => ({
        formula: 'c′·cos β·b·E/E_steel·(0.75·ε + 0.25)',
        terms: [
          term('ε', 'contact ratio', p.contact, 'count', 'computed'),
          term('b', 'width', mesh.width, 'length', 'field', 'width'),
        ],
        source: 'ISO 6336-1',
      }),
    ),
  ];
}

/** The torque, or the life, of every mode of failure, so that checks can open their workings. */
export function modeFigures<M>(
  modes: readonly Mode[],
  make: FigureMaker<M>,
  pick: (m: M) => readonly Mode[],
): Figure[] {
  return telling(modes).map((mode) => {
    const place = modes.indexOf(mode);
    const own = (m: M): Mode | undefined =>
      pick(m)[place]?.id === mode.id ? pick(m)[place] : pick(m).find((x) => x.id === mode.id);
    if (mode.time === 'life')
      return make.figure(
        mode.id,
        `${modeName(mode)} after`,
        'life',
        (m) => own(m)?.life ?? NaN,
        () => ({
          formula: 'load cycles that it stands at the equivalent torque, over how often they come',
          terms: [term('T', 'torque that lasts the life asked', mode.torque, 'torque', 'computed')],
          source: modeWhy(mode),
        }),
      );
    return make.figure(
      mode.id,
      `${modeName(mode)} at`,
      'torque',
      (m) => own(m)?.torque ?? NaN,
      () => ({
        formula: 'force at which it comes × r_w·N/K_γ, carried to the output',
        terms: [],
        source: modeWhy(mode),
      }),
    );
  });
}
