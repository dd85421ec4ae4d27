import { arrivingShare } from '../stage/arriving.ts';
import { driveMass } from '../motor/driver.ts';
import type { Demand } from '../brief/demand.ts';
import { FigureMaker, term, type Figure, worked, workingOf } from '../figure/index.ts';
import type { Variant } from '../schema/joint.ts';
import { motorTorque } from '../motor/available.ts';
import type { Shelf } from '../shop/shelf.ts';
import { motorRoom, roomOf } from './extent.ts';
import type { LineNumbers } from './numbers.ts';
import { stated } from '../units/stated.ts';
import { samplePlay } from './play.ts';
import { ratiosAfter } from './sum.ts';

const EVER = {
  brushless: 'I²R·R_th = allowed rise, R at temperature',
  brushed: 'I²R·R_th = allowed rise, R at temperature',
  stepper: 'a stepper’s rated current is continuous',
  servo: 'rated torque of the data sheet',
} as const;
const HEAT = {
  brushless: 'T_amb + I²·R(T)·R_th',
  brushed: 'T_amb + I²·R(T)·R_th',
  stepper: 'T_amb + ΔT_rated·(I/I_r)²/2',
  servo: 'T_amb + ΔT_rated·(T/T_r)²',
} as const;
const LOSS = {
  brushless: 'line current through two phases at the warm winding; sine currents lose as much',
  brushed: 'terminal resistance',
  stepper: 'two phases, each at I/√2 root mean square, at the warm winding',
  servo: 'losses at the rated point by its efficiency, growing with the square of torque',
} as const;
const SUM = 'recursion over the stages from the motor to the output';

/** What is said of a speed that is not there in some draws. */
const notReached = (share: number): string =>
  `In ${Math.max(1, Math.round(100 * share))} of a hundred draws of what is not known the peak torque is not reached at ` +
  'the asked speed; the band is that of the others.';

/** Every figure of a line, with bands and workings. */
export function lineFigures(
  variant: Variant,
  demand: Demand,
  shelf: Shelf,
  n: LineNumbers,
  make: FigureMaker<LineNumbers>,
): Figure[] {
  const size = Math.abs(n.ratio);
  const around = n.aroundMass > 0;
  const at = n.governing?.speed ?? demand.speed;
  const motorSpeed = at * size;
  const cases =
    demand.cases.length > 1 || (n.governing && n.governing.torque !== demand.peak)
      ? [
          term(
            'governs',
            n.governing ? `${n.governing.name}, at ${stated(n.governing.speed, 'speed', 3)}` : 'no torque asked',
            n.governing?.torque ?? 0,
            'torque',
            'brief',
          ),
        ]
      : [];
  const t0 = motorTorque(variant.motor, variant.driver, shelf, motorSpeed, 'peak');
  const peak = term('T', 'peak torque asked', demand.peak, 'torque', 'brief');
  const speedsUp =
    n.accelerationStage < 0
      ? { torque: 'torque of the motor at the output', inertia: 'load, and rotor and line by the efficiency' }
      : {
          torque: `torque that stage ${n.accelerationStage + 1} carries, at the output`,
          inertia: `load, and what lies behind stage ${n.accelerationStage + 1}`,
        };
  const hold = term('T_h', 'holding torque asked', demand.hold, 'torque', 'brief');
  const arm = term('L', 'longest arm', demand.arm, 'length', 'brief');
  const per = (
    symbol: string,
    name: string,
    quantity: Figure['quantity'],
    pick: (s: LineNumbers['stages'][number], j: number) => number,
  ) =>
    n.stages.map((s, j) =>
      term(`${symbol}${j + 1}`, `${name}, stage ${j + 1}`, pick(s, j), quantity, 'computed', variant.stages[j]!.id),
    );
  const widths = () => {
    const [room, motor] = [roomOf(n.stages), motorRoom(variant.motor)];
    const more = [
      term('b', 'to the outside of what stands beside a stage', room.widthBeside(motor), 'length', 'computed'),
      term('x', 'to the end of what lies across the output', room.widthAcross(motor), 'length', 'computed'),
    ].filter((t) => t.value > 0);
    return [
      term('motor', 'frame', motor.frame, 'length', 'motor'),
      ...per('s', 'outside', 'length', (s) => s.outside),
      ...more,
    ];
  };
  const ratios = per('i', 'ratio', 'ratio', (s) => s.ratio);
  const etas = per('η', 'efficiency', 'efficiency', arrivingShare);
  const drags = per('d', 'drag at the input', 'torque', (s) => s.drag);
  const band = samplePlay(
    n.stages,
    n.stages.map((s) => s.play),
  );
  const after = ratiosAfter(n.stages);
  const fast = make.reached(
    'speed',
    'Speed',
    'speed',
    (x) => x.speed,
    (x) => x.reach / demand.peak,
    (missed) => ({
      formula: 'highest ω with reach(ω) ≥ T',
      terms: [peak, term('ω', 'asked', demand.speed, 'speed', 'brief'), ...ratios],
      source: 'bisection on the motor’s curve after ratio and losses',
      ...(n.speed === 0
        ? { note: 'The peak torque is not reached at any speed.' }
        : missed > 0
          ? {
              note: notReached(missed),
            }
          : {}),
    }),
  );
  const list: Figure[] = [
    make.figure(
      'ratio',
      'Ratio',
      'ratio',
      (x) => x.ratio,
      () => ({
        formula: 'Π iⱼ',
        terms: ratios,
        source: 'definition',
        note: n.ratio < 0 ? 'The output turns against the motor.' : 'The output turns with the motor.',
      }),
    ),
    make.least(
      'torque',
      'Torque, lifting',
      'torque',
      (x) => x.torque,
      (x) => [x.reach, ...x.capacities],
      () => ({
        formula: 'min(motor’s reach, capacity)',
        terms: [
          term('T_m', `motor at ${stated(motorSpeed, 'speed', 4)}, ${t0.bound}`, t0.torque, 'torque', 'motor'),
          ...cases,
          term('reach', 'motor’s reach at the output', n.reach, 'torque', 'computed'),
          ...(Number.isFinite(n.capacity)
            ? [term('capacity', `${n.capacityMode}, stage ${n.capacityStage + 1}`, n.capacity, 'torque', 'computed')]
            : []),
          ...ratios,
          ...etas,
          ...drags,
        ],
        source: 'Tⱼ = (Tⱼ₋₁ − dⱼ)·|iⱼ|·ηⱼ from the motor; the least stage limit carried through what follows',
      }),
    ),
    make.figure(
      'reach',
      'Reach at the asked speed',
      'torque',
      (x) => x.reach,
      () => ({
        formula: 'Tⱼ = (Tⱼ₋₁ − dⱼ)·|iⱼ|·ηⱼ',
        terms: [
          term('T₀', `motor, bound by ${t0.bound}`, t0.torque, 'torque', 'motor'),
          ...cases,
          ...ratios,
          ...etas,
          ...drags,
        ],
        source: SUM,
        ...(cases.length
          ? {
              note: 'Several points are asked; the one in which reach over torque is least decides, scaled to the peak.',
            }
          : {}),
      }),
    ),
    make.figure(
      'continuous',
      'Reach, continuous',
      'torque',
      (x) => x.continuousReach,
      () => ({
        formula: 'as the reach, with the motor’s continuous torque',
        terms: [...ratios, ...etas],
        source: EVER[variant.motor.type],
      }),
    ),
    fast.figure,
    ...(Number.isFinite(n.startStop)
      ? [
          make.figure(
            'startStop',
            'Start–stop speed',
            'speed',
            (x) => x.startStop,
            () => ({
              formula: '√(2·(T − T_load)·θ_s/(J/|i|² + J_l/(|i|²·η)))/|i|',
              terms: [
                term(
                  'T_load',
                  'motor torque for the peak without its acceleration',
                  n.steadyNeeded,
                  'torque',
                  'computed',
                ),
                term('J', 'rotor and line, at the output', n.inertiaLine, 'inertia', 'computed'),
                term('J_l', 'load', demand.inertia, 'inertia', 'brief'),
                ...ratios,
              ],
              source: 'work of the torque left over a full step against the energy of what turns',
              note: 'Above it a stepper needs a ramp; without one it loses steps. Where within its band the motor does not lift the load, the band has no lower end.',
            }),
          ),
        ]
      : []),
    worked(
      { id: 'play', name: 'Play', quantity: 'smallAngle', value: band.likely, low: band.low, high: band.high },
      () => ({
        formula: 'Σ bⱼ/|Dⱼ|, sampled',
        terms: [
          ...per('b', 'play at its own output', 'smallAngle', (s) => s.play[0]),
          ...per('D', 'ratio that follows', 'ratio', (_s, j) => after[j]!),
          term('worst', 'everything loose at once', band.worst, 'smallAngle', 'computed'),
        ],
        source: 'each stage drawn from a triangle between its ends, 600 draws, seed 1; band 2.5–97.5 %',
        note: 'Play never includes wind-up.',
      }),
    ),
    worked(
      {
        id: 'playWorst',
        name: 'Play, worst case',
        quantity: 'smallAngle',
        value: band.worst,
        low: band.worst,
        high: band.worst,
      },
      () => ({
        formula: 'Σ bⱼ/|Dⱼ|',
        terms: [
          ...per('b', 'most play at its own output', 'smallAngle', (s) => s.play[2]),
          ...per('D', 'ratio that follows', 'ratio', (_s, j) => after[j]!),
        ],
        source: 'everything loose at once; it hardly ever is',
      }),
    ),
    make.figure(
      'efficiency',
      'Efficiency, peak',
      'efficiency',
      (x) => x.efficiency,
      () => ({
        formula: 'Tₙ/(T₀·Π|iⱼ|)',
        terms: [
          peak,
          term('T₀', 'motor torque for it', n.motorNeeded - n.spinNeeded, 'torque', 'computed'),
          ...etas,
          ...drags,
        ],
        source: SUM,
        note:
          'It depends on the load, since drag does not shrink with it.' +
          (n.stages.some((s) => s.branched) ? ' What branches take off is no loss, but does not arrive here.' : ''),
      }),
    ),
    make.figure(
      'motorRms',
      'Motor, RMS',
      'torque',
      (x) => x.motorRms,
      () => ({
        formula: '√(mean of (T/(|i|·η) + d + i·α·J)²) over the cycle',
        terms: [
          term('T_rms', 'RMS torque asked', demand.rms, 'torque', 'brief'),
          term('J', 'rotor and stages, at the output', n.inertiaLine, 'inertia', 'computed'),
          ...ratios,
          ...etas,
          ...drags,
        ],
        source: `${SUM}; i·α·J speeds up rotor and stages`,
      }),
    ),
    make.figure(
      'motorNeeded',
      'Motor needed',
      'torque',
      (x) => x.motorNeeded,
      () => ({
        formula: 'T/(|i|·η) + d, from the output back, and i·α·J',
        terms: [
          peak,
          term('i·α·J', 'of it for speeding up rotor and stages', n.spinNeeded, 'torque', 'computed'),
          ...ratios,
          ...etas,
          ...drags,
        ],
        source: `${SUM}; Newton on the motor’s shaft for what turns before the output`,
        note: 'Of the points of the brief the one that asks most of the motor.',
      }),
    ),
    ...(Number.isFinite(n.accelerates)
      ? [
          make.figure(
            'accelerates',
            'Accelerates the output by',
            'acceleration',
            (x) => x.accelerates,
            () => ({
              formula: '(reach − (T − J_l·α))/(J_l + |i|·η·J/|i|)',
              terms: [
                peak,
                term('α', 'acceleration asked', n.accelerationAsked, 'acceleration', 'brief'),
                term('J_l', 'load', demand.inertia, 'inertia', 'brief'),
                term('J', 'rotor and stages, at the output', n.inertiaLine, 'inertia', 'computed'),
                ...ratios,
              ],
              source: 'what the motor has left at the peak, on load, rotor and stages',
            }),
          ),
        ]
      : []),
    make.figure(
      'turnBack',
      'Turn-back',
      'torque',
      (x) => x.turnBack,
      () => ({
        formula: 'Tⱼ = (Tⱼ₋₁ + dⱼ)·|iⱼ|/η_b,ⱼ',
        terms: [
          term('T₀', 'unpowered motor', variant.motor.detentTorque, 'torque', 'motor', 'detentTorque'),
          ...ratios,
          ...per('η_b', 'backward efficiency', 'efficiency', (s) => s.etaBackward),
          ...drags,
        ],
        source: SUM,
        note: 'Where friction within its band locks a mesh, the line holds altogether: the band has no upper end then.',
      }),
    ),
    make.figure(
      'inertia',
      'Inertia at the output',
      'inertia',
      (x) => x.inertiaLine,
      () => ({
        formula: 'Σ Jⱼ·(ratio to the output)²',
        terms: [
          term('J_m', 'rotor', variant.motor.rotorInertia, 'inertia', 'motor', 'rotorInertia'),
          term('share', 'share of the rotor', n.rotorShare, 'efficiency', 'computed'),
          ...(n.linkInertia > 0
            ? [term('J_l', 'shafts and hubs of the housing, at the output', n.linkInertia, 'inertia', 'computed')]
            : []),
          ...ratios,
        ],
        source: 'kinetic energy referred to the output',
        note: `${dominant(demand, n)} dominates what has to be sped up.`,
      }),
    ),
    ...(Number.isFinite(n.inertiaMatch)
      ? [
          make.figure(
            'inertiaMatch',
            'Load to rotor inertia',
            'ratio',
            (x) => x.inertiaMatch,
            () => ({
              formula: 'J_load/(J_m·i²)',
              terms: [
                term('J_load', 'load', demand.inertia, 'inertia', 'brief'),
                term('J_m', 'rotor', variant.motor.rotorInertia, 'inertia', 'motor', 'rotorInertia'),
                ...ratios,
              ],
              source: 'at one to one the motor speeds the load up most; above ten a position loop is hard to tune',
            }),
          ),
        ]
      : []),
    make.figure(
      'acceleration',
      'Acceleration left',
      'acceleration',
      (x) => x.acceleration,
      () => ({
        formula: '(T − T_h − T_f)/J',
        terms: [
          term('T', speedsUp.torque, n.accelerationTorque, 'torque', 'computed'),
          hold,
          term('T_f', 'friction of the load', demand.friction, 'torque', 'brief'),
          term('J', speedsUp.inertia, n.accelerationInertia, 'inertia', 'computed'),
        ],
        source: 'Newton for rotation; the least that the motor or a stage lets',
      }),
    ),
    make.figure(
      'moveTime',
      'Fastest move',
      'time',
      (x) => x.moveTime,
      () => ({
        formula: 'trapezoid over the brief’s widest move with the acceleration left and the speed reached',
        terms: [
          term('φ', 'widest move', demand.swing, 'angle', 'brief'),
          term('a', 'acceleration left', n.acceleration, 'acceleration', 'computed'),
          term('ω', 'speed', n.speed, 'speed', 'computed'),
        ],
        source: 'rest to rest',
      }),
    ),
    make.figure(
      'size',
      'Outside size',
      'length',
      (x) => x.size,
      () => ({
        formula: around
          ? 'longest side of the housing, screws’ bosses included'
          : 'largest across the axis of motor, stages, and what stands beside or across them',
        terms: around ? [] : widths(),
        source: 'geometry',
      }),
    ),
    make.figure(
      'length',
      'Length',
      'length',
      (x) => x.length,
      () => ({
        formula: around
          ? 'from the motor’s end to the cover’s face'
          : roomOf(n.stages).crosses
            ? 'stages from where power turns aside, and half of what lies across them on either side'
            : 'motor + stages',
        terms: [
          term('motor', 'length', variant.motor.length, 'length', 'motor'),
          ...per('l', 'length', 'length', (s) => s.length),
        ],
        source: around
          ? 'the line as it stands, plates and gaps between'
          : 'stages side by side along the axis; a folded line is shorter',
      }),
    ),
    make.figure(
      'mass',
      'Mass',
      'mass',
      (x) => x.mass,
      () => ({
        formula: around ? 'motor, driver, sensors + stages + housing' : 'motor, driver, sensors + stages',
        terms: [
          term('motor', 'mass', variant.motor.mass, 'mass', 'motor'),
          ...(driveMass(variant.driver) > 0
            ? [term('driver', 'mass', driveMass(variant.driver), 'mass', 'motor')]
            : []),
          ...(n.sensorMass > 0 ? [term('sensors', 'mass', n.sensorMass, 'mass', 'computed')] : []),
          ...per('m', 'mass', 'mass', (s) => s.mass),
          ...(around ? [term('h', 'housing, shafts, bearings, screws', n.aroundMass, 'mass', 'computed')] : []),
        ],
        source: around ? 'every part of the line' : 'without housing and screws',
      }),
    ),
    make.figure(
      'money',
      'Money',
      'money',
      (x) => x.money,
      () => ({
        formula: [
          'motor',
          ...(variant.driver.unit || variant.driver.supply ? ['driver', 'supply'] : []),
          ...(n.sensorMoney > 0 ? ['sensors'] : []),
          'stages',
          ...(around ? ['housing'] : []),
        ].join(' + '),
        terms: [
          term('motor', 'price', variant.motor.price, 'money', 'motor'),
          ...(variant.driver.unit ? [term('driver', 'price', variant.driver.unit.price, 'money', 'motor')] : []),
          ...(variant.driver.supply ? [term('supply', 'price', variant.driver.supply.price, 'money', 'motor')] : []),
          ...(n.sensorMoney > 0 ? [term('sensors', 'price', n.sensorMoney, 'money', 'computed')] : []),
          ...per('C', 'price', 'money', (s) => s.money),
          ...(around ? [term('h', 'housing, shafts, bearings, screws', n.aroundMoney, 'money', 'computed')] : []),
        ],
        source: `prices of the shop; without ${[...(variant.driver.unit ? [] : ['driver']), ...(around ? ['the work'] : ['housing and screws'])].join(', ')}`,
      }),
    ),
    make.figure(
      'copperLoss',
      'Winding heat',
      'power',
      (x) => x.copperLoss,
      () => ({
        formula: variant.motor.type === 'servo' ? 'P_r·(1/η − 1)·(T/T_r)²' : 'I²·R',
        terms: [
          term('I', 'current', n.motorCurrent, 'current', 'computed'),
          ...(variant.motor.type === 'servo'
            ? [
                term('T_r', 'rated torque', variant.motor.ratedTorque, 'torque', 'motor', 'ratedTorque'),
                term('η', 'efficiency, rated', variant.motor.efficiency, 'efficiency', 'motor', 'efficiency'),
              ]
            : [term('R', 'resistance', variant.motor.resistance, 'resistance', 'motor', 'resistance')]),
        ],
        source: LOSS[variant.motor.type],
      }),
    ),
    make.figure(
      'winding',
      'Winding, continuous',
      'temperature',
      (x) => x.windingTemperature,
      () => ({
        formula: HEAT[variant.motor.type],
        terms: [term('T', 'motor torque, RMS', n.motorRms, 'torque', 'computed')],
        source: 'thermal resistance of the data sheet, resistance at temperature',
        note: 'Once it has settled; cool drafts and metal plates help.',
      }),
    ),
    make.figure(
      'mount',
      'Mount, continuous',
      'temperature',
      (x) => x.mountTemperature,
      () => ({
        formula: 'T_ambient + share·ΔT',
        terms: [
          term('T_w', 'winding', n.windingTemperature, 'temperature', 'computed'),
          ...(variant.mount
            ? [term('T_s', `${variant.mount.name} softens`, variant.mount.softening, 'temperature', 'shop')]
            : []),
        ],
        source: 'the face takes a share of the winding’s rise (a factor)',
      }),
    ),
    ...(variant.driver.unit && Number.isFinite(n.driverTemperature)
      ? [
          make.figure(
            'driverTemperature',
            'Driver, continuous',
            'temperature',
            (x) => x.driverTemperature,
            () => ({
              formula: 'T_ambient + (P₀ + I²·R)·R_th',
              terms: [
                term('P₀', 'its own use', variant.driver.unit!.idle, 'power', 'motor'),
                term(
                  'R',
                  'of the two switches a current passes',
                  variant.driver.unit!.resistance,
                  'resistance',
                  'motor',
                ),
                term('R_th', 'driver to air', variant.driver.unit!.thermalResistance, 'thermalResistance', 'motor'),
              ],
              source: 'I of the RMS torque; a stepper’s amplitude whatever the load',
            }),
          ),
        ]
      : []),
    ...(n.powerBack > 0
      ? [
          make.figure(
            'powerBack',
            'Power given back, at most',
            'power',
            (x) => x.powerBack,
            () => ({
              formula: 'T·ω − I²·R − P_driver, T = T_h·η_b/|i| − d with what is stopped',
              terms: [
                hold,
                term('ω', 'highest speed asked', demand.speed, 'speed', 'brief'),
                ...ratios,
                ...per('η_b', 'backward efficiency', 'efficiency', (s) => s.etaBackward),
                ...drags,
              ],
              source: 'balance of power at the motor while the load goes down and is stopped, winding cold',
              note: 'A supply that cannot take it back lets its voltage rise; a battery takes it, a brake resistor burns it.',
            }),
          ),
        ]
      : []),
    make.figure(
      'bore',
      'Hollow bore',
      'length',
      (x) => x.bore,
      () => ({
        formula: 'least passage from the output back to where the line turns aside',
        terms: per('⌀', 'passage', 'length', (s) => s.bore),
        source: 'geometry; a motor in line blocks it',
      }),
    ),
  ];
  if (n.stages.length > 0) {
    const k = make.figure(
      'stiffness',
      'Stiffness',
      'stiffness',
      (x) => x.stiffness,
      () => ({
        formula: '1/k = Σ 1/(kⱼ·Dⱼ²)',
        terms: [
          ...per('k', 'stiffness at its own output', 'stiffness', (s) => s.stiffness),
          ...per('D', 'ratio that follows', 'ratio', (_s, j) => after[j]!),
          ...(Number.isFinite(n.shaftStiffness)
            ? [term('k_s', 'output shaft, G·I_p/L', n.shaftStiffness, 'stiffness', 'computed')]
            : []),
          ...(Number.isFinite(n.linkStiffness)
            ? [
                term(
                  'k_l',
                  'shafts between stages, and blocks that bear one that comes in across, seen at the output: 1/Σ 1/(k·D²)',
                  n.linkStiffness,
                  'stiffness',
                  'computed',
                ),
              ]
            : []),
        ],
        source: 'springs in series, referred to the output',
        note: 'With every span taut.',
      }),
    );
    const tipOf = (
      id: string,
      name: string,
      from: { value: number; low: number; high: number },
      formula: string,
      symbol: string,
    ): Figure =>
      worked(
        {
          id,
          name,
          quantity: 'length',
          value: from.value * demand.arm,
          low: from.low * demand.arm,
          high: from.high * demand.arm,
        },
        () => ({
          formula,
          terms: [term(symbol, name.toLowerCase(), from.value, 'smallAngle', 'computed'), arm],
          source: 'small angles',
        }),
      );
    const wind = make.figure(
      'windUp',
      'Wind-up, holding',
      'smallAngle',
      (x) => x.windUpHold,
      () => ({
        formula: 'Σ θⱼ(T_h/Dⱼ)/Dⱼ',
        terms: [hold, term('k', 'stiffness', n.stiffness, 'stiffness', 'computed')],
        source: 'two-slope springs in series: a slack span drops out; plastics creep for a thousand hours (E·t^−n)',
        note: 'Told for a load that stays. A bench that measures it at once finds less.',
      }),
    );
    const sag = make.figure(
      'sag',
      'Sag on the output bearings',
      'length',
      (x) => x.sag,
      () => ({
        formula:
          (variant.output?.arrangement ?? 'pair') === 'pair'
            ? 'R₁/k + θ·a, θ = (R₁ + R₂)/(k·s)'
            : 'F/k + θ·a, θ = (F·a + M)/k_tilt',
        terms: [
          term('k_tilt', 'against tilting', n.tiltStiffness, 'stiffness', 'computed'),
          term('θ', 'tilt under the load', n.tilt, 'smallAngle', 'computed'),
          ...(variant.output ? [term('a', 'load overhangs', variant.output.overhang, 'length', 'field')] : []),
        ],
        source: 'bearings and their seats as springs, in the plane of the load',
        note: 'The shaft itself is taken as rigid against bending.',
      }),
    );
    const tipValue = (band.likely + wind.value) * demand.arm + sag.value;
    const spread = (a: number, b: number, c: number) => Math.hypot(a * demand.arm, b * demand.arm, c);
    list.push(
      k,
      wind,
      make.figure(
        'windUpPeak',
        'Wind-up at the peak',
        'smallAngle',
        (x) => x.windUpPeak,
        () => ({
          formula: 'Σ θⱼ(T/Dⱼ)/Dⱼ',
          terms: [peak, term('k', 'stiffness', n.stiffness, 'stiffness', 'computed')],
          source: 'two-slope springs in series',
        }),
      ),
    );
    list.push(
      worked(
        {
          id: 'tip',
          name: 'Tip deflection',
          quantity: 'length',
          value: tipValue,
          low: Math.max(0, tipValue - spread(band.likely - band.low, wind.value - wind.low, sag.value - sag.low)),
          high: tipValue + spread(band.high - band.likely, wind.high - wind.value, sag.high - sag.value),
        },
        () => ({
          formula: sag.value > 0 ? '(play + wind-up)·L + sag' : '(play + wind-up)·L',
          terms: [
            ...(sag.value > 0
              ? [term('sag', 'of the load on the output bearings', sag.value, 'length', 'computed')]
              : []),
            term('play', 'play', band.likely, 'smallAngle', 'computed'),
            term('θ', 'wind-up under the holding torque', wind.value, 'smallAngle', 'computed'),
            arm,
          ],
          source: 'small angles',
        }),
      ),
    );
    if (demand.arm > 0)
      list.push(
        tipOf('tipPlay', 'Play at the tip', { value: band.likely, low: band.low, high: band.high }, 'play·L', 'play'),
        tipOf('tipWindUp', 'Wind-up at the tip', wind, 'T_h/k·L', 'θ'),
      );
    if (sag.value > 0)
      list.push(
        sag,
        make.figure(
          'tiltStiffness',
          'Stiffness against tilting',
          'stiffness',
          (x) => x.tiltStiffness,
          () => ({
            formula: (variant.output?.arrangement ?? 'pair') === 'pair' ? 'k·s²/2' : 'k·d²/8',
            terms: [
              ...(variant.output ? [term('s', 'between bearings', variant.output.span, 'length', 'field')] : []),
              term('θ', 'tilt under the load', n.tilt, 'smallAngle', 'computed'),
            ],
            source: 'output bearings and their seats as springs',
          }),
        ),
        ...(demand.arm > 0
          ? [
              make.figure(
                'tiltTip',
                'Tip, sideways by tilting, at most',
                'length',
                (x) => x.tilt * demand.arm,
                () => ({
                  formula: 'θ·L',
                  terms: [term('θ', 'tilt under the load', n.tilt, 'smallAngle', 'computed'), arm],
                  source: 'small angles; along the output axis, where the arm stands in the plane of the tilt',
                }),
              ),
            ]
          : []),
      );
    if (Number.isFinite(n.naturalFrequency))
      list.push(
        make.figure(
          'natural',
          'Natural frequency',
          'frequency',
          (x) => x.naturalFrequency,
          () => ({
            formula: '√(k/J_load)/2π',
            terms: [
              term('k', 'stiffness', n.stiffness, 'stiffness', 'computed'),
              term('J_load', 'load', demand.inertia, 'inertia', 'brief'),
            ],
            source: 'one mass on the line’s stiffness, motor held',
          }),
        ),
      );
  }
  if (Number.isFinite(n.capacity))
    list.push(
      make.least(
        'capacity',
        'Capacity of the stages',
        'torque',
        (x) => x.capacity,
        (x) => x.capacities,
        () => ({
          formula: `min over stages and modes of limitⱼ carried through what follows${n.heldBack ? ', as warm as that load makes them' : ''}`,
          terms: [
            term('limit', `${n.capacityMode}, stage ${n.capacityStage + 1}`, n.capacityLimit, 'torque', 'computed'),
            ...ratios,
          ],
          source: SUM,
        }),
      ),
    );
  const r = n.resolution;
  const steps =
    variant.motor.type === 'stepper'
      ? [
          term('steps', 'full steps per turn', variant.motor.stepsPerTurn, 'count', 'motor'),
          term('n', 'microsteps', variant.driver.microsteps, 'count', 'field'),
        ]
      : [term('counts', 'counts per turn', variant.sensor.counts, 'count', 'field')];
  if (Number.isFinite(r.commanded))
    list.push(
      make.figure(
        'commanded',
        'Commanded step',
        'smallAngle',
        (x) => x.resolution.commanded,
        () => ({
          formula: variant.motor.type === 'stepper' ? '2π/(steps·microsteps·|i|)' : '2π/(counts·|i|)',
          terms: [...steps, ...ratios],
          source: 'definition',
          note: 'Microsteps resolve; they do not hold.',
        }),
      ),
    );
  if (variant.motor.type === 'stepper' && Number.isFinite(r.moved))
    list.push(
      make.figure(
        'moved',
        'Smallest move made',
        'smallAngle',
        (x) => x.resolution.moved,
        () => ({
          formula: 'commanded·m with T_hold·sin(π·m/2n) ≥ drag',
          terms: [...steps, term('m', 'microsteps that gather', r.gathered, 'count', 'computed'), ...drags],
          source: 'torque of a stepper over its rotor’s angle',
          note: 'Fewer wind the magnetic spring up and move nothing.',
        }),
      ),
    );
  if (Number.isFinite(r.sensedMotor))
    list.push(
      make.figure(
        'sensedMotor',
        'Sensed at the motor',
        'smallAngle',
        (x) => x.resolution.sensedMotor,
        () => ({
          formula: '2π/(counts·|i|)',
          terms: [term('counts', 'counts per turn', variant.sensor.counts, 'count', 'field'), ...ratios],
          source: 'definition',
        }),
      ),
    );
  if (Number.isFinite(r.sensedOutput))
    list.push(
      make.figure(
        'sensedOutput',
        'Sensed at the output',
        'smallAngle',
        (x) => x.resolution.sensedOutput,
        () => ({
          formula: '2π/counts',
          terms: [
            term(
              'counts',
              'counts per turn',
              variant.sensor.place === 'both' ? variant.sensor.outputCounts : variant.sensor.counts,
              'count',
              'field',
            ),
          ],
          source: 'definition',
        }),
      ),
    );
  const parts = [
    term('moved', 'smallest move', r.moved, 'smallAngle', 'computed'),
    term('stick', 'wind-up that friction holds', r.stick, 'smallAngle', 'computed'),
  ].filter((t) => Number.isFinite(t.value));
  const withPlay = (f: Figure, formula: string): Figure =>
    worked(
      {
        ...f,
        value: f.value + band.likely,
        low: Math.max(0, f.value + band.likely - Math.hypot(f.value - f.low, band.likely - band.low)),
        high: f.value + band.likely + Math.hypot(f.high - f.value, band.high - band.likely),
      },
      () => ({ ...workingOf(f)!, formula }),
    );
  const play = term('play', 'play', band.likely, 'smallAngle', 'computed');
  const keptMotor = Number.isFinite(r.keptMotor)
    ? withPlay(
        make.figure(
          'keptMotor',
          'Kept, sensor at the motor',
          'smallAngle',
          (x) => x.resolution.keptMotor,
          () => ({
            formula: '',
            terms: [
              ...parts,
              play,
              ...(variant.motor.type === 'stepper'
                ? [term('e', 'step error', r.stepError, 'smallAngle', 'computed')]
                : []),
            ],
            source: 'what is behind the sensor is not seen: play, wind-up held by friction, step error',
            note: 'Under a load that always pulls one way play is taken up; wind-up still moves the tip.',
          }),
        ),
        'coarser of moved and sensed + friction/k + step error + play',
      )
    : undefined;
  const keptOutput = Number.isFinite(r.keptOutput)
    ? make.figure(
        'keptOutput',
        'Kept, sensor at the output',
        'smallAngle',
        (x) => x.resolution.keptOutput,
        () => ({
          formula: 'coarser of moved and sensed + friction/k + sensor error',
          terms: [
            ...parts,
            term('s', 'sensed', r.sensedOutput, 'smallAngle', 'computed'),
            term('e', 'sensor error and noise', r.sensorError, 'smallAngle', 'computed'),
          ],
          source: 'an output-side sensor sees play and wind-up; what sticks and its own error remain',
        }),
      )
    : undefined;
  if (keptMotor) list.push(keptMotor);
  if (keptOutput) list.push(keptOutput);
  const best = keptOutput ?? keptMotor;
  if (best) {
    list.push(worked({ ...best, id: 'resolution', name: 'Resolution kept' }, () => workingOf(best)!));
    if (demand.arm > 0)
      list.push(
        worked(
          {
            id: 'resolutionTip',
            name: 'Kept at the tip',
            quantity: 'length',
            value: best.value * demand.arm,
            low: best.low * demand.arm,
            high: best.high * demand.arm,
          },
          () => ({
            formula: 'kept·L',
            terms: [term('kept', best.name.toLowerCase(), best.value, 'smallAngle', 'computed'), arm],
            source: 'small angles',
          }),
        ),
      );
    const repeat = make.figure(
      'repeatability',
      'Repeatability',
      'smallAngle',
      (x) =>
        2 * x.resolution.stick +
        (keptOutput ? x.resolution.sensedOutput + variant.sensor.noise : x.resolution.moved || 0),
      () => ({
        formula: '2·friction/k + step',
        terms: [...parts, ...(keptOutput ? [term('s', 'sensed', r.sensedOutput, 'smallAngle', 'computed')] : [play])],
        source: 'sent to one place from either side (after ISO 230-2, without its statistics)',
      }),
    );
    list.push(keptOutput ? repeat : withPlay(repeat, 'play + 2·friction/k + step'));
  }
  if (Number.isFinite(n.life))
    list.push(
      make.least(
        'life',
        'Life',
        'life',
        (x) => x.life,
        (x) => x.lives,
        () => ({
          formula: 'shortest of what tires, wears or has a rated life',
          terms: [
            term(
              'first',
              n.lifeStage < 0 ? n.lifeMode : `${n.lifeMode}, stage ${n.lifeStage + 1}`,
              n.life,
              'life',
              'computed',
            ),
            ...per('L', 'life', 'life', (s) => s.life).filter((t) => Number.isFinite(t.value)),
            term('T_eq', 'equivalent torque', demand.equivalent, 'torque', 'brief'),
            term('ω_m', 'mean speed', demand.meanSpeed, 'speed', 'brief'),
            ...(Number.isFinite(n.bearingLoad)
              ? [term('P', 'load on the output bearing', n.bearingLoad, 'force', 'computed')]
              : []),
          ],
          source:
            'wear and fatigue of teeth and walls at the equivalent torque; ISO 281: L10 of bearings; rated units by the exponent 10/3',
          note: 'Belts and brushes have no life here; beyond some ten years grease and seals come first.',
        }),
      ),
    );
  return list.filter((f) => Number.isFinite(f.value));
}

/** Which inertia has the largest part of what has to be sped up. */
function dominant(demand: Demand, n: LineNumbers): string {
  const rotor = n.rotorShare * n.inertiaLine;
  const stages = n.inertiaLine - rotor;
  const all = demand.inertia + n.inertiaLine;
  const [name, most] = (
    [
      ['The load', demand.inertia],
      ['The rotor', rotor],
      ['What turns in the stages', stages],
    ] as const
  ).reduce((a, b) => (b[1] > a[1] ? b : a));
  return `${name} (${all > 0 ? ((100 * most) / all).toFixed(0) : 0} %)`;
}
