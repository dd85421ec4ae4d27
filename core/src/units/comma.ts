/** What a comma before three digits stands for, as a reader prefers it: asked where it can be both. */
export type Comma = 'ask' | 'decimals' | 'thousands';

/** Whether a number could be read both ways: 1,250 is one and a quarter, or twelve hundred and fifty. */
export const twoWays = (number: string): boolean => /^[+\-−]?[1-9]\d{0,2},\d{3}$/.test(number.trim());
