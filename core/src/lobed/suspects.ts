/** Where differences of stages with lobes and pins usually come from. */
export const LOBED = {
  play: {
    above:
      'Lobes made smaller, pins or their circle off by hundredths, or output pins loose in their holes read as play.',
    below: 'Lobes made larger than drawn press on their pins.',
  },
  stiffness: { below: 'Pins bend and their seats give way before the lobes do.' },
  torque: { below: 'Look at pins that bent or came out of their seats, then at the eccentric bearing.' },
} as const;
