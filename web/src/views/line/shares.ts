import { stageKind, type LineReport, type QuantityId } from '@gristmill/core';

export interface SharePart {
  readonly name: string;
  readonly value: number;
}

export interface ShareSet {
  readonly id: string;
  readonly name: string;
  readonly quantity: QuantityId;
  /** The line's figure that the parts add up to. */
  readonly figure: string;
  readonly parts: readonly SharePart[];
}

/** Where play, wind-up, loss, inertia, mass and money come from, from the motor to the output. */
export function sharesOf(report: LineReport, kinds: readonly string[]): ShareSet[] {
  const b = report.beside;
  if (!b) return [];
  const stages = (key: 'play' | 'windUp' | 'loss' | 'inertia' | 'mass' | 'money'): SharePart[] =>
    report.attribution.map((a, i) => ({
      name: `${i + 1} ${stageKind(kinds[i] ?? '')?.name ?? kinds[i] ?? ''}`,
      value: a[key],
    }));
  const shaft = (value: number): SharePart[] => (value > 0 ? [{ name: 'Output shaft', value }] : []);
  const sensors = (value: number): SharePart[] => (value > 0 ? [{ name: 'Sensors', value }] : []);
  const between = (value: number): SharePart[] => (value > 0 ? [{ name: 'Shafts between stages', value }] : []);
  const housing = (value: number): SharePart[] => (value > 0 ? [{ name: 'Housing, shafts, screws', value }] : []);
  return [
    { id: 'play', name: 'Play, likely of each', quantity: 'smallAngle', figure: 'play', parts: stages('play') },
    {
      id: 'windUp',
      name: 'Wind-up, holding',
      quantity: 'smallAngle',
      figure: 'windUp',
      parts: [...stages('windUp'), ...between(b.linkWindUp), ...shaft(b.shaftWindUp)],
    },
    { id: 'loss', name: 'Torque lost at the peak', quantity: 'torque', figure: 'efficiency', parts: stages('loss') },
    {
      id: 'inertia',
      name: 'Inertia at the output',
      quantity: 'inertia',
      figure: 'inertia',
      parts: [{ name: 'Rotor', value: b.rotorInertia }, ...stages('inertia'), ...between(b.linkInertia)],
    },
    {
      id: 'mass',
      name: 'Mass',
      quantity: 'mass',
      figure: 'mass',
      parts: [
        { name: 'Motor', value: b.motorMass },
        ...(b.driveMass > 0 ? [{ name: 'Driver', value: b.driveMass }] : []),
        ...sensors(b.sensorMass),
        ...stages('mass'),
        ...shaft(b.shaftMass),
        ...housing(b.aroundMass),
      ],
    },
    {
      id: 'money',
      name: 'Money',
      quantity: 'money',
      figure: 'money',
      parts: [
        { name: 'Motor', value: b.motorMoney },
        ...(b.driveMoney > 0 ? [{ name: 'Driver and supply', value: b.driveMoney }] : []),
        ...sensors(b.sensorMoney),
        ...stages('money'),
        ...shaft(b.shaftMoney),
        ...housing(b.aroundMoney),
      ],
    },
  ];
}
