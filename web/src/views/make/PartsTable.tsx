import { formatQuantity, type Part } from '@gristmill/core';
import type { ReactNode } from 'react';
import { Said } from '../../parts/Said.tsx';
import { useUnits } from '../../state/prefs.ts';

/** Parts with what each is, weighs and costs; what is told of its files is the caller's. */
export function PartsTable<P extends Pick<Part, 'id' | 'name' | 'quantity' | 'material' | 'mass' | 'money' | 'note'>>({
  parts,
  files,
}: {
  parts: readonly P[];
  files: (part: P) => ReactNode;
}) {
  const units = useUnits();
  return (
    <table className="w-full">
      <thead>
        <tr>
          <th>part</th>
          <th className="text-right">quantity</th>
          <th>made</th>
          <th className="text-right">mass</th>
          <th className="text-right">money</th>
          <th className="pr-0 text-right">files</th>
        </tr>
      </thead>
      {parts.map((p) => (
        <tbody key={p.id} className="rule-b" data-part={p.id}>
          <tr>
            <td className="!pb-0">
              <b>{p.name}</b>
            </td>
            <td className="num text-right">{p.quantity}</td>
            <td>{p.material}</td>
            <td className="num whitespace-nowrap text-right">
              {p.mass > 0 ? formatQuantity(p.mass, 'mass', { mass: 'g', ...units }, 3) : '—'}
            </td>
            <td className="num whitespace-nowrap text-right">
              {p.money > 0 ? formatQuantity(p.money, 'money', units, 3) : '—'}
            </td>
            <td className="whitespace-nowrap pr-0 text-right">{files(p) ?? <span className="label">bought</span>}</td>
          </tr>
          <tr>
            <td colSpan={6} className="label !pt-0">
              <Said>{p.note}</Said>
            </td>
          </tr>
        </tbody>
      ))}
    </table>
  );
}
