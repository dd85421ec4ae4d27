/** Where differences of strain waves usually come from. */
export const WAVE = {
  play: {
    above:
      'A ring out of round, or a generator with room in its spline, leaves the teeth more than they are drawn with.',
    below: 'A generator that presses harder than drawn closes the teeth.',
  },
  stiffness: { below: 'The cup’s wall and the generator’s rollers give way before the teeth do.' },
  torque: { below: 'Teeth that skipped tell that generator, ring or wall gave way: look for marks on their tips.' },
} as const;
