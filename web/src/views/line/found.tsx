import { adviceOf, AIM_WORDS, formatQuantity, stageKind, type Aim, type FoundLine } from '@gristmill/core';
import { Said } from '../../parts/Said.tsx';
import { useUnits } from '../../state/prefs.ts';
import { useWritten } from '../../state/straight.tsx';

/** A line by its mechanisms, from the motor to the output. */
export const namesOf = (stages: FoundLine['stages']): string =>
  stages.map((s) => stageKind(s.kind)?.name.toLowerCase() ?? s.kind).join(', ');

/** One number of a found line as it is written. */
export function AimText({ line, aim }: { line: FoundLine; aim: Aim }) {
  const write = useWritten();
  return <>{write(line.aims[aim], AIM_WORDS[aim].quantity, 3)}</>;
}

/** What of a line lies in the drawer, and what that saves. */
export function There({ line }: { line: FoundLine }) {
  const units = useUnits();
  if (!line.there) return null;
  const saves = line.there.reduce((s, x) => s + x.saves, 0);
  return (
    <p className="label">
      In the drawer:{' '}
      {line.there
        .map((x) => (x.there < x.needed ? `${x.there} of ${x.needed} × ${x.name}` : `${x.needed} × ${x.name}`))
        .join(', ')}
      . The price is without {formatQuantity(saves, 'money', units, 3)} for that.
    </p>
  );
}

/** What the lines found say about choosing among them. */
export function Advice({ lines }: { lines: readonly FoundLine[] }) {
  const list = adviceOf(lines);
  if (list.length === 0) return null;
  return (
    <section aria-label="What they say" className="pt-2">
      <h2 className="rule-b pb-0.5">What they say</h2>
      <ul className="list-disc pl-4 text-[13px]">
        {list.map((x) => (
          <li key={x}>
            <Said>{x}</Said>
          </li>
        ))}
      </ul>
    </section>
  );
}
