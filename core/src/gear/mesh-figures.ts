import { stated } from '../units/stated.ts';
import { term, type Figure, type FigureMaker, type Term, type Working, exact, worked } from '../figure/index.ts';
import { gearSize, type Gear } from './gear.ts';
import {
  E_STEEL,
  elasticityFactor,
  flankShare,
  helixFactor,
  rootHelix,
  rootShare,
  workingDepth,
  zoneFactor,
  type Mesh,
  type MeshLoad,
} from './mesh.ts';
import { overPins, spanOver, spanTeeth, usualPin } from './measure.ts';
import { meanReach, worstSliding } from './pair.ts';
import { lifeAsked } from './lasting.ts';
import { modeName, modeWhy, telling, type Mode, type Told } from './modes.ts';
import type { Duty } from '../stage/contract.ts';

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
  const size = gearSize(g);
  const transverse = term('α_t', 'pressure angle in the transverse section', size.at, 'angle', 'computed');
  const k = spanTeeth(g);
  const pin = usualPin(g);
  const span = spanOver(g, k);
  const cos = Math.cos(g.pressure);
  const list: Figure[] = [
    exact(`tip-⌀-${id}`.replace('⌀', 'd'), `Tip ⌀, ${name}`, 'length', 2 * tipRadius, () => ({
      formula: g.ring ? 'm·z/cos β − 2m(h_a − x) + 2·k' : 'm·z/cos β + 2m(h_a + x) − 2·k',
      terms: [
        ...terms,
        term('h_a', 'addendum over the module', g.addendum, 'count', 'field', 'addendum'),
        term('k', 'shortening', g.short, 'length', 'computed'),
      ],
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
        terms: [term('k', g.ring ? 'spaces spanned' : 'teeth spanned', k, 'count', 'computed'), ...terms, transverse],
        source: `${ISO}, 7.3; band: the shop’s spread of a made tooth’s thickness`,
      }),
    ),
  ];
  // Pins in an odd number of spaces do not lie opposite one another.
  const odd = g.teeth % 2 === 0 ? '' : '·cos(π/(2z))';
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
          formula: g.ring
            ? `m·z·cos α/cos(inv⁻¹(inv α + π/(2z) + 2x·tan α/z + A_s/(m·z) − d_M/(m·z·cos α)))${odd} − d_M`
            : `m·z·cos α/cos(inv⁻¹(inv α − π/(2z) + 2x·tan α/z − A_s/(m·z) + d_M/(m·z·cos α)))${odd} + d_M`,
          terms: [term('d_M', 'pin', pin, 'length', 'definition'), ...terms],
          source: `${ISO}, 7.4: to where the pin’s middle lies on the involute`,
        }),
      ),
    );
  }
  return list;
}

/** What a load brings to the teeth, and what springs make of it where they press. */
const forceTerms = ({ by }: MeshLoad): Term[] => [
  term('q', 'force on the teeth for a unit of load at the output, N', by.per, 'count', 'computed'),
  ...(by.times === 1 && by.sprung === 0
    ? []
    : [
        term('n', 'times that, as springs press', by.times, 'count', 'computed'),
        term('F_s', 'what springs add', by.sprung, 'force', 'computed'),
      ]),
];

/**
 * Geometry and loads of one mesh.
 *
 * @param asked what the stage is asked for, by which its teeth are loaded
 */
export function meshFigures<M>(
  id: string,
  name: string,
  mesh: Mesh,
  make: FigureMaker<M>,
  load: (m: M) => MeshLoad,
  given: MeshLoad,
  asked: Term,
): Figure[] {
  const p = mesh.pair;
  const { by } = given;
  const transverse = term('α_t', 'pressure angle in the transverse section', p.s1.at, 'angle', 'computed');
  const working = term('α_wt', 'working angle', p.working, 'angle', 'computed');
  const width = term('b', 'face width that carries', mesh.width, 'length', 'field', 'width');
  const module = term('m', 'normal module', p.g1.module, 'length', 'field', 'module');
  const helix = term('β', 'helix', Math.abs(p.g1.helix), 'angle', 'field', 'helix');
  const force = term('F_t', 'tooth force', given.force, 'force', 'computed');
  const worst = term('K', 'worst place over the mean', by.worst, 'ratio', 'shop', 'gear.load');
  const pressure = term('α', 'pressure angle', p.g1.pressure, 'angle', 'field', 'pressure');
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
      formula: p.ring ? 'inv⁻¹(inv α_t + 2·tan α·(x₂ − x₁)/(z₂ − z₁))' : 'inv⁻¹(inv α_t + 2·tan α·(x₁ + x₂)/(z₁ + z₂))',
      terms: [
        transverse,
        pressure,
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
        term('m_t', 'module in the transverse section', p.s1.mt, 'length', 'computed'),
        working,
        transverse,
      ],
      source: ISO,
    })),
    ...(mesh.overlap > 0
      ? [
          exact(`overlap-${id}`, `Overlap ratio, ${name}`, 'count', mesh.overlap, () => ({
            formula: 'b·sin β/(π·m)',
            terms: [term('b', 'face width (of one half)', mesh.each, 'length', 'field', 'width'), helix, module],
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
        formula: '2·(F_r + F_r)·tan α_wt',
        terms: [term('F_r', 'run-out of each wheel', given.runout, 'length', 'shop', 'gear.runout'), working],
        source: 'ISO 21771: Δj = 2·Δa·tan α_wt; both wheels at their worst against one another',
      }),
    ),
    ...(Number.isFinite(Math.max(...slides))
      ? [
          exact(`sliding-${id}`, `Worst sliding, ${name}`, 'ratio', Math.max(...slides), () => ({
            formula: 'max(s₁, s₂)',
            terms: [
              term('s₁', 'worst of the first wheel, |1 − ρ₂·z₁/(ρ₁·z₂)|', slides[0], 'ratio', 'computed'),
              term('s₂', 'worst of the second, |1 − ρ₁·z₂/(ρ₂·z₁)|', slides[1], 'ratio', 'computed'),
              term('g_1', 'start on the line of action', p.start, 'length', 'computed'),
              term('g_2', 'end', p.end, 'length', 'computed'),
            ],
            source: 'law of gearing, at the ends of contact; above 3 wears fast',
          })),
        ]
      : []),
    exact(`loss-${id}`, `Loss factor H_v, ${name}`, 'count', mesh.loss, () => ({
      formula: `2π(1/z₁ ${p.ring ? '−' : '+'} 1/z₂)/cos β_b·s`,
      terms: [
        ...teeth,
        term('β_b', 'helix at the base', p.s1.helixBase, 'angle', 'computed'),
        term('s', 'mean of Σ|s|/pairs over a base pitch', meanReach(p.approach, p.recess), 'count', 'computed'),
        ...ratios,
      ],
      source: 'ISO/TR 14179-2: (1 − ε + ε₁² + ε₂²)/2 is that mean while ε₁ and ε₂ are below 1',
    })),
    make.figure(
      `force-${id}`,
      `Tooth force, ${name}`,
      'force',
      (m) => load(m).force,
      () => ({
        formula: by.times === 1 && by.sprung === 0 ? `${asked.symbol}·q` : `${asked.symbol}·q·n + F_s`,
        terms: [asked, ...forceTerms(given)],
        source: 'equilibrium; the worst of the meshes that share',
      }),
    ),
    make.figure(
      `root-${id}`,
      `Root stress, ${name}`,
      'stress',
      (m) => Math.max(...load(m).root),
      () => ({
        formula: 'F_t·K·cos α_t/cos α_wt/(b·m)·Y_ε·Y_β·max(Y_F1·Y_S1, Y_F2·Y_S2)',
        terms: [
          force,
          worst,
          transverse,
          working,
          width,
          module,
          term('Y_ε', 'share that a root carries', rootShare(mesh), 'count', 'computed'),
          term('Y_β', 'helix factor', rootHelix(mesh), 'count', 'computed'),
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
        formula: `Z_H·Z_E·Z_ε·Z_β·√(F_t·K·cos α_t/cos α_wt/(d₁·b)·(z₂ ${p.ring ? '−' : '+'} z₁)/z₂)`,
        terms: [
          force,
          worst,
          transverse,
          working,
          width,
          term('d₁', 'reference ⌀', 2 * p.s1.r, 'length', 'computed'),
          ...teeth,
          term('Z_H', 'curvature at the pitch point', zoneFactor(p), 'count', 'computed'),
          term(
            'Z_E',
            'both materials’ E and ν, in √Pa',
            elasticityFactor(by.moduli[0], by.poisson[0], by.moduli[1], by.poisson[1]),
            'count',
            'computed',
          ),
          term('Z_ε', 'share that a flank carries', flankShare(mesh), 'count', 'computed'),
          term('Z_β', 'helix factor', helixFactor(p), 'count', 'computed'),
        ],
        source: 'ISO 6336-2, Hertz at the pitch point',
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
              formula: by.heat > 0 ? 'ϑ₀ + P_µ·k_ϑ/(10³·b·z·(10³·v·m)^0.75)' : 'ϑ₀',
              terms: [
                term('ϑ₀', 'surroundings', by.ambient, 'temperature', 'shop', 'ambient'),
                ...(by.heat > 0
                  ? [
                      term(
                        'P_µ',
                        'heat of friction, P·µ·H_v, as much of the time as it turns',
                        by.heat,
                        'power',
                        'computed',
                      ),
                      term('k_ϑ', 'heating of the flank', by.heating, 'count', 'shop', 'gear.heatFlank'),
                      width,
                      term('z', 'teeth of the smaller wheel', Math.min(p.g1.teeth, p.g2.teeth), 'count', 'field'),
                      term('v', 'along the working circle', by.speed, 'linearSpeed', 'computed'),
                      module,
                    ]
                  : []),
              ],
              source: 'VDI 2736-2, whose b and m stand in mm',
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
        formula: 'c′·cos β·cos²α_w·b·2·E₁·E₂/(E₁ + E₂)/E_s·(0.75·ε + 0.25)',
        terms: [
          term('α_w', 'working angle', p.working, 'angle', 'computed'),
          term('c′', 'of a steel pair', by.steel, 'stiffnessPerWidth', 'shop', 'gear.stiffness'),
          helix,
          width,
          term('E₁', 'modulus, first wheel', by.moduli[0], 'stress', 'computed'),
          term('E₂', 'modulus, second wheel', by.moduli[1], 'stress', 'computed'),
          term('E_s', 'modulus of steel', E_STEEL, 'stress', 'definition'),
          term('ε', 'contact ratio, at least 1', Math.max(1, p.contact), 'count', 'computed'),
        ],
        source: 'ISO 6336-1, along the line of action; turned to the working circle',
      }),
    ),
  ];
}

/** Workings of modes by their identifiers; those of a kind's own are its own. */
export type ModeWorkings = ReadonlyMap<string, () => Told>;

/**
 * How the modes of a mesh come about.
 *
 * @param id of the mesh, as its modes have it
 */
export function meshModeWorkings(id: string, mesh: Mesh, l: MeshLoad, at: Duty): [string, () => Told][] {
  const { by } = l;
  const p = mesh.pair;
  const plain = by.times === 1 && by.sprung === 0;
  // What the teeth bear, as a load at the output.
  const atOutput = (force: string, terms: readonly Term[]): Told => ({
    formula: plain ? `${force}/q` : `max(0, ${force} − F_s)/(n·q)`,
    terms: [...terms, ...forceTerms(l)],
  });
  const force = term('F_t', 'tooth force', l.force, 'force', 'computed');
  const asked = term('L', 'life asked', lifeAsked(at), 'life', 'brief');
  const lasts = (cycles: number, passes: number): Told => ({
    formula: 'L·N/n',
    terms: [
      asked,
      term('N', 'load cycles that it stands at the equivalent load', cycles, 'count', 'computed'),
      term('n', 'load cycles in the life asked', passes, 'count', 'computed'),
    ],
  });
  return [
    ...([0, 1] as const).flatMap((i): [string, () => Told][] => [
      [
        `break-${id}-${i}`,
        () =>
          atOutput('F_t·σ_P/σ_F', [
            force,
            term('σ_P', 'what the root stands', by.stands[i], 'stress', 'computed'),
            term('σ_F', 'root stress', l.root[i], 'stress', 'computed'),
          ]),
      ],
      [`tire-${id}-${i}`, () => lasts(by.cycles[i], by.passes[i])],
    ]),
    [
      `pit-${id}`,
      () => ({
        formula: 'L·x',
        terms: [asked, term('x', 'times that the flanks last at the equivalent load', by.lives, 'count', 'computed')],
      }),
    ],
    [
      `crush-${id}`,
      () =>
        atOutput('F_t·(p_P/p)²', [
          force,
          term('p_P', 'what the softer flank bears', by.bears, 'stress', 'computed'),
          term('p', 'flank pressure', l.flank, 'stress', 'computed'),
        ]),
    ],
    [
      `skip-${id}`,
      () =>
        atOutput('k·max(0, h − F_r)/t', [
          term('k', 'what holds the wheels together', by.hold, 'stiffnessPerLength', 'computed'),
          term('h', 'working depth', workingDepth(p), 'length', 'computed'),
          term('F_r', 'run-out', l.runout, 'length', 'shop', 'gear.runout'),
          term(
            't',
            'slope that teeth ride over on, tan(α_wt − share of the friction angle)',
            by.slope,
            'count',
            'computed',
          ),
        ]),
    ],
  ];
}

/**
 * The torque, or the life, of every mode of failure, so that checks can open their workings.
 *
 * @param how each comes about, by its identifier
 */
export function modeFigures<M>(
  modes: readonly Mode[],
  make: FigureMaker<M>,
  pick: (m: M) => readonly Mode[],
  how: ModeWorkings = new Map(),
): Figure[] {
  return telling(modes).map((mode) => {
    const place = modes.indexOf(mode);
    const own = (m: M): Mode | undefined =>
      pick(m)[place]?.id === mode.id ? pick(m)[place] : pick(m).find((x) => x.id === mode.id);
    const working = (): Working => ({
      ...(how.get(mode.id)?.() ?? mode.told?.() ?? { formula: 'where what it stands is met', terms: [] }),
      source: modeWhy(mode),
    });
    return mode.time === 'life'
      ? make.figure(mode.id, `${modeName(mode)} after`, 'life', (m) => own(m)?.life ?? NaN, working)
      : make.figure(mode.id, `${modeName(mode)} at`, 'torque', (m) => own(m)?.torque ?? NaN, working);
  });
}
