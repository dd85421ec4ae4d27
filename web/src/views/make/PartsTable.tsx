import { formatQuantity, type Part } from '@gristmill/core';
import { getCoreRowModel, getSortedRowModel, useReactTable, type ColumnDef } from '@tanstack/react-table';
import { useMemo, type ReactNode } from 'react';
import { Said } from '../../parts/Said.tsx';
import { SortHead } from '../../parts/SortHead.tsx';
import { useUnits } from '../../state/prefs.ts';

/** What parts can be sorted by: names as they are read, the most of the rest first. */
const COLUMNS: ColumnDef<Pick<Part, 'name' | 'quantity' | 'material' | 'mass' | 'money'>>[] = [
  { accessorKey: 'name', sortingFn: 'alphanumeric' },
  { accessorKey: 'quantity' },
  { accessorKey: 'material', sortingFn: 'alphanumeric' },
  { accessorKey: 'mass' },
  { accessorKey: 'money' },
];

/** Parts with what each is, weighs and costs; what is told of its files is the caller's. */
export function PartsTable<P extends Pick<Part, 'id' | 'name' | 'quantity' | 'material' | 'mass' | 'money' | 'note'>>({
  parts,
  files,
}: {
  parts: readonly P[];
  files: (part: P) => ReactNode;
}) {
  const units = useUnits();
  const data = useMemo(() => [...parts], [parts]);
  // It keeps its own state of sorting; what it gives is asked for at each render.
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data,
    columns: COLUMNS as unknown as ColumnDef<P>[],
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getRowId: (p) => p.id,
  });
  return (
    <table className="w-full">
      <thead>
        <tr>
          <SortHead column={table.getColumn('name')}>part</SortHead>
          <SortHead column={table.getColumn('quantity')} className="text-right">
            quantity
          </SortHead>
          <SortHead column={table.getColumn('material')}>made</SortHead>
          <SortHead column={table.getColumn('mass')} className="text-right">
            mass
          </SortHead>
          <SortHead column={table.getColumn('money')} className="text-right">
            money
          </SortHead>
          <th className="pr-0 text-right">files</th>
        </tr>
      </thead>
      {table.getRowModel().rows.map(({ original: p }) => (
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
