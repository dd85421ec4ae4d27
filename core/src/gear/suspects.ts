/** Where differences of stages with toothed wheels usually come from, whatever their arrangement. */
export const TOOTHED = {
  play: {
    above: 'Teeth made thinner or axes set further apart than drawn, or a wheel loose on its shaft, read as play.',
    below: 'Teeth made thicker than drawn bind before they have run in.',
  },
  stiffness: { below: 'Pins, their seats, or a wheel’s hold on its shaft give way besides the teeth.' },
  torque: { below: 'Look at the roots of the plastic wheels, then at wheels that slip on their shafts.' },
} as const;
