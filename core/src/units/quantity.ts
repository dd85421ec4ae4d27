import { CURRENCIES } from './currency.ts';

/** The kinds of quantity that Gristmill speaks of, each with its coherent SI unit and the units people type. */
export type QuantityId =
  | 'torque'
  | 'angle'
  | 'smallAngle'
  | 'length'
  | 'smallLength'
  | 'force'
  | 'mass'
  | 'speed'
  | 'linearSpeed'
  | 'acceleration'
  | 'inertia'
  | 'stiffness'
  | 'speedConstant'
  | 'current'
  | 'voltage'
  | 'resistance'
  | 'inductance'
  | 'capacitance'
  | 'power'
  | 'time'
  | 'frequency'
  | 'money'
  | 'ratio'
  | 'efficiency'
  | 'count'
  | 'temperature'
  | 'thermalResistance'
  | 'gravity'
  | 'forcePerWidth'
  | 'stiffnessPerWidth'
  | 'massPerLengthWidth'
  | 'density'
  | 'damping'
  | 'jerk'
  | 'linearAcceleration'
  | 'linearJerk'
  | 'stress'
  | 'life'
  | 'pricePerMass'
  | 'temperatureRise'
  | 'torqueConstant'
  | 'stiffnessPerLength'
  | 'pressureSpeed'
  | 'area'
  | 'wear';

export interface Unit {
  /** As written on screen. */
  readonly symbol: string;
  /** SI units in one of this unit. */
  readonly factor: number;
  /** SI value of zero on this unit's scale (only temperatures have one). */
  readonly offset?: number;
  /** Other spellings that people type, matched after `tidyUnit`. */
  readonly also?: readonly string[];
}

export interface Quantity {
  readonly id: QuantityId;
  readonly name: string;
  /** The first unit is the SI one. */
  readonly units: readonly Unit[];
  /** The unit shown until the reader chooses another. */
  readonly shown: string;
  /**
   * SI value beyond which a computed figure says only that it is beyond: a bearing of the rating tables outlives
   * everything round it.
   */
  readonly beyond?: number;
  /** SI value beneath which it says only that it is. */
  readonly beneath?: number;
}

const KGF = 9.80665;
const LBF = 4.4482216152605;
const INCH = 0.0254;
const OUNCE = 0.028349523125;
const POUND = 0.45359237;
const TAU = 2 * Math.PI;

const u = (symbol: string, factor: number, ...also: string[]): Unit => ({ symbol, factor, also });
const ANGLES: readonly Unit[] = [
  u('rad', 1),
  u('mrad', 1e-3),
  u('°', Math.PI / 180, 'deg', 'degree', 'degrees'),
  u('′', Math.PI / 10800, "'", 'arcmin', '’'),
  u('″', Math.PI / 648000, '"', "''", 'arcsec', '”'),
  u('rev', TAU, 'turn', 'turns'),
];
const LENGTHS: readonly Unit[] = [
  u('m', 1),
  u('mm', 1e-3),
  u('cm', 1e-2),
  u('µm', 1e-6, 'um', 'micron'),
  u('in', INCH, '"', '″', 'inch'),
  u('ft', 12 * INCH),
];
const q = (id: QuantityId, name: string, shown: string, ...units: Unit[]): Quantity => ({ id, name, shown, units });

/**
 * Conversion factors: kgf, lbf, inch, pound and ounce are exact by definition (ISO 80000-4; international yard and
 * pound).
 */
export const QUANTITIES: Readonly<Record<QuantityId, Quantity>> = {
  torque: q(
    'torque',
    'torque',
    'N·m',
    u('N·m', 1, 'Nm', 'newton metre'),
    u('mN·m', 1e-3, 'mNm'),
    u('N·cm', 1e-2, 'Ncm'),
    u('kgf·cm', KGF * 1e-2, 'kgfcm', 'kp·cm'),
    u('kgf·m', KGF, 'kgfm', 'kp·m'),
    u('gf·cm', KGF * 1e-5, 'gfcm'),
    u('ozf·in', (LBF / 16) * INCH, 'ozfin'),
    u('lbf·in', LBF * INCH, 'lbfin', 'in·lbf'),
    u('lbf·ft', LBF * 12 * INCH, 'lbfft', 'ft·lbf'),
  ),
  angle: q('angle', 'angle', '°', ...ANGLES),
  /** Play, wind-up and resolution: the same units, shown in minutes of arc. */
  smallAngle: q('smallAngle', 'small angle', '′', ...ANGLES),
  length: q('length', 'length', 'mm', ...LENGTHS),
  /** Play and repeatability of what runs straight: the same units as lengths, shown in micrometres. */
  smallLength: q('smallLength', 'small length', 'µm', ...LENGTHS),
  force: q(
    'force',
    'force',
    'N',
    u('N', 1),
    u('kN', 1e3),
    u('kgf', KGF, 'kp'),
    u('gf', KGF * 1e-3),
    u('lbf', LBF),
    u('ozf', LBF / 16),
  ),
  mass: q('mass', 'mass', 'kg', u('kg', 1), u('g', 1e-3), u('t', 1000), u('lb', POUND, 'lbs', 'lbm'), u('oz', OUNCE)),
  speed: q(
    'speed',
    'rotational speed',
    'rpm',
    u('rad/s', 1),
    u('rpm', TAU / 60, 'rev/min', '1/min', 'min-1'),
    u('rev/s', TAU, 'rps', 'Hz'),
    u('°/s', Math.PI / 180, 'deg/s', 'dps'),
  ),
  linearSpeed: q(
    'linearSpeed',
    'speed along a line',
    'm/s',
    u('m/s', 1),
    u('mm/s', 1e-3),
    u('in/s', INCH),
    u('m/min', 1 / 60),
  ),
  acceleration: q(
    'acceleration',
    'rotational acceleration',
    'rad/s²',
    u('rad/s²', 1, 'rad/s2', 'rad/s^2'),
    u('°/s²', Math.PI / 180, 'deg/s2', 'deg/s^2', 'deg/s²'),
    u('rev/s²', TAU, 'rev/s2', 'rev/s^2'),
  ),
  inertia: q(
    'inertia',
    'moment of inertia',
    'kg·cm²',
    u('kg·m²', 1, 'kg·m2', 'kgm2', 'kgm²', 'kg·m^2'),
    u('kg·cm²', 1e-4, 'kg·cm2', 'kgcm2', 'kgcm²', 'kg·cm^2'),
    u('g·cm²', 1e-7, 'g·cm2', 'gcm2', 'gcm²', 'g·cm^2'),
  ),
  stiffness: q(
    'stiffness',
    'torsional stiffness',
    'N·m/°',
    u('N·m/rad', 1, 'Nm/rad'),
    u('N·m/°', 180 / Math.PI, 'Nm/deg', 'N·m/deg', 'Nm/°'),
    u('N·m/′', 10800 / Math.PI, 'Nm/arcmin', 'N·m/arcmin', 'Nm/′', "Nm/'", "N·m/'"),
    u('kgf·cm/°', (KGF * 1e-2 * 180) / Math.PI, 'kgf·cm/deg'),
  ),
  speedConstant: q(
    'speedConstant',
    'speed constant',
    'rpm/V',
    u('rad/s/V', 1, 'rad/(s·V)'),
    u('rpm/V', TAU / 60, 'kV'),
  ),
  current: q('current', 'current', 'A', u('A', 1), u('mA', 1e-3)),
  voltage: q('voltage', 'voltage', 'V', u('V', 1), u('mV', 1e-3)),
  resistance: q('resistance', 'resistance', 'Ω', u('Ω', 1, 'ohm', 'ohms'), u('mΩ', 1e-3, 'mohm')),
  inductance: q('inductance', 'inductance', 'mH', u('H', 1), u('mH', 1e-3), u('µH', 1e-6, 'uH')),
  capacitance: q('capacitance', 'capacitance', 'mF', u('F', 1), u('mF', 1e-3), u('µF', 1e-6, 'uF')),
  power: q('power', 'power', 'W', u('W', 1), u('mW', 1e-3), u('kW', 1e3), u('hp', 745.6998715822702)),
  time: q('time', 'time', 's', u('s', 1, 'sec'), u('ms', 1e-3), u('min', 60), u('h', 3600, 'hr')),
  frequency: q('frequency', 'frequency', 'Hz', u('Hz', 1), u('kHz', 1e3)),
  /** A currency is only how the reader's money is written; ¤ stands for any in files of earlier versions. */
  money: q('money', 'money', '€', ...CURRENCIES.map((sign) => u(sign, 1, ...(sign === '€' ? ['¤'] : [])))),
  ratio: q('ratio', 'ratio', ': 1', u(': 1', 1, ':1', 'x', '×')),
  efficiency: q('efficiency', 'fraction', '%', u('', 1), u('%', 1e-2)),
  count: q('count', 'count', '', u('', 1, 'teeth', 'steps')),
  temperature: q(
    'temperature',
    'temperature',
    '°C',
    { symbol: 'K', factor: 1 },
    { symbol: '°C', factor: 1, offset: 273.15, also: ['C', 'degC'] },
    { symbol: '°F', factor: 5 / 9, offset: 255.3722222222222, also: ['F', 'degF'] },
  ),
  thermalResistance: q('thermalResistance', 'thermal resistance', 'K/W', u('K/W', 1, '°C/W')),
  gravity: q('gravity', 'acceleration of gravity', 'm/s²', u('m/s²', 1, 'm/s2', 'm/s^2')),
  forcePerWidth: q('forcePerWidth', 'force per width', 'N/mm', u('N/m', 1), u('N/mm', 1e3), u('lbf/in', LBF / INCH)),
  stiffnessPerWidth: q(
    'stiffnessPerWidth',
    'stiffness per width',
    'N/mm²',
    u('N/m²', 1, 'N/m2', 'Pa'),
    u('N/mm²', 1e6, 'N/mm2', 'MPa'),
  ),
  massPerLengthWidth: q(
    'massPerLengthWidth',
    'mass per length and width',
    'kg/m²',
    u('kg/m²', 1, 'kg/m2'),
    u('g/m/mm', 1),
  ),
  density: q('density', 'density', 'g/cm³', u('kg/m³', 1, 'kg/m3'), u('g/cm³', 1e3, 'g/cm3')),
  jerk: q(
    'jerk',
    'rotational jerk',
    'rad/s³',
    u('rad/s³', 1, 'rad/s3', 'rad/s^3'),
    u('°/s³', Math.PI / 180, 'deg/s3', 'deg/s^3'),
  ),
  linearAcceleration: q(
    'linearAcceleration',
    'acceleration along a line',
    'm/s²',
    u('m/s²', 1, 'm/s2', 'm/s^2'),
    u('mm/s²', 1e-3, 'mm/s2', 'mm/s^2'),
    u('in/s²', INCH, 'in/s2', 'in/s^2'),
  ),
  linearJerk: q(
    'linearJerk',
    'jerk along a line',
    'm/s³',
    u('m/s³', 1, 'm/s3', 'm/s^3'),
    u('mm/s³', 1e-3, 'mm/s3', 'mm/s^3'),
  ),
  stress: q(
    'stress',
    'stress',
    'MPa',
    u('Pa', 1),
    u('MPa', 1e6, 'N/mm²', 'N/mm2'),
    u('GPa', 1e9),
    u('psi', LBF / (INCH * INCH)),
  ),
  life: {
    ...q('life', 'life', 'h', u('s', 1), u('h', 3600, 'hr', 'hours'), u('d', 86400, 'days')),
    beyond: 3.6e9,
    beneath: 36,
  },
  /** Growth of play, radians a million cycles. */
  wear: q(
    'wear',
    'wear',
    '′ a million cycles',
    u('rad a million cycles', 1),
    u('′ a million cycles', Math.PI / 10800),
    u('° a million cycles', Math.PI / 180),
  ),
  pricePerMass: q(
    'pricePerMass',
    'price per mass',
    '€/kg',
    ...CURRENCIES.map((sign) => u(`${sign}/kg`, 1, ...(sign === '€' ? ['¤/kg', '1/kg'] : []))),
  ),
  temperatureRise: q('temperatureRise', 'temperature rise', 'K', u('K', 1, '°C')),
  torqueConstant: q(
    'torqueConstant',
    'torque constant',
    'N·m/A',
    u('N·m/A', 1, 'Nm/A'),
    u('mN·m/A', 1e-3, 'mNm/A'),
    u('ozf·in/A', (LBF / 16) * INCH, 'ozfin/A'),
  ),
  stiffnessPerLength: q(
    'stiffnessPerLength',
    'stiffness along a line',
    'N/mm',
    u('N/m', 1),
    u('N/mm', 1e3),
    u('N/µm', 1e6, 'N/um'),
  ),
  pressureSpeed: q('pressureSpeed', 'pressure times speed', 'MPa·m/s', u('Pa·m/s', 1), u('MPa·m/s', 1e6, 'N/mm²·m/s')),
  area: q('area', 'area', 'mm²', u('m²', 1, 'm2'), u('mm²', 1e-6, 'mm2')),
  damping: q('damping', 'viscous drag', 'N·m·s/rad', u('N·m·s/rad', 1)),
};

/** Units of mass times length, which people write for torque; kept to explain the slip. */
export const MASS_TIMES_LENGTH: Readonly<Record<string, string>> = {
  'kg·cm': 'kgf·cm',
  'kg·m': 'kgf·m',
  'kg·mm': 'kgf·cm',
  'g·cm': 'gf·cm',
  'oz·in': 'ozf·in',
  'lb·in': 'lbf·in',
  'lb·ft': 'lbf·ft',
  'in·lb': 'lbf·in',
  'ft·lb': 'lbf·ft',
  'in·oz': 'ozf·in',
  kgcm: 'kgf·cm',
  kgm: 'kgf·m',
  gcm: 'gf·cm',
  ozin: 'ozf·in',
  lbin: 'lbf·in',
  lbft: 'lbf·ft',
};
