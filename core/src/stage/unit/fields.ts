import type { FieldSpec } from '../contract.ts';
import type { UnitParams } from './params.ts';

const minute = Math.PI / 10800;

/** How a person enters a data sheet. */
export const unitFields: readonly FieldSpec<UnitParams>[] = [
  { as: 'text', path: 'designation', label: 'Called', group: 'Turning', help: 'Standard designation, or your own name for it.', maxLength: 80 },
  { as: 'quantity', path: 'ratio', label: 'Ratio', group: 'Turning', quantity: 'ratio', help: 'Input speed over output speed; negative where the output turns the other way.', step: 1 },
  { as: 'choice', path: 'form', label: 'Output lies', group: 'Turning', help: 'In line with the input, beside it, or at a right angle.', options: () => [{ value: 'inline', label: 'in line' }, { value: 'beside', label: 'beside' }, { value: 'angle', label: 'at a right angle' }] },
  { as: 'quantity', path: 'efficiency', label: 'Efficiency', group: 'Losses', quantity: 'efficiency', help: 'Forwards, under load.', step: 0.01 },
  { as: 'quantity', path: 'backEfficiency', label: 'Turned back', group: 'Losses', quantity: 'efficiency', help: 'Efficiency driven from the output; 0 or less holds itself, as a worm of small lead does.', step: 0.01 },
  { as: 'quantity', path: 'drag', label: 'No-load torque', group: 'Losses', quantity: 'torque', help: 'At the input.', step: 1e-3 },
  { as: 'quantity', path: 'play', label: 'Play, likely', group: 'Stiffness and play', quantity: 'smallAngle', help: 'At the output.', step: minute },
  { as: 'quantity', path: 'playMost', label: 'Play, at most', group: 'Stiffness and play', quantity: 'smallAngle', help: 'What the sheet promises.', step: minute },
  { as: 'quantity', path: 'stiffness', label: 'Stiffness', group: 'Stiffness and play', quantity: 'stiffness', help: 'At the output, input held.', step: 1 },
  { as: 'quantity', path: 'ratedTorque', label: 'Rated torque', group: 'Carries', quantity: 'torque', help: 'At the output, for its rated life.', step: 0.5 },
  { as: 'quantity', path: 'peakTorque', label: 'Short-time torque', group: 'Carries', quantity: 'torque', help: 'At the output, starting and stopping.', step: 0.5 },
  { as: 'quantity', path: 'ratedSpeed', label: 'Rated input speed', group: 'Carries', quantity: 'speed', help: 'At which the life is rated.', step: 10 },
  { as: 'quantity', path: 'ratedLife', label: 'Rated life', group: 'Carries', quantity: 'life', help: 'At rated torque and speed; 0 where the sheet is silent.', step: 1.8e6 },
  { as: 'quantity', path: 'maxSpeed', label: 'Highest input speed', group: 'Carries', quantity: 'speed', help: 'Never above it.', step: 10 },
  { as: 'quantity', path: 'outside', label: 'Outside', group: 'Body', quantity: 'length', help: 'Diameter or side.', step: 1e-3 },
  { as: 'quantity', path: 'length', label: 'Length', group: 'Body', quantity: 'length', help: 'Along the axis.', step: 1e-3 },
  { as: 'quantity', path: 'centre', label: 'Axis to axis', group: 'Body', quantity: 'length', help: 'From input to output.', when: (p) => p.form === 'beside', step: 1e-3 },
  { as: 'quantity', path: 'bore', label: 'Hollow passage', group: 'Body', quantity: 'length', help: 'Clear along the output axis; 0 for none.', step: 1e-3 },
  { as: 'quantity', path: 'inertia', label: 'Inertia at the input', group: 'Body', quantity: 'inertia', help: 'Of everything that turns.', step: 1e-7 },
  { as: 'quantity', path: 'mass', label: 'Mass', group: 'Body', quantity: 'mass', help: 'Of the whole unit.', step: 0.05 },
  { as: 'quantity', path: 'price', label: 'Price', group: 'Body', quantity: 'money', help: 'As paid.', step: 1 },
];
