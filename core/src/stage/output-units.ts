import type { QuantityId } from '../units/quantity.ts';

/** What the numbers at a stage's output are quantities of. */
export interface OutputUnits {
  readonly load: QuantityId;
  readonly play: QuantityId;
  readonly stiffness: QuantityId;
  readonly speed: QuantityId;
}

/** An output that turns: N·m, rad, N·m/rad, rad/s. */
export const TURNS: OutputUnits = { load: 'torque', play: 'smallAngle', stiffness: 'stiffness', speed: 'speed' };

/**
 * An output that runs straight: the same numbers are N, m, N/m and m/s. Its "angle" is its way in metres, so that its ratio
 * is the input's angle for a metre.
 */
export const RUNS: OutputUnits = {
  load: 'force',
  play: 'smallLength',
  stiffness: 'stiffnessPerLength',
  speed: 'linearSpeed',
};
