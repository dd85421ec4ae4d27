import { AIM_WORDS, formatQuantity, stageKind, type Aim, type FoundLine } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';

/** A line by its mechanisms, from the motor to the output. */
export const namesOf = (stages: FoundLine['stages']): string =>
  stages.map((s) => stageKind(s.kind)?.name.toLowerCase() ?? s.kind).join(', ');

/** One number of a found line as it is written. */
export function AimText({ line, aim }: { line: FoundLine; aim: Aim }) {
  const units = useUnits();
  return <>{formatQuantity(line.aims[aim], AIM_WORDS[aim].quantity, units, 3)}</>;
}
