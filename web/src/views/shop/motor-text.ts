import { formatQuantity, type Motor, type UnitChoice } from '@gristmill/core';

/** The one figure that tells motors of a type apart, and the current they are driven with. */
export function motorText(m: Motor, units: UnitChoice): { size: string; current: string } {
  switch (m.type) {
    case 'stepper':
      return {
        size: formatQuantity(m.holdTorque, 'torque', units, 3),
        current: formatQuantity(m.ratedCurrent, 'current', units, 3),
      };
    case 'servo':
      return {
        size: formatQuantity(m.ratedTorque, 'torque', units, 3),
        current: formatQuantity(m.ratedCurrent, 'current', units, 3),
      };
    default:
      return {
        size: formatQuantity(m.speedConstant, 'speedConstant', units, 3),
        current: formatQuantity(m.peakCurrent, 'current', units, 3),
      };
  }
}
