import { formatQuantity, type QuantityId } from '@gristmill/core';
import { useUnits } from '../../state/prefs.ts';
import { useShop } from '../../state/shop.ts';

/** Belt sections by designation. */
export function Belts() {
  const { shelf } = useShop();
  const units = useUnits();
  const say = (v: number, q: QuantityId) => formatQuantity(v, q, units, 4);
  return (
    <section aria-label="Belt sections" className="pb-6">
      <div className="flex items-baseline justify-between border-b border-strong pb-1">
        <h2>Belt sections</h2>
        <span className="label">ratings are factors below, under the section’s name</span>
      </div>
      <table className="w-full">
        <thead>
          <tr>
            <th>section</th>
            <th>standard</th>
            <th className="text-right">pitch</th>
            <th className="text-right">tooth</th>
            <th className="text-right">pitch-line offset u</th>
            <th>widths</th>
            <th className="text-right">closed lengths</th>
            <th className="text-right">least teeth</th>
          </tr>
        </thead>
        <tbody>
          {shelf.sections.map((s) => (
            <tr key={s.id} className="rule-b">
              <td>{s.name}</td>
              <td>{s.standard}</td>
              <td className="num text-right">{say(s.pitch, 'length')}</td>
              <td className="num text-right">{say(s.toothHeight, 'length')}</td>
              <td className="num text-right">{say(s.offset, 'length')}</td>
              <td className="num">{s.widths.map((w) => formatQuantity(w, 'length', units, 3)).join(', ')}</td>
              <td className="num text-right">
                {s.stock.length}: {s.stock[0]}–{s.stock[s.stock.length - 1]} teeth
              </td>
              <td className="num text-right">{s.minTeeth}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
