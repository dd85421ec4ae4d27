import { displayUnit, QUANTITIES } from '@gristmill/core';
import { ChoiceField } from '../../parts/ChoiceField.tsx';
import { usePrefs } from '../../state/prefs.ts';

/** The unit each quantity is shown in. */
export function Units() {
  const { units, setUnit } = usePrefs();
  const shown = Object.values(QUANTITIES).filter((q) => q.units.length > 1 && q.id !== 'count');
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
    </section>
  );
}
