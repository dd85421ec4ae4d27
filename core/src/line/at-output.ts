/**
 * Whether a figure or a check of a line is told at its output, by its id: what is of the motor is not, nor the speed that
 * a stage has at its input.
 *
 * @example atOutput('windUp') // true
 * @example atOutput('motorNeeded') // false
 */
export const atOutput = (id: string): boolean => !/^(motor|sensorless|speed-)/.test(id);
