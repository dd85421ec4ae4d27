import { pieceFigures } from '../costs.ts';
import { sprungFigures } from '../taken-out.ts';
import { partLoadFigures } from '../part-load.ts';
import { stated } from '../../units/stated.ts';
import { term, type Figure, type FigureMaker, worked, exact } from '../../figure/index.ts';
import { E_STEEL, elastic, greaseDrag, modeFigures, type ModeWorkings } from '../../gear/index.ts';
import { factor, type Shelf } from '../../shop/shelf.ts';
import type { Duty } from '../contract.ts';
import { rollersShare, type StrainWaveModel } from './model.ts';
import { hasRollers, outRadius, passesOf, ringTeeth, strainWaveRatio, type StrainWaveParams } from './params.ts';

/** What a strain-wave stage is told to be worth, each with its working. */
export function strainWaveFigures(
  p: StrainWaveParams,
  at: Duty,
  shelf: Shelf,
  m: StrainWaveModel,
  make: FigureMaker<StrainWaveModel>,
): Figure[] {
  const g = m.geometry;
  const zf = term('z_f', 'spline teeth', p.teeth, 'count', 'field', 'teeth');
  const zc = term('z_c', 'ring teeth', ringTeeth(p), 'count', 'computed');
  const w0 = term('w₀', 'throw', g.throw, 'length', 'computed');
  const r = term('r', 'radius of the neutral line', g.radius, 'length', 'field', 'radius');
  const t = term('t', 'wall', g.wall, 'length', 'field', 'wall');
  const T = term('T', 'peak torque', at.torque, 'torque', 'brief');
  const lobes = term('n', 'lobes', p.lobes, 'count', 'field', 'lobes');
  const R = term('R', 'radius of the teeth’s forces at what goes out', outRadius(p, g.module), 'length', 'computed');
  const depth = term('h', 'depth of mesh', Math.max(1e-6, g.engaged), 'length', 'computed');
  const tension = term('F_s', 'wave tension', p.tension ?? 0, 'force', 'field', 'tension');
  const beta = term('β', 'lean of a side halfway up', g.lean, 'angle', 'computed');
  const how: ModeWorkings = new Map([
    [
      'skip',
      () => ({
        formula: 'k·h·n·R/tan β',
        terms: [
          term(
            'k',
            'generator and ring at a lobe',
            (m.generatorStiffness * Math.tan(g.lean) ** 2) / (p.lobes * R.value ** 2),
            'stiffnessPerLength',
            'computed',
          ),
          depth,
          lobes,
          R,
          beta,
        ],
      }),
    ],
    [
      'dent',
      () => ({
        formula: 'max(10⁻⁹, F·n·R/tan β)',
        terms: [
          term(
            'F',
            'what bearing or rollers bear beside all that presses',
            m.bearing.static * rollersShare(g.line.groups) - m.presses,
            'force',
            'computed',
          ),
          lobes,
          R,
          beta,
        ],
      }),
    ],
  ]);
  const other = strainWaveRatio({ ...p, held: p.held === 'ring' ? 'spline' : 'ring' });
  const wave = 'thin ring kept at its length over the generator';
  const bands = (id: string, name: string, pick: (x: StrainWaveModel) => number, from: number, to: number): Figure => {
    const k = pick(m);
    return make.figure(id, name, 'stiffness', pick, () => ({
      formula: '1/(1/k_t + 1/k_cup + 1/k_g)',
      terms: [
        term(
          'k_t',
          'teeth that close one after another',
          1 / (1 / k - 1 / m.cupStiffness - 1 / m.generatorStiffness),
          'stiffness',
          'computed',
        ),
        term('T₁', 'from', from, 'torque', 'computed'),
        term('T₂', 'to', to, 'torque', 'computed'),
        term(
          'k_cup',
          p.body === 'cup'
            ? 'cup in torsion, 2πG·r³·t/L'
            : m.geometry.section
              ? 'second mesh, and the belt sheared across its cords'
              : 'second mesh',
          m.cupStiffness,
          'stiffness',
          'computed',
        ),
        term('k_g', 'generator and ring, n·k·R²/tan²β', m.generatorStiffness, 'stiffness', 'computed'),
      ],
      source: 'teeth close one after another, so the slope grows; the three stretches of a bench curve',
    }));
  };
  return [
    exact('ratio', 'Ratio', 'ratio', m.numbers.ratio, () => ({
      formula: p.held === 'ring' ? '−z_f/(z_c − z_f)' : 'z_c/(z_c − z_f)',
      terms: [zf, zc],
      source: 'generator driven; which member is bolted decides',
      note: `With the ${p.held === 'ring' ? 'spline' : 'ring'} bolted instead it would be ${other} : 1.`,
    })),
    exact('throw', 'Throw', 'length', g.throw, () => ({
      formula: '(z_c − z_f)·m/2·d − s',
      terms: [
        zf,
        zc,
        term('m', 'module', g.module, 'length', 'field', 'module'),
        term('d', 'depth factor', p.depth, 'count', 'field', 'depth'),
        term('s', 'gap to the spline', p.slack, 'length', 'field', 'slack'),
      ],
      source: 'the neutral line meets the ring’s pitch circle at the lobes’ tops',
    })),
    exact('strain', 'Wall strain', 'efficiency', m.strain, () => ({
      formula: '(n² − 1)/2·t·w₀/r²·s',
      terms: [
        t,
        w0,
        r,
        term('n', 'lobes', p.lobes, 'count', 'field', 'lobes'),
        term('s', 'bending over that of a cosine wave', g.shapeFactor, 'count', 'computed'),
      ],
      source: `bending of a thin ring; ${wave}`,
    })),
    make.figure(
      'strainLimit',
      'Strain it stands',
      'efficiency',
      (x) => x.strainLimit,
      () => ({
        formula: 'ε₀/n',
        terms: [
          term(
            'ε₀',
            'of the plain wall, at ten million waves',
            m.strainLimit * factor(shelf, 'wave.notch'),
            'efficiency',
            'computed',
          ),
          term('n', 'notch', factor(shelf, 'wave.notch'), 'count', 'shop', 'wave.notch'),
        ],
        source: 'by class of material: metals by stress, plastics and elastomers by strain',
      }),
    ),
    make.figure(
      'stress',
      'Wall stress',
      'stress',
      (x) => x.stress,
      () => ({
        formula: 'E·ε·n',
        terms: [
          term('n', 'notch', factor(shelf, 'wave.notch'), 'count', 'shop', 'wave.notch'),
          term('E', 'modulus', elastic(m.materials[0], factor(shelf, 'ambient'), shelf), 'stress', 'shop'),
          term('ε', 'strain', m.strain, 'efficiency', 'computed'),
        ],
        source: 'twice a lobe, once in and once out',
      }),
    ),
    exact('clearance', 'Least clearance of teeth', 'length', g.least, () => ({
      formula: 'least normal distance of any tooth from its space, through the whole wave',
      terms: [
        w0,
        r,
        term('u', 'where along the wave', g.leastAt, 'angle', 'computed'),
        term('y', 'height over the neutral line', g.leastHeight, 'length', 'computed'),
      ],
      source: `${wave}; teeth stand on its normals. Below 0 they clash`,
    })),
    exact('engaged', 'Depth of mesh', 'length', g.engaged, () => ({
      formula: 'spline’s tip below the ring’s tips at a lobe’s top',
      terms: [w0],
      source: 'as drawn',
    })),
    exact('inMesh', 'Teeth in their spaces', 'count', g.inMesh, () => ({
      formula: 'tips below the ring’s tips, all lobes',
      terms: [zf],
      source: 'as drawn',
    })),
    make.figure(
      'carrying',
      'Teeth that carry',
      'count',
      (x) => x.carried.carrying,
      () => ({
        formula: 'clearances closed by the peak’s wind-up',
        terms: [T],
        source: 'one-sided contacts, each at its own clearance',
      }),
    ),
    exact('pass', 'Room between the lobes', 'length', g.pass, () => ({
      formula: 'ring’s tips − spline’s tips where it is drawn in furthest',
      terms: [w0],
      source: 'open end',
    })),
    ...(p.body === 'cup'
      ? [
          exact('usable', 'Usable tooth width', 'length', Number.isFinite(m.usable) ? m.usable : p.cup, () => ({
            formula: 'L·room/(r − least)',
            terms: [term('L', 'cup', p.cup, 'length', 'field', 'cup')],
            source: 'the wave falls evenly to the closed end, where teeth would catch',
          })),
          exact('coning', 'Coning', 'angle', m.coning, () => ({
            formula: 'w₀/L',
            terms: [w0, term('L', 'cup', p.cup, 'length', 'field', 'cup')],
            source: 'slope of the wall at a lobe’s top',
          })),
          exact('coningShear', 'Shear strain of coning', 'efficiency', m.coningShear, () => ({
            formula: 'w₀/(n·L)',
            terms: [
              w0,
              term('n', 'lobes', p.lobes, 'count', 'field', 'lobes'),
              term('L', 'cup', p.cup, 'length', 'field', 'cup'),
            ],
            source: 'points move along the ring by w₀/n at the open end, not at the closed one',
          })),
        ]
      : []),
    make.figure(
      'preload',
      'Preload of a lobe',
      'force',
      (x) => x.preload,
      () => ({
        formula: hasRollers(p) ? 'ring pressed at points, E·I·w₀/r³ times its shape' : '2(n² − 1)²/n·E·I·w₀/r³',
        terms: [w0, r, t, term('k', 'rim under teeth', factor(shelf, 'wave.rim'), 'count', 'shop', 'wave.rim')],
        source: 'one-sided contact of a thin ring',
      }),
    ),
    make.figure(
      'leastPreload',
      hasRollers(p) ? 'Least roller near the top' : 'Least preload a tooth pitch near the top',
      'force',
      (x) => x.leastPreload,
      () => ({
        formula: 'over the upper third of a lobe',
        terms: [w0],
        source: 'nought is a gap, and a gap there skips',
      }),
    ),
    make.figure(
      'presses',
      'Pressed at a lobe, all in all',
      'force',
      (x) => x.presses,
      () => ({
        formula: m.opens > 0 ? 'P_w + P_b + P_e + F_s' : 'P_w + P_b + P_e',
        terms: [
          term('P_w', 'wall', m.preload, 'force', 'computed'),
          ...(m.opens > 0 ? [tension] : []),
          term('P_b', 'outer ring of the bearing, bent to the wave', m.races.push, 'force', 'computed'),
          term('P_e', 'out of round and off the middle beyond the clearance', m.pinch, 'force', 'computed'),
          term('o', 'out of round', factor(shelf, 'wave.round'), 'length', 'shop', 'wave.round'),
          term('e', 'off the middle', factor(shelf, 'wave.centre'), 'length', 'shop', 'wave.centre'),
        ],
        source: 'errors by squares, less what the teeth leave free, on generator and ring, for half of a turn',
      }),
    ),
    ...(m.races.stress > 0
      ? [
          make.figure(
            'races',
            'Stress of the bearing’s rings',
            'stress',
            (x) => x.races.stress,
            () => ({
              formula: '(n² − 1)/2·E·t·w₀/((d + t)/2)²',
              terms: [
                w0,
                term('n', 'lobes', p.lobes, 'count', 'field', 'lobes'),
                term('E', 'modulus of steel', E_STEEL, 'stress', 'definition'),
                term(
                  't',
                  'ring, h of its section',
                  (factor(shelf, 'wave.race') * (m.bearing.outside - m.bearing.bore)) / 2,
                  'length',
                  'computed',
                ),
                term('d', 'bore', m.bearing.bore, 'length', 'shop'),
                term('h', 'ring over section', factor(shelf, 'wave.race'), 'efficiency', 'shop', 'wave.race'),
              ],
              source: 'thin ring bent to the wave; the inner one is bent most',
            }),
          ),
        ]
      : []),
    make.figure(
      'drag',
      'No-load running torque',
      'torque',
      (x) => x.drag,
      () => ({
        formula: m.opens > 0 ? 'T_f + T_r + T_g + T_b + T_o + T_s' : 'T_f + T_r + T_g + T_b + T_o',
        terms: [
          term('T_o', 'grease', greaseDrag(g.outside, shelf) / 2, 'torque', 'computed'),
          term('T_f', 'flexing of the wall, 2n·tan δ·U', m.dragFlex, 'torque', 'computed'),
          term('T_r', 'flexing of the bearing', m.races.flex, 'torque', 'computed'),
          term('T_g', 'generator, µ·n·P·r', m.dragGenerator, 'torque', 'computed'),
          term('T_b', 'its bearing or rollers, without load', m.dragBearings, 'torque', 'computed'),
          ...(m.opens > 0
            ? [term('T_s', 'springs, at the generator', m.braking / Math.abs(m.numbers.ratio), 'torque', 'computed')]
            : []),
        ],
        source: 'at the generator; hysteresis of what flexes, and friction under what presses',
      }),
    ),
    make.figure(
      'starting',
      'Starting torque',
      'torque',
      (x) => x.starting,
      () => ({
        formula: 'T₀·s',
        terms: [
          term('T₀', 'no-load torque', m.drag, 'torque', 'computed'),
          term('s', 'start', factor(shelf, 'wave.start'), 'count', 'shop', 'wave.start'),
        ],
        source: 'at the generator',
      }),
    ),
    make.figure(
      'turnBack',
      'Turn-back torque',
      'torque',
      (x) => x.turnBack,
      () => ({
        formula: 'T₀·|i|/η_b',
        terms: [
          term('i', 'ratio', m.numbers.ratio, 'ratio', 'computed'),
          term(
            'η_b',
            'efficiency, turned back, at least a millionth',
            Math.max(1e-6, m.backward),
            'efficiency',
            'computed',
          ),
          term('T₀', 'no-load torque', m.drag, 'torque', 'computed'),
        ],
        source: 'at the output, this stage alone',
      }),
    ),
    make.figure(
      'efficiency',
      'Efficiency',
      'efficiency',
      (x) => x.forward,
      () => ({
        formula: '1/(1 + Λ_t + Λ_g)',
        terms: [
          term('Λ_t', 'loss at the teeth', m.lossTeeth, 'efficiency', 'computed'),
          term('Λ_g', 'loss under the teeth’s push', m.lossGenerator, 'efficiency', 'computed'),
        ],
        source: 'under load; the no-load torque comes on top',
      }),
    ),
    ...partLoadFigures(make, m, at),
    make.figure(
      'back',
      'Efficiency, turned back',
      'efficiency',
      (x) => x.backward,
      () => ({
        formula: '1 − Λ',
        terms: [term('Λ', 'all losses', m.lossTeeth + m.lossGenerator, 'efficiency', 'computed')],
        source: 'the same losses, taken from what comes in at the output',
      }),
    ),
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
        formula:
          m.opens > 0
            ? '0: springs press the teeth down on both sides'
            : '(least ahead + least behind)/(R·cos β) + 2·s·tan β/R',
        terms: [
          term('c', 'least clearance', g.least, 'length', 'computed'),
          term('s', 'gap to the spline', p.slack, 'length', 'field', 'slack'),
          term('o', 'out of round', factor(shelf, 'wave.round'), 'length', 'shop', 'wave.round'),
        ],
        source: m.opens > 0 ? 'until the load pushes a lobe back' : 'teeth well in their spaces; none where they bind',
      }),
    ),
    ...(m.opens > 0
      ? sprungFigures(
          make,
          () => ({
            formula: 'F_s·n·R/tan β',
            terms: [tension, beta],
            source: 'wedge of the teeth: what the load pushes a lobe inwards by is as much as the springs',
          }),
          () => ({
            formula: 'loss of the teeth × T_opens + µ·n·F_s·r·i',
            terms: [tension, term('l', 'what sliding teeth lose', m.lossTeeth, 'efficiency', 'computed')],
            source:
              'both flanks of a lobe carry half of the push each, and the generator all of it, whatever the load is',
          }),
        )
      : []),
    bands('k1', 'Stiffness, lightly loaded', (x) => x.slopes[0], 0, m.bends[0]),
    bands('k2', 'Stiffness, midway', (x) => x.slopes[1], m.bends[0], m.bends[1]),
    bands('k3', 'Stiffness, near its limit', (x) => x.slopes[2], m.bends[1], m.bends[1] / 0.6),
    make.figure(
      'toothForce',
      'Worst tooth',
      'force',
      (x) => x.toothForce,
      () => ({
        formula: 'c·(φ·R·cos β − clearance)',
        terms: [T, beta],
        source: 'equilibrium of all teeth',
      }),
    ),
    make.figure(
      'radial',
      'Push off the ring, a lobe',
      'force',
      (x) => x.radial,
      () => ({
        formula: 'T/(n·R)·tan β',
        terms: [T, beta, lobes, R],
        source: 'what generator and ring must hold',
      }),
    ),
    make.figure(
      'rim',
      'Ring wall, bending',
      'stress',
      (x) => x.rimStress,
      () => ({
        formula: 'F_r·R/2·(n/π − 1/tan(π/n))·6/(b·t²)',
        terms: [
          term('F_r', 'push off the ring', m.radial, 'force', 'computed'),
          term('R', 'middle of its wall', (g.outside - p.ringWall) / 2, 'length', 'computed'),
          term('b', 'tooth width', p.width, 'length', 'field', 'width'),
          term('t', 'its wall', p.ringWall, 'length', 'field', 'ringWall'),
          lobes,
        ],
        source: 'thin ring under n even radial loads',
      }),
    ),
    make.figure(
      'rise',
      'Warming by flexing',
      'temperatureRise',
      (x) => x.rise,
      () => ({
        formula: m.rise > 0 ? 'T_f·ω/(h·A)' : '0',
        terms: [
          term('ω', 'speed of the generator against the spline', at.speed * passesOf(p), 'speed', 'brief'),
          term(
            'A',
            'surface, inside and out',
            4 * Math.PI * g.radius * (p.body === 'cup' ? p.cup : p.width),
            'area',
            'computed',
          ),
          term('T_f', 'flexing', m.dragFlex, 'torque', 'computed'),
          term('h', 'cooling', factor(shelf, 'wave.cooling'), 'count', 'shop', 'wave.cooling'),
        ],
        source: 'running continuously at the brief’s speed',
      }),
    ),
    make.figure(
      'errorOnce',
      'Error once a turn of the generator',
      'smallAngle',
      (x) => x.errorOnce,
      () => ({
        formula: 'e·min(1, e/h)/R',
        terms: [depth, R, term('e', 'off the middle', factor(shelf, 'wave.centre'), 'length', 'shop', 'wave.centre')],
        source: 'one lobe takes over from the other as it goes deeper; order 1 of the input',
      }),
    ),
    make.figure(
      'errorTwice',
      'Error twice a turn of the generator',
      'smallAngle',
      (x) => x.errorTwice,
      () => ({
        formula: 'e²/(2·h)/R',
        terms: [depth, R, term('e', 'off the middle', factor(shelf, 'wave.centre'), 'length', 'shop', 'wave.centre')],
        source: 'both lobes alike; order 2 of the input',
      }),
    ),
    exact('alignment', 'Alignment that clearance allows', 'length', m.alignment, () => ({
      formula: 'max(0, c)/max(0.05, sin β)',
      terms: [term('c', 'least clearance', g.least, 'length', 'computed'), beta],
      source: 'further off the middle teeth clash',
    })),
    exact('bore', 'Largest hollow bore', 'length', m.bore, () => ({
      formula: hasRollers(p)
        ? `inside the rollers, ${stated(1e-3, 'length')} left`
        : `inside the contour, ${stated(2.5e-3, 'length')} left`,
      terms: [term('D', 'bearing', m.bearing.bore, 'length', 'shop')],
      source: 'generator as drawn',
    })),
    ...(Number.isFinite(m.under.life)
      ? [
          make.figure(
            'life',
            'Life of the generator’s bearing',
            'life',
            (x) => x.under.life,
            () => ({
              formula: '(C/P)³·10⁶·2π/ω',
              terms: [
                term('C', 'dynamic rating', m.bearing.dynamic, 'force', 'shop'),
                term(
                  'P',
                  hasRollers(p) ? 'on the most pressed roller' : 'preload and the teeth’s push',
                  m.under.load,
                  'force',
                  'computed',
                ),
                term('ω', 'of its rings against one another', m.under.speed, 'speed', 'computed'),
              ],
              source: hasRollers(p)
                ? 'ISO 281; rollers turn faster than the generator by the spline’s inside over their own'
                : 'ISO 281; a ring that flexes lives shorter',
            }),
          ),
        ]
      : []),
    ...modeFigures(m.modes, make, (x) => x.modes, how),
    ...pieceFigures(
      make,
      {
        spline: m.costs.spline,
        ring: m.costs.ring,
        'second ring': m.costs.follow,
        generator: m.costs.generator,
        bearings: m.costs.bearing,
        springs: m.costs.springs,
      },
      {
        mass: 'volume times density of the shop’s materials',
        money: 'material by mass, work by tooth for milled parts',
      },
    ),
  ];
}
