import { displayUnit, QUANTITIES, type Comma, type DecimalSign } from '@gristmill/core';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { usePrefs } from '../../state/prefs.ts';

const COMMAS: readonly { readonly value: Comma; readonly label: string }[] = [
  { value: 'ask', label: 'is asked about' },
  { value: 'decimals', label: 'is a decimal point' },
  { value: 'thousands', label: 'parts thousands' },
];

/** The unit each quantity is shown in. */
export function Units() {
  const { units, setUnit, comma, decimal, setDecimal, set } = usePrefs();
  const shown = Object.values(QUANTITIES).filter(
    (q) => q.units.length > 1 && q.id !== 'count' && q.id !== 'pricePerMass',
  );
  return (
    <section aria-label="Units" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>Units on screen</h2>
        <span className="label">any unit can be typed anywhere; these are the ones shown</span>
      </div>
      <div className="grid grid-cols-3 gap-x-10 gap-y-1 pt-2">
        {shown.map((q) => (
          <ChoiceField
            key={q.id}
            label={q.name[0]!.toUpperCase() + q.name.slice(1)}
            value={displayUnit(q.id, units).symbol}
            options={q.units.map((u) => ({ value: u.symbol, label: u.symbol || '1' }))}
            onChange={(v) => setUnit(q.id, String(v))}
          />
        ))}
      </div>
      <div className="mt-3 max-w-[420px] border-t border-strong pt-2">
        <ChoiceField
          label="Numbers are written with"
          value={decimal}
          options={[
            { value: '.', label: 'a point: 1.5' },
            { value: ',', label: 'a comma: 1,5' },
          ]}
          onChange={(v) => setDecimal(v as DecimalSign)}
        />
        <ChoiceField
          label="A comma before three digits"
          value={comma}
          disabled={decimal === ','}
          options={COMMAS}
          onChange={(v) => set({ comma: v as Comma })}
        />
        <p className="label">
          1,250 can be read two ways; 0,125 and 1,25 are always decimals. Holds for fields and files.
        </p>
      </div>
    </section>
  );
}
