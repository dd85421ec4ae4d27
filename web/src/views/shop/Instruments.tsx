import { QuantityField } from '../../parts/QuantityField.tsx';
import { useShop } from '../../state/shop.ts';
import { putOn, takeOff } from './edits.ts';

/** What reads a measurement, with its resolution and largest error. */
export function Instruments() {
  const shelf = useShop((s) => s.shelf);
  const edits = useShop((s) => s.edits);
  const put = (id: string, part: { resolution?: number; error?: number }) => {
    const i = shelf.instruments.find((x) => x.id === id)!;
    putOn('instruments', { ...i, ...part, source: 'set in the shop' });
  };
  return (
    <section aria-label="Instruments" className="pb-6">
      <div className="border-b border-strong pb-1"><h2>Instruments</h2></div>
      <table className="w-full">
        <thead><tr><th>instrument</th><th>measures</th><th className="text-right">resolution</th><th className="text-right">largest error</th><th>where it comes from</th><th><span className="sr-only">Reset</span></th></tr></thead>
        <tbody>
          {shelf.instruments.map((i) => (
            <tr key={i.id} className="rule-b">
              <td>{i.name}</td><td>{i.measures}</td>
              <td className="w-[120px]"><QuantityField label={`${i.name}, resolution`} hideLabel quantity={i.measures} value={i.resolution} min={1e-9} max={10} step={i.resolution} onChange={(v) => put(i.id, { resolution: v })} /></td>
              <td className="w-[120px]"><QuantityField label={`${i.name}, error`} hideLabel quantity={i.measures} value={i.error} min={0} max={10} step={i.resolution} onChange={(v) => put(i.id, { error: v })} /></td>
              <td className="label">{i.source}</td>
              <td className="pr-0 text-right">{edits.instruments?.some((x) => x.id === i.id) ? <button type="button" className="btn-quiet" aria-label={`Reset ${i.name}`} onClick={() => takeOff('instruments', i.id)}>Reset</button> : null}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
