import { pieceFigures } from '../costs.ts';
import { partLoadFigures } from '../part-load.ts';
import { springFigures } from '../springs.ts';
import { sprungPlanetFigures } from '../taken-out.ts';
import { stated } from '../../units/stated.ts';
import {
  meshFigures,
  meshModeWorkings,
  type ModeWorkings,
  modeFigures,
  planetsOutBy,
  spacesEvenly,
  wheelFigures,
  type PlanetsOut,
} from '../../gear/index.ts';
import { FigureMaker, term, type Figure, type Term, worked, exact } from '../../figure/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { roles, type PlanetaryParams } from './params.ts';
import { limitFigures } from '../limits.ts';
import type { PlanetaryModel } from './model.ts';

/** How the play comes about, by the way it is taken out. */
const PLAYS: Readonly<Record<PlanetsOut, string>> = {
  none: '(j_s + j_r)/(r_s + r_r) by each member’s share, less what the planets’ places take away',
  sun: 'that of the ring’s mesh alone: halves of the sun press on both flanks',
  ring: 'that of the sun’s mesh alone: halves of the ring press on both flanks',
  planets: '|j_s − j_r|/(r_s + r_r) by each member’s share: a half turns no further than the tighter mesh lets it',
  pairs: '0: pushed planets touch the sun and the ring one way, fixed ones the other way',
};

/** Least angle between two places round a circle, rad, in the order in which they stand. */
const nearestAngle = (places: readonly number[]): number =>
  places.reduce((least, a, i) => {
    const next = places[(i + 1) % places.length]!;
    return Math.min(least, Math.abs(Math.atan2(Math.sin(next - a), Math.cos(next - a))));
  }, Math.PI);

/** The ratio of a set by who drives, who is driven and who is held. Source: Willis. */
const willisOf = ({ input, output }: ReturnType<typeof roles>): string => {
  const by: Readonly<Record<string, string>> = {
    'sun-carrier': '1 + z_r/z_s',
    'carrier-sun': '1/(1 + z_r/z_s)',
    'ring-carrier': '1 + z_s/z_r',
    'carrier-ring': '1/(1 + z_s/z_r)',
    'sun-ring': '−z_r/z_s',
    'ring-sun': '−z_s/z_r',
  };
  return by[`${input}-${output}`]!;
};

/** Workings of the last set, with what an earlier one leaves of what they come to. */
const ofSets = (how: ModeWorkings, { modes, setShares }: PlanetaryModel): ModeWorkings =>
  new Map(
    modes.flatMap(({ id }, i) => {
      const own = how.get(id);
      const share = setShares[i]!;
      if (!own || share === 1) return own ? [[id, own] as const] : [];
      const told = () => {
        const { formula, terms } = own();
        const [sum, ...remarks] = formula.split(';');
        return {
          formula: [`(${sum})·s`, ...remarks].join(';'),
          terms: [...terms, term('s', 'what the set nearest the motor leaves of it', share, 'efficiency', 'computed')],
        };
      };
      return [[id, told] as const];
    }),
  );

/** Every figure of a planetary stage with its working. */
export function planetaryFigures(
  p: PlanetaryParams,
  at: Duty,
  shelf: Shelf,
  m: PlanetaryModel,
  make: FigureMaker<PlanetaryModel>,
): Figure[] {
  const g = m.geometry;
  const zs = term('z_s', 'teeth, sun', p.zs, 'count', 'field', 'zs');
  const zp = term('z_p', 'teeth, planet', p.zp, 'count', 'field', 'zp');
  const zr = term('z_r', 'teeth, ring', p.zr, 'count', 'field', 'zr');
  const N = term('N', 'planets', p.planets, 'count', 'field', 'planets');
  const a = term('a', 'centre distance', g.centre, 'length', 'computed');
  const eS = term('η_s', 'sun’s mesh', m.etas[0], 'efficiency', p.meshBy === 'given' ? 'field' : 'computed', 'etaS');
  const eR = term('η_r', 'ring’s mesh', m.etas[1], 'efficiency', p.meshBy === 'given' ? 'field' : 'computed', 'etaR');
  const T = term('T', 'peak torque', at.torque, 'torque', 'brief');
  const role = roles(p);
  const onPins = (whole: number, teeth: number) => [
    term('pins', 'what friction on the planets’ pins takes of that', 1 - whole / teeth, 'efficiency', 'computed'),
    ...(m.driven.rubs > 0
      ? [term('T_p', 'friction on all pins, for a newton metre', m.driven.rubs, 'torque', 'computed')]
      : []),
  ];
  const pinForce = term('F', 'pin force', m.pinForce, 'force', 'computed');
  const pinWorkings = (): [string, () => { formula: string; terms: Term[] }][] => [
    [
      'pin',
      () => ({
        formula: 'T·min(σ_P/σ, F_P/F)',
        terms: [
          T,
          term('σ_P', 'what the pin stands', m.pinStands.bent, 'stress', 'shop'),
          term('σ', 'pin bending', m.pinStress, 'stress', 'computed'),
          term(
            'F_P',
            m.bearing ? 'static rating of its bearing' : 'what its bore bears',
            m.pinStands.borne,
            'force',
            'shop',
            m.bearing ? undefined : 'pin.pressure',
          ),
          pinForce,
        ],
      }),
    ],
    [
      'seat',
      () => ({
        formula: 'T·F_P/F',
        terms: [T, term('F_P', 'what both seats bear', m.pinStands.seated, 'force', 'computed'), pinForce],
      }),
    ],
    [
      'pv',
      () => ({
        formula: 'w_P/w₁',
        terms: [
          term('w_P', 'p·v that a plain bore bears', factor(shelf, 'pin.pv'), 'pressureSpeed', 'shop', 'pin.pv'),
          term('w₁', 'p·v for a newton metre', m.pinStands.rubs, 'pressureSpeed', 'computed'),
        ],
      }),
    ],
  ];
  const sets = p.sets > 1 ? [term('n', 'sets', p.sets, 'count', 'field', 'sets')] : [];
  const spread = factor(shelf, 'gear.thickness');
  const willis = 'Willis: ω_s·z_s + ω_r·z_r = ω_c·(z_s + z_r)';
  const powers =
    'mesh powers in the carrier’s frame, each mesh passing η of what enters it; signs that come out consistent';
  return [
    make.figure(
      'ratio',
      p.sets > 1 ? `Ratio, ${p.sets} sets` : 'Ratio',
      'ratio',
      (x) => x.numbers.ratio,
      () => ({
        formula: `${p.sets > 1 ? `(${willisOf(role)})^n` : willisOf(role)}; ${role.input} in, ${role.output} out, ${role.held} held`,
        terms: [zs, zr, ...sets],
        source: willis,
      }),
    ),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.numbers.etaForward,
      () => ({
        formula: p.sets > 1 ? '(train·(1 − pins))^n' : 'train·(1 − pins)',
        terms: [
          ...sets,
          term('train', 'teeth alone', m.driven.trainForward, 'efficiency', 'computed'),
          eS,
          eR,
          ...onPins(m.driven.forward, m.driven.trainForward),
        ],
        source: powers,
      }),
    ),
    make.figure(
      'efficiencyBack',
      'Efficiency, turned back',
      'efficiency',
      (x) => x.numbers.etaBackward,
      () => ({
        formula: p.sets > 1 ? '(train·(1 − pins))^n' : 'train·(1 − pins)',
        terms: [
          ...sets,
          term('train', 'teeth alone, the output driving', m.driven.trainBackward, 'efficiency', 'computed'),
          eS,
          eR,
          ...onPins(m.driven.backward, m.driven.trainBackward),
        ],
        source: powers,
        note: '0 or less is self-locking.',
      }),
    ),
    exact('centre', 'Centre distance', 'length', g.centre, () => ({
      formula: 'm_t(z_s + z_p)/2·cos α_t/cos α_wt',
      terms: [
        term('m_t', 'module in the transverse section', g.sunMesh.pair.s1.mt, 'length', 'computed'),
        term('α_t', 'pressure angle there', g.sunMesh.pair.s1.at, 'angle', 'computed'),
        term('α_wt', 'working angle', g.sunMesh.pair.working, 'angle', 'computed'),
        zs,
        zp,
        term('x_s', 'shift, sun', p.xs, 'count', 'field', 'xs'),
        term('x_p', 'shift, planets', p.xp, 'count', 'field', 'xp'),
      ],
      source: 'ISO 21771:2007',
    })),
    exact('ringShift', 'Ring’s shift', 'count', g.ringShift, () => ({
      formula: 'x_p + (inv α_wt − inv α_t)(z_r − z_p)/(2·tan α)',
      terms: [
        term('x_p', 'shift, planets', p.xp, 'count', 'field', 'xp'),
        term('α_wt', 'working angle at the sun’s centre distance', g.ringMesh.pair.working, 'angle', 'computed'),
        term('α_t', 'pressure angle in the transverse section', g.ringMesh.pair.s1.at, 'angle', 'computed'),
        term('α', 'pressure angle', p.pressure, 'angle', 'field', 'pressure'),
        zp,
        zr,
        a,
      ],
      source: 'ISO 21771:2007, so that both meshes have one centre distance',
    })),
    exact('gap', 'Gap of neighbours', 'length', g.gap, () => ({
      formula: '2a·sin(θ/2) − d_a',
      terms: [
        a,
        term('θ', 'between the nearest two planets', nearestAngle(g.places), 'angle', 'computed'),
        term('d_a', 'tip diameter of a planet', 2 * g.sunMesh.pair.s2.ra, 'length', 'computed'),
      ],
      source: 'chord of two places, less two tip radii',
    })),
    exact('evenness', 'Sun + ring over planets', 'count', (p.zs + p.zr) / p.planets, () => ({
      formula: '(z_s + z_r)/N',
      terms: [zs, zr, N],
      source: spacesEvenly(p.zs, p.zr, p.planets)
        ? 'whole: even spacing assembles'
        : `not whole: places are multiples of ${stated((2 * Math.PI) / (p.zs + p.zr), 'angle', 6)}`,
      note:
        p.zs % p.planets === 0 && p.zr % p.planets === 0
          ? 'Planets mesh in phase, which is louder.'
          : 'Planets mesh one after another, which is quieter.',
    })),
    worked(
      {
        id: 'play',
        name: 'Play',
        quantity: 'smallAngle',
        value: m.numbers.play[0],
        low: m.numbers.play[1],
        high: m.numbers.play[2],
      },
      () => ({
        formula: PLAYS[planetsOutBy(p)],
        terms: [
          term('j_s', 'play of the sun’s mesh', g.sunMesh.pair.play, 'length', 'computed'),
          term('j_r', 'play of the ring’s mesh', g.ringMesh.pair.play, 'length', 'computed'),
          term('one', 'one planet alone', m.playOne, 'smallAngle', 'computed'),
        ],
        source:
          planetsOutBy(p) === 'none'
            ? 'free ranges of several planets overlap: their common part is less by d₂(N)·σ of the places'
            : 'what springs leave while the load does not overcome them',
        note: 'Sets before the last are divided by the ratio after them.',
      }),
    ),
    make.figure(
      'playOne',
      'Play, one planet as drawn',
      'smallAngle',
      (x) => x.playOne,
      () => ({
        formula:
          p.sets === 1 && role.input === 'sun' && role.output === 'carrier'
            ? '(j_s·p_r + j_r·p_s)/(r_s·p_r + r_r·p_s)'
            : 'Σ j·share/r_w, by how each mesh turns the output',
        terms: [
          term('j_s', 'play of the sun’s mesh', g.sunMesh.pair.play, 'length', 'computed'),
          term('j_r', 'play of the ring’s mesh', g.ringMesh.pair.play, 'length', 'computed'),
          term('p_s', 'planet’s working radius with the sun', g.sunMesh.pair.rw2, 'length', 'computed'),
          term('p_r', 'and with the ring', g.ringMesh.pair.rw1, 'length', 'computed'),
          term('r_s', 'working radius, sun', g.sunMesh.pair.rw1, 'length', 'computed'),
          term('r_r', 'working radius, ring', g.ringMesh.pair.rw2, 'length', 'computed'),
        ],
        source: 'Willis for small angles',
      }),
    ),
    make.figure(
      'bind',
      'Play left on the tight side',
      'smallAngle',
      (x) => x.bind,
      () => ({
        formula: 'one planet’s play − thickness spread − 2·d₂(N)·σ',
        terms: [term('one', 'one planet alone', m.playOne, 'smallAngle', 'computed')],
        source: 'below nought some planets bind',
      }),
    ),
    ...(planetsOutBy(p) === 'none' ? [] : sprungPlanetFigures(p.preload, make)),
    ...partLoadFigures(make, m, at),
    ...springFigures(
      make,
      m,
      'each spring by the energy it stores for a newton metre at the output; N planets side by side',
    ),
    make.figure(
      'share',
      'Load share, worst planet',
      'ratio',
      (x) => x.share,
      () => ({
        formula: 'K_γ',
        terms: [term('K_γ', 'of the worst planet over an even share', m.share, 'ratio', 'shop'), N],
        source: p.floating === 'none' ? 'nothing floats: worse with every planet over two' : `the ${p.floating} floats`,
      }),
    ),
    ...meshFigures('sun', 'sun’s mesh', g.sunMesh, make, (x) => x.sunLoad, m.sunLoad, T),
    ...meshFigures('ring', 'ring’s mesh', g.ringMesh, make, (x) => x.ringLoad, m.ringLoad, T),
    make.figure(
      'pinForce',
      'Pin force',
      'force',
      (x) => x.pinForce,
      () => ({
        formula: planetsOutBy(p) === 'none' ? 'T_c·K_γ/(N·a)' : 'T_c·K_γ/(N·a), and what springs add',
        terms: [
          term('T_c', 'torque on the carrier', m.carrierTorque, 'torque', 'computed'),
          term('K_γ', 'of the worst planet over an even share', m.share, 'ratio', 'shop'),
          N,
          a,
        ],
        source: 'equilibrium of the carrier',
      }),
    ),
    make.figure(
      'pinStress',
      'Pin bending',
      'stress',
      (x) => x.pinStress,
      () => ({
        formula: '32·(F·L/8)/(π·d³)',
        terms: [
          term('F', 'pin force', m.pinForce, 'force', 'computed'),
          term('L', 'between the plates’ seats', p.width + 2 * p.plate, 'length', 'computed'),
          term('d', 'pin', p.pin, 'length', 'field', 'pin'),
        ],
        source: 'beam held at both ends, load along its length',
      }),
    ),
    make.figure(
      'lean',
      'Pins lean',
      'angle',
      (x) => x.lean,
      () => ({
        formula: 'T_c/2/(N·12·E·I·a²/L³)·a/L',
        terms: [
          T,
          N,
          a,
          term('d', 'pin', p.pin, 'length', 'field', 'pin'),
          term('L', 'between plate middles', p.width + p.plate, 'length', 'computed'),
        ],
        source:
          'carrier twist: plates joined by the pins alone, as beams held at both ends; half the torque comes across',
      }),
    ),
    ...(p.pins === 'plain'
      ? [
          make.figure(
            'pressureSpeed',
            'Plain bore, p·v',
            'pressureSpeed',
            (x) => x.pressureSpeed,
            () => ({
              formula:
                planetsOutBy(p) === 'none'
                  ? 'F_r/(d·b)·ω_p·d/2'
                  : 'mean pressure on the bore, springs and all, times its speed',
              terms: [
                term(
                  'F_r',
                  'pin force at the RMS torque',
                  (m.pinForce * at.torqueRms) / (at.torque || 1),
                  'force',
                  'computed',
                ),
                term('d', 'pin', p.pin, 'length', 'field', 'pin'),
                term('b', 'face width', p.width, 'length', 'field', 'width'),
                term('ω_p', 'planet on its pin', m.pinSpeed, 'speed', 'computed'),
              ],
              source: 'mean pressure on the projected bore',
            }),
          ),
        ]
      : []),
    make.figure(
      'wall',
      'Ring wall, bending',
      'stress',
      (x) => x.wallStress,
      () => ({
        formula: 'F_r·R/2·(N/π − 1/tan(π/N))·6/(b·t²)',
        terms: [
          term('F_r', 'radial force of a planet', m.ringLoad.radial, 'force', 'computed'),
          term('R', 'middle of the wall', (g.outside - p.rim) / 2, 'length', 'computed'),
          term('b', 'face width', p.width, 'length', 'field', 'width'),
          term('t', 'wall', p.rim, 'length', 'field', 'rim'),
          N,
        ],
        source: 'thin ring under N even radial loads',
      }),
    ),
    ...(p.boreS > 0
      ? [
          exact('sunWall', 'Wall of the sun', 'length', m.sunWall, () => ({
            formula: 'root radius − reach of the bore',
            terms: [term('d', 'bore', p.boreS, 'length', 'field', 'boreS')],
            source: 'plane geometry; keyway by ISO/R 773',
          })),
        ]
      : []),
    ...modeFigures(
      m.modes,
      make,
      (x) => x.modes,
      ofSets(
        new Map([
          ...meshModeWorkings('sun', g.sunMesh, m.sunLoad, at),
          ...meshModeWorkings('ring', g.ringMesh, m.ringLoad, at),
          ...(planetsOutBy(p) === 'none' ? pinWorkings() : []),
        ]),
        m,
      ),
    ),
    ...limitFigures(m.forms, make, (x) => x.forms),
    ...wheelFigures(g.sun, 'sun', 'sun', g.sunMesh.pair.s1.ra, spread),
    ...wheelFigures(g.planet, 'planet', 'planet', g.sunMesh.pair.s2.ra, spread),
    ...wheelFigures(g.ring, 'ring', 'ring', g.ringMesh.pair.s2.ra, spread),
    ...pieceFigures(
      make,
      {
        ...Object.fromEntries(m.costs.suns.map((c, k) => [`sun, set ${k + 1}`, c])),
        ...Object.fromEntries(m.costs.planets.map((c, k) => [`planets, set ${k + 1}`, c])),
        ring: m.costs.ring,
        'plates on the suns’ side': m.costs.plateIn,
        'plates between sets': m.costs.plateMid,
        'output plate': m.costs.plateOut,
        bearings: m.costs.bearing,
        springs: m.costs.springs,
        ...Object.fromEntries(m.costs.pins.map((c, k) => [p.sets > 1 ? `pins, set ${k + 1}` : 'pins', c])),
      },
      {
        mass: 'blanks by the share that holes leave',
        money: 'material by mass, work by tooth for milled wheels',
      },
    ),
    ...(Number.isFinite(m.bearingLife)
      ? [
          make.figure(
            'life',
            'Life of the planet bearings',
            'life',
            (x) => x.bearingLife,
            () => ({
              formula: p.pins === 'needle' ? '(C/P)^(10/3)·10⁶ turns' : '(C/P)³·10⁶ turns',
              terms: [term('C', 'dynamic rating', m.bearing!.dynamic, 'force', 'shop')],
              source: 'ISO 281',
            }),
          ),
        ]
      : []),
  ];
}
